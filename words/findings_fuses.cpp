// Findings about fuses and shorts: one row a kind.
#include "catalog/assumptions.h"
#include "catalog/batteries.h"
#include "words/finding_rows.h"

namespace yr::words {
namespace {

const FindingRow kFusesRows[] = {
    {.kind = FindingKind::fuse_above_cable,
     .name = "fuse_above_cable",
     .group = FindingGroup::fuses,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "{0}: the {1} {2} is larger than the {3} its cable stands. An overload heats the cable before "
             "it opens.",
             s.who(), s.value_in(Dimension::current), s.kind_of_fuse(), s.A(s.f.limit));
     },
     .rule = [](const Speech& s) -> Rule {
         return {s.plan.policy.ampacity_table == AmpacityTable::abyc ? translated("ABYC E-11")
                                                                     : translated("ISO 10133"),
                 s.plan.policy.ampacity_table == AmpacityTable::abyc
                     ? translated("ABYC E-11, ampacity and overcurrent protection (from memory)")
                     : translated("ISO 10133 annex, ampacity (from memory)")};
     },
     .reasons = [](const Speech& s) -> std::vector<std::string> {
         return {say("fuse {0} > {1} in its hottest state", s.A(s.f.value), s.A(s.f.limit)),
                 translated("Between 100 and 135 % of its rating a fuse gives no guarantee to open: only a "
                            "fuse at or below "
                            "the ampacity guards the cable.")};
     },
     .why = ValueKind::run_ampacity},
    {.kind = FindingKind::fuse_above_channel,
     .name = "fuse_above_channel",
     .group = FindingGroup::fuses,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0}: the {1} {2} is larger than the {3} that its channel is made for.", s.who(),
                    s.A(s.f.value), s.kind_of_fuse(), s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("channel"), translated("the box's own rating; common practice, no source")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated(
             "Holder, contact or output heats beyond what it is made for before such a fuse opens.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::fuse_volts,
     .name = "fuse_volts",
     .group = FindingGroup::fuses,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0}: the {1} is made for {2} and stands on a rail of {3}.", s.who(), s.kind_of_fuse(),
                    s.V(s.f.limit), s.V(s.f.value));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("volts of a fuse"), translated("ISO 8820-1, rated voltage (from memory)")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated(
             "It opens, and above its volts the arc may go on burning in it: it then guards nothing.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::fuse_missing,
     .name = "fuse_missing",
     .group = FindingGroup::fuses,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         const std::string end = terminal(s.plan, s.f.other);
         if (s.f.value > 0)
             return say(
                 "{0}: no fuse at {1}. The {2} fuse before it is larger than the {3} this cable stands.",
                 s.who(), end, s.A(s.f.value), s.A(s.f.limit));
         return say("{0}: no fuse at {1}. A short is fed by the battery with nothing to stop it.", s.who(),
                    end);
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("fuse at source"),
                 translated("ABYC E-11, overcurrent protection at the source of power (from memory)")};
     },
     .reasons = [](const Speech& s) -> std::vector<std::string> {
         return {
             translated(
                 "With this run cut here, a battery can still feed this end when all switches are closed."),
             s.f.value > 0
                 ? translated("The largest fuse on that way is above what this cable stands.")
                 : translated("What lies between the source and the fuse burns unguarded in a short.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::fuse_far,
     .name = "fuse_far",
     .group = FindingGroup::fuses,
     .value = Dimension::length,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "{0}: the fuse sits {1} from its source where {2} is allowed. The cable before it is bare of "
             "protection.",
             s.who(), quantity(s.f.value, Dimension::length, s.style),
             quantity(s.f.limit, Dimension::length, s.style));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("fuse distance"), assumption("fuse_distance_road_m").source};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {
             translated(
                 "With this run cut here, a battery can still feed this end when all switches are closed."),
             translated("What lies between the source and the fuse burns unguarded in a short.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::interrupt_low,
     .name = "interrupt_low",
     .group = FindingGroup::shorts,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0}: a short asks {1} of its fuse, which can cut {2}.", s.who(), s.A(s.f.value),
                    s.A(s.f.limit));
     },
     .rule = [](const Speech& s) -> Rule {
         const Run* r = find(s.plan.runs, s.f.id);
         const Device* d = r ? find(r->devices, s.f.other) : nullptr;
         return {translated("interrupting"), d ? fuse_kind(d->fuse).source : std::string()};
     },
     .reasons = [](const Speech& s) -> std::vector<std::string> {
         return {translated("New, warm and full: open-circuit volts / (R0 + fuse) = ") + s.A(s.f.value),
                 translated("A fuse asked to cut more than it can burns on as an arc.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::tap_over,
     .name = "tap_over",
     .group = FindingGroup::fuses,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} taps {1}: in {2} both together take {3} where that position carries {4}.", s.who(),
                    s.other(), s.state(), s.A(s.f.value), s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("fuse tap"),
                 translated("a position carries the fuse it was made for, common practice")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::guards_not,
     .name = "guards_not",
     .group = FindingGroup::fuses,
     .value = Dimension::temperature,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "{0} does not guard {1} in this heat: before it is sure to open the cable reaches {2} of "
             "the {3} it bears after a short.",
             capital(s.other()), s.it(), s.value_in(Dimension::temperature), s.C(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("guard"),
                 translated("opening by ISO 8820 bands (from memory); heat balance of the cable")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {
             translated("The table of ampacities lets the fuse stand; the cable's own heat, in the hottest "
                        "air of its way and with the fuse in the coldest, does not.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::short_stays,
     .name = "short_stays",
     .group = FindingGroup::shorts,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         if (find(s.plan.runs, s.f.other))
             return say(
                 "A short at the far end of {0} keeps {1}: on their way through {2} nothing is sure to open.",
                 yr::name_of(s.plan, s.f.id), s.A(s.f.value), s.other());
         return say("A short at the far end of {0} keeps {1}: {2} is not sure to open within the hour.",
                    yr::name_of(s.plan, s.f.id), s.A(s.f.value), s.other());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("short"), translated("circuit theory; opening by ISO 8820 bands (from memory)")};
     },
     .reasons = [](const Speech& s) -> std::vector<std::string> {
         return {say("Short current = open volts / (battery + cables + joints + fuses), weakest: "
                     "battery aged to "
                     "{0} times its resistance, copper at its insulation's limit, other loads on.",
                     number(assumption("short_aged_R0").value)),
                 say("{0} in {1}. A fuse promises to open from 135 % of its rating; below that it may carry "
                     "the current for ever.",
                     s.A(s.f.value), s.state())};
     },
     .why = std::nullopt},
    {.kind = FindingKind::short_unsolved,
     .name = "short_unsolved",
     .group = FindingGroup::shorts,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("A short of {0} could not be solved in {1}: nothing is said about it.",
                    yr::name_of(s.plan, s.f.id), s.state());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("no answer"),
                 translated("an answer counts only where Kirchhoff's laws hold in it")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::short_hurts,
     .name = "short_hurts",
     .group = FindingGroup::shorts,
     .value = Dimension::temperature,
     .sentence = [](const Speech& s) -> std::string {
         if (s.melts(s.f.value))
             return say("{0} melts in a short before {1} is sure to open.", s.who(), s.other());
         return say("{0} reaches {1} in a short before {2} is sure to open; it bears {3}.", s.who(),
                    s.value_in(Dimension::temperature), s.other(), s.C(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("short heat"),
                 translated("IEC 60364-5-54: 160 C after a short up to 105 C insulations (from memory)")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated(
             "The conductor's heat in time: I\xC2\xB2R into copper and insulation, less what leaves, from "
             "its "
             "working temperature until the latest opening of the fuse's band.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::short_upstream,
     .name = "short_upstream",
     .group = FindingGroup::shorts,
     .value = Dimension::time,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "A short of {0} may open {1} first, after {2}: its own is sure to open only after {3}.",
             yr::name_of(s.plan, s.f.id), s.other(), seconds(s.f.value, s.style),
             s.f.limit > 1e8 ? std::string(translated("a day, if ever")) : seconds(s.f.limit, s.style));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("short"), translated("circuit theory; opening by ISO 8820 bands (from memory)")};
     },
     .reasons = [](const Speech& s) -> std::vector<std::string> {
         return {say("Earliest opening further up {0}, latest opening of the near one {1}: they overlap.",
                     seconds(s.f.value, s.style),
                     s.f.limit > 1e8 ? translated("not promised") : seconds(s.f.limit, s.style))};
     },
     .why = std::nullopt},
    {.kind = FindingKind::interrupt_short,
     .name = "interrupt_short",
     .group = FindingGroup::shorts,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("Behind {0} a short is {1}; a {2} cuts off {3} at most.", s.other(), s.A(s.f.value),
                    s.kind_of_fuse(), s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("interrupting"),
                 translated("interrupting capacity by kind of fuse, common practice")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated("Short current strongest: new, warm, full battery, cold copper, no other load.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::start_opens_fuse,
     .name = "start_opens_fuse",
     .group = FindingGroup::fuses,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} may open at the start: {1} where it holds {2} for so long.", capital(s.other()),
                    s.A(s.f.value), s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("inrush"), translated("opening by ISO 8820 bands, earliest (from memory)")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated(
             "The start falls from its peak to the running current as an exponential; each instant uses "
             "dt / "
             "earliest opening time at that current; 1 in all opens it.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::turn_opens_fuse,
     .name = "turn_opens_fuse",
     .group = FindingGroup::fuses,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         const std::string long_s = seconds(3600 * s.f.hours.value_or(0), s.style);
         if (s.f.state.empty())
             return say("{0} may open at full pull: {1} for {2} at a stretch, where it is sure to hold {3}.",
                        capital(s.other()), s.A(s.f.value), long_s, s.A(s.f.limit));
         return say("{0} may open in {1}: {2} for {3} at a stretch, where it is sure to hold {4}.",
                    capital(s.other()), s.state(), s.A(s.f.value), long_s, s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("turns of work"),
                 translated("opening by ISO 8820 bands, earliest (from memory)")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::fuse_loaded,
     .name = "fuse_loaded",
     .group = FindingGroup::fuses,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         const Device* d = find_device(s.plan, s.f.other);
         const std::string share = s.pc(d ? s.f.value / d->rating_A : 0);
         if (s.f.state.empty())
             return say(
                 "{0} may have to carry {1}, which no listed state shows: {2} of its rating; for ever it "
                 "bears "
                 "{3}.",
                 capital(s.other()), s.value_in(Dimension::current), share, s.A(s.f.limit));
         return say("{0} carries {1} in {2}, {3} of its rating; for ever it bears {4}.", capital(s.other()),
                    s.value_in(Dimension::current), s.state(), share, s.A(s.f.limit));
     },
     .rule = [](const Speech& s) -> Rule {
         const Device* d = find_device(s.plan, s.f.other);
         const double share = d ? fuse_kind(d->fuse).continuous_share : 0.8;
         return {number(share * 100) + translated(" % rule"),
                 translated("continuous load against rating, common practice")};
     },
     .reasons = [](const Speech& s) -> std::vector<std::string> {
         return {fmt::format("{} / {} = {}", s.A(s.f.value), s.A(s.f.limit),
                             number(s.f.limit > 0 ? s.f.value / s.f.limit : 0))};
     },
     .why = std::nullopt},
    {.kind = FindingKind::fuse_kind_hot,
     .name = "fuse_kind_hot",
     .group = FindingGroup::fuses,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} is a small glass cylinder: such a one overheats in steady use. It carries {1}.",
                    capital(s.other()), s.A(s.f.value));
     },
     .rule = [](const Speech& s) -> Rule {
         const Device* d = find_device(s.plan, s.f.other);
         const double share = d ? fuse_kind(d->fuse).continuous_share : 0.8;
         return {number(share * 100) + translated(" % rule"),
                 translated("continuous load against rating, common practice")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::breaker_recloses,
     .name = "breaker_recloses",
     .group = FindingGroup::shorts,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} closes by itself on to a short of {1}, again and again.", capital(s.other()),
                    s.A(s.f.value));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("SAE J553"), translated("SAE J553: type I closes again by itself (from memory)")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::management_first,
     .name = "management_first",
     .group = FindingGroup::shorts,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "In a short {0} would give {1}; its own management opens first, at {2}: then all it feeds is "
             "dark.",
             yr::name_of(s.plan, s.f.id), s.A(s.f.value), s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("management"), translated("the battery's own limit, as the plan states it")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
};

}  // namespace

std::span<const FindingRow> fuses_rows() {
    return kFusesRows;
}

}  // namespace yr::words
