#include "sizing/plan_sizing.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <memory>
#include <set>

#include "choice/zero_one.h"
#include "sizing/sizing_model.h"

namespace yr {
namespace {

constexpr double kSame = 1e-9;      // of a cost
constexpr std::size_t kOrders = 4;  // cuts tried of each breach
constexpr int kMostRepairs = 400;   // steps of one repair

std::size_t at(int k) {
    return static_cast<std::size_t>(k);
}

// A cut: at least one of these choices is taken.
using Cut = std::vector<std::pair<std::size_t, int>>;

class Search {
    using Lever = SizingModel::Lever;

  public:
    Search(SizingModel& model, const SizingAsk& ask) : model_(model), ask_(ask), rows_(model.drop_rows()) {
        count_sizes();
    }

    void run(SizingResult& result) {
        const auto begun = std::chrono::steady_clock::now();
        const auto spent_s = [&] {
            return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
        };
        std::optional<Design> best;
        double best_cost = 0;
        find_units();
        while (true) {
            const auto relaxed = choose();
            ++result.rounds;
            if (!relaxed) {  // the cuts leave nothing
                result.status = best ? SizingStatus::least : SizingStatus::impossible;
                if (best) result.bound = best_cost;
                break;
            }
            result.bound = std::max(result.bound, relaxed->cost);
            const auto broken = model_.breaches(relaxed->design);
            if (broken.empty() && (!best || relaxed->cost < best_cost))
                best = relaxed->design, best_cost = relaxed->cost;
            if (best && best_cost <= result.bound + kSame * std::max(1.0, std::abs(result.bound))) {
                result.status = SizingStatus::least;
                break;
            }
            const bool go_on =
                !ask_.watch || ask_.watch({result.rounds, shown(result.bound),
                                           best ? std::optional(shown(best_cost)) : std::nullopt});
            if (!go_on || spent_s() > ask_.most_s) {
                if (auto mended = best ? std::nullopt : repair(relaxed->design, broken)) {
                    best = mended;
                    best_cost = cost_of(*mended);
                }
                result.status = best ? SizingStatus::best_found : SizingStatus::stopped;
                break;
            }
            if (!add_cuts(relaxed->design, broken, result)) {
                result.status = best ? SizingStatus::least : SizingStatus::impossible;
                break;
            }
        }
        result.bound = shown(result.bound);
        result.cuts = static_cast<int>(cuts_.size());
        if (!best) return;
        best = polished(*best, best_cost);
        result.cost = shown(cost_of(*best));
        if (result.status == SizingStatus::least) result.bound = result.cost;  // equal but for rounding
        fill(result, *best);
    }

  private:
    struct Relaxed {
        Design design;
        double cost;
    };

    // Different sizes count as whole kilograms beyond all copper, so that copper only parts equals.
    void count_sizes() {
        for (const FreeRun& f : model_.runs())
            for (const SizeChoice& c : f.choices) {
                if (std::none_of(sizes_.begin(), sizes_.end(),
                                 [&](const WireSize& s) { return s == c.size; }))
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

    // The cost in the goal's own unit.
    double shown(double cost) const {
        return ask_.goal == SizingGoal::sizes ? std::floor(cost / per_size_ + 1e-9) : cost;
    }

    double cost_of(const Design& d) const {
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

    // Stock counts where money does: its metres are free, what exceeds it is bought.
    double stock_m(const WireSize& size) const {
        double metres = 0;
        for (const Stock& s : model_.plan().policy.stock)
            if (s.size == size) metres += s.length_m;
        return metres;
    }
    bool in_stock(const WireSize& size) const { return ask_.goal == SizingGoal::money && stock_m(size) > 0; }
    std::size_t size_index(const WireSize& size) const {
        return static_cast<std::size_t>(std::find(sizes_.begin(), sizes_.end(), size) - sizes_.begin());
    }
    double length_of(std::size_t f) const {
        const Run& run = model_.plan().runs[model_.runs()[f].run];
        return run.parallel * run.length_m.value_or(3);
    }
    // Money of the run's ends: what it costs without any length.
    double ends_money(std::size_t f) const {
        const SizeChoice& c = model_.runs()[f].choices.front();
        return c.money - length_of(f) * money_per_m(c.size);
    }
    double money_per_m(const WireSize& size) const {
        Run one;
        one.length_m = 1;
        Run two = one;
        two.length_m = 2;
        return run_money(model_.plan(), two, size) - run_money(model_.plan(), one, size);
    }

    // What the program chooses among: one run, or a load's feed and return together, where those that are no
    // better in anything are left out.
    struct Unit {
        std::vector<std::size_t> runs;
        std::vector<std::vector<int>> options;  // a choice for each of its runs
    };

    double choice_cost(std::size_t f, int c) const {
        const SizeChoice& choice = model_.runs()[f].choices[at(c)];
        return in_stock(choice.size) ? ends_money(f) : choice.cost;
    }

    void find_units() {
        std::vector<char> taken(model_.runs().size(), 0);
        // sizes that are counted or in stock are worth more than they look: no pairs then
        const bool plain = ask_.goal == SizingGoal::mass ||
                           (ask_.goal == SizingGoal::money && model_.plan().policy.stock.empty());
        for (const SizingModel::Pair& p : model_.pairs()) {
            if (!plain || taken[p.feed] || taken[p.back]) continue;
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
    int count(std::size_t f) const { return static_cast<int>(model_.runs()[f].choices.size()); }

    // An option goes where another costs no more and loses no more in any row, and surely carries its
    // current.
    void leave_out_worse(Unit& unit) const {
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

    std::optional<Relaxed> choose() {
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
                for (std::size_t r = 0; r < unit.runs.size(); ++r)
                    cost += choice_cost(unit.runs[r], option[r]);
                const int id = program.add_choice(cost);
                ids.push_back(id);
                one.push_back({id, 1});
                for (std::size_t r = 0; r < unit.runs.size(); ++r)
                    x[unit.runs[r]][at(option[r])].push_back(id);
            }
            if (one.empty()) return std::nullopt;
            program.add_row(std::move(one), RowSense::equal, 1);
            unit_x.push_back(std::move(ids));
        }
        for (const SizingModel::DropRow& row : rows_) add_drop_row(program, row, x);
        if (ask_.goal == SizingGoal::sizes || !model_.plan().policy.stock.empty()) add_pair_rows(program, x);
        for (const Cut& cut : cuts_) {
            std::map<int, double> sum;
            for (const auto& [f, c] : cut)
                for (const int id : x[f][at(c)]) sum[id] = 1;
            std::vector<ZeroOneTerm> terms;
            for (const auto& [id, factor] : sum) terms.push_back({id, factor});
            program.add_row(std::move(terms), RowSense::at_least, 1);
        }
        if (per_size_ > 0) add_size_rows(program, x);
        if (ask_.goal == SizingGoal::money) add_stock_rows(program, x);
        const ZeroOneAnswer answer = program.solve();
        if (!answer.feasible) return std::nullopt;
        Relaxed out{Design(model_.runs().size(), 0), answer.cost};
        for (std::size_t u = 0; u < units_.size(); ++u)
            for (std::size_t o = 0; o < unit_x[u].size(); ++o)
                if (answer.chosen[at(unit_x[u][o])])
                    for (std::size_t r = 0; r < units_[u].runs.size(); ++r)
                        out.design[units_[u].runs[r]] = units_[u].options[o][r];
        out.cost = std::min(answer.cost, cost_of(out.design));
        return out;
    }

    using Terms = std::vector<std::vector<std::vector<int>>>;  // by run and choice: the options that hold it

    void add_drop_row(ZeroOneProgram& program, const SizingModel::DropRow& row, const Terms& x) const {
        const double limit = model_.limit_V(row.load);
        std::map<int, double> sum;
        for (const auto& [f, volts] : row.terms)
            for (std::size_t c = 0; c < volts.size(); ++c)
                for (const int id : x[f][c]) sum[id] += volts[c] / limit;
        std::vector<ZeroOneTerm> terms;
        for (const auto& [id, factor] : sum) terms.push_back({id, factor});
        program.add_row(std::move(terms), RowSense::at_most, (1 - row.rest_V / limit) * (1 + 1e-9) + 1e-9);
    }

    // Without pairs as units: which returns go with which feed.
    void add_pair_rows(ZeroOneProgram& program, const Terms& x) const {
        for (const SizingModel::Pair& p : model_.pairs())
            for (int a = 0; a < count(p.feed); ++a) {
                std::vector<ZeroOneTerm> terms;
                for (const int id : x[p.feed][at(a)]) terms.push_back({id, 1});
                for (int b = 0; b < count(p.back); ++b)
                    if (!model_.pair_holds(p, a, b))
                        for (const int id : x[p.back][at(b)]) terms.push_back({id, 1});
                program.add_row(std::move(terms), RowSense::at_most, 1);
            }
    }

    void add_size_rows(ZeroOneProgram& program, const Terms& x) const {
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

    void add_stock_rows(ZeroOneProgram& program, const Terms& x) const {
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

    // What a breach proves: with some runs even at their best ends and others a little better than they are
    // it still stands, so one of the rest must be better than that.
    std::vector<Cut> cuts_of(const Breach& b, const Design& design) {
        std::vector<Lever> all = model_.levers(b, design);
        Design lifted = design;
        for (const Lever& lever : all)
            if (lever.far) lifted[lever.f] = lever.end;
        const bool far_do_not_matter = model_.excess(b, lifted) > 0;
        if (far_do_not_matter)
            std::erase_if(all, [](const Lever& l) { return l.far; });
        else
            lifted = design;
        // which of the near ones are found needless hangs on the order: each order proves something else
        std::vector<Cut> cuts;
        const std::size_t orders = std::min<std::size_t>(all.size(), kOrders);
        for (std::size_t turn = 0; turn < std::max<std::size_t>(orders, 1); ++turn) {
            std::vector<Lever> ordered = all;
            std::rotate(ordered.begin(),
                        ordered.begin() +
                            static_cast<std::ptrdiff_t>(turn * all.size() / std::max<std::size_t>(orders, 1)),
                        ordered.end());
            if (turn % 2 == 1) std::reverse(ordered.begin(), ordered.end());
            Cut cut = cut_in_order(b, lifted, ordered);
            if (cut.empty()) return {};  // it stands with everything at its best
            if (std::find(cuts.begin(), cuts.end(), cut) == cuts.end()) cuts.push_back(std::move(cut));
        }
        return cuts;
    }

    Cut cut_in_order(const Breach& b, Design lifted, const std::vector<Lever>& ordered) {
        std::vector<Lever> needed;
        for (const Lever& lever : ordered) {
            const int before = lifted[lever.f];
            lifted[lever.f] = lever.end;
            if (model_.excess(b, lifted) > 0) continue;
            lifted[lever.f] = before;
            needed.push_back(lever);
        }
        for (const Lever& lever : needed) {  // as far as it still stands
            const int step = lever.end > lifted[lever.f] ? 1 : -1;
            while (lifted[lever.f] != lever.end) {
                lifted[lever.f] += step;
                if (model_.excess(b, lifted) > 0) continue;
                lifted[lever.f] -= step;
                break;
            }
        }
        Cut cut;
        for (const Lever& lever : needed) {
            const int step = lever.end > lifted[lever.f] ? 1 : -1;
            for (int c = lifted[lever.f] + step; c >= 0 && c < count(lever.f); c += step)
                cut.emplace_back(lever.f, c);
        }
        std::sort(cut.begin(), cut.end());
        return cut;
    }

    // One cut for each load or run that breaks a limit, in its worst state. False: a breach that nothing
    // mends.
    bool add_cuts(const Design& design, const std::vector<Breach>& broken, SizingResult& result) {
        std::vector<Breach> worst;
        for (const Breach& b : broken) {
            const auto same = std::find_if(worst.begin(), worst.end(), [&](const Breach& w) {
                const bool amps = b.limit != Limit::drop && b.limit != Limit::none;
                if (amps && w.limit != Limit::drop && w.limit != Limit::none) return w.run == b.run;
                return w.limit == b.limit && (b.limit == Limit::drop ? w.load == b.load : w.run == b.run) &&
                       (b.limit != Limit::none || w.k == b.k);
            });
            if (same == worst.end())
                worst.push_back(b);
            else if (b.excess() > same->excess())
                *same = b;
        }
        std::size_t added = 0;
        for (const Breach& b : worst) {
            if (b.limit == Limit::drop)
                if (auto row = model_.tangent_row(b.k, b.load, design)) rows_.push_back(std::move(*row));
            auto cuts = cuts_of(b, design);
            if (cuts.empty()) {
                const bool drop = b.limit == Limit::drop || b.limit == Limit::none;
                result.blockers.push_back(
                    {drop ? model_.plan().loads[b.load].id : model_.plan().runs[b.run].id,
                     model_.plan().states[model_.states()[b.k]].id, b.limit, b.value, b.allowed});
                return false;
            }
            for (Cut& cut : cuts) {
                if (std::find(cuts_.begin(), cuts_.end(), cut) != cuts_.end()) continue;
                cuts_.push_back(std::move(cut));
                ++added;
            }
        }
        if (added == 0 && !worst.empty()) {  // never twice the same design
            Cut other;
            for (std::size_t f = 0; f < design.size(); ++f)
                for (int c = 0; c < static_cast<int>(model_.runs()[f].choices.size()); ++c)
                    if (c != design[f]) other.emplace_back(f, c);
            cuts_.push_back(std::move(other));
        }
        return true;
    }

    // Steps from a design that breaks limits to one that passes, each the cheapest for what it mends.
    std::optional<Design> repair(Design design, std::vector<Breach> broken) {
        for (int step = 0; step < kMostRepairs && !broken.empty(); ++step) {
            const Breach worst =
                *std::max_element(broken.begin(), broken.end(),
                                  [](const Breach& a, const Breach& b) { return a.excess() < b.excess(); });
            if (worst.limit == Limit::none) {
                for (const Lever& lever : model_.levers(worst, design)) ++design[lever.f];
                broken = model_.breaches(design);
                continue;
            }
            const double now = model_.excess(worst, design);
            double best_rate = 0;
            std::optional<std::pair<std::size_t, int>> best;
            for (const Lever& lever : model_.levers(worst, design)) {
                Design trial = design;
                trial[lever.f] += lever.end > design[lever.f] ? 1 : -1;
                const double gain = now - model_.excess(worst, trial);
                const double price = std::max(cost_of(trial) - cost_of(design), 1e-6);
                if (gain / price > best_rate) best_rate = gain / price, best = {lever.f, trial[lever.f]};
            }
            if (!best) return std::nullopt;
            design[best->first] = best->second;
            broken = model_.breaches(design);
        }
        if (!broken.empty() || !pairs_hold(design)) return std::nullopt;
        return design;
    }

    bool pairs_hold(const Design& d) const {
        return std::all_of(model_.pairs().begin(), model_.pairs().end(),
                           [&](const auto& p) { return model_.pair_holds(p, d[p.feed], d[p.back]); });
    }

    // Of equal cost, what stands in the plan already is kept.
    Design polished(Design best, double best_cost) {
        for (std::size_t f = 0; f < best.size(); ++f) {
            const Run& run = model_.plan().runs[model_.runs()[f].run];
            for (int c = 0; c < static_cast<int>(model_.runs()[f].choices.size()); ++c) {
                const SizeChoice& choice = model_.runs()[f].choices[at(c)];
                const bool stands = run.size && choice.size == *run.size &&
                                    (model_.runs()[f].fuse_device < 0 ||
                                     choice.fuse_A == run.devices[at(model_.runs()[f].fuse_device)].rating_A);
                if (!stands || c == best[f]) continue;
                Design trial = best;
                trial[f] = c;
                if (cost_of(trial) <= best_cost * (1 + kSame) && pairs_hold(trial) &&
                    model_.breaches(trial).empty())
                    best = trial;
            }
        }
        return best;
    }

    void fill(SizingResult& result, const Design& best) {
        Batch batch;
        std::set<std::string> before, after;
        const Plan& plan = model_.plan();
        for (std::size_t f = 0; f < best.size(); ++f) {
            const FreeRun& free = model_.runs()[f];
            const Run& run = plan.runs[free.run];
            const SizeChoice& c = free.choices[at(best[f])];
            SizedRun sized;
            sized.run = run.id;
            sized.from = run.size.value_or(c.size);
            sized.to = c.size;
            if (free.fuse_device >= 0) {
                sized.fuse_from_A = run.devices[at(free.fuse_device)].rating_A;
                sized.fuse_to_A = c.fuse_A;
            }
            what_binds(f, best, sized);
            const Run changed = model_.changed(f, best[f]);
            if (!(changed == run)) batch.edits.push_back(Put<Run>{changed, {}});
            result.before.mass_kg += run_mass_kg(run, sized.from);
            result.before.money += run_money(plan, run, sized.from);
            result.after.mass_kg += c.mass_kg;
            result.after.money += c.money;
            before.insert(name_of(sized.from));
            after.insert(name_of(sized.to));
            result.runs.push_back(std::move(sized));
        }
        result.before.sizes = static_cast<int>(before.size());
        result.after.sizes = static_cast<int>(after.size());
        result.edit = std::move(batch);
    }

    // The limit that the next thinner size breaks.
    void what_binds(std::size_t f, const Design& best, SizedRun& sized) {
        const FreeRun& free = model_.runs()[f];
        const Plan& plan = model_.plan();
        const WireSize thinner = step_size(sized.to, -1);
        if (thinner == sized.to) return;
        int choice = -1;
        for (int c = 0; c < static_cast<int>(free.choices.size()); ++c)
            if (free.choices[at(c)].size == thinner) choice = c;
        if (choice < 0) {
            for (const auto& [size, limit] : free.refused)
                if (size == thinner) sized.binds = limit;
            return;
        }
        Design trial = best;
        trial[f] = choice;
        if (!pairs_hold(trial)) {
            sized.binds = Limit::pair;
            return;
        }
        const auto broken = model_.breaches(trial);
        if (broken.empty()) return;
        sized.binds = broken.front().limit;
        sized.state = plan.states[model_.states()[broken.front().k]].id;
        if (sized.binds == Limit::drop) sized.load = plan.loads[broken.front().load].id;
    }

    SizingModel& model_;
    const SizingAsk& ask_;
    std::vector<SizingModel::DropRow> rows_;
    std::vector<Cut> cuts_;
    std::vector<Unit> units_;
    std::vector<WireSize> sizes_;
    double per_size_ = 0;
};

Result<std::vector<std::size_t>> chosen_states(const Plan& plan, const SizingAsk& ask) {
    std::vector<std::size_t> states;
    for (const Id& id : ask.states) {
        const State* s = find_state(plan, id);
        if (!s) return fail(ErrorCode::missing_reference, "states", id, Want::a_state_of_this_plan);
        states.push_back(static_cast<std::size_t>(s - plan.states.data()));
    }
    const bool starter =
        std::any_of(plan.loads.begin(), plan.loads.end(), [](const Load& l) { return l.starter; });
    for (std::size_t s = 0; s < plan.states.size(); ++s) {
        const bool crank = plan.states[s].key == Key::crank;
        // cranking is always looked at for the starter's own cables
        if (crank ? starter : ask.states.empty()) states.push_back(s);
    }
    std::sort(states.begin(), states.end());
    states.erase(std::unique(states.begin(), states.end()), states.end());
    return states;
}

}  // namespace

Result<SizingResult> size_plan(const Plan& plan, const SizingAsk& ask) {
    auto states = chosen_states(plan, ask);
    if (!states) return tl::unexpected(states.error());
    for (const Id& id : ask.only)
        if (!find(plan.runs, id))
            return fail(ErrorCode::missing_reference, "only", id, Want::a_run_of_this_plan);
    for (const auto& [id, volts] : ask.drop_limits_V)
        if (!find(plan.loads, id))
            return fail(ErrorCode::missing_reference, "drop limits", id, Want::a_load_of_this_plan);
    const auto solutions = solve_all(plan);
    SizingResult result;
    auto model = std::make_unique<SizingModel>(plan, ask, solutions, *states);
    // a state in which the supply breaks down whatever the cables says nothing about cables
    while (!model->blockers().empty() && model->blockers().front().unserved && states->size() > 1) {
        const Id state = model->blockers().front().state;
        result.left_out.push_back(state);
        std::erase_if(*states, [&](std::size_t s) { return plan.states[s].id == state; });
        model = std::make_unique<SizingModel>(plan, ask, solutions, *states);
    }
    if (model->runs().empty())
        return fail(ErrorCode::empty, "runs", {}, Want::a_cable_whose_size_may_change_all_are);
    result.blockers = model->blockers();
    if (!result.blockers.empty()) {
        result.status = SizingStatus::impossible;
        return result;
    }
    Search(*model, ask).run(result);
    return result;
}

Result<std::vector<PricePoint>> price_of_volts(const Plan& plan, const SizingAsk& ask, const Id& load,
                                               int steps, double step_V) {
    const Load* l = find(plan.loads, load);
    if (!l) return fail(ErrorCode::missing_reference, "load", load, Want::a_load_of_this_plan);
    const auto own = ask.drop_limits_V.find(load);
    const double first = own != ask.drop_limits_V.end() ? own->second : drop_limit_V(plan, *l);
    std::vector<PricePoint> curve;
    for (int k = 0; k <= steps; ++k) {
        SizingAsk tighter = ask;
        const double limit = first - k * step_V;
        if (limit <= 0) break;
        tighter.drop_limits_V[load] = limit;
        const auto sized = size_plan(plan, tighter);
        if (!sized) return tl::unexpected(sized.error());
        if (sized->status == SizingStatus::stopped) break;
        const bool passes = sized->status != SizingStatus::impossible;
        curve.push_back({limit, passes ? std::optional(sized->cost) : std::nullopt});
        if (!passes) break;
    }
    return curve;
}

}  // namespace yr
