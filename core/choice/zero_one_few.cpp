#include <algorithm>
#include <chrono>
#include <cmath>

#include "choice/zero_one_solvers.h"

namespace yr {
namespace {

constexpr double kWorth = 0.5;  // of the choices: where more are left in, little is gained
constexpr int kFirst = 5;       // how many choices a row is given to begin with, on average
constexpr double kSafe = 1e-6;  // of the cost: more than the simplex method's own error

// The program with some of its choices alone. Amounts stay.
struct Part {
    ZeroOneProgram program;
    std::vector<int> whole;  // their numbers there
};

Part with_only(const ZeroOneProgram& program, const std::vector<char>& kept) {
    Part part;
    std::vector<int> number(kept.size(), -1);
    for (std::size_t k = 0; k < kept.size(); ++k) {
        if (!kept[k]) continue;
        const double cost = program.costs()[k], most = program.mosts()[k];
        number[k] = most > 0 ? part.program.add_amount(cost, most) : part.program.add_choice(cost);
        part.whole.push_back(static_cast<int>(k));
    }
    for (const ZeroOneProgram::Row& row : program.rows()) {
        std::vector<ZeroOneTerm> terms;
        for (const ZeroOneTerm& t : row.terms)
            if (const int there = number[static_cast<std::size_t>(t.choice)]; there >= 0)
                terms.push_back({there, t.factor});
        part.program.add_row(std::move(terms), row.sense, row.right);
    }
    return part;
}

std::size_t count_of(const std::vector<char>& kept) {
    return static_cast<std::size_t>(std::count(kept.begin(), kept.end(), 1));
}

}  // namespace

std::optional<ZeroOneAnswer> solve_by_few(const ZeroOneProgram& program, const ZeroOneLimits& limits) {
    const auto begun = std::chrono::steady_clock::now();
    const auto left = [&] {
        ZeroOneLimits rest = limits;
        rest.most_s -= std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
        return rest;
    };
    const auto relaxed = relax(program, left());
    if (!relaxed) return std::nullopt;
    const std::size_t all = relaxed->adds.size();
    const auto those_below = [&](double adds) {
        std::vector<char> kept(all);
        for (std::size_t k = 0; k < all; ++k) kept[k] = relaxed->adds[k] <= adds || program.mosts()[k] > 0;
        return kept;
    };
    std::vector<double> sorted = relaxed->adds;
    const std::size_t first = std::min(all / 3, program.rows().size() * kFirst);
    std::nth_element(sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(first), sorted.end());
    double threshold = std::max(sorted[first], kSafe * std::abs(relaxed->cost));
    for (int round = 0; round < 2; ++round) {
        const std::vector<char> kept = those_below(threshold);
        if (static_cast<double>(count_of(kept)) > kWorth * static_cast<double>(all)) return std::nullopt;
        const Part part = with_only(program, kept);
        const ZeroOneLimits rest = left();
        if (rest.most_s <= 0) return std::nullopt;
        const ZeroOneAnswer found = part.program.solve(rest);
        if (!found.optimal()) return std::nullopt;
        const double gap = found.cost - relaxed->cost + kSafe * std::max(1.0, std::abs(found.cost));
        if (gap > threshold) {
            threshold = gap;
            continue;
        }
        ZeroOneAnswer answer;
        answer.end = ZeroOneEnd::optimal;
        answer.cost = found.cost;
        answer.chosen.assign(all, 0);
        for (std::size_t k = 0; k < part.whole.size(); ++k)
            answer.chosen[static_cast<std::size_t>(part.whole[k])] = found.chosen[k];
        return answer;
    }
    return std::nullopt;
}

}  // namespace yr
