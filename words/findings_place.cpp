// What is said of where things stand and cables lie.
#include <cmath>

#include "words/finding_rows.h"

namespace yr::words {
namespace {

std::string metres(double v, const Style& style) {
    return quantity(v, Dimension::length, style);
}

// What is wrong with that place for a cable.
std::string keeps_clear_of(Hazard hazard) {
    switch (hazard) {
        case Hazard::airbag:
            return translated("an airbag opens there");
        case Hazard::moving:
            return translated("what moves there cuts it");
        case Hazard::steering:
            return translated("the steering moves there: a loose cable locks it");
        case Hazard::seat_slide:
            return translated("a seat slides over it there");
        case Hazard::wheel_travel:
            return translated("a wheel gets there when it is full in or turned");
        case Hazard::exhaust:
            return translated("it is hot enough there to burn insulation");
        case Hazard::fuel_line:
            return translated("a fuel line lies there");
        case Hazard::brake_line:
            return translated("a brake line lies there");
        case Hazard::jack_point:
            return translated("the jack stands there");
        case Hazard::high_voltage:
            return translated("orange cables lie there: hundreds of volts, not for this trade");
        case Hazard::none:
            break;
    }
    return translated("it must keep clear");
}

std::string why_badly(const Speech& s) {
    const Place* p = find(s.plan.places, s.f.other);
    if (!p) return {};
    const Battery* b = find(s.plan.batteries, s.f.id);
    if (p->people && b && b->chemistry == Chemistry::flooded)
        return translated("a flooded battery gives off gas where people sit");
    if (p->cold_air) return translated("water condenses there out of the cold air");
    if (p->hazard != Hazard::none) return keeps_clear_of(p->hazard);
    if (p->wet) return translated("water gets there");
    return translated("it should not stand there");
}

const FindingRow kPlaceRows[] = {
    {.kind = FindingKind::way_length,
     .name = "way_length",
     .group = FindingGroup::place,
     .value = Dimension::length,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0}: {1} are said, along its way it is {2}.", s.who(), metres(s.f.limit, s.style),
                    metres(s.f.value, s.style));
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("length of its way")); },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated("Its way with the slack of the policy against what was typed.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::way_barred,
     .name = "way_barred",
     .group = FindingGroup::place,
     .value = Dimension::length,
     .sentence = [](const Speech& s) -> std::string {
         const Place* p = find(s.plan.places, s.f.other);
         return say("{0} passes {1} for {2}: {3}.", s.who(), s.other(), metres(s.f.value, s.style),
                    p ? keeps_clear_of(p->hazard) : std::string());
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("what cables keep clear of")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::way_missing,
     .name = "way_missing",
     .group = FindingGroup::place,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0}: both its ends stand somewhere, and no way joins them.", s.who());
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("ways")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::way_bundle,
     .name = "way_bundle",
     .group = FindingGroup::place,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} lies in a bundle along {1}: it stands {2} there and must bear {3}.", s.who(),
                    s.other(), s.value_in(Dimension::current), s.A(s.f.limit));
     },
     .rule = [](const Speech& s) -> Rule {
         return {s.plan.policy.ampacity_table == AmpacityTable::abyc ? translated("ABYC E-11")
                                                                     : translated("ISO 10133"),
                 translated("the table's factor for bundled cables (from memory)")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated(
             "Its length is said, so its own ampacity is reckoned alone; leave the length open and "
             "it follows its way, bundle included.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::way_flexes,
     .name = "way_flexes",
     .group = FindingGroup::place,
     .value = Dimension::area,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} flexes at {1}: it wants fine strands and a loop there.", s.who(), s.other());
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("cables that flex")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::way_hot,
     .name = "way_hot",
     .group = FindingGroup::place,
     .value = Dimension::temperature,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} passes {1}: {2} there, its insulation bears {3}.", s.who(), s.other(),
                    s.C(s.f.value), s.C(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("the heat of the cable itself"),
                 translated("fin equation along its way: what copper carries out of a short hot stretch")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {
             translated("Its ampacity does not count so short a stretch, since copper carries its heat "
                        "away; what stays is still too much for what is around it. A shield of metal with "
                        "air behind it, or a way round, helps as well.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::passage_full,
     .name = "passage_full",
     .group = FindingGroup::place,
     .value = Dimension::fraction,
     .sentence = [](const Speech& s) -> std::string {
         return s.f.value > 1
                    ? say("{0}: what passes is {1} of its bore: it does not go through.", s.who(),
                          s.pc(s.f.value))
                    : say("{0} is {1} full, {2} are allowed.", s.who(), s.pc(s.f.value), s.pc(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("a bundle in a hole")); },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {
             translated("The circle round all that passes, packed closely, against the free diameter; four "
                        "fifths leave room to pull them through.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::passage_edge,
     .name = "passage_edge",
     .group = FindingGroup::place,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say_n("{1}: {0} cable lies on a bare edge: a grommet, or an edge guard.",
                      "{1}: {0} cables lie on a bare edge: a grommet, or an edge guard.",
                      static_cast<int>(s.f.value), s.who());
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("edges are guarded")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::passage_open,
     .name = "passage_open",
     .group = FindingGroup::place,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} leads out of the wet of {1} and is not sealed.", s.who(), s.other());
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("water stays out")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::stands_badly,
     .name = "stands_badly",
     .group = FindingGroup::place,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} stands in {1}: {2}.", s.who(), s.other(), why_badly(s));
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("where things stand")); },
     .reasons = nullptr,
     .why = std::nullopt},
};

}  // namespace

std::span<const FindingRow> place_rows() {
    return kPlaceRows;
}

}  // namespace yr::words
