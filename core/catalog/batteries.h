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
    Table R0_factor;                     // charge 0..1 -> resistance against the full battery's
    double ocv_V_per_K = 0;              // of a 12 V battery, from 25 C
    double acceptance_halves_per_K = 0;  // below 25 C; 0: it does not shrink
    double peukert = 1.1;
    double charge_most_V = 14.8;  // of a 12 V battery, highest charging volts
    double forced_V = 16;         // of a 12 V battery: above, it takes whatever its resistance lets in
    std::string more;             // source of these
    std::string source;
    // In time.
    double charge_efficiency = 1;      // share of what is put in that comes out again
    double self_discharge = 0;         // share of its charge lost in 30 days
    double rc1_share = 0, rc1_s = 30;  // resistance of each branch against its own, and how fast it sags
    double rc2_share = 0, rc2_s = 600;
    double warms_in_s = 21600;  // time constant against the air
    Table cycle_life;           // depth 0..1 -> cycles until 80 % of the capacity are left
};

[[nodiscard]] const ChemistryData& chemistry_data(Chemistry chemistry);
[[nodiscard]] const char* name_of(Chemistry chemistry);

// Share of its acceptance at 25 C that a battery keeps at that temperature.
[[nodiscard]] double cold_acceptance(const ChemistryData& chemistry, double temperature_C);

// Capacity at 20 h that a reserve of so many minutes at 25 A implies: Peukert's t = H (C / (I H))^n solved
// for C.
[[nodiscard]] double capacity_from_reserve_Ah(double reserve_min, double peukert);

// Hours until `share` of the capacity is used at a steady current: Peukert above the 20 h rate, flat below
// it.
[[nodiscard]] double hours_for_share(double share, double capacity_Ah, double current_A, double peukert);

}  // namespace yr
