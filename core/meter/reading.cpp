#include "meter/reading.h"

#include <cmath>

#include "catalog/assumptions.h"

namespace yr {

double Instrument::last_digit(ReadKind kind, double value) {
    const double size = std::abs(value);
    switch (kind) {
        case ReadKind::volts:
            return size < 0.6 ? 1e-4 : size < 6 ? 1e-3 : size < 60 ? 1e-2 : 0.1;
        case ReadKind::amps:
            return size < 60 ? 0.01 : size < 600 ? 0.1 : 1;
        case ReadKind::ohms:
            return size < 600 ? 0.1 : size < 6000 ? 1 : 10;
    }
    return 0.01;
}

double Instrument::digits_of(ReadKind kind, double value) const {
    return digits * last_digit(kind, value);
}

double Instrument::most_off(ReadKind kind, double value) const {
    return gain * std::abs(value) + digits_of(kind, value);
}

Instrument instrument_of(const Plan& plan) {
    const MeterKind& m = plan.policy.meter;
    return {m.gain.value_or(assumption("meter_gain").value),
            m.digits.value_or(assumption("meter_digits").value),
            m.lead_ohm.value_or(assumption("meter_lead_ohm").value)};
}

}  // namespace yr
