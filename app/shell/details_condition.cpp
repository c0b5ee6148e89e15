// When something is live, closed or working: put together by picking, or typed as on the type line.
#include <algorithm>

#include "shell/details_part.h"
#include "size/typed_line.h"

namespace yr::app {
namespace {

std::string key_word(const Condition& c) {
    if (c.engine == Engine::running) return "running";
    if (c.engine == Engine::stopped) return "stopped";
    return std::string(enum_name(c.key));
}

Condition with_key_word(Condition c, const Id& word) {
    c.engine = word == "running" ? Engine::running : word == "stopped" ? Engine::stopped : Engine::any;
    c.key = c.engine == Engine::any ? enum_named<Key>(word).value_or(Key::off)
            : word == "running"     ? Key::ignition
                                    : Key::off;
    return c;
}

QString joined(const std::vector<std::string>& names) {
    QStringList list;
    for (const std::string& n : names) list << q(n);
    return list.join(QStringLiteral(", "));
}

std::vector<std::string> split_names(const QString& typed) {
    std::vector<std::string> names;
    for (const QString& part : typed.split(QLatin1Char(',')))
        if (!part.trimmed().isEmpty()) names.push_back(part.trimmed().toStdString());
    return names;
}

using Get = std::function<Condition()>;
using Set = std::function<void(const QString& what, const Condition&)>;

// The rarer parts, folded away until one of them is used.
void more_parts(FieldForm& form, const PlanDocument* doc, const Get& get, const Set& set) {
    form.text(
        QStringLiteral("and off"), [get] { return joined(get().switches_off); },
        [get, set](const QString& typed) {
            Condition c = get();
            c.switches_off = split_names(typed);
            set(QStringLiteral("switches off"), c);
            return QString();
        },
        QStringLiteral("none"));
    form.check(
        QStringLiteral("not while cranking"), [get] { return get().not_cranking; },
        [get, set](bool on) {
            Condition c = get();
            c.not_cranking = on;
            set(on ? QStringLiteral("not while cranking") : QStringLiteral("while cranking too"), c);
        });
    form.quantity(
        QStringLiteral("Charging above"), Dimension::voltage, [get] { return get().charging_above_V; },
        [get, set](std::optional<double> v) {
            Condition c = get();
            c.charging_above_V = v;
            set(QStringLiteral("charging above"), c);
            return true;
        },
        true, QStringLiteral("no matter"), 1, 100);
    std::vector<Choice> loads{{QStringLiteral("no other"), {}}};
    for (const Load& l : doc->plan().loads) loads.push_back({q(l.name), l.id});
    form.choice(
        QStringLiteral("While this runs"), loads,
        [get] { return get().circuits.empty() ? Id() : get().circuits.front(); },
        [get, set](const Id& v) {
            Condition c = get();
            c.circuits.clear();
            if (!v.empty()) c.circuits.push_back(v);
            set(QStringLiteral("while another runs"), c);
        });
    form.quantity(
        QStringLiteral("After"), Dimension::time, [get] { return get().delay_s; },
        [get, set](std::optional<double> v) {
            Condition c = get();
            c.delay_s = v;
            set(QStringLiteral("delay"), c);
            return true;
        },
        true, QStringLiteral("at once"), 1e-3, 86400);
    form.text(
        QStringLiteral("Either … or"),
        [get, doc] {
            Condition any;
            any.any_of = get().any_of;
            return q(typed_condition(doc->plan(), any));
        },
        [get, set, doc](const QString& typed) {
            Condition c = get();
            c.any_of.clear();
            if (!typed.trimmed().isEmpty()) {
                const TypedLine line = read_line(doc->plan(), "x 1 W " + typed.toStdString());
                if (!line.live_when || line.live_when->any_of.size() < 2 || !line.not_understood.empty())
                    return QStringLiteral(
                        "Either … or: two ways are needed, such as on ignition or switch pump.");
                c.any_of = line.live_when->any_of;
            }
            set(QStringLiteral("either or"), c);
            return QString();
        },
        QStringLiteral("no other way"));
}

bool uses_more(const Condition& c) {
    return !c.switches_off.empty() || c.not_cranking || c.charging_above_V || !c.circuits.empty() ||
           c.delay_s || !c.any_of.empty();
}

}  // namespace

void condition_fields(FieldForm& form, const QString& label, const PlanDocument* doc, const Get& get,
                      const Set& set) {
    form.choice(
        label,
        {{QStringLiteral("always"), "off"},
         {QStringLiteral("key at accessory"), "accessory"},
         {QStringLiteral("key at ignition"), "ignition"},
         {QStringLiteral("engine running"), "running"},
         {QStringLiteral("engine stopped"), "stopped"},
         {QStringLiteral("cranking"), "crank"}},
        [get] { return key_word(get()); },
        [set, get, label](const Id& v) {
            set(label.toLower() + QLatin1Char(' ') + q(v), with_key_word(get(), v));
        });
    form.text(
        QStringLiteral("and switch"), [get] { return joined(get().switches); },
        [set, get](const QString& typed) {
            Condition c = get();
            c.switches = split_names(typed);
            set(QStringLiteral("switch ") + typed.trimmed(), c);
            return QString();
        },
        QStringLiteral("none"));
    std::vector<Choice> switches{{QStringLiteral("pick one …"), {}}};
    for (const std::string& name : plan_switches(doc->plan())) switches.push_back({q(name), name});
    if (switches.size() > 1)
        form.choice(
            QStringLiteral("Switches"), switches, [] { return Id(); },
            [get, set](const Id& name) {
                Condition c = get();
                if (name.empty() || std::find(c.switches.begin(), c.switches.end(), name) != c.switches.end())
                    return;
                c.switches.push_back(name);
                set(QStringLiteral("switch ") + q(name), c);
            });
    FieldForm* more = form.fold(QStringLiteral("More conditions"), uses_more(get()));
    more_parts(*more, doc, get, set);
}

}  // namespace yr::app
