// The few string helpers that reading needs; ASCII case only, bytes above 127 pass through untouched.
#pragma once

#include <concepts>
#include <cstdio>
#include <string>
#include <string_view>
#include <vector>

namespace yr {

[[nodiscard]] inline bool starts_with(std::string_view text, std::string_view head) {
    return text.substr(0, head.size()) == head;
}

[[nodiscard]] inline std::string_view trim(std::string_view text) {
    const auto space = [](char c) { return c == ' ' || c == '\t' || c == '\n' || c == '\r'; };
    while (!text.empty() && space(text.front())) text.remove_prefix(1);
    while (!text.empty() && space(text.back())) text.remove_suffix(1);
    // the no-break and thin spaces that our own output puts between number and unit
    for (std::string_view s : {"\xC2\xA0", "\xE2\x80\x89", "\xE2\x80\xAF"}) {
        if (starts_with(text, s)) return trim(text.substr(s.size()));
        if (text.size() >= s.size() && text.substr(text.size() - s.size()) == s)
            return trim(text.substr(0, text.size() - s.size()));
    }
    return text;
}

[[nodiscard]] inline std::string to_lower(std::string_view text) {
    std::string out(text);
    for (char& c : out)
        if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
    return out;
}

// Without the quotation marks round it, where it has them.
[[nodiscard]] inline std::string unquoted(std::string_view text) {
    text = trim(text);
    if (text.size() > 1 && text.front() == '"' && text.back() == '"') text = text.substr(1, text.size() - 2);
    return std::string(text);
}

// As a person would write it: "12.8", not "12.800000".
[[nodiscard]] inline std::string shown(double value) {
    char text[32];
    std::snprintf(text, sizeof text, "%.6g", value);
    return text;
}

[[nodiscard]] inline std::vector<std::string_view> split(std::string_view text, char separator) {
    std::vector<std::string_view> parts;
    std::size_t from = 0;
    while (true) {
        const std::size_t at = text.find(separator, from);
        parts.push_back(text.substr(from, at == std::string_view::npos ? at : at - from));
        if (at == std::string_view::npos) return parts;
        from = at + 1;
    }
}

// The parts lie in the text: one that goes away at once has none.
template <class Text>
requires std::same_as<Text, std::string> std::vector<std::string_view> split(Text&& text, char separator)
= delete;

}  // namespace yr
