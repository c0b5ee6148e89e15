#include "words/say.h"

#include <libintl.h>

#include <clocale>

namespace yr::words {
namespace {

constexpr const char* kDomain = "your-rail";
bool comma_shown = false;  // like the catalogue itself: one language a process, chosen at its start

}  // namespace

const char* translated(const char* text) {
    // gettext answers the empty text with the catalogue's own head
    return *text == '\0' ? text : dgettext(kDomain, text);
}

const char* translated(const char* one, const char* many, unsigned long count) {
    return dngettext(kDomain, one, many, count);
}

const char* translated_in(const char* context, const char* text) {
    // gettext's own form of a text with context: both with an end-of-transmission between them
    const std::string key = std::string(context) + '\004' + text;
    const char* found = dgettext(kDomain, key.c_str());
    return found == key.c_str() ? text : found;
}

void use_decimal_comma(bool on) {
    comma_shown = on;
}

bool decimal_comma() {
    return comma_shown;
}

void use_language(const char* folder) {
    std::setlocale(LC_ALL, "");
    std::setlocale(LC_NUMERIC, "C");
    bindtextdomain(kDomain, folder);
    bind_textdomain_codeset(kDomain, "UTF-8");
}

}  // namespace yr::words
