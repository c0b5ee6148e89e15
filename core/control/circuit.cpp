#include "control/circuit.h"

#include <algorithm>
#include <map>
#include <unordered_set>
#include <utility>

#include "catalog/assumptions.h"
#include "control/place_on.h"
#include "network/network.h"
#include "plan/rail_volts.h"
#include "size/cable_size.h"
#include "size/fuse_size.h"
#include "size/plan_fuse.h"
#include "size/run_ladder.h"
#include "typing/battery_words.h"

namespace yr {
namespace {

constexpr double kHomeRun_A = 15;      // above this a return goes home; common practice
constexpr double kGroundLead_m = 0.5;  // from a load to the nearest ground stud; common practice
constexpr double kLowestShare = 0.94;  // of nominal volts, on a battery that gives; common practice
constexpr double kBusShare = 0.6;  // of a bus's fuse for heavy loads: light ones are to come; common practice
constexpr double kOthersToCome = 0.85;  // of a drop limit, when a load is laid; common practice
constexpr double kFuseShare = 0.8;      // of a fuse's rating for what runs for long; common practice

// Ids that are free in the plan and among those handed out already.
class FreeIds {
  public:
    explicit FreeIds(const Plan& plan) : plan_(plan) {}
    Id take(const std::string& head) {
        int& n = next_[head];
        if (n == 0) {  // where the plan's own numbers end; a gap below is left alone
            const Id first = new_id(plan_, head);
            n = std::stoi(first.substr(first.rfind('-') + 1));
        }
        while (taken(head + "-" + std::to_string(n))) ++n;
        return head + "-" + std::to_string(n++);
    }

  private:
    bool taken(const Id& id) {
        if (known_.empty()) each_id(plan_, [&](const Id& x) { known_.insert(x); });
        return known_.contains(id);
    }
    const Plan& plan_;
    std::unordered_set<Id> known_;
    std::map<std::string, int> next_;
};

std::string note_of(const TypedLine& line) {
    std::string note = line.note;
    for (const std::string& word : line.not_understood) note += (note.empty() ? "" : " ") + word;
    return note;
}

struct FeedChoice {
    const Point* point = nullptr;
    bool fits = false;
    const Battery* battery = nullptr;  // in place of a point: a cable of its own
    [[nodiscard]] Terminal at() const { return battery ? pos_of(battery->id) : Terminal(point->id); }
};

double nominal_current_A(const Plan& plan, const TypedLine& line, const Terminal& feed) {
    const double v = rail_V(plan, feed);
    switch (line.draw->kind) {
        case DrawKind::current:
            return line.draw->value * line.count;
        case DrawKind::power:
            return line.draw->value * line.count / v;
        case DrawKind::resistance:
            return v / line.draw->value * line.count;
    }
    return 0;
}

// Channels that earlier lines of the same table took, by box.
using TakenChannels = std::map<Id, std::vector<int>>;

// On a box: the typed channel or the smallest that fits. 0: none there.
int channel_on(const Plan& plan, const Point& box, const TypedLine& line, TakenChannels& taken) {
    if (box.channels.empty()) return 0;
    if (line.channel > 0) return line.channel;
    const double amps = nominal_current_A(plan, line, box.id) / kFuseShare;  // its fuse is to fit the channel
    return fitting_channel(plan, box, amps, std::max(amps, line.inrush_A.value_or(0) * line.count),
                           taken[box.id]);
}

bool of_said_volts(const TypedLine& line, double rail_V) {
    constexpr double kAlike_V = 4;  // 13.8 V is said of a 12 V rail, 52 V of 48
    return !line.said_V || std::abs(*line.said_V - rail_V) < kAlike_V;
}

FeedChoice choose_feed(const Plan& plan, const TypedLine& line, const std::vector<Solution>& solutions,
                       TakenChannels& taken) {
    const Condition wanted = line.live_when.value_or(Condition{});
    FeedChoice best;
    int best_score = -1;
    for (const Point& p : plan.points) {
        if (!p.feeds_loads || (!line.feed.empty() && p.id != line.feed)) continue;
        if (line.channel > 0 && p.channels.empty()) continue;
        if (line.feed.empty() && !line.said_V && !suits_plain_loads(plan, Terminal(p.id))) continue;
        if (line.feed.empty() && !of_said_volts(line, rail_V(plan, Terminal(p.id)))) continue;
        const bool switches = !p.channels.empty();  // a channel keeps it dead when the box is live
        const bool full = switches && channel_on(plan, p, line, taken) == 0;
        const double rail = rail_V(plan, Terminal(p.id));
        int missing = 0, extra = 0;
        for (std::size_t s = 0; s < plan.states.size(); ++s) {
            const auto& nodes = solutions[s].network.nodes;
            const auto n =
                static_cast<std::size_t>(std::find(nodes.begin(), nodes.end(), p.id) - nodes.begin());
            const double volts = n < nodes.size() ? solutions[s].point.node_V[n] : 0;
            const bool live = volts > 0.5 * rail;
            const bool want = holds(wanted, plan.states[s]);
            missing += want && !live;
            extra += live && !want && (!switches || full);
        }
        const int score = 10000 - 1000 * missing - 10 * extra - (full ? 500 : 0) +
                          (!line.place.empty() && p.place == line.place ? 5 : 0);
        if (score > best_score) best_score = score, best = {&p, missing == 0};
    }
    return best;
}

bool one_thicker(const Plan& plan, Run& run) {
    const auto& sizes = sizes_of(plan.policy.sizes);
    const auto at = std::find(sizes.begin(), sizes.end(), *run.size);
    if (at == sizes.end() || at + 1 == sizes.end()) return false;
    run.size = *(at + 1);
    return true;
}

// The battery that feeds a bus, at most three cables away; else the first.
const Battery& battery_before(const Plan& plan, const Point* feed) {
    Terminal at = feed ? Terminal(feed->id) : Terminal();
    for (int step = 0; step < 3 && !at.empty(); ++step) {
        Terminal before;
        for (const Run& r : plan.runs) {
            if (r.to != at) continue;
            if (const Battery* b = find(plan.batteries, r.from.owner)) return *b;
            if (find(plan.points, r.from)) before = r.from;
        }
        at = before;
    }
    return plan.batteries.front();
}

// What the converter gives whose output is this bus.
std::optional<double> converter_behind_A(const Plan& plan, const Point& bus) {
    for (const Run& r : plan.runs)
        if (r.to == Terminal(bus.id))
            for (const Source& s : plan.sources)
                if (s.kind == SourceKind::converter && r.from == out_of(s.id)) return s.rated_A;
    return std::nullopt;
}

// Heavier than what a fuse block is for, or the block is taken up: its own cable from the battery, as one
// would lay it.
const Battery* own_cable_from(const Plan& plan, const TypedLine& line, const FeedChoice& feed,
                              TakenChannels& taken) {
    if (const Battery* said = find(plan.batteries, line.feed)) return said;
    if (!line.feed.empty() || line.channel > 0 || plan.batteries.empty()) return nullptr;
    // the first load of a vehicle as the later ones, on what is lived from; what works with the engine is the
    // engine battery's
    const bool with_engine = line.live_when && line.live_when->engine == Engine::running;
    const Battery& battery =
        feed.point || with_engine ? battery_before(plan, feed.point) : battery_to_live_from(plan);
    const Terminal pos = pos_of(battery.id);
    if (rail_V(plan, pos) > 1.6 * plan.vehicle.nominal_V) return nullptr;
    if (!of_said_volts(line, rail_V(plan, pos))) return nullptr;
    if (!feed.point) return nominal_current_A(plan, line, pos) < kOwnCable_A ? nullptr : &battery;
    const double amps = nominal_current_A(plan, line, feed.point->id);
    // behind a converter of a traction battery hangs what is light; a motor is no load of that rail
    if (const auto gives_A = converter_behind_A(plan, *feed.point))
        return amps > *gives_A ? &battery : nullptr;
    if (!feed.point->channels.empty())
        return amps < kOwnCable_A || channel_on(plan, *feed.point, line, taken) ? nullptr : &battery;
    return bears(plan, *feed.point, amps) ? nullptr : &battery;
}

bool engine_place(const Plan& plan, const Id& id) {
    const Place* p = find(plan.places, id);
    return p && p->engine_space;
}

// A typed channel that is not there, or that somebody has.
std::optional<Error> refused_channel(const Plan& plan, const Point& box, int channel, TakenChannels& taken) {
    const std::string given = "channel " + std::to_string(channel);
    const bool exists = std::any_of(box.channels.begin(), box.channels.end(),
                                    [&](const Channel& c) { return c.number == channel; });
    if (!exists) return Error{ErrorCode::missing_reference, box.name, given, Want::a_channel_of_this_box};
    const auto& list = taken[box.id];
    const bool used = std::find(list.begin(), list.end(), channel) != list.end();
    if (const Run* there = run_on_channel(plan, box.id, channel); there || used)
        return Error{ErrorCode::out_of_range, box.name + ", " + given,
                     there ? name_of(plan, there->to) : "another line",
                     Want::one_load_and_it_has_one_already};
    return std::nullopt;
}

struct Chosen {
    WireSize size = WireSize::awg(14);
    std::optional<FuseChoice> fuse;
    int parallel = 1;
};

SizeAsk ask_of(const Plan& plan, const TypedLine& line, const Terminal& feed, double current_A,
               double length_m, double limit_share) {
    SizeAsk ask;
    ask.current_A = current_A;
    ask.there_and_back_m = 2 * length_m;
    ask.nominal_V = rail_V(plan, feed);
    ask.drop_share = limit_share;
    ask.engine_space = engine_place(plan, line.place);
    ask.ambient_C = 30;
    for (const State& s : plan.states)
        ask.ambient_C = std::max(ask.ambient_C, ask.engine_space ? s.engine_bay_C : s.ambient_C);
    ask.system = plan.policy.sizes;
    ask.table = plan.policy.ampacity_table;
    return ask;
}

// The thinnest size that passes and for which the school finds a fuse that guards it; without a fuse: the
// last that was looked at.
Chosen thinnest_guarded(const Plan& plan, const TypedLine& line, const SizeAsk& ask,
                        std::optional<double> inrush_A, double least_mm2) {
    Chosen chosen;
    chosen.parallel = ask.parallel;
    const auto ladder = size_cable(ask);
    if (!ladder) return chosen;
    const std::size_t first =
        ladder->chosen < 0 ? ladder->rows.size() - 1 : static_cast<std::size_t>(ladder->chosen);
    for (std::size_t k = first; k < ladder->rows.size(); ++k) {
        const SizeRow& row = ladder->rows[k];
        if (line.size ? !(row.wire.size == *line.size) : row.wire.area_mm2 < least_mm2) continue;
        // a fuse that was asked for leaves the cable to be thick enough for it
        if (line.fuse_A && !line.size && row.ampacity.allowed_A < *line.fuse_A && k + 1 < ladder->rows.size())
            continue;
        const auto advice = choose_fuse({ask.current_A, inrush_A, row.ampacity.allowed_A, ask.nominal_V},
                                        plan.policy.fuse_school);
        chosen.size = row.wire.size;
        if (advice && advice->chosen && advice->protects_cable) {
            chosen.fuse = advice->chosen;
            return chosen;
        }
    }
    return chosen;
}

// One cable where there is a size for it; else two or three side by side.
Chosen choose_cable(const Plan& plan, const TypedLine& line, SizeAsk ask) {
    constexpr double kSideBySide_mm2 =
        50;  // NEC 310.10(G): 1/0 and thicker may run in parallel (from memory)
    const std::optional<double> inrush_A =
        line.inrush_A ? std::optional(*line.inrush_A * line.count) : std::nullopt;
    Chosen chosen = thinnest_guarded(plan, line, ask, inrush_A, assumption("least_cable_mm2").value);
    for (int beside = 2; beside <= 3 && !chosen.fuse && !line.size; ++beside) {
        ask.parallel = beside;
        if (const Chosen more = thinnest_guarded(plan, line, ask, inrush_A, kSideBySide_mm2); more.fuse)
            chosen = more;
    }
    if (line.size) chosen.size = *line.size;
    if (!chosen.fuse)  // a size that was asked for may be too thin: fuse for the load, the findings say the
                       // rest
        if (const auto advice =
                choose_fuse({ask.current_A, inrush_A, 1e9, ask.nominal_V}, plan.policy.fuse_school))
            chosen.fuse = advice->chosen;
    return chosen;
}

Terminal choose_return(const Plan& plan, const TypedLine& line, const FeedChoice& feed, double current_A,
                       bool& home_run) {
    home_run = line.chassis ? !*line.chassis : line.critical || current_A > kHomeRun_A;
    if (!home_run)
        for (const Point& p : plan.points)
            if (p.kind == PointKind::ground && (line.place.empty() || p.place == line.place)) return p.id;
    home_run = true;
    if (feed.battery) return neg_of(feed.battery->id);
    if (!feed.point->return_at.empty()) return feed.point->return_at;
    if (!plan.batteries.empty()) return neg_of(plan.batteries.front().id);
    return plan.sources.empty() ? Terminal{} : plan.sources.front().return_at;
}

}  // namespace

bool bears(const Plan& plan, const Point& feed, double amps) {
    std::optional<double> fuse_A;
    for (const Run& r : plan.runs)
        if (r.to == Terminal(feed.id))
            for (const Device& d : r.devices)
                if (d.kind == DeviceKind::fuse) fuse_A = std::min(fuse_A.value_or(d.rating_A), d.rating_A);
    double others_A = 0;
    for (const Run& r : plan.runs)
        if (const Load* l = find(plan.loads, r.to.owner); l && r.from == Terminal(feed.id) && !l->starter)
            others_A += nominal_A(plan, *l);
    // light ones are still to come when a heavy one asks; once the fuse is taken up it takes no more at all
    const double share = amps < kOwnCable_A ? kFuseShare : kBusShare;
    return !fuse_A || amps + others_A <= share * *fuse_A;
}

namespace {

// What a line says of the load itself, whatever feeds it.
Load load_of(const TypedLine& line, FreeIds& ids) {
    Load load = line.details;
    load.id = ids.take("load");
    load.name = line.name;
    load.inverter.clear();
    load.count = line.count;
    load.draw = *line.draw;
    if (line.draw_least && *line.draw_least <= load.draw.value) load.draw_least = line.draw_least;
    load.live_when = line.live_when.value_or(Condition{});
    load.place = line.place;
    load.remarks.note = note_of(line);
    return load;
}

// A load on mains hangs on its inverter by a plug: it brings no cable of ours.
Result<NewCircuit> make_mains_load(const Plan& plan, const TypedLine& line, FreeIds& ids) {
    if (line.draw->kind != DrawKind::power)
        return fail(ErrorCode::wrong_dimension, "draw", {}, Want::watts_since_it_runs_on_mains);
    Load load = load_of(line, ids);
    load.start_W = line.start_W;
    load.inverter = line.inverter;
    load.inrush_A.reset();
    const Inverter* on = find(plan.inverters, line.inverter);
    if (on && !line.live_when) {  // as its inverter is switched
        load.live_when = on->works_when;
    } else if (on && !(*line.live_when == Condition{})) {  // "while the engine runs": and the inverter is on
        auto& own = load.live_when.switches;
        for (const std::string& s : on->works_when.switches)
            if (std::find(own.begin(), own.end(), s) == own.end()) own.push_back(s);
    }
    // what is always on needs an inverter that is
    if (on && line.live_when && *line.live_when == Condition{} &&
        on->works_when.switches == std::vector<std::string>{on->name}) {
        Inverter always = *on;
        always.works_when = Condition{};
        return NewCircuit{Batch{{Put<Inverter>{always, {}}, Put<Load>{load, {}}}}, load.id, line.inverter,
                          true};
    }
    return NewCircuit{Put<Load>{load, {}}, load.id, line.inverter, true};
}

// The most that all batteries together give into a short beside their posts, on this rail.
double short_of_batteries_A(const Plan& plan, double rail) {
    const Network network = compile(plan, plan.states.front());
    double amps = 0;
    for (const BatteryElement& b : network.batteries)
        if (b.open_V < 1.6 * rail && b.R0_ohm > 0) amps += b.open_V / b.R0_ohm;
    return amps;
}

// A cable of a load's own from the battery: the fuse near the post, of a kind that breaks what the batteries
// can give, and what switches it.
void fit_to_battery(const Plan& plan, Run& supply, const Load& load, const Battery& battery, FreeIds& ids) {
    const double rail = rail_V(plan, pos_of(battery.id));
    for (Device& fuse : supply.devices) {
        fuse.at_m = std::min(0.15, supply.length_m.value_or(assumption("run_length_m").value));
        for (const FuseType kind : kinds_for(fuse.rating_A, short_of_batteries_A(plan, rail), rail)) {
            if (is_breaker(kind) != is_breaker(fuse.fuse)) continue;
            const auto& ratings = fuse_kind(kind).ratings_A;  // the next above, where it has not the same
            const auto next = std::lower_bound(ratings.begin(), ratings.end(), fuse.rating_A - 1e-9);
            if (next == ratings.end()) continue;
            fuse.fuse = kind, fuse.rating_A = *next;
            break;
        }
    }
    if (load.live_when == Condition{}) return;
    Device contactor;
    contactor.id = ids.take("contactor"), contactor.name = load.name + " contactor";
    contactor.kind = DeviceKind::switching, contactor.closed_when = load.live_when;
    contactor.at_m = std::min(0.5, supply.length_m.value_or(assumption("run_length_m").value));
    supply.devices.push_back(contactor);
}

// The kind that a post wants may have no rating between what flows and what the cable stands but the next
// above: then the cable is the thicker, or, where its size was asked for, the fuse the smaller.
void fuse_within_cable(const Plan& plan, Run& supply, double current_A, bool size_asked) {
    const auto fuse = std::find_if(supply.devices.begin(), supply.devices.end(),
                                   [](const Device& d) { return d.kind == DeviceKind::fuse; });
    if (fuse == supply.devices.end()) return;
    const auto stands_A = [&] { return least_ampacity_A(plan, supply).value_or(0); };
    while (!size_asked && fuse->rating_A > stands_A() && one_thicker(plan, supply)) {
    }
    double best_A = 0;
    for (const double rating : fuse_kind(fuse->fuse).ratings_A)
        if (rating >= current_A && rating <= stands_A()) best_A = rating;
    if (best_A > 0 && fuse->rating_A > stands_A()) fuse->rating_A = best_A;
}

// The rating that was typed, in a kind that has it and stands these volts.
void as_asked(const Plan& plan, Device& fuse, const TypedLine& line) {
    fuse.rating_A = *line.fuse_A;
    const auto has = [&](FuseType kind) {
        const auto& ratings = fuse_kind(kind).ratings_A;
        return plan.vehicle.nominal_V <= fuse_kind(kind).rated_V &&
               std::any_of(ratings.begin(), ratings.end(),
                           [&](double r) { return std::abs(r - *line.fuse_A) < 1e-9; });
    };
    // by hand before what closes again by itself
    static constexpr FuseType kBreakers[] = {FuseType::breaker_3, FuseType::breaker_2, FuseType::breaker_1};
    static constexpr FuseType kFuses[] = {FuseType::blade, FuseType::blade_large, FuseType::bolt,
                                          FuseType::strip, FuseType::stud,        FuseType::high};
    const auto take = [&](const auto& kinds) {
        const auto first = std::find_if(std::begin(kinds), std::end(kinds), has);
        if (first != std::end(kinds)) fuse.fuse = *first;
    };
    if (line.breaker) {
        fuse.fuse = FuseType::breaker_3;
        take(kBreakers);
    } else if (!has(fuse.fuse)) {
        take(kFuses);
    }
}

Result<NewCircuit> make_one(const Plan& plan, const TypedLine& line, const std::vector<Solution>& solutions,
                            FreeIds& ids, TakenChannels& taken) {
    if (line.name.empty()) return fail(ErrorCode::empty, "name", {}, Want::a_name_for_the_load);
    if (!line.draw) return fail(ErrorCode::empty, "draw", {}, Want::a_draw_in_w_a_or_ohm);
    if (!line.inverter.empty()) return make_mains_load(plan, line, ids);
    FeedChoice feed = choose_feed(plan, line, solutions, taken);
    if (const Battery* own = own_cable_from(plan, line, feed, taken)) feed = {nullptr, true, own};
    if (!feed.battery && !feed.point && line.channel > 0)
        return fail(ErrorCode::missing_reference, line.name, "channel " + std::to_string(line.channel),
                    Want::a_box_with_channels);
    if (!feed.battery && !feed.point)
        return fail(ErrorCode::missing_reference, "feed", {}, Want::a_feed_that_loads_can_hang_on);

    if (line.start_W && !line.inrush_A) {
        TypedLine in_amps = line;
        in_amps.inrush_A = *std::exchange(in_amps.start_W, std::nullopt) / rail_V(plan, feed.at());
        return make_one(plan, in_amps, solutions, ids, taken);
    }

    NewCircuit circuit;
    Load load = load_of(line, ids);
    circuit.load = load.id;
    load.inrush_A = line.inrush_A;
    load.start_W.reset();
    load.power_factor.reset();
    load.critical = line.critical;
    load.drop_limit = line.drop_limit;

    // what takes watts takes more amps as the volts fall: its cable and fuse are for the lowest that it runs
    // on
    const double current_A = nominal_current_A(plan, line, feed.at()) *
                             (line.draw->kind == DrawKind::power ? 1 / kLowestShare : 1);
    const double length = line.length_m.value_or(assumption("run_length_m").value);
    const Chosen cable = choose_cable(
        plan, line,
        ask_of(plan, line, feed.at(), current_A, length, drop_limit_V(plan, load) / plan.vehicle.nominal_V));

    Run supply;
    supply.id = ids.take("run");
    supply.name = line.name + " feed";
    supply.from = feed.at();
    supply.to = pos_of(load.id);
    supply.length_m = line.length_m;
    supply.length_least_m = line.length_least_m;
    supply.size = cable.size, supply.parallel = cable.parallel;
    if (!line.place.empty()) supply.places = {line.place};
    if (cable.fuse)
        supply.devices.push_back({ids.take("fuse"),
                                  line.name + " fuse",
                                  DeviceKind::fuse,
                                  0.0,
                                  cable.fuse->type,
                                  cable.fuse->rating_A,
                                  {},
                                  {}});

    if (line.fuse_A)
        for (Device& fuse : supply.devices) as_asked(plan, fuse, line);
    if (feed.battery) fit_to_battery(plan, supply, load, *feed.battery, ids);
    if (feed.battery && !line.fuse_A) fuse_within_cable(plan, supply, current_A, line.size.has_value());
    circuit.channel = feed.point ? channel_on(plan, *feed.point, line, taken) : 0;
    if (circuit.channel > 0) {
        if (auto wrong = refused_channel(plan, *feed.point, circuit.channel, taken))
            return tl::unexpected(*wrong);
        taken[feed.point->id].push_back(circuit.channel);
        hang_on_channel(supply, load, *feed.point, circuit.channel, ids.take("driver"));
    }

    // a fuse that fits the load may let a short burn so thin a cable
    while (!line.size && !guarded(plan, supply, kColdFuse) && one_thicker(plan, supply)) {
    }

    bool home_run = false;
    Run ret;
    ret.id = ids.take("run");
    ret.name = line.name + " return";
    ret.from = neg_of(load.id);
    ret.to = choose_return(plan, line, feed, current_A, home_run);
    ret.length_m = home_run ? line.length_m : std::optional(kGroundLead_m);
    if (home_run) ret.length_least_m = line.length_least_m;
    ret.size = supply.size, ret.parallel = supply.parallel;
    ret.places = supply.places;

    circuit.edit = Batch{{Put<Load>{load, {}}, Put<Run>{supply, {}}, Put<Run>{ret, {}}}};
    circuit.feed = feed.at().owner;
    circuit.feed_fits = feed.fits;
    return circuit;
}

}  // namespace

namespace {

// Whether the load keeps its drop limit in every state in which key and engine let it run, its switches on.
bool keeps_drop(const Plan& plan, const Id& id, double share) {
    OperatingPointSolver solver;
    const auto k = static_cast<std::size_t>(find(plan.loads, id) - plan.loads.data());
    const Load& load = plan.loads[k];
    for (State s : plan.states) {
        if (s.key == Key::crank) continue;
        for (const std::string& name : switches_of(load.live_when)) s.switches.push_back(name);
        if (!holds(load.live_when, s)) continue;
        const LoadResult r = solve(plan, s, solver).point.loads[k];
        if (r.status == LoadStatus::on && r.drop_V > share * drop_limit_V(plan, load)) return false;
    }
    return true;
}

// Alone on its feed a cable may pass and yet not behind all that lies before it: both ways thicker, until so
// much of its limit is kept from the battery on. False where that helps nothing: the trunk is too thin, and
// the findings say so.
bool thicken(const Plan& plan, NewCircuit& circuit, double share) {
    constexpr int kMostSteps = 6;
    auto edits = std::get<Batch>(circuit.edit);
    for (int k = 0; k < kMostSteps; ++k) {
        Plan trial = plan;
        if (!apply(trial, edits)) return false;
        if (keeps_drop(trial, circuit.load, share)) {
            circuit.edit = edits;
            return true;
        }
        for (Edit& e : edits.edits)
            if (auto* put = std::get_if<Put<Run>>(&e); put && !one_thicker(plan, put->thing)) return false;
    }
    return false;
}

}  // namespace

Result<NewCircuit> make_circuit(const Plan& plan, const TypedLine& line) {
    FreeIds ids(plan);
    TakenChannels taken;
    auto circuit = make_one(plan, line, solve_all(plan), ids, taken);
    if (!circuit || line.size || !line.inverter.empty()) return circuit;
    // what comes to the same feed later takes a part of the volts, too
    if (!thicken(plan, *circuit, kOthersToCome)) thicken(plan, *circuit, 1);
    return circuit;
}

std::vector<Result<NewCircuit>> make_circuits(const Plan& plan, const std::vector<TypedLine>& lines) {
    FreeIds ids(plan);
    const std::vector<Solution> solutions = solve_all(plan);
    std::vector<Result<NewCircuit>> circuits;
    circuits.reserve(lines.size());
    TakenChannels taken;
    for (const TypedLine& line : lines) circuits.push_back(make_one(plan, line, solutions, ids, taken));
    return circuits;
}

}  // namespace yr
