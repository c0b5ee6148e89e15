#include "catalog/fault_kinds.h"

#include <array>
#include <map>
#include <stdexcept>

#include "catalog/shipped.h"

namespace yr {
namespace {

constexpr std::array<std::string_view, kFaultKinds> kFaultNames{
    "none",       "open",        "fuse",      "contact",      "stuck",       "joint",
    "ground",     "thin",        "leak",      "battery_weak", "battery_low", "charge_none",
    "charge_low", "charge_high", "load_dead", "load_heavy",   "swapped"};

struct FaultTable {
    std::array<FaultPrior, kFaultKinds> priors;
    std::map<std::string, double, std::less<>> minutes;
};

const FaultTable& fault_table() {
    static const FaultTable all = [] {
        FaultTable t;
        const auto file = shipped_table("faults.json");
        for (std::size_t k = 0; k < kFaultKinds; ++k) {
            const auto& x = file.at("faults").at(std::string(kFaultNames[k]));
            t.priors[k] = {x.at("prior"), x.value("least", 0.0), x.value("most", 0.0)};
        }
        for (const auto& [name, minutes] : file.at("minutes").items()) t.minutes[name] = minutes;
        return t;
    }();
    return all;
}

}  // namespace

FaultPrior fault_prior(FaultKind kind) {
    return fault_table().priors[static_cast<std::size_t>(kind)];
}

std::string_view name_of(FaultKind kind) {
    return kFaultNames[static_cast<std::size_t>(kind)];
}

double reading_minutes(std::string_view what) {
    const auto found = fault_table().minutes.find(what);
    if (found == fault_table().minutes.end()) throw std::logic_error("faults.json: " + std::string(what));
    return found->second;
}

std::optional<FaultKind> fault_kind_named(std::string_view name) {
    for (std::size_t k = 0; k < kFaultKinds; ++k)
        if (kFaultNames[k] == name) return static_cast<FaultKind>(k);
    return std::nullopt;
}

}  // namespace yr
