// Typical alternators, batteries, starters and straps without a brand, to begin from.
// data/catalog/shelf.json.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "catalog/batteries.h"
#include "units/wire_size.h"

namespace yr {

struct ShelfAlternator {
    std::string name;
    double rated_A = 0, idle_A = 0;
};
struct ShelfBattery {
    std::string name;
    Chemistry chemistry{};
    double capacity_Ah = 0;
    std::optional<double> cranking_A, R0_ohm;
};
struct ShelfStarter {
    std::string name;
    double ohm = 0;  // turning, warm
};
struct ShelfStrap {
    std::string name;
    WireSize size = WireSize::metric(16);
    double length_m = 0;
};

struct Shelf {
    std::vector<ShelfAlternator> alternators;
    std::vector<ShelfBattery> batteries;
    std::vector<ShelfStarter> starters;
    std::vector<ShelfStrap> straps;
};

[[nodiscard]] const Shelf& shelf();

}  // namespace yr
