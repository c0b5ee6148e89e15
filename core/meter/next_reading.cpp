#include "meter/next_reading.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "plan/lists.h"
#include "solve/results.h"

namespace yr {
namespace {

constexpr std::size_t kSuspects = 24;  // weighed; the rest counts too little
constexpr double kLeastShare = 0.004;  // of one of them
constexpr double kWorthwhile = 0.03;   // of what is undecided: below, no reading is worth the minute
constexpr double kNextFloor_V = 0.002;

Id place_of_thing(const Plan& plan, const Id& thing) {
    Id place;
    each_list(plan, [&](const auto& things) {
        using Thing = typename std::remove_cvref_t<decltype(things)>::value_type;
        if constexpr (requires(const Thing& t) { t.at.spot(), t.place; })
            for (const Thing& t : things)
                if (t.id == thing) place = t.place;
    });
    return place;
}

// Which terminals hang on some battery or source where nothing is wrong: between others a meter shows nothing
// that means anything.
class Fed {
  public:
    explicit Fed(const Solution& sound) : network_(sound.network), groups_(conductor_groups(sound.network)) {
        const auto note = [&](NodeIndex n) {
            if (n != kNoNode) alive_.insert(groups_[static_cast<std::size_t>(n)]);
        };
        for (const BatteryElement& b : network_.batteries) note(b.pos), note(b.neg);
        for (const SourceElement& s : network_.sources) note(s.out), note(s.neg);
        // through a load that is off one would read the other end of its winding
        for (std::size_t k = 0; k < network_.plan_loads; ++k)
            if (sound.point.loads[k].status != LoadStatus::on)
                idle_.insert(network_.loads[k].pos), idle_.insert(network_.loads[k].neg);
        idle_.erase(network_.reference);  // where mains loads stand
    }
    bool holds(const Probing& where) const {
        if (where.kind != ReadKind::volts) return true;
        return holds(where.red) && (where.black.empty() || holds(where.black));
    }

  private:
    bool holds(const Terminal& t) const {
        const NodeIndex n = node_at(network_, t);
        return n != kNoNode && !idle_.contains(n) && alive_.contains(groups_[static_cast<std::size_t>(n)]);
    }
    const Network& network_;
    std::vector<int> groups_;
    std::set<int> alive_;
    std::set<NodeIndex> idle_;
};

double minutes_of(const Plan& plan, const Probing& where, const std::optional<Probing>& last) {
    double minutes = reading_minutes(where.kind == ReadKind::amps ? "amps"
                                     : where.black.empty()        ? "volts"
                                                                  : "across");
    if (last && last->state != where.state) minutes += reading_minutes("other_state");
    if (last && place_of(plan, *last) != place_of(plan, where)) minutes += reading_minutes("other_place");
    return minutes;
}

}  // namespace

Id place_of(const Plan& plan, const Probing& where) {
    if (where.kind != ReadKind::amps) return place_of_thing(plan, where.red.owner);
    const Run* r = find(plan.runs, std::string_view(where.run));
    return r ? place_of_thing(plan, r->from.owner) : Id();
}

std::vector<Probing> places_to_probe(const Plan& plan, const Id& state) {
    std::vector<Probing> all;
    std::vector<Terminal> seen;
    const Terminal reference = plan.batteries.empty() ? Terminal() : neg_of(plan.batteries.front().id);
    for (const Run& r : plan.runs)
        for (const Terminal* t : {&r.from, &r.to})
            if (*t != reference && std::find(seen.begin(), seen.end(), *t) == seen.end()) {
                seen.push_back(*t);
                all.push_back({ReadKind::volts, *t, {}, {}, state, {}});
            }
    for (const Battery& b : plan.batteries)
        if (neg_of(b.id) != reference)
            all.push_back({ReadKind::volts, pos_of(b.id), neg_of(b.id), {}, state, {}});
    for (const Run& r : plan.runs) {
        all.push_back({ReadKind::volts, r.from, r.to, {}, state, {}});
        if (!r.body_metal) all.push_back({ReadKind::amps, {}, {}, r.id, state, {}});
    }
    for (const Point& p : plan.points)
        if (p.kind == PointKind::ground && !p.bonded_to.empty())
            all.push_back({ReadKind::volts, Terminal(p.id), Terminal(p.bonded_to), {}, state, {}});
    return all;
}

std::optional<NextReading> next_reading(Locator& locator, const Plan& plan, const Location& now,
                                        const NextAsk& ask) {
    const auto things = now.things();
    if (things.empty() || things.front().second >= ask.sure) return std::nullopt;
    // who is still suspected, each at its likeliest strength
    struct Who {
        std::size_t fault, strength;
        Id thing;
        double share;
    };
    std::vector<Who> who;
    double sum = 0;
    for (const Suspect& s : now.suspects) {
        if (who.size() >= kSuspects || s.probability < kLeastShare) break;
        if (s.second) continue;
        for (std::size_t f = 0; f < locator.faults().size(); ++f) {
            const Fault& x = locator.faults()[f];
            if (x.kind != s.fault.kind || x.thing != s.fault.thing || x.other != s.fault.other) continue;
            std::size_t nearest = 0;
            const auto grades = strengths(x, Locator::grades_of(x));
            for (std::size_t g = 0; g < grades.size(); ++g)
                if (std::abs(std::log(std::max(grades[g], 1e-9) / std::max(s.strength, 1e-9))) <
                    std::abs(std::log(std::max(grades[nearest], 1e-9) / std::max(s.strength, 1e-9))))
                    nearest = g;
            who.push_back({f, x.graded() ? nearest : 0, x.thing, s.probability});
            sum += s.probability;
            break;
        }
    }
    if (who.size() < 2 || sum <= 0) return std::nullopt;
    for (Who& w : who) w.share /= sum;
    double undecided = 0;
    for (const Who& a : who)
        for (const Who& b : who)
            if (a.thing != b.thing) undecided += a.share * b.share;
    if (undecided <= 0) return std::nullopt;

    std::vector<Id> states = ask.states;
    for (const Complaint& c : ask.complaints)
        if (ask.states.empty() && std::find(states.begin(), states.end(), c.state) == states.end())
            states.push_back(c.state);
    if (states.empty())
        for (const State& s : plan.states) states.push_back(s.id);
    std::optional<NextReading> best;
    double best_rate = 0;
    const Instrument& meter = locator.expecter().instrument();
    for (const Id& state : states) {
        const Fed fed(locator.expecter().solution({ReadKind::volts, {}, {}, {}, state, {}}));
        for (const Probing& where : places_to_probe(plan, state)) {
            if (ask.stop && *ask.stop) return best;
            if (!fed.holds(where)) continue;
            if (std::any_of(ask.readings.begin(), ask.readings.end(),
                            [&](const Reading& r) { return r.where == where; }))
                continue;
            std::vector<double> value;
            double least = 1e300, most = -1e300;
            for (const Who& w : who) {
                const auto v = value_at(locator.solved(w.fault, w.strength, where), plan, where);
                value.push_back(v ? *v : std::nan(""));
                if (v) least = std::min(least, *v), most = std::max(most, *v);
            }
            if (!(most - least > 4 * kNextFloor_V)) continue;
            const Expectation sound = locator.expecter().knowing(where, ask.readings);
            // expected share of what stays undecided, over what each would make it read
            std::vector<double> sd;
            sd.reserve(value.size());
            for (const double v : value)
                sd.push_back(std::sqrt(sound.spread * sound.spread +
                                       std::pow(meter.most_off(where.kind, std::isnan(v) ? 0 : v), 2) / 3 +
                                       kNextFloor_V * kNextFloor_V));
            double stays = 0;
            std::vector<double> after(who.size());
            for (std::size_t i = 0; i < who.size(); ++i) {
                if (std::isnan(value[i])) {
                    stays += who[i].share * undecided;
                    continue;
                }
                double norm = 0;
                for (std::size_t j = 0; j < who.size(); ++j) {
                    const double z =
                        std::isnan(value[j]) ? 0 : (value[i] - value[j]) / std::hypot(sd[i], sd[j]);
                    after[j] = who[j].share * std::exp(-0.5 * z * z);
                    norm += after[j];
                }
                double left = 0;
                for (std::size_t a = 0; a < who.size(); ++a)
                    for (std::size_t b = a + 1; b < who.size(); ++b)
                        if (who[a].thing != who[b].thing) left += 2 * after[a] * after[b];
                stays += who[i].share * left / (norm * norm);
            }
            const double parts = 1 - stays / undecided;
            if (parts < kWorthwhile) continue;
            const double minutes = minutes_of(plan, where, ask.last);
            if (const double rate = parts / minutes; rate > best_rate) {
                best_rate = rate;
                NextReading next;
                next.where = where, next.minutes = minutes, next.parts = parts, next.sound = sound;
                for (std::size_t k = 0; k < who.size(); ++k) {
                    const auto& list = next.if_it_is;
                    if (list.size() < 4 && !std::isnan(value[k]) &&
                        std::none_of(list.begin(), list.end(),
                                     [&](const auto& x) { return x.first == who[k].thing; }))
                        next.if_it_is.emplace_back(who[k].thing, value[k]);
                }
                best = std::move(next);
            }
        }
    }
    return best;
}

}  // namespace yr
