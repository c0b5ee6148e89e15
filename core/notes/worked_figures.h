// Lines whose figures must be reckoned before they say what is meant: metres of tape by watts a metre, times
// of a day, averages.
#pragma once

#include <string>

namespace yr {

// "LED tape 5 m @ 14 W/m" as 70 W, "3 times a day, 4 min" as 12 min a day: the line with what they come to.
[[nodiscard]] std::string with_worked_figures(std::string line);

// "fishfinder 12", GPS": where every quote stands behind a figure they are inches, and quote nothing.
[[nodiscard]] std::string with_inches(const std::string& line);

}  // namespace yr
