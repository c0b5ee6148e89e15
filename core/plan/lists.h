// The plan's lists of things, each declared once. Edits, variants, JSON, validation, removal and ids walk
// them from here: a new kind of thing is a line in Things and a line in kPlanLists.
#pragma once

#include <tuple>
#include <type_traits>

#include "plan/plan.h"

namespace yr {

template <class... T>
struct TypeList {};

// What a variant may change.
using Things = TypeList<Place, Waypoint, Way, Point, Source, Battery, Inverter, Connector, Jacket, Run, Load,
                        State, Day>;

template <class T>
struct PlanList {
    using Thing = T;
    const char* key;  // in the file
    std::vector<T> Plan::*in_plan;
    std::vector<T> Variant::*in_variant;
    bool needed = false;  // stands in every file
};

inline constexpr std::tuple kPlanLists{
    PlanList<Place>{"places", &Plan::places, &Variant::places},
    PlanList<Waypoint>{"waypoints", &Plan::waypoints, &Variant::waypoints},
    PlanList<Way>{"ways", &Plan::ways, &Variant::ways},
    PlanList<Point>{"points", &Plan::points, &Variant::points},
    PlanList<Source>{"sources", &Plan::sources, &Variant::sources},
    PlanList<Battery>{"batteries", &Plan::batteries, &Variant::batteries},
    PlanList<Inverter>{"inverters", &Plan::inverters, &Variant::inverters},
    PlanList<Connector>{"connectors", &Plan::connectors, &Variant::connectors},
    PlanList<Jacket>{"jackets", &Plan::jackets, &Variant::jackets},
    PlanList<Run>{"runs", &Plan::runs, &Variant::runs},
    PlanList<Load>{"loads", &Plan::loads, &Variant::loads},
    PlanList<State>{"states", &Plan::states, &Variant::states, true},
    PlanList<Day>{"days", &Plan::days, &Variant::days},
};

// Calls use(list) with the declaration of each.
template <class F>
constexpr void each_list(F&& use) {
    std::apply([&](const auto&... list) { (use(list), ...); }, kPlanLists);
}

// Calls use(things) with each list of this plan, const or not.
template <class P, class F>
void each_list(P& plan, F&& use) {
    each_list([&](const auto& list) { use(plan.*list.in_plan); });
}

// Calls use(things of the plan, things of the variant).
template <class P, class V, class F>
void each_list(P& plan, V& variant, F&& use) {
    each_list([&](const auto& list) { use(plan.*list.in_plan, variant.*list.in_variant); });
}

// The list of the plan that holds things of this kind.
template <class T, class P>
[[nodiscard]] auto& list_of(P& plan) {
    if constexpr (std::is_same_v<T, PanelSwitch>)
        return plan.panel;
    else if constexpr (std::is_same_v<T, Accepted>)
        return plan.accepted;
    else if constexpr (std::is_same_v<T, Mark>)
        return plan.marks;
    else if constexpr (std::is_same_v<T, Variant>)
        return plan.variants;
    else
        return plan.*std::get<PlanList<T>>(kPlanLists).in_plan;
}

}  // namespace yr
