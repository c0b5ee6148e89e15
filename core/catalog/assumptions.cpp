#include "catalog/assumptions.h"

#include <algorithm>
#include <stdexcept>

#include "catalog/shipped.h"

namespace yr {

const std::vector<Assumption>& all_assumptions() {
    static const std::vector<Assumption> all = [] {
        std::vector<Assumption> list;
        const nlohmann::json file = shipped_table("assumptions.json");
        for (const auto& [key, entry] : file.items())
            if (entry.is_object())
                list.push_back({key, entry.at("value").get<double>(), entry.at("source").get<std::string>()});
        std::sort(list.begin(), list.end(),
                  [](const Assumption& a, const Assumption& b) { return a.key < b.key; });
        return list;
    }();
    return all;
}

const Assumption& assumption(std::string_view key) {
    const std::vector<Assumption>& all = all_assumptions();
    const auto at = std::lower_bound(all.begin(), all.end(), key,
                                     [](const Assumption& a, std::string_view k) { return a.key < k; });
    if (at != all.end() && at->key == key) return *at;
    throw std::logic_error("no shipped assumption " + std::string(key));
}

}  // namespace yr
