#include "routes/routes.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>

#include "catalog/assumptions.h"
#include "choice/zero_one.h"
#include "plan/lists.h"
#include "routes/packing.h"

namespace yr {
namespace {

constexpr int kRounds = 24;        // of negotiation
constexpr double kBarred_m = 500;  // a hole that is barred
constexpr std::size_t kMostHoles = 12;
constexpr int kMostChoices = 600;
constexpr double kExact_s = 0.5;
constexpr double kDearer_m = 0.6;  // a passage one cable too full is that much longer, and again each round

double squares_mm2(const Run& run) {
    const auto wire = conductor(run.size.value_or(WireSize::awg(14)), run.material);
    return wire ? wire->outer_diameter_mm * wire->outer_diameter_mm * run.parallel : 10.0 * run.parallel;
}

// So much of the squares of diameters fits: by the handbook's factor (packing.h).
double room_mm2(const Waypoint& w) {
    if (!w.bore_mm) return 1e18;
    const double circle = *w.bore_mm * allowed_fill() / 1.2;
    return circle * circle;
}

double with_slack_m(const Plan& plan, double way_m) {
    return way_m * (1 + plan.policy.slack_share.value_or(assumption("slack_share").value)) +
           2 * plan.policy.slack_m.value_or(assumption("slack_m").value);
}

Route made(const Plan& plan, const Run& run, Path path) {
    Route r;
    r.way_m = path.length_m();
    r.length_m = with_slack_m(plan, r.way_m);
    r.held = !run.via.empty();
    r.path = std::move(path);
    return r;
}

class Negotiation {
  public:
    explicit Negotiation(const Plan& plan) : plan_(plan), net_(plan) {}

    Routes run() {
        out_.by_run.resize(plan_.runs.size());
        out_.ways.resize(plan_.ways.size());
        out_.passages.resize(plan_.waypoints.size());
        history_.assign(plan_.waypoints.size(), 0);
        used_.assign(plan_.waypoints.size(), 0);
        for (const Waypoint& w : plan_.waypoints) room_.push_back(room_mm2(w));
        // thick ones first: thin ones find another way more easily
        for (std::size_t k = 0; k < plan_.runs.size(); ++k)
            if (const auto ends = ends_of(plan_, plan_.runs[k]))
                all_.push_back({k, *ends, squares_mm2(plan_.runs[k])});
        std::stable_sort(all_.begin(), all_.end(),
                         [](const One& a, const One& b) { return a.squares > b.squares; });
        for (out_.rounds = 1; out_.rounds <= kRounds; ++out_.rounds) {
            for (const One& one : all_) lay(one);
            if (!too_full()) break;
            for (std::size_t n = 0; n < used_.size(); ++n)
                if (over(n, 0) > 0) history_[n] += kDearer_m;
        }
        if (out_.rounds > 1) choose_exactly();
        tally();
        return std::move(out_);
    }

  private:
    struct One {
        std::size_t run;
        std::pair<Spot, Spot> ends;
        double squares;
    };

    // How far beyond its room a passage is with so much more in it, as a share.
    double over(std::size_t n, double more) const {
        return room_[n] > 1e17 ? 0 : std::max(0.0, (used_[n] + more) / room_[n] - 1);
    }
    bool too_full() const {
        for (std::size_t n = 0; n < used_.size(); ++n)
            if (over(n, 0) > 1e-9) return true;
        return false;
    }

    void lay(const One& one) {
        auto& now = out_.by_run[one.run];
        if (now && out_.rounds > 1) {  // who passes nothing that is full stays
            const auto& passed = now->path.waypoints;
            if (std::none_of(passed.begin(), passed.end(), [&](std::size_t n) { return over(n, 0) > 0; }))
                return;
        }
        if (now)
            for (const std::size_t n : now->path.waypoints) used_[n] -= one.squares;
        std::vector<double> surcharge(used_.size(), 0);
        for (std::size_t n = 0; n < used_.size(); ++n)
            if (const double o = over(n, one.squares); o > 0)
                surcharge[n] = history_[n] + kDearer_m * std::min(o, 4.0);
        const Run& run = plan_.runs[one.run];
        auto path = net_.shortest_by(one.ends.first, run.via, one.ends.second, surcharge);
        if (!path) {
            now.reset();
            return;
        }
        now = made(plan_, run, std::move(*path));
        for (const std::size_t n : now->path.waypoints) used_[n] += one.squares;
    }

    // The paths that each may take: free, with each hole that is short of room barred, and with all of them
    // barred.
    std::vector<Path> candidates(const One& one, const std::vector<std::size_t>& short_of_room) const {
        std::vector<Path> all;
        const auto consider = [&](const std::vector<double>& surcharge) {
            auto path = net_.shortest_by(one.ends.first, plan_.runs[one.run].via, one.ends.second, surcharge);
            if (!path) return;
            const bool known = std::any_of(all.begin(), all.end(),
                                           [&](const Path& p) { return p.waypoints == path->waypoints; });
            if (known) return;
            for (const std::size_t n : path->waypoints)
                if (n < surcharge.size()) path->cost -= surcharge[n];
            all.push_back(std::move(*path));
        };
        std::vector<double> none(plan_.waypoints.size(), 0), every = none;
        consider(none);
        for (const std::size_t n : short_of_room) {
            std::vector<double> barred = none;
            barred[n] = every[n] = kBarred_m;
            consider(barred);
        }
        consider(every);
        return all;
    }

    // Where holes are short of room the best choice among those paths is found exactly, or as nearly as the
    // time allows; then it takes the place of what was negotiated. What does not fit at all is as little over
    // as can be.
    void choose_exactly() {
        std::vector<std::size_t> short_of_room;
        for (std::size_t n = 0; n < room_.size(); ++n)
            if (room_[n] < 1e17 && history_[n] > 0) short_of_room.push_back(n);
        if (short_of_room.empty() || short_of_room.size() > kMostHoles) return;
        ZeroOneProgram program;
        std::vector<std::vector<Path>> paths;
        std::vector<std::vector<int>> choice;
        std::vector<std::vector<ZeroOneTerm>> in(room_.size());
        for (const One& one : all_) {
            paths.push_back(candidates(one, short_of_room));
            choice.emplace_back();
            std::vector<ZeroOneTerm> picks;
            for (const Path& p : paths.back()) {
                const int c = program.add_choice(p.cost);
                choice.back().push_back(c);
                picks.push_back({c, 1});
                std::set<std::size_t> once(p.waypoints.begin(), p.waypoints.end());
                for (const std::size_t n : once)
                    if (room_[n] < 1e17) in[n].push_back({c, one.squares / room_[n]});
            }
            if (!picks.empty()) program.add_row(std::move(picks), RowSense::equal, 1);
        }
        if (program.choices() > kMostChoices) return;
        for (std::size_t n = 0; n < in.size(); ++n) {
            if (in[n].empty()) continue;
            in[n].push_back({program.add_amount(kBarred_m, 1e4), -1});
            program.add_row(std::move(in[n]), RowSense::at_most, 1);
        }
        ZeroOneLimits limits;
        limits.most_s = kExact_s;
        limits.inside_s = kExact_s;
        const ZeroOneAnswer answer = program.solve(limits);
        if (!answer.optimal()) return;
        for (std::size_t a = 0; a < all_.size(); ++a)
            for (std::size_t k = 0; k < paths[a].size(); ++k)
                if (answer.chosen[static_cast<std::size_t>(choice[a][k])])
                    out_.by_run[all_[a].run] = made(plan_, plan_.runs[all_[a].run], std::move(paths[a][k]));
    }

    void tally() {
        out_.fits = true;
        for (const One& one : all_) {
            const auto& route = out_.by_run[one.run];
            if (!route) {
                out_.unjoined.push_back(one.run);
                continue;
            }
            const auto put = [&](std::vector<std::size_t>& runs) {
                if (runs.empty() || runs.back() != one.run) runs.push_back(one.run);
            };
            for (const Leg& leg : route->path.legs)
                if (leg.way) put(out_.ways[*leg.way].runs);
            for (const std::size_t n : route->path.waypoints) put(out_.passages[n].runs);
        }
        for (std::size_t n = 0; n < out_.passages.size(); ++n) {
            Passage& p = out_.passages[n];
            std::sort(p.runs.begin(), p.runs.end());
            if (plan_.waypoints[n].kind == PassageKind::bend || p.runs.empty()) continue;
            p.bundle_mm = loom_diameter(diameters_mm(plan_, p.runs));
            if (const auto bore = plan_.waypoints[n].bore_mm) p.share = p.bundle_mm / *bore;
            out_.fits = out_.fits && p.share <= allowed_fill() + 1e-9;
        }
        for (WayLoad& w : out_.ways) std::sort(w.runs.begin(), w.runs.end());
        std::sort(out_.unjoined.begin(), out_.unjoined.end());
    }

    const Plan& plan_;
    const WayNet net_;
    Routes out_;
    std::vector<One> all_;
    std::vector<double> history_, used_, room_;
};

}  // namespace

double clip_spacing_m(const Plan& plan, const Way& way) {
    const bool iso = plan.policy.ampacity_table == AmpacityTable::iso;
    return way.clip_m.value_or(assumption(iso ? "clip_iso_m" : "clip_m").value);
}

double allowed_fill() {
    return assumption("passage_fill").value;
}

std::optional<Spot> spot_of(const Plan& plan, const Id& id) {
    std::optional<Spot> spot;
    each_list(plan, [&](const auto& things) {
        using Thing = typename std::remove_cvref_t<decltype(things)>::value_type;
        if constexpr (requires(const Thing& t) { t.at.spot(); } && !std::is_same_v<Thing, Place>) {
            if (!spot)
                if (const auto* t = find(things, std::string_view(id))) spot = t->at.spot();
        }
    });
    return spot;
}

std::optional<std::pair<Spot, Spot>> ends_of(const Plan& plan, const Run& run) {
    if (run.body_metal) return std::nullopt;
    const auto a = spot_of(plan, run.from.owner), b = spot_of(plan, run.to.owner);
    if (!a || !b) return std::nullopt;
    return std::pair(*a, *b);
}

std::vector<double> diameters_mm(const Plan& plan, const std::vector<std::size_t>& runs) {
    std::vector<double> all;
    for (const std::size_t k : runs) {
        const Run& r = plan.runs[k];
        const auto wire = conductor(r.size.value_or(WireSize::awg(14)), r.material);
        for (int n = 0; n < r.parallel; ++n) all.push_back(wire ? wire->outer_diameter_mm : 3.0);
    }
    return all;
}

Routes route_all(const Plan& plan) {
    return Negotiation(plan).run();
}

std::optional<Route> route_one(const Plan& plan, const WayNet& net, const Run& run) {
    const auto ends = ends_of(plan, run);
    if (!ends) return std::nullopt;
    auto path = net.shortest_by(ends->first, run.via, ends->second);
    if (!path) return std::nullopt;
    return made(plan, run, std::move(*path));
}

}  // namespace yr
