// Meter: expected readings and their bands, test points, fault finding on whole vehicles with a hidden fault,
// parasitic draw, records, battery health, fitting a log, the coded plug.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <fstream>
#include <map>
#include <random>
#include <set>

#include "catalog/batteries.h"
#include "meter/coded_plug.h"
#include "meter/fit_log.h"
#include "meter/health.h"
#include "meter/parasitic.h"
#include "meter/practice.h"
#include "meter/records.h"
#include "meter/test_points.h"
#include "plan/edit.h"
#include "plan/plan_json.h"
#include "routes/lay.h"
#include "support/random_plan.h"
#include "support/run_program.h"
#include "support/sweep.h"
#include "support/vehicles.h"

namespace yr::test {
namespace {

[[maybe_unused]] Plan demo(std::size_t k) {
    Plan p = *load_plan(demo_path(kDemos[k]));
    lay(p);
    return p;
}

// The vehicle as it was really built: everything that a plan does not know to the last percent is a little
// different, and by other laws than those the locator assumes (even instead of normal).
Plan as_really_is(const Plan& plan, std::mt19937& random) {
    Plan p = plan;
    const auto about = [&](double spread) { return 1 + std::uniform_real_distribution<double>(-spread, spread)(random); };
    for (yr::Run& r : p.runs)
        if (r.length_m) *r.length_m *= about(0.08);
    for (Load& l : p.loads) l.draw.value *= about(0.12);
    for (Battery& b : p.batteries) {
        if (b.charge) *b.charge = std::clamp(*b.charge * about(0.06), 0.2, 1.0);
        if (b.R0_ohm) *b.R0_ohm *= about(0.3);
    }
    for (Source& s : p.sources)
        if (s.regulated_V) *s.regulated_V *= about(0.008);
    for (Point& g : p.points)
        if (g.bond_ohm) *g.bond_ohm *= about(0.6);
    for (State& s : p.states) s.ambient_C += 10 * (about(1) - 1), s.engine_bay_C += 10 * (about(1) - 1);
    return p;
}

struct Tally {
    int cases = 0, first = 0, three = 0, readings = 0;
    double brier = 0;
    std::vector<std::pair<double, bool>> said;
};

// One vehicle with one hidden fault: readings by the strategy, from the complaint on.
void find_one(const Plan& plan, std::uint32_t seed, PracticeLevel level, Tally& tally) {
    std::mt19937 random(seed);
    const Plan real = as_really_is(plan, random);
    HiddenFault hidden(real, seed, level);
    if (!hidden.there()) return;
    Locator locator(plan);
    NextAsk ask;
    ask.complaints = hidden.complaints();
    Location now = locator.locate({{}, ask.complaints, true, false, nullptr});
    for (int k = 0; k < 10; ++k) {
        const auto next = next_reading(locator, plan, now, ask);
        if (!next) break;
        const auto value = hidden.read(next->where);
        ASSERT_TRUE(value);
        ask.readings.push_back({next->where, *value});
        ask.last = next->where;
        now = locator.locate({ask.readings, ask.complaints, true, false, nullptr});
    }
    const auto things = now.things();
    ASSERT_FALSE(things.empty());
    // what no reading here tells apart counts as one: those whose readings would be the same
    const auto rank = [&] {
        std::set<std::size_t> before;
        for (std::size_t k = 0; k < now.suspects.size(); ++k) {
            if (hidden.is_it(now.suspects[k].fault.thing) || hidden.is_it(now.suspects[k].fault.other)) {
                const std::size_t group = now.suspects[k].twin_of;
                std::set<std::size_t> ahead;
                for (std::size_t j = 0; j < group; ++j) ahead.insert(now.suspects[j].twin_of);
                return ahead.size();
            }
        }
        return now.suspects.size();
    }();
    ++tally.cases;
    tally.first += rank == 0, tally.three += rank < 3;
    tally.readings += static_cast<int>(ask.readings.size());
    tally.brier += std::pow(things.front().second - (hidden.is_it(things.front().first) ? 1 : 0), 2);
    tally.said.emplace_back(things.front().second, hidden.is_it(things.front().first));
    if (!hidden.is_it(things.front().first) && std::getenv("YR_TELL")) {
        std::printf("seed %u %s: hidden %s %s (%g), said", seed, plan.vehicle.name.c_str(),
                    std::string(name_of(hidden.fault().kind)).c_str(), name_of(plan, hidden.fault().thing).c_str(),
                    hidden.strength());
        for (std::size_t k = 0; k < std::min<std::size_t>(4, things.size()); ++k)
            std::printf(" %s %.2f,", name_of(plan, things[k].first).c_str(), things[k].second);
        std::printf(" %zu readings\n", ask.readings.size());
    }
}

TEST(Locate, FindsWhatIsHiddenOnVehiclesThatDifferFromTheirPlan) {
    Tally t;
    const auto vehicles = sweep(100U, 250U);
    for (unsigned seed = 1; seed <= vehicles; ++seed)
        for (const PracticeLevel level : {PracticeLevel::open_circuit, PracticeLevel::bad_ground,
                                          PracticeLevel::wrong_size, PracticeLevel::with_heat})
            find_one(vehicle(seed).plan, 1000 + seed * 7 + static_cast<unsigned>(level), level, t);
    std::printf("%d cases, first %.3f, three %.3f, %.2f readings, Brier %.3f\n", t.cases,
                static_cast<double>(t.first) / t.cases, static_cast<double>(t.three) / t.cases,
                static_cast<double>(t.readings) / t.cases, t.brier / t.cases);
    std::map<int, std::pair<int, int>> tenths;
    int strict = 0;
    for (const auto& [said, right] : t.said) {
        auto& [all, good] = tenths[static_cast<int>(said * 10)];
        ++all, good += right, strict += right;
    }
    std::printf("strict %.3f\n", static_cast<double>(strict) / t.cases);
    for (const auto& [tenth, of] : tenths) std::printf("  said %.1f: %d of %d right\n", tenth / 10.0, of.second, of.first);
    EXPECT_GE(t.cases, 60);
    EXPECT_GE(t.first, 0.95 * t.cases);
    EXPECT_GE(t.three, 0.99 * t.cases);
}

}  // namespace
}  // namespace yr::test
