// What comes and goes heats a cable for its time: while a winch works for a minute or a starter cranks, the
// copper on their way is as warm as that leaves it, not as the steady balance of the same amps would.
//
// A conductor on the way of a load with turns of work carries, besides what is there for ever, that load's
// amps for the longest turn and rests between (3-the-model: heat in time). It is solved at the temperature of
// the end of its longest turn, once turns repeat: its drop and every verdict rest on the same heat. While the
// starter cranks, everything lasts kCranking_s from the air's temperature.
#pragma once

#include "solve/settle.h"

namespace yr {

// Gives the conductors of the network the heat of their turns at this point; clears it where nothing turns.
// Largest move of a temperature, K: 0 where nothing comes and goes.
[[nodiscard]] double heat_by_turns(Network& network, const OperatingPoint& point);

}  // namespace yr
