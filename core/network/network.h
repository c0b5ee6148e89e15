// The plan compiled for one state: nodes, and elements between them. Every element knows which thing of the
// plan it came from, so that results refer back to the plan. No element has zero resistance: every run has
// two joints.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "network/thermal_time.h"
#include "plan/plan.h"

namespace yr {

using NodeIndex = int;
inline constexpr NodeIndex kNoNode = -1;

// A value that the plan left open and what was taken for it.
struct AssumptionUse {
    std::string key;   // of data/catalog/assumptions.json
    Id id;             // of the thing that lacked it
    double value = 0;  // in the key's unit
};

enum class PartKind { joint, fuse, switching, cable, metal, bond, diode, pin };

// One piece of a run, in the order of the run; the rail chart draws each as a band.
struct SeriesPart {
    PartKind kind{};
    int device = -1;       // index in Run::devices for fuse and switch
    double fixed_ohm = 0;  // all but the cable
    double forward_V = 0;  // diode
    int connector = -1;    // pin: index in Plan::connectors
};

// Seconds for which cranking is held to last, SAE J537 (from memory).
inline constexpr double kCranking_s = 30;

// What a cable carries comes and goes: its heat is that of its time, not the steady balance.
struct TurnHeat {
    DutyCycle cycle;   // amps of the whole run
    double end_C = 0;  // conductor at the end of the longest turn, once turns repeat
    int load = -1;     // whose turn is the longest, index in the network's list; -1: cranking
};

struct ConductorElement {
    NodeIndex from = kNoNode, to = kNoNode;
    int run = -1;            // index in Plan::runs, or
    int ground_point = -1;   // index in Plan::points for a ground point's bond
    bool closed = true;      // all switches in it
    double forward_V = 0;    // diodes in it, from -> to only; 0: none
    double fixed_ohm = 0;    // joints, fuses, contacts, given resistances
    double cable20_ohm = 0;  // copper at 20 C over its whole length and parallel count
    int parallel = 1;
    CableSurroundings cable;  // for the heat balance; only where cable20_ohm > 0
    std::vector<SeriesPart> parts;
    std::optional<TurnHeat> turn{};  // given by solve/turns.h; empty: it carries what it carries for ever
};

struct BatteryElement {
    NodeIndex pos = kNoNode, neg = kNoNode;
    double open_V = 0;
    double R0_ohm = 0;
    double accept_A = 0;  // the most it takes while charging
    double capacity_Ah = 0;
    double charge = 0;
    double peukert = 1.1;
    double temperature_C = 25;
    double forced_V = 0;  // volts from which on its resistance alone decides what it takes; 0: none
    // What its moment is worked out of: at_moment().
    Chemistry chemistry = Chemistry::flooded;
    double blocks = 1;         // of 12 V
    double full_warm_ohm = 0;  // resistance when full at 25 C, worn as it is
};

// Its open volts, resistance and acceptance at that charge (0..1) and temperature; the rest stays.
void at_moment(BatteryElement& battery, double charge, double temperature_C);

struct SourceElement {
    NodeIndex out = kNoNode, neg = kNoNode, in = kNoNode;  // in: converters only
    bool works = false;
    double set_V = 0;
    double droop_ohm = 0;
    double limit_A = 0;
    double efficiency = 1;
    double standby_W = 0;
    double power_W = 0;  // solar: gives no more than this power; 0: no such limit
};

struct LoadElement {
    NodeIndex pos = kNoNode, neg = kNoNode;
    DrawKind kind = DrawKind::power;
    double value = 0;       // A, W or ohm of all pieces together
    bool wanted = false;    // draws as soon as it has volts
    bool expected = false;  // live_when holds in this state: should run
    int inverter =
        -1;  // a load on mains: index of its inverter, which draws for it; it has no nodes of its own
    bool mains_wanted = false;
    double mains_V = 0, power_factor = 1;
    double duty = 1;  // share of the time for which it runs: counts where hours are asked, not for volts
    double on_s = 0, rest_s = 0;  // its turns of work and the rests between them; on_s 0: runs for ever
    double pulse_share = 1;       // of the time on, so fast that only heat and hours notice
    bool resting = false;         // an inverter that is switched off: takes its off-draw, gives nothing
};

// What decides by what it measures and remembers what it decided. It closes when the volts reach close_V,
// opens when they fall below open_V, and between the two stays as it is.
// charging, circuit: parts of a condition; unpowered: a control unit's output that grounds while the unit has
// no supply.
// box: a cut-off of its own that opens all its channels.
enum class MemoryKind { sensing_relay, cutoff, coil, enable, inverter, charging, circuit, unpowered, box };

struct MemoryElement {
    MemoryKind kind{};
    Id id;                                       // of the device, source or inverter
    int conductor = -1, source = -1, load = -1;  // what it closes or starts; index in the network's list
    std::vector<int> channels{};                 // box: the conductors that it closes together
    bool rests_closed = false;  // coil: the other contact, closed while the coil does not pull
    NodeIndex sense = kNoNode,
              other = kNoNode;  // where it measures, against `against`; `other`: the higher counts
    NodeIndex against = kNoNode;
    int coil_load = -1;  // coil, circuit, unpowered: the load across which it measures, 0 V while that is off
    double sign = 1;     // unpowered: -1, it closes when the volts fall
    double close_V = 0, open_V = 0;
    double delay_s = 0;
    bool closed = false;  // as it comes into this state
};

struct Network {
    std::vector<Terminal> nodes;
    std::vector<ConductorElement> conductors;  // runs first, in the plan's order, then bonds
    std::vector<BatteryElement> batteries;     // in the plan's order, as are sources and loads
    std::vector<SourceElement> sources;
    // the plan's, then one for the input of each inverter, then one for each point's standby draw
    std::vector<LoadElement> loads;
    std::size_t plan_loads = 0, inverters = 0;
    std::vector<int> standby_points;  // of the loads after the inverters: index in Plan::points
    std::vector<MemoryElement> memories;
    NodeIndex reference = 0;  // 0 V: negative post of the first battery
    double nominal_V = 12;
    double lasts_s = 0;  // of the state: cranking and what passes end after so long; 0: for ever
    std::vector<AssumptionUse> assumptions;

    YR_SPECIAL_MEMBERS(Network)
};

// REQUIRES: validate(plan) is empty. Never fails: what is unknown is assumed and named.
[[nodiscard]] Network compile(const Plan& plan, const State& state);

// The same values that compile() uses, for those who need one of them alone.
struct CableValues {
    WireSize size = WireSize::awg(14);
    double length_m = 0;
    double cable20_ohm = 0;  // 0 where the run's resistance is given
    CableSurroundings surroundings;
};
[[nodiscard]] CableValues cable_values(const Plan& plan, const Run& run, const State& state,
                                       std::vector<AssumptionUse>& assumptions);

// Resistances, heat balance and parts of one run's conductor, anew: what compile() gives it. Ends and
// switches stay.
void fill_run_parts(ConductorElement& element, const Plan& plan, const Run& run, const State& state,
                    std::vector<AssumptionUse>& assumptions);

// Current limit of an alternator or stator at this engine speed and temperature, A.
[[nodiscard]] double source_limit_A(const Source& source, double rpm, double temperature_C,
                                    std::vector<AssumptionUse>& assumptions);

// What an inverter takes from its rail for that many watts of AC, W.
[[nodiscard]] double inverter_input_W(const Inverter& inverter, double ac_W,
                                      std::vector<AssumptionUse>& assumptions);

// AC watts wanted of an inverter in this state.
[[nodiscard]] double inverter_ac_W(const Plan& plan, const Inverter& inverter, const State& state);

// Draw of one load in this state, all pieces together, A, W or ohm by its kind; a winch's follows its pull.
[[nodiscard]] Draw draw_in(const Load& load, const State& state);

// Hottest air along a run in this state, and whether the run passes an engine space.
struct RunAir {
    double ambient_C = 25;
    bool engine_space = false;
};
[[nodiscard]] RunAir run_air(const Plan& plan, const Run& run, const State& state);

}  // namespace yr

// compiled once, in compile.cpp
extern template class std::vector<yr::ConductorElement>;
extern template class std::vector<yr::BatteryElement>;
extern template class std::vector<yr::SourceElement>;
extern template class std::vector<yr::LoadElement>;
extern template class std::vector<yr::MemoryElement>;
