// Battery chemistry: open-circuit volts and charge acceptance over charge. Source:
// data/catalog/batteries.json.
#pragma once

#include <string>

#include "catalog/table.h"

namespace yr {

enum class Chemistry { flooded, agm, gel, lifepo4 };

struct ChemistryData {
    std::string name;
    Table ocv_V;              // charge 0..1 -> volts of a 12 V battery at rest
    Table acceptance_per_Ah;  // charge 0..1 -> amps it takes per amp hour of capacity
    bool charges_below_0C = true;
    std::string source;
};

[[nodiscard]] const ChemistryData& chemistry_data(Chemistry chemistry);
[[nodiscard]] const char* name_of(Chemistry chemistry);

}  // namespace yr
