// Reads quantities the way people write them: "90 W", "4.5 ft", "4,5 m", "2x 90 W", "15A", "3 %", "105C".
// Everything inside the program is SI; the unit is in the name of each variable (length_m, drop_V).
#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "units/result.h"

namespace yr {

enum class Dimension {
    number,       // no unit
    current,      // A
    voltage,      // V
    power,        // W
    resistance,   // ohm
    length,       // m
    area,         // mm2 (the field's unit for copper)
    temperature,  // degrees Celsius
    charge,       // Ah
    fraction,     // 0.03 for "3 %"
    time,         // s
    speed         // rev/min
};

// A value in the base unit of its dimension (as listed above), with how many of them were asked for.
struct Quantity {
    double value = 0;
    Dimension dimension = Dimension::number;
    int count = 1;  // 2 for "2x 90 W"
};

// Reads one quantity. `assumed` says which dimension a bare number has ("15" where amps are asked for).
// A comma before exactly the last digits is a decimal comma ("4,5 m"); thousands separators are not read.
// Failure: empty, not_a_number, unknown_unit.
[[nodiscard]] Result<Quantity> parse_quantity(std::string_view text, Dimension assumed = Dimension::number);

// As above, but the dimension must be `wanted` and the count 1. Failure also: wrong_dimension.
[[nodiscard]] Result<double> parse_value(std::string_view text, Dimension wanted);

// What was read off a meter: "12.345" V is no twelve thousand volts. Of two readings of a figure the one that
// a vehicle can have, 100 V and 1000 A at most; where it can have both, as parse_value().
[[nodiscard]] Result<double> parse_reading(std::string_view text, Dimension wanted);

// The factor and offset to the base unit: base = value * factor + offset. Unknown spellings give nullopt.
struct UnitInfo {
    Dimension dimension = Dimension::number;
    double factor = 1;
    double offset = 0;
};
[[nodiscard]] std::optional<UnitInfo> find_unit(std::string_view spelling);

// Reads a number at the start of `text` and removes it from there; nullopt and unchanged when there is none.
// "1,500" and "1.500" may be fifteen hundred or one and a half: a comma or point with exactly three digits
// behind it and one to three before. Both readings, the larger first; empty where there is but one ("0.005",
// "12.5", "1.2500").
[[nodiscard]] std::optional<std::pair<double, double>> two_readings(std::string_view text);

[[nodiscard]] std::optional<double> take_number(std::string_view& text);

// The base unit's name for an error message ("amps"), English, for the place where an error is made.
[[nodiscard]] const char* dimension_word(Dimension dimension);

inline constexpr double kMetresPerFoot = 0.3048;  // exact, international foot 1959
inline constexpr double kMetresPerInch = 0.0254;  // exact

}  // namespace yr
