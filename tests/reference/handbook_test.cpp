// Published tables and worked examples. Each value is from memory of its source until the document is at
// hand.
#include <gtest/gtest.h>

#include <cmath>

#include "catalog/ampacity.h"
#include "catalog/assumptions.h"
#include "catalog/batteries.h"
#include "catalog/fuses.h"
#include "size/cable_size.h"
#include "size/fuse_size.h"
#include "solve/settle.h"

namespace yr::test {
namespace {

WireSize gauge(int n) {
    return WireSize::awg(n);
}

TEST(Handbook, AstmB258Areas) {  // ASTM B258, from memory
    const std::pair<int, double> rows[] = {{18, 0.8231}, {14, 2.081}, {10, 5.261}, {8, 8.366},  {6, 13.30},
                                           {4, 21.15},   {2, 33.63},  {0, 53.48},  {-1, 67.43}, {-3, 107.2}};
    for (const auto& [n, area] : rows) EXPECT_NEAR(awg_area_mm2(n) / area, 1, 5e-4) << n;
}

TEST(Handbook, NecChapter9Table8StrandedCopperAt75C) {  // NFPA 70 chapter 9 table 8, from memory
    const std::pair<int, double> rows[] = {{18, 7.95}, {14, 3.14},   {12, 1.98},  {10, 1.24},
                                           {8, 0.778}, {6, 0.491},   {4, 0.308},  {2, 0.194},
                                           {0, 0.122}, {-1, 0.0967}, {-3, 0.0608}};
    for (const auto& [n, ohm_per_kft] : rows) {
        const double ours = resistance_ohm_per_m(*conductor(gauge(n)), 75) * 304.8;
        EXPECT_NEAR(ours / ohm_per_kft, 1, 0.02) << n;
    }
}

TEST(Handbook, Iec60228Class5) {  // IEC 60228 class 5, plain copper, from memory
    const std::pair<double, double> rows[] = {
        {0.75, 26.0}, {1, 19.5},   {1.5, 13.3}, {2.5, 7.98}, {4, 4.95},   {6, 3.30},  {10, 1.91},
        {16, 1.21},   {25, 0.780}, {35, 0.554}, {50, 0.386}, {70, 0.272}, {95, 0.206}};
    for (const auto& [area, mohm] : rows) {
        const Conductor c = *conductor(WireSize::metric(area));
        EXPECT_NEAR(c.R20_ohm_per_m * 1000, mohm, 1e-9) << area;
        EXPECT_GT(c.R20_ohm_per_m, 1 / 58.0 / area) << "a table value lies above what the area gives";
    }
}

TEST(Handbook, SaeSizesAreThinnerThanAwg) {  // SAE J1128, from memory
    const std::pair<int, double> rows[] = {{20, 0.508}, {18, 0.760}, {16, 1.12}, {14, 1.85},
                                           {12, 2.91},  {10, 4.65},  {8, 7.23}};
    for (const auto& [n, area] : rows) {
        EXPECT_DOUBLE_EQ(conductor(WireSize::sae(n))->area_mm2, area);
        EXPECT_LT(area, awg_area_mm2(n));
    }
}

TEST(Handbook, AbycE11Ampacity) {  // ABYC E-11, 105 C insulation, from memory
    const std::pair<int, double> rows[] = {{18, 20}, {16, 25},  {14, 35},  {12, 45}, {10, 60},
                                           {8, 80},  {6, 120},  {4, 160},  {2, 210}, {1, 245},
                                           {0, 285}, {-1, 330}, {-2, 385}, {-3, 445}};
    for (const auto& [n, amps] : rows) {
        AmpacityAsk ask;
        ask.size = gauge(n);
        EXPECT_NEAR(ampacity(ask)->allowed_A, amps, 1e-9) << n;
        EXPECT_FALSE(ampacity(ask)->interpolated);
        ask.engine_space = true;
        EXPECT_NEAR(ampacity(ask)->allowed_A, amps * 0.85, 1e-9) << n;
    }
    const std::pair<int, double> bundles[] = {{1, 1},   {2, 1},    {3, 0.7},  {4, 0.6}, {6, 0.6},
                                              {7, 0.5}, {24, 0.5}, {25, 0.4}, {99, 0.4}};
    for (const auto& [n, factor] : bundles) EXPECT_DOUBLE_EQ(bundle_factor(n), factor) << n;
}

TEST(Handbook, Iso10133Ampacity) {  // ISO 10133 annex, from memory
    AmpacityAsk ask;
    ask.table = AmpacityTable::iso;
    ask.size = WireSize::metric(16);
    for (const auto& [insulation, amps, engine] :
         {std::tuple{70.0, 90.0, 0.75}, {85.0, 100.0, 0.82}, {90.0, 100.0, 0.82}, {105.0, 130.0, 0.86}}) {
        ask.insulation_C = insulation;
        ask.engine_space = false;
        EXPECT_NEAR(ampacity(ask)->allowed_A, amps, 1e-9) << insulation;
        ask.engine_space = true;
        EXPECT_NEAR(ampacity(ask)->allowed_A, amps * engine, 1e-9) << insulation;
    }
}

TEST(Handbook, HotAirTakesTheLowerOfFactorAndCorrection) {
    AmpacityAsk ask;
    ask.size = gauge(0);
    ask.ambient_C = 85;
    EXPECT_NEAR(ampacity(ask)->surroundings, std::sqrt(20.0 / 75), 1e-12);
    ask.engine_space = true;  // never the product of both
    EXPECT_NEAR(ampacity(ask)->surroundings, std::sqrt(20.0 / 75), 1e-12);
    ask.ambient_C = 50;  // the factor is the correction to about 50 C
    EXPECT_NEAR(ampacity(ask)->surroundings, 0.85, 1e-12);
    EXPECT_NEAR(ampacity(ask)->ambient_factor, 0.856, 1e-3);
}

TEST(Handbook,
     AbycDropExample) {  // ABYC E-11: 10 A, 20 ft there and back, 3 % of 12 V: 5972 cmil, 12 AWG; from memory
    SizeAsk ask;
    ask.current_A = 10;
    ask.there_and_back_m = 20 * 0.3048;
    const auto ladder = size_cable(ask);
    ASSERT_TRUE(ladder);
    EXPECT_NEAR(10.75 * 10 * 20 / 0.36, 5972, 0.3);
    EXPECT_NEAR(quick_drop_V(AmpacityTable::abyc, 10, ask.there_and_back_m, 5972 * 5.067074790974977e-4),
                0.36, 1e-4);
    EXPECT_EQ(name_of(ladder->rows[static_cast<std::size_t>(ladder->chosen)].wire.size), "12 AWG");
    EXPECT_EQ(ladder->decides, Limit::drop);
    EXPECT_NEAR(circular_mils(awg_area_mm2(12)), 6530, 1);
}

TEST(Handbook, IsoDropFormula) {  // ISO 10133 annex, from memory
    EXPECT_NEAR(quick_drop_V(AmpacityTable::iso, 20, 10, 10), 0.0164 * 20 * 10 / 10, 1e-12);
}

TEST(Handbook, BladeFuseBand) {  // ISO 8820-3 types C and F, from memory
    const FuseKind& k = fuse_kind(FuseType::blade);
    const std::tuple<double, double, double> rows[] = {
        {1.35, 0.75, 600}, {1.60, 0.25, 50}, {2.00, 0.15, 5}, {3.50, 0.04, 0.5}, {6.00, 0.02, 0.1}};
    EXPECT_DOUBLE_EQ(k.band[0].multiple, 1.10);
    EXPECT_DOUBLE_EQ(k.band[0].earliest_s, 100 * 3600);
    EXPECT_FALSE(k.band[0].latest_s.has_value()) << "no opening is guaranteed at 110 %";
    for (std::size_t n = 0; n < 5; ++n) {
        EXPECT_DOUBLE_EQ(k.band[n + 1].multiple, std::get<0>(rows[n]));
        EXPECT_DOUBLE_EQ(k.band[n + 1].earliest_s, std::get<1>(rows[n]));
        EXPECT_DOUBLE_EQ(*k.band[n + 1].latest_s, std::get<2>(rows[n]));
    }
    EXPECT_DOUBLE_EQ(k.interrupting_A, 1000);
    EXPECT_DOUBLE_EQ(fuse_kind(FuseType::bolt).interrupting_A, 2000);
}

TEST(Handbook, FloodedBatteryAtRest) {  // common practice, no source
    const Table& t = chemistry_data(Chemistry::flooded).ocv_V;
    for (const auto& [charge, volts] : {std::pair{1.0, 12.65}, {0.75, 12.45}, {0.5, 12.24}, {0.25, 12.06}})
        EXPECT_NEAR(interpolate(t, charge), volts, 1e-9);
}

TEST(Handbook, CrankingAmpsHold7V2Cold) {  // SAE J537: above 7.2 V at the cranking amps at -18 C, from memory
    Plan plan = empty_plan("j537");
    plan.batteries[0].cranking_A = 600;
    plan.batteries[0].charge = 1;
    plan.states = {{"s", "cold", Key::off, 0, -18, -18, {}, {}}};
    const BatteryElement b = compile(plan, plan.states[0]).batteries[0];
    EXPECT_NEAR(b.open_V - b.R0_ohm * 600, 7.2, 0.15);
}

// Facts of the trade: common practice, no published source.
TEST(Trade, FourInjectorsOfTwoAmpsTake15ByTheFirstSchool) {
    const auto a = choose_fuse({8, std::nullopt, 35}, FuseSchool::load150);
    EXPECT_DOUBLE_EQ(a->needed_A, 12);
    EXPECT_DOUBLE_EQ(a->chosen->rating_A, 15);
}

TEST(Trade, FanOf22AmpsStartingJustOver30) {
    const FuseAsk ask{22, 30.5, 40};
    EXPECT_DOUBLE_EQ(choose_fuse(ask, FuseSchool::wire)->chosen->rating_A, 35) << "the smallest that holds";
    const auto rows = choose_fuse(ask, FuseSchool::wire)->rows;
    for (const FuseRow& r : rows)
        if (r.fuse.rating_A == 40)
            EXPECT_TRUE(r.carries && r.holds_inrush && r.protects_cable)
                << "40 A is allowed where its cable stands 40 A";
}

TEST(Trade, LampOf55WattsDrawsFourAmpsRunning) {
    EXPECT_NEAR(55 / 13.75, 4.0, 1e-12);
    Plan plan = empty_plan("lamp");
    plan.batteries[0].R0_ohm = 1e-6;
    plan.batteries[0].charge = 0.5;
    plan.batteries[0].chemistry = Chemistry::flooded;
    plan.loads.push_back({"l", "lamp", 1, {DrawKind::power, 55}, {}, {}, false, {}, false, {}, {}});
    yr::Run r;
    r.id = "a", r.name = "a", r.from = "point-bus", r.to = "l.pos", r.length_m = 0.01,
    r.size = WireSize::awg(2);
    plan.runs.push_back(r);
    r.id = "b", r.from = "l.neg", r.to = "battery-1.neg";
    plan.runs.push_back(r);
    EXPECT_NEAR(solve(plan, plan.states[0]).point.loads[0].current_A, 55 / 12.24, 0.02);
}

TEST(Trade, TwentyTwoGaugeAtEightAmps) {  // seen to smoke in a bundle; in free air the balance says about 63
                                          // C at 30 C
    const Conductor c = *conductor(gauge(22));
    EXPECT_NEAR(conductor_temperature_C(surroundings_of(c, 30, 1), 8, 0), 63, 6);
    EXPECT_GT(conductor_temperature_C(surroundings_of(c, 60, 0.5), 8, 0), 105)
        << "in a bundle in a hot bay it is over its limit";
}

TEST(Trade, InverterOf1000WattsOverloadsAn80AmpBreaker) {
    EXPECT_NEAR(1000.0 / 12, 83.3, 0.05);
    EXPECT_NEAR(1000.0 / 12 / 0.88, 94.7, 0.05);
    const auto a = choose_fuse({1000.0 / 12 / 0.88, std::nullopt, 160}, FuseSchool::wire);
    EXPECT_GT(a->chosen->rating_A, 80);
}

TEST(Trade, CableOf240AmpAlternatorOn250AmpFuse) {
    AmpacityAsk ask;
    ask.size = gauge(0);
    ask.engine_space = true;
    EXPECT_NEAR(ampacity(ask)->allowed_A, 242, 0.5) << "engine space leaves 1/0 242 A";
    EXPECT_NEAR(240.0 / 250, 0.96, 1e-12);
}

}  // namespace
}  // namespace yr::test
