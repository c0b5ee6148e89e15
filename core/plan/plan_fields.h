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
    v("switches_off", x.switches_off);
    v("not_cranking", x.not_cranking);
    v("charging_above_V", x.charging_above_V);
    v("circuits", x.circuits);
    v("delay_s", x.delay_s);
    v("any_of", x.any_of);
}

template <class V, Part<Channel> T>
void fields(V&& v, T& x) {
    v("number", x.number);
    v("label", x.label);
    v("rating_A", x.rating_A);
    v("peak_A", x.peak_A);
    v("group", x.group);
}

template <class V, Part<ChannelGroup> T>
void fields(V&& v, T& x) {
    v("name", x.name);
    v("limit_A", x.limit_A);
}

template <class V, Part<PanelSwitch> T>
void fields(V&& v, T& x) {
    v("id", x.id);
    v("name", x.name);
    v("label", x.label);
}

template <class V, Part<Vehicle> T>
void fields(V&& v, T& x) {
    v("name", x.name);
    v("kind", x.kind);
    v("nominal_V", x.nominal_V);
    v("chassis", x.chassis);
}

template <class V, Part<Stock> T>
void fields(V&& v, T& x) {
    v("size", x.size);
    v("length_m", x.length_m);
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
    v("copper_price_per_kg", x.copper_price_per_kg);
    v("stock", x.stock);
    v("air_K", x.air_K);
    v("joint_ageing", x.joint_ageing);
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
    v("channels", x.channels);
    v("groups", x.groups);
    v("main_A", x.main_A);
    v("standby_W", x.standby_W);
    v("output", x.output);
    v("remembers", x.remembers);
    v("stud_mm", x.stud_mm);
    v("most_mm2", x.most_mm2);
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
    v("least_V", x.least_V);
    v("winding", x.winding);
    v("share", x.share);
    v("regulator_A", x.regulator_A);
    v("panel_W", x.panel_W);
    v("charges", x.charges);
    v("float_V", x.float_V);
    v("enable_on_V", x.enable_on_V);
    v("enable_off_V", x.enable_off_V);
    v("surge_A", x.surge_A);
    v("stays_charged_s", x.stays_charged_s);
    v("stud_mm", x.stud_mm);
    v("price", x.price);
}

template <class V, Part<Inverter> T>
void fields(V&& v, T& x) {
    v("id", x.id);
    v("name", x.name);
    v("place", x.place);
    v("continuous_W", x.continuous_W);
    v("surge_W", x.surge_W);
    v("waveform", x.waveform);
    v("efficiency", x.efficiency);
    v("curve", x.curve);
    v("standby_W", x.standby_W);
    v("cutoff_V", x.cutoff_V);
    v("recover_V", x.recover_V);
    v("mains_V", x.mains_V);
    v("works_when", x.works_when);
    v("price", x.price);
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
    v("cranking_standard", x.cranking_standard);
    v("reserve_min", x.reserve_min);
    v("health", x.health);
    v("peukert", x.peukert);
    v("charge_most_V", x.charge_most_V);
    v("price", x.price);
    v("stud_mm", x.stud_mm);
    v("cuts_at_A", x.cuts_at_A);
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
    v("inverter", x.inverter);
    v("power_factor", x.power_factor);
    v("start_W", x.start_W);
    v("needs_pure_sine", x.needs_pure_sine);
    v("least_V", x.least_V);
    v("most_V", x.most_V);
    v("supply_code", x.supply_code);
    v("line_curve", x.line_curve);
    v("line_load", x.line_load);
    v("inrush_s", x.inrush_s);
    v("duty", x.duty);
    v("plate_V", x.plate_V);
    v("own_switch", x.own_switch);
    v("together", x.together);
    v("apart", x.apart);
    v("pinned", x.pinned);
    v("own_ground", x.own_ground);
    v("signal_after_s", x.signal_after_s);
    v("typical", x.typical);
    v("draw_least", x.draw_least);
    v("on_s", x.on_s);
    v("start", x.start);
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
    } else if (x.kind == DeviceKind::diode) {
        v("forward_V", x.forward_V);
    } else {
        v("closed_when", x.closed_when);
        v("close_V", x.close_V);
        v("open_V", x.open_V);
        v("delay_s", x.delay_s);
        v("senses", x.senses);
        v("coil", x.coil);
        v("master", x.master);
        v("contact_A", x.contact_A);
        v("suppression", x.suppression);
        v("grounds_without", x.grounds_without);
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
    v("channel", x.channel);
    v("tap_of", x.tap_of);
    v("length_least_m", x.length_least_m);
    v("pinned", x.pinned);
    v("lug_from_mm", x.lug_from_mm);
    v("lug_to_mm", x.lug_to_mm);
    v("bend_mm", x.bend_mm);
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
    v("sun", x.sun);
    v("line_load", x.line_load);
    v("closed", x.closed);
    v("opened", x.opened);
    v("pulled", x.pulled);
}

template <class V, Part<Variant> T>
void fields(V&& v, T& x) {
    v("id", x.id);
    v("name", x.name);
    v("places", x.places);
    v("points", x.points);
    v("sources", x.sources);
    v("batteries", x.batteries);
    v("inverters", x.inverters);
    v("runs", x.runs);
    v("loads", x.loads);
    v("states", x.states);
    v("removed", x.removed);
}

template <class V, Part<SurveyPoint> T>
void fields(V&& v, T& x) {
    v("id", x.id);
    v("name", x.name);
    v("kind", x.kind);
    v("terminal", x.terminal);
}

template <class V, Part<SurveyReading> T>
void fields(V&& v, T& x) {
    v("point", x.point);
    v("key", x.key);
    v("drawn_at", x.drawn_at);
    v("volts_V", x.volts_V);
}

template <class V, Part<Survey> T>
void fields(V&& v, T& x) {
    v("points", x.points);
    v("readings", x.readings);
}

template <class V, Part<Plan> T>
void fields(V&& v, T& x) {
    v("vehicle", x.vehicle);
    v("policy", x.policy);
    v("places", x.places);
    v("points", x.points);
    v("sources", x.sources);
    v("batteries", x.batteries);
    v("inverters", x.inverters);
    v("runs", x.runs);
    v("loads", x.loads);
    v("states", x.states);
    v("panel", x.panel);
    v("variants", x.variants);
    v("active", x.active);
    v("survey", x.survey);
}

}  // namespace yr
