// Findings about batteries, sources and mains: one row a kind.
#include "catalog/assumptions.h"
#include "catalog/batteries.h"
#include "words/finding_rows.h"

namespace yr::words {

std::string Speech::hours_to(const std::string& reached, const char* already) const {
    if (f.lasts && !f.ends.empty()) return say("{0} opens before it is: it lasts", yr::name_of(plan, f.ends));
    if (f.lasts)
        return f.average && *f.average <= 0 ? translated("on average it is charged: it lasts")
                                            : translated("it lasts");
    if (!f.hours || *f.hours <= 0) return already;
    if (f.average && f.peak_hours)
        return say("{0} in {1} with all of it on, in {2} at {3} on average", reached,
                   duration_h(*f.peak_hours), duration_h(*f.hours), A(*f.average));
    if (f.average) return say("{0} in {1} at {2} on average", reached, duration_h(*f.hours), A(*f.average));
    return say("{0} in {1}", reached, duration_h(*f.hours));
}

std::string Speech::half_empty(const Id& of_battery) const {
    const State* state = find(plan.states, f.state);
    const Battery* battery = find(plan.batteries, of_battery);
    const double assumed = assumption("battery_charge").value;
    const double charge = state && state->charge       ? *state->charge
                          : battery && battery->charge ? *battery->charge
                                                       : assumed;
    return say("from {0} half empty", pc(charge));
}

std::string Speech::hours_to_half() const {
    if (!f.parts.empty() && f.hours && *f.hours > 0)
        return say("{0} opens on the way, then it gives {1}; {2} in {3}", yr::name_of(plan, f.parts),
                   A(f.then_A), half_empty(f.id), duration_h(*f.hours));
    return hours_to(half_empty(f.id), translated("below half already"));
}

namespace {

Rule inverter_rule(const Speech&) {
    return {translated("inverter"), translated("the inverter's own rating")};
}

std::vector<std::string> inverter_reasons(const Speech&) {
    return {
        translated("Sum of what is on behind it in this state; for a surge with the hardest start on top.")};
}

Rule charging_rule(const Speech& s) {
    const Battery* b = find(s.plan.batteries, s.f.id);
    return {translated("charging"), b ? chemistry_data(b->chemistry).more : std::string()};
}

const FindingRow kSupplyRows[] = {
    {.kind = FindingKind::supply_short,
     .name = "supply_short",
     .group = FindingGroup::supply,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("In {0} the {1} gives {2} with the engine running: {3}.", s.state(),
                    yr::name_of(s.plan, s.f.id), s.A(s.f.value), s.hours_to_half());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("balance"), translated("Kirchhoff's current law on this state")};
     },
     .reasons = nullptr,
     .why = ValueKind::battery_hours},
    {.kind = FindingKind::battery_drains,
     .name = "battery_drains",
     .group = FindingGroup::supply,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("In {0} the {1} gives {2}: {3}.", s.state(), yr::name_of(s.plan, s.f.id), s.A(s.f.value),
                    s.hours_to_half());
     },
     .rule = [](const Speech& s) -> Rule {
         return {s.parked() ? translated("parked") : translated("discharge"),
                 translated("charge to half; Peukert above the 20 h rate, flat below it")};
     },
     .reasons = nullptr,
     .why = ValueKind::battery_hours},
    {.kind = FindingKind::source_at_limit,
     .name = "source_at_limit",
     .group = FindingGroup::supply,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} gives all it can in {1}: {2}.", s.who(), s.state(), s.A(s.f.value));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("balance"),
                 translated("ISO 8854 output points and temperature derating (from memory)")};
     },
     .reasons = nullptr,
     .why = ValueKind::source_limit},
    {.kind = FindingKind::idle_elsewhere,
     .name = "idle_elsewhere",
     .group = FindingGroup::supply,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "{0} is stated with {1} at {2} of its shaft; {3} turns it at another speed, where it gives "
             "{4} cold. A curve of its own says it better.",
             s.who(), s.A(s.f.limit),
             quantity(assumption("alternator_low_rpm").value, Dimension::speed, s.style), s.state(),
             s.A(s.f.value));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("amps at idle"), translated("ISO 8854 output points (from memory)")};
     },
     .reasons = nullptr,
     .why = ValueKind::source_limit},
    {.kind = FindingKind::management_opens,
     .name = "management_opens",
     .group = FindingGroup::supply,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         const std::string battery = yr::name_of(s.plan, s.f.id);
         if (!s.f.other.empty())
             return say(
                 "{0} may ask {1} of {2}, as it is rated; its own management opens at {3}: then all it feeds "
                 "is "
                 "dark.",
                 capital(s.other()), s.A(s.f.value), battery, s.A(s.f.limit));
         return say(
             "In {0} the {1} is asked for {2}; its own management opens at {3}: then all it feeds is dark.",
             s.state(), battery, s.A(s.f.value), s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("management"), translated("the battery's own limit, as the plan states it")};
     },
     .reasons = nullptr,
     .why = ValueKind::battery_current},
    {.kind = FindingKind::no_charge_left,
     .name = "no_charge_left",
     .group = FindingGroup::supply,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("In {0} {1} gives all it has: {2} gets {3} of the {4} it would take.", s.state(),
                    s.other(), yr::name_of(s.plan, s.f.id), s.A(s.f.value), s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("balance"),
                 translated("Kirchhoff's current law on this state; acceptance: common practice")};
     },
     .reasons = nullptr,
     .why = ValueKind::battery_current},
    {.kind = FindingKind::wrong_way_round,
     .name = "wrong_way_round",
     .group = FindingGroup::supply,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} is joined the wrong way round to {1}: {2} flow in {3}.", s.who(), s.other(),
                    s.A(s.f.value), s.state());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("poles"), translated("Kirchhoff's laws: two batteries head to tail are a short")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::volts_fight,
     .name = "volts_fight",
     .group = FindingGroup::supply,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} holds {1} on the rail of {2}, which stands at {3} by itself, in {4}.",
                    capital(s.other()), s.V(s.f.value), yr::name_of(s.plan, s.f.id), s.V(s.f.limit),
                    s.state());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("volts"), translated("one rail has one voltage; common practice, no source")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::converter_starved,
     .name = "converter_starved",
     .group = FindingGroup::supply,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} pulls its own feed down in {1}: no volts are left at which it gets its power.",
                    s.who(), s.state());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("constant power"), translated("constant power needs V² of 4 R P at least")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::converter_over,
     .name = "converter_over",
     .group = FindingGroup::supply,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} gives {1} at most and is asked for {2} in {3}: its rail falls.", s.who(),
                    s.A(s.f.limit), s.A(s.f.value), s.state());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("balance"), translated("what it is rated for, by the plan")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::never_charged,
     .name = "never_charged",
     .group = FindingGroup::supply,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} is charged in no state of this plan.", s.who());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("second battery"), translated("common practice, no source")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::charged_too_high,
     .name = "charged_too_high",
     .group = FindingGroup::supply,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} is charged at {1} in {2}; it bears {3}.", s.who(), s.V(s.f.value), s.state(),
                    s.V(s.f.limit));
     },
     .rule = charging_rule,
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::charged_too_cold,
     .name = "charged_too_cold",
     .group = FindingGroup::supply,
     .value = Dimension::temperature,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "{0} stands at {1} in {2} with charging volts on it: lithium must not be charged below "
             "freezing.",
             s.who(), quantity(s.f.value, Dimension::temperature, s.style), s.state());
     },
     .rule = charging_rule,
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::battery_cranks,
     .name = "battery_cranks",
     .group = FindingGroup::supply,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} gives {1} to the starter in {2}: its joiner is closed while cranking.", s.who(),
                    s.A(s.f.value), s.state());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("second battery"), translated("common practice, no source")};
     },
     .reasons = nullptr,
     .why = ValueKind::battery_current},
    {.kind = FindingKind::shares_unequally,
     .name = "shares_unequally",
     .group = FindingGroup::supply,
     .value = Dimension::fraction,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} carries {1} where its fair share beside {2} is {3}.", s.who(), s.pc(s.f.value),
                    s.other(), s.pc(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("sharing"), translated("Kirchhoff's laws: paths share by their resistances")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated(
             "The easier path carries more: its own resistance against the other's decides, not the "
             "count.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::cutoff_deep,
     .name = "cutoff_deep",
     .group = FindingGroup::supply,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} opens at {1} only: below {2} {3} is nearly empty.", s.who(),
                    s.value_in(Dimension::voltage), s.V(s.f.limit), s.other());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("cut-off"), assumption("cutoff_open_V").source};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::will_not_crank,
     .name = "will_not_crank",
     .group = FindingGroup::supply,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} falls to {1} while cranking in {2}; {3} are needed.", s.who(), s.V(s.f.value),
                    s.state(), s.V(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("cranking"), assumption("crank_least_V").source};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::cranks_for,
     .name = "cranks_for",
     .group = FindingGroup::supply,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         if (s.f.lasts)
             return say("In {0} {1} still cranks the engine however long it stands: {2}.", s.state(),
                        yr::name_of(s.plan, s.f.id),
                        s.f.ends.empty() ? std::string(translated("nothing draws that low"))
                                         : say("{0} opens first", yr::name_of(s.plan, s.f.ends)));
         return say("In {0} {1} cranks the engine for {2} more: {3} {4}.", s.state(),
                    yr::name_of(s.plan, s.f.id), duration_h(s.f.hours.value_or(0)),
                    s.A(s.f.average.value_or(s.f.value)),
                    s.f.average ? translated("on average") : translated("all the time"));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("parked"),
                 translated("charge until cranking fails; Peukert above the 20 h rate, flat below it")};
     },
     .reasons = [](const Speech& s) -> std::vector<std::string> {
         return {say("Solved for falling charge: at {0} the posts fall to {1} V while cranking.",
                     s.pc(s.f.limit), number(assumption("crank_least_V").value)),
                 say("From its charge in {0} down to there at {1}: {2}", s.state(),
                     s.A(s.f.average.value_or(s.f.value)), duration_h(s.f.hours.value_or(0)))};
     },
     .why = std::nullopt},
    {.kind = FindingKind::inverter_over,
     .name = "inverter_over",
     .group = FindingGroup::mains,
     .value = Dimension::power,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} is asked for {1} in {2}; it gives {3} for long.", s.who(), s.VA(s.f.value),
                    s.state(), s.VA(s.f.limit));
     },
     .rule = inverter_rule,
     .reasons = inverter_reasons,
     .why = std::nullopt},
    {.kind = FindingKind::inverter_surge,
     .name = "inverter_surge",
     .group = FindingGroup::mains,
     .value = Dimension::power,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} must start {1} in {2}; it gives {3} for a moment.", s.who(), s.VA(s.f.value),
                    s.state(), s.VA(s.f.limit));
     },
     .rule = inverter_rule,
     .reasons = inverter_reasons,
     .why = std::nullopt},
    {.kind = FindingKind::converter_surge,
     .name = "converter_surge",
     .group = FindingGroup::mains,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} must start {1} in {2}; it gives {3} for a moment.", s.who(), s.A(s.f.value),
                    s.state(), s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("converter"), translated("the converter's own rating")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated("What runs on its rail plus the hardest start; no battery is there to help.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::modified_sine,
     .name = "modified_sine",
     .group = FindingGroup::mains,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} needs a pure sine; {1} gives a modified one.", s.who(), s.other());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("waveform"),
                 translated("motors, compressors and chargers ask for pure sine, common practice")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated("Motors run hot and hum on it, chargers and speed controls may fail.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::stays_charged,
     .name = "stays_charged",
     .group = FindingGroup::supply,
     .value = Dimension::time,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "Lines of {0} stay charged for {1} s after switch-off: wait before touching or closing "
             "again.",
             yr::name_of(s.plan, s.f.id), number(s.f.value));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("caution"), translated("the converter's own instructions")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::parked_draw,
     .name = "parked_draw",
     .group = FindingGroup::supply,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         std::string text = say("{0}: {1} of the {2} drawn in {3}{4}.", s.who(), s.A(s.f.value),
                                s.A(s.f.limit), s.state(), s.on_average());
         if (s.f.hours)
             text +=
                 say(" Alone: {0} {1} in {2}.", s.other(), s.half_empty(s.f.other), duration_h(*s.f.hours));
         return text;
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("parked"),
                 translated("charge to half; Peukert above the 20 h rate, flat below it")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {
             translated("In the parked state that draws most, by what each one takes; the largest first.")};
     },
     .why = std::nullopt},
};

}  // namespace

std::span<const FindingRow> supply_rows() {
    return kSupplyRows;
}

}  // namespace yr::words
