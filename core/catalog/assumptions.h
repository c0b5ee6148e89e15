// What is taken where a plan is silent. Each value ships in data/catalog/assumptions.json with its source, so
// that a result can name what it rests on and `Why?` can say where the value comes from.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace yr {

struct Assumption {
    std::string key;     // as in the file, unit included: "bond_mohm"
    double value = 0;    // in the unit that the key names
    std::string source;  // published source or "common practice"
};

// The assumption of that key; a key that the shipped file lacks is a broken build and throws
// std::logic_error.
[[nodiscard]] const Assumption& assumption(std::string_view key);
[[nodiscard]] const std::vector<Assumption>& all_assumptions();

}  // namespace yr
