// The fields of each part of the plan, each declared once, in the order in which they stand in the file.
// Whoever needs all fields of a part calls fields() with a visitor: JSON, schema, ranges, forms, tables,
// random plans.
#pragma once

#include "plan/fields_geometry.h"
#include "plan/fields_shop.h"

namespace yr {

template <class V, PartOf<Condition> T>
void fields(V&& v, T& x) {
    v("key", x.key);
    v("engine", x.engine);
    v("switches", x.switches);
    v("switches_off", x.switches_off);
    v("not_cranking", x.not_cranking);
    v(F("charging_above_V").of(Dimension::voltage).range(0, 100), x.charging_above_V);
    v("circuits", x.circuits);
    v(F("delay_s").of(Dimension::time).range(0, 86400), x.delay_s);
    v("any_of", x.any_of);
    v(F("holds_s").of(Dimension::time).more_than(0, 86400).row("Stays for").when_open("drops at once"),
      x.holds_s);
    v(F("above_C").of(Dimension::temperature).range(-60, 200).row("Warmer than").when_open("no matter"),
      x.above_C);
    v(F("below_C").of(Dimension::temperature).range(-60, 200).row("Colder than").when_open("no matter"),
      x.below_C);
    v(F("within_K").more_than(0, 100).row("Back by, K").when_open("at once"), x.within_K);
    v(F("air").left_out_as_usual(), x.air);
}

template <class V, PartOf<Channel> T>
void fields(V&& v, T& x) {
    v(F("number").range(1, 999).needed(), x.number);
    v("label", x.label);
    v(F("rating_A").of(Dimension::current).more_than(0, 10000), x.rating_A);
    v(F("peak_A").of(Dimension::current).more_than(0, 10000), x.peak_A);
    v("group", x.group);
}

template <class V, PartOf<ChannelGroup> T>
void fields(V&& v, T& x) {
    v(F("name").needed(), x.name);
    v(F("limit_A").of(Dimension::current).more_than(0, 10000).needed(), x.limit_A);
}

template <class V, PartOf<PanelSwitch> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v("label", x.label);
}

template <class V, PartOf<Accepted> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v(F("kind").needed(), x.kind);
    v(F("about"), x.about);
    v(F("other"), x.other);
    v(F("state"), x.state);
    v(F("value"), x.value);
    v(F("limit"), x.limit);
    v(F("reason").needed(), x.reason);
    v(F("who"), x.who);
    v(F("when"), x.when);
}

template <class V, PartOf<Vehicle> T>
void fields(V&& v, T& x) {
    v(F("name").needed(), x.name);
    v("kind", x.kind);
    v(F("nominal_V").of(Dimension::voltage).rail_volts().needed(), x.nominal_V);
    v("chassis", x.chassis);
    v(F("outline").left_out_as_usual(), x.outline);
    v(F("long_m").more_than(0, 40).row("Long, m").when_open("as usual"), x.long_m);
    v(F("wide_m").more_than(0, 10).row("Wide, m").when_open("as usual"), x.wide_m);
    v(F("high_m").more_than(0, 10).row("High, m").when_open("as usual"), x.high_m);
    v(F("wheelbase_m").more_than(0, 30).row("Axles apart, m").when_open("as usual"), x.wheelbase_m);
    v(F("nose_m").range(0, 10).row("Ahead of the front axle, m").when_open("as usual"), x.nose_m);
    v("picture", x.picture);
    v(F("picture_m").more_than(0, 1).row("Metres a pixel").when_open("not scaled"), x.picture_m);
    v(F("picture_x_m").range(-40, 60).row("Picture begins at x, m").when_open("at its front"), x.picture_x_m);
    v(F("picture_y_m").range(-20, 20).row("Picture begins at y, m").when_open("at its left"), x.picture_y_m);
    v("customer", x.customer);
    v("registration", x.registration);
    v("job_date", x.job_date);
}

template <class V, PartOf<Place> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v("engine_space", x.engine_space);
    stand_fields(v, x.at);
    v(F("long_m").more_than(0, 40).row("Long, m").when_open("no room of its own"), x.long_m);
    v(F("wide_m").more_than(0, 10).row("Wide, m").when_open("no room of its own"), x.wide_m);
    v(F("high_m").more_than(0, 10).row("High, m").when_open("no room of its own"), x.high_m);
    v(F("air_K").range(-60, 120).row("Hotter than the rest, K").when_open("as the rest"), x.air_K);
    v(F("air_C").of(Dimension::temperature).range(-60, 200).row("Always at").when_open("as the state says"),
      x.air_C);
    v("wet", x.wet);
    v(F("hazard").left_out_as_usual(), x.hazard);
    v("people", x.people);
    v("cold_air", x.cold_air);
    v("mounting", x.mounting);
    remark_fields(v, x.remarks);
}

template <class V, PartOf<Point> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v(F("kind").needed(), x.kind);
    v("place", x.place);
    v("bonded_to", x.bonded_to);
    v(F("bond_ohm").of(Dimension::resistance).range(1e-7, 1000).row("Bond").when_open("assumed 1 mΩ"),
      x.bond_ohm);
    v("return_at", x.return_at);
    v("feeds_loads", x.feeds_loads);
    v("channels", x.channels);
    v("groups", x.groups);
    v(F("main_A").of(Dimension::current).more_than(0, 10000).row("Main carries").when_open("not said"),
      x.main_A);
    v(F("standby_W").of(Dimension::power).range(0, 1000).row("Takes itself").when_open("nothing"),
      x.standby_W);
    v(F("output").left_out_as_usual(), x.output);
    v(F("remembers").usually_yes(), x.remembers);
    v(F("stud_mm").range(2, 30).row("Bolt, M").when_open("not said"), x.stud_mm);
    v(F("most_mm2").of(Dimension::area).more_than(0, 1000).row("Takes cable up to").when_open("any"),
      x.most_mm2);
    v(F("most_lugs").range(1, 20).row("Lugs at most").when_open("assumed 4").assumed("most_lugs"),
      x.most_lugs);
    v(F("metal").left_out_as_usual(), x.metal);
    v(F("apart_mm").more_than(0, 1000).row("Poles apart, mm").when_open("not measured"), x.apart_mm);
    v("sealed", x.sealed);
    v(F("sleep_W").of(Dimension::power).range(0, 1000).row("Asleep it takes").when_open("as awake"),
      x.sleep_W);
    v(F("awake_when").left_out_as_usual(), x.awake_when);
    v(F("cutoff_V").of(Dimension::voltage).range(0, 100).row("Cuts off below").when_open("never"),
      x.cutoff_V);
    v(F("recover_V").of(Dimension::voltage).range(0, 100).row("and close from").when_open("1 V above"),
      x.recover_V);
    v(F("cutoff_s").of(Dimension::time).range(0, 86400).row("after so long").when_open("at once"),
      x.cutoff_s);
    stand_fields(v, x.at);
    remark_fields(v, x.remarks);
}

template <class V, PartOf<Source> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v(F("kind").needed(), x.kind);
    v("place", x.place);
    v(F("return_at").needed(), x.return_at);
    v(F("rated_A").of(Dimension::current).more_than(0, 2000).row("Rated").when_open("assumed 90 A"),
      x.rated_A);
    v(F("idle_A").of(Dimension::current).range(0, 2000).row("At idle speed").when_open("half of rated"),
      x.idle_A);
    v("curve", x.curve);
    v(F("pulley_ratio")
          .more_than(0, 20)
          .row("Pulley ratio")
          .when_open("assumed 2.7")
          .assumed("alternator_pulley_ratio"),
      x.pulley_ratio);
    v(F("regulated_V")
          .of(Dimension::voltage)
          .range(5, 70)
          .row("Regulated to")
          .when_open("assumed 14.2 V")
          .assumed("regulated_V"),
      x.regulated_V);
    v(F("droop_ohm").of(Dimension::resistance).range(1e-7, 1000).row("Droop").when_open("assumed 4 mΩ"),
      x.droop_ohm);
    v(F("efficiency").of(Dimension::fraction).range(0.3, 1).row("Efficiency").when_open("assumed 90 %"),
      x.efficiency);
    v(F("standby_W").of(Dimension::power).range(0, 500).row("Standby").when_open("none"), x.standby_W);
    v("works_when", x.works_when);
    v(F("least_V").of(Dimension::voltage).range(5, 70).row("Down to").when_open("never less"), x.least_V);
    v("winding", x.winding);
    v(F("share").of(Dimension::fraction).range(0, 1).row("Its share").when_open("all of the winding"),
      x.share);
    v(F("regulator_A").of(Dimension::current).more_than(0, 2000).row("Regulator").when_open("passes all"),
      x.regulator_A);
    v(F("panel_W")
          .of(Dimension::power)
          .more_than(0, 100000)
          .row("Panel")
          .when_open("assumed 100 W")
          .assumed("solar_panel_W"),
      x.panel_W);
    v("charges", x.charges);
    v(F("float_V").of(Dimension::voltage).range(5, 70).row("Floats at").when_open("no float"), x.float_V);
    v(F("enable_on_V").of(Dimension::voltage).range(0, 100).row("Starts from").when_open("any volts"),
      x.enable_on_V);
    v(F("enable_off_V").of(Dimension::voltage).range(0, 100).row("Stops below").when_open("never"),
      x.enable_off_V);
    v(F("surge_A").of(Dimension::current).more_than(0, 5000).row("For a moment").when_open("no more"),
      x.surge_A);
    v(F("stays_charged_s").of(Dimension::time).range(0, 86400).row("Stays charged").when_open("not at all"),
      x.stays_charged_s);
    v(F("stud_mm").range(2, 30).row("Bolt, M").when_open("not said"), x.stud_mm);
    v(F("price").range(0, 1e7).row("Price").when_open("not set"), x.price);
    stand_fields(v, x.at);
    remark_fields(v, x.remarks);
}

template <class V, PartOf<Inverter> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v("place", x.place);
    v(F("continuous_W")
          .of(Dimension::power)
          .more_than(0, 50000)
          .row("For long")
          .when_open("assumed 1000 W")
          .assumed("inverter_continuous_W"),
      x.continuous_W);
    v(F("surge_W").of(Dimension::power).more_than(0, 100000).row("For a moment").when_open("no more"),
      x.surge_W);
    v("waveform", x.waveform);
    v(F("efficiency")
          .of(Dimension::fraction)
          .range(0.3, 1)
          .row("Efficiency")
          .when_open("assumed 88 %")
          .assumed("inverter_efficiency"),
      x.efficiency);
    v("curve", x.curve);
    v(F("standby_W")
          .of(Dimension::power)
          .range(0, 500)
          .row("Standby")
          .when_open("assumed 8 W")
          .assumed("inverter_standby_W"),
      x.standby_W);
    v(F("cutoff_V").of(Dimension::voltage).range(0, 100).row("Stops below").when_open("never"), x.cutoff_V);
    v(F("recover_V").of(Dimension::voltage).range(0, 100).row("Starts again").when_open("1 V above"),
      x.recover_V);
    v(F("mains_V").of(Dimension::voltage).range(50, 480), x.mains_V);
    v("works_when", x.works_when);
    v(F("price").range(0, 1e7).row("Price").when_open("not set"), x.price);
    v(F("off_W").of(Dimension::power).range(0, 500).row("Switched off").when_open("takes nothing"), x.off_W);
    v(F("apart_mm").more_than(0, 1000).row("Poles apart, mm").when_open("not measured"), x.apart_mm);
    stand_fields(v, x.at);
    remark_fields(v, x.remarks);
}

template <class V, PartOf<Battery> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v("chemistry", x.chemistry);
    v("place", x.place);
    v(F("nominal_V").of(Dimension::voltage).range(6, 60), x.nominal_V);
    v(F("capacity_Ah")
          .of(Dimension::charge)
          .more_than(0, 5000)
          .row("Capacity")
          .when_open("assumed 70 Ah")
          .assumed("battery_capacity_Ah"),
      x.capacity_Ah);
    v(F("cranking_A").of(Dimension::current).more_than(0, 5000).row("Cranking").when_open("not known"),
      x.cranking_A);
    v(F("R0_ohm")
          .of(Dimension::resistance)
          .range(1e-7, 1000)
          .row("R0, warm")
          .when_open("from cranking or capacity"),
      x.R0_ohm);
    v(F("charge")
          .of(Dimension::fraction)
          .range(0, 1)
          .row("Charge")
          .when_open("assumed 80 %")
          .assumed("battery_charge"),
      x.charge);
    v(F("cranking_standard").left_out_as_usual(), x.cranking_standard);
    v(F("reserve_min").more_than(0, 5000).row("Reserve, min").when_open("not known"), x.reserve_min);
    v(F("health").of(Dimension::fraction).range(0.05, 1).row("Left by age").when_open("as new"), x.health);
    v(F("peukert").range(1, 2).row("Peukert").when_open("by chemistry"), x.peukert);
    v(F("charge_most_V").of(Dimension::voltage).range(5, 80).row("Charge at most").when_open("by chemistry"),
      x.charge_most_V);
    v(F("price").range(0, 1e7).row("Price").when_open("not set"), x.price);
    v(F("stud_mm").range(2, 30).row("Bolts, M").when_open("not said"), x.stud_mm);
    v(F("cuts_at_A").of(Dimension::current).more_than(0, 100000).row("Cuts itself off at").when_open("never"),
      x.cuts_at_A);
    v(F("apart_mm").more_than(0, 1000).row("Posts apart, mm").when_open("not measured"), x.apart_mm);
    v(F("charge_efficiency")
          .of(Dimension::fraction)
          .range(0.3, 1)
          .row("Gives back")
          .when_open("by its chemistry"),
      x.charge_efficiency);
    v(F("self_discharge")
          .of(Dimension::fraction)
          .range(0, 1)
          .row("Loses a month")
          .when_open("by its chemistry"),
      x.self_discharge);
    v(F("rc1_ohm").of(Dimension::resistance).range(0, 100), x.rc1_ohm);
    v(F("rc1_s").of(Dimension::time).more_than(0, 1e6), x.rc1_s);
    v(F("rc2_ohm").of(Dimension::resistance).range(0, 100), x.rc2_ohm);
    v(F("rc2_s").of(Dimension::time).more_than(0, 1e6), x.rc2_s);
    v("cycle_life", x.cycle_life);
    stand_fields(v, x.at);
    remark_fields(v, x.remarks);
}

template <class V, PartOf<Draw> T>
void fields(V&& v, T& x) {
    v(F("kind").needed(), x.kind);
    v(F("value").more_than(0, 1000000).needed(), x.value);
}

template <class V, PartOf<Load> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v(F("count").range(1, 999), x.count);
    v(F("draw").needed(), x.draw);
    v(F("inrush_A").of(Dimension::current).more_than(0, 10000), x.inrush_A);
    v("live_when", x.live_when);
    v("critical", x.critical);
    v(F("drop_limit").of(Dimension::fraction).range(0, 1).row("Own drop limit").when_open("by policy"),
      x.drop_limit);
    v("starter", x.starter);
    v("place", x.place);
    v("inverter", x.inverter);
    v(F("power_factor").range(0.05, 1).row("Power factor").when_open("assumed 1"), x.power_factor);
    v(F("start_W").of(Dimension::power).more_than(0, 100000).row("At start, each").when_open("no more"),
      x.start_W);
    v("needs_pure_sine", x.needs_pure_sine);
    v(F("least_V").of(Dimension::voltage).range(0, 100).row("Works from").when_open("by its code"),
      x.least_V);
    v(F("most_V").of(Dimension::voltage).range(0, 100).row("Bears").when_open("by its code"), x.most_V);
    v(F("supply_code").left_out_as_usual(), x.supply_code);
    v("line_curve", x.line_curve);
    v(F("line_load").of(Dimension::fraction).range(0, 2).row("Pull").when_open("rated"), x.line_load);
    v(F("inrush_s").of(Dimension::time).more_than(0, 3600).row("Start lasts").when_open("not known"),
      x.inrush_s);
    v(F("duty").of(Dimension::fraction).more_than(0, 1).row("Runs a share of").when_open("all the time"),
      x.duty);
    v(F("duty_per_K").range(0, 0.2).row("More a kelvin of heat").when_open("the same in any heat"),
      x.duty_per_K);
    v(F("plate_V").of(Dimension::voltage).more_than(0, 400), x.plate_V);
    v(F("own_switch").usually_yes(), x.own_switch);
    v("together", x.together);
    v("apart", x.apart);
    v("pinned", x.pinned);
    v("own_ground", x.own_ground);
    v(F("signal_after_s")
          .of(Dimension::time)
          .range(0, 3600)
          .row("Signal comes after")
          .when_open("wants none"),
      x.signal_after_s);
    v("typical", x.typical);
    v(F("draw_least").more_than(0, 1000000).row("Or as little as").when_open("no range"), x.draw_least);
    v(F("on_s").of(Dimension::time).more_than(0, 1000000).row("Runs at most").when_open("for ever"), x.on_s);
    v("start", x.start);
    v("later", x.later);
    v(F("store_Wh").more_than(0, 1000000).row("Holds, Wh").when_open("stores nothing"), x.store_Wh);
    v(F("store_efficiency")
          .of(Dimension::fraction)
          .range(0.3, 1)
          .row("Charge kept")
          .when_open("assumed 85 %")
          .assumed("store_efficiency"),
      x.store_efficiency);
    v(F("socket_W").of(Dimension::power).more_than(0, 100000).row("DC outlets give").when_open("not said"),
      x.socket_W);
    v(F("mains_W").of(Dimension::power).more_than(0, 100000).row("Mains gives").when_open("has none"),
      x.mains_W);
    v(F("mains_efficiency")
          .of(Dimension::fraction)
          .range(0.3, 1)
          .row("Efficiency")
          .when_open("assumed 88 %")
          .assumed("inverter_efficiency"),
      x.mains_efficiency);
    stand_fields(v, x.at);
    remark_fields(v, x.remarks);
}

template <class V, PartOf<Device> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v(F("kind").needed(), x.kind);
    v(F("at_m").of(Dimension::length).range(0, 200), x.at_m);
    if (kEveryField<V> || x.kind == DeviceKind::fuse) {
        v("fuse", x.fuse);
        v(F("rating_A").of(Dimension::current).more_than(0, 2000), x.rating_A);
    }
    if (kEveryField<V> || x.kind == DeviceKind::diode) {
        v(F("forward_V")
              .of(Dimension::voltage)
              .range(0, 5)
              .row("Forward volts")
              .when_open("assumed 0.7 V")
              .assumed("diode_V"),
          x.forward_V);
    }
    if (kEveryField<V> || (x.kind != DeviceKind::diode && x.kind != DeviceKind::shunt))
        v(x.kind == DeviceKind::fuse ? F("closed_when").left_out_as_usual() : F("closed_when"),
          x.closed_when);
    if (kEveryField<V> || x.kind == DeviceKind::shunt) v("measures", x.measures);
    if (kEveryField<V> ||
        (x.kind != DeviceKind::fuse && x.kind != DeviceKind::diode && x.kind != DeviceKind::shunt)) {
        v(F("close_V").of(Dimension::voltage).range(0, 100).row("Closes from").when_open("assumed 13.3 V"),
          x.close_V);
        v(F("open_V").of(Dimension::voltage).range(0, 100).row("Opens below").when_open("assumed 12.8 V"),
          x.open_V);
        v(F("delay_s").of(Dimension::time).range(0, 86400).row("Waits").when_open("not at all"), x.delay_s);
        v(F("senses").left_out_as_usual(), x.senses);
        v("coil", x.coil);
        v("master", x.master);
        v(F("contact_A")
              .of(Dimension::current)
              .more_than(0, 10000)
              .row("Contacts carry")
              .when_open("not said"),
          x.contact_A);
        v(F("suppression").left_out_as_usual(), x.suppression);
        v("grounds_without", x.grounds_without);
        v("rests_closed", x.rests_closed);
        v("latching", x.latching);
        v(F("pulse_share").of(Dimension::fraction).more_than(0, 1).row("On for").when_open("without pauses"),
          x.pulse_share);
        v("pulse_curve", x.pulse_curve);
        v(F("pulse_s").of(Dimension::time).more_than(0, 3600).row("Pulse and pause").when_open("short"),
          x.pulse_s);
        v(F("signal").left_out_as_usual(), x.signal);
    }
    v(F("resistance_ohm").of(Dimension::resistance).range(1e-7, 1000), x.resistance_ohm);
}

template <class V, PartOf<RunEnd> T>
void fields(V&& v, T& x) {
    v(F("kind").left_out_as_usual(), x.kind);
    v(F("angle_deg").range(0, 90), x.angle_deg);
    v("boot", x.boot);
    v("doubled", x.doubled);
}

template <class V, PartOf<Mark> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v(F("about").needed(), x.about);
    v("who", x.who);
    v("when", x.when);
    v("note", x.note);
    v("photo", x.photo);
}

template <class V, PartOf<Run> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v(F("from").needed(), x.from);
    v(F("to").needed(), x.to);
    v(F("length_m").of(Dimension::length).more_than(0, 200).assumed("run_length_m"), x.length_m);
    v("size", x.size);
    v("material", x.material);
    v(F("insulation_C").of(Dimension::temperature).range(60, 250), x.insulation_C);
    v(F("parallel").range(1, 20), x.parallel);
    v(F("bundle").range(1, 200), x.bundle);
    v("places", x.places);
    v(F("resistance_ohm").of(Dimension::resistance).range(1e-7, 1000), x.resistance_ohm);
    v("body_metal", x.body_metal);
    v("devices", x.devices);
    v(F("channel").range(0, 999).left_out_as_usual(), x.channel);
    v("tap_of", x.tap_of);
    v(F("length_least_m").of(Dimension::length).more_than(0, 200).row("Or as short as").when_open("no range"),
      x.length_least_m);
    v("pinned", x.pinned);
    v(F("lug_from_mm").range(2, 30).row("Lug at its start, M").when_open("as its bolt"), x.lug_from_mm);
    v(F("lug_to_mm").range(2, 30).row("Lug at its end, M").when_open("as its bolt"), x.lug_to_mm);
    v(F("bend_mm").more_than(0, 2000).row("Tightest bend, mm").when_open("none tight"), x.bend_mm);
    v("pins", x.pins);
    v("jacket", x.jacket);
    v("via", x.via);
    v("number", x.number);
    v("colour", x.colour);
    v(F("end_from").left_out_as_usual(), x.end_from);
    v(F("end_to").left_out_as_usual(), x.end_to);
    remark_fields(v, x.remarks);
}

template <class V, PartOf<PinUse> T>
void fields(V&& v, T& x) {
    v(F("connector").needed(), x.connector);
    v(F("pin").range(1, 999).needed(), x.pin);
    v(F("at_m").of(Dimension::length).range(0, 200), x.at_m);
}

template <class V, PartOf<Connector> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v("place", x.place);
    v("socket", x.socket);
    v(F("pins").range(1, 999).row("Pins").when_open("as its socket"), x.pins);
    v(F("rows").range(1, 20).row("Rows of pins").when_open("one up to 4 pins, then two"), x.rows);
    v(F("contact_mm").more_than(0, 30).row("Contacts, mm").when_open("not said"), x.contact_mm);
    v(F("pin_A").of(Dimension::current).more_than(0, 1000).row("A pin carries").when_open("by its width"),
      x.pin_A);
    v(F("contact_ohm")
          .of(Dimension::resistance)
          .range(1e-7, 10)
          .row("Contact pair")
          .when_open("by its width"),
      x.contact_ohm);
    v("sealed", x.sealed);
    v(F("limit_C")
          .of(Dimension::temperature)
          .range(40, 250)
          .row("Bears up to")
          .when_open("assumed 105 °C")
          .assumed("contact_limit_C"),
      x.limit_C);
    v("mates_with", x.mates_with);
    remark_fields(v, x.remarks);
}

template <class V, PartOf<Jacket> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v(F("cores").range(1, 200).row("Cores").when_open("as many as are used"), x.cores);
    v(F("outer_mm").more_than(0, 200).row("Diameter, mm").when_open("not said"), x.outer_mm);
    remark_fields(v, x.remarks);
}

template <class V, PartOf<State> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v(F("key").needed(), x.key);
    v("role", x.role);
    v(F("lasts_s").of(Dimension::time).more_than(0, 86400), x.lasts_s);
    v(F("rpm").of(Dimension::speed).range(0, 20000), x.rpm);
    v(F("ambient_C").of(Dimension::temperature).range(-60, 150), x.ambient_C);
    v(F("engine_bay_C").of(Dimension::temperature).range(-60, 150), x.engine_bay_C);
    v(F("charge").of(Dimension::fraction).range(0, 1), x.charge);
    v("switches", x.switches);
    v(F("sun").of(Dimension::fraction).range(0, 1.5).left_out_as_usual(), x.sun);
    v(F("line_load").of(Dimension::fraction).range(0, 2), x.line_load);
    v("closed", x.closed);
    v("opened", x.opened);
    v("pulled", x.pulled);
    v("left", x.left);
    remark_fields(v, x.remarks);
}

template <class V, PartOf<DayPart> T>
void fields(V&& v, T& x) {
    v(F("state").needed(), x.state);
    v(F("length_s").of(Dimension::time).more_than(0, 31622400).needed(), x.length_s);
    v(F("times").range(1, 1000).left_out_as_usual(), x.times);
    v(F("within").left_out_as_usual(), x.within);
    v(F("rpm").of(Dimension::speed).range(0, 20000), x.rpm);
    v(F("line_load").of(Dimension::fraction).range(0, 2), x.line_load);
}

template <class V, PartOf<Month> T>
void fields(V&& v, T& x) {
    v(F("coldest_C").of(Dimension::temperature).range(-70, 60).needed(), x.coldest_C);
    v(F("hottest_C").of(Dimension::temperature).range(-70, 70).needed(), x.hottest_C);
    v(F("sun_h").range(0, 24).needed(), x.sun_h);
}

template <class V, PartOf<Day> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v("parts", x.parts);
    v(F("begins_h").range(0, 24).left_out_as_usual(), x.begins_h);
    v(F("coldest_C")
          .of(Dimension::temperature)
          .range(-70, 60)
          .row("Coldest hour")
          .when_open("as the states say"),
      x.coldest_C);
    v(F("hottest_C")
          .of(Dimension::temperature)
          .range(-70, 70)
          .row("Hottest hour")
          .when_open("as the states say"),
      x.hottest_C);
    v(F("sun_h").range(0, 24).row("Hours of full sun").when_open("as the states say"), x.sun_h);
    v(F("latitude_deg").range(-90, 90).row("Latitude, degrees").when_open("not said"), x.latitude_deg);
    v(F("date").range(1, 366).row("Day of the year").when_open("not said"), x.date);
    v(F("cloud").of(Dimension::fraction).range(0, 1).row("Taken by cloud").when_open("none"), x.cloud);
    v("months", x.months);
    remark_fields(v, x.remarks);
}

template <class V, PartOf<Variant> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    each_list([&](const auto& list) { v(Field(list.key, false), x.*list.in_variant); });
    v("removed", x.removed);
}

template <class V, PartOf<SurveyPoint> T>
void fields(V&& v, T& x) {
    v(F("id").needed(), x.id);
    v(F("name").needed(), x.name);
    v(F("kind").needed(), x.kind);
    v("terminal", x.terminal);
}

template <class V, PartOf<SurveyReading> T>
void fields(V&& v, T& x) {
    v(F("point").needed(), x.point);
    v(F("key").needed(), x.key);
    v("drawn_at", x.drawn_at);
    v(F("volts_V").of(Dimension::voltage).range(-100, 100).needed(), x.volts_V);
}

template <class V, PartOf<Survey> T>
void fields(V&& v, T& x) {
    v("points", x.points);
    v("readings", x.readings);
}

template <class V, PartOf<Plan> T>
void fields(V&& v, T& x) {
    v(F("vehicle").needed(), x.vehicle);
    v("policy", x.policy);
    each_list([&](const auto& list) { v(Field(list.key, list.needed), x.*list.in_plan); });
    v("panel", x.panel);
    v("marks", x.marks);
    v("accepted", x.accepted);
    v("variants", x.variants);
    v("active", x.active);
    v("survey", x.survey);
}

// What is described above: any part of the plan that has fields of its own.
template <class T>
concept HasFields = requires(T& x) {
    fields([](const Field&, auto&) {}, x);
};

}  // namespace yr
