#include "typing/battery_words.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

#include "plan/rail_volts.h"
#include "units/text.h"

namespace yr {
namespace {

template <std::size_t N>
bool among(std::string_view word, const std::array<const char*, N>& words) {
    return std::any_of(words.begin(), words.end(), [&](const char* w) { return word == w; });
}

// "leisure" of "leisure bank"; empty for "battery" alone.
std::optional<std::string_view> kind_said(std::string_view words) {
    static constexpr std::array kThings = {"battery", "batteries", "bank", "batt", "battery bank"};
    if (among(words, kThings)) return std::string_view();
    for (const std::string_view thing : {" battery bank", " battery", " batteries", " bank", " batt"})
        if (words.ends_with(thing)) return words.substr(0, words.size() - thing.size());
    return std::nullopt;
}

std::optional<Chemistry> chemistry_said(std::string_view word) {
    if (word == "lithium" || word == "lifepo4" || word == "lfp") return Chemistry::lifepo4;
    if (word == "agm") return Chemistry::agm;
    if (word == "gel") return Chemistry::gel;
    return std::nullopt;
}

// What is lived with.
constexpr std::array kSecond = {"second",    "rear",    "other",   "aux",      "auxiliary",
                                "house",     "leisure", "service", "domestic", "equipment",
                                "secondary", "coach",   "camper"};

}  // namespace

bool battery_is_free(const Plan& plan) {
    if (plan.batteries.size() != 1) return false;
    const Battery& only = plan.batteries.front();
    return !only.capacity_Ah && !only.cranking_A && only.name != kVehicleBattery;
}

Id battery_meant_by(const Plan& plan, std::string_view words) {
    const auto kind = kind_said(words);
    if (!kind || plan.batteries.empty()) return {};
    static constexpr std::array kFirst = {"",     "starter", "start",   "starting", "engine", "cranking",
                                          "main", "first",   "vehicle", "chassis",  "crank"};
    if (words == "bank" || words == "battery bank") return plan.batteries.back().id;
    // "house battery" of the one that is called "house bank", "lab bank" of the one that is called "lab
    // battery"
    if (!kind->empty())
        for (const Battery& b : plan.batteries)
            if (const std::string name = to_lower(b.name); kind_said(name) == kind) return b.id;
    if (among(*kind, kFirst)) return plan.batteries.front().id;
    if (among(*kind, kSecond)) return plan.batteries.size() > 1 ? plan.batteries[1].id : Id();
    if (const auto chemistry = chemistry_said(*kind))
        for (const Battery& b : plan.batteries)
            if (b.chemistry == *chemistry) return b.id;
    return {};
}

const Battery& battery_to_charge(const Plan& plan) {
    const auto stores = [&](const Battery& b) { return b.capacity_Ah.value_or(0) * battery_V(plan, b); };
    const Battery* largest = &plan.batteries.back();
    for (std::size_t k = 1; k < plan.batteries.size(); ++k)
        if (stores(plan.batteries[k]) > stores(*largest)) largest = &plan.batteries[k];
    return *largest;
}

const Battery& battery_to_live_from(const Plan& plan) {
    static constexpr std::array kOfEngines = {"port",    "stbd",     "starboard", "start",
                                              "starter", "starting", "engine",    "cranking",
                                              "left",    "right",    "thruster",  "windlass"};
    const Battery* second = nullptr;
    for (std::size_t k = 1; k < plan.batteries.size(); ++k) {
        const Battery& b = plan.batteries[k];
        if (battery_V(plan, b) != plan.vehicle.nominal_V) continue;
        const std::string name = to_lower(b.name);
        const std::string_view kind = kind_said(name).value_or("");
        if (among(kind, kSecond)) return b;
        if (!second && k == 1 && !among(kind, kOfEngines)) second = &b;
    }
    return second ? *second : plan.batteries.front();
}

}  // namespace yr
