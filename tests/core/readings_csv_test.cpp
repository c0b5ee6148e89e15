// Tables of readings as people paste them.
#include <gtest/gtest.h>

#include <random>

#include "io/readings_csv.h"
#include "plan/plan_json.h"
#include "support/random_plan.h"
#include "units/quantity.h"

namespace yr::test {
namespace {

Survey read(const std::string& text) {
    const auto s = read_readings_csv(text, {}, empty_plan("x"));
    EXPECT_TRUE(s.has_value()) << (s ? "" : s.error().place);
    return s ? *s : Survey{};
}

TEST(ReadingsCsv, OneRowAPoint) {
    const Survey s = read(
        "point,key off,accessory,running,after\nfront battery,12.6,12.5,14.1,12.9\n\"cab, left\",0,12.4,,\n");
    ASSERT_EQ(s.points.size(), 2U);
    EXPECT_EQ(s.points[0].kind, SurveyKind::battery);
    EXPECT_EQ(s.points[1].name, "cab, left");
    EXPECT_EQ(s.readings.size(), 6U) << "an empty cell is not read";
    EXPECT_DOUBLE_EQ(s.readings[2].volts_V, 14.1);
}

TEST(ReadingsCsv, SemicolonsDecimalCommasUnitsAndAMark) {
    const Survey s = read("\xEF\xBB\xBFpoint;running\nbattery;14,12 V\n");
    ASSERT_EQ(s.readings.size(), 1U);
    EXPECT_DOUBLE_EQ(s.readings[0].volts_V, 14.12);
}

TEST(ReadingsCsv, OneRowAReadingWithItsDraw) {
    const Survey s =
        read("point,key,drawn at,volts\na battery,running,,14.1\na battery,running,a battery,13.8\n");
    ASSERT_EQ(s.readings.size(), 2U);
    EXPECT_TRUE(s.readings[0].drawn_at.empty());
    EXPECT_EQ(s.readings[1].drawn_at, s.points[0].id);
}

TEST(ReadingsCsv, WhatCannotBeReadIsNamedByItsPlace) {
    const auto place = [](const std::string& text) {
        const auto s = read_readings_csv(text, {}, empty_plan("x"));
        return s ? std::string("taken") : s.error().place;
    };
    EXPECT_EQ(place("point,key off\nbattery,twelve\n"), "line 2, column 2");
    EXPECT_EQ(place("point,key off\n,12\n"), "line 2, column 1");
    EXPECT_EQ(place("point,key,drawn at,volts\nbattery,sideways,,12\n"), "line 2, column 2");
    EXPECT_EQ(place("point,key off\nbattery,1200\n"), "line 2, column 2");
    EXPECT_EQ(place(""), "line 1");
}

TEST(ReadingsCsv, OutAndInIsTheSame) {
    const Survey s = load_plan(demo_path(kDemos[0]))->survey;
    const auto back = read_readings_csv(readings_csv(s), {s.points, {}}, empty_plan("x"));
    ASSERT_TRUE(back.has_value());
    EXPECT_EQ(back->points, s.points);
    ASSERT_EQ(back->readings.size(), s.readings.size());
    for (std::size_t k = 0; k < s.readings.size(); ++k) {
        EXPECT_EQ(back->readings[k].point, s.readings[k].point);
        EXPECT_NEAR(back->readings[k].volts_V, s.readings[k].volts_V, 1e-6);
    }
}

// A meter of five digits says 12.345: no vehicle has twelve thousand volts.
TEST(ReadingsCsv, ThreeDecimalsAreNoThousands) {
    const Survey s = read("point;running\nrear socket;12.345\nbattery;14,021 V\nrail;99.999\n");
    ASSERT_EQ(s.readings.size(), 3U);
    EXPECT_DOUBLE_EQ(s.readings[0].volts_V, 12.345);
    EXPECT_DOUBLE_EQ(s.readings[1].volts_V, 14.021);
    EXPECT_DOUBLE_EQ(s.readings[2].volts_V, 99.999);
    const Survey again = read(readings_csv(s));
    ASSERT_EQ(again.readings.size(), 3U);
    EXPECT_DOUBLE_EQ(again.readings[0].volts_V, 12.345);
    // 12 345 mV and 12.345 mV can both be read
    EXPECT_FALSE(read_readings_csv("point;running\nx;12.345 mV\n", {}, empty_plan("x")).has_value());
    EXPECT_DOUBLE_EQ(parse_reading("1.234 A", Dimension::current).value_or(0), 1.234);
    EXPECT_FALSE(parse_reading("1.234", Dimension::resistance).has_value()) << "an ohm or a kilohm";
}

TEST(ReadingsCsv, AnyBytesComeBack) {
    std::mt19937 random(7);
    for (int k = 0; k < 2000; ++k) {
        std::string text;
        const char* bits[] = {"point",   ",",  ";",    "\n",  "\"", "12.6",
                              "running", "\t", "\xFF", "off", "-",  "\r"};
        for (auto n = random() % 20; n > 0; --n) text += bits[random() % 12];
        (void)read_readings_csv(text, {}, empty_plan("x"));
    }
}

TEST(ReadingsCsv, NothingVanishesAndNothingIsTakenTwice) {
    const Plan plan = empty_plan("x");
    const auto error = [&](const std::string& text) {
        const auto read = read_readings_csv(text, {}, plan);
        return read ? Error{} : read.error();
    };
    EXPECT_EQ(error("point,key off\nstud,12,5\n").code, ErrorCode::out_of_range);
    EXPECT_EQ(error("point,key off\nstud,12,5\n").place, "line 2, column 3");
    EXPECT_EQ(error("point,key off,engine hot\nstud,12.5,13\n").code, ErrorCode::unknown_name);
    EXPECT_EQ(error("point,key off\nstud,12.5\nstud,12.6\n").code, ErrorCode::doubled_key);
    EXPECT_EQ(error("point,key,drawn at,volts\n\"two\nlines\",key off,,12.5\nstud,key off,,x\n").place,
              "line 4, column 4");
}

}  // namespace
}  // namespace yr::test
