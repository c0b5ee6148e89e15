#include "words/sentences.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "words/control_words.h"
#include "words/finding_rows.h"
#include "words/guard_words.h"

namespace yr::words {
std::string capital(std::string text) {
    if (!text.empty() && text[0] >= 'a' && text[0] <= 'z') text[0] = static_cast<char>(text[0] - 'a' + 'A');
    return text;
}

std::string terminal(const Plan& plan, const Terminal& t) {
    std::string text = yr::name_of(plan, t);
    if (t.post == Post::pos || t.post == Post::out) text += " +";
    if (t.post == Post::neg) text += " \xE2\x88\x92";
    return text;
}

namespace {

// The kind of fuse that a mend puts in.
std::string mended_kind(const Mend& m) {
    if (const auto* put = std::get_if<Put<Run>>(&m.edit))
        if (const Device* d = find(put->thing.devices, m.target)) return device_kind(d->fuse);
    return translated("high-interrupt fuse");
}

}  // namespace

namespace {

// ", 8 AWG" where the cable changes along with its fuse.
std::string with_size(const Mend& m) {
    return m.to ? ", " + short_size(*m.to) : std::string();
}

}  // namespace

namespace {

// Where a thing stands, in a word: a load's or battery's place, the run that a device sits in.
std::string where_it_is(const Plan& plan, const Id& id) {
    const auto place = [&](const Id& at) {
        const Place* p = find(plan.places, at);
        return p ? p->name : std::string();
    };
    if (const Load* l = find(plan.loads, id)) return place(l->place);
    if (const Point* p = find(plan.points, id)) return place(p->place);
    if (const Battery* b = find(plan.batteries, id)) return place(b->place);
    for (const Run& r : plan.runs) {
        if (r.id == id) return say("to {0}", yr::name_of(plan, r.to));
        if (find(r.devices, id)) return r.name;
    }
    return {};
}

}  // namespace

std::string told_apart_name(const Plan& plan, const Id& id) {
    std::string name = yr::name_of(plan, id);
    int same = 0;
    const auto count = [&](const auto& list) {
        for (const auto& t : list) same += t.name == name;
    };
    count(plan.loads), count(plan.points), count(plan.batteries), count(plan.sources), count(plan.inverters);
    for (const Run& r : plan.runs) {
        same += r.name == name;
        count(r.devices);
    }
    if (same < 2) return name;
    const std::string where = where_it_is(plan, id);
    return where.empty() || where == name ? name : say("{0} ({1})", name, where);
}

std::string would_help(const Finding& f) {
    if (f.mend || f.severity > Severity::fix) return {};
    switch (row_of(f.kind).group) {
        case FindingGroup::volts:
        case FindingGroup::cables:
        case FindingGroup::fuses:
        case FindingGroup::shorts:
            return translated(
                "No single change of one place clears it without making something else worse. The plan sized "
                "as a "
                "whole (Runs, Sized together) changes cables and fuses at once.");
        case FindingGroup::supply:
            return translated(
                "No single change of one cable or fuse clears it: more from the source, more battery, or "
                "less on at once; "
                "options side by side show what each brings.");
        case FindingGroup::boxes:
            return translated(
                "No free channel clears it: give channels out anew (Control), or a second box.");
        case FindingGroup::mains:
            return translated("A larger inverter or converter, or less behind it at once.");
        case FindingGroup::relays:
        case FindingGroup::liveness:
            return translated(
                "Its feed or its switch must be another one: Control shows what feeds it when.");
        case FindingGroup::day:
            return translated(
                "Day tells what would make it last: battery, panel, engine, or less of a load.");
        case FindingGroup::place:
            return translated("Place shows it over the vehicle: another way, or another spot.");
        case FindingGroup::fitting:
        case FindingGroup::assumptions:
            return translated("It is mended at the thing itself; its details hold what was said of it.");
    }
    return {};
}

static bool has_alternator(const Plan& plan) {
    return std::any_of(plan.sources.begin(), plan.sources.end(), [](const Source& s) {
        return s.kind == SourceKind::alternator || s.kind == SourceKind::stator;
    });
}

std::string mend_label(const Finding& f, const Plan& plan) {
    if (!f.mend) return {};
    const Mend& m = *f.mend;
    const std::string arrow = " \xE2\x86\x92 ";
    switch (m.kind) {
        case MendKind::none:
            return {};
        case MendKind::size:
        case MendKind::two_sizes: {
            // "12 → 8 AWG": the system is said once
            std::string from = short_size(*m.from), to = short_size(*m.to);
            for (const char* unit : {translated("\xE2\x80\x89"
                                                "AWG"),
                                     translated("\xE2\x80\x89mm\xC2\xB2")})
                if (from.ends_with(unit) && to.ends_with(unit))
                    from.resize(from.size() - std::string(unit).size());
            return from + arrow + to + (m.kind == MendKind::two_sizes ? translated(", both ways") : "");
        }
        case MendKind::side_by_side:
            return say("{0}{1}{2} side by side", number(m.from_A), arrow, number(m.to_A));
        case MendKind::fuse_rating:
            return number(m.from_A) + arrow + quantity(m.to_A, Dimension::current) + with_size(m);
        case MendKind::add_fuse:
            return translated("Add ") + quantity(m.to_A, Dimension::current) + translated(" fuse") +
                   with_size(m);
        case MendKind::move_fuse:
            return translated("Move to the source");
        case MendKind::move_load:
            return translated("Hang on ") + yr::name_of(plan, m.to_point);
        case MendKind::fuse_type:
            return capital(mended_kind(m));
        case MendKind::waveform:
            return translated("Pure sine");
        case MendKind::move_channel:
            return yr::name_of(plan, m.target) + arrow + translated("channel ") + std::to_string(m.channel);
        case MendKind::larger_converter:
            return quantity(m.from_A, Dimension::current) + arrow + quantity(m.to_A, Dimension::current);
        case MendKind::insulation:
            return say("Insulation for {0}", quantity(m.to_A, Dimension::temperature));
        case MendKind::suppress:
            return translated("Diode across the coil");
        case MendKind::add_signal:
            return translated("Add its signal");
        case MendKind::later_signal:
            return number(m.from_A) + arrow + number(m.to_A) + translated("\xE2\x80\x89s");
        case MendKind::own_return:
            return translated("Return of its own");
        case MendKind::lug:
            return translated("M") + number(m.from_A) + arrow + translated("M") + number(m.to_A) +
                   translated(" lug");
        case MendKind::stagger:
            return translated("One after another");
        case MendKind::second_pin:
            return translated("Pin ") + std::to_string(m.channel) + translated(" as well");
        case MendKind::more_capacity:
            return number(m.from_A) + arrow + quantity(m.to_A, Dimension::charge);
        case MendKind::more_sun:
            return quantity(m.to_A, Dimension::power) + translated(" of panel");
        case MendKind::more_engine:
            return say("{0} more of {1}", duration_h(m.to_A / 3600), yr::name_of(plan, m.target));
        case MendKind::less_draw:
            return quantity(m.from_A, Dimension::fraction) + arrow + quantity(m.to_A, Dimension::fraction) +
                   translated(" of the time");
        case MendKind::typed_length:
            return number(m.from_A) + arrow + quantity(m.to_A, Dimension::length);
        case MendKind::bore:
            return m.from_A > 0 ? number(m.from_A) + arrow + number(m.to_A) + translated("\xE2\x80\x89mm")
                                : say("Hole of {0} mm", number(m.to_A));
        case MendKind::guard_edge:
            return translated("Guard its edge");
        case MendKind::seal:
            return translated("Seal it");
        case MendKind::behind_master:
            return m.to_A > 0 ? say("All behind a master of {0}", quantity(m.to_A, Dimension::current))
                              : std::string(translated("All behind the master"));
    }
    return {};
}

std::string mend_name(const Finding& f, const Plan& plan) {
    if (!f.mend) return {};
    const Mend& m = *f.mend;
    const std::string what = yr::name_of(plan, m.target);
    switch (m.kind) {
        case MendKind::none:
            return {};
        case MendKind::size:
            return what + translated(" to ") + yr::name_of(*m.to);
        case MendKind::two_sizes:
            return what + translated(" and its partner thicker");
        case MendKind::side_by_side:
            return say("{0}: {1} cables side by side", what, number(m.to_A));
        case MendKind::fuse_rating:
            return what + translated(" to ") + number(m.to_A) + translated(" A") + with_size(m);
        case MendKind::add_fuse:
            return translated("fuse of ") + number(m.to_A) + translated(" A into ") + what + with_size(m);
        case MendKind::move_fuse:
            return what + translated(" to its source");
        case MendKind::move_load:
            return what + translated(" to ") + yr::name_of(plan, m.to_point);
        case MendKind::fuse_type:
            return what + translated(" as ") + mended_kind(m);
        case MendKind::waveform:
            return what + translated(" with pure sine");
        case MendKind::move_channel:
            return what + translated(" to ") + place_text(plan, m.to_point, m.channel);
        case MendKind::suppress:
            return what + translated(" with a diode across its coil");
        case MendKind::add_signal:
            return translated("a delayed signal for ") + what;
        case MendKind::later_signal:
            return say("{0} {1} s after the supply", what, number(m.to_A));
        case MendKind::own_return:
            return what + translated(" home to the battery");
        case MendKind::lug:
            return translated("M") + number(m.to_A) + translated(" lug on ") + what;
        case MendKind::stagger:
            return translated("starts one after another");
        case MendKind::second_pin:
            return what + translated(" through pin ") + std::to_string(m.channel) + translated(" as well");
        case MendKind::more_capacity:
            return what + translated(" of ") + quantity(m.to_A, Dimension::charge);
        case MendKind::more_sun:
            return what + translated(" of ") + quantity(m.to_A, Dimension::power);
        case MendKind::more_engine:
            return say("{0} more of {1} a day", duration_h(m.to_A / 3600), what);
        case MendKind::less_draw:
            return say("{0} on for {1} of the time", what, quantity(m.to_A, Dimension::fraction));
        case MendKind::typed_length:
            return say("{0} as long as its way", what);
        case MendKind::bore:
            return say("{0} of {1} mm", what, number(m.to_A));
        case MendKind::guard_edge:
            return say("{0} with its edge guarded", what);
        case MendKind::seal:
            return say("{0} sealed", what);
        case MendKind::larger_converter:
            return say("{0} of {1}, its fuse and cables with it", what, quantity(m.to_A, Dimension::current));
        case MendKind::insulation:
            return say("{0} with insulation for {1}", what, quantity(m.to_A, Dimension::temperature));
        case MendKind::behind_master:
            if (m.to_A > 0)
                return has_alternator(plan)
                           ? say("everything behind {0}, one of {1}, the alternator off by its second pole",
                                 what, quantity(m.to_A, Dimension::current))
                           : say("everything behind {0}, one of {1}", what,
                                 quantity(m.to_A, Dimension::current));
            return has_alternator(plan)
                       ? say("everything behind {0}, the alternator off by its second pole", what)
                       : say("everything behind {0}", what);
    }
    return {};
}

const char* mark(Severity severity) {
    switch (severity) {
        case Severity::stop:
            return "\xE2\x96\xA0";
        case Severity::fix:
            return "\xE2\x96\xB2";
        case Severity::check:
            return "\xE2\x97\x8B";
        case Severity::note:
            return "\xC2\xB7";
    }
    return "";
}

const char* name_of(Severity severity) {
    switch (severity) {
        case Severity::stop:
            return translated("stop");
        case Severity::fix:
            return translated("fix");
        case Severity::check:
            return translated("check");
        case Severity::note:
            return translated("note");
    }
    return "";
}

std::string no_answer(const State& state) {
    return say("{0} could not be solved: nothing follows from it.", capital(state.name));
}

std::string assumption_text(const AssumptionUse& use, const Plan& plan) {
    return assumption_text(use, yr::name_of(plan, use.id));
}

std::string assumption_text(const AssumptionUse& use, const std::string& name) {
    std::string what = use.key, unit;
    static constexpr std::string_view units[] = {"A", "V", "W", "ohm", "mohm", "m", "C", "Ah", "rpm", "awg"};
    if (const auto at = what.rfind('_'); at != std::string::npos)
        if (std::find(std::begin(units), std::end(units), what.substr(at + 1)) != std::end(units))
            unit = what.substr(at + 1), what.resize(at);
    if (use.key == "joint_mohm_mm2")
        what = translated("each joint"),
        unit = "mohm";  // the key's rule, already divided by the copper
    for (char& ch : what)
        if (ch == '_') ch = ' ';
    if (unit == "mohm") unit = translated("m\xCE\xA9");
    if (unit == "ohm") unit = "\xCE\xA9";
    const std::string amount = number(use.value) + (unit.empty() ? "" : " " + unit);
    return say("{0} of {1}: {2} assumed ({3})", what, name, amount, assumption(use.key).source);
}

const char* caution() {
    return translated(
        "This program assists a competent installer. Local codes, the vehicle maker's instructions and a "
        "licensed "
        "practitioner come first.\n"
        "A battery delivers thousands of amps into a spanner: negative off first and tied back, rings "
        "off, tools insulated.\n"
        "Lead-acid batteries give off hydrogen: no sparks, fresh air. Lithium batteries need their own "
        "charger limits, "
        "low-temperature cut-off and a high-interrupt fuse.\n"
        "Inverters make lethal mains. Airbags, high-voltage traction systems and structural drilling are "
        "for qualified hands.\n"
        "Values marked as assumed, or as taken from memory of a standard, must be checked against the "
        "part in hand and "
        "the document itself.");
}

}  // namespace yr::words
