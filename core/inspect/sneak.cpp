#include "inspect/sneak.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <memory>

#include "catalog/assumptions.h"
#include "inspect/sneak_graph.h"
#include "inspect/sneak_mends.h"
#include "plan/rail_volts.h"
#include "units/at.h"

namespace yr {
namespace {

constexpr int kEveryFuse = 1 << 20;
constexpr int kBudgets[] = {0, 1, 2, kEveryFuse};  // pulled at once: the simplest path is found first

// One load at one key position: decides what its volts hang on, and stops at the first combination that is
// wrong and comes out so in the solver too.
class LoadSearch {
  public:
    LoadSearch(const Plan& plan, SneakGraph& graph, int load, KeyPosition position,
               const std::vector<Id>& own, const std::vector<Id>& rests_on, const SneakAsk& ask,
               std::size_t& looked_at)
        : plan_(plan),
          graph_(graph),
          load_(load),
          alive_V_(alive_V(plan, plan.loads[at(load)])),
          served_V_(served_V(plan, plan.loads[at(load)])),
          position_(position),
          ask_(ask),
          looked_at_(looked_at) {
        for (std::size_t k = 0; k < graph.variables().size(); ++k) {
            const SneakVariable& v = graph.variables()[k];
            if (v.kind != SneakVariable::Kind::fuse) continue;
            if (std::find(own.begin(), own.end(), v.device) != own.end()) own_.push_back(static_cast<int>(k));
            if (std::find(rests_on.begin(), rests_on.end(), v.device) != rests_on.end())
                rests_on_.push_back(static_cast<int>(k));
        }
    }

    // The kinds in `open` that occur with up to so many fuses pulled are added to `found`.
    void run(int budget, std::vector<SneakKind>& open, std::vector<SneakPath>& found) {
        budget_ = budget;
        open_ = &open;
        found_ = &found;
        Decisions d(graph_.variables().size(), Tri::open);
        explore(d, 0);
    }

  private:
    bool stopped() const { return open_->empty() || (ask_.cancel && ask_.cancel->load()); }

    template <class F>
    void branch(Decisions& d, int variable, int pulled, F&& further) {
        const bool fuse = graph_.variables()[at(variable)].kind == SneakVariable::Kind::fuse;
        // fuses are in and switches off before it is tried the other way
        for (const Tri t : {fuse ? Tri::yes : Tri::no, fuse ? Tri::no : Tri::yes}) {
            const int now = pulled + (fuse && t == Tri::no ? 1 : 0);
            if (now > budget_ || stopped()) continue;
            d[at(variable)] = t;
            further(d, now);
        }
        d[at(variable)] = Tri::open;
    }

    void explore(Decisions& d, int pulled) {
        if (stopped()) return;
        const auto again = [this](Decisions& next, int now) { explore(next, now); };
        const SneakGraph::Volts v = graph_.volts_of_load(load_, d);
        if (!v.volts) return branch(d, v.ask, pulled, again);
        int undecided = -1;
        const Tri wanted = graph_.wanted(load_, d, &undecided);
        if (wanted == Tri::open) return branch(d, undecided, pulled, again);
        ++looked_at_;
        const bool out = any_out(own_, d);
        if (*v.volts >= alive_V_ && wanted == Tri::no)
            candidate(SneakKind::alive, d, pulled);
        else if (*v.volts >= alive_V_ && out)
            candidate(SneakKind::past_fuse, d, pulled);
        else if (*v.volts >= alive_V_)
            bypassed(d, pulled);
        if (*v.volts < served_V_ && wanted == Tri::yes && !any_out(rests_on_, d) &&
            (position_ != KeyPosition::cranking || counts_while_cranking(plan_.loads[at(load_)])))
            candidate(SneakKind::dead, d, pulled);
    }

    // Alive though a fuse of its own was never asked for: with that fuse out it is alive as well.
    void bypassed(Decisions& d, int pulled) {
        for (const int f : own_) {
            if (d[at(f)] != Tri::open || pulled + 1 > budget_) continue;
            d[at(f)] = Tri::no;
            candidate(SneakKind::past_fuse, d, pulled + 1);
            d[at(f)] = Tri::open;
        }
    }

    void candidate(SneakKind kind, Decisions& d, int pulled) {
        if (std::find(open_->begin(), open_->end(), kind) == open_->end()) return;
        std::vector<char> justified(d.size(), 0);
        justify(kind, d, pulled, justified);
    }

    // Whatever was decided to be pulled in or let go must come out so by its own volts.
    void justify(SneakKind kind, Decisions& d, int pulled, std::vector<char>& justified) {
        if (stopped() || std::find(open_->begin(), open_->end(), kind) == open_->end()) return;
        for (std::size_t k = 0; k < d.size(); ++k) {
            const SneakVariable& v = graph_.variables()[k];
            if (v.kind != SneakVariable::Kind::follows || d[k] == Tri::open || justified[k]) continue;
            const SneakGraph::Volts volts =
                v.converter >= 0 ? graph_.volts_of_input(v.converter, d) : graph_.volts_of_load(v.load, d);
            if (!volts.volts)
                return branch(d, volts.ask, pulled, [&](Decisions& next, int now) {
                    std::vector<char> copy = justified;
                    justify(kind, next, now, copy);
                });
            const bool yes = d[k] == Tri::yes;
            // a coil holds whichever way its current flows
            const double across_V = v.converter >= 0 ? *volts.volts : std::abs(*volts.volts);
            const bool comes_out = v.inverted ? (yes ? across_V <= v.high_V : across_V > v.low_V)
                                              : (yes ? across_V >= v.low_V : across_V < v.high_V);
            if (!comes_out) return;
            justified[k] = 1;
        }
        // deciding a fuse for a coil may have touched the load's own
        if (kind == SneakKind::past_fuse && !any_out(own_, d)) return;
        if (kind == SneakKind::dead && any_out(rests_on_, d)) return;
        confirm(kind, d);
    }

    static bool any_out(const std::vector<int>& fuses, const Decisions& d) {
        return std::any_of(fuses.begin(), fuses.end(), [&](int f) { return d[at(f)] == Tri::no; });
    }

    // The same combination in the solver, with real cables.
    void confirm(SneakKind kind, const Decisions& d) {
        SneakPath path;
        path.load = plan_.loads[at(load_)].id;
        path.kind = kind;
        path.position = position_;
        path.state = graph_.state_of(d);
        OperatingPointSolver solver;
        const Solution s = settle(resistive_network(plan_, path.state), solver);
        const LoadResult& r = s.point.loads[at(load_)];
        path.volts_V =
            r.status == LoadStatus::on && !r.reversed ? r.voltage_V : 0;  // backwards is not searched
        const bool so = kind == SneakKind::dead ? path.volts_V < served_V_ : path.volts_V >= alive_V_;
        if (!so || s.chatter) return;
        trace_path(plan_, s, at(load_), path);
        std::erase(*open_, kind);
        found_->push_back(std::move(path));
    }

    const Plan& plan_;
    SneakGraph& graph_;
    int load_;
    double alive_V_, served_V_;
    KeyPosition position_;
    const SneakAsk& ask_;
    std::size_t& looked_at_;
    std::vector<int> own_, rests_on_;
    int budget_ = 0;
    std::vector<SneakKind>* open_ = nullptr;
    std::vector<SneakPath>* found_ = nullptr;
};

void count_combinations(const SneakGraph& g, std::size_t positions, SneakSearch& result) {
    result.positions = static_cast<int>(positions);
    for (const SneakVariable& v : g.variables()) {
        if (v.kind == SneakVariable::Kind::switched) ++result.switches;
        if (v.kind == SneakVariable::Kind::fuse) ++result.fuses;
    }
    result.combinations = std::pow(2.0, result.switches + result.fuses) * static_cast<double>(positions);
}

}  // namespace

std::vector<std::vector<std::size_t>> by_cause(const std::vector<SneakPath>& found) {
    std::vector<std::vector<std::size_t>> causes;
    for (std::size_t k = 0; k < found.size(); ++k) {
        const auto same = std::find_if(causes.begin(), causes.end(), [&](const auto& c) {
            const SneakPath& first = found[c.front()];
            return first.kind == found[k].kind && first.through == found[k].through && !first.through.empty();
        });
        if (same == causes.end())
            causes.push_back({k});
        else
            same->push_back(k);
    }
    return causes;
}

double alive_V(const Plan& plan, const Load& load) {
    return assumption("alive_share").value * rail_V(plan, load);
}

double served_V(const Plan& plan, const Load& load) {
    return assumption("served_share").value * rail_V(plan, load);
}

Network resistive_network(const Plan& plan, const State& state) {
    Network net = compile(plan, state);
    for (std::size_t k = 0; k < net.plan_loads; ++k) {
        if (net.loads[k].inverter >= 0) continue;
        net.loads[k].kind = DrawKind::resistance;
        net.loads[k].value = rail_V(plan, plan.loads[k]) / nominal_A(plan, plan.loads[k]);
    }
    return net;
}

SneakSearch search_sneaks(const Plan& plan, const SneakAsk& ask) {
    SneakSearch result;
    std::vector<std::unique_ptr<SneakGraph>> graphs;
    const std::vector<KeyPosition> positions = positions_of(plan);
    graphs.reserve(positions.size());
    for (const KeyPosition p : positions) graphs.push_back(std::make_unique<SneakGraph>(plan, p));
    count_combinations(*graphs.front(), positions.size(), result);
    std::vector<std::size_t> loads;
    for (std::size_t k = 0; k < plan.loads.size(); ++k) {
        const Load& l = plan.loads[k];
        const bool asked =
            ask.loads.empty() || std::find(ask.loads.begin(), ask.loads.end(), l.id) != ask.loads.end();
        if (asked && l.inverter.empty() && supply_run(plan, l.id)) loads.push_back(k);
    }
    std::size_t done = 0;
    for (const std::size_t k : loads) {
        const std::vector<Id> own = own_fuses(plan, plan.loads[k]);
        const std::vector<Id> rests_on = fuses_it_rests_on(plan, plan.loads[k]);
        std::vector<SneakKind> open{SneakKind::alive, SneakKind::past_fuse, SneakKind::dead};
        for (const int budget : kBudgets)
            for (std::size_t p = 0; p < positions.size() && !open.empty(); ++p) {
                if (ask.cancel && ask.cancel->load()) {
                    result.complete = false;
                    return result;
                }
                LoadSearch search(plan, *graphs[p], static_cast<int>(k), positions[p], own, rests_on, ask,
                                  result.looked_at);
                search.run(budget, open, result.found);
            }
        if (ask.progress) ask.progress(static_cast<double>(++done) / static_cast<double>(loads.size()));
    }
    std::stable_sort(result.found.begin(), result.found.end(), [](const SneakPath& a, const SneakPath& b) {
        return a.state.pulled.size() < b.state.pulled.size();
    });
    if (ask.with_mends)
        for (SneakPath& path : result.found)
            if (!ask.cancel || !ask.cancel->load()) add_mends(plan, path);
    return result;
}

}  // namespace yr
