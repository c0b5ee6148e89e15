// Findings about volts, what is live when, and what is only assumed: one row a kind.
#include "catalog/assumptions.h"
#include "catalog/batteries.h"
#include "words/finding_rows.h"

namespace yr::words {
namespace {

const FindingRow kCircuitRows[] = {
    {.kind = FindingKind::drop_over_limit,
     .name = "drop_over_limit",
     .group = FindingGroup::volts,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         std::string text = say(
             "On the way to {0} {1} ({2}) is lost where {3} is allowed, at worst in {4}.", s.it(),
             told_apart(s.f.value / s.nominal_V(), s.f.limit / s.nominal_V(), Dimension::fraction, s.style)
                 .first,
             s.V(s.f.value), s.share(s.f.limit), s.state());
         if (!s.f.biggest_run.empty())
             text += say(" {0} alone takes {1}.", capital(yr::name_of(s.plan, s.f.biggest_run)),
                         quantity(s.f.biggest_V, Dimension::voltage, s.style));
         return text;
     },
     .rule = [](const Speech& s) -> Rule {
         const Load* load = find(s.plan.loads, s.f.id);
         const bool critical = load && load->critical;
         if (load && load->drop_limit)
             return {translated("drop, own limit"), translated("the load's own limit")};
         return {critical ? translated("drop, critical") : translated("drop"),
                 assumption(critical ? "load_drop_critical" : "load_drop_other").source};
     },
     .reasons = nullptr,
     .why = ValueKind::load_drop},
    {.kind = FindingKind::no_operating_point,
     .name = "no_operating_point",
     .group = FindingGroup::volts,
     .value = Dimension::fraction,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "{0} cannot get its power in {1}: the supply can serve {2} of it, then the voltage collapses.",
             s.who(), s.state(), quantity(s.f.value, Dimension::fraction, s.style));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("constant power"),
                 translated("circuit theory: V\xC2\xB2 < 4\xC2\xB7R\xC2\xB7P has no solution")};
     },
     .reasons = nullptr,
     .why = ValueKind::load_drop},
    {.kind = FindingKind::load_dead,
     .name = "load_dead",
     .group = FindingGroup::liveness,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} should run in {1} but nothing feeds it then.", s.who(), s.state());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("liveness"), translated("the plan's own words on when it must run")};
     },
     .reasons = nullptr,
     .why = ValueKind::load_drop},
    {.kind = FindingKind::constant_on_key_rail,
     .name = "constant_on_key_rail",
     .group = FindingGroup::liveness,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} must always run, but its feed dies with the key: it is dead in {1}.", s.who(),
                    s.state());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("key rail"), translated("common practice, no source")};
     },
     .reasons = nullptr,
     .why = ValueKind::load_drop},
    {.kind = FindingKind::no_answer,
     .name = "no_answer",
     .group = FindingGroup::volts,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         const State* state = find(s.plan.states, s.f.state);
         return state ? no_answer(*state) : std::string();
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("no answer"),
                 translated("an answer counts only where Kirchhoff's laws hold in it")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated(
             "Look for a short, for a resistance of almost nothing, for a value far from the usual.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::never_runs,
     .name = "never_runs",
     .group = FindingGroup::assumptions,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         const long others = std::lround(s.f.value) - 1;
         if (others == 0)
             return say("{0} runs in no state of this plan: its drop is looked at in none.", s.who());
         return say_n("{1} and {0} more run in no state of this plan: their drop is looked at in none.",
                      "{1} and {0} more run in no state of this plan: their drop is looked at in none.",
                      others, s.who());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("states"), translated("the plan's own words")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated(
             "Ampacity, fuses and shorts are judged all the same; volts, charge and hours only by state.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::state_names_nothing,
     .name = "state_names_nothing",
     .group = FindingGroup::assumptions,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} speaks of {1}, which is not in this plan: that part of it does nothing.", s.state(),
                    printable(s.f.other));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("state"), translated("the plan's own words")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::volts_foreign,
     .name = "volts_foreign",
     .group = FindingGroup::volts,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} gets {1} in {2}, in a plan of {3}. If it is made for that, state its most volts.",
                    s.who(), s.V(s.f.value), s.state(), s.V(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("volts"), translated("one rail has one voltage; common practice, no source")};
     },
     .reasons = nullptr,
     .why = ValueKind::load_voltage},
    {.kind = FindingKind::fed_backwards,
     .name = "fed_backwards",
     .group = FindingGroup::volts,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} is fed backwards in {1}: its negative end stands {2} above its positive.", s.who(),
                    s.state(), s.V(s.f.value));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("poles"), translated("common practice, no source")};
     },
     .reasons = nullptr,
     .why = ValueKind::load_voltage},
    {.kind = FindingKind::converter_dead,
     .name = "converter_dead",
     .group = FindingGroup::liveness,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} should work in {1} but its input is dead.", s.who(), s.state());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("liveness"), translated("the plan's own words on when it must work")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::rests_on_assumption,
     .name = "rests_on_assumption",
     .group = FindingGroup::assumptions,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         if (s.f.other == "length") {
             const Run* run = find(s.plan.runs, s.f.id);
             if (run && run->size)
                 return say("{0} has no stated length; the result rests on an assumption.", s.who());
             if (run && run->length_m)
                 return say("{0} has no stated size; the result rests on an assumption.", s.who());
             return say("{0} has no stated length or size; the result rests on an assumption.", s.who());
         }
         if (s.f.value < 1.5)
             return say("The resistance of {0} is assumed. Measure it.", yr::name_of(s.plan, s.f.id));
         return say("{0} ground bonds and body joints are assumed, {1} among them. Measure them.",
                    number(s.f.value), yr::name_of(s.plan, s.f.id));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("assumption"), translated("common practice, no source")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::volts_outside,
     .name = "volts_outside",
     .group = FindingGroup::volts,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         const std::string gets = s.value_in(Dimension::voltage);
         return s.f.value < s.f.limit
                    ? say("{0} gets {1} in {2}; it works from {3}.", s.who(), gets, s.state(), s.V(s.f.limit))
                    : say("{0} gets {1} in {2}; it bears {3}.", s.who(), gets, s.state(), s.V(s.f.limit));
     },
     .rule = [](const Speech& s) -> Rule {
         const Load* l = find(s.plan.loads, s.f.id);
         if (l && l->supply_code != SupplyCode::none && !l->least_V)
             return {translated("ISO 16750-2"),
                     translated("ISO 16750-2 supply range of its code (from memory)")};
         return {translated("own window"), translated("the load's own window of volts")};
     },
     .reasons = nullptr,
     .why = ValueKind::load_voltage},
    {.kind = FindingKind::start_up,
     .name = "start_up",
     .group = FindingGroup::volts,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         if (s.f.other.empty())
             return say("If everything in {0} starts at once, {1} falls to {2}; it works from {3}.",
                        s.state(), yr::name_of(s.plan, s.f.id), s.V(s.f.value), s.V(s.f.limit));
         return say("If everything in {0} starts at once, {1} carries {2}: its fuse may open.", s.state(),
                    yr::name_of(s.plan, s.f.id), s.A(s.f.value));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("start-up"),
                 translated("ISO 8820: at 200 % a fuse may open within a second (from memory)")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated(
                     "All loads of this state that have a start are solved at their starting amps together."),
                 translated("Start them one after another, or give the feed more.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::alive_with_master_open,
     .name = "alive_with_master_open",
     .group = FindingGroup::liveness,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} open in {1}: {2} {3} still alive, {4} among them.", s.who(), s.state(),
                    number(s.f.value), s.f.value > 1 ? translated("things are") : translated("thing is"),
                    s.other());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("master open"), translated("the plan solved with the master open")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {
             translated("Every device marked as master is opened, the engine keeps turning, and the plan "
                        "is solved "
                        "again."),
             translated(
                 "What hangs on the battery before the master, or on a turning alternator, is still fed.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::forgets,
     .name = "forgets",
     .group = FindingGroup::liveness,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} must always run, but {1} keeps its channels off after a power loss.", s.who(),
                    s.other());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("power loss"), translated("the box's own behaviour")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::load_alive,
     .name = "load_alive",
     .group = FindingGroup::liveness,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} runs in {1} though nothing asks for it: its feed is live then.", s.who(), s.state());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("liveness"), translated("the plan's own words on when it must run")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::key_on_constant,
     .name = "key_on_constant",
     .group = FindingGroup::liveness,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         if (s.f.value > 1.5)
             return say(
                 "{0} is always live: {1} loads on it, {2} among them, follow the key by a switch "
                 "of their own alone.",
                 s.who(), number(s.f.value), s.other());
         return say("{0} is always live: {1} on it follows the key by a switch of its own alone.", s.who(),
                    s.other());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("constant feed"), translated("common practice, no source")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {
             translated(
                 "The feed is live with the key off. A load with a relay or box channel in its feed is not "
                 "counted."),
             translated(
                 "A switch left on drains the battery: a relay or channel that follows the key does not.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::signal_missing,
     .name = "signal_missing",
     .group = FindingGroup::liveness,
     .value = Dimension::time,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} wants its signal {1} s after its supply; the plan has none.", s.who(),
                    number(s.f.value));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("delayed signal"), translated("the load's own need")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::signal_early,
     .name = "signal_early",
     .group = FindingGroup::liveness,
     .value = Dimension::time,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} gets its signal from {1} {2} s after its supply and wants it {3} s after.", s.who(),
                    s.other(), number(s.f.value), number(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("delayed signal"), translated("the load's own need")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::joint_drop,
     .name = "joint_drop",
     .group = FindingGroup::volts,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         return say("A joint of {0} loses {1} in {2}; a good one stays below {3}.",
                    yr::name_of(s.plan, s.f.id), s.V(s.f.value), s.state(), s.V(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("service limit"), assumption("joint_service_V").source};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::cable_drop,
     .name = "cable_drop",
     .group = FindingGroup::volts,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} alone loses {1} in {2}; a main cable stays below {3}.", s.who(),
                    s.value_in(Dimension::voltage), s.state(), s.V(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("service limit"), assumption("cable_service_V").source};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::starter_drop,
     .name = "starter_drop",
     .group = FindingGroup::volts,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         return say("The starter circuit loses {0} while cranking, most in {1}; {2} is usual.",
                    s.V(s.f.value), yr::name_of(s.plan, s.f.id), s.V(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("service limit"), assumption("starter_service_V").source};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::range_over,
     .name = "range_over",
     .group = FindingGroup::volts,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} may lose up to {1} within the plan's ranges, in {2}; {3} is allowed.", s.who(),
                    s.V(s.f.value), s.state(), s.V(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("ranges"),
                 translated("worst corner of the stated ranges; drop limit as for the plan itself")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
};

}  // namespace

std::span<const FindingRow> circuit_rows() {
    return kCircuitRows;
}

}  // namespace yr::words
