// What the parts of the plan are called in the schema and in tables, and what visitors of their fields may
// ask. For plan_fields.h.
#pragma once

#include <concepts>
#include <type_traits>

#include "plan/field.h"
#include "plan/lists.h"

namespace yr {

template <class T, class U>
concept PartOf = std::same_as<std::remove_const_t<T>, U>;

// Visitors that want every field, whatever the kind of thing says which of them apply, declare
// `static constexpr bool every_field = true`.
template <class V>
inline constexpr bool kEveryField = requires {
    requires std::remove_reference_t<V>::every_field;
};

using F = Field;

// What each part is called in the schema and in tables.
template <class T>
inline constexpr const char* kPartName = "plan";
template <>
inline constexpr const char* kPartName<Condition> = "condition";
template <>
inline constexpr const char* kPartName<Channel> = "channel";
template <>
inline constexpr const char* kPartName<ChannelGroup> = "channel_group";
template <>
inline constexpr const char* kPartName<PanelSwitch> = "panel_switch";
template <>
inline constexpr const char* kPartName<Accepted> = "accepted_finding";
template <>
inline constexpr const char* kPartName<Vehicle> = "vehicle";
template <>
inline constexpr const char* kPartName<Stock> = "stock";
template <>
inline constexpr const char* kPartName<Price> = "price";
template <>
inline constexpr const char* kPartName<TaskTime> = "task_time";
template <>
inline constexpr const char* kPartName<Torque> = "torque";
template <>
inline constexpr const char* kPartName<FaultWeight> = "fault_weight";
template <>
inline constexpr const char* kPartName<MeterKind> = "meter_kind";
template <>
inline constexpr const char* kPartName<Policy> = "policy";
template <>
inline constexpr const char* kPartName<Place> = "place";
template <>
inline constexpr const char* kPartName<Waypoint> = "waypoint";
template <>
inline constexpr const char* kPartName<Way> = "way";
template <>
inline constexpr const char* kPartName<Point> = "point";
template <>
inline constexpr const char* kPartName<Source> = "source";
template <>
inline constexpr const char* kPartName<Inverter> = "inverter";
template <>
inline constexpr const char* kPartName<Battery> = "battery";
template <>
inline constexpr const char* kPartName<Draw> = "draw";
template <>
inline constexpr const char* kPartName<Load> = "load";
template <>
inline constexpr const char* kPartName<Device> = "device";
template <>
inline constexpr const char* kPartName<PinUse> = "pin_use";
template <>
inline constexpr const char* kPartName<Connector> = "connector";
template <>
inline constexpr const char* kPartName<Jacket> = "jacket";
template <>
inline constexpr const char* kPartName<RunEnd> = "run_end";
template <>
inline constexpr const char* kPartName<Mark> = "mark";
template <>
inline constexpr const char* kPartName<Run> = "run";
template <>
inline constexpr const char* kPartName<State> = "state";
template <>
inline constexpr const char* kPartName<DayPart> = "day_part";
template <>
inline constexpr const char* kPartName<Month> = "month";
template <>
inline constexpr const char* kPartName<Day> = "day";
template <>
inline constexpr const char* kPartName<Variant> = "variant";
template <>
inline constexpr const char* kPartName<SurveyPoint> = "survey_point";
template <>
inline constexpr const char* kPartName<SurveyReading> = "survey_reading";
template <>
inline constexpr const char* kPartName<Survey> = "survey";

// What may be said of anything.
template <class V, PartOf<Remarks> T>
void remark_fields(V&& v, T& x) {
    v("note", x.note);
    v("photo", x.photo);
    v("caution", x.caution);
}

}  // namespace yr
