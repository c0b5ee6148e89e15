// What both uses of GLPK's simplex method share: the whole program at once, and column by column.
#pragma once

#include <glpk.h>

#include <memory>
#include <vector>

#include "choice/zero_one_solvers.h"

namespace yr {

struct CloseGlpkProblem {
    void operator()(glp_prob* p) const {
        glp_delete_prob(p);
        glp_free_env();  // it belongs to this thread and holds nothing else
    }
};
using GlpkProblem = std::unique_ptr<glp_prob, CloseGlpkProblem>;

// What row `number` of it, counted from 1, may come to.
void set_bounds(glp_prob* p, int number, const ZeroOneProgram::Row& row);
// By choice, each only once: GLPK takes no choice twice in a row.
[[nodiscard]] std::vector<ZeroOneTerm> once_each(std::vector<ZeroOneTerm> terms);
// GLPK's own code: 0 where it ended well.
[[nodiscard]] int simplex(glp_prob* p, int most_ms, int method);
[[nodiscard]] int milliseconds(const ZeroOneLimits& limits);

}  // namespace yr
