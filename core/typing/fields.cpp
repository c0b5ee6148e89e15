#include "typing/fields.h"

#include <cstdio>

#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

std::string plain(double value) {
    char text[32];
    std::snprintf(text, sizeof text, "%.10g", value);
    return text;
}

template <class T, class F>
std::string joined(const std::vector<T>& things, const char* between, F&& text_of) {
    std::string text;
    for (const T& t : things) text += (text.empty() ? "" : between) + text_of(t);
    return text;
}

tl::unexpected<Error> bad(std::string_view entry) {
    return fail(ErrorCode::not_a_number, {}, std::string(trim(entry)));
}

// "A: 35" -> "A", "35"
std::optional<std::pair<std::string_view, std::string_view>> at_colon(std::string_view entry) {
    const auto colon = entry.find(':');
    if (colon == std::string_view::npos || entry.find(':', colon + 1) != std::string_view::npos)
        return std::nullopt;
    return std::pair(trim(entry.substr(0, colon)), trim(entry.substr(colon + 1)));
}

// What follows a leading word; nullopt where the part does not begin with it.
std::optional<std::string> after_word(std::string_view part, std::string_view word) {
    if (!starts_with(to_lower(part), std::string(word) + " ")) return std::nullopt;
    return std::string(trim(part.substr(word.size())));
}

}  // namespace

std::string typed_curve(const Curve& curve, bool shares) {
    return joined(curve, ", ", [&](const auto& point) {
        return (shares ? plain(100 * point.first) + " %: " : plain(point.first) + ": ") + plain(point.second);
    });
}

Result<Curve> read_curve(std::string_view text, bool shares) {
    Curve curve;
    if (trim(text).empty()) return curve;
    for (const std::string_view entry : split(text, ',')) {
        const auto two = at_colon(entry);
        if (!two) return bad(entry);
        std::string first(two->first);
        if (shares && !first.ends_with('%')) first += " %";
        const auto x = parse_value(first, shares ? Dimension::fraction : Dimension::number);
        const auto y = parse_value(two->second, Dimension::number);
        if (!x || !y) return bad(entry);
        curve.emplace_back(*x, *y);
    }
    return curve;
}

std::string typed_channel(const Channel& c) {
    std::vector<std::string> parts;
    if (c.rating_A) parts.push_back(plain(*c.rating_A) + " A");
    if (c.peak_A) parts.push_back("start " + plain(*c.peak_A) + " A");
    if (!c.group.empty()) parts.push_back("group " + c.group);
    if (!c.label.empty()) parts.push_back("label " + c.label);
    return joined(parts, "; ", [](const std::string& p) { return p; });
}

Result<Channel> read_channel(std::string_view text, int number) {
    Channel channel;
    channel.number = number;
    for (const std::string_view entry : split(text, ';')) {
        const std::string_view part = trim(entry);
        if (part.empty()) continue;
        if (const auto group = after_word(part, "group")) {
            channel.group = *group;
        } else if (const auto label = after_word(part, "label")) {
            channel.label = *label;
        } else {
            const auto start = after_word(part, "start");
            const auto amps = parse_value(start ? std::string_view(*start) : part, Dimension::current);
            if (!amps || !(*amps > 0)) return bad(part);
            (start ? channel.peak_A : channel.rating_A) = *amps;
        }
    }
    return channel;
}

std::string typed_groups(const std::vector<ChannelGroup>& groups) {
    return joined(groups, ", ", [](const ChannelGroup& g) { return g.name + ": " + plain(g.limit_A); });
}

Result<std::vector<ChannelGroup>> read_groups(std::string_view text) {
    std::vector<ChannelGroup> groups;
    for (const std::string_view entry : split(text, ',')) {
        if (trim(entry).empty()) continue;
        const auto two = at_colon(entry);
        const auto limit = two ? parse_value(two->second, Dimension::current) : Result<double>(bad(entry));
        if (!limit || !(*limit > 0) || two->first.empty()) return bad(entry);
        groups.push_back({std::string(two->first), *limit});
    }
    return groups;
}

std::string typed_stock(const std::vector<Stock>& stock) {
    return joined(stock, ", ", [](const Stock& s) { return plain(s.length_m) + " m " + name_of(s.size); });
}

Result<std::vector<Stock>> read_stock(std::string_view text) {
    std::vector<Stock> stock;
    for (const std::string_view raw : split(text, ',')) {
        const std::string_view entry = trim(raw);
        if (entry.empty()) continue;
        // the length is a number and its unit: up to the first space behind a letter
        std::size_t cut = entry.find_first_of("mf");
        cut = cut == std::string_view::npos ? cut : entry.find(' ', cut);
        if (cut == std::string_view::npos) return bad(entry);
        const auto length = parse_value(entry.substr(0, cut), Dimension::length);
        const auto size = parse_wire_size(std::string(trim(entry.substr(cut))));
        if (!length || !(*length > 0)) return bad(entry);
        if (!size) return fail(ErrorCode::unknown_size, {}, std::string(entry));
        stock.push_back({*size, *length});
    }
    return stock;
}

}  // namespace yr
