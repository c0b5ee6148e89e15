// The program: costs, choices, rows, and the turns of the search.
#include <algorithm>
#include <cmath>
#include <set>

#include "units/at.h"

#include "sizing/plan_search.h"

namespace yr {
constexpr int kLookForOne = 15;  // turns after which some answer is looked for, be it not the least

void Search::search(SizingResult& result, Best& best) {
    find_units();
    while (true) {
        const Chosen chosen = choose();
        ++result.rounds;
        if (chosen.end == ZeroOneEnd::infeasible) {  // the cuts leave nothing
            result.status = best.design ? SizingStatus::least : SizingStatus::impossible;
            if (best.design) result.bound = best.cost;
            return;
        }
        // a solver that stopped or broke has proved nothing
        if (chosen.end != ZeroOneEnd::optimal) throw DeadlineOver();
        const Relaxed& relaxed = chosen.relaxed;
        result.bound = std::max(result.bound, relaxed.cost);
        const auto broken = model_.breaches(relaxed.design);
        if (broken.empty() && (!best.design || relaxed.cost < best.cost))
            best.design = relaxed.design, best.cost = relaxed.cost;
        if (best.design && best.cost <= result.bound + kSameCost * std::max(1.0, std::abs(result.bound))) {
            result.status = SizingStatus::least;
            return;
        }
        best.last = relaxed;
        const bool go_on =
            !ask_.watch || ask_.watch({result.rounds, shown(result.bound),
                                       best.design ? std::optional(shown(best.cost)) : std::nullopt});
        if (!go_on) throw DeadlineOver();
        deadline_.check();
        if (result.rounds % kLookForOne == 0)
            if (auto found = some_answer(relaxed.design);
                found && (!best.design || cost_of(*found) < best.cost))
                best.design = found, best.cost = cost_of(*found);
        if (!add_cuts(relaxed.design, broken, result)) {
            result.status = best.design ? SizingStatus::least : SizingStatus::impossible;
            return;
        }
    }
}

void Search::run(SizingResult& result) {
    Best best;
    try {
        search(result, best);
    } catch (const DeadlineOver&) {
        const bool cancelled = deadline_.cancel() && *deadline_.cancel();
        if (!best.design && !best.last.design.empty() && !cancelled)
            if (auto found = some_answer(best.last.design)) best.design = found, best.cost = cost_of(*found);
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
        leave_out_worse(unit);
        units_.push_back(std::move(unit));
    }
    for (std::size_t f = 0; f < taken.size(); ++f) {
        if (taken[f]) continue;
        Unit unit{{f}, {}};
        for (int c = 0; c < count(f); ++c) unit.options.push_back({c});
        if (plain) leave_out_worse(unit);
        units_.push_back(std::move(unit));
    }
}

void Search::leave_out_worse(Unit& unit) const {
    std::vector<std::vector<double>> worth;
    std::vector<char> sure;
    for (const auto& option : unit.options) {
        std::vector<double> w{0, 0};
        bool carries = true;
        for (std::size_t r = 0; r < unit.runs.size(); ++r) {
            w[0] += choice_cost(unit.runs[r], option[r]);
            w[1] += model_.runs()[unit.runs[r]].choices[at(option[r])].ohm20;
            carries = carries && model_.surely_carries(unit.runs[r], option[r]);
        }
        for (const SizingModel::DropRow& row : rows_) {
            double lost = 0;
            for (const auto& [f, volts] : row.terms)
                for (std::size_t r = 0; r < unit.runs.size(); ++r)
                    if (f == unit.runs[r]) lost += volts[at(option[r])];
            if (lost > 0) w.push_back(lost);
        }
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

Search::Chosen Search::choose() {
    ZeroOneProgram program;
    // terms of each run's choice: the options that hold it
    std::vector<std::vector<std::vector<int>>> x(model_.runs().size());
    for (std::size_t f = 0; f < x.size(); ++f) x[f].resize(model_.runs()[f].choices.size());
    std::vector<std::vector<int>> unit_x;
    for (const Unit& unit : units_) {
        std::vector<ZeroOneTerm> one;
        std::vector<int> ids;
        for (const auto& option : unit.options) {
            double cost = 0;
            for (std::size_t r = 0; r < unit.runs.size(); ++r) cost += choice_cost(unit.runs[r], option[r]);
            const int id = program.add_choice(cost);
            ids.push_back(id);
            one.push_back({id, 1});
            for (std::size_t r = 0; r < unit.runs.size(); ++r) x[unit.runs[r]][at(option[r])].push_back(id);
        }
        if (one.empty()) return {ZeroOneEnd::infeasible, {}};
        program.add_row(std::move(one), RowSense::equal, 1);
        unit_x.push_back(std::move(ids));
    }
    for (const SizingModel::DropRow& row : rows_) add_drop_row(program, row, x);
    add_pair_rows(program, x);
    for (const Cut& cut : cuts_) {
        std::map<int, double> sum;
        for (const auto& [f, c] : cut)
            for (const int id : x[f][at(c)]) sum[id] = 1;
        std::vector<ZeroOneTerm> terms;
        terms.reserve(sum.size());
        for (const auto& [id, factor] : sum) terms.push_back({id, factor});
        program.add_row(std::move(terms), RowSense::at_least, 1);
    }
    if (per_size_ > 0) add_size_rows(program, x);
    if (ask_.goal == SizingGoal::money) add_stock_rows(program, x);
    const ZeroOneAnswer answer = program.solve({deadline_.left_s(), deadline_.cancel(), ask_.inside_s});
    if (!answer.optimal()) return {answer.end, {}};
    Relaxed out{Design(model_.runs().size(), 0), answer.cost};
    for (std::size_t u = 0; u < units_.size(); ++u)
        for (std::size_t o = 0; o < unit_x[u].size(); ++o)
            if (answer.chosen[at(unit_x[u][o])])
                for (std::size_t r = 0; r < units_[u].runs.size(); ++r)
                    out.design[units_[u].runs[r]] = units_[u].options[o][r];
    out.cost = std::min(answer.cost, cost_of(out.design));
    return {ZeroOneEnd::optimal, std::move(out)};
}

void Search::add_drop_row(ZeroOneProgram& program, const SizingModel::DropRow& row, const Terms& x) const {
    const double limit = model_.limit_V(row.load);
    std::map<int, double> sum;
    for (const auto& [f, volts] : row.terms)
        for (std::size_t c = 0; c < volts.size(); ++c)
            for (const int id : x[f][c]) sum[id] += volts[c] / limit;
    std::vector<ZeroOneTerm> terms;
    terms.reserve(sum.size());
    for (const auto& [id, factor] : sum) terms.push_back({id, factor});
    program.add_row(std::move(terms), RowSense::at_most, (1 - row.rest_V / limit) * (1 + 1e-9) + 1e-9);
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
