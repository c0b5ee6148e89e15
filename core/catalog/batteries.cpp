#include "catalog/batteries.h"

#include "catalog/shipped.h"

namespace yr {
namespace {

Table pairs(const nlohmann::json& rows) {
    Table t;
    for (const auto& row : rows) t.emplace_back(row[0].get<double>(), row[1].get<double>());
    return t;
}

}  // namespace

const ChemistryData& chemistry_data(Chemistry chemistry) {
    static const std::vector<ChemistryData> all = [] {
        std::vector<ChemistryData> list;
        const nlohmann::json file = shipped_table("batteries.json");
        for (const auto& c : file.at("chemistries"))
            list.push_back({c.at("name").get<std::string>(), pairs(c.at("ocv")),
                            pairs(c.at("acceptance_per_Ah")), c.at("charge_below_0C").get<bool>(),
                            c.at("source").get<std::string>()});
        return list;
    }();
    return all[static_cast<std::size_t>(chemistry)];
}

const char* name_of(Chemistry chemistry) {
    return chemistry_data(chemistry).name.c_str();
}

}  // namespace yr
