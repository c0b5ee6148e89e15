// A page of typed lines as a plan. Each line shows what it became or why not; what is not understood never
// stops the rest. Lines of plan_text.h stand for themselves in any order (the vehicle's own among them: they
// are the whole plan; else they are laid into it); typed lines are read one after another on what stands
// above them.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "notes/statement.h"

namespace yr {

struct NoteLine {
    std::string text;
    Statement statement;  // kind nothing for blank lines, remarks, and lines of plan_text.h
    bool thing = false;   // a line of plan_text.h
    [[nodiscard]] bool bad() const {
        return statement.error.has_value() || statement.doubt || !statement.not_understood.empty();
    }
};

struct Notes {
    Plan plan;
    std::vector<NoteLine> lines;
    std::optional<Error> things;              // why the lines of plan_text.h together are no plan
    std::vector<std::string> added_states;    // in which something works that no state of the page lets run
    std::vector<std::string> given_switches;  // loads that got one, since a state of the page leaves them out
    [[nodiscard]] int bad() const;
};

// On top of `base`: an empty plan unless said otherwise. Never fails.
[[nodiscard]] Notes read_notes(std::string_view text, const Library* library = nullptr);
[[nodiscard]] Notes read_notes(const Plan& base, std::string_view text, const Library* library = nullptr);

// The lines alone, without states added for what works by a switch of its own (habits.h).
[[nodiscard]] Notes read_page(const Plan& base, std::string_view text, const Library* library = nullptr);

// A vehicle with its usual states and places, a battery of which nothing is said, and metal: what notes begin
// with.
[[nodiscard]] Plan blank_vehicle();

// Bare vehicles of common kinds, as notes; all values typical. data/bare/*.notes.
struct BareVehicle {
    std::string key, title, text;
};
[[nodiscard]] const std::vector<BareVehicle>& bare_vehicles();

}  // namespace yr
