#include "size/cable_size.h"

#include <cmath>
#include <numbers>

#include "size/run_check.h"
#include "units/quantity.h"

namespace yr {
namespace {

Result<bool> check(const SizeAsk& ask) {
    const auto bad = [](const char* place, double given, const Wanted& wanted) {
        return fail(ErrorCode::out_of_range, place, std::to_string(given), wanted);
    };
    if (!(ask.current_A > 0) || ask.current_A > 1e5)
        return bad("current", ask.current_A, Want::more_than_0_a);
    if (!(ask.there_and_back_m > 0) || ask.there_and_back_m > 1000)
        return bad("length", ask.there_and_back_m, {Want::more_than_to, "0 m", "1000 m"});
    if (!(ask.nominal_V > 0) || ask.nominal_V > 1000)
        return bad("nominal", ask.nominal_V, {Want::more_than_to, "0 V", "1000 V"});
    if (!(ask.drop_share > 0) || ask.drop_share > 0.5)
        return bad("drop", ask.drop_share * 100, {Want::more_than_to, "0 %", "50 %"});
    if (!(ask.insulation_C >= 60) || ask.insulation_C > 250)
        return bad("insulation", ask.insulation_C, {Want::between, "60 C", "250 C"});
    if (ask.parallel < 1 || ask.parallel > 8)
        return bad("parallel", ask.parallel, Want::from_1_to_8_cables_side_by_side);
    if (ask.on_s && !(*ask.on_s > 0)) return bad("on", *ask.on_s, Want::more_than_0);
    if (!(ask.duty > 0) || ask.duty > 1)
        return bad("duty", ask.duty * 100, {Want::more_than_to, "0 %", "100 %"});
    if (ask.bundle < 1 || ask.bundle > 200) return bad("bundle", ask.bundle, {Want::between, "1", "200"});
    if (!(ask.ambient_C >= -60) || ask.ambient_C > 150)
        return bad("ambient", ask.ambient_C, {Want::between, "-60 C", "150 C"});
    return true;
}

// How far a row is over each limit, as a ratio; above 1 fails.
struct Excess {
    double ampacity, drop, fuse, temperature, guard;
};

Excess excess(const SizeRow& row, const SizeAsk& ask, double drop_limit_V) {
    const double allowed = std::max(row.ampacity.allowed_A, 1e-9);
    return {row.carries ? 0 : ask.current_A / allowed, std::max(row.drop_V, row.rule_drop_V) / drop_limit_V,
            ask.fuse_A ? *ask.fuse_A / allowed : 0, row.stays_cool ? 0 : 1.0001,
            row.withstands ? 0 : 1.00005};
}

Limit decider(const SizeLadder& ladder, const SizeAsk& ask) {
    const int failing = ladder.chosen < 0 ? static_cast<int>(ladder.rows.size()) - 1 : ladder.chosen - 1;
    if (failing < 0) return Limit::none;
    const Excess e = excess(ladder.rows[static_cast<std::size_t>(failing)], ask, ladder.drop_limit_V);
    const double worst = std::max({e.ampacity, e.drop, e.fuse, e.temperature, e.guard});
    if (worst == e.drop) return Limit::drop;
    if (worst == e.ampacity) return Limit::ampacity;
    if (worst == e.fuse) return Limit::fuse;
    return worst == e.temperature ? Limit::temperature : Limit::short_circuit;
}

}  // namespace

double circular_mils(double area_mm2) {
    constexpr double kMil_mm = 0.0254;
    return area_mm2 / (std::numbers::pi / 4 * kMil_mm * kMil_mm);
}

double quick_drop_V(AmpacityTable table, double current_A, double there_and_back_m, double area_mm2) {
    if (table == AmpacityTable::iso) return 0.0164 * current_A * there_and_back_m / area_mm2;
    return 10.75 * current_A * (there_and_back_m / kMetresPerFoot) / circular_mils(area_mm2);
}

Result<SizeLadder> size_cable(const SizeAsk& ask) {
    if (auto ok = check(ask); !ok) return tl::unexpected(ok.error());
    SizeLadder ladder;
    ladder.drop_limit_V = ask.drop_share * ask.nominal_V;
    ladder.physics_ambient_C = ask.engine_space ? std::max(ask.ambient_C, 50.0) : ask.ambient_C;
    const double bundle = ask.bundle_derating ? bundle_factor(ask.bundle) : 1;
    for (const WireSize& size : sizes_of(ask.system)) {
        SizeRow row;
        row.wire = *conductor(size, ask.material);
        const AmpacityAsk amp{size,          ask.material, ask.insulation_C,    ask.engine_space,
                              ask.ambient_C, ask.bundle,   ask.bundle_derating, ask.table};
        auto a = ampacity(amp);
        if (!a) return tl::unexpected(a.error());
        row.ampacity = *a;
        row.ampacity.allowed_A *= ask.parallel;
        const auto air = surroundings_of(row.wire, ladder.physics_ambient_C, bundle);
        const double each_A = ask.current_A / ask.parallel;
        row.temperature_C =
            ask.on_s
                ? duty_temperature(air, {each_A, *ask.on_s, 0, *ask.on_s * (1 - ask.duty) / ask.duty}).peak_C
                : conductor_temperature_C(air, each_A, 0);
        row.drop_V = each_A * ask.there_and_back_m * resistance_ohm_per_m(row.wire, row.temperature_C);
        row.rule_drop_V = quick_drop_V(ask.table, each_A, ask.there_and_back_m, row.wire.area_mm2);
        const double tolerance = 1 + 1e-12;
        row.table_carries = ask.current_A <= row.ampacity.allowed_A * tolerance;
        row.carries = row.table_carries || ask.on_s.has_value();
        row.drop_fits = std::max(row.drop_V, row.rule_drop_V) <= ladder.drop_limit_V * tolerance;
        row.fuse_fits = !ask.fuse_A || *ask.fuse_A <= row.ampacity.allowed_A * tolerance;
        row.stays_cool = row.temperature_C <= ask.insulation_C;
        if (ask.fuse_A) {
            const FuseGuard guard =
                fuse_guard(air, ask.insulation_C, std::min(row.temperature_C, ask.insulation_C), ask.parallel,
                           ask.fuse, *ask.fuse_A, ask.ambient_C);
            row.withstands = guard.guards;
            row.guard_C = guard.reached_C;
        }
        ladder.rows.push_back(row);
        if (ladder.chosen < 0 && row.passes()) ladder.chosen = static_cast<int>(ladder.rows.size()) - 1;
    }
    ladder.decides = decider(ladder, ask);
    return ladder;
}

}  // namespace yr
