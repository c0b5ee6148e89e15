// Rules about copper: does it carry its amps, and is the way back as thick as the way there?
#include <algorithm>
#include <cmath>
#include <string_view>
#include <unordered_map>

#include "inspect/fuse_mends.h"
#include "size/plan_fuse.h"
#include "size/run_check.h"
#include "size/run_limits.h"

namespace yr {
namespace {

constexpr double kBigLoad_A = 15;  // above this a thin return is worth a word; common practice

std::size_t index_of(const Plan& plan, const Id& run) {
    return static_cast<std::size_t>(find(plan.runs, run) - plan.runs.data());
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
    std::unordered_map<std::string_view, const Run*> there_to, back_from;  // by load
    for (const Run& r : c.plan.runs) {
        if (r.to.post == Post::pos) there_to[r.to.owner] = &r;
        if (r.from.post == Post::neg) back_from[r.from.owner] = &r;
    }
    const auto of = [](const auto& runs, const Id& load) {
        const auto found = runs.find(load);
        return found == runs.end() ? nullptr : found->second;
    };
    for (std::size_t k = 0; k < c.plan.loads.size(); ++k) {
        const Load& load = c.plan.loads[k];
        const Run *supply = of(there_to, load.id), *ret = of(back_from, load.id);
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

// A battery gives as much by its negative post as by its positive one, and a short takes that way too: all
// its negative cables together hold at least half the copper of its thickest positive one. Common practice,
// no source.
void thin_battery_returns(const Case& c, std::vector<Finding>& out) {
    for (const Battery& b : c.plan.batteries) {
        const Run *feed = nullptr, *back = nullptr;
        double together = 0;
        bool known = true;
        for (const Run& r : c.plan.runs) {
            if (r.from == neg_of(b.id) || r.to == neg_of(b.id)) {
                known = known && r.size && !r.body_metal && !r.resistance_ohm;
                together += copper_mm2(r);
                if (!back || copper_mm2(r) > copper_mm2(*back)) back = &r;
            } else if ((r.from == pos_of(b.id) || r.to == pos_of(b.id)) &&
                       (!feed || copper_mm2(r) > copper_mm2(*feed))) {
                feed = &r;
            }
        }
        if (!feed || !back || !known || together >= kBatteryReturnShare * copper_mm2(*feed) * 0.999) continue;
        Finding f = make_finding(FindingKind::return_thinner, Severity::fix, back->id, feed->id, {}, together,
                                 copper_mm2(*feed));
        if (const auto size = size_for(*back, kBatteryReturnShare * copper_mm2(*feed));
            size && c.with_mends) {
            Run thicker = *back;
            thicker.size = size;
            f.mend = Mend{MendKind::size, Put<Run>{thicker, {}}, back->id, back->size, size, 0, 0, {}};
        }
        out.push_back(std::move(f));
    }
}

// A cable chafes through on metal: what the largest fuse lets by comes back over what grounds the battery.
void thin_grounds(const Case& c, std::vector<Finding>& out) {
    for (const Run& r : c.plan.runs) {
        if (grounds_guarded(c.plan, r)) continue;
        const GroundDuty duty = ground_duty(c.plan, r);
        const bool told = std::any_of(out.begin(), out.end(), [&](const Finding& f) {
            return f.kind == FindingKind::return_thinner && f.id == r.id;
        });
        if (told) continue;
        Finding f = make_finding(FindingKind::ground_thin, Severity::fix, r.id, duty.fuse->id, {},
                                 duty.fuse->rating_A, copper_mm2(r));
        Run thicker = r;
        for (const WireSize& size : sizes_of(r.size->system())) {
            if (!conductor(size, r.material)) continue;
            thicker.size = size;
            if (copper_mm2(thicker) <= copper_mm2(r) || !grounds_guarded(c.plan, thicker)) continue;
            if (c.with_mends)
                f.mend = Mend{MendKind::size, Put<Run>{thicker, {}}, r.id, r.size, size, 0, 0, {}};
            break;
        }
        out.push_back(std::move(f));
    }
}

// What flows in no listed state and the cable must bear all the same.
void unlisted(const Case& c, std::vector<Finding>& out, std::size_t from) {
    for (std::size_t k = 0; k < c.plan.runs.size(); ++k) {
        const Run& run = c.plan.runs[k];
        const DemandItem* asked = unlisted_demand(c, k);
        if (!asked) continue;
        const auto stands = least_ampacity_A(c.plan, run);
        if (!stands || asked->amps <= *stands * (1 + 1e-9)) continue;
        const Load* turns = find(c.plan.loads, run.to.owner);
        if (!turns) turns = find(c.plan.loads, run.from.owner);
        if (turns && turns->on_s) continue;
        const bool told =
            std::any_of(out.begin() + static_cast<std::ptrdiff_t>(from), out.end(), [&](const Finding& f) {
                return f.id == run.id && f.kind == FindingKind::cable_over_ampacity &&
                       f.value >= asked->amps * 0.98;
            });
        if (told) continue;
        Finding f = make_finding(FindingKind::demand_over, Severity::stop, run.id, asked->who, {},
                                 asked->amps, *stands);
        if (c.with_mends) f.candidates = thicker(c, k, asked->amps);
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
            // what comes and goes is judged in time (hot turns); the table judges what stays beside it
            const auto& turn = c.solutions[s].network.conductors[k].turn;
            const double stays_A = turn ? turn->cycle.rest_A : amps;
            if (stays_A > amp->allowed_A * (1 + 1e-9) && stays_A > 1e-3)
                keep_worst(out, from,
                           {FindingKind::cable_over_ampacity,
                            Severity::stop,
                            run.id,
                            {},
                            state.id,
                            stays_A,
                            amp->allowed_A,
                            {},
                            {},
                            0,
                            {}});
            else if (!turn && r.temperature_C > run.insulation_C && amps > 1e-3)
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
    for (std::size_t n = from; c.with_mends && n < out.size(); ++n) {
        const std::size_t run = index_of(c.plan, out[n].id);
        const bool amps = out[n].kind == FindingKind::cable_over_ampacity;
        out[n].candidates = thicker(c, run, amps ? out[n].value : 0, amps ? 3 : 6);
    }
    unlisted(c, out, from);
    thin_returns(c, out);
    thin_battery_returns(c, out);
    thin_grounds(c, out);
}

}  // namespace yr
