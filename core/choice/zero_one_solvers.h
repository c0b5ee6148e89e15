// The two solvers of zero_one.h. Both take a program whose numbers are finite and whose rows have terms.
#pragma once

#include "choice/zero_one.h"

namespace yr {

// GLPK, in this process.
[[nodiscard]] ZeroOneAnswer solve_inside(const ZeroOneProgram& program, const ZeroOneLimits& limits);

// COIN-OR CBC, as a program of its own (`cbc`), which reads and writes files.
[[nodiscard]] ZeroOneAnswer solve_beside(const ZeroOneProgram& program, const ZeroOneLimits& limits);

// The chosen ones and what they cost, from the values of all columns.
[[nodiscard]] ZeroOneAnswer answer_of(const ZeroOneProgram& program, const std::vector<double>& values);

}  // namespace yr
