#include "control/feed_options.h"

#include <algorithm>
#include <cmath>
#include <string_view>
#include <unordered_set>

#include "catalog/assumptions.h"
#include "plan/rail_volts.h"
#include "plan/supply_runs.h"

namespace yr {
namespace {

constexpr double kSamePlace_m = 1.5;  // from a feed to a load in the same place; common practice
constexpr double kOtherBattery_m =
    20;                            // moving a load to another battery is a person's decision: it costs this
constexpr double kStay_Am = 0.01;  // of two equal places the present one
constexpr double kMisplaced_Am = 1e5;      // more than any vehicle has
constexpr double kDetour = 1.1;            // looms do not run straight from place to place; common practice
constexpr double kAsRated[] = {0.5, 1.6};  // volts of a rail that suits a load, as a share of the load's own

bool alive(double volts, double of_V) {
    return volts > kAsRated[0] * of_V && volts < kAsRated[1] * of_V;
}

// A relay or another contact stands in its own run: that switches it wherever it hangs.
bool has_contact(const Run& run) {
    return std::any_of(run.devices.begin(), run.devices.end(), [](const Device& d) {
        return !d.coil.empty() ||
               (d.kind != DeviceKind::fuse && d.kind != DeviceKind::switching && d.kind != DeviceKind::shunt);
    });
}

}  // namespace

const std::map<Id, LiveMap::Volts>& LiveMap::with(const std::vector<std::string>& switches) {
    const auto found = known_.find(switches);
    if (found != known_.end()) return found->second;
    std::map<Id, Volts>& volts = known_[switches];
    for (std::size_t k = 0; k < kKeyPositions; ++k) {
        const Solution s = solve(plan_, state_at(plan_, kEveryKeyPosition[k], switches), solver_);
        for (std::size_t n = 0; n < s.network.nodes.size(); ++n)
            if (const Point* p = find(plan_.points, s.network.nodes[n])) volts[p->id][k] = s.point.node_V[n];
    }
    return volts;
}

FeedOptions::FeedOptions(const Plan& plan, const AssignAsk& ask)
    : plan_(plan), ask_(ask), live_(plan), masters_(master_switches(plan)), net_(plan) {
    const SupplyRuns supply(plan);
    std::unordered_set<std::string_view> used;
    for (const Load& l : plan.loads)
        if (const Run* run = supply.of(l.id)) used.insert(run->from.owner);
    const auto paths = feed_paths(plan);
    std::unordered_map<std::string_view, std::size_t> number;
    for (const Point& p : plan.points) {
        const auto path = paths.find(p.id);
        if (path == paths.end() || (!p.feeds_loads && !used.contains(p.id))) continue;
        number.emplace(p.id, feeds_.size());
        feeds_.push_back({&p, path->second, rail_V(plan, Terminal(p.id)), {}});
    }
    for (const Load& l : plan.loads) {
        const Run* run = supply.of(l.id);
        if (!run || !(run->to == pos_of(l.id))) continue;
        const auto feed = number.find(run->from.owner);
        if (feed != number.end() && run->from == Terminal(feeds_[feed->second].point->id))
            homes_[l.id] = {run, feed->second, {}};
    }
}

bool FeedOptions::movable(const Load& l) const {
    const auto home = homes_.find(l.id);
    return !l.starter && l.inverter.empty() && home != homes_.end() && home->second.run->tap_of.empty();
}

const Feed& FeedOptions::now(const Load& l) const {
    return feeds_[homes_.at(l.id).feed];
}

const Run& FeedOptions::supply(const Load& l) const {
    return *homes_.at(l.id).run;
}

// What has no switch of its own runs when its feed is live. Where that is at other times than its line says,
// the feed is what a person meant: anywhere else it would run at other times.
bool FeedOptions::rides(const Load& l, const std::vector<std::string>& own) {
    if (l.own_switch || supply(l).channel > 0) return false;
    const Feed& feed = now(l);
    const auto& off = masters_;
    for (const auto& switches : {own, off}) {
        const auto volts = live_.with(switches).at(feed.point->id);
        for (std::size_t k = 0; k < kKeyPositions; ++k)
            if (kEveryKeyPosition[k] != KeyPosition::cranking &&
                alive(volts[k], feed.volts) !=
                    holds(l.live_when, state_at(plan_, kEveryKeyPosition[k], switches)))
                return true;
    }
    return false;
}

const FeedOptions::Times& FeedOptions::times(const Load& l) {
    auto& known = homes_.at(l.id).times;
    if (!known) {
        known = Times{switches_for(plan_, l), wanted_at(plan_, l), false};
        known->rides = rides(l, known->switches);
    }
    return *known;
}

const LiveAt& FeedOptions::wanted(const Load& l) {
    return times(l).wanted;
}

std::optional<OtherFeed> FeedOptions::wrong_times(const Load& l, const Feed& feed) {
    const Run& run = supply(l);
    const bool channels = !feed.point->channels.empty();
    if (times(l).rides || (channels && has_contact(run)))
        return OtherFeed{feed.point->id, WhyNot::switched_there, 0, 0, {}};
    const bool measured = l.live_when.charging_above_V || !l.live_when.circuits.empty() || has_contact(run);
    const LiveAt& wanted = times(l).wanted;
    const auto& switches = times(l).switches;
    const auto volts = live_.with(switches).at(feed.point->id);
    const Feed& here = now(l);
    const auto volts_here = live_.with(switches).at(here.point->id);
    for (std::size_t k = 0; k < kKeyPositions; ++k) {
        const bool cranking = kEveryKeyPosition[k] == KeyPosition::cranking;
        if (cranking && !counts_while_cranking(l)) continue;
        const bool live = alive(volts[k], feed.volts);
        if (wanted[k] && !live)
            return OtherFeed{feed.point->id, WhyNot::not_live, 0, 0, kEveryKeyPosition[k]};
        // its own switch keeps it dead where the feed that it has is live as long
        const bool switched = l.own_switch && run.channel == 0 && alive(volts_here[k], here.volts);
        if (!cranking && !channels && !measured && !switched && live && !wanted[k])
            return OtherFeed{feed.point->id, WhyNot::live_too_long, 0, 0, kEveryKeyPosition[k]};
    }
    if (channels || measured || l.own_switch || run.channel > 0) return std::nullopt;
    // without a switch of its own it must be dead with its switches off, too
    const auto rest = live_.with(masters_).at(feed.point->id);
    for (std::size_t k = 0; k < kKeyPositions; ++k)
        if (kEveryKeyPosition[k] != KeyPosition::cranking && alive(rest[k], feed.volts) &&
            !holds(l.live_when, state_at(plan_, kEveryKeyPosition[k], masters_)))
            return OtherFeed{feed.point->id, WhyNot::live_too_long, 0, 0, kEveryKeyPosition[k]};
    return std::nullopt;
}

std::optional<OtherFeed> FeedOptions::barred(const Load& l, const Feed& feed) {
    const Feed& here = now(l);
    if (&here == &feed) return std::nullopt;
    if (const auto found = ask_.refused.find({l.id, feed.point->id}); found != ask_.refused.end())
        return OtherFeed{feed.point->id, WhyNot::refused, 0, 0, {}};
    if (!feed.point->feeds_loads) return OtherFeed{feed.point->id, WhyNot::no_feed, 0, 0, {}};
    if (!alive(feed.volts, here.volts))
        return OtherFeed{feed.point->id, WhyNot::other_volts, feed.volts, here.volts, {}};
    // a coil on the far side of its own contact would never pull it in
    for (const Id& id : feed.path.runs)
        for (const Device& d : find(plan_.runs, id)->devices)
            if (!d.coil.empty() && d.coil == l.id)
                return OtherFeed{feed.point->id, WhyNot::not_live, 0, 0, KeyPosition::off};
    return wrong_times(l, feed);
}

std::optional<double> FeedOptions::laid_m(const Load& l, const Feed& feed) const {
    if (net_.empty()) return std::nullopt;
    const auto [known, is_new] = laid_.try_emplace({l.id, feed.point->id});
    if (is_new) {
        Run trial = supply(l);
        trial.from = feed.point->id;
        trial.via.clear();
        if (const auto route = route_one(plan_, net_, trial)) known->second = route->length_m;
    }
    return known->second;
}

double FeedOptions::local_m(const Load& l, const Feed& feed) const {
    const Run* run = &supply(l);
    const Feed& here = now(l);
    if (&here == &feed && run->length_m) return *run->length_m;
    if (const auto metres = laid_m(l, feed)) return *metres;
    const bool same = !l.place.empty() && l.place == feed.point->place;
    const double usual = same ? kSamePlace_m : assumption("run_length_m").value;
    if (&here == &feed || here.path.root != feed.path.root) return usual;
    // the load is as far from the battery as its present way says: another feed is no short cut to it
    const double far = here.path.length_m + run->length_m.value_or(usual);
    return std::max(usual, std::abs(far - feed.path.length_m) * (same ? 1 : kDetour));
}

bool FeedOptions::along_ways(const Load& l, const Id& feed) const {
    return std::any_of(feeds_.begin(), feeds_.end(),
                       [&](const Feed& f) { return f.point->id == feed && laid_m(l, f).has_value(); });
}

std::optional<OtherFeed> FeedOptions::misplaced(const Load& l) {
    const auto wrong = wrong_times(l, now(l));
    return wrong && wrong->why != WhyNot::switched_there ? wrong : std::nullopt;
}

double FeedOptions::cost(const Load& l, const Feed& feed) {
    const Feed& here = now(l);
    if (&here == &feed && misplaced(l)) return kMisplaced_Am;
    double metres = feed.path.length_m + local_m(l, feed);
    if (here.path.root != feed.path.root) metres += kOtherBattery_m;
    return nominal_A(plan_, l) * metres + (&here == &feed ? 0 : kStay_Am);
}

}  // namespace yr
