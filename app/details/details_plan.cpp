// The fields of a state and of the plan's own rules.
#include <algorithm>

#include "details/details_panel.h"
#include "details/details_part.h"
#include "document/state_edits.h"
#include "plan/names.h"

namespace yr::app {
namespace {

// Relays that remember: as they come into this state.
template <class Get, class Set>
void memory_fields(FieldForm& form, Document* doc, const Get& get, const Set& set) {
    const auto has = [](const std::vector<Id>& list, const Id& id) {
        return std::find(list.begin(), list.end(), id) != list.end();
    };
    bool headed = false;
    for (const MemoryElement& m : doc->shown().solution().network.memories) {
        if (m.kind == MemoryKind::coil) continue;
        if (!headed) form.heading(say("Relays come into it"));
        headed = true;
        form.choice(
            q(yr::name_of(doc->plan(), m.id)),
            {{say("as usual"), {}}, {say("closed"), "closed"}, {say("open"), "open"}},
            [get, has, id = m.id] {
                if (!get()) return Id();
                return has(get()->closed, id) ? Id("closed") : has(get()->opened, id) ? Id("open") : Id();
            },
            [set, id = m.id](const Id& v) {
                set(say("relay"), [&](State& s) {
                    std::erase(s.closed, id);
                    std::erase(s.opened, id);
                    if (v == "closed") s.closed.push_back(id);
                    if (v == "open") s.opened.push_back(id);
                });
            });
    }
}

// Fuses that are out in this state.
void pulled_fields(FieldForm& form, Document* doc, const std::function<const State*()>& get,
                   const std::function<bool(const QString&, const std::function<void(State&)>&)>& set) {
    std::vector<Choice> fuses{{say("pull one, or put one back …"), {}}};
    for (const Run& r : doc->plan().runs)
        for (const Device& d : r.devices)
            if (d.kind == DeviceKind::fuse) fuses.push_back({q(d.name), d.id});
    if (fuses.size() > 1)
        form.choice(
            say("Fuses"), fuses, [] { return Id(); },
            [get, set](const Id& v) {
                if (v.empty()) return;
                set(say("fuse pulled or put back"), [&](State& s) {
                    if (std::erase(s.pulled, v) == 0) s.pulled.push_back(v);
                });
            });
    form.text(
        say("Out are"),
        [get, doc] {
            QStringList names;
            if (get())
                for (const Id& fuse : get()->pulled) names << q(yr::name_of(doc->plan(), fuse));
            return names.join(QStringLiteral(", "));
        },
        [set](const QString& typed) {
            if (!typed.trimmed().isEmpty()) return say("Pull fuses in the field above; empty puts all back.");
            set(say("every fuse in"), [](State& s) { s.pulled.clear(); });
            return QString();
        },
        say("none"));
}

void switch_fields(FieldForm& form, Document* doc, const std::function<const State*()>& get,
                   const std::function<bool(const QString&, const std::function<void(State&)>&)>& set) {
    form.heading(say("Switches that are on"));
    for (const std::string& name : plan_switches(doc->plan()))
        form.check(
            q(name),
            [get, name] {
                return get() && std::find(get()->switches.begin(), get()->switches.end(), name) !=
                                    get()->switches.end();
            },
            [set, name](bool on) {
                set(q(name) + (on ? say(" on") : say(" off")), [&](State& s) {
                    std::erase(s.switches, name);
                    if (on) s.switches.push_back(name);
                });
            });
}

}  // namespace

void fill_state(FieldForm& form, Document* doc, const Id& id) {
    const auto get = [doc, id] { return yr::find(doc->plan().states, id); };
    const auto set = [doc, get](const QString& what, const std::function<void(State&)>& change) {
        if (!get()) return false;
        State s = *get();
        change(s);
        return s == *get() || doc->apply(Put<State>{s, {}}, q(s.name) + QStringLiteral(": ") + what);
    };
    form.text(
        say("Name"), [get] { return get() ? q(get()->name) : QString(); },
        [set](const QString& typed) {
            if (typed.trimmed().isEmpty()) return say("A name is needed.");
            set(say("named ") + typed, [&](State& s) { s.name = typed.trimmed().toStdString(); });
            return QString();
        });
    form.choice(
        say("Key"),
        {{say("off"), "off"},
         {QStringLiteral("accessory"), "accessory"},
         {QStringLiteral("ignition"), "ignition"},
         {say("cranking"), "crank"}},
        [get] { return get() ? Id(enum_name(get()->key)) : Id(); },
        [set](const Id& v) { set(say("key ") + q(v), [&](State& s) { s.key = *enum_named<Key>(v); }); });
    const char* by_key = "by key";
    form.choice(
        say("Stands for"),
        {{say("by its key and engine"), by_key},
         {say("parked"), "parked"},
         {say("towed"), "towed"},
         {say("idling"), "idling"},
         {say("driving"), "driving"},
         {say("working"), "working"},
         {say("something that passes"), "passing"}},
        [get, by_key] { return get() && get()->role ? Id(enum_name(*get()->role)) : Id(by_key); },
        [set](const Id& v) {
            set(say("stands for ") + q(v), [&](State& s) { s.role = enum_named<StateRole>(v); });
        });
    form.quantity(
        say("Passes within"), Dimension::time, [get] { return get() ? get()->lasts_s : std::nullopt; },
        [set](std::optional<double> v) { return set(say("length"), [&](State& s) { s.lasts_s = v; }); }, true,
        say("if it passes: seconds"), 0.1, 86400);
    form.choice(
        say("Key comes from"),
        {{say("no matter"), {}},
         {QStringLiteral("accessory"), "accessory"},
         {QStringLiteral("ignition"), "ignition"}},
        [get] { return get() && get()->left ? Id(enum_name(*get()->left)) : Id(); },
        [set](const Id& v) {
            set(say("key comes from ") + q(v), [&](State& s) { s.left = enum_named<Key>(v); });
        });
    form.quantity(
        say("Sun on panels"), Dimension::fraction,
        [get] { return get() ? std::optional(get()->sun) : std::nullopt; },
        [set](std::optional<double> v) { return set(say("sun"), [&](State& s) { s.sun = v.value_or(0); }); },
        true, say("none"), 0, 1.5);
    form.quantity(
        say("Winch pull"), Dimension::fraction, [get] { return get() ? get()->line_load : std::nullopt; },
        [set](std::optional<double> v) { return set(say("pull"), [&](State& s) { s.line_load = v; }); }, true,
        say("each its own"), 0, 2);
    memory_fields(form, doc, get, set);
    pulled_fields(form, doc, get, set);
    switch_fields(form, doc, get, set);
    remark_fields(form, Edited<State>{doc, &Plan::states, id});
    form.heading(QString());
    form.button(say("Copy as a new state"), [doc, id] { copy_state(doc, id); });
    form.button(say("Earlier in the line"), [doc, id] { move_state(doc, id, -1); });
    form.button(say("Later in the line"), [doc, id] { move_state(doc, id, 1); });
    form.button(say("Take this state out"), [doc, id] { take_out_state(doc, id); });
}

void fill_policy(FieldForm& form, Document* doc) {
    const auto set = [doc](const QString& what, const std::function<void(Policy&)>& change) {
        Policy p = doc->plan().policy;
        change(p);
        return p == doc->plan().policy || doc->apply(SetPolicy{p}, say("rules: ") + what);
    };
    form.choice(
        say("Ampacity table"), {{say("ABYC E-11"), "abyc"}, {say("ISO 10133"), "iso"}},
        [doc] { return Id(enum_name(doc->plan().policy.ampacity_table)); },
        [set](const Id& v) {
            set(q(v), [&](Policy& p) { p.ampacity_table = *enum_named<AmpacityTable>(v); });
        });
    form.check(
        say("bundles carry less"), [doc] { return doc->plan().policy.bundle_derating; },
        [set](bool on) { set(say("bundles"), [&](Policy& p) { p.bundle_derating = on; }); });
    form.choice(
        say("Fuses by"),
        {{say("what the cable stands"), "wire"},
         {say("150 % of the current"), "load150"},
         {say("the inrush"), "inrush"}},
        [doc] { return Id(enum_name(doc->plan().policy.fuse_school)); },
        [set](const Id& v) {
            set(say("fuse school"), [&](Policy& p) { p.fuse_school = *enum_named<FuseSchool>(v); });
        });
    form.words(
        say("150 % of the current may pick a fuse above what the cable stands; the inrush one may "
            "never open in a short. Both are checked against the cable all the same."));
    const auto share = [&](const char* label, std::optional<double> Policy::*m, const char* assumed) {
        form.quantity(
            QString::fromUtf8(label), Dimension::fraction, [doc, m] { return doc->plan().policy.*m; },
            [set, m, label](std::optional<double> v) {
                return set(QString::fromUtf8(label), [&](Policy& p) { p.*m = v; });
            },
            true, QString::fromUtf8(assumed), 1e-4, 0.5);
    };
    share("Drop, critical", &Policy::drop_critical, "3 %");
    share("Drop, others", &Policy::drop_other, "10 %");
    form.quantity(
        say("Fuse within"), Dimension::length, [doc] { return doc->plan().policy.fuse_distance_m; },
        [set](std::optional<double> v) {
            return set(say("fuse distance"), [&](Policy& p) { p.fuse_distance_m = v; });
        },
        true, say("45.7 cm of its source"), 1e-3, 10);
    form.quantity(
        say("Copper, per kg"), Dimension::number, [doc] { return doc->plan().policy.copper_price_per_kg; },
        [set](std::optional<double> v) {
            return set(say("price of copper"), [&](Policy& p) { p.copper_price_per_kg = v; });
        },
        true, say("no price"), 0, 1e5);
    form.quantity(
        say("Air may differ, K"), Dimension::number, [doc] { return doc->plan().policy.air_K; },
        [set](std::optional<double> v) { return set(say("range of air"), [&](Policy& p) { p.air_K = v; }); },
        true, say("no range"), 0, 60);
    form.quantity(
        say("Joints age to, times"), Dimension::number, [doc] { return doc->plan().policy.joint_ageing; },
        [set](std::optional<double> v) {
            return set(say("ageing of joints"), [&](Policy& p) { p.joint_ageing = v; });
        },
        true, say("they stay new"), 1, 100);
    form.choice(
        say("New cables in"), {{say("AWG"), "awg"}, {say("SAE"), "sae"}, {say("mm²"), "metric"}},
        [doc] { return Id(enum_name(doc->plan().policy.sizes)); },
        [set](const Id& v) { set(say("sizes"), [&](Policy& p) { p.sizes = *enum_named<SizeSystem>(v); }); });
}

}  // namespace yr::app
