// What the tables know of one wire size: copper area, resistance, mass, outside diameter.
// Source of every row: data/catalog/conductors.json.
#pragma once

#include <string_view>
#include <vector>

#include "units/result.h"
#include "units/wire_size.h"

namespace yr {

enum class Material { copper, tinned, cca };

struct Conductor {
    WireSize size = WireSize::awg(10);
    Material material = Material::copper;
    double area_mm2 = 0;  // metal; for a metric size the nominal area (its resistance is not derived from it)
    double R20_ohm_per_m = 0;       // one conductor at 20 C
    double mass_kg_per_m = 0;       // metal only
    double strand_diameter_mm = 0;  // circle around the strands
    double outer_diameter_mm = 0;   // over the insulation
    std::string_view source;        // of the tables, which stay
};

// The temperature coefficient of copper's resistance, per kelvin, referred to 20 C (IEC 60028).
inline constexpr double kCopperAlpha_per_K = 0.00393;

// Failure: unknown_size when no table holds the size.
[[nodiscard]] Result<Conductor> conductor(const WireSize& size, Material material = Material::copper);

// The sizes of one system that can be chosen, thinnest first.
[[nodiscard]] const std::vector<WireSize>& sizes_of(SizeSystem system);

// The next thicker (+1) or thinner (-1) size of the same system that can be chosen; the size itself where
// there is none.
[[nodiscard]] WireSize step_size(const WireSize& size, int steps);

// R = R20 (1 + alpha (T - 20)), ohm per metre.
[[nodiscard]] inline double resistance_ohm_per_m(const Conductor& c, double temperature_C) {
    return c.R20_ohm_per_m * (1 + kCopperAlpha_per_K * (temperature_C - 20));
}

[[nodiscard]] const char* name_of(Material material);

// Insulation wall as the heat balance needs it.
struct InsulationWall {
    double conductivity_W_per_mK = 0.19;
    double emissivity = 0.9;
    double heat_J_per_m3K = 1.7e6;  // PVC, IEC 60853-2 (from memory)
};
[[nodiscard]] InsulationWall insulation_wall();

}  // namespace yr
