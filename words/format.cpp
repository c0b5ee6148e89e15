#include "words/format.h"

#include <fmt/format.h>

#include <cmath>

namespace yr::words {
namespace {

constexpr const char* kThin = "\xE2\x80\x89";
constexpr const char* kMinus = "\xE2\x88\x92";

struct Scaled {
    double factor;
    const char* unit;
};

Scaled scale_of(double value, Dimension dimension, const Style& style) {
    const double size = std::abs(value);
    switch (dimension) {
        case Dimension::number:
            return {1, ""};
        case Dimension::current:
            return size != 0 && size < 0.1 ? Scaled{1e3, "mA"} : Scaled{1, "A"};
        case Dimension::voltage:
            return size < 1 ? Scaled{1e3, "mV"} : Scaled{1, "V"};
        case Dimension::power:
            return size >= 1e4               ? Scaled{1e-3, "kW"}
                   : size != 0 && size < 0.1 ? Scaled{1e3, "mW"}
                                             : Scaled{1, "W"};
        case Dimension::resistance:
            return size < 1 ? Scaled{1e3, "m\xCE\xA9"} : Scaled{1, "\xCE\xA9"};
        case Dimension::length:
            if (style.units == LeadUnits::inch)
                return size < kMetresPerFoot ? Scaled{1 / kMetresPerInch, "in"}
                                             : Scaled{1 / kMetresPerFoot, "ft"};
            return size != 0 && size < 1 ? Scaled{1e2, "cm"} : Scaled{1, "m"};
        case Dimension::area:
            return {1, "mm\xC2\xB2"};
        case Dimension::temperature:
            return {1,
                    "\xC2\xB0"
                    "C"};
        case Dimension::charge:
            return {1, "Ah"};
        case Dimension::fraction:
            return {100, "%"};
        case Dimension::time:
            return size < 1 ? Scaled{1e3, "ms"} : Scaled{1, "s"};
        case Dimension::speed:
            return {1, "rpm"};
    }
    return {1, ""};
}

std::string with_comma(std::string text, bool comma) {
    if (comma)
        if (const auto at = text.find('.'); at != std::string::npos) text[at] = ',';
    return text;
}

}  // namespace

std::string number(double value, int figures, bool comma) {
    if (!std::isfinite(value)) return "?";
    if (value == 0) return "0";
    const double size = std::abs(value);
    const int before = static_cast<int>(std::floor(std::log10(size) + 1e-12)) + 1;
    int decimals = figures - before;
    if (decimals < 0) decimals = 0;  // 1234 stays 1234: a person reads it, nobody rounds amps to hundreds
    if (decimals > 6) decimals = 6;
    std::string text = fmt::format("{:.{}f}", size, decimals);
    if (text.find('.') != std::string::npos) {
        while (text.back() == '0') text.pop_back();
        if (text.back() == '.') text.pop_back();
    }
    if (text == "0") return "0";
    return (value < 0 ? kMinus : "") + with_comma(std::move(text), comma);
}

namespace {

std::string quantity_of(double value, Dimension dimension, const Style& style, int more_figures) {
    const Scaled s = scale_of(value, dimension, style);
    int figures = 3;
    if (dimension == Dimension::voltage && std::abs(value) >= 10)
        figures = 4;  // 12.46 V: the field reads hundredths
    if (dimension == Dimension::fraction || dimension == Dimension::temperature)
        figures = 2 + (std::abs(value * s.factor) >= 100);
    if (dimension == Dimension::temperature && std::abs(value) < 1) return "0" + std::string(kThin) + s.unit;
    std::string text = number(value * s.factor, figures + more_figures, style.decimal_comma);
    return *s.unit ? text + kThin + s.unit : text;
}

}  // namespace

std::string quantity(double value, Dimension dimension, const Style& style) {
    return quantity_of(value, dimension, style, 0);
}

std::pair<std::string, std::string> told_apart(double value, double limit, Dimension dimension,
                                               const Style& style) {
    const std::string against = quantity(limit, dimension, style);
    for (int more = 0; more < 3; ++more) {
        auto a = quantity_of(value, dimension, style, more);
        if (a != quantity_of(limit, dimension, style, more) || value == limit) return {std::move(a), against};
    }
    return {value > limit ? say("just over {0}", against) : say("just under {0}", against), against};
}

std::string editable(double value, Dimension dimension, const Style& style) {
    Scaled s = scale_of(value, dimension, style);
    if (dimension == Dimension::voltage) s = {1, "V"};
    if (dimension == Dimension::current) s = {1, "A"};
    if (dimension == Dimension::power) s = {1, "W"};
    if (dimension == Dimension::length)
        s = style.units == LeadUnits::inch ? Scaled{1 / kMetresPerFoot, "ft"} : Scaled{1, "m"};
    const double shown = value * s.factor;
    // a length to what a tape reads: 3 m are 9.84 ft
    const double tape = style.units == LeadUnits::inch ? 100 : 1000;
    const double read = dimension == Dimension::length ? std::round(shown * tape) / tape : shown;
    std::string text = fmt::format("{:.10g}", read > 0 || shown <= 0 ? read : shown);
    if (two_readings(text)) text += "0";  // 1.125 might be eleven hundred; 1.1250 is not
    text = with_comma(std::move(text), style.decimal_comma);
    return *s.unit ? text + " " + s.unit : text;
}

std::string duration_h(double hours) {
    if (!std::isfinite(hours)) return translated("years");  // nothing flows that would end it
    if (hours >= 48) return number(hours / 24, 2) + translated(" days");
    const int minutes = static_cast<int>(std::lround(hours * 60));
    if (minutes < 1) return translated("less than a minute");
    if (minutes < 60) return fmt::format("{}{}min", minutes, kThin);
    if (hours >= 10 || minutes % 60 == 0)
        return fmt::format("{}{}h", static_cast<int>(std::lround(hours)), kThin);
    return fmt::format("{}{}h {}{}min", minutes / 60, kThin, minutes % 60, kThin);
}

std::string short_size(const WireSize& size) {
    std::string text = name_of(size);
    if (const auto at = text.find(' '); at != std::string::npos) text.replace(at, 1, kThin);
    return text;
}

std::string wire_size(const WireSize& size, const Style& style) {
    if (size.system() == SizeSystem::metric) return short_size(size);
    const auto c = conductor(size);
    if (!c) return short_size(size);
    const std::string area = quantity(c->area_mm2, Dimension::area, style);
    return style.units == LeadUnits::inch ? short_size(size) + " (" + area + ")"
                                          : area + " (" + short_size(size) + ")";
}

}  // namespace yr::words
