// The one declaration of each field, and what is made from it: schema, table, ranges, files.
#include <gtest/gtest.h>

#include <nlohmann/json.hpp>
#include <random>
#include <set>

#include "plan/edit.h"
#include "plan/plan_fields.h"
#include "plan/plan_json.h"
#include "plan/roles.h"
#include "plan/schema.h"
#include "plan/validate.h"
#include "support/folders.h"
#include "support/random_plan.h"
#include "support/run_program.h"

namespace yr::test {
namespace {

using nlohmann::json;

TEST(Fields, ThePublishedSchemaAndTableAreThoseOfTheDeclarations) {
    EXPECT_EQ(read_text(test::source_dir() + "/docs/plan.schema.json"), plan_schema_text())
        << "rail plan schema > docs/plan.schema.json";
    EXPECT_EQ(read_text(test::source_dir() + "/docs/plan-fields.md"), plan_fields_table())
        << "rail plan fields > docs/plan-fields.md";
}

TEST(Fields, TheSchemaHoldsWhatVersionThreeHeld) {
    // a handful of what was written by hand before, so that the generator cannot lose it unseen
    const json s = json::parse(plan_schema_text());
    const json& d = s["definitions"];
    EXPECT_EQ(d["load"]["required"], json({"id", "name", "draw"}));
    EXPECT_EQ(d["load"]["properties"]["duty"],
              json({{"type", "number"}, {"exclusiveMinimum", 0}, {"maximum", 1}}));
    EXPECT_EQ(d["run"]["properties"]["resistance_ohm"]["minimum"], 1e-7);
    EXPECT_EQ(d["condition"]["properties"]["any_of"]["items"]["$ref"], "#/definitions/condition");
    EXPECT_EQ(d["vehicle"]["properties"]["nominal_V"]["enum"], json({12, 24, 48}));
    EXPECT_EQ(d["device"]["properties"].size(), 25U) << "a fuse's fields and a relay's";
    EXPECT_EQ(s["properties"]["states"]["minItems"], 1);
    EXPECT_EQ(s["additionalProperties"], false);
    EXPECT_EQ(d["place"]["properties"]["id"]["pattern"], "^[A-Za-z0-9_-]+$");
}

// Sets every open number of a part to something that its field takes.
struct Filler {
    static constexpr bool every_field = true;
    std::mt19937& random;
    int& filled;
    double inside(const Field& f) const {
        if (f.volts_of_rail) return 24;
        const double low = std::isfinite(f.least) ? f.least : 0, high = std::isfinite(f.most) ? f.most : 1e6;
        const double share = std::uniform_real_distribution<double>(0.1, 0.9)(random);
        return low + share * (high - low);
    }
    void operator()(const Field& f, std::optional<double>& value) const { value = inside(f), ++filled; }
    template <class T>
    void operator()(const Field&, T&) const {}
};

TEST(Fields, EveryNumberGoesToTheFileAndBack) {
    for (unsigned seed = 1; seed <= 20; ++seed) {
        std::mt19937 random(seed);
        Plan plan;
        plan.vehicle.name = "every field";
        int filled = 0;
        const Filler filler{random, filled};
        Point p{"point", "point", PointKind::bus, {}, {}, {}, {}, true};
        Battery b;
        b.id = b.name = "battery";
        Source s;
        s.id = s.name = "source", s.return_at = "point";
        yr::Run r;
        r.id = r.name = "run", r.from = "battery.pos", r.to = "point";
        State state;
        state.id = state.name = "state";
        fields(filler, p), fields(filler, b), fields(filler, s), fields(filler, r), fields(filler, state);
        r.length_least_m = r.length_m;  // what belongs together in a plan
        s.enable_on_V = *s.enable_off_V + 1;
        p.recover_V = *p.cutoff_V + 1;
        plan.points = {p}, plan.batteries = {b}, plan.sources = {s}, plan.runs = {r}, plan.states = {state};
        fields(filler, plan.policy);
        EXPECT_GT(filled, 40);
        const auto back = plan_from_json_text(to_json_text(plan));
        ASSERT_TRUE(back) << seed << ": " << back.error().place << " " << back.error().given;
        EXPECT_EQ(*back, plan) << seed;
    }
}

TEST(Fields, WhatAFieldDoesNotTakeIsRefusedWithItsPlace) {
    const auto refused = [](auto&& change) {
        Plan plan = truck();
        change(plan);
        const auto errors = validate(plan);
        return errors.empty() ? std::string() : errors.front().place;
    };
    EXPECT_EQ(refused([](Plan&) {}), "");
    EXPECT_EQ(refused([](Plan& p) { p.loads[0].duty = 1.5; }), "loads, " + truck().loads[0].name + ", duty");
    EXPECT_EQ(refused([](Plan& p) { p.batteries[0].peukert = 0.5; }),
              "batteries, " + truck().batteries[0].name + ", peukert");
    EXPECT_EQ(refused([](Plan& p) { p.vehicle.nominal_V = 13; }), "vehicle, nominal_V");
    EXPECT_EQ(refused([](Plan& p) { p.loads[0].draw.value = 2e6; }),
              "loads, " + truck().loads[0].name + ", draw, value");
    EXPECT_EQ(refused([](Plan& p) { p.states[0].rpm = std::nan(""); }),
              "states, " + truck().states[0].name + ", rpm");
}

TEST(Fields, AnEditOutOfRangeChangesNothing) {
    Plan plan = truck();
    const Plan before = plan;
    yr::Run r = plan.runs.front();
    r.length_m = 1e9;
    EXPECT_FALSE(apply(plan, Put<yr::Run>{r, {}}));
    EXPECT_EQ(plan, before);
}

TEST(Lists, AreWalkedByAllWhoNeedThem) {
    std::set<std::string> keys;
    each_list([&](const auto& list) { keys.insert(list.key); });
    EXPECT_EQ(keys.size(), 13U);
    const Plan plan = truck();
    std::size_t things = 0;
    each_list(plan, [&](const auto& list) { things += list.size(); });
    EXPECT_EQ(things, plan.places.size() + plan.points.size() + plan.sources.size() + plan.batteries.size() +
                          plan.inverters.size() + plan.runs.size() + plan.loads.size() + plan.states.size() +
                          plan.days.size() + plan.waypoints.size() + plan.ways.size());
    EXPECT_EQ(&list_of<Load>(plan), &plan.loads);
    EXPECT_EQ(&list_of<PanelSwitch>(plan), &plan.panel);
}

TEST(Terminals, AreReadAndWrittenAsInFiles) {
    for (const char* text : {"battery-1.pos", "load-3.neg", "alternator.out", "charger.in", "cab-box"}) {
        const Terminal t(text);
        EXPECT_EQ(t.text(), text);
    }
    EXPECT_EQ(Terminal("load-3.pos"), pos_of("load-3"));
    EXPECT_NE(pos_of("load-3"), neg_of("load-3"));
    EXPECT_EQ(owner_of(in_of("charger")), "charger");
    EXPECT_EQ(Terminal("a.b").owner, "a.b") << "no post of that name: a point's id, which no plan has";
    const Plan plan = truck();
    EXPECT_EQ(find(plan.points, pos_of(plan.points[0].id)), nullptr) << "a post is not the point";
    EXPECT_EQ(find(plan.points, Terminal(plan.points[0].id)), &plan.points[0]);
}

TEST(Roles, ComeFromTheStateOrItsKey) {
    State s;
    EXPECT_EQ(role_of(s), StateRole::parked);
    s.key = Key::crank;
    EXPECT_EQ(role_of(s), StateRole::cranking);
    s.key = Key::ignition;
    EXPECT_EQ(role_of(s), StateRole::working);
    s.role = StateRole::towed;
    EXPECT_EQ(role_of(s), StateRole::towed);
}

TEST(Roles, DecideWhichStateIsLookedAtFirstWhateverItIsCalled) {
    Plan plan = empty_plan("van");
    EXPECT_EQ(opening_state(plan).id, "state-idle");
    for (State& s : plan.states) s.name = "Zustand " + s.id;
    EXPECT_EQ(opening_state(plan).id, "state-idle") << "its name says nothing";
    for (State& s : plan.states) s.role.reset();
    EXPECT_EQ(opening_state(plan).rpm, 800) << "then the first in which the engine turns";
    std::erase_if(plan.states, [](const State& s) { return s.rpm > 0; });
    EXPECT_EQ(&opening_state(plan), &plan.states.front());
}

TEST(Roles, AFileOfBeforeGetsThemFromTheNamesOfTheBuiltInStates) {
    json file = json::parse(to_json_text(empty_plan("van")));
    file["version"] = 3;
    for (json& s : file["states"]) s.erase("role");
    const auto plan = plan_from_json_text(file.dump());
    ASSERT_TRUE(plan) << plan.error().place;
    EXPECT_EQ(find(plan->states, "state-idle")->role, StateRole::idling);
    EXPECT_EQ(find(plan->states, "state-drive")->role, StateRole::driving);
    EXPECT_FALSE(find(plan->states, "state-off")->role);
}

}  // namespace
}  // namespace yr::test
