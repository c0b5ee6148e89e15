#include "units/wire_size.h"

#include <charconv>
#include <cmath>
#include <numbers>
#include <optional>

#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

// "10" -> 10, "1/0" -> 0, "4/0" -> -3, "00" -> -1
std::optional<int> gauge_number(std::string_view text) {
    text = trim(text);
    if (text.size() == 3 && text[1] == '/' && text[2] == '0' && text[0] >= '1' && text[0] <= '4')
        return '1' - text[0];
    if (!text.empty() && text.size() <= 4 && text.find_first_not_of('0') == std::string_view::npos)
        return 1 - static_cast<int>(text.size());
    int number = 0;
    const auto [end, err] = std::from_chars(text.data(), text.data() + text.size(), number);
    if (err != std::errc{} || end != text.data() + text.size() || number < 1 || number > 40)
        return std::nullopt;
    return number;
}

bool drop_word(std::string& text, std::string_view word) {
    const std::size_t at = text.find(word);
    if (at == std::string::npos) return false;
    text.erase(at, word.size());
    return true;
}

std::string gauge_text(int number) {
    return number > 0 ? std::to_string(number) : std::to_string(1 - number) + "/0";
}

}  // namespace

Result<WireSize> parse_wire_size(std::string_view text) {
    const auto bad = [&] {
        return fail(ErrorCode::unknown_size, {}, std::string(trim(text)),
                    Want::a_size_such_as_10_awg_1_0_sae_8_or_25_mm2);
    };
    std::string lower = to_lower(trim(text));
    if (lower.empty()) return bad();
    const bool sae = drop_word(lower, "sae");
    const bool awg = !sae && (drop_word(lower, "awg") || drop_word(lower, "gauge") || drop_word(lower, "ga"));
    if (const auto number = gauge_number(lower)) return sae ? WireSize::sae(*number) : WireSize::awg(*number);
    if (sae || awg) return bad();
    const auto area = parse_quantity(lower);
    if (!area || area->dimension != Dimension::area || area->count != 1 || !(area->value > 0.01) ||
        area->value > 1000)
        return bad();
    if (lower.find("cmil") != std::string::npos) return bad();  // an area, not a size one can buy
    return WireSize::metric(area->value);
}

std::string name_of(const WireSize& size) {
    switch (size.system()) {
        case SizeSystem::awg:
            return gauge_text(size.number()) + " AWG";
        case SizeSystem::sae:
            return "SAE " + gauge_text(size.number());
        case SizeSystem::metric:
            break;
    }
    char buffer[32];
    const auto [end, err] = std::to_chars(buffer, buffer + sizeof buffer, size.nominal_mm2());
    return std::string(buffer, err == std::errc{} ? end : buffer) + " mm\xC2\xB2";
}

double awg_diameter_mm(int number) {
    return 0.127 * std::pow(92.0, (36.0 - number) / 39.0);
}

double awg_area_mm2(int number) {
    const double d = awg_diameter_mm(number);
    return std::numbers::pi / 4 * d * d;
}

}  // namespace yr
