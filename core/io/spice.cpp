#include "io/spice.h"

#include <fmt/format.h>

#include "network/laws.h"
#include "solve/results.h"

namespace yr {
namespace {

std::string one_line(std::string text) {
    for (char& c : text)
        if (c == '\n' || c == '\r') c = ' ';
    return text;
}

// What hangs on nothing has no volts for a simulator: a node of each such island is tied down by 1 Gohm,
// which moves nothing that can be measured.
std::string ties(const Network& net, const OperatingPoint& point) {
    std::vector<int> group = conductor_groups(net);
    const auto root = [&](int k) {
        while (group[static_cast<std::size_t>(k)] != k) k = group[static_cast<std::size_t>(k)];
        return k;
    };
    const auto join = [&](NodeIndex a, NodeIndex b) { group[static_cast<std::size_t>(root(a))] = root(b); };
    for (const BatteryElement& b : net.batteries) join(b.pos, b.neg);
    for (std::size_t k = 0; k < net.sources.size(); ++k)
        if (point.sources[k].mode != DeviceMode::off) join(net.sources[k].out, net.sources[k].neg);
    for (std::size_t k = 0; k < net.loads.size(); ++k)
        if (net.loads[k].kind == DrawKind::resistance && point.loads[k].status == LoadStatus::on)
            join(net.loads[k].pos, net.loads[k].neg);
    std::string out;
    for (std::size_t k = 0; k < net.nodes.size(); ++k) {
        const auto n = static_cast<NodeIndex>(k);
        if (root(n) == root(net.reference)) continue;
        out += fmt::format("Rtie{} n{} 0 1e9\n", k, k);
        join(n, net.reference);
    }
    return out;
}

}  // namespace

std::string spice_netlist(const Plan& plan, const Solution& solution, const std::string& title) {
    const Network& net = solution.network;
    const OperatingPoint& point = solution.point;
    const auto node = [&](NodeIndex n) {
        return n == net.reference ? std::string("0") : fmt::format("n{}", n);
    };
    std::string out = "* " + one_line(title) + "\n";
    for (std::size_t k = 0; k < net.nodes.size(); ++k)
        out += fmt::format("* {} = {} ({})\n", node(static_cast<NodeIndex>(k)), net.nodes[k].text(),
                           one_line(name_of(plan, net.nodes[k])));
    for (std::size_t k = 0; k < net.nodes.size();
         ++k)  // where to begin: limits make a hard start from nothing
        if (static_cast<NodeIndex>(k) != net.reference)
            out += fmt::format(".nodeset v({})={:.6g}\n", node(static_cast<NodeIndex>(k)), point.node_V[k]);
    for (std::size_t k = 0; k < net.conductors.size(); ++k) {
        const ConductorElement& c = net.conductors[k];
        if (!c.closed) continue;
        const double ohm = c.fixed_ohm + point.conductors[k].cable_ohm;
        const std::string a = node(c.from), b = node(c.to);
        if (c.forward_V > 0)
            out += fmt::format("Bdiode{} {} {} I = v({},{})*{:.3g} + max(v({},{}) - {:.12g}, 0)/{:.12g}\n", k,
                               a, b, a, b, kDiodeLeak_S, a, b, c.forward_V, ohm);
        else
            out += fmt::format("R{} {} {} {:.12g}\n", k, a, b, ohm);
    }
    for (std::size_t k = 0; k < net.batteries.size(); ++k) {
        const BatteryElement& b = net.batteries[k];
        const std::string p = node(b.pos), n = node(b.neg);
        const BatteryLaw law = battery_law(b);
        out += fmt::format("Bbat{} {} {} I = max(({:.12g} - v({},{}))/{:.12g}, {:.12g})", k, n, p, law.open_V,
                           p, n, law.ohm, law.least_A);
        if (law.forced_V < 1e6)
            out += fmt::format(" - max(v({},{}) - {:.12g}, 0)/{:.12g}", p, n, law.forced_V, law.ohm);
        out += "\n";
    }
    for (std::size_t k = 0; k < net.sources.size(); ++k) {
        const SourceElement& s = net.sources[k];
        if (point.sources[k].mode == DeviceMode::off) continue;
        const std::string p = node(s.out), n = node(s.neg);
        const SourceLaw source = source_law(s);
        const std::string most = source.power_W > 0 ? fmt::format("min({:.12g}, {:.12g}/max(v({},{}), 1))",
                                                                  source.most_A, source.power_W, p, n)
                                                    : fmt::format("{:.12g}", source.most_A);
        const std::string law = fmt::format("min(max(({:.12g} - v({},{}))/{:.12g}, 0), {})", source.set_V, p,
                                            n, source.ohm, most);
        const std::string sense =
            fmt::format("min({:.12g} - v({},{}), 0)*{:.3g}", source.set_V, p, n, kSense_S);
        out += fmt::format("Bsrc{} {} {} I = {} + {}\n", k, n, p, law, sense);
        if (s.in != kNoNode)
            out += fmt::format("Bin{} {} {} I = (v({},{})*{}/{:.12g} + {:.12g})/max(v({},{}), 1)\n", k,
                               node(s.in), n, p, n, law, s.efficiency, s.standby_W, node(s.in), n);
    }
    for (std::size_t k = 0; k < net.loads.size(); ++k) {
        const LoadElement& l = net.loads[k];
        if (point.loads[k].status != LoadStatus::on || l.inverter >= 0) continue;
        const bool turned = point.loads[k].reversed;
        const std::string p = node(turned ? l.neg : l.pos), n = node(turned ? l.pos : l.neg);
        switch (l.kind) {
            case DrawKind::current:
                out += fmt::format("Iload{} {} {} {:.12g}\n", k, p, n, l.value);
                break;
            case DrawKind::power:
                out += fmt::format("Bload{} {} {} I = {:.12g}/max(v({},{}), 0.5)\n", k, p, n, l.value, p, n);
                break;
            case DrawKind::resistance:
                out += fmt::format("Rload{} {} {} {:.12g}\n", k, p, n, l.value);
                break;
        }
    }
    out += ties(net, point);
    out += ".options reltol=1e-9 abstol=1e-12 vntol=1e-9 gmin=1e-15 itl1=2000\n.op\n.end\n";
    return out;
}

}  // namespace yr
