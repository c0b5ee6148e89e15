// What people put down in so few words, or so many, that a line is not understood: "4*48W", "15 secs up", "12
// V 20 A conv for radio 60 W and charger 90 W", "230v hook up with 25A charger". Asked only for lines that
// are not understood as they stand, so that no line that is changes its meaning.
#pragma once

#include <string>
#include <vector>

namespace yr {

// The same as one line or several in plainer words; empty: there is nothing to make plainer.
[[nodiscard]] std::vector<std::string> spelled_out(const std::string& line);

// Supply and what hangs on it in one line: "inverter 2000 W: microwave 1200 W, blender 500 W", "trolling
// motor 50 A, own battery 100 Ah". Empty: the line says no such thing.
[[nodiscard]] std::vector<std::string> supply_with_its_loads(const std::string& line);

}  // namespace yr
