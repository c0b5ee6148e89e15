// Which conductors of a network lie in no loop: all the current of what hangs behind them must pass, whatever
// the other cables are. Batteries and working sources close loops; loads do not.
#pragma once

#include <vector>

#include "network/network.h"

namespace yr {

// By conductor of the network; open ones count as bridges.
[[nodiscard]] std::vector<char> bridges_of(const Network& network);

}  // namespace yr
