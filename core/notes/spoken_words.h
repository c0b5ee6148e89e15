// Words that people say beside a figure and that the grammar has another word for: "540 A CCA", "one
// battery", "2 A running, 10 A glow", "cuts out below 10.7 V", "must never drop out", "between them",
// "isolator for the domestics 250 A".
#pragma once

#include <string>

namespace yr {

[[nodiscard]] std::string with_spoken_words(std::string line);

}  // namespace yr
