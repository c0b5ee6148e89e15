// One line of typing read as a load:
//     scene light 2x 90 W at 13.8 V on ignition and scene, not while cranking, after 2 s, 4.5 m, cargo roof,
//     from rear box channel 3, start 12 A for 0.5 s, for 60 s, duty 30 %
// What was understood and what was not are both in the result: no word is dropped silently. A name in quotes
// is taken as it stands.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "plan/library.h"
#include "plan/plan.h"

namespace yr {

struct TypedLine {
    std::string name;
    int count = 1;
    std::optional<Draw> draw;
    std::optional<double> inrush_A;
    std::optional<Condition> live_when;
    std::optional<double> length_m;
    std::optional<WireSize> size;
    std::optional<double> drop_limit;
    Id place;
    Id feed;                               // "from cab box"; "from second battery": by a cable of its own
    int channel = 0;                       // "channel 4": of the feed, or of the first box that has it free
    Id inverter;                           // "on the inverter", "on mains": an AC load
    std::optional<double> start_W{};       // "start 900 W", of an AC load
    std::optional<double> other_rail_V{};  // "radio 12 V 5 A", where no rail of the plan has such volts
    bool critical = false;
    std::string note;             // of a table's own column
    std::optional<bool> chassis;  // "chassis" or "home-run"
    // duty, on_s, inrush_s, plate_V, least_V, own_ground, together, apart, and what a library entry brings;
    // the rest of it is not used
    Load details;
    std::string entry;  // name of the library entry whose values fill what was not typed
    std::optional<double> length_least_m{},
        draw_least{};  // "3..4 m", "4..5 A": length_m and draw are the most
    std::vector<std::string> not_understood;
    // A number that may be read as thousands or as a decimal ("1,500"): which is asked, never guessed. `text`
    // as it was typed; each reading as it would be typed without doubt.
    struct Doubt {
        std::string text, large, small;
    };
    std::optional<Doubt> doubt{};    // the first of the line
    std::optional<double> fuse_A{};  // "fuse 10 A", "on a 15 A breaker": of its own cable
    bool breaker = false;
    std::optional<double>
        said_V{};  // "motor controller 80 A, 48 V": of the rail it wants, which the plan has
    // What is still missing before a load can be made of it.
    [[nodiscard]] bool complete() const { return !name.empty() && draw.has_value() && !doubt; }
};

// Knows the plan's places, feeds, switches and loads by name, and where it is given the library's entries by
// theirs: what the line leaves open is filled from the entry of that name. Never fails.
[[nodiscard]] TypedLine read_line(const Plan& plan, std::string_view text, const Library* library = nullptr);

// A load of the plan as the line that would give it again.
[[nodiscard]] std::string typed_text(const Plan& plan, const Load& load);

// The condition alone, as it is typed: "on ignition and scene, not while cranking". Empty for "always".
[[nodiscard]] std::string typed_condition(const Plan& plan, const Condition& condition);

// What stands on a plate, or what a meter says: two of the three, how the load behaves, and the draw from it.
struct Plate {
    std::optional<double> volts, watts, amps, ohms;
    DrawKind behaves = DrawKind::power;
};
// V, W, A and ohm belong together by V = I R and P = V I. Failure: empty where too little is given,
// out_of_range for a value that is not above 0.
[[nodiscard]] Result<Draw> draw_from_plate(const Plate& plate, double nominal_V);

}  // namespace yr
