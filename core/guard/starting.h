// What happens in the first seconds after something is switched on: the bus dips, contactors may let go,
// fuses warm up. A differential-algebraic system (node volts algebraic; motors, filaments, capacitors and the
// batteries' slow parts in time), followed by an error-controlled stiff method, with events located between
// its steps.
//
//   motor      winding (nominal volts / inrush) in series with an electromotive force that grows by what the
//   current
//              exceeds the running one: the same as a capacitor across a current sink
//   lamp       a filament at a tenth of its hot resistance that warms with the power it takes
//   capacitor  the input capacitors of an inverter behind their own resistance, empty at first
//   step       full draw at once
// Left out: cable inductance, which softens the first millisecond.
#pragma once

#include <atomic>
#include <string>
#include <vector>

#include "solve/settle.h"

namespace yr {

struct StartAsk {
    std::size_t state = 0;
    std::vector<Id> starts;  // loads and inverters that come on at 0 s; empty: all that run in this state
    double seconds = 3;      // how long it is watched, above 0
};

enum class StartEventKind {
    lets_go,   // contactor or relay with a coil
    cuts_off,  // cut-off, sensing relay, enable of a converter, an inverter's own
    too_low    // a load falls below its least volts
};

struct StartEvent {
    double t_s = 0;
    Id device;
    double volts = 0;  // that it measures
    StartEventKind kind{};
};

struct FuseWarming {
    std::size_t run = 0;
    Id device;
    double peak_A = 0;
    double i2t_A2s = 0;
    double used = 0;  // 1: its earliest opening is reached; sum of dt / earliest time at that current
};

struct StartStudy {
    bool finished = false;    // false: it ends at the last time given, since it failed, was cancelled or took
                              // more steps than it may
    Id bus;                   // whose posts bus_V is of: the first battery, else the first source
    std::vector<double> t_s;  // rising; the first is 0, just after switching on
    std::vector<double> bus_V;
    std::vector<double> total_A;              // of all that starts
    std::vector<Id> loads;                    // those that had volts before or have them at the end
    std::vector<std::vector<double>> load_V;  // by load, by time
    std::vector<std::vector<double>> run_A;   // by run, by time
    std::vector<FuseWarming> fuses;           // that carry something, the most used first
    std::vector<StartEvent> events;
    double before_V = 0, least_bus_V = 0;
};

// Failure: missing_reference for a starter that is not in the plan or does not run in this state;
// out_of_range for `seconds`.
[[nodiscard]] Result<StartStudy> study_start(const Plan& plan, const StartAsk& ask,
                                             const std::atomic<bool>* cancel = nullptr);

}  // namespace yr
