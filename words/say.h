// Every text that a person reads goes through here: looked up in the gettext catalogue of the domain
// "your-rail" (po/), then filled in. English is the source and, so far, the only language; what is typed into
// the type line stays English in every language.
//
//     say("{0} carries {1} in {2}.", run, amps, state)
//     say_n("{0} rail", "{0} rails", count)           one and many, by the language's own rule
//     say_in("length of cable", "left")               the same word in two meanings
//
// Texts are literals, so that xgettext finds them (cmake target `catalogue`, compared in a test).
#pragma once

#include <fmt/format.h>

#include <string>

namespace yr::words {

// The catalogue's text, or the given one. Lasts as long as the program.
[[nodiscard]] const char* translated(const char* text);
[[nodiscard]] const char* translated(const char* one, const char* many, unsigned long count);
[[nodiscard]] const char* translated_in(const char* context, const char* text);

// Chooses the catalogue of the desktop's language in `folder` (its locale directory). Numbers keep their
// point in the core whatever the desktop says: LC_NUMERIC is set back to "C".
void use_language(const char* folder);

// Whether numbers are shown with a decimal comma ("4,5 m"); a point unless it is asked for.
void use_decimal_comma(bool on);
[[nodiscard]] bool decimal_comma();

// Marks a text that is looked up later, where it is used.
[[nodiscard]] constexpr const char* later(const char* text) {
    return text;
}

template <class... Args>
[[nodiscard]] std::string say(const char* text, const Args&... args) {
    if constexpr (sizeof...(Args) == 0)
        return translated(text);
    else
        return fmt::format(fmt::runtime(translated(text)), args...);
}

// {0} is the count.
template <class... Args>
[[nodiscard]] std::string say_n(const char* one, const char* many, long count, const Args&... args) {
    const auto n = static_cast<unsigned long>(count < 0 ? -count : count);
    return fmt::format(fmt::runtime(translated(one, many, n)), count, args...);
}

template <class... Args>
[[nodiscard]] std::string say_in(const char* context, const char* text, const Args&... args) {
    if constexpr (sizeof...(Args) == 0)
        return translated_in(context, text);
    else
        return fmt::format(fmt::runtime(translated_in(context, text)), args...);
}

}  // namespace yr::words
