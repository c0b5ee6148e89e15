#include <algorithm>
#include <climits>
#include <cmath>
#include <exception>
#include <utility>

#include "choice/glpk_problem.h"
#include "choice/zero_one_solvers.h"

namespace yr {

void set_bounds(glp_prob* p, int number, const ZeroOneProgram::Row& row) {
    const int kind = row.sense == RowSense::at_most ? GLP_UP : row.sense == RowSense::equal ? GLP_FX : GLP_LO;
    glp_set_row_bnds(p, number, kind, row.right, row.right);
}

std::vector<ZeroOneTerm> once_each(std::vector<ZeroOneTerm> terms) {
    std::stable_sort(terms.begin(), terms.end(),
                     [](const ZeroOneTerm& a, const ZeroOneTerm& b) { return a.choice < b.choice; });
    std::vector<ZeroOneTerm> once;
    for (const ZeroOneTerm& t : terms)
        if (!once.empty() && once.back().choice == t.choice)
            once.back().factor += t.factor;
        else
            once.push_back(t);
    return once;
}

int simplex(glp_prob* p, int most_ms, int method) {
    glp_smcp how;
    glp_init_smcp(&how);
    how.msg_lev = GLP_MSG_OFF;
    how.tm_lim = most_ms;
    how.meth = method;
    return glp_simplex(p, &how);
}

int milliseconds(const ZeroOneLimits& limits) {
    return limits.most_s < 2e6 ? std::max(1, static_cast<int>(limits.most_s * 1000)) : INT_MAX;
}

namespace {

constexpr int kManyColumns = 4000;  // from which most of them are best kept out of the simplex method

// What looks on while GLPK searches.
struct Watch {
    const std::atomic<bool>* cancel = nullptr;
    const ZeroOneProgram::Objection* objection = nullptr;
    std::vector<ZeroOneProgram::Row> heard{};  // all rows that were objected with
    std::exception_ptr thrown{};               // by an objection: it may not pass through GLPK
};

double left_side(glp_prob* p, const ZeroOneProgram::Row& row) {
    double sum = 0;
    for (const ZeroOneTerm& t : row.terms) sum += t.factor * glp_get_col_prim(p, t.choice + 1);
    return sum;
}

bool breaks(glp_prob* p, const ZeroOneProgram::Row& row) {
    constexpr double kBroken = 1e-6;
    const double left = left_side(p, row);
    return (row.sense != RowSense::at_least && left > row.right + kBroken) ||
           (row.sense != RowSense::at_most && left < row.right - kBroken);
}

void put_row(glp_prob* p, int number, const ZeroOneProgram::Row& row) {
    set_bounds(p, number, row);
    std::vector<int> columns{0};  // it counts from 1
    std::vector<double> factors{0};
    for (const ZeroOneTerm& t : once_each(row.terms)) {
        columns.push_back(t.choice + 1);
        factors.push_back(t.factor);
    }
    glp_set_mat_row(p, number, static_cast<int>(columns.size()) - 1, columns.data(), factors.data());
}

// Rows come in where an answer breaks them. GLPK keeps a row for what lies below in its tree alone, so that
// all that were heard are looked at again elsewhere.
void object(glp_tree* tree, Watch& watch) {
    glp_prob* p = glp_ios_get_prob(tree);
    bool any = false;
    const auto put_broken = [&](std::size_t from) {
        for (std::size_t r = from; r < watch.heard.size(); ++r)
            if (breaks(p, watch.heard[r])) put_row(p, glp_add_rows(p, 1), watch.heard[r]), any = true;
    };
    put_broken(0);
    if (any) return;
    std::vector<char> chosen;
    for (int k = 1; k <= glp_get_num_cols(p); ++k) {
        const double value = glp_get_col_prim(p, k);
        if (glp_get_col_kind(p, k) != GLP_CV && std::abs(value - std::round(value)) > 1e-6) return;
        chosen.push_back(value > 0.5);
    }
    const std::size_t before = watch.heard.size();
    for (auto& row : (*watch.objection)(chosen)) watch.heard.push_back(std::move(row));
    put_broken(before);
}

void look_on(glp_tree* tree, void* info) {
    auto& watch = *static_cast<Watch*>(info);
    if (watch.cancel && *watch.cancel) glp_ios_terminate(tree);
    if (!watch.objection || watch.thrown || glp_ios_reason(tree) != GLP_IROWGEN) return;
    try {
        object(tree, watch);
    } catch (...) {
        watch.thrown = std::current_exception();
        glp_ios_terminate(tree);
    }
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
    int row = 0;
    for (const ZeroOneProgram::Row& r : program.rows()) put_row(p, ++row, r);
}

// The program, filled in, and solved with choices from 0 to 1; GLPK's own code: 0 where it ended well.
std::pair<GlpkProblem, int> relaxed_problem(const ZeroOneProgram& program, const ZeroOneLimits& limits,
                                            int method) {
    glp_term_out(GLP_OFF);
    GlpkProblem problem(glp_create_prob());
    fill(problem.get(), program);
    const int ended = simplex(problem.get(), milliseconds(limits), method);
    return {std::move(problem), ended};
}

}  // namespace

std::optional<Relaxed> relax(const ZeroOneProgram& program, const ZeroOneLimits& limits) {
    if (program.choices() >= kManyColumns)
        if (auto found = relax_by_columns(program, limits)) return found;
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

ZeroOneAnswer solve_inside(const ZeroOneProgram& program, const ZeroOneLimits& limits,
                           const ZeroOneProgram::Objection* objection) {
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
    how.br_tech = GLP_BR_PCH;  // two thirds of the time of its usual rule, on sizings
    how.tm_lim = milliseconds(limits);
    Watch watch{limits.cancel, objection};
    how.cb_func = look_on;
    how.cb_info = &watch;
    if (objection) how.sr_heur = GLP_OFF;  // what it rounds is asked about by nobody
    const int ended = glp_intopt(problem.get(), &how);
    if (watch.thrown) std::rethrow_exception(watch.thrown);
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
