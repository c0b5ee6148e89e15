// A reading: what is measured where, in which state; and how well a hand meter knows it.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "plan/plan.h"

namespace yr {

enum class ReadKind { volts, amps, ohms };

// volts: red against black; black empty: the first battery's negative post. amps: a clamp round `run`, from
// -> to. ohms: red against black with every negative off the batteries.
struct Probing {
    ReadKind kind{};
    Terminal red{}, black{};
    Id run{};
    Id state{};                   // of the plan; ohms: none
    std::vector<Id> unplugged{};  // loads that are off or not there
    friend bool operator==(const Probing&, const Probing&) = default;
};

struct Reading {
    Probing where;
    double value = 0;  // V, A or ohm
};

// What the meter's specification says: gain is one unknown of the meter, the digits are each reading's own.
struct Instrument {
    double gain = 0.005;  // share, at most so much off
    double digits = 3;    // of the last place
    double lead_ohm = 0.2;
    // Size of the last digit of a meter of 6000 counts: 0.1 mV below 0.6 V, 1 mV below 6 V, 10 mV below 60 V;
    // amps by clamp 10 mA below 60 A, else 0.1 A; 0.1 ohm.
    [[nodiscard]] static double last_digit(ReadKind kind, double value);
    [[nodiscard]] double digits_of(ReadKind kind, double value) const;  // digits * last digit
    // The most that a reading may be off.
    [[nodiscard]] double most_off(ReadKind kind, double value) const;
};

// As the plan says, else as is usual.
[[nodiscard]] Instrument instrument_of(const Plan& plan);

}  // namespace yr
