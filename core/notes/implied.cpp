#include "notes/implied.h"

#include <algorithm>

#include "catalog/assumptions.h"
#include "notes/plan_text.h"
#include "notes/statement.h"
#include "typing/battery_words.h"
#include "units/pattern.h"
#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

const Pattern& hours_said() {
    static const Pattern hours(R"(\d\s*(?:Ah|kWh)\b)");
    return hours;
}

// A page about what is towed, pushed or driven from its battery, and that names nothing an engine has.
bool speaks_of_no_engine(std::string_view text) {
    static const Pattern still(
        R"(\b(?:trailer|caravan|lift|cart|boat|barge|cabin|kiosk|stall|pod|wheelchair|tug|scooter)\b)");
    static const Pattern engine(
        R"(\b(?:engine|outboards?|inboards?|alternators?|alt|stator|dynamo|starter|crank(?:ing|s)?|CCA|ignition|driving|idling|idle|truck|lorry|van|car|bus|tractor|vehicle)\b)");
    static const Pattern said(R"(\bno (?:engine|alternator)\b)");
    if (said.is_in(std::string(text))) return true;
    std::string_view title = trim(text);
    title = title.substr(0, title.find('\n'));
    // "support trailer": what tows it has the engine
    static const Pattern towed(R"(\b(?:trailer|caravan)\s*(?:$|[-,:(]|\d))"),
        tows(R"(\b(?:tow(?:ing)?[ -]?)(?:car|truck|vehicle|van|tractor|lorry)\b)");
    if (towed.is_in(std::string(title)))
        return !engine.is_in(tows.replaced(std::string(trim(text).substr(title.size())), ""));
    static const Pattern driven(R"(\b(?:cart|wheelchair|scooter)\b)"),  // by its battery, too
        turned(
            R"(\b(?:engine|outboards?|inboards?|alternators?|alt|stator|dynamo|starter|crank(?:ing|s)?|CCA)\b)");
    if (driven.is_in(std::string(title)) && !turned.is_in(std::string(text))) return true;
    return still.is_in(std::string(title)) && !engine.is_in(std::string(text));
}

// A page of what is built in behind the seats: it charges "from the vehicle battery", of which it says no
// more. Its own battery is another one.
bool charges_from_unsaid(const std::vector<std::string_view>& lines) {
    static const Pattern charges(
        R"(\b(?:dc-?dc|dcdc|dc/dc|b2b|battery to battery|vsr|split[ -]charge|sensing relay)\b.*\b(?:from|off|between)\s+(?:the\s+)?(?:vehicle|starter|start|engine|van|chassis|cab|car|truck)(?:'s)?(?:\s+batt\w*)?\b)");
    static const Pattern says(
        R"(\b(?:vehicle|starter|start|engine|van|chassis|cab|car|truck|crank(?:ing)?)\s+batt\w*[^\n]*\d\s*(?:Ah|CCA)\b|\d\s*(?:Ah|CCA)\s+(?:vehicle|starter|start|engine|van|chassis|cab)\b)");
    const auto any = [&](const Pattern& p) {
        return std::any_of(lines.begin(), lines.end(), [&](std::string_view l) { return p.is_in(l); });
    };
    const Pattern& hours = hours_said();
    static const Pattern joins(
        R"(\b(?:dc-?dc|dcdc|dc/dc|b2b|battery to battery|vsr|split[ -]charge|sensing relay)\b)"),
        lived_with(
            R"(\b(?:leisure|house|domestics?|aux(?:iliary)?|service|second|2nd|caravan|camper(?:van)?)\b)");
    const std::string_view* only = nullptr;
    for (const std::string_view& line : lines) {
        if (!hours.is_in(line)) continue;
        Found first;
        if (only || (hours.is_in(line, first) && hours.is_in(first.behind()))) return false;
        only = &line;
    }
    return only && !any(says) &&
           (any(charges) || (any(joins) && (lived_with.is_in(*only) || lived_with.is_in(lines.front()))));
}

// "4x 100 Ah 12 V 2s2p = 24 V 200 Ah" on a page that says no volts of its vehicle: those of its only battery.
// Empty: it says them, or has 12 V.
std::string volts_of_only_battery(const std::vector<std::string_view>& lines) {
    const Pattern& hours = hours_said();
    static const Pattern high(R"(\b(24|48)\s*V\b)"), rails(R"(\b(?:12|24|36|48)\s*V\b)"),
        low(R"(\b(?:12|24|36|48)\s*V\s+(?:system|vehicle|chassis|electrics)\b|\b12\s*V\s+batter|^\s*(?:chassis|vehicle|system|electrics)\s*:?\s*(?:12|24|36|48)\s*V)");
    const std::string_view* only = nullptr;
    for (const std::string_view& line : lines) {
        if (low.is_in(line)) return {};
        if (!hours.is_in(line)) continue;
        if (only) return {};
        only = &line;
    }
    Found m;
    std::string said;
    if (!only || rails.is_in(lines.front())) return {};
    for (std::string rest(*only); high.is_in(rest, m);) {
        said = m[1];
        rest = m.behind();
    }
    return said;
}

// What keeps that battery charged, its amps assumed.
void add_alternator_of_vehicle(Plan& plan) {
    const bool has_engine =
        std::any_of(plan.states.begin(), plan.states.end(), [](const State& s) { return s.rpm > 0; });
    if (!has_engine) return;
    const Statement made =
        read_statement(plan, "alternator " + shown(assumption("alternator_rated_A").value) + " A");
    if (!made.whole() || !yr::apply(plan, *made.edit)) return;
    Source assumed = *find(plan.sources, std::string_view(made.about));
    assumed.rated_A.reset();
    (void)yr::apply(plan, Put<Source>{assumed, {}});
}

bool begins_a_plan(const Plan& base) {
    return base.loads.empty() && base.sources.empty();
}

void take(Plan& plan, const std::string& line) {
    if (const Statement s = read_statement(plan, line); s.whole()) (void)yr::apply(plan, *s.edit);
}

}  // namespace

Plan with_what_is_implied(const Plan& base, std::string_view page) {
    Plan plan = base;
    if (!begins_a_plan(base)) return plan;
    if (speaks_of_no_engine(page)) take(plan, "vehicle no engine");
    if (!battery_is_free(plan)) return plan;
    std::vector<std::string_view> lines;
    for (const std::string_view line : split(page, '\n'))
        if (!is_thing_line(trim(line))) lines.push_back(line);
    if (const std::string volts = volts_of_only_battery(lines); !volts.empty())
        take(plan, "vehicle " + volts + " V");
    if (!speaks_of_no_engine(page) && charges_from_unsaid(lines)) {
        Battery vehicles = plan.batteries.front();
        vehicles.name = kVehicleBattery;
        (void)yr::apply(plan, Put<Battery>{vehicles, {}});
    }
    return plan;
}

void add_what_is_implied(const Plan& base, std::string_view page, Plan& plan) {
    static const Pattern turned(R"(\b(?:alternators?|alt|stator|dynamo)\b)");
    if (!begins_a_plan(base) || plan.batteries.empty() || plan.batteries.front().name != kVehicleBattery ||
        turned.is_in(page))
        return;
    add_alternator_of_vehicle(plan);
}

}  // namespace yr
