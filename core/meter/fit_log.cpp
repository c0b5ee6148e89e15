#include "meter/fit_log.h"

#include <algorithm>
#include <cmath>

#include "catalog/batteries.h"
#include "network/network.h"
#include "plan/rail_volts.h"

namespace yr {
namespace {

constexpr double kSettle_s = 20;  // after a step of more than kStep_A
constexpr double kStep_A = 4;
constexpr double kPlateau_V = 0.06;  // charging volts stay within that
constexpr std::size_t kLeast = 20;
constexpr double kApart = 1e-9;  // of the product of their squares: charge and amps are no longer one

// Charge at which a battery of that kind stands at those open volts.
double charge_at(const Plan& plan, const Battery& b, double volts) {
    BatteryElement e;
    e.chemistry = b.chemistry;
    e.blocks = battery_V(plan, b) / 12;
    e.capacity_Ah = 100, e.full_warm_ohm = 0.01;
    double low = 0, high = 1;
    for (int k = 0; k < 50; ++k) {
        const double middle = (low + high) / 2;
        at_moment(e, middle, 25);
        (e.open_V < volts ? low : high) = middle;
    }
    return (low + high) / 2;
}

struct Given {
    double Ah = 0, amps_A = 0, volts_V = 0;
};

// v = open - slope q - R i by least squares about the means, where the two unknowns stand in closed form.
// Amps that hardly change tell no R: it is `known_ohm` then.
struct Line {
    double open_V = 0, slope = 0, R_ohm = 0;
    double slope_doubt = 0, R_doubt = 0;  // standard deviations
    double rest_mV = 0;
    bool tells_R = false;  // the amps did more than follow the charge
};

Line line_through(const std::vector<Given>& rows, double known_ohm) {
    const auto n = static_cast<double>(rows.size());
    Given mean;
    for (const Given& g : rows)
        mean.Ah += g.Ah / n, mean.amps_A += g.amps_A / n, mean.volts_V += g.volts_V / n;
    double qq = 0, ii = 0, qi = 0, qv = 0, iv = 0;
    for (const Given& g : rows) {
        const double q = g.Ah - mean.Ah, i = g.amps_A - mean.amps_A, v = g.volts_V - mean.volts_V;
        qq += q * q, ii += i * i, qi += q * i, qv += q * v, iv += i * v;
    }
    Line line;
    const double det = qq * ii - qi * qi;
    const auto [low, high] = std::minmax_element(
        rows.begin(), rows.end(), [](const Given& a, const Given& b) { return a.amps_A < b.amps_A; });
    line.tells_R = high->amps_A - low->amps_A > kStep_A && det > kApart * qq * ii;
    if (line.tells_R)
        line.slope = (iv * qi - qv * ii) / det, line.R_ohm = (qv * qi - iv * qq) / det;
    else if (qq > 0)
        line.R_ohm = known_ohm, line.slope = -(qv + known_ohm * qi) / qq;
    line.open_V = mean.volts_V + line.slope * mean.Ah + line.R_ohm * mean.amps_A;
    double square = 0;
    for (const Given& g : rows)
        square += std::pow(g.volts_V - line.open_V + line.slope * g.Ah + line.R_ohm * g.amps_A, 2);
    const double variance = square / std::max(1.0, n - 3);
    line.rest_mV = 1000 * std::sqrt(square / n);
    if (line.tells_R)
        line.slope_doubt = std::sqrt(variance * ii / det), line.R_doubt = std::sqrt(variance * qq / det);
    else if (qq > 0)
        line.slope_doubt = std::sqrt(variance / qq);
    return line;
}

}  // namespace

Result<LogFit> fit_log(const Plan& plan, const Id& battery, const std::vector<LogSample>& samples) {
    const Battery* b = find(plan.batteries, std::string_view(battery));
    if (!b) return fail(ErrorCode::missing_reference, "battery", battery, Want::a_battery_of_this_plan);
    if (samples.size() < kLeast) return fail(ErrorCode::empty, "log", {}, Want::a_time_and_volts_or_amps);
    LogFit fit;
    // what it gives, with the charge counted
    std::vector<Given> rows;
    double given_Ah = 0, stepped_s = -1e9;
    std::vector<double> plateau, amps;
    for (std::size_t k = 0; k < samples.size(); ++k) {
        const LogSample& s = samples[k];
        if (k > 0) {
            given_Ah += 0.5 * (s.amps_A + samples[k - 1].amps_A) * (s.t_s - samples[k - 1].t_s) / 3600;
            if (std::abs(s.amps_A - samples[k - 1].amps_A) > kStep_A) stepped_s = s.t_s;
        }
        amps.push_back(s.amps_A);
        if (s.amps_A < -0.5) plateau.push_back(s.volts_V);
        if (s.amps_A > 0.02 && s.t_s - stepped_s >= kSettle_s)
            rows.push_back({given_Ah, s.amps_A, s.volts_V});
    }
    fit.samples = samples.size();
    if (rows.size() >= kLeast) {
        const Line line = line_through(rows, b->R0_ohm.value_or(0));
        fit.rest_mV = line.rest_mV;
        if (line.tells_R && line.R_ohm > 0) fit.R0_ohm = Fitted{line.R_ohm, line.R_doubt};
        // what was given against how far its open volts say that it was emptied; only where they fell by more
        // than their doubt
        const double given = rows.back().Ah - rows.front().Ah;
        const double from = charge_at(plan, *b, line.open_V - line.slope * rows.front().Ah),
                     to = charge_at(plan, *b, line.open_V - line.slope * rows.back().Ah);
        if (line.slope > 4 * line.slope_doubt && line.slope > 0 && from - to > 0.02 && to > 0.02 &&
            from < 0.999) {
            const double capacity = given / (from - to);
            fit.capacity_Ah = Fitted{capacity, capacity * line.slope_doubt / line.slope};
        }
    }
    if (plateau.size() >= kLeast) {
        std::nth_element(plateau.begin(), plateau.begin() + static_cast<long>(plateau.size() * 3 / 4),
                         plateau.end());
        const double top = plateau[plateau.size() * 3 / 4];
        double sum = 0, square = 0, count = 0;
        for (const double p : plateau)
            if (std::abs(p - top) < kPlateau_V) sum += p, square += p * p, ++count;
        const double mean = sum / count;
        if (count >= static_cast<double>(kLeast))
            fit.charging_V = Fitted{mean, std::sqrt(std::max(0.0, square / count - mean * mean))};
    }
    // the least that is given for a tenth of the time
    std::vector<double> giving;
    for (const double a : amps)
        if (a > 0) giving.push_back(a);
    if (giving.size() >= kLeast) {
        std::sort(giving.begin(), giving.end());
        const std::size_t few = std::max<std::size_t>(giving.size() / 10, 5);
        double sum = 0, square = 0;
        for (std::size_t k = 0; k < few; ++k) sum += giving[k], square += giving[k] * giving[k];
        const double mean = sum / static_cast<double>(few);
        if (mean < 0.2 * giving.back() || mean < 2)
            fit.standby_A =
                Fitted{mean, std::sqrt(std::max(0.0, square / static_cast<double>(few) - mean * mean))};
    }
    return fit;
}

Batch take_fit(const Plan& plan, const Id& battery, const LogFit& fit) {
    Batch all;
    const Battery* b = find(plan.batteries, std::string_view(battery));
    if (!b) return all;
    Battery changed = *b;
    if (fit.R0_ohm) changed.R0_ohm = fit.R0_ohm->value;
    if (fit.capacity_Ah) changed.capacity_Ah = fit.capacity_Ah->value;
    if (!(changed == *b)) all.edits.emplace_back(Put<Battery>{changed, {}});
    if (fit.charging_V)
        for (const Source& s : plan.sources)
            if (s.kind == SourceKind::alternator || s.kind == SourceKind::stator) {
                Source set = s;
                set.regulated_V = fit.charging_V->value;
                all.edits.emplace_back(Put<Source>{set, {}});
                break;
            }
    return all;
}

}  // namespace yr
