#include "inspect/sneak_graph.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

#include "catalog/assumptions.h"
#include "plan/rail_volts.h"
#include "units/at.h"

namespace yr {
namespace {

constexpr double kFloats = std::numeric_limits<double>::quiet_NaN();
constexpr double kAlike_V = 0.6;   // rails that stand nearer drive nothing through a load
constexpr double kJoined_S = 1e4;  // a closed cable between floating nets
constexpr double kLeak_S = 1e-7;   // keeps a net that nothing holds from being undefined

Tri both(Tri a, Tri b) {
    if (a == Tri::no || b == Tri::no) return Tri::no;
    return a == Tri::yes && b == Tri::yes ? Tri::yes : Tri::open;
}

Tri either(Tri a, Tri b) {
    if (a == Tri::yes || b == Tri::yes) return Tri::yes;
    return a == Tri::no && b == Tri::no ? Tri::no : Tri::open;
}

Tri inverse(Tri a) {
    return a == Tri::open ? a : a == Tri::yes ? Tri::no : Tri::yes;
}

}  // namespace

SneakGraph::SneakGraph(const Plan& plan, KeyPosition position) : plan_(plan), position_(position) {
    const Solution usual = solve(plan, state_at(plan, position, master_switches(plan)));
    add_switches();
    for (const Point& p : plan.points) net(p.id);
    add_edges(usual);
    add_loads(usual);
    add_rails();
    edges_at_.resize(nets_.size());
    loads_at_.resize(nets_.size());
    for (std::size_t k = 0; k < edges_.size(); ++k) {
        edges_at_[at(edges_[k].a)].push_back(static_cast<int>(k));
        edges_at_[at(edges_[k].b)].push_back(static_cast<int>(k));
    }
    for (std::size_t k = 0; k < loads_.size(); ++k) {
        if (!loads_[k].in_graph) continue;
        loads_at_[at(loads_[k].pos)].push_back(static_cast<int>(k));
        loads_at_[at(loads_[k].neg)].push_back(static_cast<int>(k));
    }
    edge_now_.resize(edges_.size());
    edge_ask_.resize(edges_.size());
}

int SneakGraph::net(const Terminal& terminal) {
    const auto found = std::find(nets_.begin(), nets_.end(), terminal);
    if (found != nets_.end()) return static_cast<int>(found - nets_.begin());
    nets_.push_back(terminal);
    return static_cast<int>(nets_.size()) - 1;
}

void SneakGraph::add_switches() {
    const auto masters = master_switches(plan_);
    for (const std::string& name : plan_switches(plan_))
        if (std::find(masters.begin(), masters.end(), name) == masters.end()) {
            SneakVariable v;
            v.kind = SneakVariable::Kind::switched;
            v.name = name;
            variables_.push_back(v);
        }
}

int SneakGraph::switch_variable(const std::string& name) const {
    for (std::size_t k = 0; k < variables_.size(); ++k)
        if (variables_[k].kind == SneakVariable::Kind::switched && variables_[k].name == name)
            return static_cast<int>(k);
    return -1;  // a master's: always on
}

int SneakGraph::follow(const Id& device, int load, int converter, bool inverted, double high_V,
                       double low_V) {
    SneakVariable v;
    v.kind = SneakVariable::Kind::follows;
    v.device = device;
    v.load = load;
    v.converter = converter;
    v.inverted = inverted;
    v.high_V = high_V;
    v.low_V = low_V;
    variables_.push_back(v);
    return static_cast<int>(variables_.size()) - 1;
}

// Whether the first battery stands high enough, as it does at this key position with nothing switched on.
bool SneakGraph::charging(const Condition& c, const Solution& usual) const {
    if (!c.charging_above_V || usual.network.batteries.empty()) return true;
    const BatteryElement& b = usual.network.batteries.front();
    return usual.point.node_V[at(b.pos)] - usual.point.node_V[at(b.neg)] >= *c.charging_above_V;
}

Gate SneakGraph::gate_of(const Condition& c, const Id& id, const Solution& usual) {
    Gate g;
    g.condition = literals_of(c);
    g.open_for_good = !charging(c, usual);
    for (const Id& circuit : c.circuits) {
        const int load = static_cast<int>(find(plan_.loads, circuit) - plan_.loads.data());
        const double nominal = rail_V(plan_, plan_.loads[at(load)]);
        g.circuits.push_back(follow(id, load, -1, false, assumption("coil_pull_share").value * nominal,
                                    assumption("coil_release_share").value * nominal));
    }
    return g;
}

void SneakGraph::add_edges(const Solution& usual) {
    const auto pull_V = [&](const Id& coil) {
        return assumption("coil_pull_share").value * rail_V(plan_, *find(plan_.loads, coil));
    };
    const auto release_V = [&](const Id& coil) {
        return assumption("coil_release_share").value * rail_V(plan_, *find(plan_.loads, coil));
    };
    const auto usually_closed = [&](const Id& id) {
        for (std::size_t k = 0; k < usual.memories.size(); ++k)
            if (usual.network.memories[k].id == id) return usual.memories[k].closed;
        return true;
    };
    for (std::size_t k = 0; k < plan_.runs.size(); ++k) {
        const Run& r = plan_.runs[k];
        SneakEdge e;
        e.a = net(r.from), e.b = net(r.to), e.run = static_cast<int>(k);
        for (const Device& d : r.devices) {
            if (d.kind == DeviceKind::diode) {
                e.one_way = true;
            } else if (d.kind == DeviceKind::shunt) {
                continue;
            } else if (d.kind == DeviceKind::fuse) {
                if (!(d.closed_when == Condition{}))  // a breaker that is the switch as well
                    e.gates.push_back(gate_of(d.closed_when, d.id, usual));
                SneakVariable v;
                v.kind = SneakVariable::Kind::fuse;
                v.device = d.id;
                variables_.push_back(v);
                Gate g;
                g.fuse = static_cast<int>(variables_.size()) - 1;
                e.gates.push_back(g);
            } else {
                Gate g = gate_of(d.closed_when, d.id, usual);
                // the other contact; without a coil or a condition it is simply closed
                if (d.rests_closed && d.coil.empty() && d.closed_when == Condition{}) continue;
                g.inverted = d.rests_closed;
                const auto load_index = [&](const Id& id) {
                    return static_cast<int>(find(plan_.loads, id) - plan_.loads.data());
                };
                if (d.kind != DeviceKind::switching) g.open_for_good = !usually_closed(d.id);
                if (!d.coil.empty() && !d.latching)
                    g.follows =
                        follow(d.id, load_index(d.coil), -1, false, pull_V(d.coil), release_V(d.coil));
                if (!d.grounds_without.empty() && !d.latching && !d.rests_closed)
                    g.or_follows = follow(d.id, load_index(d.grounds_without), -1, true,
                                          pull_V(d.grounds_without), release_V(d.grounds_without));
                e.gates.push_back(g);
            }
        }
        edges_.push_back(std::move(e));
    }
    for (const Point& p : plan_.points)
        if (p.kind == PointKind::ground) {
            SneakEdge e;
            e.a = net(p.id), e.b = net(p.bonded_to);
            edges_.push_back(e);
        }
}

void SneakGraph::add_loads(const Solution& usual) {
    const State full;
    for (const Load& l : plan_.loads) {
        SneakLoadEdge e;
        e.in_graph = l.inverter.empty() && !l.later;
        if (e.in_graph) {
            e.pos = net(pos_of(l.id)), e.neg = net(neg_of(l.id));
            e.ohm = rail_V(plan_, l) / nominal_A(plan_, l);
        }
        e.own_switch = l.own_switch;
        e.wanted = gate_of(l.live_when, l.id, usual);
        loads_.push_back(std::move(e));
    }
}

void SneakGraph::add_rails() {
    const State state = state_at(plan_, position_, master_switches(plan_));
    for (const Battery& b : plan_.batteries) {
        rails_.push_back({net(pos_of(b.id)), battery_V(plan_, b) * 1.05, -1});
        ground_nets_.push_back(net(neg_of(b.id)));
    }
    inputs_.assign(plan_.sources.size(), {-1, -1});
    for (std::size_t k = 0; k < plan_.sources.size(); ++k) {
        const Source& s = plan_.sources[k];
        ground_nets_.push_back(net(s.return_at));
        const int out = net(out_of(s.id));
        if (!holds(s.works_when, state)) continue;
        const bool turned = s.kind == SourceKind::alternator || s.kind == SourceKind::stator;
        if ((turned && state.rpm <= 0) || (s.kind == SourceKind::solar && state.sun <= 0)) continue;
        const double volts = s.regulated_V.value_or(14.2 * plan_.vehicle.nominal_V / 12);
        int follows = -1;
        if (s.kind == SourceKind::converter) {
            inputs_[k] = {net(in_of(s.id)), net(s.return_at)};
            const double half_V = 0.5 * rail_V(plan_, in_of(s.id));
            follows = follow(s.id, -1, static_cast<int>(k), false, half_V, half_V);
        }
        rails_.push_back({out, volts, follows});
    }
}

Literals SneakGraph::literals_of(const Condition& c) const {
    Literals l;
    Condition rest = c;
    rest.switches.clear(), rest.switches_off.clear(), rest.any_of.clear();
    l.possible = holds(rest, state_at(plan_, position_, {}));
    const auto add = [&](const std::string& name, bool on) {
        if (const int v = switch_variable(name); v >= 0)
            l.all.emplace_back(v, on);
        else if (!on)
            l.possible = false;  // a master's, which stays on
    };
    for (const std::string& name : c.switches) add(name, true);
    for (const std::string& name : c.switches_off) add(name, false);
    for (const Condition& one : c.any_of) l.any.push_back(literals_of(one));
    return l;
}

Tri SneakGraph::state_of_literals(const Literals& l, const Decisions& d, int* undecided) const {
    if (!l.possible) return Tri::no;
    Tri all = Tri::yes;
    int first = -1;
    for (const auto& [variable, on] : l.all) {
        const Tri t = on ? d[at(variable)] : inverse(d[at(variable)]);
        if (t == Tri::no) return t;
        if (t == Tri::open && first < 0) first = variable;
        all = both(all, t);
    }
    if (!l.any.empty()) {
        Tri any = Tri::no;
        for (const Literals& one : l.any) any = either(any, state_of_literals(one, d, &first));
        all = both(all, any);
    }
    if (all == Tri::open && undecided && *undecided < 0) *undecided = first;
    return all;
}

Tri SneakGraph::wanted(int load, const Decisions& d, int* undecided) const {
    return state_of_gate(loads_[at(load)].wanted, d, undecided);
}

// The first thing in a gate that is not decided, into `undecided`.
Tri SneakGraph::state_of_gate(const Gate& g, const Decisions& d, int* undecided) const {
    if (g.open_for_good) return Tri::no;
    const auto need = [&](int variable) {
        const Tri t = d[at(variable)];
        if (t == Tri::open && undecided && *undecided < 0) *undecided = variable;
        return t;
    };
    if (g.fuse >= 0) return need(g.fuse);
    Tri all = state_of_literals(g.condition, d, undecided);
    if (g.follows >= 0 && all != Tri::no) all = both(all, need(g.follows));
    for (const int c : g.circuits)
        if (all != Tri::no) all = both(all, need(c));
    if (g.inverted) all = inverse(all);
    if (g.or_follows >= 0 && all != Tri::yes) all = either(all, need(g.or_follows));
    return all;
}

Tri SneakGraph::state_of_edge(const SneakEdge& e, const Decisions& d, int* undecided) const {
    Tri all = Tri::yes;
    int first = -1;
    for (const Gate& g : e.gates) {
        all = both(all, state_of_gate(g, d, &first));
        if (all == Tri::no) return all;
    }
    if (all == Tri::open) *undecided = first;
    return all;
}

// Nets that are surely joined to a source or to ground, whatever is decided later.
void SneakGraph::spread_rails(const Decisions& d) {
    for (std::size_t k = 0; k < edges_.size(); ++k) {
        edge_ask_[k] = -1;
        edge_now_[k] = state_of_edge(edges_[k], d, &edge_ask_[k]);
    }
    fixed_V_.assign(nets_.size(), kFloats);
    std::vector<int> open;
    const auto spread = [&](bool ground) {
        while (!open.empty()) {
            const int n = open.back();
            open.pop_back();
            for (const int k : edges_at_[at(n)]) {
                const SneakEdge& e = edges_[at(k)];
                if (edge_now_[at(k)] != Tri::yes) continue;
                // a diode lets supply through forward, and holds its high end down to ground
                if (e.one_way && (ground ? e.b : e.a) != n) continue;
                const int next = e.a == n ? e.b : e.a;
                if (!std::isnan(fixed_V_[at(next)]) && fixed_V_[at(next)] >= fixed_V_[at(n)]) continue;
                fixed_V_[at(next)] = fixed_V_[at(n)];
                open.push_back(next);
            }
        }
    };
    for (const int g : ground_nets_) fixed_V_[at(g)] = 0, open.push_back(g);
    spread(true);
    for (const SneakRail& r : rails_) {
        if (r.follows >= 0 && d[at(r.follows)] != Tri::yes) continue;
        if (std::isnan(fixed_V_[at(r.net)]) || fixed_V_[at(r.net)] < r.volts) fixed_V_[at(r.net)] = r.volts;
        open.push_back(r.net);
    }
    spread(false);
}

SneakGraph::Volts SneakGraph::volts_of_load(int load, const Decisions& d) {
    const SneakLoadEdge& e = loads_[at(load)];
    if (!e.in_graph) return {0.0, -1};
    int undecided = -1;
    const Tri own = e.own_switch ? state_of_gate(e.wanted, d, &undecided) : Tri::yes;
    if (own == Tri::no) return {0.0, -1};
    if (own == Tri::open) return {std::nullopt, undecided};
    return volts_between(e.pos, e.neg, load, d);
}

SneakGraph::Volts SneakGraph::volts_of_input(int converter, const Decisions& d) {
    const auto [in, back] = inputs_[at(converter)];
    return volts_between(in, back, -1, d);
}

SneakGraph::Volts SneakGraph::volts_between(int pos, int neg, int itself, const Decisions& d) {
    spread_rails(d);
    const auto fixed = [&](int n) { return !std::isnan(fixed_V_[at(n)]); };
    if (fixed(pos) && fixed(neg)) return {fixed_V_[at(pos)] - fixed_V_[at(neg)], -1};
    // What is round it, with all that is undecided closed, up to the nets that are fixed.
    seen_.assign(nets_.size(), 0);
    region_.clear();
    std::vector<int> open{pos, neg};
    double low = std::numeric_limits<double>::infinity(), high = -low;
    int ask = -1, ask_at_rail = -1;
    const auto reach = [&](int next) {
        if (!seen_[at(next)]) open.push_back(next);
    };
    for (std::size_t head = 0; head < open.size(); ++head) {
        const int n = open[head];
        if (seen_[at(n)]) continue;
        seen_[at(n)] = 1;
        region_.push_back(n);
        if (fixed(n)) {
            low = std::min(low, fixed_V_[at(n)]), high = std::max(high, fixed_V_[at(n)]);
            continue;
        }
        for (const SneakRail& r : rails_)  // a converter that may yet come alive
            if (r.net == n && r.follows >= 0 && d[at(r.follows)] == Tri::open) {
                high = std::max(high, r.volts);
                ask_at_rail = r.follows;
            }
        for (const int k : edges_at_[at(n)]) {
            if (edge_now_[at(k)] == Tri::no) continue;
            const int next = edges_[at(k)].a == n ? edges_[at(k)].b : edges_[at(k)].a;
            if (edge_now_[at(k)] == Tri::open) {
                if (ask < 0) ask = edge_ask_[at(k)];
                if (fixed(next) && ask_at_rail < 0) ask_at_rail = edge_ask_[at(k)];
            }
            reach(next);
        }
        for (const int l : loads_at_[at(n)]) {
            int undecided = -1;
            const Tri own = l == itself || !loads_[at(l)].own_switch
                                ? Tri::yes
                                : state_of_gate(loads_[at(l)].wanted, d, &undecided);
            if (own == Tri::no) continue;
            if (own == Tri::open && ask < 0) ask = undecided;
            reach(loads_[at(l)].pos == n ? loads_[at(l)].neg : loads_[at(l)].pos);
        }
    }
    if (!(high - low > kAlike_V)) return {0.0, -1};
    if (ask_at_rail >= 0) return {std::nullopt, ask_at_rail};
    if (ask >= 0) return {std::nullopt, ask};
    return {solve_region(pos, neg, d), -1};
}

// All decided: the floating nets of the region as a network of resistances between fixed ones. A diode is
// closed or open as its own volts say; positions are tried until they agree.
double SneakGraph::solve_region(int pos, int neg, const Decisions& d) const {
    std::map<int, int> row;
    for (const int n : region_)
        if (std::isnan(fixed_V_[at(n)])) row.emplace(n, static_cast<int>(row.size()));
    if (row.empty()) return 0;
    const auto count = static_cast<Eigen::Index>(row.size());
    std::vector<char> conducts(edges_.size(), 1);
    Eigen::VectorXd volts;
    const auto V = [&](int n) {
        const auto found = row.find(n);
        return found == row.end() ? fixed_V_[at(n)] : volts[found->second];
    };
    for (int round = 0; round < 20; ++round) {
        Eigen::MatrixXd G = Eigen::MatrixXd::Identity(count, count) * kLeak_S;
        Eigen::VectorXd I = Eigen::VectorXd::Zero(count);
        const auto add = [&](int a, int b, double S) {
            for (const auto& [x, y] : {std::pair{a, b}, std::pair{b, a}}) {
                const auto rx = row.find(x);
                if (rx == row.end()) continue;
                G(rx->second, rx->second) += S;
                if (const auto ry = row.find(y); ry != row.end())
                    G(rx->second, ry->second) -= S;
                else if (!std::isnan(fixed_V_[at(y)]))
                    I[rx->second] += S * fixed_V_[at(y)];
            }
        };
        for (std::size_t k = 0; k < edges_.size(); ++k)
            if (edge_now_[k] == Tri::yes && (row.contains(edges_[k].a) || row.contains(edges_[k].b)))
                add(edges_[k].a, edges_[k].b, edges_[k].one_way && !conducts[k] ? kLeak_S : kJoined_S);
        for (const SneakLoadEdge& l : loads_)
            if (l.in_graph && (row.contains(l.pos) || row.contains(l.neg)) &&
                (!l.own_switch || state_of_gate(l.wanted, d, nullptr) == Tri::yes))
                add(l.pos, l.neg, 1 / l.ohm);
        volts = G.ldlt().solve(I);
        bool settled = true;
        for (std::size_t k = 0; k < edges_.size(); ++k) {
            const SneakEdge& e = edges_[k];
            if (!e.one_way || edge_now_[k] != Tri::yes || !(row.contains(e.a) || row.contains(e.b))) continue;
            const bool forward = V(e.a) >= V(e.b) - 1e-9;
            if (forward != (conducts[k] != 0)) conducts[k] = forward, settled = false;
        }
        if (settled) break;
    }
    return V(pos) - V(neg);
}

State SneakGraph::state_of(const Decisions& d) const {
    std::vector<std::string> on = master_switches(plan_);
    for (std::size_t k = 0; k < variables_.size(); ++k)
        if (variables_[k].kind == SneakVariable::Kind::switched && d[k] == Tri::yes)
            on.push_back(variables_[k].name);
    State s = state_at(plan_, position_, on);
    for (std::size_t k = 0; k < variables_.size(); ++k) {
        const SneakVariable& v = variables_[k];
        if (v.kind == SneakVariable::Kind::fuse && d[k] == Tri::no) s.pulled.push_back(v.device);
        if (v.kind != SneakVariable::Kind::follows || v.converter >= 0) continue;
        const Device* device = find_device(plan_, v.device);
        const bool pulls = d[k] == Tri::yes;
        (pulls != (device && device->rests_closed) ? s.closed : s.opened).push_back(v.device);
    }
    return s;
}

}  // namespace yr
