// What is typed into one field is read back as the same thing, and what cannot be is named.
#include "typing/fields.h"

#include <gtest/gtest.h>

#include <random>

namespace yr::test {
namespace {

TEST(TypedFields, CurvesComeBack) {
    const Curve shares{{0, 20}, {0.5, 58}, {1, 96}}, speeds{{1500, 90}, {6000, 180.5}};
    EXPECT_EQ(typed_curve(shares, true), "0 %: 20, 50 %: 58, 100 %: 96");
    EXPECT_EQ(*read_curve(typed_curve(shares, true), true), shares);
    EXPECT_EQ(*read_curve(typed_curve(speeds, false), false), speeds);
    EXPECT_EQ(*read_curve("0: 20, 50: 58", true), (Curve{{0, 20}, {0.5, 58}}))
        << "the per cent may be left out";
    EXPECT_TRUE(read_curve("  ", true)->empty());
    for (const char* bad : {"1500", "a: 5", "1500: 90, 6000:", "1: 2: 3"}) {
        const auto read = read_curve(bad, false);
        ASSERT_FALSE(read) << bad;
        EXPECT_FALSE(read.error().given.empty()) << bad;
    }
}

TEST(TypedFields, ChannelsComeBack) {
    Channel c;
    c.number = 3, c.rating_A = 15, c.peak_A = 30, c.group = "A", c.label = "RADIO";
    EXPECT_EQ(typed_channel(c), "15 A; start 30 A; group A; label RADIO");
    EXPECT_EQ(*read_channel(typed_channel(c), 3), c);
    EXPECT_EQ(read_channel("4,5 A", 1)->rating_A, 4.5) << "a decimal comma is understood here";
    EXPECT_EQ(read_channel("", 7)->number, 7);
    EXPECT_EQ(read_channel("15 A; start soon", 1).error().given, "start soon");
    EXPECT_FALSE(read_channel("-3 A", 1));
}

TEST(TypedFields, GroupsComeBack) {
    const std::vector<ChannelGroup> groups{{"A", 35}, {"rear", 20.5}};
    EXPECT_EQ(*read_groups(typed_groups(groups)), groups);
    EXPECT_TRUE(read_groups("")->empty());
    for (const char* bad : {"A", "A: none", ": 30", "A: -3"}) EXPECT_FALSE(read_groups(bad)) << bad;
}

TEST(TypedFields, StockComesBack) {
    std::mt19937 random(7);
    for (int k = 0; k < 200; ++k) {
        std::vector<Stock> stock;
        for (int n = static_cast<int>(random() % 4); n > 0; --n)
            stock.push_back({random() % 2 ? WireSize::awg(static_cast<int>(random() % 20) - 3)
                                          : WireSize::metric(static_cast<double>(random() % 60 + 1)),
                             static_cast<double>(random() % 500 + 1) / 10});
        const auto read = read_stock(typed_stock(stock));
        ASSERT_TRUE(read) << typed_stock(stock);
        EXPECT_EQ(*read, stock) << typed_stock(stock);
    }
    EXPECT_EQ(read_stock("10 m 25 mm², 6 ft 8 AWG")->size(), 2U);
    for (const char* bad : {"10 m", "25 mm2", "ten m 8 AWG", "10 m 11.5 AWG", "-2 m 8 AWG"}) {
        const auto read = read_stock(bad);
        ASSERT_FALSE(read) << bad;
        EXPECT_EQ(read.error().given, bad);
    }
}

}  // namespace
}  // namespace yr::test
