#include "words/work_words.h"

#include <algorithm>
#include <cmath>

#include "plan/lists.h"
#include "words/build_words.h"
#include "words/say.h"
#include "words/sentences.h"

namespace yr::words {
namespace {

// Their names in one line, "and N more" behind eight.
std::string listed(const std::vector<std::string>& names) {
    std::string text;
    for (std::size_t k = 0; k < names.size(); ++k) {
        if (k == 8) return text + say(" and {0} more", names.size() - k);
        text += (text.empty() ? "" : ", ") + names[k];
    }
    return text;
}

std::string and_list(const std::vector<std::string>& names) {
    std::string text;
    for (std::size_t k = 0; k < names.size(); ++k) {
        if (k == 4 && names.size() > 5) return text + say(" and {0} more", names.size() - k);
        text += (k == 0 ? "" : k + 1 == names.size() ? translated(" and ") : ", ") + names[k];
    }
    return text;
}

std::string place_name(const Plan& plan, const Id& place) {
    return place.empty() ? std::string(translated("no place said")) : yr::name_of(plan, place);
}

long count(const WorkStep& s) {
    return static_cast<long>(s.members.size());
}

double money(double v) {
    return std::round(v * 100) / 100;
}

std::string money_text(double v) {
    return number(money(v), 9);
}

std::vector<std::string> names_of(const Plan& plan, const std::vector<Id>& ids) {
    std::vector<std::string> names;
    names.reserve(ids.size());
    for (const Id& id : ids) names.push_back(yr::name_of(plan, id));
    return names;
}

}  // namespace

std::string minutes_text(double minutes) {
    return minutes < 1 ? std::string(translated("1 min")) : duration_h(std::round(minutes) / 60);
}

std::string sentence(const Plan& plan, const WorkStep& s) {
    const std::string about = s.about.empty() ? std::string() : yr::name_of(plan, s.about);
    switch (s.task) {
        case Task::make:
            return say_n("Make {0} cable of {1}: {2}", "Make {0} cables of {1}: {2}", count(s), s.size,
                         listed(s.numbers));
        case Task::bench_test:
            return say("Test {0} on a bench supply: every channel on, off and its fuse", about);
        case Task::isolate:
            return say("Take the negative off {0} and tie it back; masters off", about);
        case Task::open:
            return say("Take covers off: {0}", about);
        case Task::drill:
            return say("Open the passage {0} and guard its edge", about);
        case Task::mount:
            return say("Mount {0}", about);
        case Task::ground:
            return say("Make the ground {0}: bright metal, bolt, guard", about);
        case Task::lay:
            return s.other == s.about
                       ? say_n("Lay {0} cable in {1}: {2}", "Lay {0} cables in {1}: {2}", count(s),
                               place_name(plan, s.about), listed(s.numbers))
                       : say_n("Lay {0} cable between {1} and {2}: {3}",
                               "Lay {0} cables between {1} and {2}: {3}", count(s), place_name(plan, s.other),
                               place_name(plan, s.about), listed(s.numbers));
        case Task::connect:
            return say_n("Connect {0} end at {1}: {2}", "Connect {0} ends at {1}: {2}", count(s), about,
                         listed(s.numbers));
        case Task::last_look:
            return translated(
                "Last look, by a second pair of eyes: tight, clear, guarded, nothing forgotten");
        case Task::first_power:
            return translated("First power by the lamp, circuit by circuit");
        case Task::readings:
            return translated("Take the readings that Meter lists");
        case Task::close:
            return say("Put covers back: {0}", about);
        case Task::hand_over:
            return translated("Hand over: the driver's page, the symptom card, signatures");
    }
    return {};
}

std::string where(const Plan& plan, const WorkStep& s) {
    switch (s.task) {
        case Task::make:
        case Task::bench_test:
            return translated("On the bench");
        case Task::last_look:
        case Task::first_power:
        case Task::readings:
        case Task::hand_over:
            return translated("To finish");
        case Task::isolate:
        case Task::open:
        case Task::drill:
        case Task::mount:
        case Task::ground:
        case Task::lay:
        case Task::connect:
        case Task::close:
            break;
    }
    return s.place.empty() ? std::string(translated("Place not said")) : capital(yr::name_of(plan, s.place));
}

std::string work_caution(WorkCaution c) {
    switch (c) {
        case WorkCaution::negative_first:
            return translated("Negative off first and tied back, on last.");
        case WorkCaution::look_behind:
            return translated("Look what lies behind before you drill: looms, lines, tanks, airbags.");
        case WorkCaution::airbag:
            return translated(
                "An airbag opens near there: nothing in its way, its wiring is for qualified hands.");
        case WorkCaution::fuel:
            return translated("Fuel or brake lines near there: clear of them, no sparks.");
        case WorkCaution::exhaust:
            return translated("Clear of the exhaust and whatever burns insulation.");
        case WorkCaution::moving:
            return translated(
                "Clear of belts, hinges, steering, seats and wheels: move them through before you fasten.");
        case WorkCaution::high_voltage:
            return translated(
                "Orange cables near there: hundreds of volts. Not a hand on them but by who is "
                "trained and has made the drive safe.");
        case WorkCaution::second_person:
            return translated("A second person at the far end feeds the cable through.");
        case WorkCaution::slide_first:
            return translated("Cap and shrink are slid on before the lug is crimped.");
        case WorkCaution::fuses_out:
            return translated("Fuses out: nothing here is live.");
        case WorkCaution::bare_metal:
            return translated("Bare both faces, bolt with a toothed washer, guard against rust.");
        case WorkCaution::most_lugs:
            return translated(
                "Four lugs on a bolt at most, the largest innermost, no washer in the way of the current.");
        case WorkCaution::precharge:
            return translated("Capacitors are charged through a resistor or the lamp first.");
        case WorkCaution::heavy:
            return translated(
                "Heavy, and live at its posts: two people, posts covered, no rings on fingers.");
        case WorkCaution::aluminium_ground:
            return translated("Copper on aluminium: contact paste, tinned lug, sealed.");
        case WorkCaution::keep_parts:
            return translated("Every screw and clip into a tray, counted.");
    }
    return {};
}

std::string remark(const Plan& plan, const WorkStep& s) {
    std::string text;
    each_list(plan, [&](const auto& things) {
        using Thing = typename std::remove_cvref_t<decltype(things)>::value_type;
        if constexpr (requires(const Thing& t) { t.remarks; })
            for (const Thing& t : things)
                if (t.id == s.about)
                    for (const std::string* said : {&t.remarks.caution, &t.remarks.note})
                        if (!said->empty()) text += (text.empty() ? "" : "; ") + *said;
    });
    for (const Mark& m : plan.marks)
        if (!m.note.empty() && m.name != "before" &&  // that one's note is a step
            (m.about == s.key || std::find(s.members.begin(), s.members.end(), m.about) != s.members.end()))
            text += (text.empty() ? "" : "; ") + m.note;
    return text;
}

std::string fixing(const Plan& plan, const Fixing& f) {
    std::string text = terminal(plan, f.at) + say(": M{0}", number(f.thread_mm));
    if (f.spanner_mm) text += say(", {0} mm spanner", number(*f.spanner_mm));
    if (f.torque && f.own_torque)
        text += say(", {0} Nm", number(f.torque->most_Nm));
    else if (f.torque)
        text += say(", {0} to {1} Nm (typical, the maker's first)", number(f.torque->least_Nm),
                    number(f.torque->most_Nm));
    if (f.lugs > 1) text += say(", {0} lugs", f.lugs);
    return text;
}

std::string sentence(const WorkOrder& o) {
    long done = 0;
    for (const WorkStep& s : o.steps) done += s.done();
    return say("{0} of {1} done, {2} to go, {3} visits to places", done, o.steps.size(),
               minutes_text(o.minutes_left), o.visits) +
           (o.fewest ? translated(" (the fewest)") : "");
}

std::vector<std::string> before_first_power(const Plan& plan) {
    std::vector<std::string> lines{
        translated("All fuses out, masters off, every load off, nobody's hands in it. Eye protection on."),
        translated(
            "Ohms from every fuse holder's far contact to ground: nothing near 0 but what the plan says."),
        translated("Capacitors of inverters and of a 48 V rail are charged through a resistor or the lamp."),
        translated("The lamp (21 W) or a 5 A fuse stands in place of the main fuse; negative on last."),
        translated("Lamp bright where it should be dark: off at once. A short draws no more than 2 A so.")};
    for (const Id& id : without_main_fuse(plan))
        lines.push_back(say("{0} has a cable without a fuse: there the lamp stands in its negative cable.",
                            capital(yr::name_of(plan, id))));
    return lines;
}

std::string sentence(const Plan& plan, const PowerStep& s) {
    const auto volts = [](double v) { return quantity(v, Dimension::voltage); };
    const std::string fuse = told_apart_name(plan, s.fuse);
    const std::string run = yr::name_of(plan, s.run);
    const auto shows = [&] {
        if (!s.solved) return std::string(translated("no answer: nothing is concluded"));
        std::string text = s.lamp_V < 0.005 ? std::string(translated("lamp dark, 0 V across it"))
                                            : say("{0} across the lamp", volts(s.lamp_V));
        if (s.behind_switch) return text + translated(", its switch is off");
        text += say("; a short would show {0}", volts(s.shorted_V));
        if (!s.told_apart) text += translated(", too near: measure its ohms instead");
        return text;
    };
    switch (s.act) {
        case PowerAct::ohms:
            return say("Ohms at the holders behind {0} ({1}): no bridge to ground.", fuse, run);
        case PowerAct::lamp_in:
            return say("The lamp in place of {0} ({1}); all other positive cables of that battery off.", fuse,
                       run);
        case PowerAct::negative:
            return say("Negative on, masters on: {0}.", shows());
        case PowerAct::fuse_in:
            return say("Fuse of {0} in: {1}.", run, shows());
        case PowerAct::all_in:
            return say(
                "All fuses in, key off, only what always runs is on: {0}. Then the lamp out and {1} in.",
                shows(), fuse);
        case PowerAct::switch_on:
            return say("{0} on: {1}.", capital(and_list(names_of(plan, s.loads))), shows());
    }
    return {};
}

std::string name_of(const Plan& plan, const Break& b) {
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices)
            if (d.id == b.id)
                return b.kind == BreakKind::fuse
                           ? say("fuse {0} of {1}", quantity(d.rating_A, Dimension::current), r.name)
                           : say("switch or relay of {0}", r.name);
    return b.kind == BreakKind::ground      ? say("ground {0}", yr::name_of(plan, b.id))
           : b.kind == BreakKind::connector ? say("plug {0}", yr::name_of(plan, b.id))
                                            : say("cable {0}", yr::name_of(plan, b.id));
}

namespace {

// Where to look; what sits in one cable is said together.
std::vector<std::string> places_to_look(const Plan& plan, const Symptom& s) {
    std::vector<std::string> out;
    std::vector<Id> said;
    const auto run_of = [&](const Break& b) -> const Run* {
        for (const Run& r : plan.runs) {
            if (r.id == b.id) return &r;
            for (const Device& d : r.devices)
                if (d.id == b.id) return &r;
        }
        return nullptr;
    };
    for (const Break& b : s.where) {
        const Run* run = run_of(b);
        if (!run) {
            out.push_back(name_of(plan, b));
            continue;
        }
        if (std::find(said.begin(), said.end(), run->id) != said.end()) continue;
        said.push_back(run->id);
        std::vector<std::string> parts;
        for (const Break& other : s.where) {
            if (run_of(other) != run) continue;
            if (other.kind == BreakKind::fuse)
                parts.push_back(
                    say("fuse {0}", quantity(find_device(plan, other.id)->rating_A, Dimension::current)));
            else if (other.kind == BreakKind::relay)
                parts.emplace_back(translated("switch or relay"));
        }
        out.push_back(parts.empty() ? run->name : say("{0} ({1})", run->name, listed(parts)));
    }
    return out;
}

}  // namespace

std::string sentence(const Plan& plan, const Symptom& s) {
    std::string text = capital(and_list(names_of(plan, s.dead))) + translated(" dead");
    if (!s.alive.empty()) {
        std::vector<Id> few(s.alive.begin(),
                            s.alive.begin() + static_cast<long>(std::min<std::size_t>(3, s.alive.size())));
        text += few.size() == 1 ? say(", {0} lives", and_list(names_of(plan, few)))
                                : say(", {0} live", and_list(names_of(plan, few)));
    }
    return text + say(": look at {0}.", and_list(places_to_look(plan, s)));
}

std::string sentence(const Plan& plan, const ChangeLine& c) {
    const std::string run = c.run.empty() ? std::string() : yr::name_of(plan, c.run);
    const auto much = [&] {
        return c.metres ? quantity(c.quantity, Dimension::length) : number(c.quantity, 4);
    };
    switch (c.kind) {
        case ChangeKind::make:
            return say("Make {0} ({1}).", run, much());
        case ChangeKind::remake:
            return say("Make {0} anew ({1}).", run, much());
        case ChangeKind::undo:
            return say("Take {0} out again.", run);
        case ChangeKind::waste:
            return say("{0} is wasted ({1}).", capital(run), much());
        case ChangeKind::buy:
            return say("Buy {0} of {1}.", much(), c.part);
        case ChangeKind::left_over:
            return say("{0} of {1} is left over.", much(), c.part);
    }
    return {};
}

std::vector<std::pair<std::string, std::string>> quote_sums(const Quote& q) {
    const auto range = [](double a, double b) {
        return money(a) == money(b) ? money_text(a) : say("{0} to {1}", money_text(a), money_text(b));
    };
    std::vector<std::pair<std::string, std::string>> sums;
    sums.emplace_back(q.unpriced == 0
                          ? std::string(translated("Parts"))
                          : say_n("Parts, {0} line without a price left out",
                                  "Parts, {0} lines without a price left out", static_cast<long>(q.unpriced)),
                      money_text(q.parts));
    if (q.consumables > 0) sums.emplace_back(translated("Consumables"), money_text(q.consumables));
    if (q.margin > 0) sums.emplace_back(translated("Margin"), money_text(q.margin));
    if (q.travel > 0) sums.emplace_back(translated("Travel"), money_text(q.travel));
    sums.emplace_back(
        say("Work, {0} to {1}", duration_h(q.least_h), duration_h(q.most_h)),
        q.rate_known ? range(q.least_work, q.most_work) : std::string(translated("no hourly rate said")));
    if (q.most_tax > 0) sums.emplace_back(translated("Tax"), range(q.least_tax, q.most_tax));
    sums.emplace_back(translated("Sum"), range(q.least, q.most));
    return sums;
}

Sheet work_sheet(const Plan& plan, const WorkOrder& order) {
    Sheet s{translated("Order of work"),
            {translated("done"), translated("where"), translated("step"), translated("minutes"),
             translated("fastening"), translated("caution")},
            {}};
    for (const WorkStep& w : order.steps) {
        std::string fastening, cautions;
        for (const Fixing& f : w.fixings) fastening += (fastening.empty() ? "" : "; ") + fixing(plan, f);
        for (const WorkCaution c : w.cautions) cautions += (cautions.empty() ? "" : " ") + work_caution(c);
        s.rows.push_back({w.done() ? std::string(translated("done")) : std::string(), where(plan, w),
                          sentence(plan, w), std::round(w.minutes), fastening, cautions});
    }
    return s;
}

Sheet quote_sheet(const Quote& q) {
    Sheet s{translated("Quote"),
            {translated("what"), translated("needed"), translated("unit"), translated("packs"),
             translated("price"), translated("supplier"), translated("price of"), translated("remark")},
            {}};
    for (const QuoteLine& l : q.lines)
        s.rows.push_back({l.what, std::round(l.quantity * 100) / 100,
                          std::string(l.metres ? translated("m") : translated("pieces")), l.packs,
                          l.price ? SheetCell(money(*l.price)) : SheetCell(std::string()), l.supplier,
                          l.dated,
                          std::string(l.brought  ? translated("the customer brings it")
                                      : l.bought ? translated("bought")
                                                 : "")});
    for (const auto& [what, much] : quote_sums(q))
        s.rows.push_back({what, std::string(), std::string(), std::string(), much, std::string(),
                          std::string(), std::string()});
    return s;
}

Sheet order_sheet(const OrderList& list) {
    Sheet s{list.supplier.empty() ? translated("Order, no supplier") : say("Order, {0}", list.supplier),
            {translated("what"), translated("packs"), translated("a pack holds"), translated("unit"),
             translated("price")},
            {}};
    for (const QuoteLine& l : list.lines)
        s.rows.push_back({l.what, l.packs, l.pack,
                          std::string(l.metres ? translated("m") : translated("pieces")),
                          l.price ? SheetCell(money(*l.price)) : SheetCell(std::string())});
    return s;
}

std::string sentence(const OrderList& list) {
    const std::string from = list.supplier.empty() ? translated("No supplier said") : list.supplier;
    const std::string all = say_n("{1}: {0} line, {2}", "{1}: {0} lines, {2}",
                                  static_cast<long>(list.lines.size()), from, money_text(list.price));
    return list.unpriced == 0 ? all
                              : say_n("{1}, {0} without a price", "{1}, {0} without a price",
                                      static_cast<long>(list.unpriced), all);
}

Sheet change_sheet(const Plan& plan, const ChangeOrder& order) {
    Sheet s{translated("Change order"), {translated("what"), translated("price")}, {}};
    for (const ChangeLine& c : order.lines)
        s.rows.push_back(
            {sentence(plan, c), c.price ? SheetCell(money(*c.price)) : SheetCell(std::string())});
    return s;
}

std::string task_name(const std::string& task) {
    static const std::pair<const char*, const char*> names[] = {
        {"make_thin", later("a thin cable cut and crimped")},
        {"make_thick", later("a thick cable cut and crimped")},
        {"bench_test", later("a box tried on the bench")},
        {"isolate", later("a battery taken off")},
        {"open", later("covers off at a place")},
        {"drill", later("a hole drilled and guarded")},
        {"mount_box", later("a box mounted")},
        {"mount_battery", later("a battery mounted")},
        {"mount_bus", later("a bus or stud mounted")},
        {"mount_source", later("a source mounted")},
        {"mount_inverter", later("an inverter mounted")},
        {"mount_load", later("a load mounted")},
        {"ground", later("a ground bared and bolted")},
        {"lay_metre", later("a metre laid")},
        {"lay_cable", later("a cable laid, besides its metres")},
        {"connect_end", later("an end connected")},
        {"last_look", later("the last look")},
        {"first_power", later("first power")},
        {"first_power_circuit", later("first power, a circuit")},
        {"reading", later("a reading")},
        {"close", later("covers on at a place")},
        {"hand_over", later("the hand-over")}};
    for (const auto& [key, name] : names)
        if (task == key) return translated(name);
    return task;
}

}  // namespace yr::words
