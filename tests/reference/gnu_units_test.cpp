// Wire geometry, copper and unit factors against GNU units, run as a program.
#include <gtest/gtest.h>

#include <cmath>

#include "catalog/conductors.h"
#include "support/run_program.h"
#include "units/quantity.h"

namespace yr::test {
namespace {

double units(const std::string& have, const std::string& want) {
    const Ran r = run("units -o %.14g -t '" + have + "' '" + want + "'");
    EXPECT_EQ(r.code, 0) << have << ": " << r.out;
    return std::strtod(r.out.c_str(), nullptr);
}

TEST(GnuUnits, AwgDiameterAndArea) {
    for (int n = -3; n <= 24; ++n) {
        const std::string gauge = "wiregauge(" + std::to_string(n) + ")";
        EXPECT_NEAR(awg_diameter_mm(n), units(gauge, "mm"), 1e-6) << n;
        EXPECT_NEAR(awg_area_mm2(n) / units(gauge + "^2 pi/4", "mm^2"), 1, 1e-6) << n;
    }
}

TEST(GnuUnits, CopperIsTheAnnealedStandard) {
    const double table =
        conductor(WireSize::awg(10))->R20_ohm_per_m * awg_area_mm2(10) / 1.02;  // without stranding
    EXPECT_NEAR(table / units("1/(58 S m/mm^2)", "ohm mm^2/m"), 1, 1e-9);
}

TEST(GnuUnits, FactorsOfWhatPeopleWrite) {
    const std::tuple<const char*, const char*, const char*> cases[] = {
        {"ft", "ft", "m"}, {"in", "in", "m"},          {"yd", "yd", "m"},        {"cm", "cm", "m"},
        {"hp", "hp", "W"}, {"kcmil", "kcmil", "mm^2"}, {"cmil", "cmil", "mm^2"}, {"kW", "kW", "W"},
        {"mV", "mV", "V"}, {"mohm", "mohm", "ohm"},    {"h", "hour", "s"}};
    for (const auto& [ours, theirs, base] : cases) {
        const auto unit = find_unit(ours);
        ASSERT_TRUE(unit) << ours;
        EXPECT_NEAR(unit->factor / units(theirs, base), 1, 1e-9) << ours;
    }
    EXPECT_NEAR(parse_quantity("212 F")->value, units("tempF(212)", "tempC"), 1e-9);
}

}  // namespace
}  // namespace yr::test
