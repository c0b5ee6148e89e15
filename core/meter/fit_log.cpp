#include "meter/fit_log.h"

#include <Eigen/Dense>
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

}  // namespace

Result<LogFit> fit_log(const Plan& plan, const Id& battery, const std::vector<LogSample>& samples) {
    const Battery* b = find(plan.batteries, std::string_view(battery));
    if (!b) return fail(ErrorCode::missing_reference, "battery", battery, Want::a_battery_of_this_plan);
    if (samples.size() < kLeast) return fail(ErrorCode::empty, "log", {}, Want::a_time_and_volts_or_amps);
    LogFit fit;
    // what it gives, with the charge counted
    std::vector<std::array<double, 3>> rows;  // q Ah, amps, volts
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
        const auto n = static_cast<Eigen::Index>(rows.size());
        Eigen::MatrixXd A(n, 3);
        Eigen::VectorXd v(n);
        for (Eigen::Index k = 0; k < n; ++k) {
            const auto& row = rows[static_cast<std::size_t>(k)];
            A(k, 0) = 1, A(k, 1) = -row[0], A(k, 2) = -row[1];
            v[k] = row[2];
        }
        const Eigen::VectorXd x = A.colPivHouseholderQr().solve(v);
        const Eigen::VectorXd rest = v - A * x;
        const double variance = rest.squaredNorm() / std::max<double>(1, static_cast<double>(n - 3));
        const Eigen::MatrixXd covariance =
            (A.transpose() * A).completeOrthogonalDecomposition().pseudoInverse() * variance;
        fit.rest_mV = 1000 * std::sqrt(rest.squaredNorm() / static_cast<double>(n));
        const auto [low, high] = std::minmax_element(
            rows.begin(), rows.end(), [](const auto& a, const auto& c) { return a[1] < c[1]; });
        if ((*high)[1] - (*low)[1] > kStep_A && x[2] > 0)
            fit.R0_ohm = Fitted{x[2], std::sqrt(std::max(0.0, covariance(2, 2)))};
        const double slope_doubt = std::sqrt(std::max(0.0, covariance(1, 1)));
        // what was given against how far its open volts say that it was emptied; only where they fell by more
        // than their doubt
        const double given = rows.back()[0] - rows.front()[0];
        const double from = charge_at(plan, *b, x[0] - x[1] * rows.front()[0]),
                     to = charge_at(plan, *b, x[0] - x[1] * rows.back()[0]);
        if (x[1] > 4 * slope_doubt && x[1] > 0 && from - to > 0.02 && to > 0.02 && from < 0.999) {
            const double capacity = given / (from - to);
            fit.capacity_Ah = Fitted{capacity, capacity * slope_doubt / x[1]};
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
