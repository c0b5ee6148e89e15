#include "words/control_words.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "words/speech.h"

namespace yr::words {
namespace {

std::string plain_seconds(double s) {
    return number(s) + translated("\xE2\x80\x89s");
}

}  // namespace

std::string place_text(const Plan& plan, const Id& feed, int channel) {
    const std::string name = yr::name_of(plan, feed);
    return channel > 0 ? name + translated(" channel ") + std::to_string(channel) : name;
}

std::string situation(const SneakPath& path, const Plan& plan) {
    std::string text = std::string(yr::name_of(path.position));
    const auto masters = master_switches(plan);
    for (const std::string& name : path.state.switches)
        if (std::find(masters.begin(), masters.end(), name) == masters.end())
            text += ", " + name + translated(" on");
    for (const Id& fuse : path.state.pulled) text += ", " + yr::name_of(plan, fuse) + translated(" out");
    return text;
}

std::string sentence(const SneakPath& path, const Plan& plan, const Style& style) {
    const std::string who = capital(yr::name_of(plan, path.load));
    const std::string volts = quantity(path.volts_V, Dimension::voltage, style);
    const std::string when = situation(path, plan);
    const std::string by = path.through.empty() ? std::string() : yr::name_of(plan, path.through);
    switch (path.kind) {
        case SneakKind::alive:
            return say("{0} is alive ({1}) though nothing asks for it: {2}; through {3}.", who, volts, when,
                       by);
        case SneakKind::past_fuse:
            return say("{0} is alive ({1}) with its own fuse out: {2}; through {3}.", who, volts, when, by);
        case SneakKind::dead:
            if (by.empty()) return say("{0} should run but is dead ({1}): {2}.", who, volts, when);
            return say("{0} should run but is dead ({1}): {2}; {3} is open.", who, volts, when, by);
    }
    return {};
}

std::string same_for(const std::vector<std::size_t>& cause, const SneakSearch& search, const Plan& plan) {
    constexpr std::size_t kMostNamed = 4;
    if (cause.size() < 2) return {};
    std::string text = translated("The same for ");
    for (std::size_t k = 1; k < cause.size() && k <= kMostNamed; ++k)
        text += (k == 1                  ? ""
                 : k + 1 == cause.size() ? translated(" and ")
                                         : ", ") +
                yr::name_of(plan, search.found[cause[k]].load);
    if (cause.size() > kMostNamed + 1) text += say(" and {0} more", cause.size() - kMostNamed - 1);
    return text + ".";
}

std::string path_text(const SneakPath& path, const Plan& plan) {
    std::string text;
    for (const Id& id : path.path) text += (text.empty() ? "" : " \xE2\x86\x92 ") + yr::name_of(plan, id);
    return text;
}

std::string mend_label(const SneakMend& mend, const Plan& plan) {
    switch (mend.kind) {
        case SneakMendKind::diode:
            return translated("Diode in ") + yr::name_of(plan, mend.id);
        case SneakMendKind::coil_feed:
            return translated("Coil from ") + yr::name_of(plan, mend.feed);
        case SneakMendKind::own_return:
            return translated("Return of its own");
        case SneakMendKind::own_feed:
            return translated("Hang on ") + yr::name_of(plan, mend.feed);
    }
    return {};
}

namespace {

// 10 to that power; a vehicle of a thousand fuses has more combinations than a double can count.
std::string power_of_ten(double log10) {
    static constexpr const char* raised[] = {"\xE2\x81\xB0", "\xC2\xB9",     "\xC2\xB2",     "\xC2\xB3",
                                             "\xE2\x81\xB4", "\xE2\x81\xB5", "\xE2\x81\xB6", "\xE2\x81\xB7",
                                             "\xE2\x81\xB8", "\xE2\x81\xB9"};
    const int power = static_cast<int>(std::floor(log10));
    std::string text = fmt::format("{:.1f} \xC3\x97 10", std::pow(10, log10 - power));
    for (const char digit : std::to_string(power)) text += raised[digit - '0'];
    return text;
}

}  // namespace

std::string search_text(const SneakSearch& search) {
    std::string count = fmt::format("{:.0f}", search.combinations);
    if (search.combinations > 1e9)  // "2 × 10^13" with raised digits
        count = power_of_ten((search.switches + search.fuses) * std::log10(2.0) +
                             std::log10(static_cast<double>(search.positions)));
    else
        for (int at = static_cast<int>(count.size()) - 3; at > 0; at -= 3)
            count.insert(static_cast<std::size_t>(at), "\xE2\x80\x89");
    const char* head =
        search.complete ? translated("Every one of") : translated("Stopped on the way through");
    return say("{0} {1} combinations: {2} switches, {3} fuses, {4} key positions.", head, count,
               search.switches, search.fuses, search.positions);
}

std::vector<std::string> reasons(const PlacedLoad& p, const Plan& plan, const Style& style) {
    const auto A = [&](double v) { return quantity(v, Dimension::current, style); };
    const auto m = [&](double v) { return quantity(v, Dimension::length, style); };
    const auto V = [&](double v) { return quantity(v, Dimension::voltage, style); };
    std::vector<std::string> lines;
    std::string head = say("{0}: {1} over {2} from the battery and {3} on.",
                           place_text(plan, p.feed, p.channel), A(p.amps), m(p.feed_m), m(p.local_m));
    if (p.pinned) head += translated(" Put there by hand.");
    if (p.joined) head += translated(" Two channels joined.");
    lines.push_back(head);
    for (const OtherFeed& o : p.others) {
        const std::string name = yr::name_of(plan, o.feed);
        const std::string position(yr::name_of(o.position));
        switch (o.why) {
            case WhyNot::dearer:
                lines.push_back(say("{0}: {1} A m of copper where this takes {2}.", name, number(o.value),
                                    number(o.limit)));
                break;
            case WhyNot::not_live:
                lines.push_back(say("{0}: dead at {1}, when it must run.", name, position));
                break;
            case WhyNot::live_too_long:
                lines.push_back(say("{0}: live at {1}, when it must be dead.", name, position));
                break;
            case WhyNot::rating:
                lines.push_back(
                    say("{0}: no channel carries {1}; the most is {2}.", name, A(o.value), A(o.limit)));
                break;
            case WhyNot::peak:
                lines.push_back(say("{0}: no channel stands its start of {1}; the most is {2}.", name,
                                    A(o.value), A(o.limit)));
                break;
            case WhyNot::full:
                lines.push_back(say("{0}: would take less copper, but its room goes to others.", name));
                break;
            case WhyNot::pinned:
                lines.push_back(say("{0}: it was put here by hand.", name));
                break;
            case WhyNot::other_volts:
                lines.push_back(
                    say("{0}: a rail of {1}; this is made for {2}.", name, V(o.value), V(o.limit)));
                break;
            case WhyNot::switched_there:
                lines.push_back(
                    say("{0}: where it is now a relay or its feed switches it; there it would run at other "
                        "times.",
                        name));
                break;
            case WhyNot::no_feed:
                lines.push_back(say("{0}: not made to feed more loads.", name));
                break;
            case WhyNot::refused:
                lines.push_back(say("{0}: inspected whole, something would be worse.", name));
                break;
        }
    }
    return lines;
}

std::string conflict_text(const Assignment& a, const Plan& plan) {
    if (a.feasible) return {};
    if (a.conflict.empty())
        return translated("What is fixed already is over a limit: no load that moves can help.");
    std::string names;
    for (std::size_t k = 0; k < a.conflict.size(); ++k)
        names += (k == 0                       ? ""
                  : k + 1 == a.conflict.size() ? translated(" and ")
                                               : ", ") +
                 yr::name_of(plan, a.conflict[k]);
    if (a.conflict.size() == 1)
        return capital(names) + translated(" fits on no channel or feed of this plan.");
    return capital(names) + translated(" cannot all be placed; without any one of them the others can.");
}

std::string conflict_text(const CheckedChannels& checked, const Plan& plan, const Style& style) {
    if (checked.assignment.known) return conflict_text(checked.assignment, plan);
    if (checked.against.empty())
        return translated("No answer was found in time; nothing is proved and nothing was moved.");
    return translated(
               "As they are the loads do not sit within every limit, and each way of giving them out "
               "that was tried makes something else worse; nothing was moved. The last of them: ") +
           sentence(checked.against.back(), plan, style);
}

std::string sentence(const Remedy& r, const Plan& plan, const Style& style) {
    const std::string name = yr::name_of(plan, r.id);
    const auto A = [&](double v) { return quantity(v, Dimension::current, style); };
    switch (r.kind) {
        case RemedyKind::raise_limit: {
            const std::string what = r.group.empty() ? name : name + translated(" group ") + r.group;
            return say("{0} for {1} instead of {2}.", capital(what), A(r.to), A(r.from));
        }
        case RemedyKind::another_box:
            return say("A {0}-channel box more beside {1}.", number(r.to), name);
        case RemedyKind::unpin:
            return say("{0} let go from where it was put by hand.", capital(name));
        case RemedyKind::join:
            return translated("Two solid-state channels joined for one load.");
    }
    return {};
}

std::string sentence(const RailGroup& g, const Plan& plan, const Style& style) {
    const bool always = same_when(g.when, Condition{});
    std::string text = fmt::format("{}: {} {}, {}.", capital(condition(g.when, &plan)), g.loads.size(),
                                   g.loads.size() == 1 ? translated("load") : translated("loads"),
                                   quantity(g.amps, Dimension::current, style));
    if (g.feeds.empty()) {
        text += always ? translated(" No feed is always live.")
                       : translated(" No feed is live just then: a relay is missing.");
    } else {
        std::string names;
        for (std::size_t k = 0; k < g.feeds.size(); ++k)
            names += (k == 0                    ? ""
                      : k + 1 == g.feeds.size() ? translated(" and ")
                                                : ", ") +
                     yr::name_of(plan, g.feeds[k]);
        text += say(" {0} {1} live just then.", capital(names),
                    g.feeds.size() == 1 ? translated("is") : translated("are"));
    }
    if (g.astray.empty()) return text;
    std::string names;
    for (std::size_t k = 0; k < g.astray.size(); ++k)
        names += (k == 0                     ? ""
                  : k + 1 == g.astray.size() ? translated(" and ")
                                             : ", ") +
                 yr::name_of(plan, g.astray[k]);
    return text + say(" Elsewhere {0}: {1}.", g.astray.size() == 1 ? translated("hangs") : translated("hang"),
                      names);
}

std::string condition(const Condition& c, const Plan* plan) {
    std::string text;
    const auto add = [&](const std::string& part) { text += (text.empty() ? "" : ", ") + part; };
    if (c.key == Key::accessory) add(translated("key at accessory"));
    if (c.key == Key::ignition) add(translated("key at ignition"));
    if (c.key == Key::crank) add(translated("cranking"));
    if (c.engine == Engine::running) add(translated("engine running"));
    if (c.engine == Engine::stopped) add(translated("engine stopped"));
    for (const std::string& s : c.switches) add(s + translated(" on"));
    for (const std::string& s : c.switches_off) add(s + translated(" off"));
    if (c.not_cranking) add(translated("not while cranking"));
    if (c.charging_above_V)
        add(translated("charging above ") + quantity(*c.charging_above_V, Dimension::voltage));
    for (const Id& id : c.circuits) add((plan ? yr::name_of(*plan, id) : id) + translated(" running"));
    if (!c.any_of.empty()) {
        std::string any;
        for (const Condition& one : c.any_of)
            any += (any.empty() ? "" : translated(" or ")) + condition(one, plan);
        add(c.any_of.size() > 1 ? translated("either ") + any : any);
    }
    if (c.delay_s) add(translated("after ") + plain_seconds(*c.delay_s));
    const auto warmth = [&](double at_C, double back_C, bool above) {
        const std::string at = quantity(at_C, Dimension::temperature),
                          back = quantity(back_C, Dimension::temperature);
        const bool bay = c.air == Air::engine_bay;
        const std::string from =
            above ? (bay ? say("engine bay at {0} or warmer", at) : say("at {0} or warmer", at))
                  : (bay ? say("engine bay at {0} or colder", at) : say("at {0} or colder", at));
        add(c.within_K ? from + say(", back at {0}", back) : from);
    };
    if (c.above_C) warmth(*c.above_C, *c.above_C - c.within_K.value_or(0), true);
    if (c.below_C) warmth(*c.below_C, *c.below_C + c.within_K.value_or(0), false);
    if (c.holds_s) add(say("{0} on after the key", plain_seconds(*c.holds_s)));
    return text.empty() ? translated("always") : text;
}

const char* name_of(BoxLayout layout) {
    switch (layout) {
        case BoxLayout::as_it_is:
            return translated("One box, where it is");
        case BoxLayout::two_boxes:
            return translated("Two boxes");
        case BoxLayout::by_the_supply:
            return translated("Its cables home to the supply");
    }
    return "";
}

std::string sentence(const BoxOption& o, const Style& style) {
    std::string text =
        say("{0}: {1} kg of copper, {2} of cable on it, cables and ends {3}, {4} lost at worst",
            name_of(o.layout), number(o.kg, 3), quantity(o.metres, Dimension::length, style),
            number(std::round(o.money), 6), quantity(o.worst_drop_V, Dimension::voltage, style));
    if (!o.moved.empty())
        text +=
            say_n("; {0} load on the second", "; {0} loads on the second", static_cast<long>(o.moved.size()));
    text += ".";
    if (!o.sized) text += " " + std::string(translated("No sizes keep every limit there."));
    return text;
}

}  // namespace yr::words
