#include "network/thermal_time.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>
#include <vector>

namespace yr {
namespace {

constexpr double kWall_s = 10;  // by then every wall follows
constexpr double kWarm_K = 5;   // the time constant of a cooler cable is taken there
constexpr double kStep_K = 12;  // largest rise of one step of the integration

double heating_W_per_m(const CableSurroundings& c, double current_A, double t_C) {
    const double each = current_A / c.bundle_factor;
    return each * each * c.R20_ohm_per_m * (1 + kCopperAlpha_per_K * (t_C - 20));
}

// Heat that leaves with the conductor at t_C: the surface stands where the wall passes just as much.
double cooling_W_per_m(const CableSurroundings& c, double t_C) {
    const double rise = t_C - c.ambient_C;
    if (rise <= 0) return 0;
    double low = 0, high = rise;
    double x = rise * 0.9;
    for (int k = 0; k < 30; ++k) {
        const double loss = heat_loss_W_per_m(c, c.ambient_C + x);
        const double excess = x + loss * c.wall_K_m_per_W - rise;  // rises with x
        (excess > 0 ? high : low) = x;
        // loss goes with about the 1.2th power of the rise
        double next = x - excess / (1 + 1.2 * loss / x * c.wall_K_m_per_W);
        if (!(next > low && next < high)) next = (low + high) / 2;
        if (std::abs(next - x) < 1e-7 * rise) return heat_loss_W_per_m(c, c.ambient_C + next);
        x = next;
    }
    return heat_loss_W_per_m(c, c.ambient_C + x);
}

struct Heats {
    double metal, wall;  // J/m K
    double inner_share;  // of the wall, that goes with the conductor (Van Wormer)
};

Heats heats_of(const CableSurroundings& c) {
    const double inner = c.strand_diameter_m, outer = c.outer_diameter_m, ratio = outer / inner;
    const double share = 1 / (2 * std::log(ratio)) - 1 / (ratio * ratio - 1);
    const double wall =
        std::numbers::pi / 4 * (outer * outer - inner * inner) * insulation_wall().heat_J_per_m3K;
    return {c.heat_J_per_mK - share * wall, wall, share};
}

// cooling_W_per_m over the rise, looked up: an integration asks for it thousands of times. What is kept is
// the heat per kelvin over the logarithm of the rise, which hardly bends: four points around give it to 1e-6.
class CoolingTable {
  public:
    explicit CoolingTable(const CableSurroundings& c) : heats(heats_of(c)), cable_(c) {
        for (std::size_t k = 0; k < at_.size(); ++k) {
            const double rise = kLeast_K * std::exp(kStepLog * static_cast<double>(k));
            at_[k] = cooling_W_per_m(c, c.ambient_C + rise) / rise;
        }
    }
    bool holds(const CableSurroundings& c) const {
        return c.ambient_C == cable_.ambient_C && c.outer_diameter_m == cable_.outer_diameter_m &&
               c.wall_K_m_per_W == cable_.wall_K_m_per_W && c.heat_J_per_mK == cable_.heat_J_per_mK;
    }
    double W_per_m(double t_C) const {
        const double rise = t_C - cable_.ambient_C;
        if (rise <= 0) return 0;
        const double x = std::max(std::log(rise / kLeast_K), 0.0) / kStepLog;
        const double floor = std::clamp(std::floor(x), 1.0, static_cast<double>(at_.size() - 3));
        const auto k = static_cast<std::size_t>(floor);
        const double u = x - floor;  // Lagrange through k-1, k, k+1, k+2
        const double a = u + 1, b = u - 1, c = u - 2;
        return rise * (-u * b * c / 6 * at_[k - 1] + a * b * c / 2 * at_[k] - a * u * c / 2 * at_[k + 1] +
                       a * u * b / 6 * at_[k + 2]);
    }

    Heats heats;

  private:
    static constexpr double kLeast_K = 0.05, kStepLog = 0.2;
    CableSurroundings cable_;
    std::array<double, 56> at_{};  // up to 3000 K
};

// The table of a cable; the last few are kept by each thread.
const CoolingTable& cooling_of(const CableSurroundings& c) {
    constexpr std::size_t kKept = 64;
    static thread_local std::vector<CoolingTable> kept;
    static thread_local std::size_t next = 0;
    for (const CoolingTable& t : kept)
        if (t.holds(c)) return t;
    if (kept.size() < kKept) {
        kept.reserve(kKept);
        return kept.emplace_back(c);
    }
    kept[next] = CoolingTable(c);
    const CoolingTable& made = kept[next];
    next = (next + 1) % kKept;
    return made;
}

// Heat that one metre takes up per kelvin of its conductor, so long after the current began. At once the
// metal alone warms (IEC 60364-5-54); within the wall's own time the insulation follows: its inner share with
// the conductor, the rest with the surface (Van Wormer's shares, IEC 60853-2, from memory), which stands
// `follows` of the rise.
double heat_J_per_mK(const CableSurroundings& c, const Heats& h, double since_s, double follows) {
    const double times = since_s / (0.5 * c.wall_K_m_per_W * h.wall);
    const double begun = times > 30 ? 1 : 1 - std::exp(-times);
    return h.metal + h.wall * (h.inner_share + (1 - h.inner_share) * follows) * begun;
}

double rate_K_per_s(const CableSurroundings& c, const CoolingTable& table, double cooling, double current_A,
                    double t_C, double since_s) {
    const double rise = std::max(t_C - c.ambient_C, 0.1);
    const double follows = std::clamp(1 - cooling * c.wall_K_m_per_W / rise, 0.0, 1.0);
    return (heating_W_per_m(c, current_A, t_C) - cooling) / heat_J_per_mK(c, table.heats, since_s, follows);
}

double rate_K_per_s(const CableSurroundings& c, const CoolingTable& table, double current_A, double t_C,
                    double since_s) {
    return rate_K_per_s(c, table, table.W_per_m(t_C), current_A, t_C, since_s);
}

// One step of the classical fourth-order Runge-Kutta method; k1 is the rate at its beginning.
double stepped_C(const CableSurroundings& c, const CoolingTable& table, double current_A, double t_C,
                 double since_s, double dt, double k1) {
    const double k2 = rate_K_per_s(c, table, current_A, t_C + dt / 2 * k1, since_s + dt / 2);
    const double k3 = rate_K_per_s(c, table, current_A, t_C + dt / 2 * k2, since_s + dt / 2);
    const double k4 = rate_K_per_s(c, table, current_A, t_C + dt * k3, since_s + dt);
    return t_C + dt / 6 * (k1 + 2 * k2 + 2 * k3 + k4);
}

// Of a cable at t_C, at least 1 K above the air around it, that loses `cooling` there.
double time_constant_s(const CableSurroundings& c, const CoolingTable& table, double cooling, double t_C) {
    return (table.heats.metal + table.heats.wall) * (t_C - c.ambient_C) / std::max(cooling, 1e-12);
}

}  // namespace

double short_limit_C(double insulation_C) {
    return insulation_C >= 125 ? 250 : 160;
}

double adiabatic_k(double start_C, double end_C) {
    return 226 * std::sqrt(std::log(1 + (end_C - start_C) / (234.5 + start_C)));
}

double temperature_after_C(const CableSurroundings& cable, double current_A, double start_C, double seconds) {
    const CoolingTable& table = cooling_of(cable);
    const double warm_C = cable.ambient_C + kWarm_K;
    const double slow_s = time_constant_s(cable, table, table.W_per_m(warm_C), warm_C);
    double t = start_C, left = seconds, since = 0;
    for (int k = 0; k < 4000 && left > 0; ++k) {
        const double cooling = table.W_per_m(t);
        const double rate = rate_K_per_s(cable, table, cooling, current_A, t, since);
        const double own_s = t > warm_C ? time_constant_s(cable, table, cooling, t) : slow_s;
        double dt = std::min(left, 0.3 * own_s);
        if (std::abs(rate) * dt > kStep_K) dt = kStep_K / std::abs(rate);
        if (since < kWall_s)
            dt = std::min(dt, std::max(0.4 * since, 2e-3));  // while the wall begins to follow
        // steady
        if (std::abs(rate) * std::min(left, 20 * own_s) < 1e-3) return t;
        t = stepped_C(cable, table, current_A, t, since, dt, rate);
        left -= dt;
        since += dt;
        if (t >= kMelted_C) return kMelted_C;
    }
    return t;
}

double adiabatic_bound_C(const CableSurroundings& cable, double current_A, double start_C, double seconds) {
    const double grow =
        kCopperAlpha_per_K * heating_W_per_m(cable, current_A, 20) * seconds / heats_of(cable).metal;
    return (std::exp(std::min(grow, 50.0)) * (1 + kCopperAlpha_per_K * (start_C - 20)) - 1) /
               kCopperAlpha_per_K +
           20;
}

double time_to_C(const CableSurroundings& cable, double current_A, double start_C, double limit_C) {
    if (start_C >= limit_C) return 0;
    const CoolingTable& table = cooling_of(cable);
    if (rate_K_per_s(cable, table, current_A, limit_C, 1e9) <= 0)
        return std::numeric_limits<double>::infinity();
    // With the heat that is taken up by then the balance does not know the time: t is the integral of dT /
    // rate(T), by Simpson's rule, found again with its own heat until both agree. The rate may become small
    // near the limit, so the steps crowd there.
    constexpr int kPieces = 24;
    const double span = limit_C - start_C;
    const auto at = [&](double s) { return start_C + span * (1 - (1 - s) * (1 - s)); };
    double seconds = 1;
    for (int round = 0; round < 12; ++round) {
        // the heat taken up over the whole time is, on average, that of a little less than half of it
        const double since = 0.4 * seconds;
        double sum = 0;
        for (int k = 0; k < kPieces; ++k) {
            const double a = at(static_cast<double>(k) / kPieces),
                         b = at(static_cast<double>(k + 1) / kPieces);
            const double ra = rate_K_per_s(cable, table, current_A, a, since),
                         rb = rate_K_per_s(cable, table, current_A, b, since);
            const double rm = rate_K_per_s(cable, table, current_A, (a + b) / 2, since);
            if (ra <= 0 || rm <= 0) return std::numeric_limits<double>::infinity();
            sum += (b - a) / 6 * (1 / ra + 4 / rm + 1 / rb);
        }
        const bool same = std::abs(sum - seconds) < 1e-4 * sum;
        seconds = sum;
        if (same) break;
    }
    return seconds;
}

double current_for_time_A(const CableSurroundings& cable, double start_C, double limit_C, double seconds) {
    if (start_C >= limit_C) return 0;
    double low = current_for_temperature_A(cable, limit_C);
    double high = std::max(low, 1e-3);
    while (time_to_C(cable, high, start_C, limit_C) > seconds) high *= 2;
    for (int k = 0; k < 50; ++k) {
        const double middle = (low + high) / 2;
        (time_to_C(cable, middle, start_C, limit_C) > seconds ? low : high) = middle;
    }
    return low;
}

DutyResult duty_temperature(const CableSurroundings& cable, const DutyCycle& cycle) {
    const CoolingTable& table = cooling_of(cable);
    DutyResult result;
    const double begin = conductor_temperature_C(cable, cycle.rest_A, cable.ambient_C);
    const auto turn = [&](double rest) {
        result.peak_C = temperature_after_C(cable, cycle.on_A, rest, cycle.on_s);
        return result.peak_C;
    };
    const auto cool = [&](double end) { return temperature_after_C(cable, cycle.rest_A, end, cycle.rest_s); };
    result.first_C = turn(begin);
    // it cools down wholly: every turn is like the first
    const double warm_C = std::max(result.first_C, cable.ambient_C + kWarm_K);
    const double own_s = time_constant_s(cable, table, table.W_per_m(warm_C), warm_C);
    if (cycle.rest_s > 20 * own_s || result.first_C >= kMelted_C) return result;
    // From turn to turn the temperature before it closes in on where it stays by nearly the same share each
    // time (Aitken's delta-squared finds the limit of such a row).
    double rest = begin;
    for (int round = 0; round < 60; ++round) {
        const double a = cool(turn(rest)), b = cool(turn(a));
        const double before = rest, d1 = a - rest, d2 = b - a;
        rest = std::abs(d1 - d2) > 1e-9 && d2 / d1 < 0.999 ? rest - d1 * d1 / (d2 - d1) : b;
        rest = std::clamp(rest, std::min(begin, b), kMelted_C);
        if (std::abs(rest - b) < 0.01 || (std::abs(d2) < 0.01 && std::abs(rest - before) < 1)) break;
    }
    turn(rest);
    return result;
}

}  // namespace yr
