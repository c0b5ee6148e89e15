// Names are what somebody calls things: "work lights", "camp fridge". A sentence says "takes" of one and
// "take" of several.
#pragma once

#include <string>

namespace yr::words {

// "rear work lights", "PCs", "work lights (cab)"; none of "bus", "chassis", "GPS", "glass".
[[nodiscard]] bool names_several(const std::string& name);

// The sentence, which begins with the name, with its verbs and pronouns for several.
[[nodiscard]] std::string said_of_several(const std::string& sentence, const std::string& name);

}  // namespace yr::words
