#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <limits>

#include "inspect/sneak.h"
#include "plan/plan_json.h"
#include "support/random_plan.h"
#include "words/control_words.h"
#include "words/sentences.h"
#include "words/why.h"

namespace yr::test {
namespace {

using testing::HasSubstr;
using words::quantity;

TEST(Format, NumberBeforeUnitThreeFigures) {
    EXPECT_EQ(quantity(14.512, Dimension::current), "14.5\u2009A");
    EXPECT_EQ(quantity(0.25049, Dimension::voltage), "250\u2009mV");
    EXPECT_EQ(quantity(12.4649, Dimension::voltage), "12.46\u2009V");
    EXPECT_EQ(quantity(-13, Dimension::current), "\u221213\u2009A");
    EXPECT_EQ(quantity(0.047, Dimension::fraction), "4.7\u2009%");
    EXPECT_EQ(quantity(0.0004, Dimension::resistance), "0.4\u2009mΩ");
    EXPECT_EQ(quantity(4.5, Dimension::length), "4.5\u2009m");
    EXPECT_EQ(quantity(4.5, Dimension::length, {LeadUnits::inch, false}), "14.8\u2009ft");
    EXPECT_EQ(quantity(4.5, Dimension::length, {LeadUnits::metric, true}), "4,5\u2009m");
    EXPECT_EQ(quantity(0, Dimension::temperature), "0\u2009°C");
    EXPECT_EQ(words::number(1234.4), "1234");
    EXPECT_EQ(words::duration_h(3 + 10.0 / 60), "3\u2009h 10\u2009min");
    EXPECT_EQ(words::duration_h(0.75), "45\u2009min");
}

TEST(Format, WhatIsShownCanBeTypedBack) {
    for (double v : {0.0004, 0.3, 4.57, 13.0, 180.0})
        for (Dimension d : {Dimension::current, Dimension::voltage, Dimension::length, Dimension::resistance,
                            Dimension::power})
            for (const words::Style& s : {words::Style{}, words::Style{LeadUnits::inch, true}})
                if (d == Dimension::length) {  // to what a tape reads: 3 m are 9.84 ft
                    EXPECT_NEAR(*parse_value(words::editable(v, d, s), d), v, 0.0016);
                } else {
                    EXPECT_NEAR(*parse_value(words::editable(v, d, s), d) / v, 1, 1e-8);
                }
    EXPECT_EQ(words::editable(3, Dimension::length, words::Style{LeadUnits::inch, false}), "9.84 ft");
}

TEST(Why, EveryNumberHasFormulaAndSource) {
    using K = words::ValueKind;
    const Plan plan = *load_plan(demo_path(kDemos[0]));
    for (const State& state : plan.states) {
        const Solution s = solve(plan, state);
        const auto check = [&](K kind, const Id& id) {
            const auto e = words::explain({kind, id, 0}, plan, state, s);
            EXPECT_FALSE(e.title.empty()) << id;
            EXPECT_FALSE(e.value.empty()) << e.title;
            EXPECT_FALSE(e.steps.empty()) << e.title;
        };
        for (const Load& l : plan.loads)
            for (K k : {K::load_current, K::load_voltage, K::load_drop}) check(k, l.id);
        for (const yr::Run& r : plan.runs)
            for (K k : {K::run_current, K::run_drop, K::run_temperature, K::run_heat, K::run_ampacity,
                        K::run_resistance, K::device_drop})
                check(k, r.id);
        for (const Source& x : plan.sources)
            for (K k : {K::source_current, K::source_limit, K::source_voltage}) check(k, x.id);
        for (const Battery& b : plan.batteries)
            for (K k : {K::battery_current, K::battery_voltage, K::battery_hours}) check(k, b.id);
    }
    EXPECT_TRUE(words::explain({K::load_drop, "gone", 0}, plan, plan.states[0], solve(plan, plan.states[0]))
                    .title.empty());
}

TEST(Why, TheStepsCarryTheNumbersAndTheSource) {
    const Plan plan = *load_plan(demo_path(kDemos[0]));
    const State& idle = *find_state(plan, "Idling");
    const Solution s = solve(plan, idle);
    Id feed;
    for (const yr::Run& r : plan.runs)
        if (r.name == "echo sounder feed") feed = r.id;
    const std::string text =
        words::text(words::explain({words::ValueKind::run_drop, feed, 0}, plan, idle, s));
    EXPECT_THAT(text, HasSubstr("I × R"));
    EXPECT_THAT(text, HasSubstr("IEC 60028"));
    EXPECT_THAT(text, HasSubstr("ASTM B258"));
    EXPECT_THAT(text, HasSubstr("0.00393"));
}

// 2^3015 x 3: more than a double can hold. Its logarithm by hand: 3015 x 0.30103 + 0.47712 = 908.08.
TEST(Sentences, CombinationsOfAThousandFusesAreCounted) {
    SneakSearch search;
    search.switches = 15, search.fuses = 3000, search.positions = 3;
    search.combinations = std::numeric_limits<double>::infinity();
    EXPECT_THAT(words::search_text(search),
                testing::HasSubstr("1.2 \xC3\x97 10\xE2\x81\xB9\xE2\x81\xB0\xE2\x81\xB8"));
    search.switches = 4, search.fuses = 8, search.positions = 3, search.combinations = 3 * 4096;
    EXPECT_THAT(words::search_text(search), testing::HasSubstr("12\xE2\x80\x89"
                                                               "288"));
}

TEST(Sentences, ErrorsNameThePlaceAndNeverSayInvalid) {
    for (int k = 0; k <= static_cast<int>(ErrorCode::unwritable_file); ++k) {
        const std::string s = words::sentence(
            Error{static_cast<ErrorCode>(k), "runs, feed, size", "7 bananas", Want::a_size_of_the_tables});
        EXPECT_THAT(s, HasSubstr("runs, feed, size"));
        EXPECT_EQ(s.find("nvalid"), std::string::npos);
    }
}

}  // namespace
}  // namespace yr::test
