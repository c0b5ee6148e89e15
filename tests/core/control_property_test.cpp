// Whatever is moved, given out, conditioned or taken out, in any order: the plan stays one that can be saved,
// every step can be taken back, and no load is lost.
#include <gtest/gtest.h>

#include <functional>
#include <random>

#include "control/assign.h"
#include "control/boxes.h"
#include "control/circuit.h"
#include "control/place_on.h"
#include "control/rails.h"
#include "inspect/sneak.h"
#include "plan/variant.h"
#include "support/findings.h"
#include "support/sweep.h"
#include "typing/typed_line.h"

namespace yr::test {
namespace {

class Walk {
  public:
    Walk(Plan plan, std::uint32_t seed) : random_(seed), plan_(std::move(plan)) {}

    void step() {
        const Plan before = plan_;
        const Edit edit = any_edit();
        const auto inverse = yr::apply(plan_, edit);
        ASSERT_TRUE(inverse) << name_ << ": " << words::sentence(inverse.error());
        ASSERT_TRUE(validate(plan_).empty()) << name_ << ": " << validate(plan_).front().place;
        Plan back = plan_;
        ASSERT_TRUE(yr::apply(back, *inverse)) << name_;
        ASSERT_EQ(back, before) << name_ << " is taken back whole";
        channels_hold_one_run_each();
    }
    [[nodiscard]] const Plan& plan() const { return plan_; }

  private:
    int pick(std::size_t below) { return static_cast<int>(random_() % below); }
    template <class T>
    const T& any(const std::vector<T>& list) {
        return list[static_cast<std::size_t>(pick(list.size()))];
    }

    std::vector<Id> movable() const {
        std::vector<Id> ids;
        for (const Load& l : plan_.loads) {
            const yr::Run* run = supply_run(plan_, l.id);
            if (run && run->to == pos_of(l.id) && find(plan_.points, run->from)) ids.push_back(l.id);
        }
        return ids;
    }

    Condition any_condition() {
        Condition c;
        const Key keys[] = {Key::off, Key::accessory, Key::ignition};
        c.key = keys[pick(3)];
        if (pick(3) == 0) c.switches = {"sw" + std::to_string(pick(4))};
        if (pick(5) == 0) c.not_cranking = true;
        if (pick(6) == 0) c.delay_s = 1 + pick(5);
        if (pick(8) == 0) c.charging_above_V = 13.0;
        return c;
    }

    Edit any_edit() {
        const auto loads = movable();
        const Id load = any(loads);
        switch (pick(6)) {
            case 0: {
                name_ = "swap";
                std::vector<std::pair<Id, int>> channels;
                for (const Point& p : plan_.points)
                    for (const Channel& c : p.channels) channels.emplace_back(p.id, c.number);
                const auto& [box, channel] = any(channels);
                if (auto e = swap_onto(plan_, load, box, channel)) return *e;
                break;
            }
            case 1: {
                name_ = "to a feed";
                std::vector<Id> feeds;
                for (const Point& p : plan_.points)
                    if (p.feeds_loads) feeds.push_back(p.id);
                if (auto e = place_on(plan_, load, any(feeds), 0, pick(2) == 0)) return *e;
                break;
            }
            case 2: {
                name_ = "live when";
                return set_live_when(plan_, load, any_condition());
            }
            case 3: {
                name_ = "given out";
                const Assignment a = assign_loads(plan_);
                if (a.feasible) return a.edit;
                break;
            }
            case 4: {
                name_ = "one after another";
                return stagger_starts(plan_, loads, 0.5);
            }
            default: {
                name_ = "taken out";
                if (plan_.loads.size() > 12) return remove_with_runs(plan_, load);
            }
        }
        name_ = "named";
        Load renamed = *find(plan_.loads, load);
        renamed.remarks.note += "x";
        return Put<Load>{renamed, {}};
    }

    void channels_hold_one_run_each() const {
        for (const Point& p : plan_.points)
            for (const ChannelUse& use : channel_uses(plan_, p)) {
                if (!use.load) continue;
                const Device* driver = channel_driver(plan_, *use.run);
                if (driver)
                    EXPECT_EQ(driver->closed_when, use.load->live_when) << name_ << ": the channel follows";
                if (driver) EXPECT_FALSE(use.load->own_switch) << name_;
            }
    }

    std::mt19937 random_;
    Plan plan_;
    std::string name_;
};

TEST(ControlProperties, AnyWalkStaysAPlanAndCanBeTakenBack) {
    for (std::uint32_t seed = 1; seed <= sweep(5U, 12U); ++seed) {
        Walk walk(with_variant(truck(), {}), seed);
        for (int k = 0; k < 25; ++k) {
            SCOPED_TRACE("seed " + std::to_string(seed) + ", step " + std::to_string(k));
            walk.step();
            if (testing::Test::HasFatalFailure()) return;
        }
        EXPECT_EQ(*plan_from_json_text(to_json_text(walk.plan())), walk.plan());
        const SneakSearch s = search_sneaks(walk.plan());
        EXPECT_TRUE(s.complete);
        for (const SneakPath& p : s.found) EXPECT_NE(find(walk.plan().loads, p.load), nullptr);
        for (const Finding& f : inspect_with_candidates(walk.plan()).findings)
            EXPECT_FALSE(words::sentence(f, walk.plan()).empty());
    }
}

// Whatever is given out is within every limit that the findings know.
TEST(ControlProperties, WhatIsGivenOutBreaksNoLimit) {
    int given = 0;
    for (std::uint32_t seed = 1; seed <= 20; ++seed) {
        std::mt19937 random(seed);
        Plan plan = empty_plan("random");
        ASSERT_TRUE(yr::apply(plan, add_alternator(plan)->edit));
        for (int b = 0; b < 2; ++b) {
            NewBox ask;
            ask.box = shipped_library().boxes[random() % 4].box;
            ask.box.name = "box " + std::to_string(b);
            ask.trigger.key = b == 0 ? Key::off : Key::accessory;
            ask.length_m = 1 + static_cast<double>(random() % 5);
            ASSERT_TRUE(yr::apply(plan, add_box(plan, ask)->edit));
        }
        for (int l = 0; l < 9; ++l) {
            const std::string text = "load " + std::to_string(l) + " " + std::to_string(1 + random() % 14) +
                                     " A " + (random() % 2 ? "on accessory" : "always") +
                                     ", from battery bus";
            const auto made = make_circuit(plan, read_line(plan, text));
            ASSERT_TRUE(made);
            ASSERT_TRUE(yr::apply(plan, made->edit));
        }
        const Assignment a = assign_loads(plan);
        if (!a.feasible) {
            EXPECT_FALSE(a.conflict.empty()) << seed;
            continue;
        }
        ++given;
        ASSERT_TRUE(yr::apply(plan, a.edit));
        for (const Finding& f : inspect(plan, false).findings) {
            const bool limit = f.kind == FindingKind::channel_over || f.kind == FindingKind::channel_start ||
                               f.kind == FindingKind::group_over || f.kind == FindingKind::box_main_over;
            EXPECT_FALSE(limit) << seed << ": " << words::sentence(f, plan);
        }
        for (const PlacedLoad& p : a.placed)
            EXPECT_EQ(p.others.size() + 1, 3U) << "every other feed has its reason";
    }
    EXPECT_GT(given, 8);
}

TEST(ControlProperties, RemovingALoadForgetsWhatOthersSaidOfIt) {
    Plan plan = with_variant(truck(), {});
    thing(plan.loads, "load-10").live_when.circuits = {"load-7"};
    for (yr::Run& r : plan.runs)
        if (r.id == "run-59") {
            Device d;
            d.id = "out", d.name = "output", d.kind = DeviceKind::switching;
            d.closed_when.switches = {"x"};
            d.grounds_without = "load-7";
            r.devices.push_back(d);
        }
    thing(plan.runs, "run-44").tap_of = thing(plan.runs, "run-32").devices[0].id;
    ASSERT_TRUE(validate(plan).empty());
    ASSERT_TRUE(yr::apply(plan, remove_with_runs(plan, "load-7")));
    EXPECT_TRUE(thing(plan.loads, "load-10").live_when.circuits.empty());
    EXPECT_TRUE(thing(plan.runs, "run-59").devices.back().grounds_without.empty());
    EXPECT_TRUE(thing(plan.runs, "run-44").tap_of.empty());
}

TEST(ControlProperties, AVariantThatTakesALoadOutStaysWhole) {
    Plan plan = truck();
    thing(plan.loads, "load-10").live_when.circuits = {"load-7"};
    Variant v;
    v.id = "variant-less", v.name = "no radio", v.removed = {"load-7"};
    plan.variants.push_back(v);
    EXPECT_TRUE(validate(plan).empty()) << validate(plan).front().place;
    const Plan shown = with_variant(plan, "variant-less");
    EXPECT_TRUE(find(shown.loads, "load-10")->live_when.circuits.empty());
    EXPECT_EQ(supply_run(shown, "load-7"), nullptr);
}

struct Damage {
    const char* what;
    std::function<void(Plan&)> make;
    const char* names;
};

TEST(ControlDamage, EachIsRefusedWithItsPlace) {
    const Damage all[] = {
        {"two channels of one number", [](Plan& p) { thing(p.points, "cab-box").channels[1].number = 1; },
         "channel 1"},
        {"a group that is not there", [](Plan& p) { thing(p.points, "cab-box").channels[0].group = "Z"; },
         "group"},
        {"a limit of nothing", [](Plan& p) { thing(p.points, "cab-box").groups[0].limit_A = 0; }, "limit_A"},
        {"channels of a stud", [](Plan& p) { thing(p.points, "stud").channels.push_back({}); }, "main stud"},
        {"a channel that is not there", [](Plan& p) { thing(p.runs, "run-32").channel = 40; },
         "two-way radio feed"},
        {"a channel away from its box", [](Plan& p) { thing(p.runs, "run-33").channel = 1; },
         "two-way radio return"},
        {"a tap on nothing", [](Plan& p) { thing(p.runs, "run-32").tap_of = "fuse-none"; }, "tap_of"},
        {"a circuit that is not there", [](Plan& p) { thing(p.loads, "load-7").live_when.circuits = {"x"}; },
         "circuits"},
        {"a circuit that waits for itself",
         [](Plan& p) { thing(p.loads, "load-7").live_when.circuits = {"load-7"}; }, "two-way radio"},
        {"an alternative that measures",
         [](Plan& p) {
             thing(p.loads, "load-7").live_when.any_of.resize(2);
             thing(p.loads, "load-7").live_when.any_of[0].delay_s = 2;
         },
         "any_of"},
        {"a load on mains that waits for volts",
         [](Plan& p) { thing(p.loads, "load-25").live_when.charging_above_V = 13; }, "water pump"},
        {"an output of a unit that is not there",
         [](Plan& p) { thing(p.runs, "run-8").devices[1].grounds_without = "nobody"; }, "grounds_without"},
    };
    for (const Damage& d : all) {
        Plan plan = with_variant(truck(), {});
        d.make(plan);
        const auto errors = validate(plan);
        ASSERT_FALSE(errors.empty()) << d.what;
        EXPECT_NE(words::sentence(errors.front()).find(d.names), std::string::npos)
            << d.what << ": " << words::sentence(errors.front());
        EXPECT_FALSE(plan_from_json_text(to_json_text(plan))) << d.what << " is not read from a file either";
    }
}

TEST(ControlWords, ConditionsAreSaidWithTheirCircuits) {
    Condition c;
    c.key = Key::ignition;
    c.switches = {"pump"};
    c.switches_off = {"stop"};
    c.not_cranking = true;
    c.charging_above_V = 13.2;
    c.circuits = {"load-14"};
    c.delay_s = 3;
    EXPECT_NE(words::condition(c).find("load-14 running"), std::string::npos) << "without a plan by its id";
    const Plan plan = truck();
    EXPECT_EQ(words::condition(c, &plan),
              "key at ignition, pump on, stop off, not while cranking, charging above 13.2\u2009V, sample "
              "fridge running, "
              "after 3\u2009s");
    Condition either;
    either.any_of.resize(2);
    either.any_of[0].key = Key::accessory;
    either.any_of[1].switches = {"override"};
    EXPECT_EQ(words::condition(either), "either key at accessory or override on");
    // and each of them is typed back
    for (const Condition& one : {c, either}) {
        const TypedLine l = read_line(plan, "thing 1 W, " + typed_condition(plan, one));
        EXPECT_TRUE(l.not_understood.empty()) << typed_condition(plan, one);
        EXPECT_TRUE(same_when(*l.live_when, one)) << typed_condition(plan, one);
    }
}

}  // namespace
}  // namespace yr::test
