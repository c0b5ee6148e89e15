// Rules about what cables pass and where they end: pins, jackets, bolts, a sensor on the negative post.
#include <algorithm>
#include <cmath>
#include <map>

#include "catalog/assumptions.h"
#include "inspect/rules.h"
#include "network/connectors.h"
#include "size/run_limits.h"

namespace yr {
namespace {

constexpr double kSameLength = 1.1;  // cores of one jacket differ by no more than their ends

// What one pin stands in the hottest of the states.
std::optional<double> stands_A(const Case& c, const Connector& connector, int pin) {
    std::optional<double> least;
    for (const State& s : c.plan.states)
        if (const auto amps = pin_allowed_A(c.plan, connector, pin, s))
            least = std::min(least.value_or(*amps), *amps);
    return least;
}

bool taken(const Plan& plan, const Id& connector, int pin) {
    for (const Run& r : plan.runs)
        for (const PinUse& use : r.pins)
            if (use.connector == connector && use.pin == pin) return true;
    return false;
}

// One more pin of the same connector, side by side with those that the run has.
std::vector<Mend> one_more_pin(const Case& c, const Run& run, const Passing& passing) {
    const auto count = pin_count(*passing.connector);
    for (int pin = 1; count && pin <= *count; ++pin) {
        if (taken(c.plan, passing.connector->id, pin)) continue;
        Run changed = run;
        changed.pins.push_back({passing.connector->id, pin, passing.at_m});
        Mend mend;
        mend.kind = MendKind::second_pin;
        mend.edit = Put<Run>{changed, {}};
        mend.target = run.id;
        mend.to_point = passing.connector->id;
        mend.channel = pin;
        return {mend};
    }
    return {};
}

void pins_over(const Case& c, std::size_t k, std::vector<Finding>& out) {
    const Run& run = c.plan.runs[k];
    const DemandItem* asks = c.demand[k].lasting();
    if (!asks) return;
    for (const Passing& p : passings_of(c.plan, run)) {
        const double each_A = asks->amps / static_cast<double>(p.pins.size());
        for (const int pin : p.pins) {
            const auto stands = stands_A(c, *p.connector, pin);
            if (!stands || each_A <= *stands * (1 + 1e-9)) continue;
            Finding f =
                make_finding(FindingKind::pin_over, asks->state.empty() ? Severity::check : Severity::fix,
                             run.id, p.connector->id, asks->state, each_A, *stands);
            if (c.with_mends) f.candidates = one_more_pin(c, run, p);
            out.push_back(std::move(f));
            break;
        }
    }
}

using Pins = std::map<int, std::vector<const Run*>>;

Pins pins_of(const Plan& plan, const Connector& connector) {
    Pins at;
    for (const Run& r : plan.runs)
        for (const PinUse& use : r.pins)
            if (use.connector == connector.id) at[use.pin].push_back(&r);
    return at;
}

// Whether it has volts in a state with the key off, in which nobody is there to see it burn.
bool always_live(const Case& c, const Run& run) {
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        const Network& net = c.solutions[s].network;
        const auto at = std::find(net.nodes.begin(), net.nodes.end(), run.from) - net.nodes.begin();
        if (c.plan.states[s].key == Key::off && c.solutions[s].point.settled &&
            at < static_cast<std::ptrdiff_t>(net.nodes.size()) &&
            c.solutions[s].point.node_V[static_cast<std::size_t>(at)] > 0.5 * net.nominal_V)
            return true;
    }
    return false;
}

// Water between a pin that always has volts and a ground beside it eats both away.
void pins_beside(const Case& c, const Connector& connector, const Pins& at, std::vector<Finding>& out) {
    if (connector.sealed || !connector.socket.empty()) return;
    for (const auto& [pin, runs] : at)
        for (const auto next : {pin - 1, pin + 1}) {
            const auto beside = at.find(next);
            if (beside == at.end()) continue;
            const Run &live = *runs.front(), &ground = *beside->second.front();
            if (!c.supply.is_supply(live) || c.supply.is_supply(ground) || !always_live(c, live)) continue;
            out.push_back(make_finding(FindingKind::pins_beside, Severity::check, live.id, connector.id, {},
                                       pin, next));
            return;
        }
}

void connectors(const Case& c, std::vector<Finding>& out) {
    if (c.plan.connectors.empty()) return;
    for (std::size_t k = 0; k < c.plan.runs.size(); ++k)
        if (!c.plan.runs[k].pins.empty()) pins_over(c, k, out);
    for (const Connector& connector : c.plan.connectors) {
        const Pins at = pins_of(c.plan, connector);
        pins_beside(c, connector, at, out);
        for (const auto& [pin, runs] : at)
            if (runs.size() > 1)
                out.push_back(make_finding(FindingKind::pin_twice, Severity::fix, runs[1]->id, connector.id,
                                           {}, pin, static_cast<double>(runs.size())));
    }
}

void jackets(const Case& c, std::vector<Finding>& out) {
    for (const Jacket& j : c.plan.jackets) {
        double shortest = 1e9, longest = 0;
        int used = 0;
        for (const Run& r : c.plan.runs) {
            if (r.jacket != j.id) continue;
            ++used;
            const double length = length_or_assumed_m(r);
            shortest = std::min(shortest, length), longest = std::max(longest, length);
        }
        if (used > 1 && longest > kSameLength * shortest)
            out.push_back(
                make_finding(FindingKind::jacket_differs, Severity::check, j.id, {}, {}, longest, shortest));
        if (j.cores && used > *j.cores)
            out.push_back(
                make_finding(FindingKind::jacket_full, Severity::fix, j.id, {}, {}, used, *j.cores));
    }
}

// Lugs on one bolt: of a stud or ground, of a battery's post. A bus bar has several bolts unless it says so.
void lugs(const Case& c, std::vector<Finding>& out) {
    std::map<std::string, double> count;
    for (const Run& r : c.plan.runs)
        if (!r.body_metal)
            for (const Terminal* t : {&r.from, &r.to}) count[t->text()] += r.parallel;
    const double usual = assumption("most_lugs").value;
    const auto judge = [&](const Terminal& at, const Id& id, double most) {
        const auto found = count.find(at.text());
        if (found != count.end() && found->second > most)
            out.push_back(make_finding(FindingKind::lugs_many, Severity::check, id, at.text(), {},
                                       found->second, most));
    };
    for (const Point& p : c.plan.points) {
        const bool one_bolt = p.kind == PointKind::stud || p.kind == PointKind::ground;
        if (one_bolt || p.most_lugs) judge(p.id, p.id, p.most_lugs.value_or(usual));
    }
    for (const Battery& b : c.plan.batteries)
        for (const Terminal& post : {pos_of(b.id), neg_of(b.id)}) judge(post, b.id, usual);
}

void terminals(const Case& c, std::vector<Finding>& out) {
    const double least = assumption("terminals_apart_mm").value;
    const auto judge = [&](const auto& things) {
        for (const auto& x : things)
            if (x.apart_mm && *x.apart_mm < least)
                out.push_back(make_finding(FindingKind::terminals_near, Severity::check, x.id, {}, {},
                                           *x.apart_mm, least));
    };
    judge(c.plan.batteries);
    judge(c.plan.inverters);
    judge(c.plan.points);
}

// Copper lugs on other metal: aluminium under its oxide, stainless that leads badly.
void metals(const Case& c, std::vector<Finding>& out) {
    for (const Point& p : c.plan.points) {
        const Point* metal = p.kind == PointKind::ground ? find(c.plan.points, p.bonded_to) : nullptr;
        const Metal is = metal ? metal->metal : Metal::unknown;
        if (is == Metal::aluminium || is == Metal::stainless)
            out.push_back(make_finding(FindingKind::metals_meet, Severity::note, p.id, metal->id, {}));
    }
}

// What ends on the negative post beside the sensor that counts the battery is not counted.
void round_sensor(const Case& c, std::vector<Finding>& out) {
    for (const Run& holder : c.plan.runs)
        for (const Device& d : holder.devices) {
            if (d.kind != DeviceKind::shunt || d.measures.empty()) continue;
            const Terminal post = neg_of(d.measures);
            for (const Run& r : c.plan.runs)
                if (r.id != holder.id && (r.from == post || r.to == post))
                    out.push_back(make_finding(FindingKind::round_sensor, Severity::fix, r.id, d.id, {}));
        }
}

// A relay's coil on an output that pulses or tests its lamp chatters, or is taken for a blown bulb.
void triggers(const Case& c, std::vector<Finding>& out) {
    std::vector<Id> coils;
    for (const Run& r : c.plan.runs)
        for (const Device& d : r.devices)
            if (!d.coil.empty()) coils.push_back(d.coil);
    for (const Run& r : c.plan.runs)
        for (const Device& d : r.devices) {
            if (d.kind != DeviceKind::switching || d.signal == Signal::steady) continue;
            const Id& load = r.to.owner;
            const Point* box = find(c.plan.points, r.to);
            if (std::find(coils.begin(), coils.end(), load) != coils.end() ||
                (box && box->kind == PointKind::box))
                out.push_back(make_finding(FindingKind::trigger_unsteady, Severity::fix, load, d.id, {}));
        }
}

}  // namespace

void inspect_joining(const Case& c, std::vector<Finding>& out) {
    connectors(c, out);
    jackets(c, out);
    lugs(c, out);
    terminals(c, out);
    metals(c, out);
    round_sensor(c, out);
    triggers(c, out);
}

}  // namespace yr
