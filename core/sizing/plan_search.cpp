// The program: costs, choices, rows, and the turns of the search.
#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>
#include <set>

#include "units/at.h"

#include "sizing/plan_search.h"

namespace yr {
constexpr double kInOneSearch = 4;  // how much longer a proof in one search may take than a program
constexpr int kLookForOne = 15;     // turns after which some answer is looked for, be it not the least

// Whether it costs no more than what is proved.
static bool is_least(double cost, double bound) {
    return cost <= bound + kSameCost * std::max(1.0, std::abs(bound));
}

// What is cheap and soon found is mended by cuts until it passes; only then is a proof asked for, which is
// dear: first in one search, and where that takes long, turn by turn.
void Search::search(SizingResult& result, Best& best) {
    find_units();
    double tried = std::numeric_limits<double>::infinity();  // what the best cost when one search was tried
    while (true) {
        const Turn cheap = cheap_turn(result, best);
        if (cheap == Turn::over) return;
        if (cheap == Turn::again) continue;
        if (best.design && best.cost < tried * (1 - kSameCost)) {
            tried = best.cost;
            if (prove(result, best)) return;
        }
        const Chosen chosen = choose(best.design ? best.cost : std::numeric_limits<double>::infinity());
        if (chosen.end == ZeroOneEnd::infeasible) {  // the cuts leave nothing
            ++result.rounds;
            result.status = best.design ? SizingStatus::least : SizingStatus::impossible;
            if (best.design) result.bound = best.cost;
            return;
        }
        // a solver that stopped or broke has proved nothing
        if (chosen.end != ZeroOneEnd::optimal) throw DeadlineOver();
        result.bound = std::max(result.bound, chosen.relaxed.cost);
        if (!take(chosen.relaxed, result, best)) return;
    }
}

Search::Turn Search::cheap_turn(SizingResult& result, Best& best) {
    const auto found = guess();
    if (!found) return Turn::dear;  // so small a program that a proof costs no more
    result.bound = std::max(result.bound, found->bound);
    if (!found->relaxed) {  // with some answer known a proof is soon found where else it is not
        if (!best.design && result.rounds >= next_look_) {
            look_for_one(best);
            next_look_ = 2 * result.rounds + 1;  // where there is none, the more seldom
        }
        return Turn::dear;
    }
    if (best.design && found->relaxed->cost >= best.cost * (1 - kSameCost)) return Turn::dear;
    if (!take(*found->relaxed, result, best)) return Turn::over;
    return best.last_passes ? Turn::dear : Turn::again;
}

void Search::look_for_one(Best& best) {
    auto found = some_answer(best.last.design);
    if (!found || (best.design && cost_of(*found) >= best.cost)) return;
    best.cost = cost_of(*found);
    best.design = std::move(found);
}

bool Search::prove(SizingResult& result, Best& best) {
    const Asked now = asked();
    if (now.impossible) return false;
    struct Ended {};  // nothing passes, or the best is proved already
    const auto objection = [&](const std::vector<char>& chosen) {
        const std::size_t rows = rows_.size(), cuts = cuts_.size();
        const Relaxed relaxed = answer_to(now, chosen, std::numeric_limits<double>::infinity());
        if (!take(relaxed, result, best)) throw Ended();
        std::vector<ZeroOneProgram::Row> further;
        for (std::size_t r = rows; r < rows_.size(); ++r) further.push_back(row_of(rows_[r], now.x));
        for (std::size_t c = cuts; c < cuts_.size(); ++c) further.push_back(row_of(cuts_[c], now.x));
        return further;
    };
    try {
        const ZeroOneAnswer answer =
            now.program.solve_asking({std::min(deadline_.left_s(), kInOneSearch * ask_.inside_s),
                                      deadline_.cancel(), ask_.inside_s, best.cost},
                                     objection);
        if (!answer.optimal() && answer.end != ZeroOneEnd::infeasible) return false;
    } catch (const Ended&) {
        return true;
    }
    result.status = SizingStatus::least;
    result.bound = best.cost;
    return true;
}

bool Search::take(const Relaxed& relaxed, SizingResult& result, Best& best) {
    ++result.rounds;
    const auto broken = model_.breaches(relaxed.design);
    best.last = relaxed, best.last_passes = broken.empty();
    if (broken.empty() && (!best.design || relaxed.cost < best.cost))
        best.design = relaxed.design, best.cost = relaxed.cost;
    if (best.design && is_least(best.cost, result.bound)) {
        result.status = SizingStatus::least;
        return false;
    }
    const bool go_on =
        !ask_.watch || ask_.watch({result.rounds, shown(result.bound),
                                   best.design ? std::optional(shown(best.cost)) : std::nullopt});
    if (!go_on) throw DeadlineOver();
    deadline_.check();
    if (result.rounds % kLookForOne == 0)
        if (auto found = some_answer(relaxed.design); found && (!best.design || cost_of(*found) < best.cost))
            best.design = found, best.cost = cost_of(*found);
    if (broken.empty() || add_cuts(relaxed.design, broken, result)) return true;
    result.status = best.design ? SizingStatus::least : SizingStatus::impossible;
    return false;
}

void Search::run(SizingResult& result) {
    Best best;
    try {
        search(result, best);
    } catch (const DeadlineOver&) {
        const bool cancelled = deadline_.cancel() && *deadline_.cancel();
        if (!best.design && !best.last.design.empty() && !cancelled) look_for_one(best);
        result.status = best.design ? SizingStatus::best_found : SizingStatus::stopped;
    }
    result.bound = shown(result.bound);
    result.cuts = static_cast<int>(cuts_.size());
    if (!best.design) return;
    if (!deadline_.over()) best.design = polished(*best.design, best.cost);
    result.cost = shown(cost_of(*best.design));
    if (result.status == SizingStatus::least) result.bound = result.cost;  // equal but for rounding
    fill(result, *best.design);
}

void Search::count_sizes() {
    for (const FreeRun& f : model_.runs())
        for (const SizeChoice& c : f.choices) {
            if (std::none_of(sizes_.begin(), sizes_.end(), [&](const WireSize& s) { return s == c.size; }))
                sizes_.push_back(c.size);
        }
    double all = 1;
    for (const FreeRun& f : model_.runs()) {
        double most = 0;
        for (const SizeChoice& c : f.choices) most = std::max(most, c.cost);
        all += most;
    }
    per_size_ = ask_.goal == SizingGoal::sizes ? all * 2 : 0;
}

double Search::shown(double cost) const {
    return ask_.goal == SizingGoal::sizes ? std::floor(cost / per_size_ + 1e-9) : cost;
}

double Search::cost_of(const Design& d) const {
    double cost = 0;
    std::vector<WireSize> used;
    std::vector<double> length(sizes_.size(), 0);
    for (std::size_t f = 0; f < d.size(); ++f) {
        const SizeChoice& c = model_.runs()[f].choices[at(d[f])];
        cost += in_stock(c.size) ? ends_money(f) : c.cost;
        if (in_stock(c.size)) length[size_index(c.size)] += length_of(f);
        if (std::find(used.begin(), used.end(), c.size) == used.end()) used.push_back(c.size);
    }
    for (std::size_t s = 0; s < sizes_.size(); ++s)
        if (length[s] > 0) cost += std::max(0.0, length[s] - stock_m(sizes_[s])) * money_per_m(sizes_[s]);
    return cost + per_size_ * static_cast<double>(used.size());
}

double Search::stock_m(const WireSize& size) const {
    double metres = 0;
    for (const Stock& s : model_.plan().policy.stock)
        if (s.size == size) metres += s.length_m;
    return metres;
}

std::size_t Search::size_index(const WireSize& size) const {
    return static_cast<std::size_t>(std::find(sizes_.begin(), sizes_.end(), size) - sizes_.begin());
}

double Search::length_of(std::size_t f) const {
    const Run& run = model_.plan().runs[model_.runs()[f].run];
    return run.parallel * length_or_assumed_m(run);
}

double Search::ends_money(std::size_t f) const {
    const SizeChoice& c = model_.runs()[f].choices.front();
    return c.money - length_of(f) * money_per_m(c.size);
}

double Search::money_per_m(const WireSize& size) const {
    Run one;
    one.length_m = 1;
    Run two = one;
    two.length_m = 2;
    return run_money(model_.plan(), two, size) - run_money(model_.plan(), one, size);
}

double Search::choice_cost(std::size_t f, int c) const {
    const SizeChoice& choice = model_.runs()[f].choices[at(c)];
    return in_stock(choice.size) ? ends_money(f) : choice.cost;
}

void Search::find_units() {
    std::vector<char> taken(model_.runs().size(), 0);
    // sizes that are counted or in stock are worth more than they look: no pairs then
    const bool plain = ask_.goal == SizingGoal::mass ||
                       (ask_.goal == SizingGoal::money && model_.plan().policy.stock.empty());
    loose_pairs_.clear();
    for (const SizingModel::Pair& p : model_.pairs()) {
        if (!plain || taken[p.feed] || taken[p.back]) {
            loose_pairs_.push_back(&p);
            continue;
        }
        taken[p.feed] = taken[p.back] = 1;
        Unit unit{{p.feed, p.back}, {}};
        for (int a = 0; a < count(p.feed); ++a)
            for (int b = 0; b < count(p.back); ++b)
                if (model_.pair_holds(p, a, b)) unit.options.push_back({a, b});
        units_.push_back(std::move(unit));
    }
    for (std::size_t f = 0; f < taken.size(); ++f) {
        if (taken[f]) continue;
        Unit unit{{f}, {}};
        for (int c = 0; c < count(f); ++c) unit.options.push_back({c});
        units_.push_back(std::move(unit));
    }
    if (!plain) return;
    const RunTies ties = ties_of_runs();
    for (Unit& unit : units_) leave_out_worse(unit, ties);
}

Search::RunTies Search::ties_of_runs() const {
    const std::size_t n = model_.runs().size();
    RunTies ties{std::vector<char>(n, 0), std::vector<char>(n, 0), {}, {}};
    for (const SizingModel::Pair* p : loose_pairs_) ties.asks[p->feed] = ties.gives[p->back] = 1;
    for (const SizingModel::Ground& g : model_.grounds()) {
        if (g.when) ties.asks[g.when->first] = 1;
        for (const auto& [f, choice] : g.any) ties.gives[f] = 1;
    }
    for (std::size_t f = 0; f < n; ++f) {
        ties.carries.emplace_back();
        for (int c = 0; c < count(f); ++c) ties.carries.back().push_back(model_.surely_carries(f, c));
    }
    ties.rows.resize(n);
    for (std::size_t r = 0; r < rows_.size(); ++r)
        for (const auto& [f, volts] : rows_[r].terms) ties.rows[f].emplace_back(r, &volts);
    return ties;
}

void Search::leave_out_worse(Unit& unit, const RunTies& ties) const {
    std::vector<std::vector<double>> worth;
    std::vector<char> sure;
    for (const auto& option : unit.options) {
        std::vector<double> w{0, 0};
        bool carries = true;
        for (std::size_t r = 0; r < unit.runs.size(); ++r) {
            const SizeChoice& choice = model_.runs()[unit.runs[r]].choices[at(option[r])];
            // a smaller fuse and a thinner feed ask less of a cable elsewhere, a thicker return gives it
            if (ties.asks[unit.runs[r]]) w.insert(w.end(), {choice.fuse_A, choice.area_mm2});
            if (ties.gives[unit.runs[r]]) w.push_back(-choice.area_mm2);
            w[0] += choice_cost(unit.runs[r], option[r]);
            w[1] += model_.runs()[unit.runs[r]].choices[at(option[r])].ohm20;
            carries = carries && ties.carries[unit.runs[r]][at(option[r])];
        }
        std::map<std::size_t, double> lost;  // by row; of every option the same rows, though it be nothing
        for (std::size_t r = 0; r < unit.runs.size(); ++r)
            for (const auto& [row, volts] : ties.rows[unit.runs[r]]) lost[row] += (*volts)[at(option[r])];
        for (const auto& [row, volts] : lost) w.push_back(volts);
        worth.push_back(std::move(w));
        sure.push_back(carries);
    }
    // a fed resistance asks for thin cables elsewhere: never so for those that are alone with their load
    std::vector<std::vector<int>> kept;
    for (std::size_t a = 0; a < unit.options.size(); ++a) {
        bool worse = false;
        for (std::size_t b = 0; b < unit.options.size() && !worse; ++b) {
            if (a == b || !sure[b]) continue;
            bool all = true, some = false;
            for (std::size_t w = 0; w < worth[a].size() && all; ++w) {
                all = worth[b][w] <= worth[a][w] + 1e-12;
                some = some || worth[b][w] < worth[a][w] - 1e-12;
            }
            worse = all && (some || b < a);
        }
        if (!worse) kept.push_back(unit.options[a]);
    }
    unit.options = std::move(kept);
}

Search::Asked Search::asked() const {
    Asked out;
    Terms& x = out.x;
    x.resize(model_.runs().size());
    for (std::size_t f = 0; f < x.size(); ++f) x[f].resize(model_.runs()[f].choices.size());
    for (const Unit& unit : units_) {
        std::vector<ZeroOneTerm> one;
        std::vector<int> ids;
        for (const auto& option : unit.options) {
            double cost = 0;
            for (std::size_t r = 0; r < unit.runs.size(); ++r) cost += choice_cost(unit.runs[r], option[r]);
            const int id = out.program.add_choice(cost);
            ids.push_back(id);
            one.push_back({id, 1});
            for (std::size_t r = 0; r < unit.runs.size(); ++r) x[unit.runs[r]][at(option[r])].push_back(id);
        }
        out.impossible = out.impossible || one.empty();
        out.program.add_row(std::move(one), RowSense::equal, 1);
        out.ids.push_back(std::move(ids));
    }
    const auto add = [&](ZeroOneProgram::Row row) {
        out.program.add_row(std::move(row.terms), row.sense, row.right);
    };
    for (const SizingModel::DropRow& row : rows_) add(row_of(row, x));
    add_pair_rows(out.program, x);
    for (const Cut& cut : cuts_) add(row_of(cut, x));
    if (per_size_ > 0) add_size_rows(out.program, x);
    if (ask_.goal == SizingGoal::money) add_stock_rows(out.program, x);
    return out;
}

Search::Relaxed Search::answer_to(const Asked& asked, const std::vector<char>& chosen, double cost) const {
    Relaxed out{Design(model_.runs().size(), 0), cost};
    for (std::size_t u = 0; u < units_.size(); ++u)
        for (std::size_t o = 0; o < asked.ids[u].size(); ++o)
            if (chosen[at(asked.ids[u][o])])
                for (std::size_t r = 0; r < units_[u].runs.size(); ++r)
                    out.design[units_[u].runs[r]] = units_[u].options[o][r];
    out.cost = std::min(cost, cost_of(out.design));
    return out;
}

Search::Chosen Search::choose(double known_cost) {
    const Asked now = asked();
    if (now.impossible) return {ZeroOneEnd::infeasible, {}};
    const ZeroOneAnswer answer =
        now.program.solve({deadline_.left_s(), deadline_.cancel(), ask_.inside_s, known_cost});
    if (!answer.optimal()) return {answer.end, {}};
    return {ZeroOneEnd::optimal, answer_to(now, answer.chosen, answer.cost)};
}

std::optional<Search::Guess> Search::guess() {
    const Asked now = asked();
    if (now.impossible) return std::nullopt;
    const auto found = now.program.guess({deadline_.left_s(), deadline_.cancel()});
    if (!found) return std::nullopt;
    Guess guess{std::nullopt, found->bound};
    if (!found->chosen.empty()) guess.relaxed = answer_to(now, found->chosen, found->cost);
    return guess;
}

ZeroOneProgram::Row Search::row_of(const SizingModel::DropRow& row, const Terms& x) const {
    const double limit = model_.limit_V(row.load);
    std::map<int, double> sum;
    for (const auto& [f, volts] : row.terms)
        for (std::size_t c = 0; c < volts.size(); ++c)
            for (const int id : x[f][c]) sum[id] += volts[c] / limit;
    std::vector<ZeroOneTerm> terms;
    terms.reserve(sum.size());
    for (const auto& [id, factor] : sum) terms.push_back({id, factor});
    return {std::move(terms), RowSense::at_most, (1 - row.rest_V / limit) * (1 + 1e-9) + 1e-9};
}

ZeroOneProgram::Row Search::row_of(const Cut& cut, const Terms& x) {
    std::map<int, double> sum;
    for (const auto& [f, c] : cut)
        for (const int id : x[f][at(c)]) sum[id] = 1;
    std::vector<ZeroOneTerm> terms;
    terms.reserve(sum.size());
    for (const auto& [id, factor] : sum) terms.push_back({id, factor});
    return {std::move(terms), RowSense::at_least, 1};
}

void Search::add_pair_rows(ZeroOneProgram& program, const Terms& x) const {
    for (const SizingModel::Pair* p : loose_pairs_)
        for (int a = 0; a < count(p->feed); ++a) {
            std::vector<ZeroOneTerm> terms;
            for (const int id : x[p->feed][at(a)]) terms.push_back({id, 1});
            for (int b = 0; b < count(p->back); ++b)
                if (!model_.pair_holds(*p, a, b))
                    for (const int id : x[p->back][at(b)]) terms.push_back({id, 1});
            program.add_row(std::move(terms), RowSense::at_most, 1);
        }
    for (const SizingModel::Ground& g : model_.grounds()) {
        std::map<int, double> sum;
        for (const auto& [f, c] : g.any)
            for (const int id : x[f][at(c)]) sum[id] = 1;
        if (g.when)
            for (const int id : x[g.when->first][at(g.when->second)]) sum[id] -= 1;
        std::vector<ZeroOneTerm> terms;
        terms.reserve(sum.size());
        for (const auto& [id, factor] : sum) terms.push_back({id, factor});
        program.add_row(std::move(terms), RowSense::at_least, g.when ? 0 : 1);
    }
}

void Search::add_size_rows(ZeroOneProgram& program, const Terms& x) const {
    for (const WireSize& size : sizes_) {
        const int used = program.add_choice(per_size_);
        for (std::size_t f = 0; f < x.size(); ++f) {
            std::vector<ZeroOneTerm> terms{{used, -1}};
            for (std::size_t c = 0; c < x[f].size(); ++c)
                if (model_.runs()[f].choices[c].size == size)
                    for (const int id : x[f][c]) terms.push_back({id, 1});
            if (terms.size() > 1) program.add_row(std::move(terms), RowSense::at_most, 0);
        }
    }
}

void Search::add_stock_rows(ZeroOneProgram& program, const Terms& x) const {
    for (const WireSize& size : sizes_) {
        if (!in_stock(size)) continue;
        const int bought = program.add_amount(money_per_m(size), 1e4);  // metres beyond the stock
        std::vector<ZeroOneTerm> terms{{bought, -1}};
        for (std::size_t f = 0; f < x.size(); ++f)
            for (std::size_t c = 0; c < x[f].size(); ++c)
                if (model_.runs()[f].choices[c].size == size)
                    for (const int id : x[f][c]) terms.push_back({id, length_of(f)});
        program.add_row(std::move(terms), RowSense::at_most, stock_m(size));
    }
}

}  // namespace yr
