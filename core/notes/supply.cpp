// Batteries and what charges and drains them, from their lines.
#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "demand/demand.h"
#include "notes/kinds.h"
#include "plan/condition.h"
#include "plan/rail_volts.h"
#include "size/run_limits.h"
#include "typing/battery_words.h"
#include "units/pattern.h"

namespace yr {
namespace {

// Whether a battery has the volts of the vehicle.
bool same_rail(const Plan& plan, const Battery& battery) {
    return battery_V(plan, battery) == plan.vehicle.nominal_V;
}

// "alternator 140 A 24 V": the volts of its rail, not those that it holds.
std::optional<double> regulated_said(const Plan& plan, const Said& said) {
    const auto volts = said.plain_of(Dimension::voltage);
    constexpr double kSame_V = 0.5;
    for (const double rail : {plan.vehicle.nominal_V, 12.0, 24.0, 48.0})
        if (volts && std::abs(*volts - rail) < kSame_V) return std::nullopt;
    return volts;
}

constexpr double kBatteryLead_m = 0.6;

constexpr double kToTheRear_m = 4;  // from the engine to a battery that is not beside it; common practice

std::optional<Id> engine_space(const Plan& plan) {
    for (const Place& p : plan.places)
        if (p.engine_space) return p.id;
    return std::nullopt;
}

bool lithium(const Plan& plan, const Id& battery) {
    const Battery* b = find(plan.batteries, battery);
    return b && b->chemistry == Chemistry::lifepo4;
}

std::optional<Chemistry> chemistry_of(const Said& said) {
    if (said.has("agm")) return Chemistry::agm;
    if (said.has("gel")) return Chemistry::gel;
    if (said.has("lifepo4") || said.has("lithium") || said.has("lfp")) return Chemistry::lifepo4;
    if (said.has("flooded") || said.has("wet") || said.has("lead")) return Chemistry::flooded;
    return std::nullopt;
}

void take_values(Battery& battery, const Said& said, double rail_V) {
    if (const auto c = chemistry_of(said)) battery.chemistry = *c;
    // "2x 100 Ah": side by side they are one of twice the charge and cranking amps; of half the rail's volts,
    // or in series, they are one of the rail's
    int count = 1;
    for (const Quantity& q : said.plain)
        if (q.dimension == Dimension::charge || q.dimension == Dimension::voltage)
            count = std::max(count, q.count);
    auto each_V = said.plain_of(Dimension::voltage);
    // "2x 180 Ah (24 V)" of lead: the volts are the pair's
    const bool counts_volts = std::any_of(said.plain.begin(), said.plain.end(), [](const Quantity& q) {
        return q.dimension == Dimension::voltage && q.count > 1;
    });
    if (each_V && !counts_volts && count > 1 && *each_V == rail_V && rail_V == 12.0 * count &&
        battery.chemistry != Chemistry::lifepo4)
        each_V.reset();
    // "24 V, two of 12 V", "two of 12 V in series" of a 12 V vehicle: the rail is the line's own
    const bool in_a_row = said.has("series") || said.has("in series");
    if (count > 1 && each_V) {
        double most_V = *each_V;
        for (const Quantity& q : said.plain)
            if (q.dimension == Dimension::voltage)
                each_V = std::min(*each_V, q.value), most_V = std::max(most_V, q.value);
        if (most_V > *each_V)
            rail_V = most_V;
        else if (in_a_row && rail_V <= *each_V)
            rail_V = *each_V * count;
    }
    const bool series = !said.has("parallel") && !said.has("in parallel") && count > 1 &&
                        (in_a_row || said.has("series/parallel") || said.has("series parallel") ||
                         (each_V ? *each_V * count == rail_V : rail_V == 12.0 * count));
    // "4x 6 V 225 Ah series/parallel": as many in each string as make the rail
    const int in_string =
        each_V && series ? std::max(1, static_cast<int>(std::lround(rail_V / *each_V))) : count;
    const bool strings = series && in_string < count && count % in_string == 0;
    const int beside = !series ? count : strings ? count / in_string : 1;
    if (const auto v = said.plain_of(Dimension::charge)) battery.capacity_Ah = *v * beside;
    if (const auto v = said.plain_of(Dimension::current)) battery.cranking_A = *v * beside;
    if (const auto v = said.labelled_as("bms", Dimension::current)) battery.cuts_at_A = *v;
    if (const auto v = said.labelled_as("charge", Dimension::fraction)) battery.charge = v;
    if (const auto v = said.labelled_as("health", Dimension::fraction)) battery.health = v;
    if (each_V && series)
        battery.nominal_V = *each_V * (strings ? in_string : count);
    else if (each_V)
        battery.nominal_V = each_V;
    if (said.has("en")) battery.cranking_standard = CrankingStandard::en;
    if (!said.place.empty()) battery.place = said.place;
    if (said.bolt_mm) battery.stud_mm = said.bolt_mm;
}

double joining_A(const Said& said) {
    for (const char* label : {"dc-dc", "dcdc", "charger", "relay", "contactor", "switch"})
        if (const auto v = said.labelled_as(label, Dimension::current)) return *v;
    return 0;
}

bool by_charger(const Said& said) {
    return said.has("dc-dc") || said.has("dcdc") || said.has("charger") || said.labelled.contains("dc-dc") ||
           said.labelled.contains("dcdc") || said.labelled.contains("charger");
}

// What closes between two batteries, as the line says.
Device joiner_of(const PlanBuilder& b, const Said& said) {
    Device d;
    d.id = b.id("joiner");
    d.at_m = 0.5;
    if (said.has("sensing relay") || said.has("sensing")) {
        d.kind = DeviceKind::sensing_relay, d.name = "sensing relay";
        const double rails = b.plan().vehicle.nominal_V / 12;
        d.close_V = 13.3 * rails, d.open_V = 12.7 * rails, d.delay_s = 30;
    } else if (said.has("isolator") || said.has("diode")) {
        d.kind = DeviceKind::diode, d.name = "isolator", d.forward_V = 0.05;
    } else if (said.has("switch")) {
        d.kind = DeviceKind::switching, d.name = "battery switch",
        d.closed_when.switches = {kBatteriesJoined};
    } else {
        d.kind = DeviceKind::switching, d.name = "battery contactor";
        d.closed_when.engine = Engine::running, d.closed_when.not_cranking = true;
    }
    if (joining_A(said) > 0) d.contact_A = joining_A(said);
    return d;
}

// A switch that joins two batteries by hand is turned when the engine runs, so that both are charged (common
// practice, no source).
void joined_while_running(PlanBuilder& b, const Device& joiner) {
    for (State s : std::vector<State>(b.plan().states))
        for (const std::string& name : joiner.closed_when.switches)
            if (s.rpm > 0 && std::find(s.switches.begin(), s.switches.end(), name) == s.switches.end()) {
                s.switches.push_back(name);
                b.put(s);
            }
}

// Joined to the first as the line says: by a charger, a relay that senses, a contactor, a switch, an
// isolator.
void join(PlanBuilder& b, const Battery& first, const Battery& battery, const Said& said,
          const Run* instead_of = nullptr, std::optional<double> relay_at_m = {}) {
    if (by_charger(said)) {
        Source s;
        s.id = b.id("charger");
        s.name = "charger of " + battery.name;
        s.kind = SourceKind::converter;
        s.return_at = neg_of(battery.id), s.place = battery.place, s.charges = battery.id;
        s.rated_A = joining_A(said) > 0 ? joining_A(said) : 20;
        const double rails = battery_V(b.plan(), battery) / 12;
        if (battery.chemistry == Chemistry::lifepo4 || !same_rail(b.plan(), battery))
            s.regulated_V = 14.2 * rails;
        s.works_when.engine = Engine::running;
        b.put(s);
        // what it takes at its lowest volts is more than what it gives
        const double from_V = 10.5 * battery_V(b.plan(), first) / 12;
        const double in_A = *s.rated_A * s.regulated_V.value_or(14.2 * rails) / 0.9 / from_V;
        b.put(cable_for(b,
                        {s.name + " input", pos_of(first.id), in_of(s.id), in_A, 3, 0.03, true, false, true,
                         first.chemistry == Chemistry::lifepo4},
                        said));
        Said output = said;
        output.length_m.reset(), output.size.reset(), output.fuse_A.reset(), output.both_ends = false;
        b.put(cable_for(b,
                        {s.name + " output", out_of(s.id), pos_of(battery.id), *s.rated_A, 0.8, 0.01, true,
                         true, true, battery.chemistry == Chemistry::lifepo4},
                        output));
        return;
    }
    Said both = said;
    both.both_ends = true;
    std::string name = "link to " + battery.name;
    for (const Run& r : b.plan().runs)  // of two that charge one battery each says which
        if (r.name == name && !(instead_of && r.id == instead_of->id))
            name = "link from " + first.name + " to " + battery.name;
    Run link = cable_for(b,
                         {name, pos_of(first.id), pos_of(battery.id), 100, 3, 0.02, true, false, true,
                          battery.chemistry == Chemistry::lifepo4 || first.chemistry == Chemistry::lifepo4},
                         both);
    Device d = joiner_of(b, said);
    if (relay_at_m) d.at_m = *relay_at_m;
    if (instead_of) link.id = instead_of->id;
    link.devices.insert(link.devices.begin() + (link.devices.empty() ? 0 : 1), d);
    b.put(link);
    joined_while_running(b, d);
}

}  // namespace

Terminal metal_of(const Plan& plan, std::string_view part) {
    if (const auto found = terminal_called(plan, part, false); found && find(plan.points, *found))
        return *found;
    for (const Point& p : plan.points)
        if (p.kind == PointKind::chassis) return p.id;
    if (!plan.batteries.empty()) return neg_of(plan.batteries.front().id);
    return plan.sources.empty() ? Terminal{} : plan.sources.front().return_at;
}

Made make_battery(PlanBuilder& b, const Said& said) {
    const Plan& plan = b.plan();
    // the first line of a battery says what the plan's own is; where that is known, it is another one. A page
    // that charges from the vehicle's battery says what its own is first.
    const bool of_a_battery =
        said.from && find(plan.batteries, said.from->owner);  // not "1.5 m from alternator"
    const bool second = said.has("second") || said.has("another") || of_a_battery || said.has("dc-dc") ||
                        said.labelled.contains("dc-dc") || said.labelled.contains("dcdc");
    static const Pattern of_another(R"(\b(?:alternators?|inverters?|chargers?|converters?|dc-?dc)$)");
    if (of_another.is_in(said.name))
        return fail(ErrorCode::unknown_name, "line", said.name, Want::a_kind_of_thing);
    if (!plan.batteries.empty() && !plan.batteries.front().capacity_Ah &&
        (plan.batteries.size() > 1 || plan.batteries.front().name != kVehicleBattery) && !second) {
        Battery first = plan.batteries.front();
        take_values(first, said, plan.vehicle.nominal_V);
        if (!said.name.empty()) first.name = said.name;
        b.put(first);
        // how far it is from its alternator
        for (Run r : std::vector<Run>(b.plan().runs))
            if (said.length_m && said.from && r.from.owner == said.from->owner && r.to == pos_of(first.id)) {
                r.length_m = said.length_m;
                for (Device& d : r.devices)
                    if (d.at_m) d.at_m = std::min(*d.at_m, *r.length_m);
                b.put(r);
            }
        return first.id;
    }
    Battery battery;
    battery.id = b.id("battery");
    const bool lone = plan.batteries.empty();
    battery.name = !said.name.empty()           ? said.name
                   : lone                       ? "starter battery"
                   : plan.batteries.size() == 1 ? "second battery"
                                                : "battery " + std::to_string(plan.batteries.size() + 1);
    take_values(battery, said, plan.vehicle.nominal_V);
    if (!said.plain_of(Dimension::charge) && !said.plain_of(Dimension::current))
        return missing("capacity", Want::ah_or_cranking_amps);
    b.put(battery);
    if (lone) return battery.id;
    // of other volts than the rest it stands alone: a cable between them would burn
    const double first_V = battery_V(b.plan(), b.plan().batteries.front());
    constexpr double kAlike_V = 3;
    const bool alike = std::abs(battery_V(b.plan(), battery) - first_V) < kAlike_V || by_charger(said);
    if (!said.has("alone") && alike) join(b, Battery(b.plan().batteries.front()), battery, said);
    CableAsk ground{battery.name + " ground",
                    neg_of(battery.id),
                    metal_of(b.plan(), ""),
                    150,
                    kBatteryLead_m,
                    0.01,
                    false};
    ground.seconds = true;
    Run strap = cable_for(b, ground, Said{});
    // what goes out by its thickest cable comes back by this one
    for (const Run& r : b.plan().runs)
        if ((r.from == pos_of(battery.id) || r.to == pos_of(battery.id)) && r.size &&
            conductor(*r.size)->area_mm2 > conductor(*strap.size)->area_mm2)
            strap.size = r.size;
    b.put(strap);
    return battery.id;
}

namespace {

// What a battery gives or takes by a thick cable comes back by what joins it to the metal, a short included:
// the strap with which every blank page begins, or the ground that its own line laid. Nobody said how thick
// that is, so it becomes as thick.
void match_ground(PlanBuilder& b, const Battery& battery, const Run& cable) {
    const auto copper = [](const Run& r) {
        return r.size ? conductor(*r.size, r.material)->area_mm2 * r.parallel : 0;
    };
    for (Run ground : std::vector<Run>(b.plan().runs)) {
        const bool ours = ground.id == "body-strap" || ground.name == battery.name + " ground";
        const bool its = ground.from == neg_of(battery.id) || ground.to == neg_of(battery.id);
        if (!ours || !its || ground.pinned || copper(ground) >= copper(cable)) continue;
        ground.size = cable.size, ground.parallel = cable.parallel;
        b.put(ground);
    }
}

}  // namespace

// What has a stator is a small engine, which turns faster at idle and on the road (common practice, no
// source): the states that every vehicle begins with do, as long as nobody said otherwise.
static void turn_as_a_small_engine(PlanBuilder& b) {
    constexpr double kIdle_rpm = 1300, kRoad_rpm = 4000;
    const Plan bare = blank_vehicle();
    for (State s : std::vector<State>(b.plan().states))
        for (const State& usual : bare.states)
            if (s.id == usual.id && s.rpm > 0 && s.rpm == usual.rpm) {
                s.rpm = s.role == StateRole::idling ? kIdle_rpm : kRoad_rpm;
                b.put(s);
            }
}

// "to house battery", "on the engine battery": that one, else the plan's first.
static const Battery& battery_said(const Plan& plan, const Said& said) {
    for (const auto& end : {said.to, said.on, said.from})
        if (const Battery* named = end ? find(plan.batteries, std::string_view(end->owner)) : nullptr)
            return *named;
    return plan.batteries.front();
}

Made make_alternator(PlanBuilder& b, const Said& said, bool stator) {
    if (b.plan().batteries.empty()) return missing("battery", Want::a_plan_with_a_battery);
    const auto rated = said.plain_of(Dimension::current);
    if (!rated) return missing("rated", Want::amps);
    Source s;
    s.id = b.id(stator ? "stator" : "alternator");
    const std::string usual = stator ? "stator" : "alternator";
    s.name = !said.name.empty()                          ? said.name
             : said.has("second") || said.has("another") ? "second " + usual
                                                         : usual;
    s.kind = stator ? SourceKind::stator : SourceKind::alternator;
    const Battery battery = battery_said(b.plan(), said);
    // it sits on the engine, wherever the battery went
    s.place = said.place.empty() ? engine_space(b.plan()).value_or(battery.place) : said.place;
    const double away_m = s.place == battery.place ? 1.5 : kToTheRear_m;
    s.rated_A = rated;
    s.idle_A = said.labelled_as("idle", Dimension::current);
    s.regulator_A = said.labelled_as("regulator", Dimension::current);
    s.regulated_V = regulated_said(b.plan(), said);
    s.return_at = said.to && find(b.plan().points, *said.to) ? *said.to : metal_of(b.plan(), "engine block");
    if (said.when) s.works_when = *said.when;
    s.works_when.engine = Engine::running;
    if (stator) {  // of a small engine: half at a fast idle, all near its top (common practice)
        s.pulley_ratio = 1;
        s.curve = {{600, 0}, {1200, 0.5 * *rated}, {3000, 0.85 * *rated}, {5000, *rated}};
        turn_as_a_small_engine(b);
    }
    b.put(s);
    const Run charge =
        cable_for(b,
                  {"charge cable" + (s.name == usual ? std::string() : " of " + s.name), out_of(s.id),
                   pos_of(battery.id), *rated, away_m, 0.02, true, true, true, lithium(b.plan(), battery.id)},
                  said);
    b.put(charge);
    match_ground(b, battery, charge);
    return s.id;
}

Made make_starter(PlanBuilder& b, const Said& said) {
    if (b.plan().batteries.empty()) return missing("battery", Want::a_plan_with_a_battery);
    const auto amps = said.plain_of(Dimension::current);
    const auto kW = said.plain_of(Dimension::power);
    if (!amps && !kW) return missing("draw", Want::amps);
    const double V = b.plan().vehicle.nominal_V * 0.875;  // what it gets while it turns, common practice
    const double A = amps.value_or(kW.value_or(0) / 0.6 / V);
    Load l;
    l.id = b.id("starter");
    l.name = said.name.empty() ? "starter" : said.name;
    l.draw = {DrawKind::resistance, V / A};
    l.live_when.key = Key::crank, l.starter = true;
    l.place = said.place;
    b.put(l);
    const Id battery = battery_said(b.plan(), said).id;
    const Id at = find(b.plan().batteries, std::string_view(battery))->place;
    const bool beside = at.empty() || at == engine_space(b.plan()).value_or(at);
    CableAsk there{
        "starter cable", pos_of(battery), pos_of(l.id), A, beside ? 1.2 : kToTheRear_m, 0.02, false};
    there.seconds = true;
    b.put(cable_for(b, there, said));
    Run block;
    block.id = b.id("run"), block.name = l.name + " to block";
    block.from = neg_of(l.id), block.to = metal_of(b.plan(), "engine block");
    block.body_metal = true, block.resistance_ohm = 2e-4;
    b.put(block);
    return l.id;
}

// "winch 320 A, for 60 s, 2 m": on the first battery, there and back, by a contactor and a fuse that its
// cable stands.
Made make_winch(PlanBuilder& b, const Said& said) {
    if (b.plan().batteries.empty()) return missing("battery", Want::a_plan_with_a_battery);
    const auto amps = said.plain_of(Dimension::current);
    if (!amps) return missing("draw", Want::amps);
    // "winch 12 V": on the battery of those volts
    const double rail_V = b.plan().vehicle.nominal_V;
    const double wanted_V = said.plain_of(Dimension::voltage).value_or(rail_V);
    constexpr double kOf_V = 3;
    const auto& all = b.plan().batteries;
    const Battery& said_so = battery_said(b.plan(), said);
    const auto of_volts = [&](const Battery& x) {
        return std::abs(battery_V(b.plan(), x) - wanted_V) < kOf_V;
    };
    const auto on = of_volts(said_so) ? all.begin() + (&said_so - all.data())
                                      : std::find_if(all.begin(), all.end(), of_volts);
    if (on == all.end())
        return fail(ErrorCode::missing_reference, "winch", std::to_string(std::lround(wanted_V)) + " V",
                    Want::a_rail_of_these_volts);
    Battery battery = *on;  // a copy: what is put below may move the plan's own
    Load l;
    l.id = b.id("load"), l.name = said.name.empty() ? "winch" : said.name;
    l.draw = {DrawKind::current, *amps};
    // a fifth runs free, half of it pulls half, and half of its rope is what it usually sees (common
    // practice)
    l.line_curve = {{0, 0.2 * *amps}, {0.5, 0.5 * *amps}, {1, *amps}};
    l.line_load = 0.5;
    l.on_s = said.plain_of(Dimension::time).value_or(60);
    l.duty = said.labelled_as("duty", Dimension::fraction).value_or(0.05);
    l.place = !said.place.empty() ? said.place : battery.place;
    l.live_when = said.when.value_or(Condition{});
    if (!said.when) {
        const bool engine = std::any_of(b.plan().states.begin(), b.plan().states.end(),
                                        [](const State& s) { return s.rpm > 0; });
        if (engine) l.live_when.key = Key::ignition, l.live_when.engine = Engine::running;
        l.live_when.switches = {l.name};
    }
    b.put(l);
    CableAsk there{l.name + " feed", pos_of(battery.id), pos_of(l.id), *amps, 2, 0.03, false};
    there.seconds = true;
    Said plain = said;
    plain.fuse_A.reset();
    Run feed = cable_for(b, there, plain);
    Device fuse;
    fuse.id = b.id("fuse"), fuse.name = l.name + " fuse", fuse.at_m = 0.1;
    fuse.fuse = battery.chemistry == Chemistry::lifepo4 ? FuseType::high : FuseType::strip;
    const double stands_as_said_A = said.size ? least_ampacity_A(b.plan(), feed).value_or(0) : 1e9;
    if (fuse_kind(fuse.fuse).ratings_A.front() > stands_as_said_A) fuse.fuse = FuseType::blade_large;
    if (fuse_kind(fuse.fuse).ratings_A.front() > stands_as_said_A) fuse.fuse = FuseType::blade;
    const FuseKind& kind = fuse_kind(fuse.fuse);
    const auto largest_within = [&](double stands_A) {
        double rating = kind.ratings_A.front();
        for (const double r : kind.ratings_A)
            if (r <= stands_A) rating = r;
        return rating;
    };
    // thick enough that the fuse which the cable stands holds a turn at full pull, side by side where the
    // thickest is not
    double air_C = 60;
    for (const State& s : b.plan().states) air_C = std::max(air_C, run_air(b.plan(), feed, s).ambient_C);
    const double held = held_multiple(kind, *l.on_s), hot = rerated_A(kind, 1, air_C);
    const auto thinnest = feed.size;
    const auto holds = [&] {
        const double stands_A = least_ampacity_A(b.plan(), feed).value_or(0);
        fuse.rating_A = said.fuse_A.value_or(largest_within(stands_A));
        return said.size || said.fuse_A || (fuse.rating_A <= stands_A && held * hot * fuse.rating_A >= *amps);
    };
    while (!holds()) {
        if (one_thicker(b.plan(), feed)) continue;
        if (feed.parallel == 3) break;
        ++feed.parallel;
        feed.size = thinnest;
    }
    Device contactor;
    contactor.id = b.id("contactor"), contactor.name = l.name + " contactor",
    contactor.kind = DeviceKind::switching;
    contactor.at_m = 0.5, contactor.closed_when = l.live_when;
    feed.devices = {fuse, contactor};
    b.put(feed);
    match_ground(b, battery, feed);
    Run back = feed;
    back.id = b.id("run"), back.name = l.name + " return", back.devices.clear();
    back.from = neg_of(l.id), back.to = neg_of(battery.id);
    b.put(back);
    return l.id;
}

namespace {

// A source of amps beside a battery: on mains, or a panel.
Made beside_battery(PlanBuilder& b, const Said& said, Source s, double amps, const std::string& cable) {
    const Plan& plan = b.plan();
    if (plan.batteries.empty()) return missing("battery", Want::a_plan_with_a_battery);
    const Battery* named = said.to ? find(plan.batteries, said.to->owner) : nullptr;
    const Battery& charged = named ? *named : battery_to_charge(plan);
    const Id battery = charged.id;
    s.return_at = neg_of(battery), s.charges = battery;
    s.place = said.place.empty() ? charged.place : said.place;
    s.regulated_V = regulated_said(plan, said);
    if (!s.regulated_V && !same_rail(plan, charged)) s.regulated_V = 14.2 * battery_V(plan, charged) / 12;
    s.float_V = said.labelled_as("float", Dimension::voltage);
    if (said.when) s.works_when = *said.when;
    b.put(s);
    b.put(cable_for(
        b,
        {cable, out_of(s.id), pos_of(battery), amps, 1, 0.02, true, true, true, lithium(b.plan(), battery)},
        said));
    return s.id;
}

}  // namespace

// "joiner sensing relay 140 A between battery and second battery": in place of what joined them before.
Made make_joiner(PlanBuilder& b, const Said& said) {
    const auto& all = b.plan().batteries;
    if (all.size() < 2) return missing("second battery", Want::a_plan_with_two_batteries);
    Battery first = all.front(), second = all.back();
    if (said.between.size() == 2) {
        const Battery *x = find(all, said.between[0]), *y = find(all, said.between[1]);
        if (!x || !y) return missing("ends", Want::a_plan_with_two_batteries);
        first = *x, second = *y;
    }
    if (first.id == second.id) return missing("ends", Want::two_different_ends);
    Said plain = said;
    plain.from.reset(), plain.to.reset();
    if (const auto amps = said.plain_of(Dimension::current))
        plain.labelled["contactor"] = {*amps, Dimension::current, 1};
    for (Run r : std::vector<Run>(b.plan().runs)) {
        const bool joins = (r.from == pos_of(first.id) && r.to == pos_of(second.id)) ||
                           (r.from == pos_of(second.id) && r.to == pos_of(first.id));
        if (!joins) continue;
        if (said.length_m || said.size || said.fuse_A) {  // its cable is said anew
            // "relay 1.5 m from the starter battery" on a cable of 4.5 m: where on it
            const bool on_it = said.from && said.length_m && r.length_m > said.length_m;
            if (!said.length_m || on_it) plain.length_m = r.length_m;
            join(b, first, second, plain, &r, on_it ? said.length_m : std::nullopt);
            return r.id;
        }
        std::erase_if(r.devices, [](const Device& d) {
            return d.kind != DeviceKind::fuse && d.kind != DeviceKind::shunt;
        });
        Device d = joiner_of(b, plain);
        d.at_m = r.length_m.value_or(1) / 2;
        r.devices.insert(r.devices.begin() + (r.devices.empty() ? 0 : 1), d);
        b.put(r);
        joined_while_running(b, d);
        return r.id;
    }
    join(b, first, second, plain);
    return second.id;
}

// A source that would never work gets a state in which it does.
static void with_a_state(PlanBuilder& b, const Source& s, State such) {
    if (std::any_of(b.plan().states.begin(), b.plan().states.end(),
                    [&](const State& state) { return holds(s.works_when, state); }))
        return;
    such.id = b.id("state");
    such.ambient_C = such.engine_bay_C = 20;
    b.put(such);
}

Made make_charger(PlanBuilder& b, const Said& said) {
    const auto amps = said.plain_of(Dimension::current);
    if (!amps) return missing("rated", Want::amps);
    if (said.has("dc-dc") || said.has("dcdc")) {
        if (b.plan().batteries.size() < 2) return missing("second battery", Want::a_plan_with_two_batteries);
        Said joined = said;
        joined.labelled["charger"] = {*amps, Dimension::current, 1};
        Battery first = b.plan().batteries.front(), second = b.plan().batteries.back();
        if (said.from)
            if (const Battery* from = find(b.plan().batteries, said.from->owner)) first = *from;
        if (said.to)
            if (const Battery* to = find(b.plan().batteries, said.to->owner)) second = *to;
        if (first.id == second.id) return missing("second battery", Want::a_plan_with_two_batteries);
        joined.from.reset(), joined.to.reset();
        // it takes the place of the link that the second battery's own line laid
        for (const Run& r : std::vector<Run>(b.plan().runs))
            if (r.name == "link to " + second.name && r.from.owner == first.id && r.to.owner == second.id)
                b.add(Remove<Run>{r.id});
        join(b, first, second, joined);
        return b.plan().sources.back().id;
    }
    Source s;
    s.id = b.id("shore"), s.kind = SourceKind::shore;
    s.name = said.name.empty() ? "shore charger" : said.name;
    s.rated_A = amps;
    static const Pattern of_tow_vehicle(R"(\bcharge (?:line|lead|wire|cable)$|\bsuppl(?:y|ies)$)");
    State such;
    if (of_tow_vehicle.is_in(s.name)) {  // what a towing vehicle gives comes with its key
        such.name = "Towing", such.role = StateRole::towed;
        such.key = s.works_when.key = Key::ignition;
    } else {
        such.name = "Plugged in";
        such.switches = s.works_when.switches = {"plugged in"};
    }
    with_a_state(b, s, std::move(such));
    return beside_battery(b, said, s, *amps, s.name + " cable");
}

Made make_solar(PlanBuilder& b, const Said& said) {
    auto watts = said.plain_of(Dimension::power);
    if (!watts) return missing("panel", Want::watts);
    for (const Quantity& q : said.plain)  // "2x 160 W"
        if (q.dimension == Dimension::power) watts = q.value * std::max(1, q.count);
    Source s;
    s.id = b.id("solar"), s.kind = SourceKind::solar;
    s.name = said.name.empty() ? "solar panel" : said.name;
    s.panel_W = watts;
    s.rated_A = said.labelled_as("controller", Dimension::current);  // its charge controller gives no more
    return beside_battery(b, said, s, *watts / (0.87 * b.plan().vehicle.nominal_V), s.name + " cable");
}

Made make_inverter(PlanBuilder& b, const Said& said) {
    const Plan& plan = b.plan();
    if (plan.batteries.empty()) return missing("battery", Want::a_plan_with_a_battery);
    const auto watts = said.plain_of(Dimension::power);
    if (!watts) return missing("continuous", Want::watts);
    Inverter i;
    i.id = b.id("inverter");
    i.name = said.name.empty() ? "inverter" : said.name;
    i.continuous_W = watts;
    i.surge_W = said.labelled_as("surge", Dimension::power);
    if (const auto share = said.plain_of(Dimension::fraction); share && *share >= 0.5 && *share <= 1)
        i.efficiency = share;  // "3000 W, 92 %"
    i.standby_W = said.labelled_as("standby", Dimension::power);
    i.off_W = said.labelled_as("off", Dimension::power);
    i.cutoff_V = said.labelled_as("cutoff", Dimension::voltage);
    if (said.has("modified")) i.waveform = Waveform::modified;
    Terminal from = said.from.value_or(pos_of(battery_to_charge(plan).id));
    // "inverter 1000 W 24 V": the battery of those volts
    constexpr double kAlike_V = 4, kNoMains_V = 60;
    if (const auto volts = said.plain_of(Dimension::voltage); volts && *volts < kNoMains_V && !said.from)
        for (const Battery& other : plan.batteries)
            if (std::abs(battery_V(plan, other) - *volts) < kAlike_V) from = pos_of(other.id);
    const Battery* battery = find(plan.batteries, from.owner);
    const double rail_V = battery ? battery_V(plan, *battery) : plan.vehicle.nominal_V;
    if (!i.cutoff_V) i.cutoff_V = 10.5 * rail_V / 12;
    i.place = !said.place.empty() ? said.place : battery ? battery->place : Id();
    i.works_when = said.when.value_or(Condition{});
    if (!said.when) i.works_when.switches = {i.name};
    b.put(i);
    const double amps = *watts / std::min(0.88, i.efficiency.value_or(0.88)) / *i.cutoff_V;
    const bool strong = lithium(b.plan(), from.owner);
    const Run feed = cable_for(
        b, {i.name + " feed", from, pos_of(i.id), amps, 1, 0.015, true, false, battery != nullptr, strong},
        said);
    b.put(feed);
    // as thick and as many as the feed: all that goes out comes back
    Run back = feed;
    back.id = b.id("run"), back.name = i.name + " return", back.devices.clear();
    back.from = neg_of(i.id), back.to = battery ? neg_of(battery->id) : metal_of(b.plan(), "");
    b.put(back);
    return i.id;
}

// "converter 48 to 12 V 30 A": a rail of its own behind it, on the first battery.
Made make_converter(PlanBuilder& b, const Said& said) {
    const Plan& plan = b.plan();
    if (plan.batteries.empty()) return missing("battery", Want::a_plan_with_a_battery);
    const auto amps = said.plain_of(Dimension::current);
    const auto volts = said.plain_of(Dimension::voltage);
    if (!amps) return missing("rated", Want::amps);
    Source s;
    s.id = b.id("converter"), s.kind = SourceKind::converter;
    s.name = said.name.empty() ? "converter" : said.name;
    s.rated_A = amps;
    const double out_V = volts.value_or(12);
    s.regulated_V = out_V <= 12.5 ? 13.6 : out_V;
    s.place = said.place;
    if (said.when) s.works_when = *said.when;
    const Terminal from = said.from.value_or(pos_of(battery_to_live_from(plan).id));
    const Battery* battery = find(plan.batteries, from.owner);
    const double in_V = battery ? battery_V(plan, *battery) : plan.vehicle.nominal_V;
    Point bus;
    bus.id = b.id("feed"), bus.name = s.name + " bus", bus.kind = PointKind::bus, bus.feeds_loads = true;
    bus.place = s.place;
    s.return_at = metal_of(plan, "");
    bus.return_at = s.return_at;
    b.put(s);
    b.put(bus);
    const double in_A = *amps * *s.regulated_V / 0.9 / (0.85 * in_V);
    b.put(cable_for(b,
                    {s.name + " input", from, in_of(s.id), in_A, 1.5, 0.02, true, false, true,
                     battery && battery->chemistry == Chemistry::lifepo4},
                    said));
    Said out = said;
    out.fuse_A.reset(), out.length_m.reset(), out.size.reset();
    b.put(cable_for(b, {s.name + " output", out_of(s.id), bus.id, *amps * 1.2, 0.5, 0.01, false}, out));
    return s.id;
}

}  // namespace yr
