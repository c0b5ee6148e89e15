// A coded end plug: the mate of a connector with a resistor from each pin to a common lead, so chosen that
// one ohm reading a pin proves the whole loom: every open, every short between two pins, every swap reads
// something else than what is right.
#pragma once

#include <vector>

#include "meter/reading.h"

namespace yr {

struct CodedPlug {
    std::vector<double> ohm;  // by pin from 1, values of the E24 series (IEC 60063)
    double least_apart = 0;   // least ratio between what is right and what any single mistake reads
    bool proved = false;      // every single mistake was tried
};
// As many pins as the series has values for within the ratio in which a meter still tells joined ones apart,
// about twenty; the meter's doubt is kept clear of. Empty for none, or more.
[[nodiscard]] CodedPlug coded_plug(std::size_t pins, const Instrument& meter);

// The most pins that one plug can tell apart with that meter; a larger loom takes several, each with a
// common lead of its own.
[[nodiscard]] std::size_t most_pins(const Instrument& meter);

// What pin `k` reads against the common lead where pins `a` and `b` are joined.
[[nodiscard]] double joined_ohm(const CodedPlug& plug, std::size_t a, std::size_t b, std::size_t k);

struct PlugVerdict {
    enum class Kind { good, open, swapped, joined, unknown } kind = Kind::good;
    std::size_t pin = 0, with = 0;  // from 0
};
// By pin: ohms read. What is wrong at each that is.
[[nodiscard]] std::vector<PlugVerdict> read_plug(const CodedPlug& plug, const std::vector<double>& read_ohm,
                                                 const Instrument& meter);

// By pin; what was not read is empty here and there, and taken for right while the others are judged.
[[nodiscard]] std::vector<std::optional<PlugVerdict>> judge_plug(
    const CodedPlug& plug, const std::vector<std::optional<double>>& read_ohm, const Instrument& meter);

}  // namespace yr
