#include "words/sentences.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "words/control_words.h"
#include "words/guard_words.h"
#include "words/supply_words.h"

namespace yr::words {
namespace {

std::string share(double part_V, const Plan& plan, const Style& style) {
    return quantity(part_V / plan.vehicle.nominal_V, Dimension::fraction, style);
}

std::string in_state(const Finding& f, const Plan& plan) {
    const State* s = find(plan.states, f.state);
    return s ? s->name : std::string();
}

std::string named(const Plan& plan, const std::string& id) {
    return capital(yr::name_of(plan, id));
}

bool in_state_is_parked(const Finding& f, const Plan& plan) {
    const State* s = find(plan.states, f.state);
    return s && s->key == Key::off;
}

std::string amps(double value, const Style& style) {
    return quantity(value, Dimension::current, style);
}

}  // namespace

std::string capital(std::string text) {
    if (!text.empty() && text[0] >= 'a' && text[0] <= 'z') text[0] = static_cast<char>(text[0] - 'a' + 'A');
    return text;
}

std::string terminal(const Plan& plan, const Terminal& t) {
    std::string text = yr::name_of(plan, t);
    if (t.ends_with(".pos") || t.ends_with(".out")) text += " +";
    if (t.ends_with(".neg")) text += " \xE2\x88\x92";
    return text;
}

std::string sentence(const Error& e) {
    std::string where = e.place.empty() ? "" : e.place + ": ";
    const std::string given = e.given.empty() ? "nothing" : "\xE2\x80\x9C" + e.given + "\xE2\x80\x9D";
    switch (e.code) {
        case ErrorCode::empty:
            return fmt::format("{}nothing stands here; {} is needed.", where, e.wanted);
        case ErrorCode::not_a_number:
            return fmt::format("{}{} holds no number; {} is needed.", where, given, e.wanted);
        case ErrorCode::unknown_unit:
            return fmt::format("{}the unit {} is not known; {} is needed.", where, given, e.wanted);
        case ErrorCode::wrong_dimension:
            return fmt::format("{}{} is of another kind; {} is needed.", where, given, e.wanted);
        case ErrorCode::out_of_range:
            return fmt::format("{}{} cannot be; it takes {}.", where, given, e.wanted);
        case ErrorCode::unknown_size:
            return fmt::format("{}no table holds the size {}; it takes {}.", where, given, e.wanted);
        case ErrorCode::unknown_name:
            return fmt::format("{}{} is not known here; it takes {}.", where, given, e.wanted);
        case ErrorCode::bad_json:
            return fmt::format("{}the file breaks off or is damaged here: this is not JSON.", where);
        case ErrorCode::not_a_plan:
            return fmt::format("{}this is not a Your Rail plan; its {} is not what a plan has.", where,
                               e.place.empty() ? "content" : "format mark");
        case ErrorCode::newer_version:
            return fmt::format("{}the plan was written by a later version ({}); this program reads up to {}.",
                               where, e.given, e.wanted);
        case ErrorCode::schema:
            return fmt::format("{}{} does not fit the plan format: {}", where,
                               e.given.empty() ? "this" : given, e.wanted);
        case ErrorCode::duplicate_id:
            return fmt::format("{}the id {} is used twice; each thing takes one of its own.", where, given);
        case ErrorCode::missing_reference:
            return fmt::format("{}{} is not in this plan; it takes {}.", where, given, e.wanted);
        case ErrorCode::unreadable_file:
            return fmt::format("{} cannot be opened or read.", e.place);
        case ErrorCode::unwritable_file:
            return fmt::format("{} cannot be written; the plan is still open and unsaved.", e.place);
    }
    return where;
}

std::string sentence(const Finding& f, const Plan& plan, const Style& style) {
    const std::string who = named(plan, f.id);
    const std::string state = in_state(f, plan);
    switch (f.kind) {
        case FindingKind::drop_over_limit: {
            std::string text = fmt::format(
                "{} loses {} ({}) where {} is allowed, at worst {}.", who, share(f.value, plan, style),
                quantity(f.value, Dimension::voltage, style), share(f.limit, plan, style), state);
            if (!f.biggest_run.empty())
                text += fmt::format(" {} alone takes {}.", named(plan, f.biggest_run),
                                    quantity(f.biggest_V, Dimension::voltage, style));
            return text;
        }
        case FindingKind::no_operating_point:
            return fmt::format(
                "{} cannot get its power in {}: the supply can serve {} of it, then the voltage collapses.",
                who, state, quantity(f.value, Dimension::fraction, style));
        case FindingKind::load_dead:
            return fmt::format("{} should run in {} but nothing feeds it then.", who, state);
        case FindingKind::constant_on_key_rail:
            return fmt::format("{} must always run, but its feed dies with the key: it is dead in {}.", who,
                               state);
        case FindingKind::cable_over_ampacity:
            return fmt::format("{} carries {} where {} is allowed, in {}.", who, amps(f.value, style),
                               amps(f.limit, style), state);
        case FindingKind::cable_over_temperature:
            return fmt::format("{} heats to {}, over the {} of its insulation, in {}.", who,
                               quantity(f.value, Dimension::temperature, style),
                               quantity(f.limit, Dimension::temperature, style), state);
        case FindingKind::fuse_above_cable:
            return fmt::format(
                "{}: the {} fuse is larger than the {} its cable stands. A short burns the cable first.", who,
                amps(f.value, style), amps(f.limit, style));
        case FindingKind::fuse_missing: {
            const std::string end = terminal(plan, f.other);
            if (f.value > 0)
                return fmt::format(
                    "{}: no fuse at {}. The {} fuse before it is larger than the {} this cable stands.", who,
                    end, amps(f.value, style), amps(f.limit, style));
            return fmt::format("{}: no fuse at {}. A short is fed by the battery with nothing to stop it.",
                               who, end);
        }
        case FindingKind::fuse_far:
            return fmt::format(
                "{}: the fuse sits {} from its source where {} is allowed. The cable before it is bare of "
                "protection.",
                who, quantity(f.value, Dimension::length, style),
                quantity(f.limit, Dimension::length, style));
        case FindingKind::supply_short:
            return fmt::format("In {} the {} loses {} with the engine running: half empty in {}.", state,
                               yr::name_of(plan, f.id), amps(f.value, style),
                               duration_h(f.hours.value_or(0)));
        case FindingKind::battery_drains:
            return fmt::format("In {} the {} gives {}{}: half empty in {}.", state, yr::name_of(plan, f.id),
                               amps(f.value, style), on_average(f, style), duration_h(f.hours.value_or(0)));
        case FindingKind::source_at_limit:
            return fmt::format("{} gives all it can in {}: {}.", who, state, amps(f.value, style));
        case FindingKind::converter_dead:
            return fmt::format("{} should work in {} but its input is dead.", who, state);
        case FindingKind::return_thinner:
            return fmt::format(
                "{} is thinner ({}) than the supply of the same load ({}): the thick side gains nothing.",
                who, quantity(f.value, Dimension::area, style), quantity(f.limit, Dimension::area, style));
        case FindingKind::rests_on_assumption:
            if (f.other == "length")
                return fmt::format("{} has no stated length or size; the result rests on an assumption.",
                                   who);
            return fmt::format("{} ground bonds and body joints are assumed, {} among them. Measure them.",
                               number(f.value), yr::name_of(plan, f.id));
        default:
            break;
    }
    for (auto text : {supply_sentence(f, plan, style), control_sentence(f, plan, style)})
        if (!text.empty()) return text;
    return guard_sentence(f, plan, style);
}

std::string on_average(const Finding& f, const Style& style) {
    return f.average ? fmt::format(" ({} on average)", amps(*f.average, style)) : std::string();
}

namespace {

// The kind of fuse that a mend puts in.
std::string mended_kind(const Mend& m) {
    if (const auto* put = std::get_if<Put<Run>>(&m.edit))
        if (const Device* d = find(put->thing.devices, m.target)) return device_kind(d->fuse);
    return "high-interrupt fuse";
}

}  // namespace

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
            for (const char* unit : {"\xE2\x80\x89"
                                     "AWG",
                                     "\xE2\x80\x89mm\xC2\xB2"})
                if (from.ends_with(unit) && to.ends_with(unit))
                    from.resize(from.size() - std::string(unit).size());
            return from + arrow + to + (m.kind == MendKind::two_sizes ? ", both ways" : "");
        }
        case MendKind::fuse_rating:
            return number(m.from_A) + arrow + quantity(m.to_A, Dimension::current);
        case MendKind::add_fuse:
            return "Add " + quantity(m.to_A, Dimension::current) + " fuse";
        case MendKind::move_fuse:
            return "Move to the source";
        case MendKind::move_load:
            return "Hang on " + yr::name_of(plan, m.to_point);
        case MendKind::fuse_type:
            return capital(mended_kind(m));
        case MendKind::waveform:
            return "Pure sine";
        case MendKind::move_channel:
            return yr::name_of(plan, m.target) + arrow + "channel " + std::to_string(m.channel);
        case MendKind::suppress:
            return "Diode across the coil";
        case MendKind::add_signal:
            return "Add its signal";
        case MendKind::own_return:
            return "Return of its own";
        case MendKind::lug:
            return "M" + number(m.from_A) + arrow + "M" + number(m.to_A) + " lug";
        case MendKind::stagger:
            return "One after another";
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
            return what + " to " + yr::name_of(*m.to);
        case MendKind::two_sizes:
            return what + " and its partner thicker";
        case MendKind::fuse_rating:
            return what + " to " + number(m.to_A) + " A";
        case MendKind::add_fuse:
            return "fuse of " + number(m.to_A) + " A into " + what;
        case MendKind::move_fuse:
            return what + " to its source";
        case MendKind::move_load:
            return what + " to " + yr::name_of(plan, m.to_point);
        case MendKind::fuse_type:
            return what + " as " + mended_kind(m);
        case MendKind::waveform:
            return what + " with pure sine";
        case MendKind::move_channel:
            return what + " to " + place_text(plan, m.to_point, m.channel);
        case MendKind::suppress:
            return what + " with a diode across its coil";
        case MendKind::add_signal:
            return "a delayed signal for " + what;
        case MendKind::own_return:
            return what + " home to the battery";
        case MendKind::lug:
            return "M" + number(m.to_A) + " lug on " + what;
        case MendKind::stagger:
            return "starts one after another";
    }
    return {};
}

Rule rule_of(const Finding& f, const Plan& plan) {
    switch (f.kind) {
        case FindingKind::drop_over_limit: {
            const Load* load = find(plan.loads, f.id);
            const bool critical = load && load->critical;
            if (load && load->drop_limit) return {"drop, own limit", "the load's own limit"};
            return {critical ? "drop, critical" : "drop",
                    assumption(critical ? "load_drop_critical" : "load_drop_other").source};
        }
        case FindingKind::no_operating_point:
            return {"constant power", "circuit theory: V\xC2\xB2 < 4\xC2\xB7R\xC2\xB7P has no solution"};
        case FindingKind::load_dead:
            return {"liveness", "the plan's own words on when it must run"};
        case FindingKind::constant_on_key_rail:
            return {"key rail", "common practice, no source"};
        case FindingKind::cable_over_ampacity:
        case FindingKind::fuse_above_cable:
            return {plan.policy.ampacity_table == AmpacityTable::abyc ? "ABYC E-11" : "ISO 10133",
                    plan.policy.ampacity_table == AmpacityTable::abyc
                        ? "ABYC E-11, ampacity and overcurrent protection (from memory)"
                        : "ISO 10133 annex, ampacity (from memory)"};
        case FindingKind::cable_over_temperature:
            return {"heat balance", "Churchill and Chu 1975 and radiation (from memory)"};
        case FindingKind::fuse_missing:
            return {"fuse at source",
                    "ABYC E-11, overcurrent protection at the source of power (from memory)"};
        case FindingKind::fuse_far:
            return {"fuse distance", assumption("fuse_distance_road_m").source};
        case FindingKind::supply_short:
            return {"balance", "Kirchhoff's current law on this state"};
        case FindingKind::battery_drains:
            return {in_state_is_parked(f, plan) ? "parked" : "discharge",
                    "charge to half; Peukert above the 20 h rate, flat below it"};
        case FindingKind::source_at_limit:
            return {"balance", "ISO 8854 output points and temperature derating (from memory)"};
        case FindingKind::converter_dead:
            return {"liveness", "the plan's own words on when it must work"};
        case FindingKind::return_thinner:
            return {"return", "common practice, no source"};
        case FindingKind::rests_on_assumption:
            return {"assumption", "common practice, no source"};
        default:
            break;
    }
    for (Rule rule : {supply_rule(f, plan), control_rule(f, plan)})
        if (!rule.label.empty()) return rule;
    return guard_rule(f, plan);
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
            return "stop";
        case Severity::fix:
            return "fix";
        case Severity::check:
            return "check";
        case Severity::note:
            return "note";
    }
    return "";
}

std::string assumption_text(const AssumptionUse& use, const Plan& plan) {
    std::string what = use.key, unit;
    static constexpr std::string_view units[] = {"A", "V", "W", "ohm", "mohm", "m", "C", "Ah", "rpm", "awg"};
    if (const auto at = what.rfind('_'); at != std::string::npos)
        if (std::find(std::begin(units), std::end(units), what.substr(at + 1)) != std::end(units))
            unit = what.substr(at + 1), what.resize(at);
    if (use.key == "joint_mohm_mm2")
        what = "each joint", unit = "mohm";  // the key's rule, already divided by the copper
    for (char& ch : what)
        if (ch == '_') ch = ' ';
    if (unit == "mohm") unit = "m\xCE\xA9";
    if (unit == "ohm") unit = "\xCE\xA9";
    const std::string amount = number(use.value) + (unit.empty() ? "" : " " + unit);
    return fmt::format("{} of {}: {} assumed ({})", what, yr::name_of(plan, use.id), amount,
                       assumption(use.key).source);
}

const char* caution() {
    return "This program assists a competent installer. Local codes, the vehicle maker's instructions and a "
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
           "the document itself.";
}

}  // namespace yr::words
