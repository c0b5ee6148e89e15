// Everyday words of blocks, switches and starters, put as the grammar says them.
#pragma once

#include <string>

namespace yr {

// "6 way blade fuse box", "300A isolator switch", "1.4 kW starter", "5 A on the beam switch".
[[nodiscard]] std::string with_plain_circuit(std::string line);

}  // namespace yr
