// The one place that turns quantities into text for people: number before unit, a thin space between, at most
// three significant figures, a true minus. Files and JSON carry all digits and do not come here.
#pragma once

#include <string>
#include <utility>

#include "plan/plan.h"
#include "units/quantity.h"
#include "words/say.h"

namespace yr::words {

struct Style {
    LeadUnits units = LeadUnits::metric;  // which of metric and inch/AWG leads
    bool decimal_comma = words::decimal_comma();
};

// "14.5 A", "250 mV", "12.1 V", "3.3 mΩ", "4.5 m" or "14.8 ft", "85 °C", "3.7 %", "1.2 kW".
[[nodiscard]] std::string quantity(double value, Dimension dimension, const Style& style = {});

// A value against its limit, with as many figures as it takes to tell them apart: "10.2 %" and "10 %".
[[nodiscard]] std::pair<std::string, std::string> told_apart(double value, double limit, Dimension dimension,
                                                             const Style& style = {});

// The number alone: at most `figures` significant, no trailing zeros.
[[nodiscard]] std::string number(double value, int figures = 3, bool comma = decimal_comma());

// A value as it goes back into an editable field: all its digits, its unit, readable by parse_quantity.
[[nodiscard]] std::string editable(double value, Dimension dimension, const Style& style = {});

// "3 h 10 min", "45 min", "2 days".
[[nodiscard]] std::string duration_h(double hours);

// "10 AWG (5.26 mm²)" when inch leads, "5.26 mm² (10 AWG)" when metric leads; plain for metric sizes.
[[nodiscard]] std::string wire_size(const WireSize& size, const Style& style = {});

// A short size label for rectangles: "10 AWG", "16 mm²".
[[nodiscard]] std::string short_size(const WireSize& size);

}  // namespace yr::words
