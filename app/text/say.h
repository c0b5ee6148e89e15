// The words of the interface, looked up in the catalogue (words/say.h) as Qt's text. Values go in by Qt's own
// %1: say("%1 to %2").arg(...).
#pragma once

#include <QCoreApplication>
#include <QLocale>
#include <QString>

#include "words/say.h"

namespace yr::app {

[[nodiscard]] inline QString q(const std::string& text) {
    return QString::fromStdString(text);
}

[[nodiscard]] inline QString say(const char* text) {
    return QString::fromUtf8(words::translated(text));
}

// One and many; %n stands for the count.
[[nodiscard]] inline QString say_n(const char* one, const char* many, long count) {
    const auto n = static_cast<unsigned long>(count < 0 ? -count : count);
    return QString::fromUtf8(words::translated(one, many, n))
        .replace(QStringLiteral("%n"), QString::number(count));
}

[[nodiscard]] inline QString say_in(const char* context, const char* text) {
    return QString::fromUtf8(words::translated_in(context, text));
}

// Texts in the desktop's language and numbers with its decimal comma; once, at the start. Numbers stay with a
// point inside the core and in files whatever the desktop says.
inline void use_desktop_language() {
    words::use_language(
        (QCoreApplication::applicationDirPath() + QStringLiteral("/../share/locale")).toUtf8().constData());
    words::use_decimal_comma(QLocale().decimalPoint() == QStringLiteral(","));
}

}  // namespace yr::app
