#include "inspect/places.h"

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "inspect/heat_along.h"
#include "inspect/rules.h"
#include "routes/lay.h"
#include "routes/packing.h"
#include "routes/where.h"
#include "size/run_limits.h"

namespace yr {
namespace {

constexpr double kLeastBar_m = 0.05;  // less of a way in a hazard is a matter of drawing
constexpr double kFlexes_mm2 = 16;    // from there up a cable of usual strands wants a loop; common practice
constexpr double kWarms_K = 60;       // no listed current warms a cable that is right by more
// Classes of cables for road vehicles, C: ISO 6722-1 (from memory).
constexpr double kInsulations_C[] = {85, 100, 105, 125, 150, 175, 200, 225, 250};
// Bores that drills and grommets come in, mm; common practice.
constexpr double kBores_mm[] = {6, 8, 10, 12, 14, 16, 18, 20, 22, 25, 28, 32, 38, 45, 50, 60, 75, 90, 110};

class Places {
  public:
    Places(const Plan& plan, const std::vector<Solution>& solutions, const Routes& routes,
           bool with_mends = true)
        : plan_(plan), routes_(routes), case_{plan, solutions, false, kNoBands}, with_mends_(with_mends) {}

    std::vector<Finding> all() {
        for (std::size_t k = 0; k < plan_.runs.size(); ++k)
            if (routes_.by_run[k]) {
                length(k, *routes_.by_run[k]);
                bars(k, *routes_.by_run[k]);
                bundle(k);
                flexes(k, *routes_.by_run[k]);
                hot(k, *routes_.by_run[k]);
            }
        if (!plan_.ways.empty())
            for (const std::size_t k : routes_.unjoined)
                add(FindingKind::way_missing, Severity::check, plan_.runs[k].id, {}, 0, 0);
        for (std::size_t n = 0; n < plan_.waypoints.size(); ++n) passage(n);
        standing();
        if (with_mends_) widen();
        std::stable_sort(out_.begin(), out_.end(),
                         [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
        return std::move(out_);
    }

  private:
    Finding& add(FindingKind kind, Severity severity, const Id& id, const std::string& other, double value,
                 double limit) {
        out_.push_back(make_finding(kind, severity, id, other, {}, value, limit));
        return out_.back();
    }

    // What is said against the way, beyond slack and what a tape may be off.
    void length(std::size_t k, const Route& route) {
        const Run& run = plan_.runs[k];
        if (!run.length_m || run.resistance_ohm) return;
        const double slack = route.length_m - route.way_m, off = 0.1 + 0.1 * route.way_m;
        const double said = *run.length_m;
        if (said >= route.way_m - off && said <= route.length_m + slack + off) return;
        // a cable that is too short does not reach; one that is too long loses more than it must
        const bool longer = route.length_m > said;
        Finding& f = add(FindingKind::way_length, longer ? Severity::fix : Severity::check, run.id, {},
                         route.length_m, said);
        Run open = run;
        open.length_m = std::round(route.length_m * 20) / 20;
        for (Device& d : open.devices)
            if (d.at_m) d.at_m = std::min(*d.at_m, *open.length_m);
        if (open.length_least_m) open.length_least_m = std::min(*open.length_least_m, *open.length_m);
        Mend m;
        m.kind = MendKind::typed_length, m.target = run.id, m.from_A = said, m.to_A = *open.length_m;
        m.edit = Put<Run>{open, {}};
        f.candidates = {m};
    }

    void bars(std::size_t k, const Route& route) {
        const double clear = plan_.policy.exhaust_m.value_or(assumption("exhaust_m").value);
        for (const Place& p : plan_.places) {
            const auto room = room_of(p);
            if (!room || !is_hazard(p)) continue;
            double metres = 0;
            for (const Leg& leg : route.path.legs)
                metres += inside_m(*room, leg.from, leg.to, p.hazard == Hazard::exhaust ? clear : 0);
            if (metres > kLeastBar_m)
                add(FindingKind::way_barred, is_grave(p.hazard) ? Severity::stop : Severity::fix,
                    plan_.runs[k].id, p.id, metres, 0);
        }
    }

    // A run whose length is said is reckoned alone; what it stands where it lies with others.
    void bundle(std::size_t k) {
        const Run& run = plan_.runs[k];
        if (!run.length_m || run.resistance_ohm || !plan_.policy.bundle_derating) return;
        const int together = bundled_with(plan_, routes_, k);
        if (together <= bundle_of(plan_, run)) return;
        Run bundled = run;
        bundled.bundle = together;
        const auto stands = least_ampacity_A(plan_, bundled);
        const double must = case_.demand.size() > k ? case_.demand[k].lasting_A() : 0;
        if (!stands || must <= *stands) return;
        std::string where;
        double longest = 0;
        for (const Leg& leg : routes_.by_run[k]->path.legs)
            if (leg.way && leg.length_m() > longest && routes_.ways[*leg.way].runs.size() > 1)
                longest = leg.length_m(), where = plan_.ways[*leg.way].id;
        add(FindingKind::way_bundle, Severity::fix, run.id, where, *stands, must);
    }

    void flexes(std::size_t k, const Route& route) {
        const Run& run = plan_.runs[k];
        const auto wire = conductor(run.size.value_or(WireSize::awg(14)), run.material);
        if (!wire || wire->area_mm2 < kFlexes_mm2) return;
        for (const Leg& leg : route.path.legs)
            if (leg.way && plan_.ways[*leg.way].flexes) {
                add(FindingKind::way_flexes, Severity::check, run.id, plan_.ways[*leg.way].id, 0, 0);
                return;
            }
    }

    // A hot place passed in short: ampacity leaves it out, since copper carries its heat away. How much of it
    // is worked out here; the insulation must bear what stays, and the air itself.
    void hot(std::size_t k, const Route& route) {
        constexpr double kSeen_m = 0.02;  // less of a way is a matter of drawing
        const Run& run = plan_.runs[k];
        std::vector<Id> passed = places_by_cell(plan_, route, kSeen_m);
        std::sort(passed.begin(), passed.end());
        passed.erase(std::unique(passed.begin(), passed.end()), passed.end());
        const std::vector<Id> counted = places_along(plan_, route);
        std::erase_if(passed, [&](const Id& p) {
            return p.empty() || std::find(counted.begin(), counted.end(), p) != counted.end();
        });
        Finding* worst = nullptr;
        for (std::size_t s = 0; s < case_.solutions.size() && !passed.empty(); ++s) {
            const State& state = plan_.states[s];
            Id at = passed.front();
            for (const Id& p : passed)
                if (air_at(plan_, p, state) > air_at(plan_, at, state)) at = p;
            double hottest_C = air_at(plan_, at, state);
            if (hottest_C < run.insulation_C - kWarms_K) continue;
            const Solution& solved = case_.solutions[s];
            if (const auto heat = heat_along(plan_, k, route, state, solved.network, solved.point))
                hottest_C = std::max(hottest_C, heat->hottest_C);
            if (hottest_C <= run.insulation_C || (worst && worst->value >= hottest_C)) continue;
            if (!worst) worst = &add(FindingKind::way_hot, Severity::stop, run.id, at, 0, run.insulation_C);
            worst->other = at, worst->state = state.id, worst->value = hottest_C;
            worst->candidates = {};
            for (const double bears_C : kInsulations_C)
                if (bears_C >= hottest_C && worst->candidates.empty()) {
                    Run better = run;
                    better.insulation_C = bears_C;
                    Mend m;
                    m.kind = MendKind::insulation, m.target = run.id;
                    m.from_A = run.insulation_C, m.to_A = bears_C;
                    m.edit = Put<Run>{better, {}};
                    worst->candidates = {m};
                }
        }
    }

    void passage(std::size_t n) {
        const Waypoint& w = plan_.waypoints[n];
        const Passage& p = routes_.passages[n];
        if (w.kind == PassageKind::bend || p.runs.empty()) return;
        if (p.share > allowed_fill() + 1e-9) too_full(w, p);
        const bool hole = w.kind == PassageKind::hole || w.kind == PassageKind::grommet;
        if (hole && !w.guarded) {
            Finding& f = add(FindingKind::passage_edge, Severity::fix, w.id, {},
                             static_cast<double>(p.runs.size()), 0);
            mend(f, MendKind::guard_edge, w, [](Waypoint& x) { x.guarded = true; });
        }
        if (w.sealed || !w.at.spot()) return;
        for (const Id& id : places_holding(plan_, *w.at.spot()))
            if (find(plan_.places, std::string_view(id))->wet) {
                Finding& f = add(FindingKind::passage_open, Severity::check, w.id, id,
                                 static_cast<double>(p.runs.size()), 0);
                mend(f, MendKind::seal, w, [](Waypoint& x) { x.sealed = true; });
                break;
            }
    }

    void too_full(const Waypoint& w, const Passage& p) {
        add(FindingKind::passage_full, Severity::fix, w.id, {}, p.share, allowed_fill());
    }

    // A wider hole draws cables that went round it: wide enough is what holds with them as well and lets
    // nothing else come out worse.
    void widen() {
        const std::vector<Finding> base = out_;
        for (Finding& f : out_) {
            if (f.kind != FindingKind::passage_full) continue;
            const Waypoint& w = *find(plan_.waypoints, std::string_view(f.id));
            const double bundle =
                routes_.passages[static_cast<std::size_t>(&w - plan_.waypoints.data())].bundle_mm;
            for (const double bore : kBores_mm) {
                if (bundle > bore * allowed_fill()) continue;
                Plan wider = plan_;
                for (Waypoint& x : wider.waypoints)
                    if (x.id == w.id) x.bore_mm = bore;
                const Routes then = route_all(wider);
                const auto after = Places(wider, case_.solutions, then, false).all();
                const bool gone = std::none_of(after.begin(), after.end(),
                                               [&](const Finding& x) { return same_place(x, f); });
                if (!gone || !new_or_worse(base, after).empty()) continue;
                mend(f, MendKind::bore, w, [&](Waypoint& x) { x.bore_mm = bore; });
                f.candidates[0].from_A = w.bore_mm.value_or(0), f.candidates[0].to_A = bore;
                break;
            }
        }
    }

    template <class F>
    void mend(Finding& f, MendKind kind, const Waypoint& w, F&& change) {
        Waypoint changed = w;
        change(changed);
        Mend m;
        m.kind = kind, m.target = w.id, m.edit = Put<Waypoint>{changed, {}};
        f.candidates = {m};
    }

    void standing() {
        each_list(plan_, [&](const auto& things) {
            using Thing = typename std::remove_cvref_t<decltype(things)>::value_type;
            if constexpr (requires(const Thing& t) { t.at.spot(), t.place; })
                for (const Thing& t : things) {
                    if (!t.at.spot()) continue;
                    for (const Id& id : places_holding(plan_, *t.at.spot()))
                        if (const Place* p = find(plan_.places, std::string_view(id));
                            !may_stand(plan_, t.id, *p)) {
                            add(FindingKind::stands_badly,
                                is_grave(p->hazard) ? Severity::stop : Severity::fix, t.id, id, 0, 0);
                            break;
                        }
                }
        });
    }

    inline static const std::vector<StateBands> kNoBands{};
    const Plan& plan_;
    const Routes& routes_;
    const Case case_;
    const bool with_mends_;
    std::vector<Finding> out_;
};

}  // namespace

std::vector<Finding> place_findings(const Plan& plan, const std::vector<Solution>& solutions,
                                    const Routes& routes) {
    return Places(plan, solutions, routes).all();
}

std::vector<Finding> place_findings(const Plan& plan, const std::vector<Solution>& solutions) {
    const bool stands = std::any_of(plan.runs.begin(), plan.runs.end(),
                                    [&](const Run& r) { return ends_of(plan, r).has_value(); });
    if (!stands) return {};
    return place_findings(plan, solutions, route_all(plan));
}

}  // namespace yr
