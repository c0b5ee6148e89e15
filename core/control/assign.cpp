#include "control/assign.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <set>
#include <string_view>
#include <unordered_set>

#include "catalog/assumptions.h"
#include "catalog/fuses.h"
#include "control/feed_options.h"
#include "control/place_on.h"
#include "plan/supply_runs.h"
#include "units/at.h"
#include "units/text.h"

namespace yr {
namespace {

constexpr double kStayChannel_Am = 0.005;  // of two equal channels of its feed the present one
constexpr double kContinuousShare = 0.8;   // of a fuse, for ever; common practice
constexpr int kManyPlaces = 999;           // a block takes as many fuses as one gives it
constexpr double kNoLimit = 1e9;

class Assigner {
  public:
    Assigner(const Plan& plan, const AssignAsk& ask) : plan_(plan), ask_(ask), choice_(plan, ask_) {
        p_.limits_of_time = {ask.most_s, ask.cancel};
        p_.limits_of_time.worked_over = false;
        choose_loads();
        make_ways();
        make_loads();
        make_limits();
    }

    Assignment run() {
        Assignment result;
        const AssignAnswer answer = assign(p_);
        result.feasible = answer.feasible;
        result.known = answer.known;
        result.amp_metres_before = cost_now();
        result.stands = as_it_is_holds();
        if (!answer.known) return result;
        if (!answer.feasible) {
            const std::vector<int> blocked = conflict(p_);
            for (const int l : blocked) result.conflict.push_back(loads_[at(l)]->id);
            find_remedies(result, blocked);
            return result;
        }
        place(answer, result);
        explain(answer, result);
        make_edit(result);
        return result;
    }

  private:
    void choose_loads() {
        for (const Load& l : plan_.loads) {
            const bool asked = ask_.loads.empty() ||
                               std::find(ask_.loads.begin(), ask_.loads.end(), l.id) != ask_.loads.end();
            if (choice_.movable(l) && asked) loads_.push_back(&l), asked_.insert(l.id);
        }
        for (const Load& l : plan_.loads)
            if (const Run* run = is_asked(l.id) || l.starter ? nullptr : supplies_.of(l.id))
                stay_.push_back({run, nominal_A(plan_, l), wanted_at(plan_, l)});
    }

    bool is_asked(std::string_view load) const { return asked_.contains(load); }

    void make_ways() {
        for (std::size_t f = 0; f < feeds_.size(); ++f) {
            const int number = static_cast<int>(f);
            if (feeds_[f].point->channels.empty())
                add_way(feeds_[f], {number, kManyPlaces, kNoLimit, kNoLimit, -1}, {});
            else
                add_channel_ways(feeds_[f], number);
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
            if (there && !is_asked(owner_of(there->to))) continue;
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

    void make_loads() {
        for (const Load* l : loads_) {
            AssignLoad a;
            a.amps = nominal_A(plan_, *l);
            a.start_A = start_A(plan_, *l);
            a.live = choice_.wanted(*l);
            a.together = l->together;
            a.apart = l->apart;
            a.cost.resize(p_.ways.size());
            for (const Feed& feed : feeds_) {
                const bool keeps = l->pinned && choice_.supply(*l).from == feed.point->id;
                if (l->pinned ? !keeps : choice_.barred(*l, feed).has_value()) continue;
                const bool stays =
                    ask_.refused.contains({l->id, feed.point->id});  // on its channel, if anywhere there
                for (const int w : feed.ways) {
                    const bool keeps_it = keeps_way(*l, feed, w);
                    if (!keeps_it && (stays || !fuse_within(*l, p_.ways[at(w)].rating_A))) continue;
                    a.cost[at(w)] = choice_.cost(*l, feed) + (keeps_it ? 0 : kStayChannel_Am);
                }
            }
            if (l->pinned) pin(*l, a);
            p_.loads.push_back(std::move(a));
        }
    }

    // Whether a fuse that carries the load is none too large for the channel; without a fuse of its own the
    // channel guards.
    bool fuse_within(const Load& l, double rating_A) const {
        const auto& devices = choice_.supply(l).devices;
        const bool fused = std::any_of(devices.begin(), devices.end(),
                                       [](const Device& d) { return d.kind == DeviceKind::fuse; });
        return !fused || fuse_for(l, rating_A) > 0;
    }
    // The largest rating that the channel stands, of those that carry the load; 0: there is none.
    double fuse_for(const Load& l, double rating_A) const {
        double best = 0;
        for (const FuseChoice& f : standard_fuses())
            if (f.rating_A * kContinuousShare >= nominal_A(plan_, l) - 1e-9 && f.rating_A <= rating_A + 1e-9)
                best = f.rating_A;
        return best;
    }
    // The fuse of what moves is chosen with the channel: none larger than that is made for.
    void fit_fuse(const Load& l, const Point& feed, Run& run) const {
        for (const Channel& c : feed.channels)
            for (Device& d : run.devices)
                if (c.number == run.channel && d.kind == DeviceKind::fuse &&
                    d.rating_A > channel_rating_A(c) + 1e-9)
                    d.rating_A = std::max(fuse_for(l, channel_rating_A(c)), 1.0);
    }

    bool keeps_way(const Load& l, const Feed& feed, int way) const {
        const Run* run = &choice_.supply(l);
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
        for (const Staying& l : stay_)
            for (std::size_t k = 0; k < kKeyPositions; ++k)
                if (l.live[k] && under(*l.run)) row.taken_A[k] += l.amps;
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
        for (const Load* l : loads_) {
            const Feed& here = choice_.now(*l);
            sum += nominal_A(plan_, *l) * (here.path.length_m + choice_.local_m(*l, here));
        }
        return sum;
    }

    // Every load where it is now, against the same limits.
    bool as_it_is_holds() {
        std::vector<int> ways;
        std::map<std::string, int> together;
        std::set<std::pair<std::string, int>> apart;
        for (std::size_t k = 0; k < loads_.size(); ++k) {
            const Feed& here = choice_.now(*loads_[k]);
            const auto way = std::find_if(here.ways.begin(), here.ways.end(),
                                          [&](int w) { return keeps_way(*loads_[k], here, w); });
            if (way == here.ways.end() || choice_.misplaced(*loads_[k]) || !fits_alone(p_, k, at(*way)))
                return false;
            const AssignLoad& l = p_.loads[k];
            const int feed = p_.ways[at(*way)].feed;
            if (!l.together.empty() && together.try_emplace(l.together, feed).first->second != feed)
                return false;
            if (!l.apart.empty() && !apart.insert({l.apart, feed}).second) return false;
            ways.push_back(*way);
        }
        return std::all_of(p_.limits.begin(), p_.limits.end(), [&](const AssignLimit& limit) {
            auto sum_A = limit.taken_A;
            for (std::size_t k = 0; k < ways.size(); ++k)
                if (std::find(limit.ways.begin(), limit.ways.end(), ways[k]) != limit.ways.end())
                    for (std::size_t p = 0; p < kKeyPositions; ++p)
                        if (p_.loads[k].live[p]) sum_A[p] += p_.loads[k].amps;
            return std::all_of(sum_A.begin(), sum_A.end(),
                               [&](double a) { return a <= limit.limit_A + 1e-9; });
        });
    }

    const Feed& feed_of_way(int way) const { return feeds_[at(p_.ways[at(way)].feed)]; }

    // As a person counts channels off: from left to right by place, what belongs together side by side.
    std::vector<std::size_t> in_order() const {
        std::vector<std::pair<std::tuple<double, Id, std::string, std::string>, std::size_t>> keyed;
        for (std::size_t k = 0; k < loads_.size(); ++k) {
            const Load& l = *loads_[k];
            const Place* place = find(plan_.places, l.place);
            const double across_m = l.at.y_m ? *l.at.y_m : place && place->at.y_m ? *place->at.y_m : 0;
            std::string pair;
            for (const auto word : split(l.name, ' '))
                if (const auto w = to_lower(word); w != "left" && w != "right") pair += w + " ";
            keyed.push_back({{across_m, l.place, pair, to_lower(l.name)}, k});
        }
        std::sort(keyed.begin(), keyed.end());
        std::vector<std::size_t> order;
        order.reserve(keyed.size());
        for (const auto& [key, k] : keyed) order.push_back(k);
        return order;
    }

    // Which channel of its way each load gets: its present one where it can keep it, else the lowest free.
    void place(const AssignAnswer& answer, Assignment& result) {
        std::map<Id, std::vector<int>> taken;  // by box
        const auto is_taken = [&](const Id& box, int c) {
            const auto& list = taken[box];
            return std::find(list.begin(), list.end(), c) != list.end();
        };
        result.placed.resize(loads_.size());
        for (const bool keeping : {true, false})
            for (const std::size_t k : in_order()) {
                PlacedLoad& placed = result.placed[k];
                if (!placed.load.empty()) continue;
                const int w = answer.way[k];
                const Feed& feed = feed_of_way(w);
                const Run* run = &choice_.supply(*loads_[k]);
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
                placed.local_m = choice_.local_m(*loads_[k], feed);
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
        if (auto bar = choice_.barred(l, feed)) return *bar;
        if (&choice_.now(l) == &feed)
            if (auto wrong = choice_.misplaced(l)) return *wrong;
        double rating = 0, peak = 0;
        for (const int w : feed.ways) {
            rating = std::max(rating, p_.ways[at(w)].rating_A);
            if (p_.ways[at(w)].rating_A >= p_.loads[k].amps) peak = std::max(peak, p_.ways[at(w)].peak_A);
        }
        if (rating < p_.loads[k].amps) return {feed.point->id, WhyNot::rating, p_.loads[k].amps, rating, {}};
        if (peak < p_.loads[k].start_A) return {feed.point->id, WhyNot::peak, p_.loads[k].start_A, peak, {}};
        const double here = *p_.loads[k].cost[at(answer.way[k])], there = choice_.cost(l, feed);
        return {feed.point->id, there < here ? WhyNot::full : WhyNot::dearer, there, here, {}};
    }

    // Each step unchecked and all of them checked as one; where that is no plan, step by step without those
    // that break it.
    void make_edit(Assignment& result) const {
        Batch all = moves_of(result, [](Plan& work, const Edit& e) { return apply_step(work, e); });
        Plan moved = plan_;
        if (!yr::apply(moved, all))
            all = moves_of(result, [](Plan& work, const Edit& e) { return yr::apply(work, e).has_value(); });
        result.edit = std::move(all);
    }

    Batch moves_of(const Assignment& result, const std::function<bool(Plan&, const Edit&)>& fits) const {
        Plan work = plan_;
        Batch batch;
        const auto take = [&](const Edit& edit) {
            if (fits(work, edit)) batch.edits.push_back(edit);
        };
        // Everything that moves leaves its channel first, so that two may change places.
        for (const PlacedLoad& p : result.placed) {
            if (!p.moved) continue;
            Run aside = *supply_run(work, p.load);
            if (aside.channel == 0) continue;
            if (auto e = place_on(work, p.load, aside.from.owner, 0, false)) take(*e);
        }
        for (const PlacedLoad& p : result.placed) {
            if (!p.moved) continue;
            const Id before = supply_run(plan_, p.load)->from.owner;
            if (auto e = place_on(work, p.load, p.feed, p.channel, false)) take(*e);
            Run run = *supply_run(work, p.load);
            fit_fuse(*find(plan_.loads, p.load), *find(plan_.points, p.feed), run);
            if (!(run == *supply_run(work, p.load))) take(Put<Run>{run, std::nullopt});
            if (before == p.feed || run.from.owner != p.feed) continue;
            // another feed, another way: along the vehicle's own where it has them, else as far as it was
            // reckoned
            run.via.clear();
            run.length_m = choice_.along_ways(*find(plan_.loads, p.load), p.feed)
                               ? std::nullopt
                               : std::optional(std::ceil(p.local_m * 100) / 100);
            take(Put<Run>{run, std::nullopt});
        }
        return batch;
    }

    // What does not help the few that block each other helps nobody: they are asked first, for they are few.
    void find_remedies(Assignment& result, const std::vector<int>& blocked) {
        for (std::size_t k = 0; k < p_.limits.size(); ++k)
            if (const auto needed = fits_together(p_, blocked, k) ? least_limit_A(p_, k) : std::nullopt)
                result.remedies.push_back(
                    {RemedyKind::raise_limit, limits_[k].id, limits_[k].group, limits_[k].limit_A, *needed});
        for (std::size_t k = 0; k < loads_.size(); ++k)
            if (loads_[k]->pinned && (blocked.empty() || among(blocked, k))) {
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
            if (other.p_.ways.size() > p_.ways.size() && fits_together(other.p_, blocked) &&
                assign(other.p_).feasible)
                result.remedies.push_back({RemedyKind::join, {}, {}, 0, 0});
        }
        add_box_remedy(result, blocked);
    }

    static bool among(const std::vector<int>& loads, std::size_t k) {
        return std::find(loads.begin(), loads.end(), static_cast<int>(k)) != loads.end();
    }

    // One more box beside each that is there, with the fewest channels that do.
    void add_box_remedy(Assignment& result, const std::vector<int>& blocked) const {
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
                if (!fits_together(p, blocked) || !assign(p).feasible) continue;
                result.remedies.push_back(
                    {RemedyKind::another_box, feed.point->id, {}, 0, static_cast<double>(channels)});
                break;
            }
        }
    }

    const Plan& plan_;
    AssignAsk ask_;
    FeedOptions choice_;
    std::vector<Feed>& feeds_ = choice_.feeds();
    std::vector<const Load*> loads_;
    std::unordered_set<std::string_view> asked_;  // their ids
    SupplyRuns supplies_{plan_};
    struct Staying {  // a load that is not being moved
        const Run* run = nullptr;
        double amps = 0;
        LiveAt live{};
    };
    std::vector<Staying> stay_;
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
