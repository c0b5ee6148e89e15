#include "fabricate/harness.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "routes/packing.h"

namespace yr {
namespace {

constexpr double kBranch_deg = 50, kBreakout_deg = 70;
constexpr double kPi = 3.14159265358979323846;

class Flattener {
  public:
    Flattener(const Plan& plan, const Routes& routes) : plan_(plan), routes_(routes) {
        for (std::size_t k = 0; k < plan.waypoints.size(); ++k) index_[plan.waypoints[k].id] = k;
        at_.resize(plan.waypoints.size());
        for (std::size_t w = 0; w < plan.ways.size(); ++w) {
            if (routes.ways[w].runs.empty()) continue;
            const auto a = index_.find(plan.ways[w].from), b = index_.find(plan.ways[w].to);
            if (a == index_.end() || b == index_.end() || !plan.waypoints[a->second].at.spot() ||
                !plan.waypoints[b->second].at.spot())
                continue;
            at_[a->second].push_back(w), at_[b->second].push_back(w);
        }
    }

    std::vector<FlatLoom> run() {
        std::vector<FlatLoom> all;
        for (std::size_t n = 0; n < at_.size(); ++n) {
            if (at_[n].empty() || placed_.contains(n)) continue;
            loom_ = {};
            const std::size_t root = begin_of(n);
            lay(root, {0, 0}, 0, true);
            finish();
            if (loom_.runs.size() > 1) all.push_back(std::move(loom_));
        }
        std::stable_sort(all.begin(), all.end(),
                         [](const FlatLoom& a, const FlatLoom& b) { return a.length_m > b.length_m; });
        return all;
    }

  private:
    double length_of_way(std::size_t w) const {
        return distance_m(*plan_.waypoints[index_.at(plan_.ways[w].from)].at.spot(),
                          *plan_.waypoints[index_.at(plan_.ways[w].to)].at.spot());
    }
    std::size_t other_end(std::size_t w, std::size_t n) const {
        const std::size_t a = index_.at(plan_.ways[w].from);
        return a == n ? index_.at(plan_.ways[w].to) : a;
    }

    // An end of this piece of the net: the waypoint farthest from n, so that the trunk lies straight.
    std::size_t begin_of(std::size_t n) const {
        std::map<std::size_t, double> far{{n, 0}};
        std::vector<std::size_t> todo{n};
        std::size_t best = n;
        while (!todo.empty()) {
            const std::size_t here = todo.back();
            todo.pop_back();
            for (const std::size_t w : at_[here]) {
                const std::size_t next = other_end(w, here);
                if (far.contains(next)) continue;
                far[next] = far[here] + length_of_way(w);
                if (far[next] > far[best]) best = next;
                todo.push_back(next);
            }
        }
        return best;
    }

    // How much loom hangs beyond that way, not coming back.
    double hangs_beyond(std::size_t w, std::size_t from, std::set<std::size_t>& seen) const {
        const std::size_t next = other_end(w, from);
        double sum = length_of_way(w);
        if (!seen.insert(next).second) return sum;
        for (const std::size_t x : at_[next])
            if (x != w && !laid_.contains(x)) sum += hangs_beyond(x, next, seen);
        return sum;
    }

    static FlatPoint towards(const FlatPoint& p, double deg, double m) {
        return {p.x_m + m * std::cos(deg * kPi / 180), p.y_m + m * std::sin(deg * kPi / 180)};
    }

    // The heaviest way goes on straight, the others branch off at either side.
    void lay(std::size_t n, const FlatPoint& p, double deg, bool up) {
        if (!placed_.insert(n).second) return;
        std::vector<std::pair<double, std::size_t>> next;
        for (const std::size_t w : at_[n]) {
            if (laid_.contains(w)) continue;
            std::set<std::size_t> seen{n};
            next.emplace_back(hangs_beyond(w, n, seen), w);
        }
        std::sort(next.rbegin(), next.rend());
        bool first = true, above = up;
        for (const auto& [weight, w] : next) {
            if (!laid_.insert(w).second) continue;  // reached round a loop meanwhile
            const double turn = first ? deg : deg + (above ? -kBranch_deg : kBranch_deg);
            if (!first) above = !above;
            first = false;
            const FlatPoint end = towards(p, turn, length_of_way(w));
            FlatSegment s;
            s.from = p, s.to = end, s.way = plan_.ways[w].id, s.runs = routes_.ways[w].runs;
            s.bundle_mm = loom_diameter(diameters_mm(plan_, s.runs));
            s.covering = covering_of(plan_.ways[w], s.bundle_mm, s.runs.size());
            loom_.segments.push_back(s);
            loom_.length_m += s.length_m();
            breakouts(w, n, p, turn);
            lay(other_end(w, n), end, turn, !above);
        }
    }

    // Shares of a way, moved so far apart that no two splices make one lump, as far as the way is long.
    static void stagger(std::vector<double*>& at, double length_m) {
        if (at.size() < 2 || length_m <= 0) return;
        std::sort(at.begin(), at.end(), [](const double* a, const double* b) { return *a < *b; });
        const double apart = std::min(kSplicesApart_m / length_m, 1.0 / static_cast<double>(at.size() - 1));
        for (std::size_t k = 1; k < at.size(); ++k) *at[k] = std::max(*at[k], *at[k - 1] + apart);
        double most = 1;  // what ran over the end comes back
        for (std::size_t k = at.size(); k-- > 0; most -= apart) *at[k] = std::min(*at[k], most);
    }

    // Cables that leave this way for their things: where, and how far.
    void breakouts(std::size_t w, std::size_t from, const FlatPoint& p, double deg) {
        const bool forwards = index_.at(plan_.ways[w].from) == from;
        struct Out {
            double at;
            Id thing;
            double length;
            std::vector<std::size_t> runs;
        };
        std::vector<Out> outs;
        for (const std::size_t k : routes_.ways[w].runs) {
            const auto& legs = routes_.by_run[k]->path.legs;
            for (std::size_t l = 0; l < legs.size(); ++l) {
                if (!legs[l].way || *legs[l].way != w) continue;
                const auto leave = [&](bool beginning) {
                    const std::size_t other = beginning ? l - 1 : l + 1;
                    const bool off =
                        beginning ? l > 0 && !legs[other].way : other < legs.size() && !legs[other].way;
                    const bool last = beginning ? l == 0 : l + 1 == legs.size();
                    if (!off && !last) return;
                    const double share = beginning ? legs[l].begins : legs[l].ends;
                    const Id& thing = beginning ? plan_.runs[k].from.owner : plan_.runs[k].to.owner;
                    const double length = off ? legs[other].length_m() : 0;
                    const double at = forwards ? share : 1 - share;
                    for (Out& o : outs)
                        if (o.thing == thing && std::abs(o.at - at) < 1e-6) return o.runs.push_back(k);
                    outs.push_back({at, thing, length, {k}});
                };
                leave(true), leave(false);
            }
        }
        std::vector<double*> splices;
        for (Out& o : outs)
            if (const Point* of = find(plan_.points, std::string_view(o.thing));
                of && of->kind == PointKind::splice)
                splices.push_back(&o.at);
        stagger(splices, length_of_way(w));
        const double slack = plan_.policy.slack_m.value_or(0.15);
        bool above = true;
        for (const Out& o : outs) {
            FlatSegment s;
            s.from = towards(p, deg, o.at * length_of_way(w));
            s.to = towards(s.from, deg + (above ? -kBreakout_deg : kBreakout_deg), o.length + slack);
            s.thing = o.thing, s.runs = o.runs;
            s.bundle_mm = loom_diameter(diameters_mm(plan_, s.runs));
            loom_.segments.push_back(s);
            above = !above;
        }
    }

    void finish() {
        double longest = -1;
        loom_.low = {1e9, 1e9}, loom_.high = {-1e9, -1e9};
        std::set<std::size_t> runs;
        for (const FlatSegment& s : loom_.segments) {
            for (const FlatPoint& p : {s.from, s.to}) {
                loom_.low = {std::min(loom_.low.x_m, p.x_m), std::min(loom_.low.y_m, p.y_m)};
                loom_.high = {std::max(loom_.high.x_m, p.x_m), std::max(loom_.high.y_m, p.y_m)};
            }
            runs.insert(s.runs.begin(), s.runs.end());
            if (s.way.empty() || s.length_m() <= longest) continue;
            longest = s.length_m();
            loom_.name = find(plan_.ways, std::string_view(s.way))->name;
        }
        loom_.runs.assign(runs.begin(), runs.end());
    }

    const Plan& plan_;
    const Routes& routes_;
    std::map<Id, std::size_t> index_;
    std::vector<std::vector<std::size_t>> at_;  // ways at each waypoint
    std::set<std::size_t> placed_, laid_;
    FlatLoom loom_;
};

}  // namespace

double FlatSegment::length_m() const {
    return std::hypot(to.x_m - from.x_m, to.y_m - from.y_m);
}

std::vector<FlatLoom> flat_looms(const Plan& plan, const Routes& routes) {
    return Flattener(plan, routes).run();
}

std::vector<EndPlug> end_plugs(const Plan& plan, const std::vector<FlatLoom>& looms) {
    std::vector<EndPlug> plugs;
    for (const Connector& c : plan.connectors) {
        std::vector<std::pair<int, Id>> pins;
        for (const Run& r : plan.runs)
            for (const PinUse& use : r.pins)
                if (use.connector == c.id && is_cut(r)) pins.emplace_back(use.pin, r.id);
        std::sort(pins.begin(), pins.end());
        EndPlug plug{name_of(plan, c.id), c.id, {}, {}};
        for (const auto& [pin, run] : pins) plug.pins.push_back(pin), plug.runs.push_back(run);
        if (plug.runs.size() > 1) plugs.push_back(std::move(plug));
    }
    for (const FlatLoom& l : looms) {
        EndPlug plug{l.name, {}, {}, {}};
        for (const std::size_t run : l.runs)
            if (is_cut(plan.runs[run])) {
                plug.runs.push_back(plan.runs[run].id);
                plug.pins.push_back(static_cast<int>(plug.runs.size()));
            }
        if (plug.runs.size() > 1) plugs.push_back(std::move(plug));
    }
    return plugs;
}

}  // namespace yr
