// Whether words can be the name of a load. What nothing else takes is a load, so this is where the rest is
// told.
#pragma once

#include <string>

namespace yr {

// Whether what would be a load of this name is none, whatever it draws: what supplies, joins or shares out,
// and a line about a state ("parked at depot: …"). `amps`, `watts`: what it says that it draws; 0: not said
// so.
[[nodiscard]] bool names_no_load(const std::string& name, double amps, double watts);

// The word or sign at the end of a load's name that only begins to say something ("jacks 4 of", "= lights");
// empty: it is a name.
[[nodiscard]] std::string ends_no_name(const std::string& name);

}  // namespace yr
