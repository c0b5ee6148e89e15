#include <glpk.h>

#include <algorithm>
#include <climits>
#include <memory>
#include <utility>

#include "choice/zero_one_solvers.h"

namespace yr {
namespace {

struct CloseProblem {
    void operator()(glp_prob* p) const {
        glp_delete_prob(p);
        glp_free_env();  // it belongs to this thread and holds nothing else
    }
};

void look_whether_cancelled(glp_tree* tree, void* info) {
    const auto* cancel = static_cast<const std::atomic<bool>*>(info);
    if (cancel && *cancel) glp_ios_terminate(tree);
}

void fill(glp_prob* p, const ZeroOneProgram& program) {
    const auto& costs = program.costs();
    glp_set_obj_dir(p, GLP_MIN);
    glp_add_cols(p, program.choices());
    for (int k = 0; k < program.choices(); ++k) {
        const double most = program.mosts()[static_cast<std::size_t>(k)];
        if (most > 0)
            glp_set_col_bnds(p, k + 1, GLP_DB, 0, most);
        else
            glp_set_col_kind(p, k + 1, GLP_BV);
        glp_set_obj_coef(p, k + 1, costs[static_cast<std::size_t>(k)]);
    }
    if (program.rows().empty()) return;
    glp_add_rows(p, static_cast<int>(program.rows().size()));
    std::vector<int> columns;
    std::vector<double> factors;
    int row = 0;
    for (const ZeroOneProgram::Row& r : program.rows()) {
        ++row;
        const int kind = r.sense == RowSense::at_most ? GLP_UP : r.sense == RowSense::equal ? GLP_FX : GLP_LO;
        glp_set_row_bnds(p, row, kind, r.right, r.right);
        columns.assign(1, 0), factors.assign(1, 0);  // it counts from 1
        for (const ZeroOneTerm& t : r.terms) {
            // a choice may stand in a row only once
            const auto again = std::find(columns.begin() + 1, columns.end(), t.choice + 1);
            if (again != columns.end()) {
                factors[static_cast<std::size_t>(again - columns.begin())] += t.factor;
                continue;
            }
            columns.push_back(t.choice + 1);
            factors.push_back(t.factor);
        }
        glp_set_mat_row(p, row, static_cast<int>(columns.size()) - 1, columns.data(), factors.data());
    }
}

}  // namespace

namespace {

int milliseconds(const ZeroOneLimits& limits) {
    return limits.most_s < 2e6 ? std::max(1, static_cast<int>(limits.most_s * 1000)) : INT_MAX;
}

using Problem = std::unique_ptr<glp_prob, CloseProblem>;

// The program, filled in, and solved with choices from 0 to 1; GLPK's own code: 0 where it ended well.
std::pair<Problem, int> relaxed_problem(const ZeroOneProgram& program, const ZeroOneLimits& limits,
                                        int method) {
    glp_term_out(GLP_OFF);
    Problem problem(glp_create_prob());
    fill(problem.get(), program);
    glp_smcp how;
    glp_init_smcp(&how);
    how.msg_lev = GLP_MSG_OFF;
    how.tm_lim = milliseconds(limits);
    how.meth = method;
    const int ended = glp_simplex(problem.get(), &how);
    return {std::move(problem), ended};
}

}  // namespace

std::optional<Relaxed> relax(const ZeroOneProgram& program, const ZeroOneLimits& limits) {
    // from below: where costs are no less than 0 it begins with nothing chosen
    const auto [problem, ended] = relaxed_problem(program, limits, GLP_DUALP);
    if (ended != 0 || glp_get_status(problem.get()) != GLP_OPT) return std::nullopt;
    Relaxed found{glp_get_obj_val(problem.get()), {}};
    for (int k = 1; k <= program.choices(); ++k)
        found.adds.push_back(glp_get_col_stat(problem.get(), k) == GLP_NL
                                 ? std::max(0.0, glp_get_col_dual(problem.get(), k))
                                 : 0.0);
    return found;
}

ZeroOneAnswer solve_inside(const ZeroOneProgram& program, const ZeroOneLimits& limits) {
    // Its presolver and its clique cuts are left out: on sizing programs they cut the least away and call
    // what is left proved (GLPK 5.0, found against CBC). Without the presolver it begins from the relaxed
    // program.
    const auto [problem, begun] = relaxed_problem(program, limits, GLP_PRIMAL);
    glp_iocp how;
    glp_init_iocp(&how);
    how.msg_lev = GLP_MSG_OFF;
    if (begun == GLP_ETMLIM) return {ZeroOneEnd::stopped, 0, {}};
    if (begun != 0) return {ZeroOneEnd::failed, 0, {}};
    if (glp_get_status(problem.get()) == GLP_NOFEAS || glp_get_status(problem.get()) == GLP_INFEAS)
        return {ZeroOneEnd::infeasible, 0, {}};
    how.mip_gap = 0;
    how.tm_lim = milliseconds(limits);
    how.cb_func = look_whether_cancelled;
    how.cb_info = const_cast<std::atomic<bool>*>(limits.cancel);  // NOLINT: its callback takes no const
    const int ended = glp_intopt(problem.get(), &how);
    if (ended == GLP_ENOPFS) return {ZeroOneEnd::infeasible, 0, {}};
    if (ended == GLP_ETMLIM || ended == GLP_ESTOP) return {ZeroOneEnd::stopped, 0, {}};
    if (ended != 0) return {ZeroOneEnd::failed, 0, {}};
    const int status = glp_mip_status(problem.get());
    if (status == GLP_NOFEAS) return {ZeroOneEnd::infeasible, 0, {}};
    if (status != GLP_OPT) return {ZeroOneEnd::failed, 0, {}};
    std::vector<double> values;
    values.reserve(program.costs().size());
    for (int k = 0; k < program.choices(); ++k) values.push_back(glp_mip_col_val(problem.get(), k + 1));
    return answer_of(program, values);
}

ZeroOneAnswer answer_of(const ZeroOneProgram& program, const std::vector<double>& values) {
    ZeroOneAnswer answer;
    answer.end = ZeroOneEnd::optimal;
    for (std::size_t k = 0; k < values.size(); ++k) {
        answer.chosen.push_back(values[k] > 0.5);
        if (program.mosts()[k] > 0)
            answer.cost += program.costs()[k] * values[k];
        else if (answer.chosen.back())
            answer.cost += program.costs()[k];
    }
    return answer;
}

}  // namespace yr
