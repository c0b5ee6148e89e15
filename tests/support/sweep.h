// How far the seeded sweeps go: far enough to bite in ./check, whole in ./check --all (YR_SWEEPS=whole).
#pragma once

#include <cstdlib>
#include <string_view>

namespace yr::test {

[[nodiscard]] inline bool whole_sweeps() {
    const char* asked = std::getenv("YR_SWEEPS");
    return asked && std::string_view(asked) == "whole";
}

template <class T>
[[nodiscard]] T sweep(T usual, T whole) {
    return whole_sweeps() ? whole : usual;
}

}  // namespace yr::test
