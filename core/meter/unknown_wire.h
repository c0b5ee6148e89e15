// A wire behind a panel that nobody labelled: constant, switched or timed, and behind which disconnect? What
// it shows as the key is turned and disconnects are opened, which cables of the plan it can be, and what to
// try next.
#pragma once

#include "control/key_positions.h"
#include "meter/reading.h"
#include "units/result.h"

namespace yr {

// What is done before the wire is read again.
struct WireTry {
    KeyPosition key{};
    bool just_after = false;  // the key was turned off from ignition a moment ago, the engine stands
    Id opened{};              // disconnect, by its device
    std::string switched{};   // a switch that is put on
    friend bool operator==(const WireTry&, const WireTry&) = default;
};

// A supply cable of the plan, read at its far end against the first battery's negative.
struct WireChoice {
    Id run;
    std::vector<double> volts_V;  // by try
};

struct WireBook {
    std::vector<WireTry> tries;  // in the order in which they cost least: key, disconnects, switches
    std::vector<WireChoice> wires;
};
// Every try solved once. Positions of the key that the vehicle has; at most kWireOpens disconnects and
// kWireSwitches switches, those that most cables hang on first. A try that does not settle is left out.
[[nodiscard]] WireBook wire_book(const Plan& plan);
inline constexpr std::size_t kWireOpens = 8, kWireSwitches = 12;

// What the wire is by what was read alone, whatever the plan says.
enum class WireKind { not_known, dead, constant, accessory, ignition, running, cranking, timed, by_switch };

struct WireVerdict {
    WireKind kind{};
    bool perhaps_timed = false;         // live with the key, not yet read just after it was turned off
    Id behind{};                        // disconnect whose opening takes its volts
    std::string by{};                   // by_switch
    std::vector<std::size_t> neither;   // tries whose volts are neither there nor not: read with a lamp on it
    std::vector<std::size_t> fits;      // cables of the book that read so in every try made
    std::optional<std::size_t> next{};  // the try that tells most of those apart; empty: none would
    std::size_t leaves = 0;  // cables that are left after it at worst, where it shows volts or none
};
// `read_V` by try of the book; empty: not yet read. What stands between a quarter and half of the wire's
// rail is taken for neither.
[[nodiscard]] WireVerdict judge_wire(const Plan& plan, const WireBook& book,
                                     const std::vector<std::optional<double>>& read_V);

}  // namespace yr
