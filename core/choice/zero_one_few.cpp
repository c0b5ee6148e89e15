#include <algorithm>
#include <chrono>
#include <cmath>

#include "choice/zero_one_solvers.h"

namespace yr {
namespace {

constexpr double kWorth = 0.5;       // of the choices: where more are left in, little is gained
constexpr std::size_t kFirst = 5;    // how many choices a row is given to begin with, on average
constexpr std::size_t kGuessed = 2;  // the same, for a guess
constexpr double kGuess_s = 0.2;     // a guess that takes longer is none
constexpr double kCheaper = 1e-6;    // of the cost
constexpr double kSafe = 1e-6;       // of the cost: more than the simplex method's own error

// The program with some of its choices alone. Amounts stay.
struct Part {
    ZeroOneProgram program;
    std::vector<int> whole;   // their numbers there
    std::vector<int> number;  // of each choice there its number here; -1: it has none
};

std::vector<ZeroOneTerm> terms_of_part(const std::vector<ZeroOneTerm>& terms,
                                       const std::vector<int>& number) {
    std::vector<ZeroOneTerm> here;
    for (const ZeroOneTerm& t : terms)
        if (const int there = number[static_cast<std::size_t>(t.choice)]; there >= 0)
            here.push_back({there, t.factor});
    return here;
}

Part with_only(const ZeroOneProgram& program, const std::vector<char>& kept) {
    Part part;
    part.number.assign(kept.size(), -1);
    for (std::size_t k = 0; k < kept.size(); ++k) {
        if (!kept[k]) continue;
        const double cost = program.costs()[k], most = program.mosts()[k];
        part.number[k] = most > 0 ? part.program.add_amount(cost, most) : part.program.add_choice(cost);
        part.whole.push_back(static_cast<int>(k));
    }
    for (const ZeroOneProgram::Row& row : program.rows())
        part.program.add_row(terms_of_part(row.terms, part.number), row.sense, row.right);
    return part;
}

std::size_t count_of(const std::vector<char>& kept) {
    return static_cast<std::size_t>(std::count(kept.begin(), kept.end(), 1));
}

// An answer of the part, as one of the whole.
std::vector<char> chosen_of_all(const Part& part, const std::vector<char>& chosen, std::size_t all) {
    std::vector<char> of_all(all, 0);
    for (std::size_t k = 0; k < part.whole.size(); ++k)
        of_all[static_cast<std::size_t>(part.whole[k])] = chosen[k];
    return of_all;
}

// Which choices add no more than that; amounts stay. What the relaxed answer itself holds adds nothing and is
// kept, so that no row that must be reached is left without choices.
std::vector<char> those_below(const ZeroOneProgram& program, const Relaxed& relaxed, double adds) {
    std::vector<char> kept(relaxed.adds.size());
    for (std::size_t k = 0; k < kept.size(); ++k) kept[k] = relaxed.adds[k] <= adds || program.mosts()[k] > 0;
    return kept;
}

// What a choice may add at most that stands in an answer of this cost.
double gap_above(const Relaxed& relaxed, double cost) {
    return cost - relaxed.cost + kSafe * std::max(1.0, std::abs(cost));
}

// What so many choices add at most.
double threshold_for(const Relaxed& relaxed, std::size_t count) {
    std::vector<double> sorted = relaxed.adds;
    const std::size_t last = std::min(count, sorted.size() - 1);
    std::nth_element(sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(last), sorted.end());
    return std::max(sorted[last], kSafe * std::abs(relaxed.cost));
}

}  // namespace

std::optional<ZeroOneAnswer> solve_by_few(const ZeroOneProgram& program, const ZeroOneLimits& limits) {
    const auto begun = std::chrono::steady_clock::now();
    const auto left = [&] {
        ZeroOneLimits rest = limits;
        rest.most_s -= std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
        rest.known_cost = std::numeric_limits<double>::infinity();
        return rest;
    };
    const auto relaxed = relax(program, left());
    if (!relaxed) return std::nullopt;
    const std::size_t all = relaxed->adds.size();
    double threshold = std::isfinite(limits.known_cost)
                           ? gap_above(*relaxed, limits.known_cost)
                           : threshold_for(*relaxed, std::min(all / 3, program.rows().size() * kFirst));
    for (int round = 0; round < 2; ++round) {
        const std::vector<char> kept = those_below(program, *relaxed, threshold);
        if (static_cast<double>(count_of(kept)) > kWorth * static_cast<double>(all)) return std::nullopt;
        const Part part = with_only(program, kept);
        const ZeroOneLimits rest = left();
        if (rest.most_s <= 0) return std::nullopt;
        const ZeroOneAnswer found = part.program.solve(rest);
        if (!found.optimal()) return std::nullopt;
        if (gap_above(*relaxed, found.cost) > threshold) {
            threshold = gap_above(*relaxed, found.cost);
            continue;
        }
        return ZeroOneAnswer{ZeroOneEnd::optimal, found.cost, chosen_of_all(part, found.chosen, all)};
    }
    return std::nullopt;
}

ZeroOneAnswer ask_few(const ZeroOneProgram& program, const ZeroOneLimits& limits,
                      const ZeroOneProgram::Objection& objection) {
    const auto begun = std::chrono::steady_clock::now();
    const auto relaxed = std::isfinite(limits.known_cost) ? relax(program, limits) : std::nullopt;
    if (!relaxed) return solve_inside(program, limits, &objection);
    const std::size_t all = relaxed->adds.size();
    Part part = with_only(program, those_below(program, *relaxed, gap_above(*relaxed, limits.known_cost)));
    std::vector<ZeroOneTerm> costs;
    costs.reserve(static_cast<std::size_t>(part.program.choices()));
    for (int k = 0; k < part.program.choices(); ++k)
        costs.push_back({k, part.program.costs()[static_cast<std::size_t>(k)]});
    part.program.add_row(std::move(costs), RowSense::at_most,
                         limits.known_cost - kCheaper * std::max(1.0, std::abs(limits.known_cost)));
    const ZeroOneProgram::Objection of_part = [&](const std::vector<char>& chosen) {
        auto rows = objection(chosen_of_all(part, chosen, all));
        for (ZeroOneProgram::Row& row : rows) row.terms = terms_of_part(row.terms, part.number);
        return rows;
    };
    ZeroOneLimits rest = limits;
    rest.most_s -= std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
    ZeroOneAnswer found = solve_inside(part.program, rest, &of_part);
    if (found.optimal()) found.chosen = chosen_of_all(part, found.chosen, all);
    return found;
}

std::optional<ZeroOneGuess> guess_by_few(const ZeroOneProgram& program, const ZeroOneLimits& limits) {
    const auto relaxed = relax(program, limits);
    if (!relaxed) return std::nullopt;
    const std::size_t all = relaxed->adds.size();
    const Part part = with_only(
        program, those_below(program, *relaxed, threshold_for(*relaxed, program.rows().size() * kGuessed)));
    ZeroOneLimits soon = limits;
    soon.most_s = std::min(limits.most_s, kGuess_s);
    const ZeroOneAnswer found = solve_inside(part.program, soon);
    if (!found.optimal()) return ZeroOneGuess{0, {}, relaxed->cost};
    return ZeroOneGuess{found.cost, chosen_of_all(part, found.chosen, all), relaxed->cost};
}

}  // namespace yr
