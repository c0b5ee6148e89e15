#include "words/supply_words.h"

#include <fmt/format.h>

#include "catalog/assumptions.h"

namespace yr::words {
namespace {

struct Speech {
    const Finding& f;
    const Plan& plan;
    const Style& style;

    [[nodiscard]] std::string who() const { return capital(yr::name_of(plan, f.id)); }
    [[nodiscard]] std::string other() const { return yr::name_of(plan, f.other); }
    [[nodiscard]] std::string state() const {
        const State* s = find(plan.states, f.state);
        return s ? s->name : std::string("no state");
    }
    [[nodiscard]] std::string A(double v) const { return quantity(v, Dimension::current, style); }
    [[nodiscard]] std::string V(double v) const { return quantity(v, Dimension::voltage, style); }
    [[nodiscard]] std::string VA(double v) const {
        return number(v, 4, style.decimal_comma) + "\xE2\x80\x89VA";
    }
    [[nodiscard]] std::string pc(double v) const { return quantity(v, Dimension::fraction, style); }
};

std::string battery_sentence(const Speech& s) {
    const Finding& f = s.f;
    switch (f.kind) {
        case FindingKind::no_charge_left:
            return fmt::format("In {} {} gives all it has: {} gets {} of the {} it would take.", s.state(),
                               s.other(), yr::name_of(s.plan, f.id), s.A(f.value), s.A(f.limit));
        case FindingKind::never_charged:
            return fmt::format("{} is charged in no state of this plan.", s.who());
        case FindingKind::charged_too_high:
            return fmt::format("{} is charged at {} in {}; it bears {}.", s.who(), s.V(f.value), s.state(),
                               s.V(f.limit));
        case FindingKind::charged_too_cold:
            return fmt::format(
                "{} stands at {} in {} with charging volts on it: lithium must not be charged below "
                "freezing.",
                s.who(), quantity(f.value, Dimension::temperature, s.style), s.state());
        case FindingKind::battery_cranks:
            return fmt::format("{} gives {} to the starter in {}: its joiner is closed while cranking.",
                               s.who(), s.A(f.value), s.state());
        case FindingKind::will_not_crank:
            return fmt::format("{} falls to {} while cranking in {}; {} are needed.", s.who(), s.V(f.value),
                               s.state(), s.V(f.limit));
        case FindingKind::cranks_for:
            return fmt::format("Parked in {}, {} cranks the engine for {} more: {} {}.", s.state(),
                               yr::name_of(s.plan, f.id), duration_h(f.hours.value_or(0)),
                               s.A(f.average.value_or(f.value)), f.average ? "on average" : "all the time");
        default:
            return {};
    }
}

std::string device_sentence(const Speech& s) {
    const Finding& f = s.f;
    switch (f.kind) {
        case FindingKind::chatters:
            return fmt::format("{} chatters in {}: closed it starves itself, open it is called again.",
                               s.who(), s.state());
        case FindingKind::stands_as_it_came:
            return fmt::format(
                "{} may stand open or closed in {}: its {} lie between its thresholds, so it stays as it "
                "came.",
                s.who(), s.state(), s.V(f.value));
        case FindingKind::alive_with_master_open:
            return fmt::format("{} open in {}: {} {} still alive, {} among them.", s.who(), s.state(),
                               number(f.value), f.value > 1 ? "things are" : "thing is", s.other());
        case FindingKind::relay_defeated:
            return fmt::format(
                "{} closes at {}, but {} may be regulated down to {}: it will let go while driving.", s.who(),
                s.V(f.limit), s.other(), s.V(f.value));
        case FindingKind::interrupt_low:
            return fmt::format("{}: a short asks {} of its fuse, which can cut {}.", s.who(), s.A(f.value),
                               s.A(f.limit));
        case FindingKind::start_up:
            if (f.other.empty())
                return fmt::format("If everything in {} starts at once, {} falls to {}; it works from {}.",
                                   s.state(), yr::name_of(s.plan, f.id), s.V(f.value), s.V(f.limit));
            return fmt::format("If everything in {} starts at once, {} carries {}: its fuse may open.",
                               s.state(), yr::name_of(s.plan, f.id), s.A(f.value));
        default:
            return {};
    }
}

}  // namespace

std::string supply_sentence(const Finding& f, const Plan& plan, const Style& style) {
    const Speech s{f, plan, style};
    switch (f.kind) {
        case FindingKind::shares_unequally:
            return fmt::format("{} carries {} where its fair share beside {} is {}.", s.who(), s.pc(f.value),
                               s.other(), s.pc(f.limit));
        case FindingKind::volts_outside:
            return f.value < f.limit ? fmt::format("{} gets {} in {}; it works from {}.", s.who(),
                                                   s.V(f.value), s.state(), s.V(f.limit))
                                     : fmt::format("{} gets {} in {}; it bears {}.", s.who(), s.V(f.value),
                                                   s.state(), s.V(f.limit));
        case FindingKind::inverter_over:
            return fmt::format("{} is asked for {} in {}; it gives {} for long.", s.who(), s.VA(f.value),
                               s.state(), s.VA(f.limit));
        case FindingKind::inverter_surge:
            return fmt::format("{} must start {} in {}; it gives {} for a moment.", s.who(), s.VA(f.value),
                               s.state(), s.VA(f.limit));
        case FindingKind::converter_surge:
            return fmt::format("{} must start {} in {}; it gives {} for a moment.", s.who(), s.A(f.value),
                               s.state(), s.A(f.limit));
        case FindingKind::modified_sine:
            return fmt::format("{} needs a pure sine; {} gives a modified one.", s.who(), s.other());
        case FindingKind::stays_charged:
            return fmt::format(
                "Lines of {} stay charged for {} s after switch-off: wait before touching or closing "
                "again.",
                yr::name_of(plan, f.id), number(f.value));
        default:
            break;
    }
    const std::string text = battery_sentence(s);
    return text.empty() ? device_sentence(s) : text;
}

Rule supply_rule(const Finding& f, const Plan& plan) {
    switch (f.kind) {
        case FindingKind::no_charge_left:
            return {"balance", "Kirchhoff's current law on this state; acceptance: common practice"};
        case FindingKind::never_charged:
        case FindingKind::battery_cranks:
            return {"second battery", "common practice, no source"};
        case FindingKind::charged_too_high:
        case FindingKind::charged_too_cold: {
            const Battery* b = find(plan.batteries, f.id);
            return {"charging", b ? chemistry_data(b->chemistry).more : std::string()};
        }
        case FindingKind::shares_unequally:
            return {"sharing", "Kirchhoff's laws: paths share by their resistances"};
        case FindingKind::will_not_crank:
            return {"cranking", assumption("crank_least_V").source};
        case FindingKind::cranks_for:
            return {"parked", "charge until cranking fails; Peukert above the 20 h rate, flat below it"};
        case FindingKind::volts_outside: {
            const Load* l = find(plan.loads, f.id);
            if (l && l->supply_code != SupplyCode::none && !l->least_V)
                return {"ISO 16750-2", "ISO 16750-2 supply range of its code (from memory)"};
            return {"own window", "the load's own window of volts"};
        }
        case FindingKind::inverter_over:
        case FindingKind::inverter_surge:
            return {"inverter", "the inverter's own rating"};
        case FindingKind::converter_surge:
            return {"converter", "the converter's own rating"};
        case FindingKind::modified_sine:
            return {"waveform", "motors, compressors and chargers ask for pure sine, common practice"};
        case FindingKind::stays_charged:
            return {"caution", "the converter's own instructions"};
        case FindingKind::interrupt_low: {
            const Run* r = find(plan.runs, f.id);
            const Device* d = r ? find(r->devices, f.other) : nullptr;
            return {"interrupting", d ? fuse_kind(d->fuse).source : std::string()};
        }
        case FindingKind::start_up:
            return {"start-up", "ISO 8820: at 200 % a fuse may open within a second (from memory)"};
        case FindingKind::chatters:
        case FindingKind::stands_as_it_came:
            return {"relay memory", "its own thresholds, solved for every position"};
        case FindingKind::alive_with_master_open:
            return {"master open", "the plan solved with the master open"};
        case FindingKind::relay_defeated:
            return {"sensing relay", "common practice, no source"};
        default:
            return {};
    }
}

std::vector<std::string> supply_reasons(const Finding& f, const Plan& plan, const Style& style) {
    const Speech s{f, plan, style};
    switch (f.kind) {
        case FindingKind::cranks_for:
            return {fmt::format("Solved for falling charge: at {} the posts fall to {} V while cranking.",
                                s.pc(f.limit), number(assumption("crank_least_V").value)),
                    fmt::format("From its charge in {} down to there at {}: {}", s.state(),
                                s.A(f.average.value_or(f.value)), duration_h(f.hours.value_or(0)))};
        case FindingKind::interrupt_low:
            return {"New, warm and full: open-circuit volts / (R0 + fuse) = " + s.A(f.value),
                    "A fuse asked to cut more than it can burns on as an arc."};
        case FindingKind::alive_with_master_open:
            return {
                "Every device marked as master is opened, the engine keeps turning, and the plan is solved "
                "again.",
                "What hangs on the battery before the master, or on a turning alternator, is still fed."};
        case FindingKind::chatters:
            return {fmt::format(
                "It opens below {}; with it closed it measures less, with it open enough to close.",
                s.V(f.limit))};
        case FindingKind::inverter_over:
        case FindingKind::inverter_surge:
            return {"Sum of what is on behind it in this state; for a surge with the hardest start on top."};
        case FindingKind::converter_surge:
            return {"What runs on its rail plus the hardest start; no battery is there to help."};
        case FindingKind::start_up:
            return {"All loads of this state that have a start are solved at their starting amps together.",
                    "Start them one after another, or give the feed more."};
        case FindingKind::shares_unequally:
            return {
                "The easier path carries more: its own resistance against the other's decides, not the "
                "count."};
        case FindingKind::modified_sine:
            return {"Motors run hot and hum on it, chargers and speed controls may fail."};
        default:
            return {};
    }
}

}  // namespace yr::words
