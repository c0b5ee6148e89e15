#include "control/assign.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "catalog/assumptions.h"
#include "control/feed_tree.h"
#include "control/place_on.h"

namespace yr {
namespace {

constexpr double kSamePlace_m = 1.5;  // from a feed to a load in the same place; common practice
constexpr double kOtherBattery_m =
    20;                            // moving a load to another battery is a person's decision: it costs this
constexpr double kStay_Am = 0.01;  // of two equal places the present one
constexpr double kDetour = 1.1;    // looms do not run straight from place to place; common practice
constexpr int kManyPlaces = 999;   // a block takes as many fuses as one gives it
constexpr double kNoLimit = 1e9;

std::size_t at(int k) {
    return static_cast<std::size_t>(k);
}

// What is live where, at every key position, for each set of switches that loads ask for.
class LiveMap {
  public:
    explicit LiveMap(const Plan& plan) : plan_(plan) {}

    const std::map<Id, LiveAt>& with(const std::vector<std::string>& switches) {
        const auto found = known_.find(switches);
        if (found != known_.end()) return found->second;
        std::map<Id, LiveAt>& live = known_[switches];
        for (std::size_t k = 0; k < kKeyPositions; ++k) {
            const Solution s = solve(plan_, state_at(plan_, kEveryKeyPosition[k], switches), solver_);
            for (std::size_t n = 0; n < s.network.nodes.size(); ++n)
                if (const Point* p = find(plan_.points, s.network.nodes[n])) {
                    const double share = s.point.node_V[n] / plan_.vehicle.nominal_V;
                    live[p->id][k] = share > 0.5 && share < 1.6;  // a traction battery's own rail is no feed
                }
        }
        return live;
    }

  private:
    const Plan& plan_;
    OperatingPointSolver solver_;
    std::map<std::vector<std::string>, std::map<Id, LiveAt>> known_;
};

struct Feed {
    const Point* point = nullptr;
    FeedPath path;
    std::vector<int> ways;  // in the problem
};

class Assigner {
  public:
    Assigner(const Plan& plan, const AssignAsk& ask) : plan_(plan), ask_(ask), live_(plan) {
        p_.limits_of_time = {ask.most_s, ask.cancel};
        choose_loads();
        make_feeds();
        make_loads();
        make_limits();
    }

    Assignment run() {
        Assignment result;
        const AssignAnswer answer = assign(p_);
        result.feasible = answer.feasible;
        result.known = answer.known;
        result.amp_metres_before = cost_now();
        if (!answer.known) return result;
        if (!answer.feasible) {
            for (const int l : conflict(p_)) result.conflict.push_back(loads_[at(l)]->id);
            find_remedies(result);
            return result;
        }
        place(answer, result);
        explain(answer, result);
        make_edit(result);
        return result;
    }

  private:
    bool movable(const Load& l) const {
        const Run* run = supply_run(plan_, l.id);
        const Point* from = run ? find(plan_.points, run->from) : nullptr;
        return !l.starter && l.inverter.empty() && from && from->feeds_loads && run->to == pos_of(l.id) &&
               run->tap_of.empty();
    }

    void choose_loads() {
        for (const Load& l : plan_.loads) {
            const bool asked = ask_.loads.empty() ||
                               std::find(ask_.loads.begin(), ask_.loads.end(), l.id) != ask_.loads.end();
            if (movable(l) && asked) loads_.push_back(&l);
        }
    }

    bool is_asked(const Id& load) const {
        return std::any_of(loads_.begin(), loads_.end(), [&](const Load* l) { return l->id == load; });
    }

    void make_feeds() {
        const auto paths = feed_paths(plan_);
        for (const Point& p : plan_.points) {
            const auto path = paths.find(p.id);
            if (!p.feeds_loads || path == paths.end()) continue;
            Feed feed{&p, path->second, {}};
            const int number = static_cast<int>(feeds_.size());
            if (p.channels.empty())
                add_way(feed, {number, kManyPlaces, kNoLimit, kNoLimit, -1}, {});
            else
                add_channel_ways(feed, number);
            feeds_.push_back(feed);
        }
    }

    void add_way(Feed& feed, const AssignWay& way, std::vector<int> channels) {
        feed.ways.push_back(static_cast<int>(p_.ways.size()));
        p_.ways.push_back(way);
        way_channels_.push_back(std::move(channels));
        way_group_.emplace_back();
    }

    // Channels of one rating, peak and group are alike; those that other loads keep are not there.
    void add_channel_ways(Feed& feed, int number) {
        struct Alike {
            double rating, peak;
            std::string group;
            bool operator<(const Alike& o) const {
                return std::tie(rating, peak, group) < std::tie(o.rating, o.peak, o.group);
            }
        };
        std::map<Alike, std::vector<int>> alike;
        for (const Channel& c : feed.point->channels) {
            const Run* there = run_on_channel(plan_, feed.point->id, c.number);
            if (there && !is_asked(Id(owner_of(there->to)))) continue;
            alike[{channel_rating_A(c), channel_peak_A(c), c.group}].push_back(c.number);
        }
        for (auto& [kind, numbers] : alike) {
            std::sort(numbers.begin(), numbers.end());
            const int base = static_cast<int>(p_.ways.size());
            const auto places = static_cast<int>(numbers.size());
            add_way(feed, {number, places, kind.rating, kind.peak, -1}, numbers);
            way_group_.back() = kind.group;
            if (ask_.allow_joined && places >= 2 && feed.point->output == OutputKind::solid_state) {
                add_way(feed, {number, places / 2, 2 * kind.rating, 2 * kind.peak, base}, numbers);
                way_group_.back() = kind.group;
            }
        }
    }

    double local_m(const Load& l, const Feed& feed) const {
        const Run* run = supply_run(plan_, l.id);
        if (run->from == feed.point->id && run->length_m) return *run->length_m;
        const bool same = !l.place.empty() && l.place == feed.point->place;
        const double usual = same ? kSamePlace_m : assumption("run_length_m").value;
        // the load is as far from the battery as its present way says: another feed is no short cut to it
        for (const Feed& now : feeds_)
            if (now.point->id == run->from && now.path.root == feed.path.root) {
                const double far = now.path.length_m + run->length_m.value_or(usual);
                return std::max(usual, std::abs(far - feed.path.length_m) * (same ? 1 : kDetour));
            }
        return usual;
    }

    // Why a load cannot go on a feed whatever else is there; empty where it can.
    std::optional<OtherFeed> barred(const Load& l, const Feed& feed) {
        const LiveAt wanted = wanted_at(plan_, l);
        const LiveAt live = live_.with(switches_for(plan_, l)).at(feed.point->id);
        const bool channels = !feed.point->channels.empty();
        const bool measured = l.live_when.charging_above_V || !l.live_when.circuits.empty();
        // a coil on the far side of its own contact would never pull it in
        for (const Id& id : feed.path.runs)
            for (const Device& d : find(plan_.runs, id)->devices)
                if (!d.coil.empty() && d.coil == l.id)
                    return OtherFeed{feed.point->id, WhyNot::not_live, 0, 0, KeyPosition::off};
        for (std::size_t k = 0; k < kKeyPositions; ++k) {
            if (wanted[k] && !live[k] && kEveryKeyPosition[k] != KeyPosition::cranking)
                return OtherFeed{feed.point->id, WhyNot::not_live, 0, 0, kEveryKeyPosition[k]};
            // where it hangs now, a switch of its own may keep it dead; nobody moves it to such a place
            const bool stays = l.own_switch && supply_run(plan_, l.id)->from == feed.point->id;
            if (!channels && !measured && !stays && live[k] && !wanted[k])
                return OtherFeed{feed.point->id, WhyNot::live_too_long, 0, 0, kEveryKeyPosition[k]};
        }
        return std::nullopt;
    }

    double cost(const Load& l, const Feed& feed) const {
        const Run* run = supply_run(plan_, l.id);
        const bool stays = run->from == feed.point->id;
        double metres = feed.path.length_m + local_m(l, feed);
        for (const Feed& now : feeds_)
            if (now.point->id == run->from && now.path.root != feed.path.root) metres += kOtherBattery_m;
        return nominal_A(plan_, l) * metres + (stays ? 0 : kStay_Am);
    }

    void make_loads() {
        for (const Load* l : loads_) {
            AssignLoad a;
            a.amps = nominal_A(plan_, *l);
            a.start_A = start_A(plan_, *l);
            a.live = wanted_at(plan_, *l);
            a.together = l->together;
            a.apart = l->apart;
            a.cost.resize(p_.ways.size());
            for (const Feed& feed : feeds_) {
                const bool keeps = l->pinned && supply_run(plan_, l->id)->from == feed.point->id;
                if (l->pinned ? !keeps : barred(*l, feed).has_value()) continue;
                for (const int w : feed.ways)
                    a.cost[at(w)] = cost(*l, feed) + (keeps_way(*l, feed, w) ? 0 : kStay_Am / 2);
            }
            if (l->pinned) pin(*l, a);
            p_.loads.push_back(std::move(a));
        }
    }

    bool keeps_way(const Load& l, const Feed& feed, int way) const {
        const Run* run = supply_run(plan_, l.id);
        const auto& channels = way_channels_[at(way)];
        return run->from == feed.point->id && p_.ways[at(way)].joined_of < 0 &&
               (channels.empty() ||
                std::find(channels.begin(), channels.end(), run->channel) != channels.end());
    }

    // A pinned load keeps its way, with a place of its own there.
    void pin(const Load& l, AssignLoad& a) const {
        for (const Feed& feed : feeds_)
            for (const int w : feed.ways)
                if (keeps_way(l, feed, w)) a.pinned = w;
    }

    void make_limits() {
        for (const FeedLimit& limit : feed_limits(plan_)) {
            AssignLimit row;
            row.limit_A = limit.limit_A;
            for (const Feed& feed : feeds_) {
                const bool holds =
                    std::find(limit.feeds.begin(), limit.feeds.end(), feed.point->id) != limit.feeds.end();
                for (const int w : feed.ways)
                    if (holds && (limit.group.empty() || way_group_[at(w)] == limit.group))
                        row.ways.push_back(w);
            }
            add_taken(limit, row);
            if (row.ways.empty()) continue;
            p_.limits.push_back(row);
            limits_.push_back(limit);
        }
    }

    void add_taken(const FeedLimit& limit, AssignLimit& row) const {
        const auto under = [&](const Run& run) {
            if (!limit.group.empty()) {
                const Channel* c = channel_of(plan_, run);
                return c && run.from == limit.feeds.front() && c->group == limit.group;
            }
            return std::find(limit.feeds.begin(), limit.feeds.end(), run.from) != limit.feeds.end();
        };
        add_converters(under, row);
        for (const Load& l : plan_.loads) {
            const Run* run = supply_run(plan_, l.id);
            if (!run || is_asked(l.id) || l.starter || !under(*run)) continue;
            const LiveAt live = wanted_at(plan_, l);
            for (std::size_t k = 0; k < kKeyPositions; ++k)
                if (live[k]) row.taken_A[k] += nominal_A(plan_, l);
        }
    }

    // Inverters with all that is live behind them, and converters at their limit.
    template <class F>
    void add_converters(const F& under, AssignLimit& row) const {
        const double nominal = plan_.vehicle.nominal_V;
        std::vector<AssumptionUse> unused;
        for (std::size_t k = 0; k < kKeyPositions; ++k) {
            const State state = state_at(plan_, kEveryKeyPosition[k], plan_switches(plan_));
            const auto add = [&](const Terminal& input, const Condition& works, double watts) {
                for (const Run& r : plan_.runs)
                    if (r.to == input && under(r) && holds(works, state)) row.taken_A[k] += watts / nominal;
            };
            for (const Inverter& i : plan_.inverters)
                add(pos_of(i.id), i.works_when, inverter_input_W(i, inverter_ac_W(plan_, i, state), unused));
            for (const Source& s : plan_.sources)
                if (s.kind == SourceKind::converter)
                    add(in_of(s.id), s.works_when,
                        s.rated_A.value_or(20) * s.regulated_V.value_or(nominal) /
                            s.efficiency.value_or(assumption("converter_efficiency").value));
        }
    }

    double cost_now() const {
        double sum = 0;
        for (const Load* l : loads_)
            for (const Feed& feed : feeds_)
                if (feed.point->id == supply_run(plan_, l->id)->from)
                    sum += nominal_A(plan_, *l) * (feed.path.length_m + local_m(*l, feed));
        return sum;
    }

    const Feed& feed_of_way(int way) const { return feeds_[at(p_.ways[at(way)].feed)]; }

    // Which channel of its way each load gets: its present one where it can keep it, else the lowest free.
    void place(const AssignAnswer& answer, Assignment& result) {
        std::map<Id, std::vector<int>> taken;  // by box
        const auto is_taken = [&](const Id& box, int c) {
            const auto& list = taken[box];
            return std::find(list.begin(), list.end(), c) != list.end();
        };
        result.placed.resize(loads_.size());
        for (const bool keeping : {true, false})
            for (std::size_t k = 0; k < loads_.size(); ++k) {
                PlacedLoad& placed = result.placed[k];
                if (!placed.load.empty()) continue;
                const int w = answer.way[k];
                const Feed& feed = feed_of_way(w);
                const Run* run = supply_run(plan_, loads_[k]->id);
                const auto& channels = way_channels_[at(w)];
                const bool joined = p_.ways[at(w)].joined_of >= 0;
                const bool keeps = run->from == feed.point->id && !joined &&
                                   (channels.empty() || std::find(channels.begin(), channels.end(),
                                                                  run->channel) != channels.end());
                if (keeping && !keeps) continue;
                int channel = keeps ? run->channel : 0;
                for (const int c : channels)
                    if (!keeps && channel == 0 && !is_taken(feed.point->id, c)) channel = c;
                if (channel > 0) taken[feed.point->id].push_back(channel);
                if (joined)
                    for (const int c : channels)
                        if (!is_taken(feed.point->id, c)) {
                            taken[feed.point->id].push_back(c);
                            break;
                        }
                placed.load = loads_[k]->id;
                placed.feed = feed.point->id;
                placed.channel = channel;
                placed.joined = joined;
                placed.moved = run->from != placed.feed || run->channel != channel;
                placed.pinned = loads_[k]->pinned;
                placed.amps = p_.loads[k].amps;
                placed.feed_m = feed.path.length_m;
                placed.local_m = local_m(*loads_[k], feed);
                result.amp_metres += placed.amps * (placed.feed_m + placed.local_m);
            }
    }

    void explain(const AssignAnswer& answer, Assignment& result) {
        for (std::size_t k = 0; k < loads_.size(); ++k)
            for (std::size_t f = 0; f < feeds_.size(); ++f)
                if (static_cast<int>(f) != p_.ways[at(answer.way[k])].feed)
                    result.placed[k].others.push_back(why_not(k, feeds_[f], answer));
    }

    OtherFeed why_not(std::size_t k, const Feed& feed, const AssignAnswer& answer) {
        const Load& l = *loads_[k];
        if (l.pinned) return {feed.point->id, WhyNot::pinned, 0, 0, {}};
        if (auto bar = barred(l, feed)) return *bar;
        double rating = 0, peak = 0;
        for (const int w : feed.ways) {
            rating = std::max(rating, p_.ways[at(w)].rating_A);
            if (p_.ways[at(w)].rating_A >= p_.loads[k].amps) peak = std::max(peak, p_.ways[at(w)].peak_A);
        }
        if (rating < p_.loads[k].amps) return {feed.point->id, WhyNot::rating, p_.loads[k].amps, rating, {}};
        if (peak < p_.loads[k].start_A) return {feed.point->id, WhyNot::peak, p_.loads[k].start_A, peak, {}};
        const double here = *p_.loads[k].cost[at(answer.way[k])], there = cost(l, feed);
        return {feed.point->id, there < here ? WhyNot::full : WhyNot::dearer, there, here, {}};
    }

    void make_edit(Assignment& result) const {
        Plan work = plan_;
        Batch batch;
        // Everything that moves leaves its channel first, so that two may change places.
        for (const PlacedLoad& p : result.placed) {
            if (!p.moved) continue;
            Run aside = *supply_run(work, p.load);
            if (aside.channel == 0) continue;
            if (auto e = place_on(work, p.load, aside.from.owner, 0, false)) take(work, *e, batch);
        }
        for (const PlacedLoad& p : result.placed)
            if (p.moved)
                if (auto e = place_on(work, p.load, p.feed, p.channel, false)) take(work, *e, batch);
        result.edit = std::move(batch);
    }

    static void take(Plan& work, const Edit& edit, Batch& batch) {
        if (yr::apply(work, edit)) batch.edits.push_back(edit);
    }

    void find_remedies(Assignment& result) {
        for (std::size_t k = 0; k < p_.limits.size(); ++k)
            if (const auto needed = least_limit_A(p_, k))
                result.remedies.push_back(
                    {RemedyKind::raise_limit, limits_[k].id, limits_[k].group, limits_[k].limit_A, *needed});
        for (std::size_t k = 0; k < loads_.size(); ++k)
            if (loads_[k]->pinned) {
                Plan freed = plan_;
                for (Load& l : freed.loads)
                    if (l.id == loads_[k]->id) l.pinned = false;
                if (assign(Assigner(freed, ask_).p_).feasible)
                    result.remedies.push_back({RemedyKind::unpin, loads_[k]->id, {}, 0, 0});
            }
        if (!ask_.allow_joined) {
            AssignAsk joined = ask_;
            joined.allow_joined = true;
            const Assigner other(plan_, joined);
            if (other.p_.ways.size() > p_.ways.size() && assign(other.p_).feasible)
                result.remedies.push_back({RemedyKind::join, {}, {}, 0, 0});
        }
        add_box_remedy(result);
    }

    // One more box beside each that is there, with the fewest channels that do.
    void add_box_remedy(Assignment& result) const {
        for (const Feed& feed : feeds_) {
            if (feed.point->channels.empty()) continue;
            for (const int channels : {4, 6, 8, 12}) {
                AssignProblem p = p_;
                double rating = 0, peak = 0;
                for (const int w : feed.ways)
                    rating = std::max(rating, p.ways[at(w)].rating_A),
                    peak = std::max(peak, p.ways[at(w)].peak_A);
                p.ways.push_back({static_cast<int>(feeds_.size()), channels, rating, peak, -1});
                for (AssignLoad& l : p.loads) {
                    std::optional<double> as_there;
                    for (const int w : feed.ways)
                        if (l.cost[at(w)]) as_there = l.cost[at(w)];
                    l.cost.push_back(as_there);
                }
                for (AssignLimit& limit : p.limits)  // it hangs on the same trunk, not on the box's own main
                    if (limits_[static_cast<std::size_t>(&limit - p.limits.data())].feeds.size() > 1 &&
                        std::any_of(feed.ways.begin(), feed.ways.end(), [&](int w) {
                            return std::find(limit.ways.begin(), limit.ways.end(), w) != limit.ways.end();
                        }))
                        limit.ways.push_back(static_cast<int>(p.ways.size()) - 1);
                if (!assign(p).feasible) continue;
                result.remedies.push_back(
                    {RemedyKind::another_box, feed.point->id, {}, 0, static_cast<double>(channels)});
                break;
            }
        }
    }

    const Plan& plan_;
    AssignAsk ask_;
    LiveMap live_;
    std::vector<const Load*> loads_;
    std::vector<Feed> feeds_;
    std::vector<std::vector<int>> way_channels_;  // by way: channel numbers; empty for blocks
    std::vector<std::string> way_group_;
    std::vector<FeedLimit> limits_;  // beside p_.limits
    AssignProblem p_;
};

}  // namespace

Assignment assign_loads(const Plan& plan, const AssignAsk& ask) {
    return Assigner(plan, ask).run();
}

std::optional<double> feed_length_m(const Plan& plan, const Id& feed) {
    const auto paths = feed_paths(plan);
    const auto found = paths.find(feed);
    return found == paths.end() ? std::nullopt : std::optional(found->second.length_m);
}

std::vector<FeedLimit> feed_limits(const Plan& plan) {
    std::vector<FeedLimit> limits;
    const auto paths = feed_paths(plan);
    for (const Point& p : plan.points) {
        if (p.main_A) limits.push_back({p.id, {}, *p.main_A, {p.id}});
        for (const ChannelGroup& g : p.groups) limits.push_back({p.id, g.name, g.limit_A, {p.id}});
    }
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices) {
            if (d.kind != DeviceKind::fuse) continue;
            FeedLimit limit{d.id, {}, d.rating_A, {}};
            for (const auto& [point, path] : paths)
                if (std::find(path.runs.begin(), path.runs.end(), r.id) != path.runs.end())
                    limit.feeds.push_back(point);
            if (!limit.feeds.empty()) limits.push_back(std::move(limit));
        }
    return limits;
}

}  // namespace yr
