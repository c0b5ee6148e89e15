#include "units/quantity.h"

#include <array>
#include <cctype>
#include <charconv>
#include <cmath>

#include "units/text.h"

namespace yr {
namespace {

struct Spelling {
    std::string_view text;
    UnitInfo unit;
};

using D = Dimension;

// Case is kept only where it decides (m against M): all other spellings are compared in lower case.
// Factors: the SI brochure and the exact inch and foot; the tests hold them to GNU units.
constexpr std::array kSpellings{
    Spelling{"a", {D::current, 1}},
    Spelling{"amp", {D::current, 1}},
    Spelling{"amps", {D::current, 1}},
    Spelling{"ampere", {D::current, 1}},
    Spelling{"amperes", {D::current, 1}},
    Spelling{"ma", {D::current, 1e-3}},
    Spelling{"v", {D::voltage, 1}},
    Spelling{"volt", {D::voltage, 1}},
    Spelling{"volts", {D::voltage, 1}},
    Spelling{"vdc", {D::voltage, 1}},
    Spelling{"mv", {D::voltage, 1e-3}},
    Spelling{"w", {D::power, 1}},
    Spelling{"watt", {D::power, 1}},
    Spelling{"watts", {D::power, 1}},
    Spelling{"mw", {D::power, 1e-3}},
    Spelling{"kw", {D::power, 1e3}},
    Spelling{"hp", {D::power, 745.69987158227022}},
    Spelling{"ohm", {D::resistance, 1}},
    Spelling{"ohms", {D::resistance, 1}},
    Spelling{"\xCE\xA9", {D::resistance, 1}},      // Greek capital omega
    Spelling{"\xE2\x84\xA6", {D::resistance, 1}},  // ohm sign
    Spelling{"mohm", {D::resistance, 1e-3}},
    Spelling{"milliohm", {D::resistance, 1e-3}},
    Spelling{"m\xCE\xA9", {D::resistance, 1e-3}},
    Spelling{"m\xE2\x84\xA6", {D::resistance, 1e-3}},
    Spelling{"m", {D::length, 1}},
    Spelling{"meter", {D::length, 1}},
    Spelling{"meters", {D::length, 1}},
    Spelling{"metre", {D::length, 1}},
    Spelling{"metres", {D::length, 1}},
    Spelling{"cm", {D::length, 0.01}},
    Spelling{"mm", {D::length, 0.001}},
    Spelling{"ft", {D::length, kMetresPerFoot}},
    Spelling{"foot", {D::length, kMetresPerFoot}},
    Spelling{"feet", {D::length, kMetresPerFoot}},
    Spelling{"'", {D::length, kMetresPerFoot}},
    Spelling{"in", {D::length, kMetresPerInch}},
    Spelling{"inch", {D::length, kMetresPerInch}},
    Spelling{"inches", {D::length, kMetresPerInch}},
    Spelling{"\"", {D::length, kMetresPerInch}},
    Spelling{"\xE2\x80\xB3", {D::length, kMetresPerInch}},
    Spelling{"yd", {D::length, 0.9144}},
    Spelling{"mm2", {D::area, 1}},
    Spelling{"mm^2", {D::area, 1}},
    Spelling{"mm\xC2\xB2", {D::area, 1}},  // superscript two
    Spelling{"sqmm", {D::area, 1}},
    Spelling{"cmil", {D::area, 5.067074790974977e-4}},
    Spelling{"kcmil", {D::area, 0.5067074790974977}},
    Spelling{"c", {D::temperature, 1}},
    Spelling{"degc", {D::temperature, 1}},
    Spelling{"\xC2\xB0"
             "c",
             {D::temperature, 1}},
    Spelling{"f", {D::temperature, 5.0 / 9.0, -160.0 / 9.0}},
    Spelling{"degf", {D::temperature, 5.0 / 9.0, -160.0 / 9.0}},
    Spelling{"\xC2\xB0"
             "f",
             {D::temperature, 5.0 / 9.0, -160.0 / 9.0}},
    Spelling{"ah", {D::charge, 1}},
    Spelling{"%", {D::fraction, 0.01}},
    Spelling{"percent", {D::fraction, 0.01}},
    Spelling{"s", {D::time, 1}},
    Spelling{"sec", {D::time, 1}},
    Spelling{"ms", {D::time, 1e-3}},
    Spelling{"min", {D::time, 60}},
    Spelling{"h", {D::time, 3600}},
    Spelling{"hour", {D::time, 3600}},
    Spelling{"hours", {D::time, 3600}},
    Spelling{"rpm", {D::speed, 1}},
};

std::optional<int> take_count(std::string_view& text) {
    // "2x 90 W", "2 x 90 W", "2 × 90 W"; a lone "x" without a number behind it is left alone
    std::string_view rest = text;
    int count = 0;
    const auto [end, err] = std::from_chars(rest.data(), rest.data() + rest.size(), count);
    if (err != std::errc{} || count < 1 || count > 999) return std::nullopt;
    rest.remove_prefix(static_cast<std::size_t>(end - rest.data()));
    rest = trim(rest);
    if (starts_with(rest, "x") || starts_with(rest, "X"))
        rest.remove_prefix(1);
    else if (starts_with(rest, "\xC3\x97"))
        rest.remove_prefix(2);
    else
        return std::nullopt;
    rest = trim(rest);
    if (rest.empty() || !(std::isdigit(static_cast<unsigned char>(rest[0])) || rest[0] == '.'))
        return std::nullopt;
    text = rest;
    return count;
}

}  // namespace

namespace {

std::string plain_number(double v) {
    char text[32];
    const auto [end, error] = std::to_chars(text, text + sizeof text, v);
    return {text, end};
}

}  // namespace

std::optional<UnitInfo> find_unit(std::string_view spelling) {
    const std::string lower = to_lower(trim(spelling));
    for (const Spelling& s : kSpellings)
        if (s.text == lower) return s.unit;
    return std::nullopt;
}

std::optional<std::pair<double, double>> two_readings(std::string_view text) {
    text = trim(text);
    const auto digit = [&](std::size_t k) {
        return k < text.size() && std::isdigit(static_cast<unsigned char>(text[k]));
    };
    std::size_t before = 0;
    while (digit(before)) ++before;
    if (before < 1 || before > 3 || text[0] == '0' || before >= text.size()) return std::nullopt;
    if (text[before] != ',' && text[before] != '.') return std::nullopt;
    std::size_t after = before + 1;
    while (digit(after)) ++after;
    if (after != before + 4) return std::nullopt;
    const char next = after < text.size() ? text[after] : ' ';
    if ((next == ',' || next == '.') && digit(after + 1)) return std::nullopt;
    const bool signed_power = after + 1 < text.size() && text[after + 1] == '-';
    if ((next == 'e' || next == 'E') && digit(after + 1 + signed_power)) return std::nullopt;
    double whole = 0;
    const std::string digits = std::string(text.substr(0, before)) + std::string(text.substr(before + 1, 3));
    std::from_chars(digits.data(), digits.data() + digits.size(), whole);
    return std::pair(whole, whole / 1000);
}

std::optional<double> take_number(std::string_view& text) {
    std::string digits;
    std::size_t used = 0;
    bool point = false;
    const auto digit_at = [&](std::size_t k) {
        return k < text.size() && std::isdigit(static_cast<unsigned char>(text[k]));
    };
    if (starts_with(text, "-"))
        digits += '-', used = 1;
    else if (starts_with(text, "+"))
        used = 1;
    else if (starts_with(text, "\xE2\x88\x92"))
        digits += '-', used = 3;  // the minus sign we print
    while (used < text.size()) {
        const char c = text[used];
        if (std::isdigit(static_cast<unsigned char>(c)))
            digits += c;
        else if ((c == '.' || c == ',') && !point && digit_at(used + 1))
            digits += '.', point = true;
        else if ((c == 'e' || c == 'E') && !digits.empty() &&
                 (digit_at(used + 1) ||
                  ((used + 1 < text.size()) && (text[used + 1] == '-') && digit_at(used + 2)))) {
            digits += 'e';
            if (text[used + 1] == '-') digits += '-', ++used;
            point = true;
        } else
            break;
        ++used;
    }
    double value = 0;
    const auto [end, err] = std::from_chars(digits.data(), digits.data() + digits.size(), value);
    if (err != std::errc{} || end != digits.data() + digits.size() || !std::isfinite(value))
        return std::nullopt;
    text.remove_prefix(used);
    return value;
}

Result<Quantity> parse_quantity(std::string_view text, Dimension assumed) {
    const std::string_view whole = trim(text);
    std::string_view rest = whole;
    if (rest.empty()) return fail(ErrorCode::empty, {}, {}, {Want::a_quantity_in, dimension_word(assumed)});
    Quantity q;
    q.count = take_count(rest).value_or(1);
    if (const auto both = two_readings(rest))
        return fail(ErrorCode::two_readings, {}, std::string(whole),
                    {Want::either_of, plain_number(both->first), plain_number(both->second)});
    const auto number = take_number(rest);
    if (!number)
        return fail(ErrorCode::not_a_number, {}, std::string(whole),
                    {Want::a_quantity_in, dimension_word(assumed)});
    rest = trim(rest);
    if (rest.empty()) {
        q.dimension = assumed;
        q.value = assumed == Dimension::fraction ? *number / 100 : *number;  // "3" in a per cent field is 3 %
        return q;
    }
    const auto unit = find_unit(rest);
    if (!unit)
        return fail(ErrorCode::unknown_unit, {}, std::string(rest),
                    {Want::a_quantity_in, dimension_word(assumed)});
    q.dimension = unit->dimension;
    q.value = *number * unit->factor + unit->offset;
    return q;
}

Result<double> parse_value(std::string_view text, Dimension wanted) {
    auto q = parse_quantity(text, wanted);
    if (!q) return tl::unexpected(q.error());
    if (q->dimension != wanted || q->count != 1)
        return fail(ErrorCode::wrong_dimension, {}, std::string(trim(text)),
                    {Want::a_quantity_in, dimension_word(wanted)});
    return q->value;
}

Result<double> parse_reading(std::string_view text, Dimension wanted) {
    constexpr double kMost_V = 100, kMost_A = 1000;
    const std::string_view figure = trim(text);
    const bool limited = wanted == Dimension::voltage || wanted == Dimension::current;
    if (!limited || !two_readings(figure)) return parse_value(text, wanted);
    const std::size_t behind = figure.find_first_of(",.") + 4;
    std::string small(figure.substr(0, behind));
    small += "0" + std::string(figure.substr(behind));  // 12.3450: no thousands
    auto value = parse_value(small, wanted);
    const double most = wanted == Dimension::voltage ? kMost_V : kMost_A;
    if (value && *value <= most && *value * 1000 > most) return value;
    return parse_value(text, wanted);
}

const char* dimension_word(Dimension dimension) {
    switch (dimension) {
        case D::number:
            return "a number";
        case D::current:
            return "amps";
        case D::voltage:
            return "volts";
        case D::power:
            return "watts";
        case D::resistance:
            return "ohms";
        case D::length:
            return "a length in m, ft or in";
        case D::area:
            return "mm2";
        case D::temperature:
            return "degrees C";
        case D::charge:
            return "amp hours";
        case D::fraction:
            return "per cent";
        case D::time:
            return "a time";
        case D::speed:
            return "rpm";
    }
    return "a number";
}

}  // namespace yr
