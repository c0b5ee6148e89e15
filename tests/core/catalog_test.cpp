#include <gtest/gtest.h>

#include "catalog/ampacity.h"
#include "catalog/assumptions.h"
#include "catalog/batteries.h"
#include "catalog/fuses.h"

namespace yr::test {
namespace {

TEST(Catalog, EveryTableNamesItsSource) {
    for (const Assumption& a : all_assumptions()) EXPECT_FALSE(a.source.empty()) << a.key;
    for (auto t : {FuseType::blade, FuseType::blade_large, FuseType::bolt})
        EXPECT_NE(fuse_kind(t).source.find("ISO 8820"), std::string::npos);
    for (auto system : {SizeSystem::awg, SizeSystem::sae, SizeSystem::metric})
        for (const WireSize& s : sizes_of(system)) EXPECT_FALSE(conductor(s)->source.empty());
    EXPECT_THROW((void)assumption("no_such_key"), std::logic_error);
}

TEST(Catalog, ThickerIsBetterInEveryRespect) {
    for (auto system : {SizeSystem::awg, SizeSystem::sae, SizeSystem::metric}) {
        const auto& sizes = sizes_of(system);
        for (std::size_t k = 1; k < sizes.size(); ++k) {
            const Conductor thin = *conductor(sizes[k - 1]), thick = *conductor(sizes[k]);
            EXPECT_GT(thick.area_mm2, thin.area_mm2);
            EXPECT_LT(thick.R20_ohm_per_m, thin.R20_ohm_per_m);
            EXPECT_GT(thick.outer_diameter_mm, thin.outer_diameter_mm);
            for (auto table : {AmpacityTable::abyc, AmpacityTable::iso}) {
                AmpacityAsk a, b;
                a.size = thin.size, b.size = thick.size, a.table = b.table = table;
                EXPECT_GT(ampacity(b)->allowed_A, ampacity(a)->allowed_A) << name_of(thick.size);
            }
        }
    }
}

TEST(Catalog, SizesBetweenTheTablesAreMarked) {
    AmpacityAsk ask;
    ask.size = WireSize::metric(16);  // between 6 and 4 AWG
    const auto a = ampacity(ask);
    EXPECT_TRUE(a->interpolated);
    EXPECT_GT(a->allowed_A, 120);
    EXPECT_LT(a->allowed_A, 160);
    ask.size = WireSize::awg(10);
    ask.insulation_C = 80;
    EXPECT_TRUE(ampacity(ask)->insulation_scaled);
    EXPECT_NEAR(ampacity(ask)->allowed_A, 60 * std::sqrt(50.0 / 75), 1e-9);
}

TEST(Catalog, RefusesWhatCannotBe) {
    AmpacityAsk ask;
    ask.bundle = 0;
    EXPECT_EQ(ampacity(ask).error().code, ErrorCode::out_of_range);
    ask.bundle = 1;
    ask.insulation_C = 35;
    EXPECT_EQ(ampacity(ask).error().code, ErrorCode::out_of_range);
    EXPECT_EQ(conductor(WireSize::metric(17)).error().code, ErrorCode::unknown_size);
    ask.insulation_C = 105;
    ask.ambient_C = 110;
    EXPECT_EQ(ampacity(ask)->allowed_A, 0)
        << "air hotter than the insulation carries nothing; that is an answer, not an error";
}

TEST(Catalog, CopperCladAluminiumIsNotCopper) {
    const Conductor cu = *conductor(WireSize::awg(4)), cca = *conductor(WireSize::awg(4), Material::cca);
    EXPECT_GT(cca.R20_ohm_per_m, 1.5 * cu.R20_ohm_per_m);
    AmpacityAsk ask;
    ask.size = WireSize::awg(4), ask.material = Material::cca;
    EXPECT_LT(ampacity(ask)->allowed_A, 0.85 * 160);
}

TEST(Catalog, FuseBandsNarrowWithCurrent) {
    for (auto t : {FuseType::blade, FuseType::blade_large, FuseType::bolt}) {
        const auto& band = fuse_kind(t).band;
        for (std::size_t k = 0; k < band.size(); ++k) {
            if (band[k].latest_s) EXPECT_GT(*band[k].latest_s, band[k].earliest_s);
            if (k > 0) EXPECT_LT(band[k].earliest_s, band[k - 1].earliest_s);
        }
    }
}

TEST(Catalog, StepSizeStopsAtTheEnds) {
    EXPECT_EQ(step_size(WireSize::awg(10), 1), WireSize::awg(8));
    EXPECT_EQ(step_size(WireSize::awg(10), -1), WireSize::awg(12));
    EXPECT_EQ(step_size(WireSize::awg(-3), 5), WireSize::awg(-3));
    EXPECT_EQ(step_size(WireSize::awg(17), 1), WireSize::awg(16)) << "between two that can be chosen";
    EXPECT_EQ(step_size(WireSize::awg(17), 2), WireSize::awg(14));
    EXPECT_EQ(step_size(WireSize::awg(17), -1), WireSize::awg(18));
    EXPECT_EQ(step_size(WireSize::awg(30), 1), sizes_of(SizeSystem::awg).front());
    EXPECT_EQ(step_size(WireSize::awg(30), -1), WireSize::awg(30)) << "none is thinner";
    EXPECT_EQ(step_size(WireSize::metric(1000), 1), WireSize::metric(1000))
        << "a size that no table holds stays";
}

}  // namespace
}  // namespace yr::test
