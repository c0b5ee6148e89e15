// The fields of how a shop works: its rules, stock, prices, times, torques and meter. For plan_fields.h.
#pragma once

#include "plan/part_names.h"

namespace yr {

template <class V, PartOf<Stock> T>
void fields(V&& v, T& x) {
    v(F("size").needed(), x.size);
    v(F("length_m").of(Dimension::length).more_than(0, 200).needed(), x.length_m);
    v(F("price").range(0, 1e7), x.price);
}

template <class V, PartOf<Price> T>
void fields(V&& v, T& x) {
    v(F("part").needed(), x.part);
    v(F("each").range(0, 1e7), x.each);
    v(F("pack").more_than(0, 1e5).left_out_as_usual(), x.pack);
    v("supplier", x.supplier);
    v("dated", x.dated);
    v("brought", x.brought);
}

template <class V, PartOf<TaskTime> T>
void fields(V&& v, T& x) {
    v(F("task").needed(), x.task);
    v(F("minutes").range(0, 1e4).needed(), x.minutes);
}

template <class V, PartOf<Torque> T>
void fields(V&& v, T& x) {
    v(F("thread_mm").range(2, 30).needed(), x.thread_mm);
    v(F("torque_Nm").more_than(0, 500).needed(), x.torque_Nm);
}

template <class V, PartOf<FaultWeight> T>
void fields(V&& v, T& x) {
    v(F("fault").needed(), x.fault);
    v(F("weight").more_than(0, 1000).needed(), x.weight);
}

template <class V, PartOf<MeterKind> T>
void fields(V&& v, T& x) {
    v("name", x.name);
    v(F("gain").of(Dimension::fraction).range(0, 0.2).assumed("meter_gain"), x.gain);
    v(F("digits").range(0, 100).assumed("meter_digits"), x.digits);
    v(F("lead_ohm").of(Dimension::resistance).range(0, 10).assumed("meter_lead_ohm"), x.lead_ohm);
}

template <class V, PartOf<Policy> T>
void fields(V&& v, T& x) {
    v("fuse_school", x.fuse_school);
    v(F("drop_critical").of(Dimension::fraction).range(0, 1), x.drop_critical);
    v(F("drop_other").of(Dimension::fraction).range(0, 1), x.drop_other);
    v("ampacity_table", x.ampacity_table);
    v(F("bundle_derating").usually_yes(), x.bundle_derating);
    v(F("fuse_distance_m").of(Dimension::length).more_than(0, 200), x.fuse_distance_m);
    v("sizes", x.sizes);
    v("units", x.units);
    v(F("copper_price_per_kg").range(0, 1e7), x.copper_price_per_kg);
    v("stock", x.stock);
    v(F("air_K").range(0, 60), x.air_K);
    v(F("joint_ageing").range(1, 100), x.joint_ageing);
    v("rolls", x.rolls);
    v(F("slack_m").of(Dimension::length).range(0, 5).assumed("slack_m"), x.slack_m);
    v(F("slack_share").of(Dimension::fraction).range(0, 1).assumed("slack_share"), x.slack_share);
    v(F("exhaust_m").of(Dimension::length).range(0, 2).assumed("exhaust_m"), x.exhaust_m);
    v(F("rate_h").range(0, 1e7), x.rate_h);
    v(F("travel").range(0, 1e7), x.travel);
    v(F("consumables").of(Dimension::fraction).range(0, 1), x.consumables);
    v(F("margin").of(Dimension::fraction).range(0, 5), x.margin);
    v(F("tax").of(Dimension::fraction).range(0, 1), x.tax);
    v("prices", x.prices);
    v("tasks", x.tasks);
    v("torques", x.torques);
    v(F("faults").left_out_as_usual(), x.faults);
    v(F("meter").left_out_as_usual(), x.meter);
}

}  // namespace yr
