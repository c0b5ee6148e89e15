#include "typing/pins.h"

#include <algorithm>
#include <charconv>

#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

std::string number(double v) {
    std::string s = std::to_string(v);
    s.erase(s.find_last_not_of('0') + 1);
    if (s.ends_with('.')) s.pop_back();
    return s;
}

Result<int> pin_number(std::string_view text) {
    int pin = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), pin);
    if (error != std::errc() || end != text.data() + text.size() || pin < 1)
        return fail(ErrorCode::not_a_number, "pin", std::string(text), Want::a_number_of_its_own_from_1);
    return pin;
}

}  // namespace

std::string typed_pins(const Plan& plan, const std::vector<PinUse>& pins) {
    std::string text;
    for (std::size_t k = 0; k < pins.size(); ++k) {
        const bool goes_on =
            k > 0 && pins[k].connector == pins[k - 1].connector && pins[k].at_m == pins[k - 1].at_m;
        if (goes_on) {
            text += ", " + std::to_string(pins[k].pin);
            continue;
        }
        if (k > 0) text += "; ";
        text += name_of(plan, pins[k].connector);
        if (pins[k].at_m) text += " at " + number(*pins[k].at_m) + " m";
        text += ": " + std::to_string(pins[k].pin);
    }
    return text;
}

Result<std::vector<PinUse>> read_pins(const Plan& plan, std::string_view text) {
    std::vector<PinUse> pins;
    if (trim(text).empty()) return pins;
    for (const std::string_view part : split(text, ';')) {
        const std::string_view group = trim(part);
        const auto colon = group.rfind(':');
        if (colon == std::string_view::npos)
            return fail(ErrorCode::not_a_number, "pin", std::string(group), Want::a_number_of_its_own_from_1);
        std::string_view name = trim(group.substr(0, colon));
        PinUse use;
        const auto known = [&](std::string_view of) {
            for (const Connector& c : plan.connectors)
                if (c.name == of) use.connector = c.id;
            return !use.connector.empty();
        };
        if (const auto at = name.rfind(" at "); !known(name) && at != std::string_view::npos) {
            const auto length = parse_quantity(name.substr(at + 4), Dimension::length);
            if (!length || length->dimension != Dimension::length)
                return fail(ErrorCode::not_a_number, "pins", std::string(name), Want::a_length_up_to_200_m);
            use.at_m = length->value;
            name = trim(name.substr(0, at));
            (void)known(name);
        }
        if (use.connector.empty())
            return fail(ErrorCode::missing_reference, "pins", std::string(name),
                        Want::a_connector_of_this_plan);
        for (const std::string_view one : split(group.substr(colon + 1), ',')) {
            const auto pin = pin_number(trim(one));
            if (!pin) return tl::unexpected(pin.error());
            use.pin = *pin;
            pins.push_back(use);
        }
    }
    return pins;
}

}  // namespace yr
