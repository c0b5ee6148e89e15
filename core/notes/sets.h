// Sets: a saved block of lines under a name, with marks where one use differs from the next.
//     pair of work lights, where front, each 50 W
// gives the set's lines with those words in their marks; what is not said stands as the set has it.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "plan/library.h"
#include "units/result.h"

namespace yr {

// "{length=4 m}" in a set's lines: the name, and what stands there where nothing is said (may be empty).
struct SetMark {
    std::string name, text;
};
// In the order of their first places.
[[nodiscard]] std::vector<SetMark> marks_of(const SetEntry& set);

// The set whose name the line is or begins with before a comma; nullptr where there is none.
[[nodiscard]] const SetEntry* set_on_line(const Library& library, std::string_view line);

struct FilledSet {
    std::vector<std::string> lines;
    std::vector<std::string> not_understood;  // parts of the line that name no mark
};
// `line`: what is typed, the set's name first.
[[nodiscard]] FilledSet fill_set(const SetEntry& set, std::string_view line);

// How the set is typed with all its marks: "pair of work lights, where rear, each 25 W, length 4 m".
[[nodiscard]] std::string typed_form(const SetEntry& set);

}  // namespace yr
