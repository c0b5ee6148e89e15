// Pages as somebody writes them who has never seen the program: no bus is named, switches are new, heavy
// things are said like light ones. Every line is understood, and what the program chose for it passes its own
// rules.
#include <gtest/gtest.h>

#include <filesystem>
#include <random>

#include "inspect/checked_sizing.h"
#include "inspect/findings.h"
#include "network/thermal_time.h"
#include "notes/next.h"
#include "notes/notes.h"
#include "plan/library.h"
#include "plan/roles.h"
#include "plan/validate.h"
#include "size/run_limits.h"
#include "support/findings.h"
#include "support/folders.h"
#include "support/run_program.h"
#include "support/sweep.h"
#include "words/sentences.h"

namespace yr::test {
namespace {

using F = FindingKind;

Plan typed(const std::string& page, const std::string& of) {
    const Notes notes = read_notes(page, &shipped_library());
    for (const NoteLine& l : notes.lines)
        EXPECT_FALSE(l.bad()) << of << ": " << l.text << ": "
                              << (l.statement.error                    ? words::sentence(*l.statement.error)
                                  : l.statement.not_understood.empty() ? ""
                                                                       : l.statement.not_understood.front());
    EXPECT_TRUE(validate(notes.plan).empty()) << of;
    return notes.plan;
}

// What a line itself lays: sizes, fuses, kinds, channels. The rest is what the vehicle asks of its supply.
bool of_what_was_chosen(const Finding& f) {
    for (const F kind :
         {F::fuse_above_cable, F::fuse_volts, F::fuse_missing, F::fuse_far, F::guards_not,
          F::cable_over_ampacity, F::cable_over_temperature, F::return_thinner, F::ground_thin,
          F::fuse_above_channel, F::channel_over, F::channel_start, F::demand_over, F::short_stays,
          F::short_hurts, F::load_dead, F::turn_opens_fuse, F::start_opens_fuse})
        if (f.kind == kind) return f.severity <= Severity::fix || kind == F::guards_not;
    return false;
}

void expect_laid_well(const Plan& plan, const std::string& of) {
    const auto findings = inspect(plan, false).findings;
    for (const Finding& f : findings) {
        // an inverter that is asked for more than it gives would leave the mains dark: its cable is for what
        // it gives
        const bool asked_too_much = std::any_of(findings.begin(), findings.end(), [&](const Finding& g) {
            return g.kind == F::inverter_over && g.state == f.state;
        });
        if (asked_too_much && f.kind == F::cable_over_ampacity) continue;
        EXPECT_FALSE(of_what_was_chosen(f)) << of << ": " << words::sentence(f, plan);
    }
}

TEST(TypedPages, OfManyOwnersAreUnderstoodAndLaidWell) {
    int pages = 0;
    for (const auto& file : std::filesystem::directory_iterator(test::source_dir() + "/tests/data/pages")) {
        const std::string name = file.path().stem();
        const Plan plan = typed(read_text(file.path()), name);
        expect_laid_well(plan, name);
        ++pages;
    }
    EXPECT_EQ(pages, 32);
}

// Any page of such lines.
class AnyPage {
  public:
    explicit AnyPage(unsigned seed) : random_(seed) {}

    std::string text() {
        const int volts = pick({12, 12, 12, 24, 48});
        std::string page =
            "vehicle \"one of many\" " + std::to_string(volts) + " V" + (volts == 48 ? " none" : "") + "\n";
        const std::string v = volts == 12 ? "" : std::to_string(volts) + " V ";
        page += "battery " + pick<std::string>({"AGM ", "flooded ", volts == 48 ? "LiFePO4 " : "gel "}) + v +
                std::to_string(pick({60, 95, 180})) + " Ah 800 A\n";
        page += volts == 48
                    ? "charger 15 A shore\n"
                    : "alternator " + std::to_string(pick({90, 150, 220})) + " A\nstarter 200 A, 1.4 m\n";
        if (volts < 48 && pick({0, 0, 1}))
            page += "winch " + std::to_string(pick({180, 260, 320, 400, 450}) * 12 / volts) + " A, " +
                    std::to_string(pick({1, 2, 5})) + " m\n";
        const int things = pick({3, 6, 10});
        for (int k = 0; k < things; ++k) page += thing(k, volts);
        return page;
    }

  private:
    template <class T>
    T pick(std::initializer_list<T> of) {
        return *(of.begin() + static_cast<long>(random_() % of.size()));
    }
    std::string thing(int k, int volts) {
        const double amps = pick({0.3, 1.5, 4.0, 9.0, 14.0, 22.0, 38.0, 60.0, 110.0, 160.0}) * 12 / volts;
        char draw[40];
        if (pick({0, 1}))
            std::snprintf(draw, sizeof draw, "%.3g A", amps);
        else
            std::snprintf(draw, sizeof draw, "%.0f W", std::max(2.0, amps * volts));
        std::string line =
            pick<std::string>({"lamp", "pump", "fan", "radio gear", "heater mat", "lift motor"}) + " number" +
            std::to_string(k) + " " + draw;
        line += pick<std::string>({" always", " on ignition", " on accessory",
                                   " on ignition and tool " + std::string(1, static_cast<char>('a' + k)),
                                   " on deck switch", ""});
        line += ", " + std::to_string(pick({1, 2, 4, 7})) + " m";
        if (pick({0, 0, 0, 1})) line += ", from battery";
        return line + "\n";
    }
    std::mt19937 random_;
};

TEST(TypedPages, AnyPageIsUnderstoodAndLaidWell) {
    for (unsigned seed = 1; seed <= sweep(40U, 400U); ++seed) {
        const std::string page = AnyPage(seed).text();
        const std::string of = "seed " + std::to_string(seed) + "\n" + page;
        const Plan plan = typed(page, of);
        expect_laid_well(plan, of);
        if (testing::Test::HasFailure()) return;
    }
}

TEST(TypedPages, TheFirstLoadBringsAMainBlock) {
    Plan plan = read_notes("battery AGM 80 Ah 760 A\n").plan;
    const Statement s = read_statement(plan, "radio 10 A on accessory, 2 m");
    ASSERT_TRUE(s.whole());
    EXPECT_FALSE(s.block.empty());
    ASSERT_TRUE(yr::apply(plan, *s.edit));
    const Point* block = find(plan.points, std::string_view(s.block));
    ASSERT_NE(block, nullptr);
    EXPECT_TRUE(block->feeds_loads);
    const Point* negative = find(plan.points, block->return_at);
    ASSERT_NE(negative, nullptr) << "returns come to a bus, not to the post";
    const Statement next = read_statement(plan, "lamp 20 W on lights, 2 m, from main block");
    ASSERT_TRUE(next.whole());
    EXPECT_TRUE(next.block.empty()) << "the second finds it there";
    EXPECT_EQ(next.new_switches, std::vector<std::string>{"lights"});
}

TEST(TypedPages, AHeavyLoadHangsOnTheBattery) {
    Plan plan = read_notes("battery AGM 95 Ah 800 A\nbus \"fuse block\" for 60 A, 0.5 m\n").plan;
    const Statement pump = read_statement(plan, "hydraulic pump 150 A on ignition and pump, 3 m");
    ASSERT_TRUE(pump.whole());
    ASSERT_TRUE(yr::apply(plan, *pump.edit));
    const yr::Run* feed = nullptr;
    for (const yr::Run& r : plan.runs)
        if (r.to == pos_of(pump.about)) feed = &r;
    ASSERT_NE(feed, nullptr);
    EXPECT_EQ(feed->from, pos_of("battery-1"));
    ASSERT_EQ(feed->devices.size(), 2U);
    EXPECT_EQ(feed->devices[0].kind, DeviceKind::fuse);
    EXPECT_LE(feed->devices[0].at_m.value_or(9), 0.15) << "beside the post";
    EXPECT_EQ(feed->devices[1].closed_when.switches, std::vector<std::string>{"pump"});
    // light ones do not, and what says where from goes there
    const Statement lamp = read_statement(plan, "lamp 20 W on ignition, 3 m");
    ASSERT_TRUE(yr::apply(plan, *lamp.edit));
    const Statement own = read_statement(plan, "beacon 20 W always, 3 m, from battery");
    ASSERT_TRUE(yr::apply(plan, *own.edit));
    for (const yr::Run& r : plan.runs) {
        if (r.to == pos_of(lamp.about)) {
            EXPECT_NE(find(plan.points, r.from), nullptr);
        }
        if (r.to == pos_of(own.about)) {
            EXPECT_EQ(r.from.owner, "battery-1");
        }
    }
}

TEST(TypedPages, AFullBusSendsTheNextToTheBatteryThatFeedsIt) {
    Plan plan = typed(
        "battery AGM 95 Ah 800 A\nsecond battery LiFePO4 200 Ah, by dc-dc 30 A, 3 m\nalternator 150 A\n"
        "bus \"house bus\" from second battery, fuse 40 A, 1 m\nfridge 18 A always, 2 m\nfan 10 A always, 2 "
        "m\n",
        "page");
    const Statement s = read_statement(plan, "heater 12 A always, 2 m");
    ASSERT_TRUE(s.whole());
    ASSERT_TRUE(yr::apply(plan, *s.edit));
    for (const yr::Run& r : plan.runs)
        if (r.to == pos_of(s.about)) {
            EXPECT_EQ(r.from, pos_of(plan.batteries[1].id));
        }
    expect_laid_well(plan, "page");
}

TEST(TypedPages, WhatRunsInNoStateIsToldAndTheNextLineLetsItRun) {
    Plan plan = typed(
        "battery AGM 95 Ah 800 A\nalternator 150 A\nstarter 200 A\nlamp 90 W on ignition and scene, 4 m\n"
        "pump 8 A on bilge, 3 m\nstate parked, key off\n",
        "page");
    EXPECT_EQ(never_asked(plan).size(), 2U);
    const auto told = found(plan, F::never_runs);
    ASSERT_TRUE(told);
    EXPECT_EQ(told->value, 2);
    const auto next = what_next(plan, 0, {});
    ASSERT_TRUE(next);
    EXPECT_EQ(next->kind, NextKind::never_on);
    const Statement s = read_statement(plan, next->line);
    ASSERT_TRUE(s.whole()) << next->line;
    EXPECT_TRUE(s.not_understood.empty()) << next->line;
    ASSERT_TRUE(yr::apply(plan, *s.edit));
    EXPECT_TRUE(never_asked(plan).empty());
    EXPECT_FALSE(found(plan, F::never_runs));
}

TEST(TypedPages, AStateSaysHowItsSwitchesStand) {
    const Plan plan = typed(
        "battery AGM 95 Ah\nlamp 9 W on scene, 4 m\npump 8 A on bilge, 3 m\nfan 2 A on fan\n"
        "state working, key on, scene on, fan off, bilge on, 5 C\n",
        "page");
    const State* s = nullptr;
    for (const State& x : plan.states)
        if (x.name == "working") s = &x;
    ASSERT_NE(s, nullptr);
    std::vector<std::string> on = s->switches;
    std::sort(on.begin(), on.end());
    EXPECT_EQ(on, (std::vector<std::string>{"bilge", "scene"}));
    EXPECT_EQ(s->ambient_C, 5);
}

TEST(TypedPages, WordsOfOthersAreTaken) {
    const Plan plan = typed(
        "vehicle \"livestock truck\" 12V\nbattery AGM 95Ah 850A\naux battery AGM 105 Ah, by isolator, 2 m\n"
        "alternator 180 A, 70 A at idle\nstarter 220 A\ntwo work lights 45 W each on ignition, 4 m\n"
        "main disconnect between battery and main block\ncb radio 4 A always on, 2 m\n"
        "fridge 55W, 40% duty, from aux battery, 3 m\ninverter 1000 watt, from aux battery, 1.5 m\n"
        "coffee maker 800 W on inverter\nair compressor 65 A on ignition switch comp, 2.5 m\n"
        "battery charger 10 A shore power\nhazard lamps 8 A always\n",
        "page");
    ASSERT_EQ(plan.batteries.size(), 2U);
    EXPECT_EQ(plan.batteries[1].name, "aux battery");
    EXPECT_EQ(plan.sources.front().idle_A, 70);
    const auto load = [&](std::string_view name) {
        for (const Load& l : plan.loads)
            if (l.name == name) return l;
        ADD_FAILURE() << name;
        return Load{};
    };
    EXPECT_EQ(load("work lights").count, 2);
    EXPECT_EQ(load("air compressor").live_when.switches, std::vector<std::string>{"comp"});
    EXPECT_EQ(load("air compressor").live_when.key, Key::ignition);
    EXPECT_EQ(load("cb radio").live_when, Condition{});
    for (const yr::Run& r : plan.runs)
        if (r.to == pos_of(load("fridge").id)) {
            EXPECT_EQ(r.from, pos_of(plan.batteries[1].id));
        }
    EXPECT_TRUE(std::any_of(plan.runs.begin(), plan.runs.end(), [](const yr::Run& r) {
        return std::any_of(r.devices.begin(), r.devices.end(), [](const Device& d) { return d.master; });
    })) << "the disconnect is in the cable to the block";
    expect_laid_well(plan, "page");
    // a vehicle whose only battery is that one
    EXPECT_EQ(typed("house battery LiFePO4 200 Ah\nlamp 5 W on lights, 2 m\n", "trailer").batteries.size(),
              1U);
}

// A notepad's line is never taken for a load that it is not: 150 A for ever would be believed.
TEST(TypedPages, WhatIsNoLoadIsNone) {
    const Plan plan = typed(
        "starter battery AGM 100 Ah 900 CCA\nsecond battery 100 Ah lithium, dcdc 40 A\nalternator: 150 A\n"
        "starter motor 2.2 kW\nfuse panel 6 way from second battery, 60 A fuse, 2 m\nnegative bus bar\n"
        "Roof lights: 4 x 27 W on dash\nrear camera 5 W with reverse\nwinch 12000 lb 440 A\n",
        "notepad");
    ASSERT_EQ(plan.batteries.size(), 2U);
    EXPECT_EQ(plan.batteries[0].name, "starter battery");
    EXPECT_EQ(plan.batteries[0].cranking_A, 900);
    std::vector<std::string> loads;
    for (const Load& l : plan.loads) {
        loads.push_back(l.name);
        EXPECT_LE(l.starter ? 0 : nominal_A(plan, l), 440) << l.name;
    }
    std::sort(loads.begin(), loads.end());
    EXPECT_EQ(loads, (std::vector<std::string>{"Roof lights", "rear camera", "starter", "winch"}));
    EXPECT_TRUE(std::any_of(plan.points.begin(), plan.points.end(),
                            [](const Point& p) { return p.name == "fuse panel" && p.feeds_loads; }));
    for (const yr::Run& r : plan.runs)
        if (r.name == "fuse panel feed") {
            ASSERT_FALSE(r.devices.empty());
            EXPECT_EQ(r.devices.front().rating_A, 60);
        }
    for (const char* line : {"main fuse 150 A", "fuse 100 A", "circuit breaker 60 A"}) {
        const Statement s = read_statement(plan, line);
        EXPECT_FALSE(s.whole()) << line;
        ASSERT_TRUE(s.error) << line;
        EXPECT_EQ(s.error->wanted.what, Want::a_fuse_said_with_its_cable) << line;
    }
    const Statement dash = read_statement(plan, "lamp 20 W, switch on dash");
    EXPECT_TRUE(dash.new_switches.empty()) << "where the switch is, not what it is called";
    EXPECT_FALSE(dash.not_understood.empty());
}

TEST(TypedPages, ATractionVehicleHasNoEngineAndItsChargerIsPluggedIn) {
    const Plan plan =
        typed("vehicle cart 48 V none\nbattery LiFePO4 48 V 100 Ah\ncharger 15 A shore\n", "cart");
    for (const State& s : plan.states) {
        EXPECT_EQ(s.rpm, 0) << s.name;
        EXPECT_NE(s.key, Key::crank) << s.name;
    }
    EXPECT_FALSE(found(plan, F::never_charged));
}

// What chafes through on the metal comes back over the ground: seconds of thousands of amps melt thin copper.
TEST(Grounds, AreGuardedByTheLargestFuseBeforeThem) {
    Plan plan = typed(
        "battery AGM 95 Ah 800 A\nsecond battery LiFePO4 200 Ah, by dc-dc 30 A, 3 m\nalternator 150 A\n"
        "inverter 2000 W, from second battery, 0.8 m\n",
        "page");
    EXPECT_FALSE(found(plan, F::ground_thin));
    yr::Run* ground = nullptr;
    for (yr::Run& r : plan.runs)
        if (r.from == neg_of(plan.batteries[1].id) && find(plan.points, r.to)) ground = &r;
    ASSERT_NE(ground, nullptr);
    ground->size = WireSize::awg(12);
    const Id id = ground->id;
    const auto told = found(plan, F::ground_thin, id);
    ASSERT_TRUE(told);
    // by hand: at three times its rating it may take so long, and I2t is over k2 S2 of IEC 60364-5-54 (from
    // memory)
    const double seconds = *opening_time(fuse_kind(FuseType::high), 3).latest_s, amps = 3 * told->value;
    EXPECT_GT(amps * amps * seconds, std::pow(adiabatic_k(60, 160) * told->limit, 2));
    ASSERT_TRUE(told->mend);
    ASSERT_TRUE(yr::apply(plan, told->mend->edit));
    EXPECT_FALSE(found(plan, F::ground_thin)) << "its mend clears it";
    // and whole-plan sizing never makes it so
    const auto sized = size_checked(plan, {});
    ASSERT_TRUE(sized);
    ASSERT_TRUE(yr::apply(plan, sized->sizing.edit));
    EXPECT_FALSE(found(plan, F::ground_thin));
}

}  // namespace
}  // namespace yr::test
