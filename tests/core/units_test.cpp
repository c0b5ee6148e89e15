#include <gtest/gtest.h>

#include <random>

#include "catalog/conductors.h"
#include "units/pattern.h"
#include "units/quantity.h"
#include "units/wire_size.h"

namespace yr::test {
namespace {

struct Written {
    const char* text;
    double value;
    Dimension dimension;
    int count = 1;
};

// Names the case by what is written, and not by where it lies in memory.
void PrintTo(const Written& w, std::ostream* out) {
    *out << w.text;
}

class ReadsWhatPeopleWrite : public testing::TestWithParam<Written> {};

TEST_P(ReadsWhatPeopleWrite, Quantity) {
    const auto q = parse_quantity(GetParam().text);
    ASSERT_TRUE(q) << GetParam().text;
    EXPECT_NEAR(q->value, GetParam().value, 1e-9);
    EXPECT_EQ(q->dimension, GetParam().dimension);
    EXPECT_EQ(q->count, GetParam().count);
}

INSTANTIATE_TEST_SUITE_P(
    Cases, ReadsWhatPeopleWrite,
    testing::Values(Written{"90 W", 90, Dimension::power}, Written{"4.5 ft", 1.3716, Dimension::length},
                    Written{"2x 90 W", 90, Dimension::power, 2}, Written{"2 × 90W", 90, Dimension::power, 2},
                    Written{"4,5 m", 4.5, Dimension::length}, Written{"15A", 15, Dimension::current},
                    Written{"3 %", 0.03, Dimension::fraction}, Written{"105C", 105, Dimension::temperature},
                    Written{"-18 °C", -18, Dimension::temperature}, Written{"25 mm2", 25, Dimension::area},
                    Written{"25 mm²", 25, Dimension::area}, Written{"0.4 mΩ", 4e-4, Dimension::resistance},
                    Written{"3.3 ohm", 3.3, Dimension::resistance}, Written{"20'", 6.096, Dimension::length},
                    Written{"18 in", 0.4572, Dimension::length}, Written{"1.2 kW", 1200, Dimension::power},
                    Written{"−0.5 V", -0.5, Dimension::voltage},
                    Written{"12.46 V", 12.46, Dimension::voltage},
                    Written{"1e-3 ohm", 1e-3, Dimension::resistance},
                    Written{"100 Ah", 100, Dimension::charge}, Written{"  7.5 a ", 7.5, Dimension::current}));

TEST(Quantity, SaysWhatIsWrong) {
    EXPECT_EQ(parse_quantity("").error().code, ErrorCode::empty);
    EXPECT_EQ(parse_quantity("abc").error().code, ErrorCode::not_a_number);
    EXPECT_EQ(parse_quantity("4 parsecs").error().code, ErrorCode::unknown_unit);
    EXPECT_EQ(parse_value("4 m", Dimension::current).error().code, ErrorCode::wrong_dimension);
    EXPECT_EQ(parse_value("2x 4 A", Dimension::current).error().code, ErrorCode::wrong_dimension);
    EXPECT_FALSE(parse_quantity("1e999 A"));
    EXPECT_FALSE(parse_quantity("1,234,5 A")) << "thousands separators are not read";
}

TEST(Quantity, BareNumberTakesTheFieldsDimension) {
    EXPECT_NEAR(*parse_value("3", Dimension::fraction), 0.03, 1e-15);
    EXPECT_NEAR(*parse_value("15", Dimension::current), 15, 1e-15);
}

TEST(Quantity, NoBytesCrashTheReader) {
    std::mt19937 random(7);
    for (int k = 0; k < 20000; ++k) {
        std::string text(static_cast<std::size_t>(random() % 12), ' ');
        for (char& c : text)
            c = random() % 3 ? "0123456789.,x-+eE/ AWmft%"[random() % 24] : static_cast<char>(random());
        const auto q = parse_quantity(text);
        if (q) EXPECT_TRUE(std::isfinite(q->value)) << text;
        (void)parse_wire_size(text);
    }
}

TEST(WireSize, ReadsAllSpellings) {
    EXPECT_EQ(parse_wire_size("10"), WireSize::awg(10));
    EXPECT_EQ(parse_wire_size("AWG 10"), WireSize::awg(10));
    EXPECT_EQ(parse_wire_size("10 awg"), WireSize::awg(10));
    EXPECT_EQ(parse_wire_size("1/0"), WireSize::awg(0));
    EXPECT_EQ(parse_wire_size("0"), WireSize::awg(0));
    EXPECT_EQ(parse_wire_size("4/0 AWG"), WireSize::awg(-3));
    EXPECT_EQ(parse_wire_size("000"), WireSize::awg(-2));
    EXPECT_EQ(parse_wire_size("SAE 8"), WireSize::sae(8));
    EXPECT_EQ(parse_wire_size("8 sae"), WireSize::sae(8));
    EXPECT_EQ(parse_wire_size("25mm2"), WireSize::metric(25));
    EXPECT_EQ(parse_wire_size("2,5 mm²"), WireSize::metric(2.5));
    for (const char* bad : {"", "11.5 AWG", "5/0", "mm2", "-3", "25 kg", "0 mm2", "41"})
        EXPECT_FALSE(parse_wire_size(bad)) << bad;
}

TEST(WireSize, NameReadsBack) {
    for (const auto system : {SizeSystem::awg, SizeSystem::sae, SizeSystem::metric})
        for (const WireSize& size : sizes_of(system))
            EXPECT_EQ(parse_wire_size(name_of(size)), size) << name_of(size);
}

// Fifteen hundred or one and a half: never guessed.
TEST(Quantity, ThreeDigitsBehindACommaOrPointAreAskedAbout) {
    for (const char* text : {"1,500 W", "1.500 W", "12,625", "999.125 V"}) {
        EXPECT_TRUE(two_readings(text)) << text;
        EXPECT_EQ(parse_quantity(text, Dimension::power).error().code, ErrorCode::two_readings) << text;
    }
    EXPECT_EQ(*two_readings("1,500"), std::pair(1500.0, 1.5));
    EXPECT_EQ(parse_quantity("1,500 W", Dimension::power).error().wanted.value, "1500");
    for (const char* text : {"0.005", "0,125 m", "1.5", "1,50", "1.2500", "1500", "12345.678", "0.001e3",
                             "4.779e-05", "1.500E3"})
        EXPECT_FALSE(two_readings(text)) << text;
    EXPECT_NEAR(*parse_value("0,125 m", Dimension::length), 0.125, 1e-12);
}

TEST(Pattern, FindsWhateverTheLengthOfTheText) {
    static const Pattern amount(R"((\d+)\s*(A|W)\b)");
    Found m;
    ASSERT_TRUE(amount.is_in("pump 7 a, on key", m));
    EXPECT_EQ(m[0], "7 a");
    EXPECT_EQ(m[1], "7");
    EXPECT_EQ(m.before(), "pump ");
    EXPECT_EQ(m.behind(), ", on key");
    EXPECT_FALSE(amount.is_all_of("pump 7 A"));
    EXPECT_TRUE(amount.is_all_of("7 A"));
    EXPECT_EQ(amount.replaced("7 A and 90 W", "$2=$1"), "A=7 and W=90");
    EXPECT_FALSE(amount.is_in(""));
    const std::string long_one(200'000, 'x');  // no stack is climbed
    EXPECT_FALSE(amount.is_in(long_one));
    EXPECT_TRUE(amount.is_in(long_one + " 3 W", m));
    EXPECT_EQ(amount.replaced(long_one + " 3 W", "$1 V").size(), long_one.size() + 4);
    static const Pattern slow(R"(^(?:a+)+$)");  // one that tries for ever ends, as not found
    EXPECT_FALSE(slow.is_in(std::string(60, 'a') + "b"));
    static const Pattern either("(x)|(y)");
    ASSERT_TRUE(either.is_in("y", m));
    EXPECT_FALSE(m.has(1));
    EXPECT_TRUE(m.has(2));
    EXPECT_EQ(m[1], "");
    ASSERT_TRUE(either.is_in(m[0], m)) << "a text that is the answer's own";
}

}  // namespace
}  // namespace yr::test
