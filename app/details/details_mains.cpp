// The fields of inverters, and what loads have beyond the plain ones.
#include "details/details_panel.h"
#include "details/details_part.h"
#include "document/own_library.h"
#include "words/sentences.h"

namespace yr::app {

using K = words::ValueKind;

void fill_inverter(FieldForm& form, Document* doc, const Id& id) {
    const Edited<Inverter> part{doc, &Plan::inverters, id};
    const auto result = [doc, id]() -> LoadResult {
        const Inverter* i = yr::find(doc->plan().inverters, id);
        const auto k = static_cast<std::size_t>(i - doc->plan().inverters.data());
        return i ? doc->shown().solution().point.loads[doc->shown().solution().network.plan_loads + k]
                 : LoadResult{};
    };
    form.value(say("Takes"), [=] { return text_of(result().current_A, Dimension::current, doc); },
               {K::inverter_current, id, 0});
    form.value(say("Gives"),
               [=] {
                   return part.alive() ? text_of(inverter_ac_W(doc->plan(), part.get(), doc->shown().state()),
                                                 Dimension::power, doc) +
                                             say(" mains")
                                       : QString();
               },
               {K::inverter_current, id, 0});
    name_field(form, part);
    fed_from_field(form, doc, id);
    number_field(form, part, &Inverter::continuous_W);
    number_field(form, part, &Inverter::surge_W);
    enum_field(form, part, say("Waveform"), {{say("pure sine"), "pure"}, {say("modified sine"), "modified"}},
               &Inverter::waveform);
    number_field(form, part, &Inverter::efficiency);
    curve_field(form, part, say("By its load"), &Inverter::curve, true, say("not known"));
    number_field(form, part, &Inverter::standby_W);
    number_field(form, part, &Inverter::cutoff_V);
    number_field(form, part, &Inverter::recover_V);
    condition_fields(
        form, say("Switched on"), doc, [part] { return part.alive() ? part.get().works_when : Condition{}; },
        [part](const QString& what, const Condition& c) {
            part.set(what, [&](Inverter& i) { i.works_when = c; });
        });
    number_field(form, part, &Inverter::price);
    form.words(
        say("Mains from an inverter kill like any other: residual-current protection and the bond of "
            "neutral are for qualified hands."));
    for (const Run& r : doc->plan().runs)
        if (owner_of(r.to) == id || owner_of(r.from) == id) {
            form.heading(q(words::capital(r.name)));
            fill_run(form, doc, r.id, false);
        }
}

namespace {

// A word that loads have in common: those with the same one belong together, or apart.
void word_field(FieldForm& form, const Edited<Load>& load, const QString& label, std::string Load::*member) {
    form.text(
        label, [load, member] { return load.alive() ? q(load.get().*member) : QString(); },
        [load, member, label](const QString& typed) {
            load.set(label.toLower(), [&](Load& l) { l.*member = typed.trimmed().toStdString(); });
            return QString();
        },
        say("a word, e.g. A"));
}

}  // namespace

void fill_load_more(FieldForm& form, Document* doc, const Id& id) {
    const Edited<Load> load{doc, &Plan::loads, id};
    form.heading(say("What it needs"));
    if (!load.get().inverter.empty()) {
        std::vector<Choice> inverters;
        for (const Inverter& i : doc->plan().inverters) inverters.push_back({q(i.name), i.id});
        form.choice(
            say("Mains from"), inverters, [load] { return load.alive() ? load.get().inverter : Id(); },
            [load](const Id& v) { load.set(say("mains from"), [&](Load& l) { l.inverter = v; }); });
        number_field(form, load, &Load::power_factor);
        number_field(form, load, &Load::start_W);
    } else {
        number_field(form, load, &Load::inrush_s);
        form.choice(
            say("Starts as"),
            {{say("its start says"), {}},
             {say("at once"), "step"},
             {say("a motor"), "motor"},
             {say("a lamp's filament"), "lamp"},
             {say("a capacitor"), "capacitor"}},
            [load] { return load.alive() && load.get().start ? Id(enum_name(*load.get().start)) : Id(); },
            [load](const Id& v) {
                load.set(say("starts otherwise"), [&](Load& l) { l.start = enum_named<StartKind>(v); });
            });
        number_field(form, load, &Load::on_s);
        const Dimension drawn = load.get().draw.kind == DrawKind::current ? Dimension::current
                                : load.get().draw.kind == DrawKind::power ? Dimension::power
                                                                          : Dimension::resistance;
        number_field(form, load, say("Or as little as"), drawn, &Load::draw_least, say("no range"), 1e-4,
                     1e6);
        number_field(form, load, &Load::least_V);
        number_field(form, load, &Load::most_V);
        enum_field(form, load, say("ISO 16750-2"),
                   {{say("no code"), "none"},
                    {say("A, 6 to 16 V"), "a"},
                    {say("B, 8 to 16 V"), "b"},
                    {say("C, 9 to 16 V"), "c"},
                    {say("D, 10.5 to 16 V"), "d"}},
                   &Load::supply_code);
        curve_field(form, load, say("Amps by pull"), &Load::line_curve, true, say("no winch"));
        if (!load.get().line_curve.empty()) number_field(form, load, &Load::line_load);
    }
    form.check(
        say("needs a pure sine"), [load] { return load.alive() && load.get().needs_pure_sine; },
        [load](bool on) { load.set(say("pure sine"), [&](Load& l) { l.needs_pure_sine = on; }); });
    number_field(form, load, &Load::duty);
    number_field(form, load, &Load::duty_per_K);
    if (load.get().inverter.empty()) {
        number_field(form, load, &Load::signal_after_s);
        form.check(
            say("sensitive: a return of its own"), [load] { return load.alive() && load.get().own_ground; },
            [load](bool on) { load.set(say("own ground"), [&](Load& l) { l.own_ground = on; }); });
        form.check(
            say("switches itself: has its own switch"),
            [load] { return load.alive() && load.get().own_switch; },
            [load](bool on) {
                load.set(on ? say("own switch") : say("no switch of its own"),
                         [&](Load& l) { l.own_switch = on; });
            });
        word_field(form, load, say("On one box with"), &Load::together);
        word_field(form, load, say("Not on a box with"), &Load::apart);
    }
    form.check(
        say("later: room is kept, nothing is fitted yet"),
        [load] { return load.alive() && load.get().later; },
        [load](bool on) {
            load.set(on ? say("wanted later") : say("fitted"), [&](Load& l) { l.later = on; });
        });
    FieldForm* store = form.fold(say("A portable store"), load.get().store_Wh.has_value());
    number_field(*store, load, &Load::store_Wh);
    number_field(*store, load, &Load::store_efficiency);
    number_field(*store, load, &Load::socket_W);
    number_field(*store, load, &Load::mains_W);
    number_field(*store, load, &Load::mains_efficiency);
    form.button(say("Keep in my library"), [load, doc] {
        if (!load.alive()) return;
        const QString wrong = keep_load(load.get());
        doc->store().refuse(
            wrong.isEmpty()
                ? say("%1 is kept: type its name to have it again.").arg(q(words::capital(load.get().name)))
                : wrong);
    });
}

}  // namespace yr::app
