// When something is live, and the states of the vehicle in which that is asked. Part of the plan (plan.h).
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "plan/joining.h"

namespace yr {

enum class Key { off, accessory, ignition, crank };
enum class Engine { any, running, stopped };

// When something is live or closed: all parts must hold, and of `any_of`, where it is not empty, at least
// one. The empty condition always holds. A circuit on accessory drops out while cranking; one on ignition
// stays (common practice).
// Whose warmth a condition feels.
enum class Air { outside, engine_bay };

struct Condition {
    Key key = Key::off;  // at least this far
    Engine engine = Engine::any;
    std::vector<std::string> switches;        // each of these is on
    std::vector<std::string> switches_off{};  // each of these is off
    bool not_cranking = false;                // drops out while the starter turns
    std::optional<double>
        charging_above_V{};           // the first battery stands at this or more: it is being charged
    std::vector<Id> circuits{};       // each of these loads runs
    std::optional<double> delay_s{};  // so long after all the rest holds
    std::vector<Condition> any_of{};  // of key, engine and switches only
    std::optional<double> holds_s{};  // holds on so long after the key was turned back from where it held
    // by the warmth of the air: at or above, at or below; between that and `within_K` back it stays as it
    // came
    std::optional<double> above_C{}, below_C{}, within_K{};
    Air air = Air::outside;
    friend bool operator==(const Condition&, const Condition&) = default;
};

// What a state stands for; `passing` lasts seconds, such as a relay that holds on after the key.
enum class StateRole { parked, towed, cranking, idling, driving, working, passing };

struct State {
    Id id;
    std::string name;
    Key key = Key::off;
    double rpm = 0;  // engine speed, 0 = stopped
    double ambient_C = 25;
    double engine_bay_C = 25;
    std::optional<double> charge;       // 0..1, for every battery; empty: each battery's own
    std::vector<std::string> switches;  // those that are on
    double sun = 0;                     // on solar panels, share of 1000 W/m2
    std::optional<double> line_load{};  // pull on winches and hoists, share of rated; empty: each load's own
    std::vector<Id> closed{};           // relays with a memory that come into this state closed ...
    std::vector<Id> opened{};           // ... and open; others come as their kind usually does
    std::vector<Id> pulled{};           // fuses that are out
    std::optional<StateRole> role{};    // empty: by key and engine, see roles.h
    std::optional<double> lasts_s{};    // a state that passes: so long; empty: assumed
    std::optional<Key> left{};          // a state that passes: where the key stood before
    Remarks remarks{};
    friend bool operator==(const State&, const State&) = default;
};

// What key, engine and switches say. Volts and other circuits are the solver's matter (network/compile), a
// delay that of the start-up; here they count as fulfilled.
// `id`: what is switched by it, for those that stay as they came (State::closed).
[[nodiscard]] bool holds(const Condition& condition, const State& state, const Id& id = {});

// Every switch that a condition names, in order, each once.
[[nodiscard]] std::vector<std::string> switches_of(const Condition& condition);

}  // namespace yr
