// Which conductors carry a load's current: against the current from its positive side, with it from its
// negative one. Made once for a solution and asked for many loads.
#pragma once

#include <vector>

#include "solve/settle.h"

namespace yr {

class LoadPaths {
  public:
    // Both must outlive this.
    LoadPaths(const Network& network, const OperatingPoint& point);

    // Indices of conductors in the network, largest drop first.
    [[nodiscard]] std::vector<int> of(std::size_t load) const;

  private:
    void follow(NodeIndex start, bool upstream, std::vector<int>& path) const;

    const Network& net_;
    const OperatingPoint& point_;
    std::vector<int> first_, touching_;      // conductors that carry something, by node
    mutable std::vector<int> seen_, taken_;  // the question that last came by
    mutable int question_ = 0;
};

// Conductors (indices in the network) that carry this load's current, to and from it, largest drop first.
[[nodiscard]] std::vector<int> path_of_load(const Network& network, const OperatingPoint& point,
                                            int load_index);
[[nodiscard]] inline std::vector<int> path_of_load(const Solution& solution, int load_index) {
    return path_of_load(solution.network, solution.point, load_index);
}

}  // namespace yr
