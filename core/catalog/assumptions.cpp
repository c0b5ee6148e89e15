#include "catalog/assumptions.h"

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
        return list;
    }();
    return all;
}

const Assumption& assumption(std::string_view key) {
    for (const Assumption& a : all_assumptions())
        if (a.key == key) return a;
    throw std::logic_error("no shipped assumption " + std::string(key));
}

}  // namespace yr
