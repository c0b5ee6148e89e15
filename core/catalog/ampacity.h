// The continuous current that a table lets a cable carry, with its deratings, each named.
// Sources: ABYC E-11 and ISO 10133 annex as shipped in data/catalog/ampacity.json.
#pragma once

#include <string>

#include "catalog/conductors.h"
#include "units/result.h"

namespace yr {

enum class AmpacityTable { abyc, iso };

struct AmpacityAsk {
    WireSize size = WireSize::awg(10);
    Material material = Material::copper;
    double insulation_C = 105;    // highest conductor temperature of the insulation, above 40
    bool engine_space = false;    // the table's own engine-space factor applies
    double ambient_C = 30;        // hottest air along the cable
    int bundle = 1;               // current-carrying conductors that lie together, itself included
    bool bundle_derating = true;  // some read the bundle table as not binding below 50 V
    AmpacityTable table = AmpacityTable::abyc;
};

struct Ampacity {
    double allowed_A = 0;      // table value times the factors below
    double table_A = 0;        // at the table's ambient, for this insulation
    double surroundings = 1;   // the lower of engine-space factor and ambient correction, never their product
    double engine_factor = 1;  // 1 outside engine spaces
    double ambient_factor =
        1;  // sqrt((T_ins - T_amb) / (T_ins - T_table)), 1 at or below the table's ambient
    double bundle_factor = 1;
    bool interpolated = false;  // the size is not in the table: log-log between its neighbours by copper area
    bool beyond_table = false;  // thinner than its first row or thicker than its last: the same, continued
    bool insulation_scaled =
        false;  // the insulation is not in the table: scaled by sqrt of the temperature rise
    std::string source;
};

// Failure: unknown_size; out_of_range for bundle < 1 or an insulation at or below the table's ambient.
// An ambient at or above the insulation's limit gives 0 A, not a failure.
[[nodiscard]] Result<Ampacity> ampacity(const AmpacityAsk& ask);

[[nodiscard]] double bundle_factor(int conductors);
[[nodiscard]] const char* name_of(AmpacityTable table);

}  // namespace yr
