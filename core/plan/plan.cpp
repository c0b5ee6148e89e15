#include <algorithm>
#include <unordered_set>

#include "catalog/assumptions.h"
#include "plan/lists.h"

namespace yr {

namespace {

// By the warmth of the air; between the threshold and the way back it stays as it came into the state.
bool warmth_holds(const Condition& c, const State& state, const Id& id) {
    if (!c.above_C && !c.below_C) return true;
    const double air_C = c.air == Air::engine_bay ? state.engine_bay_C : state.ambient_C;
    const bool came_closed =
        !id.empty() && std::find(state.closed.begin(), state.closed.end(), id) != state.closed.end();
    const double back_K = came_closed ? c.within_K.value_or(0) : 0;
    return (!c.above_C || air_C >= *c.above_C - back_K) && (!c.below_C || air_C <= *c.below_C + back_K);
}

bool holds_now(const Condition& condition, const State& state, const Id& id);

}  // namespace

bool holds(const Condition& condition, const State& state, const Id& id) {
    if (holds_now(condition, state, id)) return true;
    if (!condition.holds_s || !state.left || *state.left <= state.key) return false;
    // the key was just turned back: what held before holds on, for as long as this state lasts or longer
    State before = state;
    before.key = *state.left;
    if (condition.engine == Engine::running) before.rpm = std::max(before.rpm, 1.0);
    return *condition.holds_s >= state.lasts_s.value_or(assumption("passing_s").value) &&
           holds_now(condition, before, id);
}

namespace {

bool holds_now(const Condition& condition, const State& state, const Id& id) {
    if (!warmth_holds(condition, state, id)) return false;
    if (state.key < condition.key) return false;
    if (condition.key == Key::accessory && state.key == Key::crank) return false;
    if (condition.engine == Engine::running && state.rpm <= 0) return false;
    if (condition.engine == Engine::stopped && state.rpm > 0) return false;
    if (condition.not_cranking && state.key == Key::crank) return false;
    const auto on = [&](const std::string& name) {
        return std::find(state.switches.begin(), state.switches.end(), name) != state.switches.end();
    };
    const auto& any = condition.any_of;
    return std::all_of(condition.switches.begin(), condition.switches.end(), on) &&
           std::none_of(condition.switches_off.begin(), condition.switches_off.end(), on) &&
           (any.empty() ||
            std::any_of(any.begin(), any.end(), [&](const Condition& c) { return holds(c, state, id); }));
}

void add_once(std::vector<std::string>& list, const std::vector<std::string>& more) {
    for (const std::string& name : more)
        if (std::find(list.begin(), list.end(), name) == list.end()) list.push_back(name);
}

}  // namespace

std::vector<std::string> switches_of(const Condition& condition) {
    std::vector<std::string> names;
    add_once(names, condition.switches);
    add_once(names, condition.switches_off);
    for (const Condition& c : condition.any_of) add_once(names, switches_of(c));
    return names;
}

std::vector<std::string> plan_switches(const Plan& plan) {
    std::vector<std::string> names;
    for (const Source& s : plan.sources) add_once(names, switches_of(s.works_when));
    for (const Inverter& i : plan.inverters) add_once(names, switches_of(i.works_when));
    for (const Point& p : plan.points) add_once(names, switches_of(p.awake_when));
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices) add_once(names, switches_of(d.closed_when));
    for (const Load& l : plan.loads) add_once(names, switches_of(l.live_when));
    for (const State& s : plan.states) add_once(names, s.switches);
    return names;
}

double length_or_assumed_m(const Run& run) {
    const auto known = length_of(run);
    return known ? *known : assumption("run_length_m").value;
}

double air_at(const Plan& plan, const Id& id, const State& state) {
    const Place* place = find(plan.places, id);
    if (!place) return state.ambient_C;
    if (place->air_C) return *place->air_C;
    return (place->engine_space ? state.engine_bay_C : state.ambient_C) + place->air_K.value_or(0);
}

int bundle_of(const Plan& plan, const Run& run) {
    // a bundle of one is what is usual, not what was said
    const int together = run.bundle > 1 ? run.bundle : run.laid.bundle;
    if (run.jacket.empty()) return together;
    const auto cores = std::count_if(plan.runs.begin(), plan.runs.end(),
                                     [&](const Run& r) { return r.jacket == run.jacket; });
    return std::max(together, static_cast<int>(cores));
}

const Channel* channel_of(const Plan& plan, const Run& run) {
    if (run.channel <= 0) return nullptr;
    const Point* box = find(plan.points, run.from);
    if (!box) return nullptr;
    for (const Channel& c : box->channels)
        if (c.number == run.channel) return &c;
    return nullptr;
}

const Device* find_device(const Plan& plan, const Id& id) {
    for (const Run& r : plan.runs)
        if (const Device* d = find(r.devices, id)) return d;
    return nullptr;
}

const Run* supply_run(const Plan& plan, const Id& load) {
    const Terminal pos = pos_of(load);
    for (const Run& r : plan.runs)
        if (r.to == pos || r.from == pos) return &r;
    return nullptr;
}

const State* find_state(const Plan& plan, std::string_view id_or_name) {
    for (const State& s : plan.states)
        if (s.id == id_or_name || s.name == id_or_name) return &s;
    return nullptr;
}

namespace {

template <class F>
void each_named(const Plan& plan, F&& use) {
    each_list(plan, [&](const auto& things) {
        for (const auto& x : things) use(x.id, x.name);
    });
    for (const auto& x : plan.panel) use(x.id, x.name);
    for (const auto& x : plan.accepted) use(x.id, x.name);
    for (const auto& x : plan.marks) use(x.id, x.name);
    for (const auto& x : plan.variants) use(x.id, x.name);
    for (const auto& x : plan.survey.points) use(x.id, x.name);
    for (const auto& x : plan.runs)
        for (const auto& d : x.devices) use(d.id, d.name);
}

}  // namespace

void each_id(const Plan& plan, const std::function<void(const Id&)>& use) {
    each_named(plan, [&](const Id& id, const std::string&) { use(id); });
}

Id new_id(const Plan& plan, std::string_view head) {
    std::unordered_set<std::string_view> taken;  // of that head alone
    each_named(plan, [&](const Id& id, const std::string&) {
        if (std::string_view(id).starts_with(head)) taken.insert(id);
    });
    for (int n = 1;; ++n) {
        Id id = std::string(head) + "-" + std::to_string(n);
        if (!taken.contains(id)) return id;
    }
}

std::string name_of(const Plan& plan, const Terminal& terminal) {
    return name_of(plan, terminal.owner);
}

std::string name_of(const Plan& plan, const Id& id) {
    std::string found(id);
    each_named(plan, [&](const Id& candidate, const std::string& name) {
        if (candidate == id && !name.empty()) found = name;
    });
    return found;
}

NameIndex::NameIndex(const Plan& plan) {
    each_named(plan, [&](const Id& id, const std::string& name) {
        if (!name.empty()) names_[id] = name;
    });
}

std::string NameIndex::of(const Id& id) const {
    const auto found = names_.find(id);
    return found == names_.end() ? std::string(id) : found->second;
}

std::vector<State> built_in_states() {
    std::vector<State> states(5);
    states[0] = {"state-off", "Key off", Key::off, 0, 20, 20, {}, {}};
    states[1] = {"state-accessory", "Accessory", Key::accessory, 0, 20, 20, {}, {}};
    states[2] = {"state-crank", "Cranking", Key::crank, 0, 20, 20, {}, {}};
    states[3] = {"state-idle", "Idling", Key::ignition, 800, 30, 85, {}, {}};
    states[4] = {"state-drive", "Driving", Key::ignition, 2000, 30, 70, {}, {}};
    states[3].role = StateRole::idling;
    states[4].role = StateRole::driving;
    return states;
}

Plan empty_plan(std::string name) {
    Plan plan;
    plan.vehicle.name = std::move(name);
    plan.vehicle.kind = "vehicle";
    plan.places = {
        {"place-bay", "engine bay", true}, {"place-cab", "cab", false}, {"place-rear", "rear", false}};
    Battery battery;
    battery.id = "battery-1";
    battery.name = "starter battery";
    battery.place = "place-bay";
    plan.batteries = {battery};
    Point body{"point-body", "body", PointKind::chassis, "place-cab", {}, {}, {}, false};
    Point bus{"point-bus", "battery bus", PointKind::bus, "place-bay", {}, {}, "battery-1.neg", true};
    plan.points = {bus, body};
    Run feed;
    feed.id = "run-1";
    feed.name = "battery to bus";
    feed.from = "battery-1.pos";
    feed.to = "point-bus";
    feed.length_m = 0.5;
    feed.size = WireSize::awg(-1);
    feed.places = {"place-bay"};
    feed.devices.push_back({"fuse-1", "main fuse", DeviceKind::fuse, 0.15, FuseType::bolt, 150, {}, {}});
    Run strap;
    strap.id = "run-2";
    strap.name = "ground strap";
    strap.from = "point-body";
    strap.to = "battery-1.neg";
    strap.length_m = 0.5;
    strap.size = WireSize::awg(-1);
    strap.places = {"place-bay"};
    plan.runs = {feed, strap};
    plan.states = built_in_states();
    return plan;
}

}  // namespace yr
