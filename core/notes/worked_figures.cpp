#include "notes/worked_figures.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "units/pattern.h"
#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

// "LED tape 5 m @ 14 W/m": what the whole of it draws.
std::string tape_as_whole(const std::string& line) {
    static const Pattern by_metre(
        R"((\d+(?:\.\d+)?)\s*m\s*(?:@|x|at|of|,)?\s*(\d+(?:\.\d+)?)\s*W\s*(?:/|per)\s*m(?:et(?:re|er))?\b)"),
        by_watt(
            R"((\d+(?:\.\d+)?)\s*W\s*(?:/|per)\s*m(?:et(?:re|er))?\s*(?:@|x|,|for)?\s*(\d+(?:\.\d+)?)\s*m\b)");
    Found m;
    if (!by_metre.is_in(line, m) && !by_watt.is_in(line, m)) return line;
    const double watts =
        parse_value(m[1], Dimension::number).value_or(0) * parse_value(m[2], Dimension::number).value_or(0);
    return m.before() + shown(watts) + " W" + m.behind();
}

// "fridge 15 A (draws 4.5 A)", "heater 15 A (8 A at start, 1.5 A running)": the first is the fuse, what is in
// brackets the draw.
std::string fuse_before_its_draw(const std::string& line) {
    static const Pattern bracket(
        R"x(^([^\d("]*[a-z][^\d("]*?)\s*(\d+(?:\.\d+)?)\s*A\s*\(([^()"]*?\b(?:draws?|uses?|takes?|actual(?:ly)?|running|runs(?: at)?)\b[^()"]*)\)(.*)$)x");
    static const Pattern draw(R"(\d+(?:\.\d+)?\s*A\b)"),
        verb(R"(^.*?\b(?:draws?|uses?|takes?|actual(?:ly)?)\s+(?=\d))"),
        cycles(R"(\bcycl(?:es|ing)\s+(?=\d+\s*%))");
    Found m, d;
    if (!bracket.is_all_of(line, m) || !draw.is_in(m[3], d)) return line;
    const double fuse_A = parse_value(m[2], Dimension::number).value_or(0);
    for (std::string rest = m[3]; draw.is_in(rest, d); rest = d.behind())
        if (parse_value(d[0].substr(0, d[0].find_first_not_of("0123456789.")), Dimension::number)
                .value_or(0) >= fuse_A)
            return line;
    return m[1] + " " + cycles.replaced(verb.replaced(m[3], ""), "duty ") + ", fuse " + m[2] + " A" + m[4];
}

// "livewell pump 4 A timer 30 s on / 2 min off"
std::string timer_as_share(const std::string& line) {
    static const Pattern timer(
        R"(\s*,?\s*(?:\b(?:timer|timed|cycles?|on a timer)\s*:?\s*)?(?<![\d.])(\d+(?:\.\d+)?)\s*(s|min)\w*\s+on\s*[/,]?\s*(\d+(?:\.\d+)?)\s*(s|min)\w*\s+off\b)");
    Found m;
    if (!timer.is_in(line, m)) return line;
    const auto seconds = [](const std::string& figure, const std::string& unit) {
        return parse_value(figure, Dimension::number).value_or(0) * (to_lower(unit) == "min" ? 60 : 1);
    };
    const double on_s = seconds(m[1], m[2]), off_s = seconds(m[3], m[4]);
    if (on_s <= 0 || off_s <= 0) return line;
    return m.before() + ", duty " + shown(std::ceil(100 * on_s / (on_s + off_s))) + " %" + m.behind();
}

// "12 m run total there and back": one way is half of it.
std::string one_way(const std::string& line) {
    static const Pattern round_trip(
        R"((?<![\d.])(\d+(?:\.\d+)?)\s*(m|ft)\s+(?:of\s+)?(?:(?:run|cable|total|length)\s+)*(?:there and back|round trip|out and back)(?:\s+(?:run|total|length))?)");
    Found m;
    if (!round_trip.is_in(line, m)) return line;
    return m.before() + shown(parse_value(m[1], Dimension::number).value_or(0) / 2) + " " + m[2] + m.behind();
}

// "alternator 720 W" of a motorcycle: what it gives at the 14 V that it keeps (common practice); larger ones
// may be of 24 V, and are asked for their amps.
std::string alternator_in_amps(const std::string& line) {
    static const Pattern watts(R"(\b(alternator|stator|magneto)\s+(\d{2,3})\s*W\b)"),
        high(R"(\b(?:24|28|48)\s*V\b)");
    if (high.is_in(line)) return line;
    Found m;
    if (!watts.is_in(line, m)) return line;
    return m.before() + m[1] + " " +
           shown(std::floor(parse_value(m[2], Dimension::number).value_or(0) / 14)) + " A" + m.behind();
}

// "solar 2 strings 3x 400 W": six of them.
std::string strings_of_panels(const std::string& line) {
    static const Pattern strings(R"(^(\s*solar\b[^\d]*)(\d)\s+strings?\s+(?:of\s+)?(\d{1,2})\s*x\s*(?=\d))");
    Found m;
    if (!strings.is_in(line, m)) return line;
    const double panels =
        parse_value(m[2], Dimension::number).value_or(1) * parse_value(m[3], Dimension::number).value_or(1);
    return m[1] + shown(panels) + "x " + m.behind();
}

// "USB 2x 2.4 A at 5 V": watts are the same on both sides of what makes them.
std::string usb_in_watts(const std::string& line) {
    static const Pattern amps(R"(\b(\d+(?:\.\d+)?)\s*A\s*(?:at|@|/)?\s*5\s*V\b)"),
        supply(R"(\b(?:converter|dc-?dc|buck|regulator)\b)");
    Found m;
    if (supply.is_in(line) || !amps.is_in(line, m)) return line;
    return m.before() + shown(5 * parse_value(m[1], Dimension::number).value_or(0)) + " W" + m.behind();
}

// "solar 6x 200 W, 2x MPPT 50 A": what both give.
std::string controllers_together(const std::string& line) {
    static const Pattern solar(R"(\b(?:solar|panels?)\b)"),
        many(
            R"(\b([2-6])\s*x\s*(?:(?:mppt|pwm)(?:\s+controllers?)?\s+(\d+)\s*A\b|(\d+)\s*A\s+(?:mppt|pwm)s?\b))");
    Found m;
    if (!solar.is_in(line) || !many.is_in(line, m)) return line;
    const double amps = parse_value(m[1], Dimension::number).value_or(0) *
                        parse_value(m[m.has(2) && !m[2].empty() ? 2 : 3], Dimension::number).value_or(0);
    return m.before() + "MPPT " + shown(amps) + " A" + m.behind();
}

// "kettle 1200 W, 3 times a day, 4 min": how long at once, and how long of a day.
std::string times_of_a_day(const std::string& line) {
    static const std::string
        each = R"((\d+(?:\.\d+)?)\s*(s|secs?|min|mins|h)\w*\b(?:\s+(?:each|at a time|a time))?)",
        times = R"((\d{1,2})\s*(?:times|x)\s*(?:a|per|each|every|/)\s*day\b)";
    static const Pattern before("\\s*,?\\s*\\b" + times + R"(\s*,?\s*(?:for\s+)?)" + each),
        behind(R"(\s*,?\s*\b(?:for\s+)?)" + each + R"(\s*,?\s*)" + times);
    Found m;
    const bool first = before.is_in(line, m);
    if (!first && !behind.is_in(line, m)) return line;
    const double count = parse_value(m[first ? 1 : 3], Dimension::number).value_or(0),
                 once = parse_value(m[first ? 2 : 1], Dimension::number).value_or(0);
    const std::string said = to_lower(m[first ? 3 : 2]);
    const std::string unit = said.starts_with('s') ? "s" : said.starts_with('m') ? "min" : "h";
    const double minutes = count * once / (unit == "s" ? 60 : 1) * (unit == "h" ? 60 : 1);
    return m.before() + ", for " + shown(once) + " " + unit + ", " + shown(minutes) + " min a day" +
           m.behind();
}

// "fridge 3.5 A avg, 6 A when running": what it draws, and what share of the time.
std::string average_as_share(const std::string& line) {
    static const std::string figure = R"((\d+(?:\.\d+)?)\s*A\s+)",
                             mean = R"((?:avg\.?|average|mean|on average)\b)",
                             works = R"((?:(?:when|while)\s+)?(?:running|going|cycling|on)\b)";
    static const Pattern before(figure + mean + R"(\s*[,;/(]?\s*(?:but\s+)?)" + figure + works + R"(\)?)"),
        behind(figure + works + R"(\s*[,;/(]?\s*)" + figure + mean + R"(\)?)");
    // "autopilot 5 A avg 3 A"
    static const Pattern aside(R"((\d+(?:\.\d+)?)\s*A\s*[,;/(]?\s*)" + mean +
                               R"(\s*:?\s*(\d+(?:\.\d+)?)\s*A\b\)?)");
    Found m;
    const bool first = before.is_in(line, m);
    if (!first && !behind.is_in(line, m) && !aside.is_in(line, m)) return line;
    const double average = parse_value(m[first ? 1 : 2], Dimension::number).value_or(0),
                 draws = parse_value(m[first ? 2 : 1], Dimension::number).value_or(0);
    if (average <= 0 || average > draws) return line;
    return m.before() + shown(draws) + " A, duty " + shown(std::ceil(100 * average / draws)) + " %" +
           m.behind();
}

// "48 V 5 kWh lithium": its charge at its own volts. Of no volts it is not known.
std::string energy_as_charge(const std::string& line) {
    static const Pattern energy(R"((?<![\d.])(\d+(?:\.\d+)?)\s*kWh\b)"), hours(R"(\d\s*Ah\b)"),
        rail(R"((?<![\d.])(12|24|36|48)\s*V\b)"), exact(R"((?<![\d.])(12\.8|25\.6|38\.4|51\.2)\s*V\b)"),
        lead(R"(\b(?:lead|agm|gel|flooded|wet)\b)"), charged(R"(\b(?:a|per|each)\s+day\b|/\s*day\b)");
    Found m, v;
    if (hours.is_in(line) || charged.is_in(line) || !energy.is_in(line, m)) return line;
    if (!exact.is_in(line, v) && !rail.is_in(line, v)) return line;
    constexpr double kCells = 12.8 / 12;  // of lithium iron phosphate
    const double said_V = parse_value(v[1], Dimension::number).value_or(0);
    const double volts = rail.is_in(line) && !lead.is_in(line) ? said_V * kCells : said_V;
    return m.before() + shown(std::round(1000 * parse_value(m[1], Dimension::number).value_or(0) / volts)) +
           " Ah" + m.behind();
}

}  // namespace

// "fishfinder 12", GPS": where every quote stands behind a figure they are inches, and quote nothing.
std::string with_inches(const std::string& line) {
    static const Pattern inches(R"x((\d)")x"), quote(R"x((?<!\d)")x");
    return quote.is_in(line) ? line : inches.replaced(line, "$1\xE2\x80\xB3");
}

std::string with_worked_figures(std::string line) {
    for (const auto work :
         {tape_as_whole, one_way, fuse_before_its_draw, timer_as_share, strings_of_panels, alternator_in_amps,
          energy_as_charge, controllers_together, usb_in_watts, times_of_a_day, average_as_share})
        line = work(line);
    return line;
}

}  // namespace yr
