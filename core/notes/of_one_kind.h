// Things of one kind in several places, or added up, on one line.
#pragma once

#include <string>
#include <vector>

namespace yr {

// "work lights: 4x 30 W rear, 2x 20 W sides", "work lights: 2 rear, 1 each side, all 18 W", "camera system 24
// W + 4 cameras 3 W each": a line for each. Empty: the line says none of these.
[[nodiscard]] std::vector<std::string> of_one_kind(const std::string& line);

// "agitators 3x 25 A (each own switch and 40 A breaker) 5 m": what has each a fuse of its own is a circuit
// each. Empty: the line says no such thing, or of more than six.
[[nodiscard]] std::vector<std::string> each_on_its_own(const std::string& line);

}  // namespace yr
