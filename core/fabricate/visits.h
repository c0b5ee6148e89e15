// Steps with places and steps that come before them, put in an order in which one goes from place to place as
// seldom as can be.
//
// At a place one does all that can be done there: doing more never makes a later order worse (whatever an
// order does there later, it can do now). So the search is over the next place alone, breadth first over what
// is done; the first that does everything is the least.
#pragma once

#include <cstddef>
#include <vector>

namespace yr {

struct VisitStep {
    std::size_t place = 0;
    std::vector<std::size_t> after;
};
struct Visits {
    std::vector<std::size_t> order;
    int visits = 0;
    bool fewest = false;  // false: found by going where most can be done, with `most_looked` sets looked at
};

// `after` names steps of this list and has no circle; what has one is left out of the order. Within a visit
// steps keep the order of the list as far as `after` lets them.
[[nodiscard]] Visits fewest_visits(const std::vector<VisitStep>& steps, std::size_t most_looked = 20000);

}  // namespace yr
