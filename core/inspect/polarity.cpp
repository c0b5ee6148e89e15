// Rules about poles and volts: what is joined the wrong way round, or is made for other volts than what it is
// joined to.
#include <algorithm>
#include <cmath>
#include <set>

#include "inspect/rules.h"
#include "plan/roles.h"
#include "solve/results.h"

namespace yr {
namespace {

// of the lower: a charger in the cold stands 1.35 above an empty battery, 24 V twice above 12 V
constexpr double kOtherVolts = 1.45;
constexpr double kForeignVolts = 1.5;  // of the plan's nominal
// ISO 16750-2 (from memory): what is made for 12 V works at up to 16 V, for 24 V at up to 32 V
constexpr double kMadeForVolts = 16.0 / 12;

// A battery or source as a pair of poles that hold volts of their own.
struct Holder {
    Id id;
    int pos = 0, neg = 0;  // groups of conductors
    double volts = 0;
    bool battery = false;
    double current_A = 0;
};

std::vector<Holder> holders_of(const Case& c, std::size_t s) {
    const Solution& sol = c.solutions[s];
    const auto groups = conductor_groups(sol.network);
    const auto group = [&](NodeIndex n) { return groups[static_cast<std::size_t>(n)]; };
    std::vector<Holder> holders;
    for (std::size_t k = 0; k < c.plan.batteries.size(); ++k) {
        const BatteryElement& b = sol.network.batteries[k];
        holders.push_back({c.plan.batteries[k].id, group(b.pos), group(b.neg), b.open_V, true,
                           sol.point.batteries[k].current_A});
    }
    for (std::size_t k = 0; k < c.plan.sources.size(); ++k) {
        const SourceElement& e = sol.network.sources[k];
        if (sol.point.sources[k].mode == DeviceMode::off) continue;
        holders.push_back({c.plan.sources[k].id, group(e.out), group(e.neg), e.set_V, false,
                           sol.point.sources[k].current_A});
    }
    return holders;
}

void judge_pair(const Holder& x, const Holder& y, const Id& state, std::vector<Finding>& out,
                std::size_t from) {
    if (x.pos == x.neg || y.pos == y.neg) return;  // shorted, which others tell
    if ((x.battery || y.battery) && x.pos == y.neg && x.neg == y.pos) {
        const Holder &battery = y.battery ? y : x, &other = y.battery ? x : y;
        keep_worst(out, from,
                   make_finding(FindingKind::wrong_way_round, Severity::stop, battery.id, other.id, state,
                                std::abs(battery.current_A)));
    }
    const Holder &low = x.volts < y.volts ? x : y, &high = x.volts < y.volts ? y : x;
    if (x.pos == y.pos && x.neg == y.neg && high.volts > kOtherVolts * low.volts)
        keep_worst(out, from,
                   make_finding(FindingKind::volts_fight, Severity::stop, low.id, high.id, state, high.volts,
                                low.volts));
}

void judge_loads(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    const Id& state = c.plan.states[s].id;
    const double nominal_V = c.plan.vehicle.nominal_V;
    const Network& net = c.solutions[s].network;
    const auto groups = conductor_groups(net);
    // a rail that feeds a converter is of other volts on purpose: 48 V before 12 V
    std::set<int> on_purpose;
    for (const SourceElement& e : net.sources)
        if (e.in != kNoNode) on_purpose.insert(groups[static_cast<std::size_t>(e.in)]);
    for (std::size_t k = 0; k < c.plan.loads.size(); ++k) {
        const Load& l = c.plan.loads[k];
        const LoadResult& r = c.solutions[s].point.loads[k];
        if (r.status != LoadStatus::on || !l.inverter.empty()) continue;
        const bool meant = on_purpose.contains(groups[static_cast<std::size_t>(net.loads[k].pos)]);
        const bool made_for_it = l.plate_V && r.voltage_V <= kMadeForVolts * *l.plate_V + 0.005;
        const bool stated = l.most_V || l.supply_code != SupplyCode::none || made_for_it;
        if (!stated && !meant && r.voltage_V > kMadeForVolts * nominal_V + 0.005)
            keep_worst(out, from,
                       make_finding(FindingKind::volts_foreign,
                                    r.voltage_V > kForeignVolts * nominal_V ? Severity::stop : Severity::fix,
                                    l.id, {}, state, r.voltage_V, nominal_V));
        // a winch is turned by feeding it the other way; a lamp or heater does not mind
        const bool minds = l.line_curve.empty() && !l.starter && l.draw.kind != DrawKind::resistance;
        if (r.reversed && minds)
            keep_worst(
                out, from,
                make_finding(FindingKind::fed_backwards, Severity::stop, l.id, {}, state, r.voltage_V));
    }
}

void judge_converters(const Case& c, std::size_t s, std::vector<Finding>& out, std::size_t from) {
    for (std::size_t k = 0; k < c.plan.sources.size(); ++k)
        if (c.solutions[s].point.sources[k].collapsed)
            keep_worst(out, from,
                       make_finding(FindingKind::converter_starved, Severity::fix, c.plan.sources[k].id, {},
                                    c.plan.states[s].id, c.solutions[s].network.sources[k].limit_A));
}

}  // namespace

void inspect_state_names(const Case& c, std::vector<Finding>& out) {
    std::set<Id> known;
    for (const Run& r : c.plan.runs)
        for (const Device& d : r.devices) known.insert(d.id);
    for (const Source& s : c.plan.sources) known.insert(s.id);
    for (const Inverter& i : c.plan.inverters) known.insert(i.id);
    for (const Load& l : c.plan.loads) known.insert(l.id);
    for (const State& s : c.plan.states)
        for (const auto* named : {&s.closed, &s.opened, &s.pulled})
            for (const Id& id : *named)
                if (!known.contains(id))
                    out.push_back(
                        make_finding(FindingKind::state_names_nothing, Severity::check, {}, id, s.id));
}

// What no state asks for and nothing else lets run either.
void inspect_never_run(const Case& c, std::vector<Finding>& out) {
    const Load* heaviest = nullptr;
    int count = 0;
    for (const Load* l : never_asked(c.plan)) {
        const auto k = static_cast<std::size_t>(l - c.plan.loads.data());
        const bool runs = std::any_of(c.solutions.begin(), c.solutions.end(), [&](const Solution& s) {
            return s.point.loads[k].status != LoadStatus::off;
        });
        if (runs) continue;
        ++count;
        if (!heaviest || nominal_A(c.plan, *l) > nominal_A(c.plan, *heaviest)) heaviest = l;
    }
    if (heaviest)
        out.push_back(make_finding(FindingKind::never_runs, Severity::check, heaviest->id, {}, {}, count));
}

void inspect_polarity(const Case& c, std::vector<Finding>& out) {
    const std::size_t from = out.size();
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        const auto holders = holders_of(c, s);
        for (std::size_t a = 0; a < holders.size(); ++a)
            for (std::size_t b = a + 1; b < holders.size(); ++b)
                judge_pair(holders[a], holders[b], c.plan.states[s].id, out, from);
        judge_loads(c, s, out, from);
        judge_converters(c, s, out, from);
    }
}

}  // namespace yr
