// What a current can reach in which direction: diodes count only the way they conduct. A node behind a diode
// that blocks floats at the volts of its leak, and is not alive for that.
#pragma once

#include <vector>

#include "network/network.h"

namespace yr {

class Reach {
  public:
    // From the batteries and the sources that are on, through closed conductors and wanted resistances.
    Reach(const Network& network, const std::vector<char>& source_on);

    // Whether current can come to `plus` from some battery or source and go back to one from `minus`.
    // Without a diode in the network always true: islands decide then.
    [[nodiscard]] bool feeds(NodeIndex plus, NodeIndex minus) const {
        return all_ || (from_[static_cast<std::size_t>(plus)] && back_[static_cast<std::size_t>(minus)]);
    }

  private:
    bool all_ = false;
    std::vector<char> from_, back_;
};

}  // namespace yr
