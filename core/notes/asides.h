// What a line says beside its thing and what changes nothing of the circuit: where in the vehicle, which of
// its kind, how good: "under the counter", "1.5 m from the bulkhead", "golf". It is kept as the thing's note
// and told. Whatever may join, feed, switch or protect is none of it: that stays not understood.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "notes/several.h"

namespace yr {

// The line without where its thing stands.
[[nodiscard]] WithoutRemark without_whereabouts(const Plan& plan, std::string_view line);

// Whether these words of a line can be set aside as a note. None that stands before a figure can: it says
// what the figure is of.
[[nodiscard]] bool only_beside(const Plan& plan, const std::vector<std::string>& words,
                               std::string_view line);

}  // namespace yr
