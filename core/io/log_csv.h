// A logged course of volts and amps, as loggers and battery monitors write it, to be laid under a day.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "units/result.h"

namespace yr {

struct LogPoint {
    double t_s = 0;  // of the clock from midnight where the table says times of day, else from its first row
    std::optional<double> volts_V, amps_A, charge;  // amps: what the battery gives; charge 0..1
};
struct Log {
    std::vector<LogPoint> points;  // in order of time
    bool of_the_clock = false;     // times of day were said
};

// Columns by their heading, in any order: a time ("time", "clock", "seconds", "date"), "V" or "volts", "A" or
// "amps", "charge", "soc" or "%"; others are left out. Times as 06:30, 06:30:15, 2026-03-01 06:30:15,
// 2026-03-01T06:30, or seconds. "charging amps": the sign is turned. Failure: empty without a time and volts
// or amps; not_a_number with line and column.
[[nodiscard]] Result<Log> read_log_csv(const std::string& text);

}  // namespace yr
