// One line of typing read as what it says: what kind of thing comes first, so that a slip is seen before
// Enter.
//
//     alternator 150 A, idle 70 A, 14.4 V, cable 4 AWG 1.2 m fuse 175 A
//     battery AGM 95 Ah 850 A, in engine bay
//     scene light 2x 90 W on ignition and scene, 4.5 m, cargo roof, from rear box channel 1
//     set rear light duty 0.3            rear light: 4x 20 W            remove rear light
//
// What no other kind takes is a load (typed_line.h).
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "notes/said.h"
#include "plan/edit.h"
#include "plan/library.h"

namespace yr {

enum class StatementKind {
    nothing,  // blank, or begins with #
    vehicle,
    place,
    battery,
    alternator,
    stator,
    starter,
    winch,
    converter,
    charger,
    solar,
    inverter,
    box,
    bus,
    stud,
    ground,
    chassis,
    strap,
    cable,
    master,
    relay,
    joiner,  // what joins two batteries
    connector,
    jacket,
    state,
    day,
    stand,     // where a thing stands
    waypoint,  // ways meet or pass a hole there
    way,
    shop,     // a price, a rate, one's own minutes, torque or weight of a fault
    end,      // what is crimped on an end of a cable
    outline,  // rooms and ways of a typical vehicle
    reading,
    load,
    change,
    set,
    remove,
    block  // a set of the library (sets.h)
};

// The first word of each kind, and one line of its form for menus and help; English, as it is typed.
struct StatementForm {
    StatementKind kind;
    const char* word;
    const char* example;
};
[[nodiscard]] const std::vector<StatementForm>& statement_forms();

struct Statement {
    StatementKind kind = StatementKind::nothing;
    Id about;                         // what it adds or changes; empty where it does neither
    std::optional<Edit> edit;         // empty: not yet whole, or nothing to do
    std::optional<Error> error;       // why there is none
    std::optional<TypedLine> load{};  // of a load
    std::vector<std::string> not_understood;
    std::optional<TypedLine::Doubt> doubt;
    std::vector<std::string> lines{};       // of a set, its marks filled
    Id block{};                             // a main block that comes with it, since the plan has no feed yet
    std::vector<std::string> new_places{};  // "in front locker", of which the plan did not know
    std::vector<std::string> new_switches;  // that no condition and no state of the plan names yet
    std::string note{};                     // what was said beside it and is kept as its note
    std::vector<Id> switched_on{};          // of a state: loads that it names as on
    [[nodiscard]] bool whole() const { return edit.has_value() && !doubt; }
};

// Never fails: what is missing is in `error`.
[[nodiscard]] Statement read_statement(const Plan& plan, std::string_view text,
                                       const Library* library = nullptr);

// Every reading of the line that is whole, the likeliest first: "ground lights 10 W" is a load, and may be
// meant as a ground point. One or none where there is nothing to choose.
[[nodiscard]] std::vector<Statement> readings(const Plan& plan, std::string_view text,
                                              const Library* library = nullptr);

// Which kind a line is, by its first word alone.
[[nodiscard]] StatementKind kind_of_line(const Plan& plan, std::string_view text);

}  // namespace yr
