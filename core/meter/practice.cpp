#include "meter/practice.h"

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"

namespace yr {
namespace {

constexpr double kSeen_share = 0.05;  // of its volts that a customer notices
constexpr int kMostTries = 400;

bool of_level(const Fault& f, PracticeLevel level) {
    switch (level) {
        case PracticeLevel::open_circuit:
            return f.kind == FaultKind::open || f.kind == FaultKind::fuse || f.kind == FaultKind::contact;
        case PracticeLevel::bad_ground:
            return f.kind == FaultKind::ground || f.kind == FaultKind::joint;
        case PracticeLevel::wrong_size:
            return f.kind == FaultKind::thin || f.kind == FaultKind::load_heavy;
        case PracticeLevel::two_at_once:
            return f.kind == FaultKind::joint || f.kind == FaultKind::ground || f.kind == FaultKind::fuse ||
                   f.kind == FaultKind::battery_weak;
        case PracticeLevel::with_heat:
            return f.kind == FaultKind::joint || f.kind == FaultKind::ground;
    }
    return false;
}

}  // namespace

HiddenFault::HiddenFault(const Plan& plan, std::uint32_t seed, PracticeLevel level)
    : plan_(plan), random_(seed) {
    for (int k = 0; k < kMostTries && !there_; ++k) there_ = hide(plan, level);
    const Instrument meter = instrument_of(plan);
    gain_ = std::uniform_real_distribution<double>(-meter.gain, meter.gain)(random_);
}

Solution HiddenFault::solved(const Probing& where) {
    Network n = network_for(plan_, where);
    put_in(n, plan_, fault_, strength_);
    if (second_) put_in(n, plan_, *second_, second_strength_);
    return settle_as_read(std::move(n), solver_);
}

// Takes one at random; good if somebody would complain of it in some state.
bool HiddenFault::hide(const Plan& plan, PracticeLevel level) {
    std::vector<Fault> all;
    for (const Fault& f : faults_of(plan))
        if (of_level(f, level)) all.push_back(f);
    if (all.empty()) return false;
    const auto pick = [&](double& strength) {
        Fault f = all[random_() % all.size()];
        const auto grades = strengths(f, 9);
        strength = grades[grades.size() == 1 ? 0 : 2 + random_() % (grades.size() - 2)];
        return f;
    };
    fault_ = pick(strength_);
    second_.reset();
    if (level == PracticeLevel::two_at_once) second_ = pick(second_strength_);
    if (second_ && second_->thing == fault_.thing) return false;
    complaints_.clear();
    for (const State& s : plan.states) {
        Probing where;
        where.state = s.id;
        // what comes with heat shows in the warmest states alone
        if (level == PracticeLevel::with_heat && s.engine_bay_C < 40) continue;
        const Solution now = solved(where), sound = solve_for(plan, where, solver_);
        if (!now.point.settled || !sound.point.settled) continue;
        for (std::size_t l = 0; l < plan.loads.size(); ++l) {
            const LoadResult &a = sound.point.loads[l], &b = now.point.loads[l];
            if (a.status != LoadStatus::on || !plan.loads[l].inverter.empty()) continue;
            const bool dead = b.status != LoadStatus::on || b.voltage_V < 0.3 * plan.vehicle.nominal_V;
            const bool weak = !dead && b.voltage_V < a.voltage_V * (1 - kSeen_share);
            if ((dead || weak) && complaints_.size() < 3)
                complaints_.push_back({plan.loads[l].id, s.id, dead ? Seen::dead : Seen::weak});
        }
        if (!complaints_.empty()) break;
    }
    return !complaints_.empty();
}

std::optional<double> HiddenFault::read(const Probing& where) {
    const Instrument meter = instrument_of(plan_);
    double value = 0;
    if (where.kind == ReadKind::ohms) {
        const auto ohm = ohms_between(plan_, where.red, where.black);
        value = ohm ? *ohm + meter.lead_ohm : 1e9;
    } else {
        const auto v = value_at(solved(where), plan_, where);
        if (!v) return std::nullopt;
        value = *v;
    }
    const double digits = meter.digits_of(where.kind, value);
    const double seen =
        value * (1 + gain_) + std::uniform_real_distribution<double>(-digits, digits)(random_);
    const double digit = Instrument::last_digit(where.kind, seen);
    return std::round(seen / digit) * digit;
}

bool HiddenFault::is_it(const Id& thing) const {
    return fault_.thing == thing || fault_.other == thing || (second_ && second_->thing == thing);
}

std::vector<PathStep> best_path(const Plan& plan, HiddenFault& hidden, std::size_t most,
                                const std::atomic<bool>* stop) {
    std::vector<PathStep> path;
    Locator locator(plan);
    NextAsk ask;
    ask.complaints = hidden.complaints();
    ask.stop = stop;
    for (std::size_t k = 0; k < most; ++k) {
        if (stop && *stop) return path;
        const Location now = locator.locate({ask.readings, ask.complaints, true, false, stop});
        if (!path.empty() && !now.suspects.empty()) {
            const auto things = now.things();
            path.back().likeliest = things.front().first, path.back().probability = things.front().second;
        }
        const auto next = next_reading(locator, plan, now, ask);
        if (!next) break;
        const auto value = hidden.read(next->where);
        if (!value) break;
        ask.readings.push_back({next->where, *value});
        ask.last = next->where;
        path.push_back({next->where, *value, next->minutes, {}, 0});
    }
    return path;
}

}  // namespace yr
