#include "control/assignment.h"

#include <algorithm>
#include <map>

#include "choice/zero_one.h"
#include "units/at.h"

namespace yr {
namespace {

constexpr double kSlack_A = 1e-9;

// The program for some of the problem's loads, with one choice for each load and way that fits.
class Builder {
  public:
    Builder(const AssignProblem& problem, const std::vector<int>& loads) : p_(problem), loads_(loads) {
        choice_.assign(p_.loads.size(), std::vector<int>(p_.ways.size(), -1));
        for (const int l : loads_)
            for (std::size_t w = 0; w < p_.ways.size(); ++w)
                if (fits_alone(p_, at(l), w)) choice_[at(l)][w] = program_.add_choice(*load(l).cost[w]);
        find_positions_within();
        add_once_each();
        add_places();
        add_groups();
    }

    void add_limits(std::size_t without = SIZE_MAX) {
        for (std::size_t k = 0; k < p_.limits.size(); ++k)
            if (k != without) add_limit(p_.limits[k]);
    }

    [[nodiscard]] AssignAnswer solve() const {
        const ZeroOneAnswer found = program_.solve(p_.limits_of_time);
        AssignAnswer answer;
        answer.feasible = found.optimal();
        answer.known = answer.feasible || found.end == ZeroOneEnd::infeasible;
        if (!answer.feasible) return answer;
        answer.way.assign(p_.loads.size(), -1);
        for (const int l : loads_)
            for (std::size_t w = 0; w < p_.ways.size(); ++w)
                if (const int c = choice_[at(l)][w]; c >= 0 && found.chosen[at(c)]) {
                    answer.way[at(l)] = static_cast<int>(w);
                    answer.cost += *load(l).cost[w];
                }
        return answer;
    }

  private:
    const AssignLoad& load(int l) const { return p_.loads[at(l)]; }

    void add_once_each() {
        for (const int l : loads_) {
            std::vector<ZeroOneTerm> terms;
            for (const int c : choice_[at(l)])
                if (c >= 0) terms.push_back({c, 1});
            program_.add_row(std::move(terms), RowSense::equal, 1);
        }
    }

    void add_places() {
        std::vector<std::vector<ZeroOneTerm>> places(p_.ways.size());
        for (const int l : loads_)
            for (std::size_t v = 0; v < p_.ways.size(); ++v)
                if (const int c = choice_[at(l)][v]; c >= 0) {
                    const int joined = p_.ways[v].joined_of;
                    places[joined >= 0 ? at(joined) : v].push_back({c, joined >= 0 ? 2.0 : 1.0});
                }
        for (std::size_t w = 0; w < p_.ways.size(); ++w)
            if (p_.ways[w].joined_of < 0)
                program_.add_row(std::move(places[w]), RowSense::at_most, p_.ways[w].places);
    }

    std::vector<ZeroOneTerm> on_feed(int l, int feed, double factor) const {
        std::vector<ZeroOneTerm> terms;
        for (std::size_t w = 0; w < p_.ways.size(); ++w)
            if (const int c = choice_[at(l)][w]; c >= 0 && p_.ways[w].feed == feed)
                terms.push_back({c, factor});
        return terms;
    }

    void add_groups() {
        int feeds = 0;
        for (const AssignWay& w : p_.ways) feeds = std::max(feeds, w.feed + 1);
        std::map<std::string, std::vector<int>> together, apart;
        for (const int l : loads_) {
            if (!load(l).together.empty()) together[load(l).together].push_back(l);
            if (!load(l).apart.empty()) apart[load(l).apart].push_back(l);
        }
        for (int f = 0; f < feeds; ++f) {
            for (const auto& [word, members] : together)
                for (std::size_t k = 1; k < members.size(); ++k) {
                    auto terms = on_feed(members[0], f, 1);
                    const auto other = on_feed(members[k], f, -1);
                    terms.insert(terms.end(), other.begin(), other.end());
                    program_.add_row(std::move(terms), RowSense::equal, 0);
                }
            for (const auto& [word, members] : apart) {
                std::vector<ZeroOneTerm> terms;
                for (const int l : members) {
                    const auto here = on_feed(l, f, 1);
                    terms.insert(terms.end(), here.begin(), here.end());
                }
                program_.add_row(std::move(terms), RowSense::at_most, 1);
            }
        }
    }

    // A key position in which all that is live there is live in another as well asks for nothing more.
    [[nodiscard]] bool asks_nothing(const AssignLimit& limit, std::size_t s) const {
        for (std::size_t t = 0; t < kKeyPositions; ++t) {
            if (t == s || !within_[s][t] || limit.taken_A[s] > limit.taken_A[t]) continue;
            const bool same = within_[t][s] && limit.taken_A[s] == limit.taken_A[t];
            if (!same || t < s) return true;
        }
        return false;
    }

    void find_positions_within() {
        for (std::size_t s = 0; s < kKeyPositions; ++s)
            for (std::size_t t = 0; t < kKeyPositions; ++t)
                within_[s][t] = std::all_of(loads_.begin(), loads_.end(),
                                            [&](int l) { return !load(l).live[s] || load(l).live[t]; });
    }

    void add_limit(const AssignLimit& limit) {
        for (std::size_t s = 0; s < kKeyPositions; ++s) {
            if (asks_nothing(limit, s)) continue;
            std::vector<ZeroOneTerm> terms;
            for (const int l : loads_)
                for (const int w : limit.ways)
                    if (const int c = choice_[at(l)][at(w)]; c >= 0 && load(l).live[s])
                        terms.push_back({c, load(l).amps});
            if (!terms.empty())
                program_.add_row(std::move(terms), RowSense::at_most,
                                 limit.limit_A - limit.taken_A[s] + kSlack_A);
        }
    }

    const AssignProblem& p_;
    std::vector<int> loads_;
    ZeroOneProgram program_;
    std::vector<std::vector<int>> choice_;  // by load and way; -1: does not fit
    std::array<std::array<bool, kKeyPositions>, kKeyPositions>
        within_{};  // what is live in one, live in the other
};

std::vector<int> every_load(const AssignProblem& p) {
    std::vector<int> all(p.loads.size());
    for (std::size_t k = 0; k < all.size(); ++k) all[k] = static_cast<int>(k);
    return all;
}

bool fit_together(const AssignProblem& p, const std::vector<int>& loads) {
    for (const int l : loads) {  // cheap, and often the whole reason
        bool any = false;
        for (std::size_t w = 0; w < p.ways.size() && !any; ++w)
            any = fits_alone(p, static_cast<std::size_t>(l), w);
        if (!any) return false;
    }
    return fits_together(p, loads);  // what is not proved blames nobody
}

std::vector<int> joined(std::vector<int> a, const std::vector<int>& b) {
    a.insert(a.end(), b.begin(), b.end());
    return a;
}

// U. Junker 2004, "QuickXplain: preferred explanations and relaxations for over-constrained problems", AAAI:
// halves the candidates instead of taking them out one by one.
std::vector<int> quick_explain(const AssignProblem& p, const std::vector<int>& background, bool has_delta,
                               const std::vector<int>& candidates) {
    if (has_delta && !fit_together(p, background)) return {};
    if (candidates.size() <= 1) return candidates;
    const auto half = candidates.begin() + static_cast<std::ptrdiff_t>(candidates.size() / 2);
    const std::vector<int> first(candidates.begin(), half), second(half, candidates.end());
    const auto from_second = quick_explain(p, joined(background, first), !first.empty(), second);
    const auto from_first = quick_explain(p, joined(background, from_second), !from_second.empty(), first);
    return joined(from_first, from_second);
}

}  // namespace

bool fits_alone(const AssignProblem& p, std::size_t load, std::size_t way) {
    const AssignLoad& l = p.loads[load];
    const AssignWay& w = p.ways[way];
    if (l.pinned && *l.pinned != static_cast<int>(way)) return false;
    return l.cost[way].has_value() && l.amps <= w.rating_A + kSlack_A && l.start_A <= w.peak_A + kSlack_A;
}

AssignAnswer assign(const AssignProblem& problem) {
    Builder b(problem, every_load(problem));
    b.add_limits();
    return b.solve();
}

std::vector<int> conflict(const AssignProblem& problem) {
    auto found = quick_explain(problem, {}, false, every_load(problem));
    std::sort(found.begin(), found.end());
    if (found.size() == 1 && fit_together(problem, found)) found.clear();
    return found;
}

bool fits_together(const AssignProblem& problem, const std::vector<int>& loads, std::size_t without) {
    Builder b(problem, loads);
    b.add_limits(without);
    const AssignAnswer answer = b.solve();
    return answer.feasible || !answer.known;
}

std::optional<double> least_limit_A(const AssignProblem& problem, std::size_t limit) {
    // Without it first: if that does not help, nothing there will. Then the least is narrowed by halving.
    AssignProblem p = problem;
    Builder free(p, every_load(p));
    free.add_limits(limit);
    const AssignAnswer open = free.solve();
    if (!open.feasible) return std::nullopt;
    const auto carried = [&](const AssignAnswer& a) {
        double most = 0;
        for (std::size_t s = 0; s < kKeyPositions; ++s) {
            double sum = p.limits[limit].taken_A[s];
            for (std::size_t l = 0; l < p.loads.size(); ++l) {
                const auto& ways = p.limits[limit].ways;
                if (p.loads[l].live[s] && std::find(ways.begin(), ways.end(), a.way[l]) != ways.end())
                    sum += p.loads[l].amps;
            }
            most = std::max(most, sum);
        }
        return most;
    };
    double high = carried(open), low = problem.limits[limit].limit_A;
    while (high - low > 0.05) {
        p.limits[limit].limit_A = (high + low) / 2;
        const AssignAnswer a = assign(p);
        if (a.feasible)
            high = std::min(carried(a), p.limits[limit].limit_A);
        else
            low = p.limits[limit].limit_A;
    }
    return high;
}

}  // namespace yr
