// When something is live, closed or working: put together by picking, or typed as on the type line.
#include <algorithm>

#include "details/details_part.h"
#include "typing/typed_line.h"

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

// An optional number of a condition, as its declaration says.
void condition_number(FieldForm& form, const Get& get, const Set& set,
                      std::optional<double> Condition::*member) {
    const Field field = declared(member);
    const QString label = say(field.label);
    form.quantity(
        label, field.dimension, [get, member] { return get().*member; },
        [get, set, member, label](std::optional<double> v) {
            Condition c = get();
            c.*member = v;
            set(label.toLower(), c);
            return true;
        },
        true, say(field.open), field.least, field.most);
}

// The rarer parts, folded away until one of them is used.
void more_parts(FieldForm& form, const Document* doc, const Get& get, const Set& set) {
    form.text(
        say("and off"), [get] { return joined(get().switches_off); },
        [get, set](const QString& typed) {
            Condition c = get();
            c.switches_off = split_names(typed);
            set(say("switches off"), c);
            return QString();
        },
        say("none"));
    form.check(
        say("not while cranking"), [get] { return get().not_cranking; },
        [get, set](bool on) {
            Condition c = get();
            c.not_cranking = on;
            set(on ? say("not while cranking") : say("while cranking too"), c);
        });
    form.quantity(
        say("Charging above"), Dimension::voltage, [get] { return get().charging_above_V; },
        [get, set](std::optional<double> v) {
            Condition c = get();
            c.charging_above_V = v;
            set(say("charging above"), c);
            return true;
        },
        true, say("no matter"), 1, 100);
    std::vector<Choice> loads{{say("no other"), {}}};
    for (const Load& l : doc->plan().loads) loads.push_back({q(l.name), l.id});
    form.choice(
        say("While this runs"), loads,
        [get] { return get().circuits.empty() ? Id() : get().circuits.front(); },
        [get, set](const Id& v) {
            Condition c = get();
            c.circuits.clear();
            if (!v.empty()) c.circuits.push_back(v);
            set(say("while another runs"), c);
        });
    form.quantity(
        say("After"), Dimension::time, [get] { return get().delay_s; },
        [get, set](std::optional<double> v) {
            Condition c = get();
            c.delay_s = v;
            set(say("delay"), c);
            return true;
        },
        true, say("at once"), 1e-3, 86400);
    condition_number(form, get, set, &Condition::holds_s);
    condition_number(form, get, set, &Condition::above_C);
    condition_number(form, get, set, &Condition::below_C);
    condition_number(form, get, set, &Condition::within_K);
    form.choice(
        say("Air of"), {{say("the outside"), "outside"}, {say("the engine bay"), "engine_bay"}},
        [get] { return Id(enum_name(get().air)); },
        [get, set](const Id& v) {
            Condition c = get();
            c.air = *enum_named<Air>(v);
            set(say("air"), c);
        });
    form.text(
        say("Either … or"),
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
                    return say("Either … or: two ways are needed, such as on ignition or switch pump.");
                c.any_of = line.live_when->any_of;
            }
            set(say("either or"), c);
            return QString();
        },
        say("no other way"));
}

bool uses_more(const Condition& c) {
    return !c.switches_off.empty() || c.not_cranking || c.charging_above_V || !c.circuits.empty() ||
           c.delay_s || c.holds_s || c.above_C || c.below_C || !c.any_of.empty();
}

}  // namespace

void condition_fields(FieldForm& form, const QString& label, const Document* doc, const Get& get,
                      const Set& set) {
    form.choice(
        label,
        {{say("always"), "off"},
         {say("key at accessory"), "accessory"},
         {say("key at ignition"), "ignition"},
         {say("engine running"), "running"},
         {say("engine stopped"), "stopped"},
         {say("cranking"), "crank"}},
        [get] { return key_word(get()); },
        [set, get, label](const Id& v) {
            set(label.toLower() + QLatin1Char(' ') + q(v), with_key_word(get(), v));
        });
    form.text(
        say("and switch"), [get] { return joined(get().switches); },
        [set, get](const QString& typed) {
            Condition c = get();
            c.switches = split_names(typed);
            set(say("switch ") + typed.trimmed(), c);
            return QString();
        },
        say("none"));
    std::vector<Choice> switches{{say("pick one …"), {}}};
    for (const std::string& name : plan_switches(doc->plan())) switches.push_back({q(name), name});
    if (switches.size() > 1)
        form.choice(
            say("Switches"), switches, [] { return Id(); },
            [get, set](const Id& name) {
                Condition c = get();
                if (name.empty() || std::find(c.switches.begin(), c.switches.end(), name) != c.switches.end())
                    return;
                c.switches.push_back(name);
                set(say("switch ") + q(name), c);
            });
    FieldForm* more = form.fold(say("More conditions"), uses_more(get()));
    more_parts(*more, doc, get, set);
}

}  // namespace yr::app
