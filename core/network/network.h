// The plan compiled for one state: nodes, and elements between them. Every element knows which thing of the
// plan it came from, so that results refer back to the plan. No element has zero resistance: every run has
// two joints.
#pragma once

#include <string>
#include <vector>

#include "network/thermal.h"
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

enum class PartKind { joint, fuse, switching, cable, metal, bond };

// One piece of a run, in the order of the run; the rail chart draws each as a band.
struct SeriesPart {
    PartKind kind{};
    int device = -1;       // index in Run::devices for fuse and switch
    double fixed_ohm = 0;  // all but the cable
};

struct ConductorElement {
    NodeIndex from = kNoNode, to = kNoNode;
    int run = -1;            // index in Plan::runs, or
    int ground_point = -1;   // index in Plan::points for a ground point's bond
    bool closed = true;      // all switches in it
    double fixed_ohm = 0;    // joints, fuses, contacts, given resistances
    double cable20_ohm = 0;  // copper at 20 C over its whole length and parallel count
    int parallel = 1;
    CableSurroundings cable;  // for the heat balance; only where cable20_ohm > 0
    std::vector<SeriesPart> parts;
};

struct BatteryElement {
    NodeIndex pos = kNoNode, neg = kNoNode;
    double open_V = 0;
    double R0_ohm = 0;
    double accept_A = 0;  // the most it takes while charging
    double capacity_Ah = 0;
    double charge = 0;
};

struct SourceElement {
    NodeIndex out = kNoNode, neg = kNoNode, in = kNoNode;  // in: converters only
    bool works = false;
    double set_V = 0;
    double droop_ohm = 0;
    double limit_A = 0;
    double efficiency = 1;
    double standby_W = 0;
};

// A source that blocks still senses its terminal: 1 Mohm to its set voltage. It decides where a terminal
// stands that nothing else holds (a full battery that accepts no current), and moves nothing that can be
// measured.
inline constexpr double kSense_S = 1e-6;

struct LoadElement {
    NodeIndex pos = kNoNode, neg = kNoNode;
    DrawKind kind = DrawKind::power;
    double value = 0;     // A, W or ohm of all pieces together
    bool wanted = false;  // live_when holds in this state
};

struct Network {
    std::vector<Terminal> nodes;
    std::vector<ConductorElement> conductors;  // runs first, in the plan's order, then bonds
    std::vector<BatteryElement> batteries;     // in the plan's order, as are sources and loads
    std::vector<SourceElement> sources;
    std::vector<LoadElement> loads;
    NodeIndex reference = 0;  // 0 V: negative post of the first battery
    double nominal_V = 12;
    std::vector<AssumptionUse> assumptions;
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

// Current limit of an alternator or stator at this engine speed and temperature, A.
[[nodiscard]] double source_limit_A(const Source& source, double rpm, double temperature_C,
                                    std::vector<AssumptionUse>& assumptions);

// Hottest air along a run in this state, and whether the run passes an engine space.
struct RunAir {
    double ambient_C = 25;
    bool engine_space = false;
};
[[nodiscard]] RunAir run_air(const Plan& plan, const Run& run, const State& state);

}  // namespace yr
