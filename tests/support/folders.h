// Where this tree and the programs built from it are. Known to one file alone: told to the compiler of all
// tests, the place of a tree would be part of all of them, and a compiler cache would know none of another
// tree's.
#pragma once

#include <string>

namespace yr::test {

[[nodiscard]] std::string source_dir();
[[nodiscard]] std::string bin_dir();

}  // namespace yr::test
