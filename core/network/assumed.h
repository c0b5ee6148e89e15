// A value of the plan, or what is assumed for it, with the use noted. For the files of this folder.
#pragma once

#include <optional>
#include <string_view>
#include <vector>

#include "catalog/assumptions.h"
#include "network/network.h"

namespace yr {

[[nodiscard]] inline double or_assumed(const std::optional<double>& given, std::string_view key, const Id& id,
                                       std::vector<AssumptionUse>& uses, double scale = 1) {
    if (given) return *given;
    const double value = assumption(key).value;
    uses.push_back({std::string(key), id, value});
    return value * scale;
}

}  // namespace yr
