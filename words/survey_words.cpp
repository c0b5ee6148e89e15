#include "words/survey_words.h"

#include <fmt/format.h>

#include <map>

#include "words/sentences.h"

namespace yr::words {
namespace {

std::string named(const Survey& survey, const Id& id) {
    const SurveyPoint* p = find(survey.points, id);
    return p ? p->name : id;
}

SurveyLine battery_line(const BatteryFact& f, const Survey& survey) {
    const std::string b = capital(named(survey, f.battery)), a = named(survey, f.other);
    switch (f.joiner) {
        case Joiner::permanent:
            return {
                fmt::format("{} and {} are one: a cable or a closed hand switch joins them always.", b, a)};
        case Joiner::sensing_relay:
            return {fmt::format(
                "{} joins {} while charging volts stand on it, through a relay that senses them.", b, a)};
        case Joiner::contactor:
            return {fmt::format(
                "{} joins {} only with the engine running, through a contactor that the ignition or the "
                "engine drives.",
                b, a)};
        case Joiner::key_contactor:
            return {fmt::format("{} joins {} with the key, through a contactor.", b, a)};
        case Joiner::isolator:
            return {fmt::format("{} is charged from {} through an isolator: one way, with its forward drop.",
                                b, a)};
        case Joiner::converter:
            return {fmt::format(
                "{} is charged with the engine running but never joined to {}: a DC-DC charger or "
                "another source of its own.",
                b, a)};
        case Joiner::none:
            return {fmt::format("{} is neither joined to {} nor charged with the engine running.", b, a)};
        case Joiner::open:
            break;
    }
    std::string text = fmt::format("{} and {}: can't tell yet how they are joined", b, a);
    if (f.charges)
        text += *f.charges ? "; it is charged with the engine running" : "; it is not charged while running";
    return {text + ".", false};
}

SurveyLine outlet_line(const OutletFact& f, const Survey& survey) {
    const std::string o = capital(named(survey, f.outlet));
    const char* live = f.live == OutletLive::always      ? "live always"
                       : f.live == OutletLive::accessory ? "live with the key at accessory"
                       : f.live == OutletLive::running   ? "live with the engine running"
                                                         : "";
    if (f.live == OutletLive::never)
        return {fmt::format("{} is dead in every key position that was read.", o)};
    if (f.battery && f.live != OutletLive::open)
        return {fmt::format("{} hangs on {}, {}.", o, named(survey, *f.battery), live)};
    if (f.battery)
        return {fmt::format("{} hangs on {}; can't tell yet when it is live.", o, named(survey, *f.battery)),
                false};
    if (f.live != OutletLive::open)
        return {fmt::format("{} is {}; can't tell yet on which battery it hangs.", o, live), false};
    return {fmt::format("{}: can't tell yet.", o), false};
}

}  // namespace

std::vector<SurveyLine> conclusions(const SurveyProof& proof, const Survey& survey, const Style&) {
    std::vector<SurveyLine> lines;
    for (const BatteryFact& f : proof.batteries) lines.push_back(battery_line(f, survey));
    for (const OutletFact& f : proof.outlets) lines.push_back(outlet_line(f, survey));
    return lines;
}

std::string sentence(const SurveyAsk& ask, const Survey& survey) {
    std::string text = fmt::format("Read {}, {}", named(survey, ask.point), name_of(ask.key));
    if (!ask.drawn_at.empty())
        text += fmt::format(", with a heavy draw on at {}", named(survey, ask.drawn_at));
    return text + ".";
}

const char* name_of(SurveyKey key) {
    switch (key) {
        case SurveyKey::off:
            return "key off";
        case SurveyKey::accessory:
            return "accessory";
        case SurveyKey::running:
            return "running";
        case SurveyKey::after:
            return "after switch-off";
    }
    return "";
}

const char* name_of(JoinVerdict verdict) {
    switch (verdict) {
        case JoinVerdict::open:
            return "can't tell";
        case JoinVerdict::joined:
            return "joined";
        case JoinVerdict::apart:
            return "apart";
        case JoinVerdict::one_way:
            return "one way";
    }
    return "";
}

std::string reason(const JoinFact& f, const Survey& survey, const Style& style) {
    const auto V = [&](double v) { return quantity(v, Dimension::voltage, style); };
    const std::string a = named(survey, f.a), b = named(survey, f.b);
    if (f.a_V == 0 && f.b_V == 0) return fmt::format("{} and {}: not both read.", capital(a), b);
    const std::string volts = fmt::format("{} {}, {} {}", capital(a), V(f.a_V), b, V(f.b_V));
    if (f.sag_V > 0)
        return fmt::format("{}; under the draw one sagged {} and the other {}.", volts, V(f.sag_V),
                           V(f.along_V));
    switch (f.verdict) {
        case JoinVerdict::apart:
            return volts + ": further apart than any link would keep them.";
        case JoinVerdict::joined:
            return volts + ": both are joined to a third.";
        default:
            return volts + ": equal volts alone prove nothing; a draw would.";
    }
}

std::string assumption_brief(const AssumptionUse& use) {
    static const std::map<std::string, std::pair<const char*, Dimension>> words{
        {"battery_capacity_Ah", {"capacity", Dimension::charge}},
        {"battery_charge", {"charge", Dimension::fraction}},
        {"battery_R0_V", {"resistance from capacity", Dimension::number}},
        {"battery_cranking_V", {"resistance from cranking amps", Dimension::number}},
        {"battery_cranking_en_V", {"resistance from cranking amps", Dimension::number}},
        {"alternator_rated_A", {"rating", Dimension::current}},
        {"alternator_idle_share", {"idle share", Dimension::fraction}},
        {"alternator_pulley_ratio", {"pulley ratio", Dimension::number}},
        {"regulated_V", {"regulated volts", Dimension::voltage}},
        {"converter_limit_A", {"limit", Dimension::current}},
        {"bond_mohm", {"bond", Dimension::resistance}},
        {"metal_mohm", {"joint", Dimension::resistance}},
        {"run_length_m", {"length", Dimension::length}},
        {"run_size_awg", {"size", Dimension::number}},
    };
    const auto at = words.find(use.key);
    if (at == words.end()) return use.key;
    const auto [name, dimension] = at->second;
    if (use.key == "run_size_awg") return "size 14 AWG";
    if (use.key == "battery_R0_V" || use.key.starts_with("battery_cranking")) return name;
    const bool milli = use.key.ends_with("_mohm");
    return std::string(name) + " " + quantity(milli ? use.value * 1e-3 : use.value, dimension);
}

std::string how_to_find(const std::string& key) {
    static const std::map<std::string, const char*> words{
        {"battery_capacity_Ah", "read the label: Ah, or reserve minutes"},
        {"battery_charge", "rest it an hour and read its volts"},
        {"battery_R0_V", "read cranking amps on the label"},
        {"alternator_rated_A", "read the plate, or the part's number"},
        {"alternator_idle_share", "load it at idle, clamp the amps"},
        {"alternator_pulley_ratio", "measure both pulleys"},
        {"regulated_V", "volts at its stud, fast, battery full"},
        {"converter_limit_A", "read the plate"},
        {"bond_mohm", "millivolts across it under a draw"},
        {"metal_mohm", "millivolts across it under a draw"},
        {"run_length_m", "measure along its way"},
        {"run_size_awg", "read the print, or gauge the strands"},
    };
    const auto at = words.find(key);
    return at == words.end() ? std::string() : at->second;
}

const char* how_to_draw() {
    return "A draw: something heavy at that battery (winch, heater, load tester, about 100 A). Read both "
           "within a few "
           "seconds, before a relay lets go.";
}

}  // namespace yr::words
