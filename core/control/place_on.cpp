#include "control/place_on.h"

#include <algorithm>

#include "catalog/assumptions.h"
#include "control/feed_tree.h"

namespace yr {
namespace {

bool is_driver(const Device& d) {
    return d.kind == DeviceKind::switching && d.coil.empty() && !d.master && d.at_m.value_or(0) <= 0;
}

std::string channel_name(const Point& box, int channel) {
    return box.name + " channel " + std::to_string(channel);
}

// The run as it stands on its new feed.
Run moved_run(const Plan& plan, const Load& load, const Run& run, const Point& feed, int channel) {
    Run r = run;
    if (r.channel > 0)  // the driver belongs to the channel that is left
        std::erase_if(r.devices, is_driver);
    r.from = feed.id;
    r.channel = channel;
    if (channel > 0) {
        Load follows = load;
        hang_on_channel(r, follows, feed, channel, new_id(plan, "driver"));
    }
    return r;
}

// Ids of the drivers that one batch brings must differ from each other.
void number_drivers(Batch& batch, const Plan& plan) {
    std::vector<Device*> brought;
    for (Edit& e : batch.edits)
        if (auto* put = std::get_if<Put<Run>>(&e))
            for (Device& d : put->thing.devices)
                if (is_driver(d) && !find_device(plan, d.id)) brought.push_back(&d);
    if (brought.empty()) return;
    brought.front()->id = new_id(plan, "driver");
    if (brought.size() == 1) return;
    Plan taken = plan;
    for (std::size_t k = 1; k < brought.size(); ++k) {
        taken.states.push_back({brought[k - 1]->id, {}, {}, 0, 25, 25, {}, {}});  // the id is handed out
        brought[k]->id = new_id(taken, "driver");
    }
}

void add_move(const Plan& plan, const Load& load, const Point& feed, int channel, bool pin, Batch& batch) {
    const Run* run = supply_run(plan, load.id);
    Run moved = moved_run(plan, load, *run, feed, channel);
    const Point* before = find(plan.points, run->from);
    batch.edits.emplace_back(Put<Run>{moved, std::nullopt});
    Load placed = load;
    placed.pinned = pin || load.pinned;
    if (channel > 0 && !(load.live_when == Condition{})) placed.own_switch = false;
    if (channel == 0 && run->channel > 0) placed.own_switch = true;
    if (!(placed == load)) batch.edits.emplace_back(Put<Load>{placed, std::nullopt});
    // a return that went home goes to the new home
    if (!before || before->return_at.empty() || feed.return_at.empty() || before->return_at == feed.return_at)
        return;
    for (Run r : plan.runs)
        if (r.from == neg_of(load.id) && r.to == before->return_at) {
            r.to = feed.return_at;
            batch.edits.emplace_back(Put<Run>{r, std::nullopt});
        }
}

}  // namespace

void hang_on_channel(Run& run, Load& load, const Point& box, int channel, const Id& driver_id) {
    run.from = box.id;
    run.channel = channel;
    if (load.live_when == Condition{}) return;  // always on: nothing drives it
    Device driver;
    driver.id = driver_id;
    driver.name = channel_name(box, channel);
    driver.kind = DeviceKind::switching;
    driver.at_m = 0.0;
    driver.closed_when = load.live_when;
    run.devices.insert(run.devices.begin(), driver);
    load.own_switch = false;
}

int fitting_channel(const Plan& plan, const Point& box, double amps, double start_A,
                    const std::vector<int>& taken) {
    const Channel* best = nullptr;
    const auto free = free_channels(plan, box);
    for (const Channel& c : box.channels) {
        const bool is_free = std::find(free.begin(), free.end(), c.number) != free.end() &&
                             std::find(taken.begin(), taken.end(), c.number) == taken.end();
        if (!is_free || channel_rating_A(c) < amps || channel_peak_A(c) < start_A) continue;
        if (!best || channel_rating_A(c) < channel_rating_A(*best)) best = &c;
    }
    return best ? best->number : 0;
}

const Device* channel_driver(const Plan& plan, const Run& run) {
    if (!channel_of(plan, run)) return nullptr;
    const auto found = std::find_if(run.devices.begin(), run.devices.end(), is_driver);
    return found == run.devices.end() ? nullptr : &*found;
}

const Run* run_on_channel(const Plan& plan, const Id& box, int channel) {
    if (channel <= 0) return nullptr;
    for (const Run& r : plan.runs)
        if (r.from == box && r.channel == channel) return &r;
    return nullptr;
}

std::vector<int> free_channels(const Plan& plan, const Point& box) {
    std::vector<int> free;
    for (const Channel& c : box.channels)
        if (!run_on_channel(plan, box.id, c.number)) free.push_back(c.number);
    std::sort(free.begin(), free.end());
    return free;
}

double channel_rating_A(const Channel& channel) {
    return channel.rating_A.value_or(assumption("channel_rating_A").value);
}

double channel_peak_A(const Channel& channel) {
    return channel.peak_A.value_or(channel_rating_A(channel) * assumption("channel_peak_factor").value);
}

Result<Edit> place_on(const Plan& plan, const Id& load_id, const Id& feed_id, int channel, bool pin) {
    const Load* load = find(plan.loads, load_id);
    const Run* run = load ? supply_run(plan, load_id) : nullptr;
    if (!run || run->to != pos_of(load_id))
        return fail(ErrorCode::missing_reference, load ? load->name : load_id, {},
                    Want::a_load_with_a_feed_of_its_own);
    const Point* feed = find(plan.points, feed_id);
    if (!feed) return fail(ErrorCode::missing_reference, load->name, feed_id, Want::a_feed_of_this_plan);
    const auto paths = feed_paths(plan);
    if (const auto path = paths.find(feed_id); path != paths.end() && !suits_accessories(plan, path->second))
        return fail(
            ErrorCode::out_of_range, load->name,
            feed->name + " of " + std::to_string(static_cast<int>(root_V(plan, path->second.root))) + " V",
            Want::a_feed_of_the_accessories_volts);
    if (channel > 0) {
        const bool exists = std::any_of(feed->channels.begin(), feed->channels.end(),
                                        [&](const Channel& c) { return c.number == channel; });
        if (!exists)
            return fail(ErrorCode::missing_reference, feed->name, "channel " + std::to_string(channel),
                        Want::a_channel_of_this_box);
        const Run* there = run_on_channel(plan, feed_id, channel);
        if (there && there->id != run->id)
            return fail(ErrorCode::out_of_range, channel_name(*feed, channel), name_of(plan, there->to),
                        Want::one_load_and_it_has_one_already);
    }
    Batch batch;
    add_move(plan, *load, *feed, channel, pin, batch);
    number_drivers(batch, plan);
    return Edit(std::move(batch));
}

Edit set_live_when(const Plan& plan, const Id& load_id, const Condition& when) {
    Load load = *find(plan.loads, load_id);
    load.live_when = when;
    const Run* run = supply_run(plan, load_id);
    const Point* box = run && run->channel > 0 ? find(plan.points, run->from) : nullptr;
    if (!box) return Put<Load>{load, std::nullopt};
    Run driven = *run;
    const Device* driver = channel_driver(plan, *run);
    const Id id = driver ? driver->id : new_id(plan, "driver");
    const bool was_driven = driver || !load.own_switch;
    std::erase_if(driven.devices, is_driver);
    if (was_driven) {
        load.own_switch = when == Condition{} && load.own_switch;
        hang_on_channel(driven, load, *box, run->channel, id);
    }
    return Batch{{Put<Load>{load, std::nullopt}, Put<Run>{driven, std::nullopt}}};
}

Result<Edit> swap_onto(const Plan& plan, const Id& load_id, const Id& box, int channel) {
    const Run* there = run_on_channel(plan, box, channel);
    const Run* here = supply_run(plan, load_id);
    if (!there || !here || there == here) return place_on(plan, load_id, box, channel, true);
    const Load* other = find(plan.loads, owner_of(there->to));
    const Point *to = find(plan.points, box), *back = find(plan.points, here->from);
    const Load* load = find(plan.loads, load_id);
    if (!other || !to || !back || !load)
        return fail(ErrorCode::missing_reference, name_of(plan, load_id), {},
                    Want::two_loads_that_change_places);
    Batch batch;
    add_move(plan, *load, *to, channel, true, batch);
    add_move(plan, *other, *back, here->channel, false, batch);
    number_drivers(batch, plan);
    return Edit(std::move(batch));
}

}  // namespace yr
