// Findings about what cables carry and how their ends fit: one row a kind.
#include "catalog/assumptions.h"
#include "catalog/batteries.h"
#include "words/finding_rows.h"

namespace yr::words {
namespace {

// The battery on whose negative post the finding's run ends.
Id battery_of(const Speech& s) {
    const Run* run = find(s.plan.runs, s.f.id);
    if (!run) return {};
    for (const Battery& b : s.plan.batteries)
        if (run->from == neg_of(b.id) || run->to == neg_of(b.id)) return b.id;
    return {};
}

const FindingRow kCablesRows[] = {
    {.kind = FindingKind::cable_over_ampacity,
     .name = "cable_over_ampacity",
     .group = FindingGroup::cables,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} carries {1} where {2} is allowed, in {3}.", s.who(), s.value_in(Dimension::current),
                    s.A(s.f.limit), s.state());
     },
     .rule = [](const Speech& s) -> Rule {
         return {s.plan.policy.ampacity_table == AmpacityTable::abyc ? translated("ABYC E-11")
                                                                     : translated("ISO 10133"),
                 s.plan.policy.ampacity_table == AmpacityTable::abyc
                     ? translated("ABYC E-11, ampacity and overcurrent protection (from memory)")
                     : translated("ISO 10133 annex, ampacity (from memory)")};
     },
     .reasons = nullptr,
     .why = ValueKind::run_ampacity},
    {.kind = FindingKind::demand_over,
     .name = "demand_over",
     .group = FindingGroup::cables,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         if (s.f.other.empty())
             return say(
                 "{0} may have to carry {1} when its load runs, which no listed state shows; it stands {2}.",
                 s.who(), s.value_in(Dimension::current), s.A(s.f.limit));
         return say("{0} may have to carry {1}, which {2} is made for; it stands {3}.", s.who(),
                    s.value_in(Dimension::current), s.other(), s.A(s.f.limit));
     },
     .rule = [](const Speech& s) -> Rule {
         return {s.plan.policy.ampacity_table == AmpacityTable::abyc ? translated("ABYC E-11")
                                                                     : translated("ISO 10133"),
                 translated("a cable carries what its source or load is rated for (ABYC E-11 and ISO 10133, "
                            "from memory)")};
     },
     .reasons = [](const Speech& s) -> std::vector<std::string> {
         return {say("{0} > {1} in its hottest state; the amps of the listed states are less", s.A(s.f.value),
                     s.A(s.f.limit))};
     },
     .why = ValueKind::run_ampacity},
    {.kind = FindingKind::cable_over_temperature,
     .name = "cable_over_temperature",
     .group = FindingGroup::cables,
     .value = Dimension::temperature,
     .sentence = [](const Speech& s) -> std::string {
         if (s.melts(s.f.value)) return say("{0} melts in {1}.", s.who(), s.state());
         return say("{0} heats to {1}, over the {2} of its insulation, in {3}.", s.who(),
                    s.value_in(Dimension::temperature), s.C(s.f.limit), s.state());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("heat balance"),
                 translated("Churchill and Chu 1975 and radiation (from memory)")};
     },
     .reasons = nullptr,
     .why = ValueKind::run_temperature},
    {.kind = FindingKind::ground_thin,
     .name = "ground_thin",
     .group = FindingGroup::cables,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "{0} holds {1} of copper: a cable that chafes through on the metal sends back what its {2} fuse "
             "lets "
             "by, "
             "and that burns it.",
             s.who(), quantity(s.f.limit, Dimension::area, s.style), s.A(s.f.value));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("ground"),
                 translated("heat before the fuse is sure to open; the metal is a conductor like others")};
     },
     .reasons = [](const Speech& s) -> std::vector<std::string> {
         return {say("The largest fuse on that battery's positive side is {0}.", s.other()),
                 translated("A ground as thick as the cable behind that fuse stands it in any case.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::return_thinner,
     .name = "return_thinner",
     .group = FindingGroup::cables,
     .value = Dimension::area,
     .sentence = [](const Speech& s) -> std::string {
         if (const Battery* b = find(s.plan.batteries, battery_of(s)))
             return say(
                 "{0} holds {1} of copper where {2} brings {3}: what {4} gives, a short included, goes back "
                 "there.",
                 s.who(), quantity(s.f.value, Dimension::area, s.style), s.other(),
                 quantity(s.f.limit, Dimension::area, s.style), b->name);
         return say(
             "{0} is thinner ({1}) than the supply of the same load ({2}): the thick side gains nothing.",
             s.who(), quantity(s.f.value, Dimension::area, s.style),
             quantity(s.f.limit, Dimension::area, s.style));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("return"), translated("common practice, no source")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated("The same amps go both ways: the thinner of the two decides volts and heat.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::shares_ground,
     .name = "shares_ground",
     .group = FindingGroup::fitting,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         if (s.f.value > 0)
             return say("{0} is sensitive and shares its return with {1} ({2}).", s.who(), s.other(),
                        s.A(s.f.value));
         return say("{0} is sensitive and returns over metal at {1}: give it a way home of its own.", s.who(),
                    s.other());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("own ground"), translated("common practice, no source")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::parallel_shares,
     .name = "parallel_shares",
     .group = FindingGroup::cables,
     .value = Dimension::fraction,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} takes {1} of what it shares with {2}: they do not share equally.", s.who(),
                    s.pc(s.f.value), s.other());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("side by side"),
                 translated("Kirchhoff's laws; n \xE2\x88\x92 1 looked at, common practice")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::parallel_left,
     .name = "parallel_left",
     .group = FindingGroup::cables,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "{0} would carry {1} if one beside it came off; it may carry {2}.",
             s.f.other == s.f.id ? translated("What is left of ") + yr::name_of(s.plan, s.f.id) : s.who(),
             s.A(s.f.value), s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("side by side"),
                 translated("Kirchhoff's laws; n \xE2\x88\x92 1 looked at, common practice")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::aluminium_core,
     .name = "aluminium_core",
     .group = FindingGroup::cables,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} is copper-clad aluminium: {1} times the resistance of copper of that size.", s.who(),
                    number(s.f.value, 3, s.style.decimal_comma));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("material"), translated("62 % IACS for copper-clad aluminium, common practice")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::lug_misfit,
     .name = "lug_misfit",
     .group = FindingGroup::fitting,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         if (s.f.value < s.f.limit)
             return say("{0}: its {1} lug does not go over the {2} bolt of {3}.", s.who(), s.bolt(s.f.value),
                        s.bolt(s.f.limit), s.other());
         return say("{0}: its {1} lug lies loose on the {2} bolt of {3}, with little metal under the nut.",
                    s.who(), s.bolt(s.f.value), s.bolt(s.f.limit), s.other());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("lug"), translated("lugs after DIN 46234 and 46235 (from memory)")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::terminal_small,
     .name = "terminal_small",
     .group = FindingGroup::fitting,
     .value = Dimension::area,
     .sentence = [](const Speech& s) -> std::string {
         if (s.f.limit <= 0)
             return say("{0}: no lug for {1} is made for the bolt of {2}.", s.who(), s.mm2(s.f.value),
                        s.other());
         return say("{0}: {1} does not go into {2}, which takes {3}.", s.who(), s.mm2(s.f.value), s.other(),
                    s.mm2(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("lug"), translated("lugs after DIN 46234 and 46235 (from memory)")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::bend_tight,
     .name = "bend_tight",
     .group = FindingGroup::fitting,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} is bent to {1}; this cable wants {2} at least.", s.who(), s.mm(s.f.value),
                    s.mm(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("bend"), assumption("bend_diameters").source};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::strap_thin,
     .name = "strap_thin",
     .group = FindingGroup::cables,
     .value = Dimension::area,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} ({1}) takes back what {2} ({3}) brings: the thick side gains nothing.", s.who(),
                    s.mm2(s.f.value), s.other(), s.mm2(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("return"), translated("common practice, no source")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::duty_hot,
     .name = "duty_hot",
     .group = FindingGroup::cables,
     .value = Dimension::temperature,
     .sentence = [](const Speech& s) -> std::string {
         const std::string turn = s.f.other.empty() ? s.state() : s.other();
         if (s.melts(s.f.value)) return say("{0} melts before a turn of {1} is over.", s.who(), turn);
         return say("{0} reaches {1} at the end of a turn of {2}, over the {3} of its insulation.", s.who(),
                    s.value_in(Dimension::temperature), turn, s.C(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("heat in time"),
                 translated("heat balance in time, IEC 60853-2 for the insulation's share (from memory)")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated(
             "The cable is followed turn by turn until turns repeat; no root-mean-square shortcut.")};
     },
     .why = std::nullopt},
};

}  // namespace

std::span<const FindingRow> cables_rows() {
    return kCablesRows;
}

}  // namespace yr::words
