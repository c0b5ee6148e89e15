#include "control/boxes.h"

#include <algorithm>
#include <string_view>
#include <unordered_map>

#include "control/hang_on.h"
#include "control/key_positions.h"
#include "control/place_on.h"
#include "plan/supply_runs.h"
#include "size/cable_size.h"

namespace yr {
namespace {

constexpr double kFuseAt_m = 0.15;
constexpr double kUsualMain_A = 60;  // of a box that does not say
constexpr double kSignal_A = 0.1;    // what a signal input takes; common practice

// The largest standard fuse that the box's main stands.
FuseChoice main_fuse(double main_A) {
    FuseChoice best{FuseType::bolt, main_A};
    for (const FuseChoice& f : standard_fuses())
        if (f.rating_A <= main_A + 1e-9) best = f;
    return best;
}

WireSize feed_size(const Plan& plan, double amps, double length_m) {
    SizeAsk ask;
    ask.current_A = amps;
    ask.there_and_back_m = 2 * length_m;
    ask.nominal_V = plan.vehicle.nominal_V;
    ask.system = plan.policy.sizes;
    ask.table = plan.policy.ampacity_table;
    ask.fuse_A = amps;
    ask.engine_space = true;  // it begins at the battery
    ask.ambient_C = 50;
    const auto ladder = size_cable(ask);
    if (!ladder || ladder->chosen < 0) return WireSize::awg(-1);
    return ladder->rows[static_cast<std::size_t>(ladder->chosen)].wire.size;
}

Device switching_device(const Id& id, const std::string& name, double at_m) {
    Device d;
    d.id = id;
    d.name = name;
    d.at_m = at_m;
    d.kind = DeviceKind::switching;
    return d;
}

}  // namespace

Result<Addition> add_box(const Plan& plan, const NewBox& ask) {
    if (plan.batteries.empty())
        return fail(ErrorCode::missing_reference, "battery", {}, Want::a_plan_with_a_battery);
    if (ask.box.channels.empty()) return fail(ErrorCode::empty, ask.box.name, {}, Want::a_box_with_channels);
    const Terminal from = ask.from.value_or(pos_of(plan.batteries.front().id));
    const Battery* behind = find(plan.batteries, battery_behind(plan, from));
    if (!behind)
        return fail(ErrorCode::missing_reference, ask.box.name, from.text(), Want::a_terminal_of_this_plan);
    const Battery& battery = *behind;
    Point box = ask.box;
    box.id = new_id(plan, "box");
    box.kind = PointKind::box;
    box.place = ask.place;
    box.feeds_loads = true;
    box.return_at = neg_of(battery.id);

    const double length = ask.length_m.value_or(3);
    const FuseChoice fuse = main_fuse(box.main_A.value_or(kUsualMain_A));
    Run feed;
    feed.id = new_id(plan, "run");
    feed.name = box.name + " feed";
    feed.from = from;
    feed.to = box.id;
    feed.length_m = ask.length_m;
    feed.size = feed_size(plan, fuse.rating_A, length);
    for (const Id& place : {battery.place, ask.place})
        if (!place.empty() && (feed.places.empty() || feed.places.back() != place))
            feed.places.push_back(place);
    const double near = std::min(kFuseAt_m, length / 4);
    Device guard;
    guard.id = new_id(plan, "fuse");
    guard.name = box.name + " main fuse";
    guard.at_m = near;
    guard.fuse = battery.chemistry == Chemistry::lifepo4 ? FuseType::high : fuse.type;
    guard.rating_A = fuse.rating_A;
    feed.devices.push_back(guard);
    if (!(ask.trigger == Condition{})) {
        Device relay = switching_device(new_id(plan, "switch"), box.name + " trigger", length / 3);
        relay.closed_when = ask.trigger;
        relay.contact_A = fuse.rating_A;
        feed.devices.push_back(relay);
    }
    if (ask.cutoff_V) {
        Device cut = switching_device(new_id(plan, "cutoff"), box.name + " cut-off", length / 2);
        cut.kind = DeviceKind::cutoff;
        cut.open_V = ask.cutoff_V;
        cut.close_V = *ask.cutoff_V + 1.0 * plan.vehicle.nominal_V / 12;
        feed.devices.push_back(cut);
    }
    return Addition{Batch{{Put<Point>{box, {}}, Put<Run>{feed, {}}}}, box.id};
}

std::vector<ChannelUse> channel_uses(const Plan& plan, const Point& box) {
    std::vector<ChannelUse> uses;
    for (const Channel& c : box.channels) {
        ChannelUse use;
        use.channel = &c;
        use.run = run_on_channel(plan, box.id, c.number);
        if (use.run) use.load = find(plan.loads, owner_of(use.run->to));
        if (use.run) use.at = Id(owner_of(use.run->to));
        if (use.load) {
            use.amps = nominal_A(plan, *use.load);
            use.start_A = start_A(plan, *use.load);
        } else if (use.run) {  // several loads behind one channel: the hardest start on top of the others
            const auto behind = loads_on(plan, use.at);
            use.amps = together_A(plan, behind);
            double step = 0;
            for (const Load* l : behind) step = std::max(step, start_A(plan, *l) - nominal_A(plan, *l));
            use.start_A = use.amps + step;
        }
        uses.push_back(use);
    }
    std::sort(uses.begin(), uses.end(),
              [](const ChannelUse& a, const ChannelUse& b) { return a.channel->number < b.channel->number; });
    return uses;
}

double together_A(const Plan& plan, const std::vector<const Load*>& loads) {
    double worst = 0;
    for (std::size_t k = 0; k < kKeyPositions; ++k) {
        double sum = 0;
        for (const Load* l : loads)
            if (wanted_at(plan, *l)[k]) sum += nominal_A(plan, *l);
        worst = std::max(worst, sum);
    }
    return worst;
}

std::vector<const Load*> loads_on(const Plan& plan, const Id& feed) {
    const SupplyRuns supply(plan);
    std::vector<const Load*> loads;
    for (const Load& l : plan.loads)
        if (const Run* run = supply.of(l.id); run && run->from == feed) loads.push_back(&l);
    return loads;
}

namespace {

bool waits_for(const Condition& when, const Id& load) {
    return std::find(when.circuits.begin(), when.circuits.end(), load) != when.circuits.end();
}

// What delays `l` behind `load`; its channel's driver says the same as its own condition and counts once.
SignalOf delay_behind(const Plan& plan, const Load& l, const Id& load) {
    SignalOf out{&l, 0, l.id};
    bool waits = waits_for(l.live_when, load);
    double said_s = waits ? l.live_when.delay_s.value_or(0) : 0, longest_s = said_s;
    double more_s = 0;
    const auto made_by = [&](const Id& id, double seconds) {
        if (seconds > longest_s) longest_s = seconds, out.delayed_by = id;
    };
    const Run* supply = supply_run(plan, l.id);
    for (const Device& d : supply ? supply->devices : std::vector<Device>{}) {
        const Load* coil = find(plan.loads, d.coil);
        const bool by_coil = coil && waits_for(coil->live_when, load),
                   by_itself = waits_for(d.closed_when, load);
        waits = waits || by_coil || by_itself;
        if (by_itself) said_s = std::max(said_s, d.closed_when.delay_s.value_or(0));
        if (by_itself) made_by(d.id, d.closed_when.delay_s.value_or(0));
        if (by_coil) more_s += coil->live_when.delay_s.value_or(0);
        if (by_coil) made_by(coil->id, coil->live_when.delay_s.value_or(0));
        if (by_coil || by_itself) more_s += d.delay_s.value_or(0);
        if (by_coil || by_itself) made_by(d.id, d.delay_s.value_or(0));
    }
    out.after_s = waits ? said_s + more_s : 0;
    return out;
}

}  // namespace

std::optional<SignalOf> signal_of(const Plan& plan, const Load& load) {
    std::optional<SignalOf> latest;
    for (const Load& l : plan.loads) {
        if (l.id == load.id) continue;
        const SignalOf s = delay_behind(plan, l, load.id);
        if (s.after_s > (latest ? latest->after_s : 0)) latest = s;
    }
    return latest;
}

Edit later_signal(const Plan& plan, const SignalOf& signal, double after_s) {
    const double more_s = after_s - signal.after_s;
    const auto later = [&](std::optional<double>& delay_s) { delay_s = delay_s.value_or(0) + more_s; };
    Batch batch;
    if (const Load* load = find(plan.loads, signal.delayed_by)) {
        Load changed = *load;
        later(changed.live_when.delay_s);
        batch.edits.emplace_back(Put<Load>{changed, {}});
        const Run* run = supply_run(plan, load->id);
        if (const Device* driver = run ? channel_driver(plan, *run) : nullptr) {
            Run driven = *run;
            for (Device& d : driven.devices)
                if (d.id == driver->id) d.closed_when.delay_s = changed.live_when.delay_s;
            batch.edits.emplace_back(Put<Run>{driven, {}});
        }
        return batch;
    }
    for (Run run : plan.runs)
        for (Device& d : run.devices)
            if (d.id == signal.delayed_by) {
                later(d.delay_s.value_or(0) >= d.closed_when.delay_s.value_or(0) ? d.delay_s
                                                                                 : d.closed_when.delay_s);
                batch.edits.emplace_back(Put<Run>{run, {}});
                return batch;
            }
    return batch;
}

Result<Edit> add_signal(const Plan& plan, const Load& load) {
    const Run* supply = supply_run(plan, load.id);
    const Run* ret = nullptr;
    for (const Run& r : plan.runs)
        if (r.from == neg_of(load.id)) ret = &r;
    if (!supply || !ret)
        return fail(ErrorCode::missing_reference, load.name, {}, Want::a_load_with_a_feed_and_a_return);
    Load signal;
    signal.id = new_id(plan, "load");
    signal.name = load.name + " signal";
    signal.draw = {DrawKind::current, kSignal_A};
    signal.live_when = load.live_when;
    signal.live_when.circuits = {load.id};
    signal.live_when.delay_s = load.signal_after_s.value_or(2);
    signal.place = load.place;
    Plan work = plan;
    work.loads.push_back(signal);
    Run feed = *supply;
    feed.id = new_id(work, "run");
    feed.name = signal.name + " feed";
    feed.to = pos_of(signal.id);
    feed.size = WireSize::awg(18);
    feed.channel = 0;
    feed.devices.clear();
    Device fuse;
    fuse.id = new_id(work, "fuse");
    fuse.name = signal.name + " fuse";
    fuse.at_m = 0.0;
    fuse.rating_A = 3;
    feed.devices.push_back(fuse);
    work.runs.push_back(feed);
    Run back = *ret;
    back.id = new_id(work, "run");
    back.name = signal.name + " return";
    back.from = neg_of(signal.id);
    back.size = WireSize::awg(18);
    back.devices.clear();
    return Edit(Batch{{Put<Load>{signal, {}}, Put<Run>{feed, {}}, Put<Run>{back, {}}}});
}

std::string panel_label(const Plan& plan, const std::string& switch_name) {
    for (const PanelSwitch& s : plan.panel)
        if (s.name == switch_name && !s.label.empty()) return s.label;
    std::string works;
    for (const Load& l : plan.loads)
        if (const auto names = switches_of(l.live_when);
            std::find(names.begin(), names.end(), switch_name) != names.end())
            works += (works.empty() ? "" : ", ") + l.name;
    return works.empty() ? switch_name : works;
}

}  // namespace yr
