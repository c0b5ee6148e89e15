// One list of fields for each part of the plan, read by the JSON writer and the JSON reader alike, so that
// what is saved and what is loaded cannot drift apart. Order here is the order in the file.
#pragma once

#include <concepts>
#include <type_traits>

#include "plan/plan.h"

namespace yr {

template <class T, class U>
concept Part = std::same_as<std::remove_const_t<T>, U>;

template <class V, Part<Condition> T>
void fields(V&& v, T& x) {
    v("key", x.key);
    v("engine", x.engine);
    v("switches", x.switches);
}

template <class V, Part<Vehicle> T>
void fields(V&& v, T& x) {
    v("name", x.name);
    v("kind", x.kind);
    v("nominal_V", x.nominal_V);
    v("chassis", x.chassis);
}

template <class V, Part<Policy> T>
void fields(V&& v, T& x) {
    v("fuse_school", x.fuse_school);
    v("drop_critical", x.drop_critical);
    v("drop_other", x.drop_other);
    v("ampacity_table", x.ampacity_table);
    v("bundle_derating", x.bundle_derating);
    v("fuse_distance_m", x.fuse_distance_m);
    v("sizes", x.sizes);
    v("units", x.units);
}

template <class V, Part<Place> T>
void fields(V&& v, T& x) {
    v("id", x.id);
    v("name", x.name);
    v("engine_space", x.engine_space);
}

template <class V, Part<Point> T>
void fields(V&& v, T& x) {
    v("id", x.id);
    v("name", x.name);
    v("kind", x.kind);
    v("place", x.place);
    v("bonded_to", x.bonded_to);
    v("bond_ohm", x.bond_ohm);
    v("return_at", x.return_at);
    v("feeds_loads", x.feeds_loads);
}

template <class V, Part<Source> T>
void fields(V&& v, T& x) {
    v("id", x.id);
    v("name", x.name);
    v("kind", x.kind);
    v("place", x.place);
    v("return_at", x.return_at);
    v("rated_A", x.rated_A);
    v("idle_A", x.idle_A);
    v("curve", x.curve);
    v("pulley_ratio", x.pulley_ratio);
    v("regulated_V", x.regulated_V);
    v("droop_ohm", x.droop_ohm);
    v("efficiency", x.efficiency);
    v("standby_W", x.standby_W);
    v("works_when", x.works_when);
}

template <class V, Part<Battery> T>
void fields(V&& v, T& x) {
    v("id", x.id);
    v("name", x.name);
    v("chemistry", x.chemistry);
    v("place", x.place);
    v("nominal_V", x.nominal_V);
    v("capacity_Ah", x.capacity_Ah);
    v("cranking_A", x.cranking_A);
    v("R0_ohm", x.R0_ohm);
    v("charge", x.charge);
}

template <class V, Part<Draw> T>
void fields(V&& v, T& x) {
    v("kind", x.kind);
    v("value", x.value);
}

template <class V, Part<Load> T>
void fields(V&& v, T& x) {
    v("id", x.id);
    v("name", x.name);
    v("count", x.count);
    v("draw", x.draw);
    v("inrush_A", x.inrush_A);
    v("live_when", x.live_when);
    v("critical", x.critical);
    v("drop_limit", x.drop_limit);
    v("starter", x.starter);
    v("place", x.place);
    v("note", x.note);
}

template <class V, Part<Device> T>
void fields(V&& v, T& x) {
    v("id", x.id);
    v("name", x.name);
    v("kind", x.kind);
    v("at_m", x.at_m);
    if (x.kind == DeviceKind::fuse) {
        v("fuse", x.fuse);
        v("rating_A", x.rating_A);
    } else {
        v("closed_when", x.closed_when);
    }
    v("resistance_ohm", x.resistance_ohm);
}

template <class V, Part<Run> T>
void fields(V&& v, T& x) {
    v("id", x.id);
    v("name", x.name);
    v("from", x.from);
    v("to", x.to);
    v("length_m", x.length_m);
    v("size", x.size);
    v("material", x.material);
    v("insulation_C", x.insulation_C);
    v("parallel", x.parallel);
    v("bundle", x.bundle);
    v("places", x.places);
    v("resistance_ohm", x.resistance_ohm);
    v("body_metal", x.body_metal);
    v("devices", x.devices);
}

template <class V, Part<State> T>
void fields(V&& v, T& x) {
    v("id", x.id);
    v("name", x.name);
    v("key", x.key);
    v("rpm", x.rpm);
    v("ambient_C", x.ambient_C);
    v("engine_bay_C", x.engine_bay_C);
    v("charge", x.charge);
    v("switches", x.switches);
}

template <class V, Part<Plan> T>
void fields(V&& v, T& x) {
    v("vehicle", x.vehicle);
    v("policy", x.policy);
    v("places", x.places);
    v("points", x.points);
    v("sources", x.sources);
    v("batteries", x.batteries);
    v("runs", x.runs);
    v("loads", x.loads);
    v("states", x.states);
}

}  // namespace yr
