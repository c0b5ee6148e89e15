// The pins that a run passes, as typed into one field: "rear plug 3, 4; front plug 1". What is written is
// read back as the same pins.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "plan/plan.h"
#include "units/result.h"

namespace yr {

[[nodiscard]] std::string typed_pins(const Plan& plan, const std::vector<PinUse>& pins);

// Nothing typed: no pins. Failure: missing_reference with the connector as given, not_a_number with the pin.
[[nodiscard]] Result<std::vector<PinUse>> read_pins(const Plan& plan, std::string_view text);

}  // namespace yr
