// What is said of pins, jackets, bolts and sensors.
#include "words/finding_rows.h"

namespace yr::words {
namespace {

bool runs_beside(const Speech& s) {
    const Device* d = find_device(s.plan, s.f.other);
    return d && d->signal == Signal::pulsed;
}

const FindingRow kJoiningRows[] = {
    {.kind = FindingKind::pin_over,
     .name = "pin_over",
     .group = FindingGroup::fitting,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         if (s.f.state.empty())
             return say("{0} may have to bring {1} through a pin of {2}, which stands {3} there.", s.who(),
                        s.value_in(Dimension::current), s.other(), s.A(s.f.limit));
         return say("{0} brings {1} through a pin of {2} in {3}, which stands {4} there.", s.who(),
                    s.value_in(Dimension::current), s.other(), s.state(), s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("amps of a pin")); },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {
             translated("A pin carries what its width or its maker says at 25 °C; in hotter air less, by "
                        "the root of what its contacts may still warm, and four fifths where most pins of "
                        "the connector are loaded.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::pins_beside,
     .name = "pins_beside",
     .group = FindingGroup::fitting,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "In {0} pin {1} of {2} always has volts, and pin {3} beside it is ground: where water gets "
             "in they eat each other away. Leave one free between them, or take a sealed connector.",
             s.other(), number(s.f.value), s.it(), number(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("pins beside each other")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::pin_twice,
     .name = "pin_twice",
     .group = FindingGroup::fitting,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("Pin {0} of {1} is taken by {2} cables, {3} among them: a pin holds one.",
                    number(s.f.value), s.other(), number(s.f.limit), s.it());
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("one cable a pin")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::jacket_differs,
     .name = "jacket_differs",
     .group = FindingGroup::fitting,
     .value = Dimension::length,
     .sentence = [](const Speech& s) -> std::string {
         return say("Cores of {0} are {1} and {2} long: in one jacket they are laid and cut together.",
                    s.it(), quantity(s.f.limit, Dimension::length, s.style),
                    quantity(s.f.value, Dimension::length, s.style));
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("one jacket, one length")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::jacket_full,
     .name = "jacket_full",
     .group = FindingGroup::fitting,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} has {1} cores, and {2} cables are said to be in it.", s.who(), number(s.f.limit),
                    number(s.f.value));
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("cores of a cable")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::lugs_many,
     .name = "lugs_many",
     .group = FindingGroup::fitting,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "{0} lugs sit on one bolt at {1}: {2} at most, the largest at the bottom. A bus bar takes "
             "the rest.",
             number(s.f.value), terminal(s.plan, Terminal(s.f.other)), number(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("lugs on a bolt"),
                 translated("ABYC E-11, four conductors on a stud (from memory)")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::terminals_near,
     .name = "terminals_near",
     .group = FindingGroup::fitting,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "{0}: its bare terminals are {1} apart. A spanner bridges less than {2}: cover one before "
             "the other is touched.",
             s.who(), s.mm(s.f.value), s.mm(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("distance of terminals")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::round_sensor,
     .name = "round_sensor",
     .group = FindingGroup::supply,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "{0} ends on the negative post beside {1}: what flows there goes round it, and the battery "
             "is counted wrong. End it behind the sensor.",
             s.who(), s.other());
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("all through the sensor")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::trigger_unsteady,
     .name = "trigger_unsteady",
     .group = FindingGroup::relays,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         if (runs_beside(s))
             return say("{0} is worked by {1}, which pulses: a relay on it chatters. Take another trigger.",
                        s.who(), s.other());
         return say(
             "{0} is worked by {1}, which sends test pulses to its lamp: a relay on it may twitch, and "
             "the lamp's control unit may report a fault. Take another trigger.",
             s.who(), s.other());
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("a steady trigger")); },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::metals_meet,
     .name = "metals_meet",
     .group = FindingGroup::fitting,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         const Point* metal = find(s.plan.points, std::string_view(s.f.other));
         if (metal && metal->metal == Metal::stainless)
             return say(
                 "{0} stands on stainless {1}, which leads badly: a wide washer of copper, and the bolt "
                 "only presses.",
                 s.who(), s.other());
         return say("{0} stands on aluminium {1}: scratch it bright, paste against oxide, a tinned lug.",
                    s.who(), s.other());
     },
     .rule = [](const Speech&) -> Rule { return practice(translated("metals that meet")); },
     .reasons = nullptr,
     .why = std::nullopt},
};

}  // namespace

std::span<const FindingRow> joining_rows() {
    return kJoiningRows;
}

}  // namespace yr::words
