#include "catalog/batteries.h"

#include <cmath>

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
            list.push_back({c.at("name").get<std::string>(),
                            pairs(c.at("ocv")),
                            pairs(c.at("acceptance_per_Ah")),
                            c.at("charge_below_0C").get<bool>(),
                            pairs(c.at("R0_factor")),
                            c.at("ocv_V_per_K").get<double>(),
                            c.at("acceptance_halves_per_K").get<double>(),
                            c.at("peukert").get<double>(),
                            c.at("charge_most_V").get<double>(),
                            c.at("forced_V").get<double>(),
                            c.at("more").get<std::string>(),
                            c.at("source").get<std::string>(),
                            c.at("charge_efficiency").get<double>(),
                            c.at("self_discharge").get<double>(),
                            c.at("rc1_share").get<double>(),
                            c.at("rc1_s").get<double>(),
                            c.at("rc2_share").get<double>(),
                            c.at("rc2_s").get<double>(),
                            c.at("warms_in_s").get<double>(),
                            pairs(c.at("cycle_life"))});
        return list;
    }();
    return all[static_cast<std::size_t>(chemistry)];
}

const char* name_of(Chemistry chemistry) {
    return chemistry_data(chemistry).name.c_str();
}

double cold_acceptance(const ChemistryData& chemistry, double temperature_C) {
    if (!chemistry.charges_below_0C && temperature_C < 0) return 0;
    if (chemistry.acceptance_halves_per_K <= 0 || temperature_C >= 25) return 1;
    return std::exp2((temperature_C - 25) / chemistry.acceptance_halves_per_K);
}

constexpr double kRatedHours = 20;  // capacities are stated for 20 h
constexpr double kReserve_A = 25;   // SAE J537 reserve capacity (from memory)

double capacity_from_reserve_Ah(double reserve_min, double peukert) {
    return kReserve_A * kRatedHours * std::pow(reserve_min / 60 / kRatedHours, 1 / peukert);
}

double hours_for_share(double share, double capacity_Ah, double current_A, double peukert) {
    const double rated_A = capacity_Ah / kRatedHours;
    const double flat = capacity_Ah / current_A;
    return share * (current_A <= rated_A ? flat : flat * std::pow(rated_A / current_A, peukert - 1));
}

}  // namespace yr
