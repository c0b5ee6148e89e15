#include "solve/operating_point.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <vector>

#include "network/laws.h"
#include "solve/nodal_system.h"
#include "solve/reach.h"
#include "solve/results.h"

namespace yr {
namespace {

constexpr int kMostIterations = 80;
// Holds one node of each island at 0 V; so stiff that the rounding of many thousand amps moves it by nothing.
constexpr double kAnchor_S = 1e4;
constexpr int kMostAstray = 8;
constexpr double kAliveShare = 0.1;  // of nominal volts: below that at light load a feed counts as dead
constexpr double kCollapseShare = 0.02;
constexpr double kNear_V = 1e-3, kShrinks = 0.2;  // when the last factors may be used again
constexpr double kWarmGuess_C = 150;  // hotter cables of the last solve are no guess to begin from
// A cable that glows decides by its own heat how much flows: temperature and current must move together.
constexpr double kGlows_C = 150;
constexpr int kSlow = 25;  // iterations after which every warm cable is taken so
constexpr double kWarm_K = 20;

}  // namespace

// The working values of one solve. Index spaces are the network's own.
struct OperatingPointSolver::Impl {
    NodalSystem system;
    const Network* net = nullptr;
    Eigen::VectorXd v, trial, trial_sums;
    std::vector<double> temperature_C, cable_ohm, temperature_at_A, temperature_move_K;
    std::vector<char> load_on, source_on;
    std::vector<char> reversed;  // loads whose feed comes in at their negative end
    std::vector<char> glows;     // cables whose law has their own heat in it
    mutable std::vector<double> glow_C;
    std::vector<char> starved;  // converters that were let go: no volts exist at which they get their power
    std::vector<double> input_W;
    bool cold_ = false;  // while light load is searched
    bool gives_up_ = false;
    bool probes_ = false;  // whether a share can be served is asked, not how
    bool follows_ = false;
    double scale =
        1;  // of the constant currents and powers, for the search of the largest that can be served

    double across(NodeIndex a, NodeIndex b) const { return v[a] - v[b]; }
    bool stiff(const LoadElement& l) const { return l.kind != DrawKind::resistance; }
    // The ends of a load as its current goes through it.
    NodeIndex plus(std::size_t k) const { return reversed[k] ? net->loads[k].neg : net->loads[k].pos; }
    NodeIndex minus(std::size_t k) const { return reversed[k] ? net->loads[k].pos : net->loads[k].neg; }

    void start(const Network& network) {
        net = &network;
        system.prepare(network);
        v = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(network.nodes.size()));
        const bool again =
            temperature_C.size() == network.conductors.size();  // the last answer is a good guess
        temperature_C.resize(network.conductors.size());
        temperature_at_A.assign(network.conductors.size(), 0);
        temperature_move_K.assign(network.conductors.size(), 0);
        cable_ohm.assign(network.conductors.size(), 0);
        glows.assign(network.conductors.size(), 0);
        glow_C.assign(network.conductors.size(), 0);
        for (std::size_t k = 0; k < network.conductors.size(); ++k) {
            const double ambient = network.conductors[k].cable.ambient_C;
            if (network.conductors[k].turn) {
                temperature_C[k] = network.conductors[k].turn->end_C;
                cable_ohm[k] = at_temperature(network.conductors[k], temperature_C[k]);
                continue;
            }
            if (!again || !(temperature_C[k] >= ambient && temperature_C[k] < kWarmGuess_C))
                temperature_C[k] = ambient;
            cable_ohm[k] = at_temperature(network.conductors[k], temperature_C[k]);
        }
        load_on.assign(network.loads.size(), 0);
        reversed.assign(network.loads.size(), 0);
        source_on.assign(network.sources.size(), 0);
        starved.assign(network.sources.size(), 0);
        input_W.assign(network.sources.size(), 0);
    }

    static double at_temperature(const ConductorElement& c, double t) {
        return c.cable20_ohm * (1 + kCopperAlpha_per_K * (t - 20));
    }

    // The law of one conductor at these volts; of one that glows with its own heat in it.
    Law conductor_at(std::size_t k, double u) const {
        const ConductorElement& c = net->conductors[k];
        if (!glows[k]) return conductor_law(c, cable_ohm[k], u);
        const HeatedCurrent h = glow_at(k, u);
        const double leak_S = c.forward_V > 0 ? kDiodeLeak_S : 0;
        const bool blocks = c.forward_V > 0 && u <= c.forward_V;
        return {u * leak_S + (blocks  ? 0
                              : u < 0 ? -h.current_A
                                      : h.current_A),
                leak_S + (blocks ? 0 : h.slope_S)};
    }

    HeatedCurrent glow_at(std::size_t k, double u) const {
        const ConductorElement& c = net->conductors[k];
        const double over = c.forward_V > 0 ? std::max(0.0, u - c.forward_V) : std::abs(u);
        const HeatedCurrent h = heated_current(c.cable, c.fixed_ohm, c.cable20_ohm, c.parallel, over,
                                               glow_C[k] > 0 ? glow_C[k] : temperature_C[k]);
        glow_C[k] = h.temperature_C;
        return h;
    }

    // Cables follow their own heat; one that hardly changed its current keeps its temperature. Largest move,
    // K.
    double heat_cables(int iterations) {
        double moved = 0;
        for (std::size_t k = 0; k < net->conductors.size(); ++k) {
            const ConductorElement& c = net->conductors[k];
            if (c.cable20_ohm <= 0 || !c.closed || c.turn) continue;
            if (temperature_C[k] > kGlows_C ||
                (iterations > kSlow && temperature_C[k] > c.cable.ambient_C + kWarm_K))
                glows[k] = 1;
            if (glows[k]) {
                temperature_C[k] = glow_at(k, across(c.from, c.to)).temperature_C;
                cable_ohm[k] = at_temperature(c, temperature_C[k]);
                continue;
            }
            const double amps = conductor_law(c, cable_ohm[k], across(c.from, c.to)).current_A;
            if (temperature_move_K[k] < 1e-9 &&
                std::abs(amps - temperature_at_A[k]) <= 1e-11 * std::abs(amps) + 1e-12)
                continue;
            const double t = conductor_temperature_step_C(c.cable, amps / c.parallel, temperature_C[k]);
            temperature_move_K[k] = std::abs(t - temperature_C[k]);
            moved = std::max(moved, temperature_move_K[k]);
            temperature_C[k] = t;
            temperature_at_A[k] = amps;
            cable_ohm[k] = at_temperature(c, t);
        }
        return moved;
    }

    // Calls use(slot, pos, neg, current from pos to neg inside the element, conductance for the Jacobian,
    // stiff) for each element's law at the voltages `at`. The conductance of a stiff element is negative:
    // constant power. Their current is taken at the voltages `stiff_at`, which is `at` but for the search
    // along a step.
    template <class F>
    void each_law(const Eigen::VectorXd& at, const Eigen::VectorXd& stiff_at, F&& use) const {
        const auto u_of = [&](NodeIndex a, NodeIndex b) { return at[a] - at[b]; };
        const double least = 0.2 * kCollapseShare * net->nominal_V;
        const auto power = [&](std::size_t slot, NodeIndex pos, NodeIndex neg, double watts) {
            const Law law = constant_power(watts, std::max(stiff_at[pos] - stiff_at[neg], least));
            use(slot, pos, neg, law.current_A, law.conductance_S, true);
        };
        for (std::size_t k = 0; k < net->conductors.size(); ++k) {
            const ConductorElement& c = net->conductors[k];
            if (!c.closed) continue;
            const Law law = conductor_at(k, u_of(c.from, c.to));
            use(k, c.from, c.to, law.current_A, law.conductance_S, false);
        }
        for (std::size_t k = 0; k < net->batteries.size(); ++k) {
            const BatteryElement& b = net->batteries[k];
            const Law law = at_volts(battery_law(b), u_of(b.pos, b.neg));
            use(system.slot_of_battery(k), b.pos, b.neg, -law.current_A, law.conductance_S, false);
        }
        for (std::size_t k = 0; k < net->sources.size(); ++k) {
            const SourceElement& s = net->sources[k];
            if (!source_on[k]) {
                if (s.works)
                    use(system.slot_of_output(k), s.out, s.neg, 0, kHold_S,
                        false);  // its terminal may hang on nothing else
                continue;
            }
            const Law law = at_volts(source_law(s), u_of(s.out, s.neg));
            use(system.slot_of_output(k), s.out, s.neg, -law.current_A, law.conductance_S, false);
            if (s.in != kNoNode && input_W[k] > 0) power(system.slot_of_input(k), s.in, s.neg, input_W[k]);
        }
        for (std::size_t k = 0; k < net->loads.size(); ++k) {
            const LoadElement& l = net->loads[k];
            if (!load_on[k]) continue;
            const std::size_t slot = system.slot_of_load(k);
            if (l.kind == DrawKind::power) {
                power(slot, plus(k), minus(k), l.value * scale);
                continue;
            }
            const Law law = load_law(l, u_of(plus(k), minus(k)), scale);
            use(slot, plus(k), minus(k), law.current_A, law.conductance_S, false);
        }
    }

    // Sum of the currents that leave each node.
    void residual(const Eigen::VectorXd& at, const Eigen::VectorXd& stiff_at, Eigen::VectorXd& sums) const {
        sums.setZero(at.size());
        for (NodeIndex n : system.anchors()) sums[n] += kAnchor_S * at[n];
        each_law(at, stiff_at, [&](std::size_t, NodeIndex a, NodeIndex b, double amps, double, bool) {
            sums[a] += amps;
            sums[b] -= amps;
        });
    }

    // The Jacobian at v. Where constant powers would make it indefinite they are left out: the step is then
    // shorter than Newton's but still downhill. False when the factors fail.
    bool factorise_at_v(bool& positive) {
        for (const bool with_stiff : {true, false}) {
            system.clear();
            for (NodeIndex n : system.anchors()) system.stamp_ground(n, kAnchor_S);
            each_law(v, v, [&](std::size_t slot, NodeIndex, NodeIndex, double, double g, bool stiff_law) {
                system.stamp(slot, stiff_law && !with_stiff ? 0 : g);
            });
            const bool factored = system.factorise();
            if (with_stiff) positive = factored && system.positive();
            if (factored && system.positive()) return true;
        }
        return false;
    }

    // Whether every constant power keeps more than half its volts at `other`: its law bends little that far.
    bool near(const Eigen::VectorXd& other) const {
        const auto keeps = [&](NodeIndex a, NodeIndex b) { return other[a] - other[b] > 0.5 * across(a, b); };
        for (std::size_t k = 0; k < net->loads.size(); ++k)
            if (load_on[k] && net->loads[k].kind == DrawKind::power && !keeps(plus(k), minus(k)))
                return false;
        for (std::size_t k = 0; k < net->sources.size(); ++k)
            if (net->sources[k].in != kNoNode && input_W[k] > 0 &&
                !keeps(net->sources[k].in, net->sources[k].neg))
                return false;
        return true;
    }

    // How far to go along `step`. With constant powers held at their present currents, the node sums are the
    // slope of a convex function (the network's co-content), so where the full step climbs again, its lowest
    // point lies before that, and Newton from there on cannot run away between the limits of sources and
    // batteries.
    double step_length(const Eigen::VectorXd& step, const Eigen::VectorXd& sums) {
        const double slope0 = sums.dot(step);
        trial = v + step;
        if (near(trial)) {
            residual(trial, trial, trial_sums);
            if (!(trial_sums.dot(step) > 0.3 * std::abs(slope0))) return 1;
        }
        double low = 0, high = 1;
        for (int k = 0; k < 60; ++k) {
            const double t = (low + high) / 2;
            trial = v + t * step;
            residual(trial, v, trial_sums);
            const double slope = trial_sums.dot(step);
            (slope < 0 ? low : high) = t;
            if (std::abs(slope) < 0.01 * std::abs(slope0)) return t;
        }
        return high;
    }

    double source_A(std::size_t k) const {
        const SourceElement& s = net->sources[k];
        return source_on[k] ? at_volts(source_law(s), across(s.out, s.neg)).current_A : 0;
    }

    // What each converter takes follows what it gives. Largest move, W.
    double feed_converters() {
        double moved = 0;
        for (std::size_t k = 0; k < net->sources.size(); ++k) {
            const SourceElement& s = net->sources[k];
            if (s.in == kNoNode || !source_on[k]) continue;
            const double watts = input_power_W(s, source_A(k), across(s.out, s.neg)) * scale;
            moved = std::max(moved, std::abs(watts - input_W[k]) / (1 + watts));
            input_W[k] = watts;
        }
        return moved;
    }

    // True when a constant-power device has fallen off the branch that light load leads to.
    bool fell() const {
        const double least = kCollapseShare * net->nominal_V;
        for (std::size_t k = 0; k < net->loads.size(); ++k) {
            const LoadElement& l = net->loads[k];
            if (load_on[k] && stiff(l) && across(plus(k), minus(k)) < least) return true;
        }
        for (std::size_t k = 0; k < net->sources.size(); ++k) {
            const SourceElement& s = net->sources[k];
            if (s.in != kNoNode && source_on[k] && across(s.in, s.neg) < least) return true;
        }
        return false;
    }

    struct Outcome {
        bool converged = false;
        int iterations = 0;
    };

    // Newton from the present v. Constant powers must have volts to start from.
    Outcome newton() {
        Outcome out;
        Eigen::VectorXd sums;
        double last = 1e300;
        bool positive = true, shrinking = false;
        int astray = 0;  // steps in a row beyond the branch that light load leads to
        for (out.iterations = 1; out.iterations <= kMostIterations; ++out.iterations) {
            residual(v, v, sums);
            // Near the end the slopes hardly change: the last factors serve while each step is much smaller
            // than the one before.
            if (!(last < kNear_V && shrinking)) {
                if (!factorise_at_v(positive)) return out;
                astray = positive ? 0 : astray + 1;
                if (astray > kMostAstray) return out;
            }
            const Eigen::VectorXd step = system.solve(-sums);
            double change = step.cwiseAbs().maxCoeff();
            if (!std::isfinite(change)) return out;
            const double length = change > 1e-7 ? step_length(step, sums) : 1;
            v += length * step;
            change *= length;
            if (fell()) return out;
            const double heated = cold_ ? 0 : heat_cables(out.iterations);
            const double fed = cold_ ? 0 : feed_converters();
            shrinking = positive && change < kShrinks * last;
            last = change;
            const double coarse = probes_ ? 1e5 : 1;
            if (change < 1e-11 * coarse && heated < 1e-7 * coarse && fed < 1e-11 * coarse) {
                out.converged = positive;
                return out;
            }
        }
        // Rounding can keep the last digits moving; the residuals judge such an answer.
        out.converged = positive && last < 1e-9;
        return out;
    }

    // All loads but plain resistances off: finds which feeds are alive at all.
    // Cables keep their temperatures here: which feeds are alive does not hang on a few per cent of
    // resistance.
    void light_load() {
        cold_ = true;
        for (std::size_t k = 0; k < net->loads.size(); ++k)
            load_on[k] = net->loads[k].wanted && !stiff(net->loads[k]);
        // a converter fed by a converter needs a round each
        for (std::size_t round = 0; round <= net->sources.size(); ++round) {
            const std::vector<char> before = source_on;
            const Reach reach(*net, source_on);
            for (std::size_t k = 0; k < net->sources.size(); ++k) {
                const SourceElement& s = net->sources[k];
                const bool fed = s.in == kNoNode || (across(s.in, s.neg) > kAliveShare * net->nominal_V &&
                                                     reach.feeds(s.in, s.neg));
                source_on[k] = s.works && fed;
                input_W[k] = 0;
            }
            if (round > 0 && source_on == before) break;
            newton();
        }
        const Reach reach(*net, source_on);
        for (std::size_t k = 0; k < net->loads.size(); ++k) {
            const LoadElement& l = net->loads[k];
            if (!l.wanted || !stiff(l)) continue;
            reversed[k] = across(l.pos, l.neg) < 0;
            load_on[k] = system.island(l.pos) == system.island(l.neg) &&
                         across(plus(k), minus(k)) > kAliveShare * net->nominal_V &&
                         reach.feeds(plus(k), minus(k));
        }
        cold_ = false;
    }

    // What cannot be served, and the largest share of all constant currents and powers that can be.
    struct Culprits {
        std::vector<int> loads;
        int source = -1;
        double share = 0;
    };

    // Newton at that share of all, from the voltages `from`. Of less than all only whether it can be served
    // is asked: its digits are left as they come.
    bool serves(double share, const Eigen::VectorXd& from) {
        scale = share;
        probes_ = share < 1;
        v = from;
        const bool served = newton().converged;
        scale = 1;
        probes_ = false;
        return served;
    }

    // The largest share that is known to be served, with the voltages there, and the least that is not, with
    // those to which Newton runs away.
    struct Edge {
        double share = 0, not_served = 0;
        Eigen::VectorXd served, beyond;
    };

    // From light load a first step may overshoot what a few smaller ones reach: a quarter of all constant
    // currents and powers at a time. not_served is 0 where that leads to all of them.
    Edge climb(const Eigen::VectorXd& light) {
        Edge edge{0, 0, light, light};
        for (const double share : {0.25, 0.5, 0.75, 1.0}) {
            if (!serves(share, edge.served)) {
                edge.not_served = share, edge.beyond = v;
                break;
            }
            edge.share = share, edge.served = v;
        }
        return edge;
    }

    // Both ends to a thousandth of themselves.
    void narrow(Edge& edge) {
        // a load that only a leak feeds gets a millionth of what it wants
        for (int k = 0; k < 40 && edge.not_served - edge.share > 1e-3 * edge.not_served; ++k) {
            const double share =
                edge.share > 0 ? (edge.share + edge.not_served) / 2 : edge.not_served / (k < 6 ? 2 : 16);
            if (serves(share, edge.served))  // a smaller share's solution lies above: still from light load
                edge.share = share, edge.served = v;
            else
                edge.not_served = share, edge.beyond = v;
        }
    }

    // Just beyond the edge Newton runs away along the way in which the circuit gives in. What loses most of
    // its volts there cannot be served: one behind its own resistance or limit stands out; where the supply
    // as a whole is too weak many stand alike, and about half of what is too much is let go at a time.
    Culprits find_culprits(const Eigen::VectorXd& light, Edge edge) {
        narrow(edge);
        struct Candidate {
            double ratio;
            int load;
        };
        std::vector<Candidate> candidates;
        const auto ratio = [&](NodeIndex a, NodeIndex b) {
            const double there = edge.beyond[a] - edge.beyond[b];
            return std::isfinite(there) ? there / (light[a] - light[b]) : 1;
        };
        for (std::size_t k = 0; k < net->loads.size(); ++k)
            if (load_on[k] && stiff(net->loads[k]))
                candidates.push_back({ratio(plus(k), minus(k)), static_cast<int>(k)});
        std::sort(candidates.begin(), candidates.end(),
                  [](const Candidate& a, const Candidate& b) { return a.ratio < b.ratio; });
        Culprits culprits{{}, -1, edge.share};
        double worst = candidates.empty() ? 2 : candidates.front().ratio;
        for (std::size_t k = 0; k < net->sources.size(); ++k) {
            const SourceElement& s = net->sources[k];
            if (s.in == kNoNode || !source_on[k]) continue;
            const double here = ratio(s.in, s.neg);
            if (here < worst) culprits.source = static_cast<int>(k), worst = here;
        }
        if (culprits.source >= 0) return culprits;
        const auto most = std::max<std::size_t>(
            1, static_cast<std::size_t>(static_cast<double>(candidates.size()) * (1 - edge.share) / 2));
        for (std::size_t k = 0; k < std::min(most, candidates.size()) && candidates[k].ratio < worst + 0.05;
             ++k)
            culprits.loads.push_back(candidates[k].load);
        return culprits;
    }

    // What must be as in the last answer for it to be a beginning.
    struct Shape {
        std::vector<char> closed, works, wanted;
        std::vector<double> kinds;  // of loads, and the volts that diodes take
        friend bool operator==(const Shape&, const Shape&) = default;
    };
    // The last answers in which everything ran, of a few shapes: switches that settle go through the same
    // ones again and again. Newest first.
    static constexpr std::size_t kMostLast = 6;
    struct Last {
        Shape shape;
        Eigen::VectorXd v;
        std::vector<char> load_on, reversed, source_on;
        std::vector<double> input_W;
    };
    std::vector<Last> last_;
    std::vector<Last>::iterator last_of(const Shape& shape) {
        return std::find_if(last_.begin(), last_.end(), [&](const Last& l) { return l.shape == shape; });
    }
    static Shape shape_of(const Network& n) {
        Shape s;
        for (const ConductorElement& c : n.conductors)
            s.closed.push_back(c.closed), s.kinds.push_back(c.forward_V);
        for (const SourceElement& x : n.sources) s.works.push_back(x.works);
        for (const LoadElement& l : n.loads)
            s.wanted.push_back(l.wanted), s.kinds.push_back(static_cast<double>(l.kind));
        return s;
    }

    // What did not run in the last answer still has no volts to run on: nothing hangs on light load. What no
    // closed way joins to its other end has volts between the two, but never current.
    bool rest_is_dead() const {
        const double none = 0.1 * kAliveShare * net->nominal_V;
        for (std::size_t k = 0; k < net->loads.size(); ++k) {
            const LoadElement& l = net->loads[k];
            if (l.wanted && !load_on[k] && system.island(l.pos) == system.island(l.neg) &&
                std::abs(across(l.pos, l.neg)) > none)
                return false;
        }
        for (std::size_t k = 0; k < net->sources.size(); ++k) {
            const SourceElement& s = net->sources[k];
            if (s.works && !source_on[k] && (s.in == kNoNode || across(s.in, s.neg) > none)) return false;
        }
        return true;
    }
    bool all_alive() const {
        const double least = kAliveShare * net->nominal_V;
        for (std::size_t k = 0; k < net->loads.size(); ++k)
            if (load_on[k] && stiff(net->loads[k]) && across(plus(k), minus(k)) <= least) return false;
        for (std::size_t k = 0; k < net->sources.size(); ++k) {
            const SourceElement& s = net->sources[k];
            if (source_on[k] && s.in != kNoNode && across(s.in, s.neg) <= least) return false;
        }
        return true;
    }

    // From the last answer; nothing where that does not lead to one that is sure to be right.
    std::optional<OperatingPoint> go_on(const Network& network, const Shape& shape) {
        const auto last = last_of(shape);
        if (last == last_.end()) return std::nullopt;
        start(network);
        if (last->v.size() != v.size()) return std::nullopt;
        v = last->v, load_on = last->load_on, reversed = last->reversed;
        source_on = last->source_on, input_W = last->input_W;
        const Outcome outcome = newton();
        // copper that glows has more than one balance: which one is found hangs on where one comes from
        const bool cool = std::all_of(temperature_C.begin(), temperature_C.end(),
                                      [](double t) { return t < kWarmGuess_C; });
        if (!outcome.converged || !cool || !all_alive() || !rest_is_dead()) return std::nullopt;
        OperatingPoint point;
        point.collapsed_at.assign(network.loads.size(), 1);
        point.iterations = outcome.iterations, point.settled = true;
        fill(point, std::vector<char>(network.loads.size(), 0));
        if (!point.residuals.good()) return std::nullopt;
        return point;
    }

    void keep(Shape shape) {
        if (const auto same = last_of(shape); same != last_.end())
            last_.erase(same);
        else if (last_.size() == kMostLast)
            last_.pop_back();
        last_.insert(last_.begin(), Last{std::move(shape), v, load_on, reversed, source_on, input_W});
    }

    OperatingPoint solve(const Network& network) {
        if (!follows_) return search(network);
        Shape shape = shape_of(network);
        if (auto point = go_on(network, shape)) {
            keep(std::move(shape));
            return std::move(*point);
        }
        OperatingPoint point = search(network);
        const bool whole = point.settled &&
                           std::none_of(starved.begin(), starved.end(), [](char s) { return s != 0; }) &&
                           std::all_of(point.collapsed_at.begin(), point.collapsed_at.end(),
                                       [](double share) { return share == 1; });
        if (whole) keep(std::move(shape));
        return point;
    }

    OperatingPoint search(const Network& network) {
        start(network);
        light_load();
        Eigen::VectorXd light = v;
        OperatingPoint point;
        std::vector<char> collapsed(network.loads.size(), 0);
        point.collapsed_at.assign(network.loads.size(), 1);
        while (true) {
            const Outcome outcome = newton();
            point.iterations += outcome.iterations;
            point.settled = outcome.converged;
            if (point.settled) break;
            Edge edge = climb(light);
            point.settled = edge.not_served == 0;
            if (point.settled || gives_up_) break;
            const Culprits culprits = find_culprits(light, std::move(edge));
            for (int load : culprits.loads) {
                load_on[static_cast<std::size_t>(load)] = 0;
                collapsed[static_cast<std::size_t>(load)] = 1;
                point.collapsed_at[static_cast<std::size_t>(load)] = culprits.share;
            }
            if (culprits.source >= 0) {
                source_on[static_cast<std::size_t>(culprits.source)] = 0;
                starved[static_cast<std::size_t>(culprits.source)] = 1;
                input_W[static_cast<std::size_t>(culprits.source)] = 0;
            } else if (culprits.loads.empty()) {
                break;  // nothing left to let go of: reported as not settled
            }
            v = light;
            std::fill(input_W.begin(), input_W.end(), 0.0);
        }
        fill(point, collapsed);
        point.settled = point.settled && point.residuals.good();
        if (!point.settled && !gives_up_) withdraw(point);
        return point;
    }

    // An iteration that did not end is no answer: nobody shall read numbers off it.
    static void withdraw(OperatingPoint& point) {
        std::fill(point.node_V.begin(), point.node_V.end(), 0.0);
        for (ConductorResult& c : point.conductors) c.current_A = c.drop_V = 0;
        for (BatteryResult& b : point.batteries) b = {};
        for (SourceResult& s : point.sources) s = {};
        for (LoadResult& l : point.loads) l = LoadResult{}, l.status = LoadStatus::unsolved;
    }

    void fill(OperatingPoint& point, const std::vector<char>& collapsed) {
        point.node_V.assign(v.data(), v.data() + v.size());
        for (std::size_t k = 0; k < net->conductors.size(); ++k) {
            const ConductorElement& c = net->conductors[k];
            const double u = across(c.from, c.to);
            const double amps = c.closed ? conductor_at(k, u).current_A : 0;
            const double drop = !c.closed ? 0 : c.forward_V > 0 ? u : amps * (c.fixed_ohm + cable_ohm[k]);
            point.conductors.push_back({amps, cable_ohm[k], temperature_C[k], drop});
        }
        for (const BatteryElement& b : net->batteries) {
            const double u = across(b.pos, b.neg);
            const double i = at_volts(battery_law(b), u).current_A;
            point.batteries.push_back({u, i, (b.open_V - u) / b.R0_ohm < -b.accept_A});
        }
        for (std::size_t k = 0; k < net->sources.size(); ++k) point.sources.push_back(source_result(k));
        for (std::size_t k = 0; k < net->loads.size(); ++k) {
            const LoadElement& l = net->loads[k];
            LoadResult r;
            const double u = std::abs(across(l.pos, l.neg));
            if (collapsed[k])
                r.status = LoadStatus::collapsed;
            else if (!l.wanted)
                r.status = LoadStatus::off;
            else if (!load_on[k] || u < kCollapseShare * net->nominal_V)
                r.status = LoadStatus::dead;
            else
                r.status = LoadStatus::on;
            if (load_on[k]) {
                r.voltage_V = u;
                r.reversed = across(l.pos, l.neg) < 0;
                r.current_A = l.kind == DrawKind::current ? l.value
                              : l.kind == DrawKind::power ? l.value / u
                                                          : u / l.value;
                r.power_W = u * r.current_A;
            }
            point.loads.push_back(r);
        }
        measure_drops(*net, point);
        point.residuals = residuals_of(*net, point);
    }

    SourceResult source_result(std::size_t k) const {
        const SourceElement& s = net->sources[k];
        SourceResult r;
        r.voltage_V = across(s.out, s.neg);
        r.limit_A = s.works ? s.limit_A : 0;
        r.collapsed = starved[k];
        r.input_dead = s.works && !source_on[k] && !starved[k];
        if (!source_on[k]) return r;
        r.current_A = source_A(k);
        if (s.power_W > 0) r.limit_A = std::min(s.limit_A, s.power_W / std::max(r.voltage_V, 1.0));
        if (s.in == kNoNode && s.power_W <= 0)
            r.shaft_W = r.voltage_V * std::max(0.0, r.current_A) / s.efficiency;
        r.mode = r.current_A >= r.limit_A ? DeviceMode::limited
                 : r.current_A <= 0       ? DeviceMode::blocking
                                          : DeviceMode::regulating;
        if (s.in != kNoNode && input_W[k] > 0) r.input_A = input_W[k] / across(s.in, s.neg);
        return r;
    }
};

OperatingPointSolver::OperatingPointSolver() : impl_(std::make_unique<Impl>()) {}
OperatingPointSolver::~OperatingPointSolver() = default;
OperatingPointSolver::OperatingPointSolver(OperatingPointSolver&&) noexcept = default;
OperatingPointSolver& OperatingPointSolver::operator=(OperatingPointSolver&&) noexcept = default;

void OperatingPointSolver::give_up_on_collapse(bool yes) {
    impl_->gives_up_ = yes;
}

void OperatingPointSolver::follow(bool yes) {
    impl_->follows_ = yes;
    impl_->last_.clear();
}

OperatingPoint OperatingPointSolver::solve(const Network& network) {
    return impl_->solve(network);
}

OperatingPoint solve(const Network& network) {
    return OperatingPointSolver().solve(network);
}

YR_SPECIAL_MEMBERS_HERE(OperatingPoint)

}  // namespace yr

template class std::vector<yr::ConductorResult>;
template class std::vector<yr::BatteryResult>;
template class std::vector<yr::SourceResult>;
template class std::vector<yr::LoadResult>;
