#include "size/ranges.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>

#include "network/bridges.h"

namespace yr {
namespace {

constexpr double kMiddle = 0.5, kProbe = 0.25;
constexpr double kMargin = 0.002;  // of a band, added at both its ends
constexpr double kAirPoints[] = {0.25, 0.5, 0.75};

enum class ValueKind { length, draw, air, joints };

struct RangedValue {
    ValueKind kind{};
    std::size_t index = 0;  // run or load
};

std::vector<RangedValue> values_of(const Plan& plan) {
    std::vector<RangedValue> all;
    for (std::size_t k = 0; k < plan.runs.size(); ++k)
        if (plan.runs[k].length_least_m && plan.runs[k].length_m) all.push_back({ValueKind::length, k});
    for (std::size_t k = 0; k < plan.loads.size(); ++k)
        if (plan.loads[k].draw_least) all.push_back({ValueKind::draw, k});
    if (plan.policy.air_K.value_or(0) > 0) all.push_back({ValueKind::air, 0});
    if (plan.policy.joint_ageing.value_or(1) > 1) all.push_back({ValueKind::joints, 0});
    return all;
}

// The plan's network at one point of the box.
Network network_at(const Plan& plan, std::size_t state, const std::vector<RangedValue>& ranged,
                   const std::vector<double>& values) {
    Plan there = plan;
    State now = plan.states[state];
    double joints = 1;
    for (std::size_t k = 0; k < ranged.size(); ++k) {
        const auto between = [&](double low, double high) { return low + (high - low) * values[k]; };
        switch (ranged[k].kind) {
            case ValueKind::length: {
                Run& r = there.runs[ranged[k].index];
                r.length_m = between(*r.length_least_m, *r.length_m);
                break;
            }
            case ValueKind::draw: {
                Load& l = there.loads[ranged[k].index];
                l.draw.value = between(*l.draw_least, l.draw.value);
                break;
            }
            case ValueKind::air:
                now.ambient_C += between(-*plan.policy.air_K, *plan.policy.air_K);
                now.engine_bay_C += between(-*plan.policy.air_K, *plan.policy.air_K);
                break;
            case ValueKind::joints:
                joints = between(1, *plan.policy.joint_ageing);
                break;
        }
    }
    Network net = compile(there, now);
    if (joints > 1)
        for (ConductorElement& c : net.conductors)
            for (SeriesPart& p : c.parts)
                if (p.kind == PartKind::joint || p.kind == PartKind::bond || p.kind == PartKind::pin ||
                    p.kind == PartKind::switching) {
                    c.fixed_ohm += p.fixed_ohm * (joints - 1);
                    p.fixed_ohm *= joints;
                }
    return net;
}

// One number of a solution that is followed to its least and most.
struct Followed {
    enum class Kind { load_V, drop_V, run_A } kind{};
    std::size_t index = 0;
};

double read(const Solution& s, const Followed& f) {
    if (f.kind == Followed::Kind::run_A) return std::abs(s.point.conductors[f.index].current_A);
    const LoadResult& l = s.point.loads[f.index];
    if (l.status != LoadStatus::on) return f.kind == Followed::Kind::drop_V ? 1e3 : 0;
    return f.kind == Followed::Kind::load_V ? l.voltage_V : l.drop_V;
}

class Box {
  public:
    Box(const Plan& plan, std::size_t state, const std::atomic<bool>* cancel)
        : plan_(plan), state_(state), cancel_(cancel), ranged_(values_of(plan)) {}

    StateBands bands() {
        const std::vector<double> middle(ranged_.size(), kMiddle);
        const Solution& centre = at(middle);
        find_looped(centre);
        StateBands out;
        out.load_V.resize(plan_.loads.size());
        out.drop_V.resize(plan_.loads.size());
        out.run_A.resize(plan_.runs.size());
        std::vector<Followed> followed;
        for (std::size_t l = 0; l < plan_.loads.size(); ++l)
            if (centre.point.loads[l].status == LoadStatus::on && plan_.loads[l].inverter.empty()) {
                followed.push_back({Followed::Kind::load_V, l});
                followed.push_back({Followed::Kind::drop_V, l});
            }
        for (std::size_t r = 0; r < plan_.runs.size(); ++r)
            if (std::abs(centre.point.conductors[r].current_A) > 1e-6)
                followed.push_back({Followed::Kind::run_A, r});
        slopes_from(followed);
        for (std::size_t f = 0; f < followed.size(); ++f) {
            Band band{extreme(followed[f], f, -1), extreme(followed[f], f, 1)};
            // what constant power and common air bend between corners is far below this
            const double margin = ranged_.empty() ? 0 : kMargin * (band.most - band.least) + 1e-9;
            band.least -= margin, band.most += margin;
            const auto k = followed[f].index;
            if (followed[f].kind == Followed::Kind::load_V) out.load_V[k] = band;
            if (followed[f].kind == Followed::Kind::drop_V) out.drop_V[k] = band;
            if (followed[f].kind == Followed::Kind::run_A) out.run_A[k] = band;
        }
        out.proved = looped_.size() <= kMostLooped && !(cancel_ && *cancel_);
        return out;
    }

    const Solution& at(const std::vector<double>& values) {
        const auto [found, added] = seen_.try_emplace(values);
        if (added) found->second = settle(network_at(plan_, state_, ranged_, values), solver_);
        return found->second;
    }

  private:
    // Values whose effect may turn round: lengths of cables in loops, joints and air, which move all at once.
    void find_looped(const Solution& centre) {
        const auto bridge = bridges_of(centre.network);
        for (std::size_t k = 0; k < ranged_.size(); ++k) {
            const bool in_loop = ranged_[k].kind == ValueKind::length && !bridge[ranged_[k].index];
            if (in_loop || ranged_[k].kind == ValueKind::joints) looped_.push_back(k);
        }
    }

    void slopes_from(const std::vector<Followed>& followed) {
        slope_.assign(followed.size(), std::vector<double>(ranged_.size(), 0));
        std::vector<double> values(ranged_.size(), kMiddle);
        for (std::size_t k = 0; k < ranged_.size(); ++k) {
            values[k] = kMiddle + kProbe;
            const Solution up = settle(network_at(plan_, state_, ranged_, values), solver_);
            values[k] = kMiddle - kProbe;
            const Solution down = settle(network_at(plan_, state_, ranged_, values), solver_);
            values[k] = kMiddle;
            for (std::size_t f = 0; f < followed.size(); ++f)
                slope_[f][k] = read(up, followed[f]) - read(down, followed[f]);
        }
    }

    // sign 1: the most, -1: the least.
    double extreme(const Followed& f, std::size_t index, int sign) {
        std::vector<double> corner(ranged_.size());
        for (std::size_t k = 0; k < ranged_.size(); ++k) corner[k] = slope_[index][k] * sign >= 0 ? 1 : 0;
        double best = read(at(corner), f);
        const auto better = [&](double v) { return sign > 0 ? v > best : v < best; };
        if (cancel_ && *cancel_) return best;
        if (looped_.size() <= kMostLooped) {
            const std::vector<double> start = corner;
            for (std::size_t bits = 0; bits < (std::size_t{1} << looped_.size()); ++bits) {
                std::vector<double> trial = start;
                for (std::size_t k = 0; k < looped_.size(); ++k)
                    trial[looped_[k]] = static_cast<double>((bits >> k) & 1);
                const double there = read(at(trial), f);
                if (better(there)) best = there, corner = trial;
            }
        } else {
            for (bool climbed = true; climbed;) {
                climbed = false;
                for (const std::size_t k : looped_) {
                    corner[k] = 1 - corner[k];
                    const double there = read(at(corner), f);
                    if (better(there))
                        best = there, climbed = true;
                    else
                        corner[k] = 1 - corner[k];
                }
            }
        }
        // no single value at its other end does better: the slopes at the middle may have missed a small one
        for (bool climbed = true; climbed && !(cancel_ && *cancel_);) {
            climbed = false;
            for (std::size_t k = 0; k < ranged_.size(); ++k) {
                corner[k] = 1 - corner[k];
                const double there = read(at(corner), f);
                if (better(there))
                    best = there, climbed = true;
                else
                    corner[k] = 1 - corner[k];
            }
        }
        for (std::size_t k = 0; k < ranged_.size(); ++k) {  // air: its two ends and points between
            if (ranged_[k].kind != ValueKind::air) continue;
            std::vector<double> trial = corner;
            for (const double point : {0.0, kAirPoints[0], kAirPoints[1], kAirPoints[2], 1.0}) {
                trial[k] = point;
                const double there = read(at(trial), f);
                if (better(there)) best = there;
            }
        }
        return best;
    }

    const Plan& plan_;
    std::size_t state_;
    const std::atomic<bool>* cancel_;
    std::vector<RangedValue> ranged_;
    std::vector<std::size_t> looped_;
    std::vector<std::vector<double>> slope_;
    std::map<std::vector<double>, Solution> seen_;
    OperatingPointSolver solver_;
};

}  // namespace

bool has_ranges(const Plan& plan) {
    return !values_of(plan).empty();
}

StateBands bands_of(const Plan& plan, std::size_t state, const std::atomic<bool>* cancel) {
    return Box(plan, state, cancel).bands();
}

std::size_t ranged_values(const Plan& plan) {
    return values_of(plan).size();
}

Solution solve_within(const Plan& plan, std::size_t state, const std::vector<double>& values,
                      OperatingPointSolver& solver) {
    return settle(network_at(plan, state, values_of(plan), values), solver);
}

}  // namespace yr
