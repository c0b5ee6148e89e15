// A number of a thing as an index: what a plan or a network counts with int, a vector is asked for with
// std::size_t.
#pragma once

#include <cstddef>

namespace yr {

// `k` from 0 up; a negative one is a defect of the caller.
constexpr std::size_t at(int k) {
    return static_cast<std::size_t>(k);
}

}  // namespace yr
