// What the forms of several kinds of things share: one thing of the plan edited part by part.
#pragma once

#include <functional>

#include "document/document.h"
#include "plan/names.h"
#include "plan/plan_fields.h"
#include "typing/fields.h"
#include "widgets/field_form.h"

namespace yr::app {

// Changes one part of a thing of the plan through the document: the thing is looked up anew each time.
template <class T>
struct Edited {
    Document* document;
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
void name_field(FieldForm& form, const Edited<T>& part) {
    form.text(
        say("Name"), [part] { return part.alive() ? q(part.get().name) : QString(); },
        [part](const QString& typed) {
            if (typed.trimmed().isEmpty()) return say("A name is needed.");
            part.set(say("named ") + typed, [&](T& x) { x.name = typed.trimmed().toStdString(); });
            return QString();
        });
}

// The declaration of a field of the plan, by its member.
struct FieldFinder {
    static constexpr bool every_field = true;
    const void* wanted;
    Field& found;
    template <class V>
    void operator()(const Field& field, const V& value) const {
        if (static_cast<const void*>(&value) == wanted) found = field;
    }
};
template <class T, class M>
[[nodiscard]] Field declared(M T::*member) {
    const T thing{};
    Field found("");
    fields(FieldFinder{&(thing.*member), found}, thing);
    return found;
}

// An optional number of a thing, empty for unknown, as its declaration says.
template <class T>
void number_field(FieldForm& form, const Edited<T>& part, std::optional<double> T::*member) {
    const Field field = declared(member);
    const QString label = say(field.label);
    form.quantity(
        label, field.dimension, [part, member] { return part.alive() ? part.get().*member : std::nullopt; },
        [part, member, label](std::optional<double> v) {
            return part.set(label.toLower(), [&](T& x) { x.*member = v; });
        },
        true, say(field.open), field.least, field.most);
}

// The same where label, placeholder or dimension hang on the kind of thing.
template <class T>
void number_field(FieldForm& form, const Edited<T>& part, const QString& label, Dimension dimension,
                  std::optional<double> T::*member, const QString& assumed, double low, double high) {
    form.quantity(
        label, dimension, [part, member] { return part.alive() ? part.get().*member : std::nullopt; },
        [part, member, label](std::optional<double> v) {
            return part.set(label.toLower(), [&](T& x) { x.*member = v; });
        },
        true, assumed, low, high);
}

template <class T, class E>
void enum_field(FieldForm& form, const Edited<T>& part, const QString& label,
                const std::vector<Choice>& choices, E T::*member) {
    form.choice(
        label, choices, [part, member] { return part.alive() ? Id(enum_name(part.get().*member)) : Id(); },
        [part, member, label](const Id& v) {
            part.set(label.toLower() + QLatin1Char(' ') + q(v), [&](T& x) { x.*member = *enum_named<E>(v); });
        });
}

// "0: 20, 50 %: 58, 100 %: 96" for a curve of shares; the first numbers are shares where `shares`, else
// plain.
template <class T>
void curve_field(FieldForm& form, const Edited<T>& part, const QString& label,
                 std::vector<std::pair<double, double>> T::*member, bool shares, const QString& assumed) {
    form.text(
        label,
        [part, member, shares] {
            return part.alive() ? q(typed_curve(part.get().*member, shares)) : QString();
        },
        [part, member, label, shares](const QString& typed) {
            const auto curve = read_curve(typed.toStdString(), shares);
            if (!curve)
                return say("%1: pairs are needed, such as %2.")
                    .arg(label, shares ? QStringLiteral("0 %: 20, 50 %: 58, 100 %: 96")
                                       : QStringLiteral("1500: 90, 6000: 180"));
            return part.set(label.toLower(), [&](T& x) { x.*member = *curve; })
                       ? QString()
                       : say("The plan does not take this: the first numbers must rise.");
        },
        assumed);
}

// The picture that somebody laid beside the plan; nothing where none is named.
void photo_of(FieldForm& form, Document* document, const std::string& photo);

// A note, a photo and a caution: what may be said of anything. Folded away until one of them is used.
template <class T>
void remark_fields(FieldForm& form, const Edited<T>& part) {
    const Remarks now = part.get().remarks;
    FieldForm* fold = form.fold(say("Note, photo, caution"), !(now == Remarks{}));
    const auto field = [&](const QString& label, std::string Remarks::*member, const QString& open) {
        fold->text(
            label, [part, member] { return part.alive() ? q(part.get().remarks.*member) : QString(); },
            [part, member, label](const QString& typed) {
                part.set(label.toLower(), [&](T& x) { x.remarks.*member = typed.trimmed().toStdString(); });
                return QString();
            },
            open);
    };
    field(say("Note"), &Remarks::note, say("none"));
    field(say("Caution"), &Remarks::caution, say("none"));
    field(say("Photo"), &Remarks::photo, say("a file beside the plan"));
    photo_of(*fold, part.document, now.photo);
}

// Pins and jacket of a run.
void joining_fields(FieldForm& form, const Edited<Run>& run);

// When something is live, closed or working: the key, switches, and folded away what is rarer.
void condition_fields(FieldForm& form, const QString& label, const Document* document,
                      const std::function<Condition()>& get,
                      const std::function<void(const QString& what, const Condition&)>& set);

[[nodiscard]] std::vector<Choice> places_of(const Plan& plan);
[[nodiscard]] QString text_of(double value, Dimension dimension, const Document* document);

// One device of a run, looked up anew each time and changed through its run.
struct DevicePart {
    Edited<Run> run;
    Id device;
    [[nodiscard]] const Device* get() const;  // nullptr once it is gone
    bool set(const QString& what, const std::function<void(Device&)>& change) const;
};

// A choice of what to put in line in a run.
void add_device_choice(FieldForm& form, const Edited<Run>& run);

// The parts of a run that switch, sense or pass one way.
void device_fields(FieldForm& form, const Edited<Run>& run, const Id& device);

// Why a number is hardly meant, as a sentence; empty where it is plausible.
[[nodiscard]] QString doubt_of(const Document* document, Dimension dimension, double value);

// What the thing hangs on, to be chosen; nothing where nothing feeds it.
void fed_from_field(FieldForm& form, Document* document, const Id& thing);

}  // namespace yr::app
