// The fields of inverters, and what loads have beyond the plain ones.
#include "shell/details_panel.h"
#include "shell/details_part.h"
#include "shell/own_library.h"

namespace yr::app {

using K = words::ValueKind;

void fill_inverter(FieldForm& form, PlanDocument* doc, const Id& id) {
    const Part<Inverter> part{doc, &Plan::inverters, id};
    const auto result = [doc, id]() -> LoadResult {
        const Inverter* i = yr::find(doc->plan().inverters, id);
        const auto k = static_cast<std::size_t>(i - doc->plan().inverters.data());
        return i ? doc->solution().point.loads[doc->solution().network.plan_loads + k] : LoadResult{};
    };
    form.value(QStringLiteral("Takes"), [=] { return text_of(result().current_A, Dimension::current, doc); },
               {K::inverter_current, id, 0});
    form.value(QStringLiteral("Gives"),
               [=] {
                   return part.alive() ? text_of(inverter_ac_W(doc->plan(), part.get(), doc->state()),
                                                 Dimension::power, doc) +
                                             QStringLiteral(" mains")
                                       : QString();
               },
               {K::inverter_current, id, 0});
    name_field(form, part);
    const auto field = [&](const char* label, Dimension d, std::optional<double> Inverter::*m,
                           const char* assumed, double low, double high) {
        number_field(form, part, QString::fromUtf8(label), d, m, QString::fromUtf8(assumed), low, high);
    };
    field("For long", Dimension::power, &Inverter::continuous_W, "assumed 1000 W", 1, 50000);
    field("For a moment", Dimension::power, &Inverter::surge_W, "no more", 1, 100000);
    enum_field(form, part, QStringLiteral("Waveform"),
               {{QStringLiteral("pure sine"), "pure"}, {QStringLiteral("modified sine"), "modified"}},
               &Inverter::waveform);
    field("Efficiency", Dimension::fraction, &Inverter::efficiency, "assumed 88 %", 0.3, 1);
    curve_field(form, part, QStringLiteral("By its load"), &Inverter::curve, true,
                QStringLiteral("not known"));
    field("Standby", Dimension::power, &Inverter::standby_W, "assumed 8 W", 0, 500);
    field("Stops below", Dimension::voltage, &Inverter::cutoff_V, "never", 1, 100);
    field("Starts again", Dimension::voltage, &Inverter::recover_V, "1 V above", 1, 100);
    condition_fields(
        form, QStringLiteral("Switched on"), doc,
        [part] { return part.alive() ? part.get().works_when : Condition{}; },
        [part](const QString& what, const Condition& c) {
            part.set(what, [&](Inverter& i) { i.works_when = c; });
        });
    field("Price", Dimension::number, &Inverter::price, "not set", 0, 1e7);
    form.words(QStringLiteral(
        "Mains from an inverter kill like any other: residual-current protection and the bond of "
        "neutral are for qualified hands."));
    for (const Run& r : doc->plan().runs)
        if (owner_of(r.to) == id || owner_of(r.from) == id) {
            form.heading(q(words::capital(r.name)));
            fill_run(form, doc, r.id, false);
        }
}

namespace {

// A word that loads have in common: those with the same one belong together, or apart.
void word_field(FieldForm& form, const Part<Load>& load, const QString& label, std::string Load::*member) {
    form.text(
        label, [load, member] { return load.alive() ? q(load.get().*member) : QString(); },
        [load, member, label](const QString& typed) {
            load.set(label.toLower(), [&](Load& l) { l.*member = typed.trimmed().toStdString(); });
            return QString();
        },
        QStringLiteral("a word, e.g. A"));
}

}  // namespace

void fill_load_more(FieldForm& form, PlanDocument* doc, const Id& id) {
    const Part<Load> load{doc, &Plan::loads, id};
    const auto field = [&](const char* label, Dimension d, std::optional<double> Load::*m,
                           const char* assumed, double low, double high) {
        number_field(form, load, QString::fromUtf8(label), d, m, QString::fromUtf8(assumed), low, high);
    };
    form.heading(QStringLiteral("What it needs"));
    if (!load.get().inverter.empty()) {
        std::vector<Choice> inverters;
        for (const Inverter& i : doc->plan().inverters) inverters.push_back({q(i.name), i.id});
        form.choice(
            QStringLiteral("Mains from"), inverters,
            [load] { return load.alive() ? load.get().inverter : Id(); },
            [load](const Id& v) {
                load.set(QStringLiteral("mains from"), [&](Load& l) { l.inverter = v; });
            });
        field("Power factor", Dimension::number, &Load::power_factor, "assumed 1", 0.05, 1);
        field("At start, each", Dimension::power, &Load::start_W, "no more", 1, 100000);
    } else {
        field("Start lasts", Dimension::time, &Load::inrush_s, "not known", 1e-3, 3600);
        form.choice(
            QStringLiteral("Starts as"),
            {{QStringLiteral("its start says"), {}},
             {QStringLiteral("at once"), "step"},
             {QStringLiteral("a motor"), "motor"},
             {QStringLiteral("a lamp's filament"), "lamp"},
             {QStringLiteral("a capacitor"), "capacitor"}},
            [load] { return load.alive() && load.get().start ? Id(enum_name(*load.get().start)) : Id(); },
            [load](const Id& v) {
                load.set(QStringLiteral("starts otherwise"),
                         [&](Load& l) { l.start = enum_named<StartKind>(v); });
            });
        field("Runs at most", Dimension::time, &Load::on_s, "for ever", 1e-2, 1e6);
        const Dimension drawn = load.get().draw.kind == DrawKind::current ? Dimension::current
                                : load.get().draw.kind == DrawKind::power ? Dimension::power
                                                                          : Dimension::resistance;
        field("Or as little as", drawn, &Load::draw_least, "no range", 1e-4, 1e6);
        field("Works from", Dimension::voltage, &Load::least_V, "by its code", 0.1, 100);
        field("Bears", Dimension::voltage, &Load::most_V, "by its code", 0.1, 100);
        enum_field(form, load, QStringLiteral("ISO 16750-2"),
                   {{QStringLiteral("no code"), "none"},
                    {QStringLiteral("A, 6 to 16 V"), "a"},
                    {QStringLiteral("B, 8 to 16 V"), "b"},
                    {QStringLiteral("C, 9 to 16 V"), "c"},
                    {QStringLiteral("D, 10.5 to 16 V"), "d"}},
                   &Load::supply_code);
        curve_field(form, load, QStringLiteral("Amps by pull"), &Load::line_curve, true,
                    QStringLiteral("no winch"));
        if (!load.get().line_curve.empty())
            field("Pull", Dimension::fraction, &Load::line_load, "rated", 0, 2);
    }
    form.check(
        QStringLiteral("needs a pure sine"), [load] { return load.alive() && load.get().needs_pure_sine; },
        [load](bool on) { load.set(QStringLiteral("pure sine"), [&](Load& l) { l.needs_pure_sine = on; }); });
    field("Runs a share of", Dimension::fraction, &Load::duty, "all the time", 1e-4, 1);
    if (load.get().inverter.empty()) {
        field("Signal comes after", Dimension::time, &Load::signal_after_s, "wants none", 0, 3600);
        form.check(
            QStringLiteral("sensitive: a return of its own"),
            [load] { return load.alive() && load.get().own_ground; },
            [load](bool on) { load.set(QStringLiteral("own ground"), [&](Load& l) { l.own_ground = on; }); });
        form.check(
            QStringLiteral("switches itself: has its own switch"),
            [load] { return load.alive() && load.get().own_switch; },
            [load](bool on) {
                load.set(on ? QStringLiteral("own switch") : QStringLiteral("no switch of its own"),
                         [&](Load& l) { l.own_switch = on; });
            });
        word_field(form, load, QStringLiteral("On one box with"), &Load::together);
        word_field(form, load, QStringLiteral("Not on a box with"), &Load::apart);
    }
    form.button(QStringLiteral("Keep in my library"), [load, doc] {
        if (!load.alive()) return;
        const QString wrong = keep_load(load.get());
        emit doc->refused(wrong.isEmpty() ? QStringLiteral("%1 is kept: type its name to have it again.")
                                                .arg(q(words::capital(load.get().name)))
                                          : wrong);
    });
}

}  // namespace yr::app
