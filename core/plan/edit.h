// Changes to a plan as values. apply() makes the change and gives back the change that undoes it: the one way
// in which a plan is altered, by the application's undo commands and by tests alike.
#pragma once

#include <cstddef>
#include <optional>
#include <variant>
#include <vector>

#include "plan/lists.h"
#include "units/result.h"

namespace yr {

// Replaces the thing with the same id, or inserts it (at `index`, or at the end).
template <class T>
struct Put {
    T thing;
    std::optional<std::size_t> index;
};

template <class T>
struct Remove {
    Id id;
};

struct SetVehicle {
    Vehicle vehicle;
};
struct SetPolicy {
    Policy policy;
};

struct SetSurvey {
    Survey survey;
};
struct SetActive {  // which variant is shown; empty: none
    Id variant;
};

struct Edit;
struct Batch {  // several edits as one
    std::vector<Edit> edits;
};

template <class List>
struct EditOf;
template <class... T>
struct EditOf<TypeList<T...>> {
    using type = std::variant<Put<T>..., Put<PanelSwitch>, Put<Accepted>, Put<Mark>, Put<Variant>,
                              Remove<T>..., Remove<PanelSwitch>, Remove<Accepted>, Remove<Mark>,
                              Remove<Variant>, SetVehicle, SetPolicy, SetSurvey, SetActive, Batch>;
};

struct Edit : EditOf<Things>::type {
    using Kinds = EditOf<Things>::type;
    using Kinds::Kinds;
    YR_SPECIAL_MEMBERS(Edit)
};

// Applies and returns the inverse. Failure: missing_reference for removing what is not there, and
// validate()'s codes for what the edit broke; the plan is then as it was.
[[nodiscard]] Result<Edit> apply(Plan& plan, const Edit& edit);

// The same without a check of the whole plan, for a step on the way of many: who takes them checks where they
// end, by apply() of all of them as one Batch. False: `plan` is not fit for use.
[[nodiscard]] bool apply_step(Plan& plan, const Edit& edit);

// Whether an edit changes what all variants share: vehicle, rules, survey, panel labels, the variants
// themselves.
[[nodiscard]] bool is_shared(const Edit& edit);

// Removing a load, point, battery, source or inverter takes the runs that end on it along, and what others
// say of it: coils, circuits in conditions, tapped fuses.
[[nodiscard]] Edit remove_with_runs(const Plan& plan, const Id& id);

}  // namespace yr
