// The options of a stand-in: read with Qt's parser, refused with a sentence that names the option.
#pragma once

#include <QCommandLineParser>
#include <QCoreApplication>
#include <cmath>
#include <cstdio>
#include <memory>
#include <optional>
#include <type_traits>

namespace yr::sim {

class Options {
  public:
    explicit Options(const QString& what) {
        parser_.setApplicationDescription(what);
        help_ = std::make_unique<QCommandLineOption>(parser_.addHelpOption());
    }
    void add(const QStringList& names, const QString& tells, const QString& value = {}) {
        parser_.addOption({names, tells, value});
    }
    void positional(const QString& name, const QString& tells) { parser_.addPositionalArgument(name, tells); }

    // The code to end with, where there is nothing to do: 0 after help, 2 for what it was not made for.
    [[nodiscard]] std::optional<int> read(int positionals) {
        const bool read = parser_.parse(QCoreApplication::arguments());
        if (read && parser_.isSet(*help_)) {
            std::fputs(qUtf8Printable(parser_.helpText()), stdout);
            return 0;
        }
        if (!read) return refuse(parser_.errorText());
        const QStringList rest = parser_.positionalArguments();
        if (rest.size() < positionals) return refuse(QStringLiteral("PLAN is missing."));
        if (rest.size() > positionals) return refuse(rest.last() + QStringLiteral(" was not expected."));
        return std::nullopt;
    }
    [[nodiscard]] bool has(const QString& name) const { return parser_.isSet(name); }
    [[nodiscard]] QString text(const QString& name) const { return parser_.value(name); }
    [[nodiscard]] QString first() const { return parser_.positionalArguments().value(0); }

    // Leaves `value` as it is where the option is not given. False: it is no such number, which was said.
    template <class T>
    [[nodiscard]] bool number(const QString& name, T& value, double least, double most) const {
        if (!has(name)) return true;
        bool good = false;
        const double said = text(name).toDouble(&good);
        if (!good || said < least || said > most || (std::is_integral_v<T> && said != std::floor(said))) {
            refuse(QStringLiteral("--%1: %2 is no number from %3 to %4.")
                       .arg(name, text(name))
                       .arg(least)
                       .arg(most));
            return false;
        }
        value = static_cast<T>(said);
        return true;
    }
    static int refuse(const QString& sentence) {
        std::fprintf(stderr, "%s\n", qUtf8Printable(sentence));
        return 2;
    }

  private:
    QCommandLineParser parser_;
    std::unique_ptr<QCommandLineOption> help_;
};

}  // namespace yr::sim
