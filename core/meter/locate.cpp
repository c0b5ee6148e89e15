#include "meter/locate.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "catalog/assumptions.h"
#include "units/at_once.h"

namespace yr {
namespace {

constexpr double kWeakShare =
    0.04;  // of its volts that a lamp loses before somebody sees it; common practice
// Of what is complained of: rightly, dead for weak or the other way, by mistake; common practice.
constexpr double kComplaintRight = 0.94, kComplaintNear = 0.055, kComplaintWrong = 0.005;
constexpr std::size_t kFine = 41;   // strengths between those that were solved
constexpr double kTwin_sd = 0.5;    // readings nearer than that are the same
constexpr double kFloor_V = 0.002;  // contact of the probes themselves; common practice
constexpr std::size_t kPairsOf = 14, kFirstsOf = 8;
constexpr double kTail = 10;       // degrees of freedom: how far out a slip may be
constexpr double kNoAnswer = 200;  // a fault with which a state has no answer is never the likeliest
constexpr double kUnlikely = 1e-4;
constexpr double kNothingWrong = 0.05;  // of its prior, where somebody complains
constexpr double kRoundOff = 1e-13;     // where two equations are one
constexpr double kTwoAtOnce = 0.01;     // two faults at once against one

using Situation = std::pair<Id, std::vector<Id>>;

Situation key_of(const Probing& p) {
    return {p.state, p.unplugged};
}

// A reading against one strength r is (a + b r) / (1 + c r) in a linear circuit: through three strengths that
// were solved, exact there and near enough where loads are not linear.
double rational(const double* r, const double* y, double at, double straight) {
    // a + b r - c r y = y; the first taken from the others leaves two for b and c
    const double b1 = r[1] - r[0], c1 = r[0] * y[0] - r[1] * y[1], d1 = y[1] - y[0];
    const double b2 = r[2] - r[0], c2 = r[0] * y[0] - r[2] * y[2], d2 = y[2] - y[0];
    const double det = b1 * c2 - b2 * c1;
    if (std::abs(det) <= kRoundOff * (std::abs(b1 * c2) + std::abs(b2 * c1))) return straight;
    const double b = (d1 * c2 - d2 * c1) / det, c = (b1 * d2 - b2 * d1) / det;
    const double a = y[0] - b * r[0] + c * r[0] * y[0];
    for (int k = 0; k < 3; ++k)
        if (1 + c * r[k] <= 0) return straight;  // a pole between them
    return (a + b * at) / (1 + c * at);
}

}  // namespace

std::size_t Locator::grades_of(const Fault& fault) {
    if (!fault.graded()) return 1;
    const bool wide =
        fault.kind == FaultKind::joint || fault.kind == FaultKind::ground || fault.kind == FaultKind::thin;
    return wide ? 9 : 5;
}

struct Locator::Impl {
    const Plan& plan;
    std::vector<Fault> faults;
    Expecter expecter;
    OperatingPointSolver solver;
    // by situation, fault and strength
    std::map<Situation, std::vector<std::vector<std::unique_ptr<Solution>>>> solved;
    std::map<Situation, Network> compiled;
    std::vector<std::size_t> joint_of;  // thin: the fault of a bad joint in the same cable

    explicit Impl(const Plan& p) : plan(p), faults(faults_of(p)), expecter(p), joint_of(faults.size(), 0) {
        solver.follow(true);  // one fault differs from the next by little
        for (std::size_t f = 0; f < faults.size(); ++f)
            for (std::size_t j = 0; j < faults.size() && faults[f].kind == FaultKind::thin; ++j)
                if (faults[j].kind == FaultKind::joint && faults[j].thing == faults[f].thing) joint_of[f] = j;
    }

    // Copper as warm as it is without the fault: a fault changes that little, and a circuit without heat is
    // solved several times as fast.
    const Network& network(const Probing& where) {
        auto found = compiled.find(key_of(where));
        if (found != compiled.end()) return found->second;
        Network cold = network_for(plan, where);
        const Solution& sound = expecter.solution(where);
        for (std::size_t k = 0; k < cold.conductors.size(); ++k) {
            ConductorElement& c = cold.conductors[k];
            if (!sound.point.settled || c.cable20_ohm <= 0) continue;
            c.fixed_ohm += sound.point.conductors[k].cable_ohm;
            c.cable20_ohm = 0;
            c.turn.reset();
        }
        cold.assumptions.clear();
        return compiled.emplace(key_of(where), std::move(cold)).first->second;
    }

    // Ohms that a thinner cable adds.
    double added_ohm(const Fault& thin, double times, const Probing& where) {
        const Solution& sound = expecter.solution(where);
        for (std::size_t k = 0; k < sound.network.conductors.size(); ++k) {
            const int run = sound.network.conductors[k].run;
            if (run >= 0 && plan.runs[static_cast<std::size_t>(run)].id == thin.thing && sound.point.settled)
                return (times - 1) * sound.point.conductors[k].cable_ohm;
        }
        return 0;
    }
    // A thinner cable reads as a bad joint of as many ohms does: nearest strength that is solved, 0 for none.
    std::pair<std::size_t, bool> as_joint(std::size_t thin, std::size_t strength, const Probing& where) {
        const double ohm =
            added_ohm(faults[thin], strengths(faults[thin], grades_of(faults[thin]))[strength], where);
        const auto grades = strengths(faults[joint_of[thin]], grades_of(faults[joint_of[thin]]));
        std::size_t nearest = 0;
        for (std::size_t g = 0; g < grades.size(); ++g)
            if (std::abs(grades[g] - ohm) < std::abs(grades[nearest] - ohm)) nearest = g;
        return {nearest, ohm > grades.front() / 2};
    }

    using Grades = std::vector<std::unique_ptr<Solution>>;  // of one fault
    std::vector<Grades>& all_in(const Probing& where) {
        auto& all = solved[key_of(where)];
        if (all.empty())
            for (const Fault& f : faults) all.emplace_back(grades_of(f));
        return all;
    }

    const Solution& solution(std::size_t fault, std::size_t strength, const Probing& where) {
        auto& mine = all_in(where)[fault][strength];
        if (!mine) {
            Network with = network(where);
            const double size = strengths(faults[fault], grades_of(faults[fault]))[strength];
            if (faults[fault].kind == FaultKind::thin) {
                Fault as = faults[fault];
                as.kind = FaultKind::joint;
                put_in(with, plan, as, added_ohm(faults[fault], size, where));
            } else {
                put_in(with, plan, faults[fault], size);
            }
            mine = std::make_unique<Solution>(settle_as_read(std::move(with), solver));
        }
        return *mine;
    }

    // Every fault in one situation, in lots at once. A lot follows its own last answer: how many threads
    // there are changes nothing.
    void solve_all(const Probing& where, const std::atomic<bool>* stop) {
        constexpr std::size_t kLots = 4;
        const Network& sound = network(where);
        std::vector<Grades>& all = all_in(where);
        at_once(
            kLots,
            [&](std::size_t lot) {
                OperatingPointSolver own;
                own.follow(true);
                for (std::size_t f = lot * faults.size() / kLots; f < (lot + 1) * faults.size() / kLots;
                     ++f) {
                    if (faults[f].kind == FaultKind::thin) continue;  // read off those of a joint
                    const auto sizes = strengths(faults[f], grades_of(faults[f]));
                    for (std::size_t g = 0; g < sizes.size(); ++g) {
                        if (all[f][g] || (stop && *stop)) continue;
                        Network with = sound;
                        put_in(with, plan, faults[f], sizes[g]);
                        all[f][g] = std::make_unique<Solution>(settle_as_read(std::move(with), own));
                    }
                }
            },
            stop);
    }

    // Readings as they would be with this fault; NaN where there is no answer.
    std::vector<double> readings_with(std::size_t fault, std::size_t strength,
                                      const std::vector<Reading>& readings) {
        std::vector<double> out;
        for (const Reading& r : readings) {
            if (r.where.kind == ReadKind::ohms) {
                out.push_back(expecter.of(r.where).value);
                continue;
            }
            if (faults[fault].kind == FaultKind::thin) {
                out.push_back(thin_reading(fault, strength, r));
                continue;
            }
            const auto v = value_at(solution(fault, strength, r.where), plan, r.where);
            out.push_back(v ? *v : std::nan(""));
        }
        return out;
    }
    double thin_reading(std::size_t fault, std::size_t strength, const Reading& r) {
        const std::size_t joint = joint_of[fault];
        const double ohm =
            added_ohm(faults[fault], strengths(faults[fault], grades_of(faults[fault]))[strength], r.where);
        const auto at = [&](std::size_t f, std::size_t g) {
            const auto v = value_at(solution(f, g, r.where), plan, r.where);
            return v ? *v : std::nan("");
        };
        const auto grades = strengths(faults[joint], grades_of(faults[joint]));
        std::size_t k = 0;
        while (k + 2 < grades.size() && grades[k] < ohm) ++k;
        const double before = k == 0 ? 0 : grades[k - 1];
        const double ohms[] = {before, grades[k], grades[k + 1]};
        const double reads[] = {k == 0 ? at(0, 0) : at(joint, k - 1), at(joint, k), at(joint, k + 1)};
        const double t = (ohm - before) / (grades[k] - before);
        return rational(ohms, reads, ohm, reads[0] * (1 - t) + reads[1] * t);
    }

    double complaint_share(const Solution& s, const Complaint& c) const {
        for (std::size_t k = 0; k < plan.loads.size(); ++k) {
            if (plan.loads[k].id != c.load) continue;
            const LoadResult& r = s.point.loads[k];
            const double nominal = plan.vehicle.nominal_V, share = assumption("served_share").value;
            const bool dead = !s.point.settled || r.status != LoadStatus::on || r.voltage_V < 0.3 * nominal ||
                              !s.network.loads[k].wanted;
            return dead ? 0 : r.voltage_V < share * nominal ? 0.3 : r.voltage_V;
        }
        return 0;
    }
    // How well what was seen goes with this fault.
    double seen(std::size_t fault, std::size_t strength, const std::vector<Complaint>& complaints) {
        double log = 0;
        for (const Complaint& c : complaints) {
            Probing where;
            where.state = c.state;
            std::size_t of = fault, grade = strength;
            if (faults[fault].kind == FaultKind::thin) {
                const auto [nearest, counts] = as_joint(fault, strength, where);
                of = counts ? joint_of[fault] : 0, grade = counts ? nearest : 0;
            }
            const double v = complaint_share(solution(of, grade, where), c);
            const double sound = complaint_share(solution(0, 0, where), c);
            const Seen would = v <= 0 ? Seen::dead : v < sound * (1 - kWeakShare) ? Seen::weak : Seen::works;
            const bool near = (would == Seen::dead && c.seen == Seen::weak && v > 0) ||
                              (would == Seen::weak && c.seen == Seen::dead);
            log += std::log(would == c.seen ? kComplaintRight : near ? kComplaintNear : kComplaintWrong);
        }
        return log;
    }
};

Locator::Locator(const Plan& plan) : impl_(std::make_unique<Impl>(plan)) {}
Locator::~Locator() = default;
const std::vector<Fault>& Locator::faults() const {
    return impl_->faults;
}
Expecter& Locator::expecter() {
    return impl_->expecter;
}
const Solution& Locator::solved(std::size_t fault, std::size_t strength, const Probing& where) {
    return impl_->solution(fault, strength, where);
}

namespace {

// The doubt about a set of readings: what the plan does not know (slopes), the meter's gain, digits, probes.
class Doubt {
  public:
    Doubt(const std::vector<Reading>& readings, const std::vector<Slopes>& slopes,
          const std::vector<double>& would, const Instrument& meter) {
        const auto n = static_cast<Eigen::Index>(readings.size());
        Eigen::MatrixXd C = Eigen::MatrixXd::Zero(n, n);
        for (Eigen::Index i = 0; i < n; ++i)
            for (Eigen::Index j = 0; j <= i; ++j) {
                const auto a = static_cast<std::size_t>(i), b = static_cast<std::size_t>(j);
                double sum = 0;
                if (!slopes.empty() && slopes[a].size() == slopes[b].size())
                    for (std::size_t k = 0; k < slopes[a].size(); ++k) sum += slopes[a][k] * slopes[b][k];
                // the gain is one unknown of all volts, and one of all amps
                if (readings[a].where.kind == readings[b].where.kind)
                    sum += meter.gain * meter.gain / 3 * would[a] * would[b];
                C(i, j) = C(j, i) = sum;
            }
        for (Eigen::Index i = 0; i < n; ++i) {
            const auto a = static_cast<std::size_t>(i);
            const double digits = meter.digits_of(readings[a].where.kind, readings[a].value);
            C(i, i) += digits * digits / 3 + kFloor_V * kFloor_V;
            sd_.push_back(std::sqrt(C(i, i)));
        }
        factors_.compute(C);
        log_det_ = 0;
        for (Eigen::Index i = 0; i < n; ++i) log_det_ += std::log(std::max(factors_.vectorD()[i], 1e-30));
    }
    // Logarithm of how likely the readings are where they should be `would`; a reading far off everything
    // counts no more than a slip does.
    double log_likely(const std::vector<Reading>& readings, const std::vector<double>& would) const {
        Eigen::VectorXd d(static_cast<Eigen::Index>(readings.size()));
        for (std::size_t k = 0; k < readings.size(); ++k) {
            if (std::isnan(would[k])) return -kNoAnswer;
            d[static_cast<Eigen::Index>(k)] = readings[k].value - would[k];
        }
        // Student's distribution: near the middle as a normal one, and a slip far out decides nothing
        const auto n = static_cast<double>(readings.size());
        return -0.5 * ((kTail + n) * std::log1p(square_of(d) / kTail) + log_det_);
    }
    double square(const std::vector<Reading>& readings, const std::vector<double>& would) const {
        Eigen::VectorXd d(static_cast<Eigen::Index>(readings.size()));
        for (std::size_t k = 0; k < readings.size(); ++k) {
            if (std::isnan(would[k])) return 1e6;
            d[static_cast<Eigen::Index>(k)] = readings[k].value - would[k];
        }
        return square_of(d);
    }
    const std::vector<double>& sd() const { return sd_; }

  private:
    double square_of(const Eigen::VectorXd& d) const { return d.size() == 0 ? 0 : d.dot(factors_.solve(d)); }
    Eigen::LDLT<Eigen::MatrixXd> factors_;
    double log_det_ = 0;
    std::vector<double> sd_;
};

// Readings at a strength between those that were solved; `place` 0..1 from the least to the most.
std::vector<double> between(const Fault& fault, const std::vector<std::vector<double>>& at, double place) {
    if (at.size() == 1) return at.front();
    const double x = place * static_cast<double>(at.size() - 1);
    const auto k = std::min(static_cast<std::size_t>(x), at.size() - 2);
    const double t = x - static_cast<double>(k);
    const std::size_t first = k == 0 || (t >= 0.5 && k + 2 < at.size()) ? k : k - 1;
    const auto grades = strengths(fault, at.size());
    const double r = fault.least * std::pow(fault.most / fault.least, place);
    std::vector<double> out(at[k].size());
    for (std::size_t n = 0; n < out.size(); ++n) {
        const double straight = at[k][n] * (1 - t) + at[k + 1][n] * t;
        const double y[] = {at[first][n], at[first + 1][n], at[first + 2][n]};
        out[n] = std::isnan(straight) ? straight : rational(&grades[first], y, r, straight);
        // never beyond what its neighbours read
        out[n] = std::clamp(out[n], std::min(at[k][n], at[k + 1][n]) - 1e-9,
                            std::max(at[k][n], at[k + 1][n]) + 1e-9);
    }
    return out;
}

double log_sum(const std::vector<double>& logs) {
    const double most = *std::max_element(logs.begin(), logs.end());
    double sum = 0;
    for (const double l : logs) sum += std::exp(l - most);
    return most + std::log(sum);
}

// One fault weighed: its share, its strength, what it would read.
struct Weighed {
    double log = 0;
    double low = 0, middle = 0, high = 0;
    std::vector<double> would;
    double square = 0;
};

Weighed weigh(const Fault& fault, const std::vector<std::vector<double>>& at, const std::vector<double>& seen,
              const std::vector<Reading>& readings, const Doubt& doubt) {
    Weighed w;
    const std::size_t fine = at.size() == 1 ? 1 : kFine;
    std::vector<double> logs;
    double best = -1e300;
    for (std::size_t k = 0; k < fine; ++k) {
        const double place = fine == 1 ? 0 : static_cast<double>(k) / static_cast<double>(fine - 1);
        const std::vector<double> would = between(fault, at, place);
        const double at_seen =
            seen.size() == 1
                ? seen.front()
                : seen[std::min(seen.size() - 1, static_cast<std::size_t>(std::lround(
                                                     place * static_cast<double>(seen.size() - 1))))];
        const double log = doubt.log_likely(readings, would) + at_seen;
        logs.push_back(log);
        if (log > best) best = log, w.would = would, w.square = doubt.square(readings, would);
    }
    w.log = log_sum(logs) - std::log(static_cast<double>(fine)) + std::log(fault.prior);
    if (fault.graded()) {
        double sum = 0;
        const double most = *std::max_element(logs.begin(), logs.end());
        for (const double l : logs) sum += std::exp(l - most);
        double run = 0;
        const auto strength = [&](std::size_t k) {
            return fault.least *
                   std::pow(fault.most / fault.least, static_cast<double>(k) / static_cast<double>(fine - 1));
        };
        w.low = w.middle = w.high = 0;
        for (std::size_t k = 0; k < fine; ++k) {
            run += std::exp(logs[k] - most) / sum;
            if (w.low <= 0 && run >= 0.1) w.low = strength(k);
            if (w.middle <= 0 && run >= 0.5) w.middle = strength(k);
            if (w.high <= 0 && run >= 0.9) w.high = strength(k);
        }
    }
    return w;
}

// Up to so much a fit is no surprise: nine hundred and ninety-nine in a thousand (chi-square, from memory).
double fit_limit(std::size_t readings) {
    const auto n = static_cast<double>(std::max<std::size_t>(readings, 1));
    const double t = 1 - 2 / (9 * n) + 3.09 * std::sqrt(2 / (9 * n));  // Wilson and Hilferty
    return n * t * t * t;
}

}  // namespace

double Location::of_thing(const Id& thing) const {
    double sum = 0;
    for (const Suspect& s : suspects)
        if (s.fault.thing == thing || s.fault.other == thing || (s.second && s.second->thing == thing))
            sum += s.probability;
    return sum;
}

std::vector<std::pair<Id, double>> Location::things() const {
    std::vector<std::pair<Id, double>> all;
    for (const Suspect& s : suspects) {
        auto found =
            std::find_if(all.begin(), all.end(), [&](const auto& t) { return t.first == s.fault.thing; });
        if (found == all.end())
            all.emplace_back(s.fault.thing, s.probability);
        else
            found->second += s.probability;
    }
    std::stable_sort(all.begin(), all.end(),
                     [](const auto& a, const auto& b) { return a.second > b.second; });
    return all;
}

namespace {

bool stopped(const LocateAsk& ask) {
    return ask.stop && *ask.stop;
}

}  // namespace

// One question: every fault weighed, the likely ones once more, then put in order.
class Locator::Weighing {
  public:
    Weighing(Impl& impl, const LocateAsk& ask)
        : m_(impl),
          ask_(ask),
          usual_(ask.readings, sound_slopes(), sound_reads(), impl.expecter.instrument()) {}

    Location run() {
        Location out;
        first();
        if (stopped(ask_)) return out;
        again();
        if (stopped(ask_)) return out;
        rank(out);
        if (!out.explained && ask_.pairs && ask_.readings.size() >= 3) pairs(out);
        return out;
    }

  private:
    std::vector<Slopes> sound_slopes() {
        std::vector<Slopes> all;
        for (const Reading& r : ask_.readings) all.push_back(m_.expecter.slopes(r.where));
        return all;
    }
    std::vector<double> sound_reads() {
        std::vector<double> all;
        for (const Reading& r : ask_.readings) all.push_back(m_.expecter.of(r.where).value);
        return all;
    }
    double log_none(const Fault& f) const {
        return f.kind == FaultKind::none && ask_.something_is_wrong ? std::log(kNothingWrong) : 0;
    }

    void first() {
        at_.resize(m_.faults.size()), seen_.resize(m_.faults.size());
        for (const Reading& r : ask_.readings)
            if (r.where.kind != ReadKind::ohms) m_.solve_all(r.where, ask_.stop);
        for (const Complaint& c : ask_.complaints) {
            Probing where;
            where.state = c.state;
            m_.solve_all(where, ask_.stop);
        }
        for (std::size_t f = 0; f < m_.faults.size() && !stopped(ask_); ++f) {
            for (std::size_t g = 0, n = grades_of(m_.faults[f]); g < n; ++g) {
                at_[f].push_back(m_.readings_with(f, g, ask_.readings));
                seen_[f].push_back(m_.seen(f, g, ask_.complaints));
            }
            all_.push_back(weigh(m_.faults[f], at_[f], seen_[f], ask_.readings, usual_));
            all_.back().log += log_none(m_.faults[f]);
        }
    }

    // Those that count, with the doubts as they are where that fault is.
    void again() {
        const double total = log_sum(logs());
        for (std::size_t f = 0; f < m_.faults.size() && !ask_.readings.empty() && !stopped(ask_); ++f) {
            if (std::exp(all_[f].log - total) < kUnlikely) continue;
            std::size_t nearest = 0;
            double least = 1e300;
            for (std::size_t g = 0; g < at_[f].size(); ++g)
                if (const double sq = usual_.square(ask_.readings, at_[f][g]); sq < least)
                    least = sq, nearest = g;
            std::vector<Slopes> slopes;
            if (!slopes_with(f, nearest, slopes)) continue;
            const Doubt own(ask_.readings, slopes, at_[f][nearest], m_.expecter.instrument());
            all_[f] = weigh(m_.faults[f], at_[f], seen_[f], ask_.readings, own);
            all_[f].log += log_none(m_.faults[f]);
        }
    }
    bool slopes_with(std::size_t f, std::size_t strength, std::vector<Slopes>& slopes) {
        std::map<Situation, SlopeSolver> solvers;
        for (const Reading& r : ask_.readings) {
            slopes.emplace_back();
            if (r.where.kind == ReadKind::ohms) continue;
            const Solution& s = m_.solution(f, strength, r.where);
            if (!s.point.settled) return false;
            auto found = solvers.find(key_of(r.where));
            if (found == solvers.end()) found = solvers.emplace(key_of(r.where), SlopeSolver(s)).first;
            slopes.back() = found->second.of(r.where, m_.plan);
        }
        return true;
    }

    std::vector<double> logs() const {
        std::vector<double> logs;
        for (const Weighed& w : all_) logs.push_back(w.log);
        return logs;
    }

    void off_by(Suspect& s) const {
        for (std::size_t k = 0; k < ask_.readings.size(); ++k)
            s.off_by.push_back((ask_.readings[k].value - s.would_read[k]) / usual_.sd()[k]);
    }

    void rank(Location& out) {
        const double total = log_sum(logs());
        double best = 1e300;
        for (std::size_t f = 0; f < m_.faults.size(); ++f) {
            Suspect s;
            s.fault = m_.faults[f];
            s.probability = std::exp(all_[f].log - total);
            s.strength_low = all_[f].low, s.strength = all_[f].middle, s.strength_high = all_[f].high;
            s.would_read = all_[f].would;
            off_by(s);
            best = std::min(best, all_[f].square);
            out.suspects.push_back(std::move(s));
        }
        by_probability(out);
        out.looked = m_.faults.size();
        out.explained = ask_.readings.empty() || best <= fit_limit(ask_.readings.size());
        twins(out);
    }
    static void by_probability(Location& out) {
        std::stable_sort(out.suspects.begin(), out.suspects.end(),
                         [](const Suspect& a, const Suspect& b) { return a.probability > b.probability; });
        for (std::size_t k = 0; k < out.suspects.size(); ++k) out.suspects[k].twin_of = k;
    }
    // Among the first forty: whose readings would be the same.
    void twins(Location& out) const {
        for (std::size_t k = 0; k < std::min<std::size_t>(out.suspects.size(), 40); ++k)
            for (std::size_t j = 0; j < k; ++j) {
                bool same = true;
                for (std::size_t r = 0; r < ask_.readings.size() && same; ++r)
                    same = std::abs(out.suspects[k].would_read[r] - out.suspects[j].would_read[r]) <=
                           kTwin_sd * usual_.sd()[r];
                if (!same) continue;
                out.suspects[k].twin_of = out.suspects[j].twin_of;
                break;
            }
    }

    struct Pair {
        std::size_t a = 0, b = 0;
        double strength = 0, log = -1e300;
        std::vector<double> would;
    };
    std::vector<double> readings_with(const Fault& a, double sa, const Fault& b, double sb) {
        std::map<Situation, Solution> solved;
        std::vector<double> would;
        for (const Reading& r : ask_.readings) {
            if (r.where.kind == ReadKind::ohms) {
                would.push_back(m_.expecter.of(r.where).value);
                continue;
            }
            auto found = solved.find(key_of(r.where));
            if (found == solved.end()) {
                Network with = m_.network(r.where);
                put_in(with, m_.plan, a, sa);
                put_in(with, m_.plan, b, sb);
                found = solved.emplace(key_of(r.where), settle_as_read(std::move(with), m_.solver)).first;
            }
            const auto v = value_at(found->second, m_.plan, r.where);
            would.push_back(v ? *v : std::nan(""));
        }
        return would;
    }
    Pair best_of(std::size_t first, std::size_t second) {
        const Fault &a = m_.faults[first], &b = m_.faults[second];
        const auto of_a = strengths(a, grades_of(a)), of_b = strengths(b, grades_of(b));
        Pair best;
        best.a = first, best.b = second;
        for (std::size_t ga = 0; ga < of_a.size(); ga += 2)
            for (std::size_t gb = 0; gb < of_b.size() && !stopped(ask_); gb += 2) {
                const auto would = readings_with(a, of_a[ga], b, of_b[gb]);
                const double log =
                    usual_.log_likely(ask_.readings, would) + std::log(a.prior * b.prior * kTwoAtOnce);
                if (log > best.log) best.log = log, best.strength = of_a[ga], best.would = would;
            }
        return best;
    }

    // Pairs worth solving: what two faults change added up, one of them among the likeliest things.
    std::vector<std::pair<std::size_t, std::size_t>> promising() const {
        std::vector<std::size_t> order(m_.faults.size());
        for (std::size_t k = 0; k < order.size(); ++k) order[k] = k;
        std::stable_sort(order.begin(), order.end(),
                         [&](std::size_t a, std::size_t b) { return all_[a].log > all_[b].log; });
        std::set<Id> things{Id()};  // nothing wrong is no half of a pair
        std::vector<std::pair<double, std::pair<std::size_t, std::size_t>>> ranked;
        for (const std::size_t first : order) {
            if (things.size() > kFirstsOf || stopped(ask_)) break;
            if (!things.insert(m_.faults[first].thing).second) continue;
            for (std::size_t second = 0; second < m_.faults.size(); ++second)
                if (m_.faults[second].kind != FaultKind::none &&
                    m_.faults[second].thing != m_.faults[first].thing)
                    ranked.push_back({added_up(first, second), {first, second}});
        }
        std::stable_sort(ranked.begin(), ranked.end(),
                         [](const auto& a, const auto& b) { return a.first > b.first; });
        std::vector<std::pair<std::size_t, std::size_t>> out;
        for (const auto& [log, pair] : ranked)
            if (out.size() < kPairsOf) out.push_back(pair);
        return out;
    }
    double added_up(std::size_t first, std::size_t second) const {
        double best = -1e300;
        std::vector<double> would(ask_.readings.size());
        for (const auto& a : at_[first])
            for (const auto& b : at_[second]) {
                for (std::size_t r = 0; r < would.size(); ++r) would[r] = a[r] + b[r] - at_[0][0][r];
                best = std::max(best, usual_.log_likely(ask_.readings, would));
            }
        return best + std::log(m_.faults[first].prior * m_.faults[second].prior);
    }

    // No single fault explains the readings: two of the likeliest at once.
    void pairs(Location& out) {
        out.pairs = true;
        std::vector<Pair> found;
        for (const auto& [first, second] : promising()) {
            if (stopped(ask_)) break;
            found.push_back(best_of(first, second));
        }
        if (found.empty()) return;
        std::stable_sort(found.begin(), found.end(),
                         [](const Pair& a, const Pair& b) { return a.log > b.log; });
        std::vector<double> with = logs();
        const double before = log_sum(with);
        for (const Pair& p : found) with.push_back(p.log);
        const double sum = log_sum(with);
        for (Suspect& s : out.suspects) s.probability *= std::exp(before - sum);
        for (std::size_t k = 0; k < std::min<std::size_t>(5, found.size()); ++k) {
            Suspect s;
            s.fault = m_.faults[found[k].a], s.second = m_.faults[found[k].b];
            s.probability = std::exp(found[k].log - sum);
            s.strength = found[k].strength;
            s.would_read = found[k].would;
            off_by(s);
            out.suspects.push_back(std::move(s));
        }
        by_probability(out);
    }

    Impl& m_;
    const LocateAsk& ask_;
    Doubt usual_;
    std::vector<std::vector<std::vector<double>>> at_;  // by fault and strength: readings
    std::vector<std::vector<double>> seen_;
    std::vector<Weighed> all_;
};

Location Locator::locate(const LocateAsk& ask) {
    return Weighing(*impl_, ask).run();
}

}  // namespace yr
