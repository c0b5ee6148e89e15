// Rules about copper: does it carry its amps, and is the way back as thick as the way there?
#include <algorithm>
#include <cmath>

#include "inspect/rules.h"

namespace yr {
namespace {

constexpr double kBigLoad_A = 15;  // above this a thin return is worth a word; common practice

std::optional<Mend> mend_ampacity(const Plan& plan, const Run& run, double current_A, const State& state) {
    if (!run.size) return std::nullopt;
    Run thicker = run;
    for (int step = 1; step <= 15; ++step) {
        thicker.size = step_size(*run.size, step);
        const auto a = run_ampacity(plan, thicker, state);
        if (a && a->allowed_A >= current_A)
            return Mend{MendKind::size, Put<Run>{thicker, {}}, run.id, run.size, thicker.size, 0, 0, {}};
    }
    return std::nullopt;
}

double copper_mm2(const Run& run) {
    if (!run.size) return 0;
    const auto c = conductor(*run.size, run.material);
    return c ? c->area_mm2 * run.parallel : 0;
}

// The first size of the return's own system with at least the supply's copper.
std::optional<WireSize> size_for(const Run& run, double area_mm2) {
    for (const WireSize& size : sizes_of(run.size->system())) {
        const auto c = conductor(size, run.material);
        if (c && c->area_mm2 * run.parallel >= area_mm2 * 0.999) return size;
    }
    return std::nullopt;
}

void thin_returns(const Case& c, std::vector<Finding>& out) {
    for (std::size_t k = 0; k < c.plan.loads.size(); ++k) {
        const Load& load = c.plan.loads[k];
        const Run *supply = nullptr, *ret = nullptr;
        for (const Run& r : c.plan.runs) {
            if (r.to == pos_of(load.id)) supply = &r;
            if (r.from == neg_of(load.id)) ret = &r;
        }
        if (!supply || !ret || !supply->size || !ret->size || ret->body_metal) continue;
        double most = 0;
        for (const Solution& s : c.solutions) most = std::max(most, s.point.loads[k].current_A);
        const double there = copper_mm2(*supply), back = copper_mm2(*ret);
        if (most < kBigLoad_A || back >= there * 0.95) continue;
        Finding f{
            FindingKind::return_thinner, Severity::fix, ret->id, supply->id, {}, back, there, {}, {}, 0, {}};
        if (const auto size = size_for(*ret, there); size && c.with_mends) {
            Run thicker = *ret;
            thicker.size = size;
            f.mend = Mend{MendKind::size, Put<Run>{thicker, {}}, ret->id, ret->size, size, 0, 0, {}};
        }
        out.push_back(std::move(f));
    }
}

}  // namespace

void inspect_cables(const Case& c, std::vector<Finding>& out) {
    const std::size_t from = out.size();
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        const State& state = c.plan.states[s];
        if (state.key == Key::crank) continue;  // seconds, not continuous: judged in time, not by this table
        for (std::size_t k = 0; k < c.plan.runs.size(); ++k) {
            const Run& run = c.plan.runs[k];
            const ConductorResult& r = c.solutions[s].point.conductors[k];
            const auto amp = run_ampacity(c.plan, run, state);
            if (!amp) continue;
            const double amps = std::abs(r.current_A);
            if (amps > amp->allowed_A * (1 + 1e-9) && amps > 1e-3)
                keep_worst(out, from,
                           {FindingKind::cable_over_ampacity,
                            Severity::stop,
                            run.id,
                            {},
                            state.id,
                            amps,
                            amp->allowed_A,
                            {},
                            {},
                            0,
                            {}});
            else if (r.temperature_C > run.insulation_C && amps > 1e-3)
                keep_worst(out, from,
                           {FindingKind::cable_over_temperature,
                            Severity::stop,
                            run.id,
                            {},
                            state.id,
                            r.temperature_C,
                            run.insulation_C,
                            {},
                            {},
                            0,
                            {}});
        }
    }
    if (c.with_mends)
        for (std::size_t n = from; n < out.size(); ++n)
            if (out[n].kind == FindingKind::cable_over_ampacity)
                out[n].mend = mend_ampacity(c.plan, *find(c.plan.runs, out[n].id), out[n].value,
                                            *find(c.plan.states, out[n].state));
    thin_returns(c, out);
}

}  // namespace yr
