// Variants: named other ways to do the same vehicle, stored as what differs from the plan as it stands.
#pragma once

#include "plan/edit.h"

namespace yr {

// The plan with that variant's things put in and its removed ones gone, with what hung on those; with `id`
// empty, or of no variant, the plan as it stands. The result holds no variants of its own and its `active`
// says which it is.
[[nodiscard]] Plan with_variant(const Plan& base, const Id& id);

// The plan that is shown: with_variant(base, base.active), variants kept beside it.
[[nodiscard]] Plan shown_plan(const Plan& base);

// What must be stored so that with_variant(base, ...) gives `changed` again. Vehicle, policy and survey are
// shared and not looked at. The order of things that both have is the base's.
[[nodiscard]] Variant difference(const Plan& base, const Plan& changed, const Id& id,
                                 const std::string& name);

// What an edit of the shown plan is to the plan as it is stored: inside a variant it becomes the variant's.
// Failure: as apply().
[[nodiscard]] Result<Edit> edit_of_stored(const Plan& stored, const Edit& edit);

// The edit by which the stored plan takes the content of `chosen` (one of its variants) and shows it as the
// plan itself. The other variants stay as they differ: each keeps what it had in place of the plan's own.
[[nodiscard]] Edit plan_becomes(const Plan& stored, const Plan& chosen);

// The edit that makes one plan of another: what differs, and nothing else. Variants and survey included.
[[nodiscard]] Edit edit_between(const Plan& before, const Plan& after);

}  // namespace yr
