// The two solvers of zero_one.h. Both take a program whose numbers are finite and whose rows have terms.
#pragma once

#include <optional>

#include "choice/zero_one.h"

namespace yr {

// The program with choices from 0 to 1: its least cost, and how much each choice that is 0 there would add to
// it for every unit of it; 0 for the others.
struct Relaxed {
    double cost = 0;
    std::vector<double> adds;
};
// GLPK's simplex method. Empty where it is infeasible, stopped or failed.
[[nodiscard]] std::optional<Relaxed> relax(const ZeroOneProgram& program, const ZeroOneLimits& limits);

// The same by column generation (as in Wolsey, Integer Programming, 11.2, from memory): the simplex method
// begins with the cheapest few choices of each row that must be reached, and those come in that its prices
// call too cheap to leave out, until there are none. Empty also where the few cannot reach all rows.
[[nodiscard]] std::optional<Relaxed> relax_by_columns(const ZeroOneProgram& program,
                                                      const ZeroOneLimits& limits);

// GLPK, in this process. With an objection, what it refuses is no answer, and its rows count from then on.
[[nodiscard]] ZeroOneAnswer solve_inside(const ZeroOneProgram& program, const ZeroOneLimits& limits,
                                         const ZeroOneProgram::Objection* objection = nullptr);

// Large programs by the few choices that can matter. With only those whose addition is small, the least cost
// U is soon found; no choice that adds more than U less the relaxed cost can stand in a cheaper answer, so
// that the program with the others left out is solved once more where they were not all in it (reduced-cost
// fixing, as in Wolsey, Integer Programming, 7.6, from memory). Where U is known (limits.known_cost) once is
// enough. Proved like a solution of the whole. Empty where it leaves out too little to be worth it, or no
// answer was found in time.
[[nodiscard]] std::optional<ZeroOneAnswer> solve_by_few(const ZeroOneProgram& program,
                                                        const ZeroOneLimits& limits);
// The same with objections, and where nothing is left out the whole.
[[nodiscard]] ZeroOneAnswer ask_few(const ZeroOneProgram& program, const ZeroOneLimits& limits,
                                    const ZeroOneProgram::Objection& objection);
// The least among the fewest that may do: soon found, near the least of all, and not proved.
[[nodiscard]] std::optional<ZeroOneGuess> guess_by_few(const ZeroOneProgram& program,
                                                       const ZeroOneLimits& limits);

// COIN-OR CBC, as a program of its own (`cbc`), which reads and writes files.
[[nodiscard]] ZeroOneAnswer solve_beside(const ZeroOneProgram& program, const ZeroOneLimits& limits);

// The chosen ones and what they cost, from the values of all columns.
[[nodiscard]] ZeroOneAnswer answer_of(const ZeroOneProgram& program, const std::vector<double>& values);

}  // namespace yr
