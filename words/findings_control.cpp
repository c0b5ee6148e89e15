// Findings about relays and boxes: one row a kind.
#include "catalog/assumptions.h"
#include "catalog/batteries.h"
#include "words/finding_rows.h"

namespace yr::words {
namespace {

const FindingRow kControlRows[] = {
    {.kind = FindingKind::chatters,
     .name = "chatters",
     .group = FindingGroup::relays,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} chatters in {1}: closed it starves itself, open it is called again.", s.who(),
                    s.state());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("relay memory"), translated("its own thresholds, solved for every position")};
     },
     .reasons = [](const Speech& s) -> std::vector<std::string> {
         return {say("It opens below {0}; with it closed it measures less, with it open enough to close.",
                     s.V(s.f.limit))};
     },
     .why = std::nullopt},
    {.kind = FindingKind::stands_as_it_came,
     .name = "stands_as_it_came",
     .group = FindingGroup::relays,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         return say(
             "{0} may stand open or closed in {1}: its {2} lie between its thresholds, so it stays as it "
             "came.",
             s.who(), s.state(), s.V(s.f.value));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("relay memory"), translated("its own thresholds, solved for every position")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::relay_defeated,
     .name = "relay_defeated",
     .group = FindingGroup::relays,
     .value = Dimension::voltage,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} closes at {1}, but {2} may be regulated down to {3}: it will let go while driving.",
                    s.who(), s.V(s.f.limit), s.other(), s.V(s.f.value));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("sensing relay"), translated("common practice, no source")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::channel_over,
     .name = "channel_over",
     .group = FindingGroup::boxes,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} takes {1} on a channel of {2} that carries {3}.", s.who(), s.A(s.f.value), s.other(),
                    s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {
             translated("channel"),
             translated("the box's own rating; where it has none: solid-state outputs at half their peak, "
                        "common practice")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::channel_start,
     .name = "channel_start",
     .group = FindingGroup::boxes,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} starts with {1} on a channel of {2} that stands {3}.", s.who(), s.A(s.f.value),
                    s.other(), s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {
             translated("channel"),
             translated("the box's own rating; where it has none: solid-state outputs at half their peak, "
                        "common practice")};
     },
     .reasons = [](const Speech& s) -> std::vector<std::string> {
         return {translated("Start ") + s.A(s.f.value) +
                 translated(" against what the channel stands for a moment, ") + s.A(s.f.limit)};
     },
     .why = std::nullopt},
    {.kind = FindingKind::group_over,
     .name = "group_over",
     .group = FindingGroup::boxes,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0}: channels of group {1} share {2}; together they can ask for {3}.", s.who(),
                    s.f.other, s.A(s.f.limit), s.A(s.f.value));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("shared limit"), translated("the box's own limit for these channels")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated("Every load's draw at nominal volts, added up at each key position with its own "
                            "switches on; "
                            "the worst position counts."),
                 translated("What is never on together does not add up.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::box_main_over,
     .name = "box_main_over",
     .group = FindingGroup::boxes,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} can be asked for {1} at once; its {2} is {3}.", s.who(), s.A(s.f.value),
                    s.f.other.empty() ? std::string(translated("main")) : s.other(), s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("box main"),
                 translated("everything on it that can be on at one key position, at nominal volts")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated("Every load's draw at nominal volts, added up at each key position with its own "
                            "switches on; "
                            "the worst position counts."),
                 translated("What is never on together does not add up.")};
     },
     .why = std::nullopt},
    {.kind = FindingKind::contact_over,
     .name = "contact_over",
     .group = FindingGroup::relays,
     .value = Dimension::current,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} switches {1} in {2}; its contacts carry {3}.", s.who(), s.A(s.f.value), s.state(),
                    s.A(s.f.limit));
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("contacts"), translated("the relay's own rating")};
     },
     .reasons = nullptr,
     .why = std::nullopt},
    {.kind = FindingKind::coil_kick,
     .name = "coil_kick",
     .group = FindingGroup::relays,
     .value = Dimension::number,
     .sentence = [](const Speech& s) -> std::string {
         return say("{0} has no suppression and hangs beside {1}: its kick reaches that when it lets go.",
                    s.who(), s.other());
     },
     .rule = [](const Speech&) -> Rule {
         return {translated("coil"),
                 translated("a diode or resistor across a coil beside electronics, common practice")};
     },
     .reasons = [](const Speech&) -> std::vector<std::string> {
         return {translated("A coil that lets go drives its own line far below zero for a moment."),
                 translated(
                     "A diode across it holds the kick to under a volt; a resistor to some tens of volts.")};
     },
     .why = std::nullopt},
};

}  // namespace

std::span<const FindingRow> control_rows() {
    return kControlRows;
}

}  // namespace yr::words
