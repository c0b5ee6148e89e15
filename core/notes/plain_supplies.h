// What gives, charges, joins and carries, when a thing runs and how many there are, as owners write it: by
// its first meaning such a line would be read wrong and nobody told. For everyday.cpp.
#pragma once

#include <string>

namespace yr {

// "30A mains charger", "VSR: 140A", "24V-12V dropper 20A", "5A with 4m of 6mm sq", "(4) 30W each", "parked
// only" in words of ours.
[[nodiscard]] std::string with_plain_supplies(std::string line);

}  // namespace yr
