// What the forms of several kinds of things share: one thing of the plan edited part by part.
#pragma once

#include <functional>

#include "plan/names.h"
#include "shell/field_form.h"

namespace yr::app {

// Changes one part of a thing of the plan through the document: the thing is looked up anew each time.
template <class T>
struct Part {
    PlanDocument* document;
    std::vector<T> Plan::*list;
    Id id;

    const T& get() const { return *yr::find(document->plan().*list, id); }
    bool alive() const { return yr::find(document->plan().*list, id) != nullptr; }
    bool set(const QString& what, const std::function<void(T&)>& change) const {
        if (!alive()) return false;
        T changed = get();
        change(changed);
        if (changed == get()) return true;
        return document->apply(Put<T>{changed, {}}, q(changed.name) + QStringLiteral(": ") + what);
    }
};

template <class T>
void name_field(FieldForm& form, const Part<T>& part) {
    form.text(
        QStringLiteral("Name"), [part] { return part.alive() ? q(part.get().name) : QString(); },
        [part](const QString& typed) {
            if (typed.trimmed().isEmpty()) return QStringLiteral("A name is needed.");
            part.set(QStringLiteral("named ") + typed, [&](T& x) { x.name = typed.trimmed().toStdString(); });
            return QString();
        });
}

// An optional number of a thing; empty for unknown.
template <class T>
void number_field(FieldForm& form, const Part<T>& part, const QString& label, Dimension dimension,
                  std::optional<double> T::*member, const QString& assumed, double low, double high) {
    form.quantity(
        label, dimension, [part, member] { return part.alive() ? part.get().*member : std::nullopt; },
        [part, member, label](std::optional<double> v) {
            return part.set(label.toLower(), [&](T& x) { x.*member = v; });
        },
        true, assumed, low, high);
}

template <class T, class E>
void enum_field(FieldForm& form, const Part<T>& part, const QString& label,
                const std::vector<Choice>& choices, E T::*member) {
    form.choice(
        label, choices, [part, member] { return part.alive() ? Id(enum_name(part.get().*member)) : Id(); },
        [part, member, label](const Id& v) {
            part.set(label.toLower() + QLatin1Char(' ') + q(v), [&](T& x) { x.*member = *enum_named<E>(v); });
        });
}

[[nodiscard]] QString curve_text(const std::vector<std::pair<double, double>>& curve, bool shares);
[[nodiscard]] std::optional<std::vector<std::pair<double, double>>> read_curve(const QString& text,
                                                                               bool shares);

// "0: 20, 50 %: 58, 100 %: 96" for a curve of shares; the first numbers are shares where `shares`, else
// plain.
template <class T>
void curve_field(FieldForm& form, const Part<T>& part, const QString& label,
                 std::vector<std::pair<double, double>> T::*member, bool shares, const QString& assumed) {
    form.text(
        label,
        [part, member, shares] { return part.alive() ? curve_text(part.get().*member, shares) : QString(); },
        [part, member, label, shares](const QString& typed) {
            const auto curve = read_curve(typed, shares);
            if (!curve)
                return QStringLiteral("%1: pairs are needed, such as %2.")
                    .arg(label, shares ? QStringLiteral("0 %: 20, 50 %: 58, 100 %: 96")
                                       : QStringLiteral("1500: 90, 6000: 180"));
            return part.set(label.toLower(), [&](T& x) { x.*member = *curve; })
                       ? QString()
                       : QStringLiteral("The plan does not take this: the first numbers must rise.");
        },
        assumed);
}

// When something is live, closed or working: the key, switches, and folded away what is rarer.
void condition_fields(FieldForm& form, const QString& label, const PlanDocument* document,
                      const std::function<Condition()>& get,
                      const std::function<void(const QString& what, const Condition&)>& set);

[[nodiscard]] std::vector<Choice> places_of(const Plan& plan);
[[nodiscard]] QString text_of(double value, Dimension dimension, const PlanDocument* document);

// One device of a run, looked up anew each time and changed through its run.
struct DevicePart {
    Part<Run> run;
    Id device;
    [[nodiscard]] const Device* get() const;  // nullptr once it is gone
    bool set(const QString& what, const std::function<void(Device&)>& change) const;
};

// A choice of what to put in line in a run.
void add_device_choice(FieldForm& form, const Part<Run>& run);

// The parts of a run that switch, sense or pass one way.
void device_fields(FieldForm& form, const Part<Run>& run, const Id& device);

}  // namespace yr::app
