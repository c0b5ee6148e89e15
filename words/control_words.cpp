#include "words/control_words.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace yr::words {
namespace {

struct Speech {
    const Finding& f;
    const Plan& plan;
    const Style& style;
    [[nodiscard]] std::string who() const { return capital(yr::name_of(plan, f.id)); }
    [[nodiscard]] std::string it() const { return yr::name_of(plan, f.id); }
    [[nodiscard]] std::string other() const { return yr::name_of(plan, f.other); }
    [[nodiscard]] std::string state() const {
        const State* s = find(plan.states, f.state);
        return s ? s->name : std::string("no state");
    }
    [[nodiscard]] std::string A(double v) const { return quantity(v, Dimension::current, style); }
};

std::string box_sentence(const Speech& s) {
    const Finding& f = s.f;
    switch (f.kind) {
        case FindingKind::channel_over:
            return fmt::format("{} takes {} on a channel of {} that carries {}.", s.who(), s.A(f.value),
                               s.other(), s.A(f.limit));
        case FindingKind::channel_start:
            return fmt::format("{} starts with {} on a channel of {} that stands {}.", s.who(), s.A(f.value),
                               s.other(), s.A(f.limit));
        case FindingKind::group_over:
            return fmt::format("{}: channels of group {} share {}; together they can ask for {}.", s.who(),
                               f.other, s.A(f.limit), s.A(f.value));
        case FindingKind::box_main_over:
            return fmt::format("{} can be asked for {} at once; its {} is {}.", s.who(), s.A(f.value),
                               f.other.empty() ? std::string("main") : s.other(), s.A(f.limit));
        case FindingKind::forgets:
            return fmt::format("{} must always run, but {} keeps its channels off after a power loss.",
                               s.who(), s.other());
        default:
            return {};
    }
}

std::string live_sentence(const Speech& s) {
    const Finding& f = s.f;
    switch (f.kind) {
        case FindingKind::load_alive:
            return fmt::format("{} runs in {} though nothing asks for it: its feed is live then.", s.who(),
                               s.state());
        case FindingKind::key_on_constant:
            if (f.value > 1.5)
                return fmt::format(
                    "{} is always live: {} loads on it, {} among them, follow the key by a switch "
                    "of their own alone.",
                    s.who(), number(f.value), s.other());
            return fmt::format("{} is always live: {} on it follows the key by a switch of its own alone.",
                               s.who(), s.other());
        case FindingKind::signal_missing:
            return fmt::format("{} wants its signal {} s after its supply; the plan has none.", s.who(),
                               number(f.value));
        case FindingKind::parked_draw: {
            std::string text = fmt::format("{} takes {} of the {} drawn in {}{}.", s.who(), s.A(f.value),
                                           s.A(f.limit), s.state(), on_average(f, s.style));
            if (f.hours)
                text += fmt::format(" Alone it empties {} by half in {}.", s.other(), duration_h(*f.hours));
            return text;
        }
        default:
            return {};
    }
}

std::string seconds(double s) {
    return number(s) + "\xE2\x80\x89s";
}

}  // namespace

std::string control_sentence(const Finding& f, const Plan& plan, const Style& style) {
    const Speech s{f, plan, style};
    switch (f.kind) {
        case FindingKind::tap_over:
            return fmt::format("{} taps {}: in {} both together take {} where that position carries {}.",
                               s.who(), s.other(), s.state(), s.A(f.value), s.A(f.limit));
        case FindingKind::contact_over:
            return fmt::format("{} switches {} in {}; its contacts carry {}.", s.who(), s.A(f.value),
                               s.state(), s.A(f.limit));
        case FindingKind::coil_kick:
            return fmt::format(
                "{} has no suppression and hangs beside {}: its kick reaches that when it lets go.", s.who(),
                s.other());
        case FindingKind::shares_ground:
            if (f.value > 0)
                return fmt::format("{} is sensitive and shares its return with {} ({}).", s.who(), s.other(),
                                   s.A(f.value));
            return fmt::format("{} is sensitive and returns over metal at {}: give it a way home of its own.",
                               s.who(), s.other());
        default:
            break;
    }
    const std::string text = box_sentence(s);
    return text.empty() ? live_sentence(s) : text;
}

Rule control_rule(const Finding& f, const Plan& plan) {
    (void)plan;
    switch (f.kind) {
        case FindingKind::channel_over:
        case FindingKind::channel_start:
            return {"channel",
                    "the box's own rating; where it has none: solid-state outputs at half their peak, "
                    "common practice"};
        case FindingKind::group_over:
            return {"shared limit", "the box's own limit for these channels"};
        case FindingKind::box_main_over:
            return {"box main", "everything on it that can be on at one key position, at nominal volts"};
        case FindingKind::forgets:
            return {"power loss", "the box's own behaviour"};
        case FindingKind::tap_over:
            return {"fuse tap", "a position carries the fuse it was made for, common practice"};
        case FindingKind::contact_over:
            return {"contacts", "the relay's own rating"};
        case FindingKind::coil_kick:
            return {"coil", "a diode or resistor across a coil beside electronics, common practice"};
        case FindingKind::load_alive:
            return {"liveness", "the plan's own words on when it must run"};
        case FindingKind::key_on_constant:
            return {"constant feed", "common practice, no source"};
        case FindingKind::signal_missing:
            return {"delayed signal", "the load's own need"};
        case FindingKind::shares_ground:
            return {"own ground", "common practice, no source"};
        case FindingKind::parked_draw:
            return {"parked", "charge to half; Peukert above the 20 h rate, flat below it"};
        default:
            return {};
    }
}

std::vector<std::string> control_reasons(const Finding& f, const Plan& plan, const Style& style) {
    const Speech s{f, plan, style};
    switch (f.kind) {
        case FindingKind::group_over:
        case FindingKind::box_main_over:
            return {
                "Every load's draw at nominal volts, added up at each key position with its own switches on; "
                "the worst position counts.",
                "What is never on together does not add up."};
        case FindingKind::channel_start:
            return {"Start " + s.A(f.value) + " against what the channel stands for a moment, " +
                    s.A(f.limit)};
        case FindingKind::key_on_constant:
            return {
                "The feed is live with the key off. A load with a relay or box channel in its feed is not "
                "counted.",
                "A switch left on drains the battery: a relay or channel that follows the key does not."};
        case FindingKind::coil_kick:
            return {"A coil that lets go drives its own line far below zero for a moment.",
                    "A diode across it holds the kick to under a volt; a resistor to some tens of volts."};
        case FindingKind::parked_draw:
            return {"In the parked state that draws most, by what each one takes; the largest first."};
        default:
            return {};
    }
}

std::string place_text(const Plan& plan, const Id& feed, int channel) {
    const std::string name = yr::name_of(plan, feed);
    return channel > 0 ? name + " channel " + std::to_string(channel) : name;
}

std::string situation(const SneakPath& path, const Plan& plan) {
    std::string text = std::string(yr::name_of(path.position));
    const auto masters = master_switches(plan);
    for (const std::string& name : path.state.switches)
        if (std::find(masters.begin(), masters.end(), name) == masters.end()) text += ", " + name + " on";
    for (const Id& fuse : path.state.pulled) text += ", " + yr::name_of(plan, fuse) + " out";
    return text;
}

std::string sentence(const SneakPath& path, const Plan& plan, const Style& style) {
    const std::string who = capital(yr::name_of(plan, path.load));
    const std::string volts = quantity(path.volts_V, Dimension::voltage, style);
    const std::string when = situation(path, plan);
    const std::string by = path.through.empty() ? std::string() : yr::name_of(plan, path.through);
    switch (path.kind) {
        case SneakKind::alive:
            return fmt::format("{} is alive ({}) though nothing asks for it: {}; through {}.", who, volts,
                               when, by);
        case SneakKind::past_fuse:
            return fmt::format("{} is alive ({}) with its own fuse out: {}; through {}.", who, volts, when,
                               by);
        case SneakKind::dead:
            if (by.empty()) return fmt::format("{} should run but is dead ({}): {}.", who, volts, when);
            return fmt::format("{} should run but is dead ({}): {}; {} is open.", who, volts, when, by);
    }
    return {};
}

std::string same_for(const std::vector<std::size_t>& cause, const SneakSearch& search, const Plan& plan) {
    constexpr std::size_t kMostNamed = 4;
    if (cause.size() < 2) return {};
    std::string text = "The same for ";
    for (std::size_t k = 1; k < cause.size() && k <= kMostNamed; ++k)
        text += (k == 1                  ? ""
                 : k + 1 == cause.size() ? " and "
                                         : ", ") +
                yr::name_of(plan, search.found[cause[k]].load);
    if (cause.size() > kMostNamed + 1) text += fmt::format(" and {} more", cause.size() - kMostNamed - 1);
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
            return "Diode in " + yr::name_of(plan, mend.id);
        case SneakMendKind::coil_feed:
            return "Coil from " + yr::name_of(plan, mend.feed);
        case SneakMendKind::own_return:
            return "Return of its own";
        case SneakMendKind::own_feed:
            return "Hang on " + yr::name_of(plan, mend.feed);
    }
    return {};
}

namespace {

std::string power_of_ten(double value) {
    static constexpr const char* raised[] = {"\xE2\x81\xB0", "\xC2\xB9",     "\xC2\xB2",     "\xC2\xB3",
                                             "\xE2\x81\xB4", "\xE2\x81\xB5", "\xE2\x81\xB6", "\xE2\x81\xB7",
                                             "\xE2\x81\xB8", "\xE2\x81\xB9"};
    const int power = static_cast<int>(std::floor(std::log10(value)));
    std::string text = fmt::format("{:.1f} \xC3\x97 10", value / std::pow(10, power));
    for (const char digit : std::to_string(power)) text += raised[digit - '0'];
    return text;
}

}  // namespace

std::string search_text(const SneakSearch& search) {
    std::string count = fmt::format("{:.0f}", search.combinations);
    if (search.combinations > 1e9)  // "2 × 10^13" with raised digits
        count = power_of_ten(search.combinations);
    else
        for (int at = static_cast<int>(count.size()) - 3; at > 0; at -= 3)
            count.insert(static_cast<std::size_t>(at), "\xE2\x80\x89");
    const char* head = search.complete ? "Every one of" : "Stopped on the way through";
    return fmt::format("{} {} combinations: {} switches, {} fuses, {} key positions.", head, count,
                       search.switches, search.fuses, search.positions);
}

std::vector<std::string> reasons(const PlacedLoad& p, const Plan& plan, const Style& style) {
    const auto A = [&](double v) { return quantity(v, Dimension::current, style); };
    const auto m = [&](double v) { return quantity(v, Dimension::length, style); };
    std::vector<std::string> lines;
    std::string head = fmt::format("{}: {} over {} from the battery and {} on.",
                                   place_text(plan, p.feed, p.channel), A(p.amps), m(p.feed_m), m(p.local_m));
    if (p.pinned) head += " Put there by hand.";
    if (p.joined) head += " Two channels joined.";
    lines.push_back(head);
    for (const OtherFeed& o : p.others) {
        const std::string name = yr::name_of(plan, o.feed);
        const std::string position(yr::name_of(o.position));
        switch (o.why) {
            case WhyNot::dearer:
                lines.push_back(fmt::format("{}: {} A m of copper where this takes {}.", name,
                                            number(o.value), number(o.limit)));
                break;
            case WhyNot::not_live:
                lines.push_back(fmt::format("{}: dead at {}, when it must run.", name, position));
                break;
            case WhyNot::live_too_long:
                lines.push_back(fmt::format("{}: live at {}, when it must be dead.", name, position));
                break;
            case WhyNot::rating:
                lines.push_back(
                    fmt::format("{}: no channel carries {}; the most is {}.", name, A(o.value), A(o.limit)));
                break;
            case WhyNot::peak:
                lines.push_back(fmt::format("{}: no channel stands its start of {}; the most is {}.", name,
                                            A(o.value), A(o.limit)));
                break;
            case WhyNot::full:
                lines.push_back(
                    fmt::format("{}: would take less copper, but its room goes to others.", name));
                break;
            case WhyNot::pinned:
                lines.push_back(fmt::format("{}: it was put here by hand.", name));
                break;
        }
    }
    return lines;
}

std::string conflict_text(const Assignment& a, const Plan& plan) {
    if (a.feasible) return {};
    if (a.conflict.empty()) return "What is fixed already is over a limit: no load that moves can help.";
    std::string names;
    for (std::size_t k = 0; k < a.conflict.size(); ++k)
        names += (k == 0                       ? ""
                  : k + 1 == a.conflict.size() ? " and "
                                               : ", ") +
                 yr::name_of(plan, a.conflict[k]);
    if (a.conflict.size() == 1) return capital(names) + " fits on no channel or feed of this plan.";
    return capital(names) + " cannot all be placed; without any one of them the others can.";
}

std::string sentence(const Remedy& r, const Plan& plan, const Style& style) {
    const std::string name = yr::name_of(plan, r.id);
    const auto A = [&](double v) { return quantity(v, Dimension::current, style); };
    switch (r.kind) {
        case RemedyKind::raise_limit: {
            const std::string what = r.group.empty() ? name : name + " group " + r.group;
            return fmt::format("{} for {} instead of {}.", capital(what), A(r.to), A(r.from));
        }
        case RemedyKind::another_box:
            return fmt::format("A {}-channel box more beside {}.", number(r.to), name);
        case RemedyKind::unpin:
            return fmt::format("{} let go from where it was put by hand.", capital(name));
        case RemedyKind::join:
            return "Two solid-state channels joined for one load.";
    }
    return {};
}

std::string sentence(const RailGroup& g, const Plan& plan, const Style& style) {
    const bool always = same_when(g.when, Condition{});
    std::string text =
        fmt::format("{}: {} {}, {}.", capital(condition(g.when, &plan)), g.loads.size(),
                    g.loads.size() == 1 ? "load" : "loads", quantity(g.amps, Dimension::current, style));
    if (g.feeds.empty()) {
        text += always ? " No feed is always live." : " No feed is live just then: a relay is missing.";
    } else {
        std::string names;
        for (std::size_t k = 0; k < g.feeds.size(); ++k)
            names += (k == 0 ? "" : k + 1 == g.feeds.size() ? " and " : ", ") + yr::name_of(plan, g.feeds[k]);
        text += fmt::format(" {} {} live just then.", capital(names), g.feeds.size() == 1 ? "is" : "are");
    }
    if (g.astray.empty()) return text;
    std::string names;
    for (std::size_t k = 0; k < g.astray.size(); ++k)
        names += (k == 0 ? "" : k + 1 == g.astray.size() ? " and " : ", ") + yr::name_of(plan, g.astray[k]);
    return text + fmt::format(" Elsewhere {}: {}.", g.astray.size() == 1 ? "hangs" : "hang", names);
}

std::string condition(const Condition& c, const Plan* plan) {
    std::string text;
    const auto add = [&](const std::string& part) { text += (text.empty() ? "" : ", ") + part; };
    if (c.key == Key::accessory) add("key at accessory");
    if (c.key == Key::ignition) add("key at ignition");
    if (c.key == Key::crank) add("cranking");
    if (c.engine == Engine::running) add("engine running");
    if (c.engine == Engine::stopped) add("engine stopped");
    for (const std::string& s : c.switches) add(s + " on");
    for (const std::string& s : c.switches_off) add(s + " off");
    if (c.not_cranking) add("not while cranking");
    if (c.charging_above_V) add("charging above " + quantity(*c.charging_above_V, Dimension::voltage));
    for (const Id& id : c.circuits) add((plan ? yr::name_of(*plan, id) : id) + " running");
    if (!c.any_of.empty()) {
        std::string any;
        for (const Condition& one : c.any_of) any += (any.empty() ? "" : " or ") + condition(one, plan);
        add(c.any_of.size() > 1 ? "either " + any : any);
    }
    if (c.delay_s) add("after " + seconds(*c.delay_s));
    return text.empty() ? "always" : text;
}

}  // namespace yr::words
