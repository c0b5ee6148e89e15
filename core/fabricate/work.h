// The order of work: every step of making and fitting a plan as a graph, put in an order in which each place
// is gone to as few times as can be, nothing is live before the end, and what is put off waits with all that
// stands on it.
#pragma once

#include <string>
#include <vector>

#include "catalog/work.h"
#include "fabricate/wires.h"

namespace yr {

enum class Task {
    make,         // cables of one size: cut, crimp, label
    bench_test,   // a box on a bench supply, before it goes in
    isolate,      // a battery's negative off and tied back, masters off
    open,         // covers off at a place
    drill,        // a passage: look behind, drill or open, edge guarded
    mount,        // a thing on its place
    ground,       // metal bared, bolted, guarded
    lay,          // cables from one place to another
    connect,      // ends at one thing, fuses out
    last_look,    // a second pair of eyes
    first_power,  // its own procedure (first_power.h)
    readings,     // what Meter lists
    close,        // covers on, in reverse
    hand_over
};

enum class WorkCaution {
    negative_first,    // off first, tied back, on last
    look_behind,       // what lies behind before drilling
    airbag,            // one opens near there
    fuel,              // fuel or brake lines near there
    exhaust,           // keep clear
    moving,            // belts, hinges, steering, seats, wheels
    high_voltage,      // orange cables near there
    second_person,     // a long cable wants someone at its other end
    slide_first,       // boot and shrink before the lug
    fuses_out,         // nothing is live
    bare_metal,        // bright, bolted, guarded
    most_lugs,         // largest innermost, four at most, no washer in the way
    precharge,         // capacitors through a resistor
    heavy,             // a battery: two people, terminals covered
    aluminium_ground,  // paste
    keep_parts         // every small part in a tray, clips counted
};

struct Fixing {
    Terminal at;
    double thread_mm = 0;
    std::optional<double> spanner_mm;
    std::optional<TorqueRange> torque;
    bool own_torque = false;  // from the plan's table
    int lugs = 0;
};

struct WorkStep {
    Task task{};
    std::string key;                   // stable: "lay place-bay place-cab"
    Id about;                          // thing, passage or place; empty: none
    Id other;                          // lay: the place where it begins
    Id place;                          // where it is done; empty: on the bench
    std::vector<std::string> members;  // what marks are about: runs, "run-7.from", things
    std::vector<std::string> numbers;  // of the cables among them, as on their labels
    std::vector<std::string> made;     // those of them that are marked
    std::vector<std::size_t> after;    // steps that come before it
    double minutes = 0;
    bool own_minutes = false;
    std::vector<Fixing> fixings;
    std::vector<WorkCaution> cautions;
    double area_mm2 = 0;                  // make: of the copper
    std::string size;                     // make
    double metres = 0;                    // make, lay
    bool put_off = false, waits = false;  // waits: for something that is put off
    [[nodiscard]] bool done() const { return !members.empty() && made.size() == members.size(); }
};

struct WorkOrder {
    std::vector<WorkStep> steps;  // in order; `after` are places in this list
    int visits = 0;               // to places, from the first step at the vehicle to the last look
    bool fewest = false;          // proved
    double minutes = 0, minutes_left = 0;
};

// Name of the mark that a step's members carry when it is done: "made", "laid", "connected" ...
[[nodiscard]] const char* mark_of(Task task);

// Marks named "put off" and "first", about a step's key, move it; "before" puts it before the step whose key
// is the mark's note, where no rule of order forbids it; those of mark_of() make it done.
[[nodiscard]] WorkOrder work_order(const Plan& plan);

// How a terminal is fastened: thread as said, else as its lug's hole.
[[nodiscard]] std::optional<Fixing> fixing_of(const Plan& plan, const Terminal& at);

}  // namespace yr
