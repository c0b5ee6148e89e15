// Boxes, buses, bolts, metal, cables and what switches in them, from their lines.
#include <algorithm>

#include "catalog/assumptions.h"
#include "catalog/sockets.h"
#include "notes/kinds.h"
#include "notes/state_words.h"
#include "plan/rail_volts.h"
#include "typing/battery_words.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

constexpr double kFeed_m = 2;

// The battery that is called alike ("module fuse panel", "module battery") or stands in the same place, where
// one does; else the one from which what is added lives.
Id battery_near(const Plan& plan, const Id& place, std::string_view name) {
    const auto first_word = [](std::string_view text) { return to_lower(text.substr(0, text.find(' '))); };
    for (const Battery& b : plan.batteries)
        if (const std::string word = first_word(b.name);
            word.size() > 2 && word != "battery" && word == first_word(name))
            return b.id;
    for (const Battery& b : plan.batteries)
        if (!place.empty() && b.place == place && battery_V(plan, b) == plan.vehicle.nominal_V) return b.id;
    return battery_to_live_from(plan).id;
}

// What brings a box or bus its supply: where the line says, else the battery beside it.
void feed_point(PlanBuilder& b, const Point& p, double amps, const Said& said) {
    const Plan& plan = b.plan();
    if (plan.batteries.empty() && !said.from) return;
    const Terminal from = said.from.value_or(pos_of(battery_near(plan, p.place, p.name)));
    const Battery* battery = find(plan.batteries, from.owner);
    Run feed = cable_for(b,
                         {p.name + " feed", from, p.id, amps, kFeed_m, 0.012, true, false, battery != nullptr,
                          battery && battery->chemistry == Chemistry::lifepo4},
                         said);
    if (said.when && !(*said.when == Condition{})) {
        Device d;
        d.id = b.id("relay"), d.name = p.name + " relay", d.kind = DeviceKind::switching;
        d.at_m = *feed.length_m / 3, d.closed_when = *said.when;
        feed.devices.push_back(d);
    }
    b.put(feed);
}

// Where a negative bus returns: to the battery that the line names, else the one beside it.
Terminal home_of(const Plan& plan, const Said& said) {
    const bool named = said.from && find(plan.batteries, said.from->owner);
    return neg_of(named ? said.from->owner : battery_near(plan, said.place, said.name));
}

// Where what hangs there returns: as said, else beside what feeds it.
Terminal return_of(const Plan& plan, const Said& said) {
    if (said.to && find(plan.points, *said.to)) return *said.to;
    if (said.from) {
        if (const Battery* b = find(plan.batteries, said.from->owner)) return neg_of(b->id);
        if (const Point* p = find(plan.points, *said.from); p && !p->return_at.empty()) return p->return_at;
        if (const Source* s = find(plan.sources, said.from->owner)) return s->return_at;
    }
    return plan.batteries.empty() ? Terminal{} : neg_of(battery_near(plan, said.place, said.name));
}

}  // namespace

// "box "cab box" 8 channels 30 30 20 20 10 10 10 10 A, main 80 A, standby 0.4 W, from battery by breaker 100
// A"
Made make_box(PlanBuilder& b, const Said& said) {
    Point p;
    p.id = b.id("box"), p.kind = PointKind::box, p.feeds_loads = true;
    p.name = said.name.empty() ? "control box" : said.name;
    p.place = said.place;
    p.main_A = said.labelled_as("main", Dimension::current);
    p.standby_W = said.labelled_as("standby", Dimension::power);
    p.sleep_W = said.labelled_as("asleep", Dimension::power);
    p.cutoff_V = said.labelled_as("cutoff", Dimension::voltage);
    if (said.has("solid-state")) p.output = OutputKind::solid_state;
    if (said.has("forgets")) p.remembers = false;
    p.return_at = return_of(b.plan(), said);
    std::vector<double> ratings = said.numbers;
    if (const auto last = said.plain_of(Dimension::current)) ratings.push_back(*last);
    std::size_t count = ratings.size();
    // "8 channels of 15 A": the first number counts
    if (said.has("channels") || said.has("channel"))
        if (!ratings.empty() && ratings.front() == static_cast<double>(static_cast<int>(ratings.front())) &&
            (ratings.size() <= 2 || ratings.front() == static_cast<double>(ratings.size() - 1))) {
            count = static_cast<std::size_t>(ratings.front());
            ratings.erase(ratings.begin());
        }
    if (count == 0 || count > 64) return missing("channels", Want::a_number_of_its_own_from_1);
    double sum = 0;
    for (std::size_t k = 0; k < count; ++k) {
        Channel c;
        c.number = static_cast<int>(k) + 1;
        if (!ratings.empty()) c.rating_A = ratings[std::min(k, ratings.size() - 1)];
        sum += c.rating_A.value_or(10);
        p.channels.push_back(c);
    }
    b.put(p);
    feed_point(b, p, p.main_A ? std::min(*p.main_A, sum) : sum * 0.6, said);
    return p.id;
}

namespace {

// Of a line that does no more than name a block: the one that is called so, or the bare main block that a
// switch brought, which gets that name.
std::optional<Id> block_that_is_there(PlanBuilder& b, const Said& said) {
    const Plan& plan = b.plan();
    if (said.name.empty() || !said.plain.empty() || !said.labelled.empty() || said.length_m || said.size ||
        said.fuse_A || said.from || said.to || said.on || said.when)
        return std::nullopt;
    const Point* only = nullptr;
    for (const Point& p : plan.points) {
        if (!p.feeds_loads) continue;
        // "rear fuse box" is in the rear wherever it was put before
        const bool by_name =
            !said.place.empty() &&
            to_lower(said.name).find(to_lower(name_of(plan, said.place))) != std::string::npos;
        const bool here = said.place.empty() || p.place.empty() || said.place == p.place || by_name;
        if (here && to_lower(p.name) == to_lower(said.name)) {
            Point placed = p;
            if (placed.place.empty() || by_name) placed.place = said.place;
            b.put(placed);
            return placed.id;
        }
        if (only) return std::nullopt;
        only = &p;
    }
    if (!only || only->kind != PointKind::bus) return std::nullopt;
    // "rear panel" of the one that is called "rear body panel"
    const std::string name = to_lower(only->name), low = to_lower(said.name);
    if (low != name && all_words_in(name, low)) return only->id;
    if (only->name != "main block") return std::nullopt;
    const Run* feed = nullptr;
    for (const Run& r : plan.runs) {
        if (r.from == only->id) return std::nullopt;  // something hangs on it
        if (r.to == only->id) feed = &r;
    }
    Point named = *only;
    named.name = said.name;
    if (!said.place.empty()) named.place = said.place;
    if (feed) {
        Run renamed = *feed;
        renamed.name = named.name + " feed";
        b.put(renamed);
    }
    b.put(named);
    return named.id;
}

}  // namespace

Made make_point(PlanBuilder& b, const Said& said, PointKind kind) {
    Point p;
    const bool bus = kind == PointKind::bus;
    const auto cutoff_V = said.labelled_as("cutoff", Dimension::voltage);
    // a cable between two things of which not all was understood is no block
    static const Pattern between(R"(\bbatter(?:y|ies)\b.*\bto\s)");
    if (bus && between.is_in(said.name))
        return fail(ErrorCode::unknown_name, "line", said.name, Want::a_kind_of_thing);
    if (bus && !said.has("negative") && !said.has("minus"))
        if (const auto there = block_that_is_there(b, said)) {
            if (const Point* block = find(b.plan().points, *there); block && cutoff_V) {
                Point cut = *block;
                cut.cutoff_V = cutoff_V;
                b.put(cut);
            }
            return *there;
        }
    p.kind = kind;
    p.id = b.id(kind == PointKind::ground    ? "ground"
                : kind == PointKind::chassis ? "chassis"
                : bus                        ? "feed"
                                             : "point");
    p.name = said.name;
    if (p.name.empty())
        p.name = kind == PointKind::ground    ? "ground point"
                 : kind == PointKind::chassis ? "chassis"
                 : kind == PointKind::splice  ? "splice"
                 : bus                        ? "bus"
                                              : "stud";
    p.place = said.place;
    p.stud_mm = said.bolt_mm;
    if (said.has("aluminium")) p.metal = Metal::aluminium;
    if (said.has("stainless")) p.metal = Metal::stainless;
    if (said.has("steel")) p.metal = Metal::steel;
    p.sealed = said.has("sealed");
    if (kind == PointKind::ground) {
        const Terminal metal = said.to ? *said.to : metal_of(b.plan(), "");
        const Point* on = find(b.plan().points, metal);
        if (!on || on->kind != PointKind::chassis)
            return fail(ErrorCode::missing_reference, "chassis", metal.text(),
                        Want::a_plan_with_a_chassis_part);
        p.bonded_to = on->id;
        if (p.place.empty()) p.place = on->place;
        p.bond_ohm = said.plain_of(Dimension::resistance);
    }
    const bool negative = said.has("negative") || said.has("minus");
    if (bus && !negative)
        p.feeds_loads = true, p.return_at = return_of(b.plan(), said), p.cutoff_V = cutoff_V;
    b.put(p);
    if (bus && !negative) {
        // what hangs on it is not known yet: half of what its fuse would carry, else 30 A
        const double amps =
            said.labelled_as("for", Dimension::current)
                .value_or(said.plain_of(Dimension::current).value_or(said.fuse_A ? *said.fuse_A / 1.3 : 30));
        feed_point(b, p, amps, said);
    }
    if (bus && negative && !b.plan().batteries.empty()) {
        const double amps = said.labelled_as("for", Dimension::current).value_or(60);
        CableAsk home{p.name + " cable", p.id, home_of(b.plan(), said), amps, kFeed_m, 0.012, false};
        b.put(cable_for(b, home, said));
    }
    if (kind == PointKind::stud && said.from) feed_point(b, p, said.fuse_A.value_or(40) / 1.3, said);
    // two parts of one chassis are joined by their own metal
    if (kind == PointKind::chassis)
        for (const Point& other : b.plan().points)
            if (other.kind == PointKind::chassis && other.id != p.id && !said.has("apart")) {
                Run metal;
                metal.id = b.id("run"), metal.name = p.name + " to " + other.name;
                metal.from = p.id, metal.to = other.id, metal.body_metal = true;
                b.put(metal);
                break;
            }
    return p.id;
}

Made make_strap(PlanBuilder& b, const Said& said) {
    if (!said.from || !said.to) return missing("ends", Want::two_different_ends);
    // what a starter takes comes back through it, whether one is typed yet or not: 0.05 V of 250 A (common
    // practice)
    CableAsk ask{said.name.empty() ? "strap" : said.name, *said.from, *said.to, 250, 0.5, 0.004, false};
    ask.seconds = true;
    Said plain = said;
    plain.fuse_A.reset();
    const Run run = cable_for(b, ask, plain);
    if (run.from == run.to) return missing("ends", Want::two_different_ends);
    b.put(run);
    return run.id;
}

Made make_cable(PlanBuilder& b, const Said& said) {
    if (!said.from || !said.to) return missing("ends", Want::two_different_ends);
    const double amps = said.plain_of(Dimension::current).value_or(said.fuse_A ? *said.fuse_A / 1.3 : 20);
    Run run = cable_for(b,
                        {said.name.empty() ? "cable" : said.name, *said.from, *said.to, amps, 1, 0.02,
                         said.fuse_A.has_value()},
                        said);
    if (run.from == run.to) return missing("ends", Want::two_different_ends);
    if (said.when && !(*said.when == Condition{})) {
        Device d;
        d.id = b.id("switch"), d.name = run.name + " switch", d.kind = DeviceKind::switching;
        d.closed_when = *said.when;
        run.devices.push_back(d);
    }
    b.put(run);
    return run.id;
}

// "master between battery and main bus": into the cable that joins them.
Made make_master(PlanBuilder& b, const Said& said) {
    if (said.between.size() != 2) return missing("ends", Want::two_different_ends);
    // "between battery and main block": whichever battery feeds it
    const auto is = [&](const Id& owner, const Id& named) {
        return owner == named ||
               (find(b.plan().batteries, std::string_view(named)) && named == b.plan().batteries.front().id &&
                find(b.plan().batteries, std::string_view(owner)));
    };
    const auto joins_exactly = [&](const Run& r) {
        return (r.from.owner == said.between[0] && r.to.owner == said.between[1]) ||
               (r.to.owner == said.between[0] && r.from.owner == said.between[1]);
    };
    const bool exact = std::any_of(b.plan().runs.begin(), b.plan().runs.end(), joins_exactly);
    const auto joins = [&](const Run& r) {
        return exact ? joins_exactly(r) : is(r.from.owner, said.between[0]) && r.to.owner == said.between[1];
    };
    for (Run run : b.plan().runs) {
        if (!joins(run) || run.body_metal) continue;
        Device d;
        d.id = b.id("master"), d.kind = DeviceKind::switching, d.master = true;
        d.name = said.name.empty() ? "master" : said.name;
        d.closed_when.switches = {d.name};
        d.contact_A = said.plain_of(Dimension::current);
        d.at_m = run.length_m.value_or(1) / 2;
        run.devices.push_back(d);
        b.put(run);
        for (State s : b.plan().states) {  // on where the vehicle is meant to live
            s.switches.push_back(d.name);
            b.put(s);
        }
        return run.id;
    }
    return fail(ErrorCode::missing_reference, "cable", name_of(b.plan(), said.between[1]),
                Want::a_cable_between_them);
}

// "relay fan 40 A on ignition": into the feed of that load, with a coil that the condition gives volts.
Made make_relay(PlanBuilder& b, const Said& said) {
    const Load* load = nullptr;
    for (const Load& l : b.plan().loads)
        if (to_lower(l.name) == to_lower(said.name)) load = &l;
    const Run* feed = load ? supply_run(b.plan(), load->id) : nullptr;
    if (!feed) return fail(ErrorCode::missing_reference, "load", said.name, Want::a_load_of_this_plan);
    const Load switched = *load;
    Run run = *feed;
    Load coil;
    coil.id = b.id("load"), coil.name = switched.name + " relay coil";
    coil.draw = {DrawKind::current, 0.15};
    coil.live_when = said.when.value_or(switched.live_when);
    coil.place = switched.place;
    b.put(coil);
    Run there;
    there.id = b.id("run"), there.name = coil.name + " feed", there.from = run.from,
    there.to = pos_of(coil.id);
    there.length_m = 1, there.size = thinnest_sturdy(b.plan());
    Device fuse;
    fuse.id = b.id("fuse"), fuse.name = coil.name + " fuse", fuse.rating_A = 2, fuse.at_m = 0;
    Device sw;
    sw.id = b.id("switch"), sw.name = coil.name + " switch", sw.kind = DeviceKind::switching;
    sw.closed_when = coil.live_when, sw.at_m = 0.5;
    there.devices = {fuse, sw};
    b.put(there);
    Run back = there;
    back.id = b.id("run"), back.name = coil.name + " return", back.devices.clear();
    back.from = neg_of(coil.id), back.to = metal_of(b.plan(), "");
    b.put(back);
    Device relay;
    relay.id = b.id("relay"), relay.name = switched.name + " relay", relay.kind = DeviceKind::switching;
    relay.coil = coil.id, relay.contact_A = said.plain_of(Dimension::current);
    relay.suppression = Suppression::diode;
    relay.at_m = run.length_m.value_or(1) / 3;
    run.devices.push_back(relay);
    b.put(run);
    return run.id;
}

Made make_connector(PlanBuilder& b, const Said& said) {
    Connector c;
    c.id = b.id("connector");
    c.name = said.name.empty() ? "connector" : said.name;
    c.place = said.place, c.sealed = said.has("sealed");
    for (const Socket& s : sockets())
        if (said.has(s.key)) c.socket = s.key, c.name = said.name.empty() ? s.name : said.name;
    if (!said.numbers.empty()) c.pins = said.numbers.front();
    if (said.size) c.contact_mm = std::nullopt;
    if (const auto amps = said.plain_of(Dimension::current)) c.pin_A = amps;
    if (const auto ohm = said.plain_of(Dimension::resistance)) c.contact_ohm = ohm;
    if (said.length_m && *said.length_m < 0.05) c.contact_mm = *said.length_m * 1000;
    b.put(c);
    return c.id;
}

Made make_jacket(PlanBuilder& b, const Said& said) {
    Jacket j;
    j.id = b.id("jacket");
    j.name = said.name.empty() ? "cable of several cores" : said.name;
    if (!said.numbers.empty()) j.cores = said.numbers.front();
    b.put(j);
    return j.id;
}

}  // namespace yr
