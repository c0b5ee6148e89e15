#include "choice/zero_one.h"

#include <algorithm>
#include <chrono>
#include <cmath>

#include "choice/zero_one_solvers.h"

namespace yr {
namespace {

constexpr int kMany = 2000;       // choices from which leaving most of them out pays
constexpr int kManyOfKnown = 60;  // the same, where an answer is known already
constexpr int kVeryMany = 20000;  // from which leaving most out comes first

}  // namespace

int ZeroOneProgram::add_choice(double cost) {
    cost_.push_back(cost);
    most_.push_back(0);
    return choices() - 1;
}

int ZeroOneProgram::add_amount(double cost, double most) {
    cost_.push_back(cost);
    most_.push_back(most);
    return choices() - 1;
}

void ZeroOneProgram::add_row(std::vector<ZeroOneTerm> terms, RowSense sense, double right) {
    if (!terms.empty()) {
        rows_.push_back({std::move(terms), sense, right});
        return;
    }
    // a row without choices is decided already
    const bool holds = sense == RowSense::at_most    ? 0 <= right
                       : sense == RowSense::at_least ? 0 >= right
                                                     : right == 0;
    if (!holds) impossible_ = true;
}

bool ZeroOneProgram::all_finite() const {
    bool finite = std::all_of(cost_.begin(), cost_.end(), [](double c) { return std::isfinite(c); });
    for (const Row& r : rows_) {
        finite = finite && std::isfinite(r.right);
        for (const ZeroOneTerm& t : r.terms) finite = finite && std::isfinite(t.factor);
    }
    return finite;
}

std::optional<ZeroOneGuess> ZeroOneProgram::guess(const ZeroOneLimits& limits) const {
    if (impossible_ || choices() < kManyOfKnown || !all_finite()) return std::nullopt;
    return guess_by_few(*this, limits);
}

ZeroOneAnswer ZeroOneProgram::solve_asking(const ZeroOneLimits& limits, const Objection& objection) const {
    if (impossible_) return {ZeroOneEnd::infeasible, 0, {}};
    if (cost_.empty() || !all_finite()) return {ZeroOneEnd::failed, 0, {}};
    return ask_few(*this, limits, objection);
}

ZeroOneAnswer ZeroOneProgram::solve(const ZeroOneLimits& limits) const {
    if (impossible_) return {ZeroOneEnd::infeasible, 0, {}};
    if (cost_.empty()) return {ZeroOneEnd::optimal, 0, {}};
    if (!all_finite()) return {ZeroOneEnd::failed, 0, {}};

    const auto begun = std::chrono::steady_clock::now();
    const auto left_s = [&] {
        return limits.most_s -
               std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
    };
    ZeroOneLimits mine = limits;
    const bool known = std::isfinite(limits.known_cost) && choices() >= kManyOfKnown;
    const bool few_first = known || choices() >= kVeryMany;
    if (few_first && limits.inside_s > 0)
        if (auto few = solve_by_few(*this, mine)) return *few;
    mine.most_s = std::min(left_s(), limits.inside_s);
    if (limits.inside_s > 0) {
        ZeroOneAnswer inside = solve_inside(*this, mine);
        const bool ended = inside.end == ZeroOneEnd::optimal || inside.end == ZeroOneEnd::infeasible;
        if (ended || left_s() <= 0 || (limits.cancel && *limits.cancel)) return inside;
    }
    mine.most_s = left_s();
    if (limits.inside_s > 0 && !few_first && choices() >= kMany)
        if (auto few = solve_by_few(*this, mine)) return *few;
    mine.most_s = left_s();
    if (mine.most_s <= 0 || (limits.cancel && *limits.cancel)) return {ZeroOneEnd::stopped, 0, {}};
    ZeroOneAnswer beside = solve_beside(*this, mine);
    if (beside.end != ZeroOneEnd::failed || limits.inside_s <= 0) return beside;
    mine.most_s = left_s();  // no such program on this machine: GLPK takes what time there is
    return solve_inside(*this, mine);
}

}  // namespace yr
