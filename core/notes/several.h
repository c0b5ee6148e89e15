// Lines that hold more than one thing, and what stands beside the things: the page's title, remarks in
// brackets.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "plan/plan.h"

namespace yr {

// "cab: computer 120 W, radio 5 A, seat 8 A" as a line for each, with the place or the condition that stands
// before the colon; "start battery 80 Ah, alternator 180 A"; "states: driving, serving". Empty where the line
// says one thing.
[[nodiscard]] std::vector<std::string> parts_of_line(const Plan& plan, std::string_view line);

// "tractor with sprayer. alternator 95 A. battery 110 Ah": each sentence, where more than one says something.
// Empty: it is one.
[[nodiscard]] std::vector<std::string> sentences_that_say_things(std::string_view line);

// "lorry 24 V, batteries 2x 180 Ah in series", the first line of a page: the title and the battery. Empty: it
// is none.
[[nodiscard]] std::vector<std::string> title_and_battery(const Plan& plan, std::string_view line);

// "  - radio 3 A" set in below "converter 20 A": what the thing above gives to what stands below it, " from
// converter". Empty where it feeds nothing.
[[nodiscard]] std::string given_by_thing(const Plan& plan, const Id& above);

// "Rear:", "Living area (12 V)".
[[nodiscard]] bool heads_a_list(std::string_view line);

// "Rear:" alone on its line: what it gives to the loads below it, ", rear". Empty where it gives nothing.
[[nodiscard]] std::string given_by_heading(const Plan& plan, std::string_view line);

// The line without what stands in brackets. Figures in brackets are figures: "work lights (2x 55 W)".
struct WithoutRemark {
    std::string line, remark;
};
[[nodiscard]] WithoutRemark without_remark(std::string_view line);

// The line without what it says at its end of the use: "converter 30 A for radio and chargers".
[[nodiscard]] WithoutRemark without_purpose(std::string_view line);

// The line without the gear that belongs to its thing: "winch 6 kW, contactor, isolator 300 A by the
// battery".
[[nodiscard]] WithoutRemark without_gear(std::string_view line);

// "in front locker", "on the mast", "…, roof": where the plan knows no such place, a new one, unless it is a
// slip of one that it knows.
[[nodiscard]] std::optional<Place> new_place(const Plan& plan, std::string_view line);

// A title without the power of its engine ("launch (outboard 60 hp, 12 V)"); any other line as it is.
[[nodiscard]] std::string without_engines_power(const std::string& title);

// "Minibus 24 V, wheelchair lift": the first line of a page on which nothing stands yet, as the line that
// names the vehicle. Empty where it draws, holds or gives anything.
[[nodiscard]] std::optional<std::string> title_line(const Plan& plan, std::string_view line);

}  // namespace yr
