#include "words/wire_words.h"

#include <algorithm>

#include "fabricate/wires.h"
#include "words/build_words.h"
#include "words/meter_words.h"
#include "words/say.h"
#include "words/sentences.h"

namespace yr::words {
namespace {

std::string key_text(KeyPosition key) {
    switch (key) {
        case KeyPosition::off:
            return translated("Key off");
        case KeyPosition::accessory:
            return translated("Accessory");
        case KeyPosition::ignition:
            return translated("Ignition, engine standing");
        case KeyPosition::running:
            return translated("Engine running");
        case KeyPosition::cranking:
            return translated("While cranking");
    }
    return {};
}

std::string kind_text(const WireVerdict& v) {
    switch (v.kind) {
        case WireKind::not_known:
            return translated("Not yet known.");
        case WireKind::dead:
            return translated(
                "Dead in every position of the key: a return, cut, behind a fuse that is out or a switch.");
        case WireKind::constant:
            return translated("Constant: live with the key off.");
        case WireKind::accessory:
            return translated("Switched: live from accessory on.");
        case WireKind::ignition:
            return translated("Switched: live from ignition on.");
        case WireKind::running:
            return translated("Switched: live while the engine runs.");
        case WireKind::cranking:
            return translated("Live only while the starter turns.");
        case WireKind::timed:
            return translated("Timed: it stays live a while after the key is turned off.");
        case WireKind::by_switch:
            return say("Switched by “{0}”.", v.by);
    }
    return {};
}

}  // namespace

std::string sentence(const Plan& plan, const WireTry& t) {
    if (t.just_after) return translated("Just after the key is turned off");
    if (!t.opened.empty()) return say("{0}, {1} opened", key_text(t.key), yr::name_of(plan, t.opened));
    if (!t.switched.empty()) return say("{0}, “{1}” on", key_text(t.key), t.switched);
    return t.key == KeyPosition::off ? translated("Key off for an hour") : key_text(t.key);
}

std::string sentence(const Plan& plan, const WireVerdict& v) {
    std::string text = kind_text(v);
    if (!v.behind.empty()) text += " " + say("{0} takes its volts.", capital(yr::name_of(plan, v.behind)));
    if (v.perhaps_timed)
        text +=
            " " + std::string(translated("Read it just after the key is turned off too: it may be timed."));
    if (!v.neither.empty())
        text +=
            " " +
            std::string(translated(
                "Volts between are neither there nor not: a meter sees them through what hangs on the wire. "
                "Put a small lamp on it and read again."));
    return text;
}

std::string next_sentence(const Plan& plan, const WireBook& book, const WireVerdict& v) {
    if (!v.next) return {};
    const std::string what = sentence(plan, book.tries[*v.next]);
    if (v.leaves >= v.fits.size()) return what + ".";
    return say_n("{1}: at most {0} cable is left then.", "{1}: at most {0} cables are left then.",
                 static_cast<long>(v.leaves), what);
}

std::string wire_text(const Plan& plan, const Id& run) {
    const Run* r = find(plan.runs, run);
    if (!r) return {};
    return say("{0}, from {1} to {2}", capital(yr::name_of(plan, run)), terminal(plan, r->from),
               terminal(plan, r->to));
}

std::string sentence(const HealthDay& d, double cold_C, const Style& style) {
    const auto volts = [&](double v) { return quantity(v, Dimension::voltage, style); };
    const auto warmth = [&](double t) { return quantity(t, Dimension::temperature, style); };
    std::string text;
    if (d.crank_V && d.cold)
        text = say("Cranked at {0} at {1}: at {2} it would crank at {3}, {4} are needed.", volts(*d.crank_V),
                   warmth(*d.at_C), warmth(cold_C), volts(d.cold->post_V), volts(d.cold->least_V));
    if (d.rested_V && d.charge)
        text += (text.empty() ? "" : " ") + say("{0} at rest: about {1} charged.", volts(*d.rested_V),
                                                quantity(*d.charge, Dimension::fraction, style));
    else if (d.rested_V)
        text += (text.empty() ? "" : " ") +
                say("{0} is more than it has at rest: it was charged a while ago. Wait {1} h, or burn it off "
                    "with the lights for a minute.",
                    volts(*d.rested_V), number(kRest_h));
    if (d.ohm)
        text += (text.empty() ? "" : " ") +
                say("Its resistance is {0}.", quantity(*d.ohm, Dimension::resistance, style));
    return text;
}

std::string sentence(const Outlook& o, double cold_C, const Style& style) {
    const std::string rate = quantity(o.trend.a_year, Dimension::voltage, style),
                      doubt = quantity(o.trend.doubt_a_year, Dimension::voltage, style),
                      cold = quantity(cold_C, Dimension::temperature, style);
    if (o.reaches)
        return say(
            "Cranking volts at {0} change by {1} ± {2} a year: if it goes on so, it will not crank there "
            "from {3} on.",
            cold, rate, doubt, o.reaches->substr(0, 7));
    return say("Cranking volts at {0} change by {1} ± {2} a year: no end is in sight.", cold, rate, doubt);
}

Sheet plug_sheet(const Plan& plan, const EndPlug& plug, const CodedPlug& code, std::size_t first,
                 const std::vector<std::optional<double>>& read_ohm) {
    Sheet s{say("End plug: {0}", plug.name),
            {translated("pin"), translated("cable"), translated("colour"), translated("from, to"),
             translated("resistor"), translated("read"), translated("is")},
            {}};
    const std::vector<WireRow> wires = wire_table(plan);
    const std::vector<int> pins(plug.pins.begin() + static_cast<std::ptrdiff_t>(first), plug.pins.end());
    const auto verdicts = judge_plug(code, read_ohm, instrument_of(plan));
    for (std::size_t k = 0; k < code.ohm.size() && k < pins.size(); ++k) {
        const Run* run = find(plan.runs, plug.runs[first + k]);
        const auto row = std::find_if(wires.begin(), wires.end(),
                                      [&](const WireRow& w) { return &plan.runs[w.run] == run; });
        const bool known = row != wires.end();
        s.rows.push_back(
            {std::to_string(pins[k]), known ? row->number : std::string(),
             known ? colour_text(row->colour) : std::string(),
             run ? say("{0}, {1}", terminal(plan, run->from), terminal(plan, run->to)) : std::string(),
             quantity(code.ohm[k], Dimension::resistance),
             verdicts[k] ? quantity(*read_ohm[k], Dimension::resistance) : std::string(),
             !verdicts[k]                                   ? std::string()
             : verdicts[k]->kind == PlugVerdict::Kind::good ? std::string(translated("right"))
                                                            : sentence(*verdicts[k], pins)});
    }
    return s;
}

}  // namespace yr::words
