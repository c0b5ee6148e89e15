#include "sim/battery_monitor.h"

#include <algorithm>
#include <cstdio>
#include <random>

namespace yr {

HiddenInTheDay hidden_of(unsigned seed) {
    if (seed == 0) return {};
    std::mt19937 random(seed);
    const auto pick = [&](double low, double high) {
        return low + (high - low) * static_cast<double>(random() % 1000) / 1000;
    };
    return {pick(0.7, 1.0), pick(0, 0.6), pick(-0.02, 0.02)};
}

Result<std::string> monitor_log(const Plan& plan, const Day& day, const HiddenInTheDay& hidden,
                                double every_s, unsigned seed) {
    if (plan.batteries.empty()) return fail(ErrorCode::empty, "batteries", {}, Want::a_battery_of_this_plan);
    Plan real = plan;
    Battery& battery = real.batteries.front();
    battery.health = battery.health.value_or(1) * hidden.health;
    if (hidden.forgotten_A > 0) {
        Load l;
        l.id = new_id(real, "load"), l.name = l.id;
        l.draw = {DrawKind::current, hidden.forgotten_A};
        Run there, back;
        there.id = l.id + "-feed", back.id = l.id + "-return";
        there.name = there.id, back.name = back.id;
        there.from = pos_of(battery.id), there.to = pos_of(l.id), back.from = neg_of(l.id),
        back.to = neg_of(battery.id);
        there.length_m = back.length_m = 1;
        there.size = back.size = WireSize::awg(14);
        real.loads.push_back(l);
        real.runs.push_back(there), real.runs.push_back(back);
    }
    const DayRun run = run_day(real, day);
    if (!run.whole) return fail(ErrorCode::empty, "days, " + day.name, {}, Want::a_day_of_this_plan);
    std::mt19937 random(seed + 17);
    std::normal_distribution<double> noise(0, 0.003);
    std::string out = "clock,V,A,charge %\n";
    std::size_t at = 0;
    for (int k = 0; k * every_s <= run.length_s; ++k) {
        const double t = k * every_s;
        while (at + 1 < run.points.size() && run.points[at + 1].t_s <= t) ++at;
        const DayPoint& p = run.points[at];
        const double clock = t + day.begins_h * 3600;
        char row[96];
        std::snprintf(row, sizeof row, "%02d:%02d:%02d,%.3f,%.2f,%.1f\n", static_cast<int>(clock / 3600) % 24,
                      static_cast<int>(clock / 60) % 60, static_cast<int>(clock) % 60,
                      p.battery_V[0] + hidden.volts_off_V + noise(random), p.battery_A[0], 100 * p.charge[0]);
        out += row;
    }
    return out;
}

}  // namespace yr
