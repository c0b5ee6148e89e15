// The fields of loads and runs.
#include <algorithm>
#include <cmath>

#include "control/place_on.h"
#include "details/details_panel.h"
#include "details/details_part.h"
#include "plan/rail_volts.h"
#include "typing/typed_line.h"
#include "words/control_words.h"
#include "words/guard_words.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

using K = words::ValueKind;

void draw_field(FieldForm& form, const Edited<Load>& load) {
    form.text(
        say("Draw, each"),
        [load] {
            if (!load.alive()) return QString();
            const Draw& d = load.get().draw;
            const Dimension dim = d.kind == DrawKind::power     ? Dimension::power
                                  : d.kind == DrawKind::current ? Dimension::current
                                                                : Dimension::resistance;
            return dim == Dimension::resistance ? q(words::number(d.value, 6)) + say(" ohm")
                                                : q(words::editable(d.value, dim, load.document->style()));
        },
        [load, asked = QString()](const QString& typed) mutable {
            const auto v = parse_quantity(typed.toStdString(), Dimension::current);
            const bool kind = v && (v->dimension == Dimension::current || v->dimension == Dimension::power ||
                                    v->dimension == Dimension::resistance);
            if (!kind || !(v->value > 0))
                return say("Draw: amps, watts or ohms above nothing are needed, such as 8 A or 90 W.");
            if (const QString why = doubt_of(load.document, v->dimension, v->value);
                !why.isEmpty() && asked != typed) {
                asked = typed;
                return why + say(" Enter once more takes it.");
            }
            const DrawKind k = v->dimension == Dimension::power     ? DrawKind::power
                               : v->dimension == Dimension::current ? DrawKind::current
                                                                    : DrawKind::resistance;
            load.set(say("draws ") + typed, [&](Load& l) {
                if (k != l.draw.kind || l.draw_least.value_or(0) > v->value)
                    l.draw_least.reset();  // of the old range, in its old unit
                l.draw = {k, v->value};
                if (v->count > 1) l.count = v->count;
            });
            return QString();
        });
}

const Run* run_to(const Plan& plan, const Terminal& terminal) {
    for (const Run& r : plan.runs)
        if (r.to == terminal) return &r;
    return nullptr;
}

const Run* run_from(const Plan& plan, const Terminal& terminal) {
    for (const Run& r : plan.runs)
        if (r.from == terminal) return &r;
    return nullptr;
}

void size_field(FieldForm& form, const Edited<Run>& run) {
    form.text(
        say("Size"),
        [run] { return run.alive() && run.get().size ? q(yr::name_of(*run.get().size)) : QString(); },
        [run](const QString& typed) {
            if (typed.trimmed().isEmpty())
                return run.set(say("size unknown"), [](Run& r) { r.size.reset(); }), QString();
            const auto size = parse_wire_size(typed.toStdString());
            const bool known = size && conductor(*size, run.get().material);
            if (!known)
                return say("Size: no table holds \u201C") +
                       q(typed.toStdString() +
                         "\u201D; it takes sizes such as 10 AWG, 1/0, SAE 8 or 25 mm2.");
            run.set(say("to ") + q(yr::name_of(*size)), [&](Run& r) { r.size = *size; });
            return QString();
        },
        say("assumed 14 AWG"));
}

void fuse_and_device_fields(FieldForm& form, const Edited<Run>& run) {
    Document* doc = run.document;
    for (std::size_t k = 0; k < run.get().devices.size(); ++k) {
        const Device& d = run.get().devices[k];
        const Id device = d.id;
        const DevicePart part{run, device};
        const auto of = [part] { return part.get(); };
        const auto change = [part](const QString& what, const std::function<void(Device&)>& f) {
            return part.set(what, f);
        };
        if (d.kind == DeviceKind::fuse) {
            form.quantity(
                say("Fuse"), Dimension::current,
                [of] { return of() ? std::optional(of()->rating_A) : std::nullopt; },
                [change](std::optional<double> v) {
                    return change(say("fuse ") + q(words::number(*v) + " A"), [&](Device& x) {
                        x.rating_A = *v;
                        if (x.fuse > FuseType::bolt)
                            return;  // strips, studs and cartridges stay what they are
                        x.fuse = *v <= 40 && x.fuse != FuseType::blade_large ? FuseType::blade
                                 : *v > 80                                   ? FuseType::bolt
                                 : x.fuse == FuseType::blade                 ? FuseType::bolt
                                                                             : x.fuse;
                    });
                },
                false, {}, 0, 2000);
            form.choice(
                say("of kind"),
                {{say("glass"), "glass"},
                 {say("type I breaker"), "breaker_1"},
                 {say("type II breaker"), "breaker_2"},
                 {say("type III breaker"), "breaker_3"},
                 {say("blade"), "blade"},
                 {say("large blade"), "blade_large"},
                 {say("bolt-down, 2 kA"), "bolt"},
                 {say("bolted strip, 6 kA"), "strip"},
                 {say("on the stud, 10 kA"), "stud"},
                 {say("high-interrupt, 20 kA"), "high"}},
                [of] { return of() ? Id(enum_name(of()->fuse)) : Id(); },
                [change](const Id& v) {
                    change(say("fuse ") + q(v), [&](Device& x) { x.fuse = *enum_named<FuseType>(v); });
                });
            form.quantity(
                say("at, along cable"), Dimension::length,
                [of] { return of() ? std::optional(of()->at_m.value_or(0)) : std::nullopt; },
                [change](std::optional<double> v) {
                    return change(say("fuse moved"), [&](Device& x) { x.at_m = v; });
                },
                true, {}, -1e-9, 200);
        } else {
            device_fields(form, run, device);
        }
    }
    if (std::none_of(run.get().devices.begin(), run.get().devices.end(),
                     [](const Device& d) { return d.kind == DeviceKind::fuse; }))
        form.button(say("Add a fuse at its start"), [run, doc] {
            if (!run.alive()) return;
            const double amps = std::max(
                1.0,
                std::abs(doc->shown()
                             .solution()
                             .point.conductors[static_cast<std::size_t>(&run.get() - doc->plan().runs.data())]
                             .current_A) /
                    0.8);
            double rating = standard_fuses().back().rating_A;
            FuseType type = FuseType::bolt;
            for (const FuseChoice& f : standard_fuses())
                if (f.rating_A >= amps) {
                    rating = f.rating_A, type = f.type;
                    break;
                }
            const Id id = new_id(doc->plan(), "fuse");
            run.set(say("fuse of ") + q(words::number(rating) + " A"), [&](Run& r) {
                r.devices.insert(r.devices.begin(),
                                 Device{id, r.name + " fuse", DeviceKind::fuse, 0.0, type, rating, {}, {}});
            });
        });
}

// "Thinnest that passes: 4 AWG, drop decides", found in a worker because the plan is solved for every size.
void ladder_row(FieldForm& form, Document* doc, const Id& run_id) {
    auto* label = new QLabel(say("Thinnest that passes: looking …"));
    label->setObjectName(QStringLiteral("ladder"));
    label->setWordWrap(true);
    form.add(label);
    auto* job = new Job<Result<RunLadder>>(label);
    QObject::connect(job, &JobBase::done, label, [label, job] {
        const Result<RunLadder>& ladder = *job->answer();
        if (!ladder) {
            label->clear();
        } else if (ladder->chosen < 0) {
            label->setText(
                say("No size passes every limit in every state; the worst is shown in the findings."));
        } else {
            const auto& row = ladder->rows[static_cast<std::size_t>(ladder->chosen)];
            label->setText(say("Thinnest that passes in every state: ") + q(words::short_size(row.size)) +
                           QStringLiteral(", ") +
                           (ladder->decides == Limit::none
                                ? say("the thinnest of all")
                                : QString::fromUtf8(words::name_of(ladder->decides)) + say(" decides")));
        }
    });
    const auto start = [doc, run_id, job] {
        job->start(doc->store().generation(),
                   [plan = doc->plan(), run_id](const Task&) { return run_ladder(plan, run_id); });
    };
    QObject::connect(&doc->inspector(), &Inspector::inspected, label, start);
    start();
}

}  // namespace

namespace {

// What decides how thick a cable may be at its ends and corners.
void fitting_fields(FieldForm& form, const Edited<Run>& run) {
    const Run& now = run.get();
    FieldForm* more =
        form.fold(say("Lugs and bends"), now.lug_from_mm || now.lug_to_mm || now.bend_mm || now.pinned);
    number_field(*more, run, &Run::lug_from_mm);
    number_field(*more, run, &Run::lug_to_mm);
    number_field(*more, run, &Run::bend_mm);
    more->check(
        say("pinned: keeps its size"), [run] { return run.alive() && run.get().pinned; },
        [run](bool on) { run.set(on ? say("pinned") : say("free again"), [&](Run& r) { r.pinned = on; }); });
}

// A fuse tap: this cable takes its supply at another circuit's fuse position.
void tap_field(FieldForm& form, const Edited<Run>& run) {
    std::vector<Choice> fuses{{say("no fuse position"), {}}};
    for (const Run& r : run.document->plan().runs)
        if (r.id != run.id && r.from == run.get().from)
            for (const Device& d : r.devices)
                if (d.kind == DeviceKind::fuse) fuses.push_back({q(d.name), d.id});
    if (fuses.size() < 2) return;
    form.choice(
        say("Taps"), fuses, [run] { return run.alive() ? run.get().tap_of : Id(); },
        [run](const Id& v) { run.set(say("fuse tap"), [&](Run& r) { r.tap_of = v; }); });
}

// What the cable itself is, besides its size and length.
void cable_fields(FieldForm& form, const Edited<Run>& run) {
    form.quantity(
        say("Insulation"), Dimension::temperature,
        [run] { return run.alive() ? std::optional(run.get().insulation_C) : std::nullopt; },
        [run](std::optional<double> v) {
            return run.set(say("insulation"), [&](Run& r) { r.insulation_C = *v; });
        },
        false, {}, 60, 250);
    form.quantity(
        say("In parallel"), Dimension::number,
        [run] { return run.alive() ? std::optional<double>(run.get().parallel) : std::nullopt; },
        [run](std::optional<double> v) {
            return run.set(say("in parallel"),
                           [&](Run& r) { r.parallel = static_cast<int>(std::lround(*v)); });
        },
        false, {}, 1, 20);
    form.quantity(
        say("In a bundle of"), Dimension::number,
        [run] { return run.alive() ? std::optional<double>(run.get().bundle) : std::nullopt; },
        [run](std::optional<double> v) {
            return run.set(say("bundle"), [&](Run& r) { r.bundle = static_cast<int>(std::lround(*v)); });
        },
        false, {}, 1, 200);
    form.choice(
        say("Metal"),
        {{say("copper"), "copper"}, {say("tinned copper"), "tinned"}, {say("copper-clad aluminium"), "cca"}},
        [run] { return run.alive() ? Id(enum_name(run.get().material)) : Id(); },
        [run](const Id& v) { run.set(q(v), [&](Run& r) { r.material = *enum_named<Material>(v); }); });
    QStringList places;
    for (const Id& p : run.get().places) places << q(yr::name_of(run.document->plan(), p));
    if (!places.isEmpty()) form.words(say("passes ") + places.join(QStringLiteral(", ")));
}

// What flows, and what it does to the run, in the state that is shown.
void run_values(FieldForm& form, const Edited<Run>& run, bool cable, bool whole) {
    Document* doc = run.document;
    const Id id = run.id;
    const auto index = [doc, id] {
        return static_cast<std::size_t>(yr::find(doc->plan().runs, id) - doc->plan().runs.data());
    };
    const auto result = [doc, index] { return doc->shown().solution().point.conductors[index()]; };
    const auto amps = [result] { return std::abs(result().current_A); };
    const auto alive = [run](const std::function<QString()>& f) {
        return [run, f] { return run.alive() ? f() : QString(); };
    };
    form.value(say("Carries"), alive([amps, doc] { return text_of(amps(), Dimension::current, doc); }),
               {K::run_current, id, 0});
    form.value(say("Loses"),
               alive([result, doc] { return text_of(std::abs(result().drop_V), Dimension::voltage, doc); }),
               {K::run_drop, id, 0});
    if (!cable) return;
    form.value(say("May carry"), alive([run, doc] {
                   const auto a = run_ampacity(doc->plan(), run.get(), doc->shown().state());
                   return a ? text_of(a->allowed_A, Dimension::current, doc) : QString();
               }),
               {K::run_ampacity, id, 0});
    form.value(say("Conductor at"),
               alive([result, doc] { return text_of(result().temperature_C, Dimension::temperature, doc); }),
               {K::run_temperature, id, 0});
    if (whole)
        form.value(say("Heat"), alive([result, amps, doc] {
                       return text_of(std::abs(result().drop_V) * amps(), Dimension::power, doc);
                   }),
                   {K::run_heat, id, 0});
}

}  // namespace

void fill_run(FieldForm& form, Document* doc, const Id& id, bool whole) {
    const Edited<Run> run{doc, &Plan::runs, id};
    const Run& now = run.get();
    if (whole) {
        name_field(form, run);
        form.words(say("from ") +
                   q(words::terminal(doc->plan(), now.from) + " to " + words::terminal(doc->plan(), now.to)));
    }
    const bool cable = !now.body_metal && !now.resistance_ohm;
    if (cable) {
        size_field(form, run);
        form.quantity(
            say("Length, one way"), Dimension::length,
            [run] { return run.alive() ? run.get().length_m : std::nullopt; },
            [run](std::optional<double> v) {
                return run.set(say("length"), [&](Run& r) { r.length_m = v; });
            },
            true, say("assumed 3 m"), 1e-3, 200);
        if (whole) number_field(form, run, &Run::length_least_m);
    } else {
        form.quantity(
            say("Resistance"), Dimension::resistance,
            [run] { return run.alive() ? run.get().resistance_ohm : std::nullopt; },
            [run](std::optional<double> v) {
                return run.set(say("resistance"), [&](Run& r) { r.resistance_ohm = v; });
            },
            true, say("assumed 0.3 mΩ"), 1e-7, 1000);
    }
    if (cable && whole) cable_fields(form, run);
    if (cable && whole) fitting_fields(form, run);
    if (cable) fuse_and_device_fields(form, run);
    if (cable && whole) tap_field(form, run);
    if (cable && whole) joining_fields(form, run);
    if (cable && whole) add_device_choice(form, run);
    run_values(form, run, cable, whole);
    if (cable && whole) ladder_row(form, doc, id);
    if (whole) remark_fields(form, run);
}

namespace {

// "55 W at 13.8 V", "4.2 A at 12.4 V, resistive": the draw worked out of what a plate or a meter says.
void plate_field(FieldForm& form, const Edited<Load>& load) {
    form.text(
        say("From the plate"),
        [load] {
            return load.alive() && load.get().plate_V
                       ? say("at ") + q(words::editable(*load.get().plate_V, Dimension::voltage,
                                                        load.document->style()))
                       : QString();
        },
        [load](const QString& typed) {
            if (typed.trimmed().isEmpty())
                return load.set(say("plate"), [](Load& l) { l.plate_V.reset(); }), QString();
            const TypedLine line = read_line(load.document->plan(), "x " + typed.toStdString());
            if (!line.draw || !line.details.plate_V || !line.not_understood.empty())
                return say("From the plate: such as 55 W at 13.8 V, or 4.2 A at 12.4 V resistive.");
            return load.set(say("from the plate"),
                            [&](Load& l) {
                                l.draw = *line.draw;
                                l.plate_V = line.details.plate_V;
                            })
                       ? QString()
                       : say("The plan does not take this draw.");
        },
        say("55 W at 13.8 V, resistive"));
}

// What it gets and takes in the state that is shown.
void load_values(FieldForm& form, const Edited<Load>& load) {
    Document* doc = load.document;
    const Id id = load.id;
    const auto result = [doc, id] {
        return doc->shown().solution().point.loads[static_cast<std::size_t>(yr::find(doc->plan().loads, id) -
                                                                            doc->plan().loads.data())];
    };
    const auto value = [&](const QString& label, const std::function<QString()>& f, K kind) {
        form.value(label, [load, f] { return load.alive() ? f() : QString(); }, {kind, id, 0});
    };
    value(
        say("Gets"),
        [result, doc] {
            const LoadResult r = result();
            return r.status == LoadStatus::on     ? text_of(r.voltage_V, Dimension::voltage, doc)
                   : r.status == LoadStatus::off  ? say("off")
                   : r.status == LoadStatus::dead ? say("dead")
                                                  : say("no operating point");
        },
        K::load_voltage);
    value(
        say("Takes"), [result, doc] { return text_of(result().current_A, Dimension::current, doc); },
        K::load_current);
    value(
        say("Drop"),
        [result, doc, load] {
            const double nominal = rail_V(doc->plan(), load.get());
            return text_of(result().drop_V, Dimension::voltage, doc) + QStringLiteral(", ") +
                   q(words::number(100 * result().drop_V / nominal, 2)) + say(" of ") +
                   text_of(drop_limit_V(doc->plan(), load.get()) / nominal, Dimension::fraction, doc);
        },
        K::load_drop);
}

// The feed or channel that it hangs on, and whether it stays there.
void hanging_fields(FieldForm& form, const Edited<Load>& load, const Run& supply) {
    Document* doc = load.document;
    const Id id = load.id;
    const Id run_id = supply.id;
    std::vector<Choice> feeds;  // boxes by channel: free ones, and its own
    for (const Point& p : doc->plan().points) {
        if (p.feeds_loads && (p.channels.empty() || (supply.from == p.id && supply.channel == 0)))
            feeds.push_back({q(p.name), p.id});
        auto channels = free_channels(doc->plan(), p);
        if (supply.from == p.id && supply.channel > 0) channels.insert(channels.begin(), supply.channel);
        for (const int c : channels)
            feeds.push_back({q(words::place_text(doc->plan(), p.id, c)), p.id + "." + std::to_string(c)});
    }
    form.choice(
        say("Hangs on"), feeds,
        [doc, run_id] {
            const Run* r = yr::find(doc->plan().runs, run_id);
            if (!r) return Id();
            return r->channel > 0 ? owner_of(r->from) + "." + std::to_string(r->channel) : owner_of(r->from);
        },
        [doc, id](const Id& v) {
            const auto dot = v.find('.');
            doc->put_load(id, v.substr(0, dot), dot == Id::npos ? 0 : std::stoi(v.substr(dot + 1)));
        });
    form.check(
        say("stays when channels are given out"), [load] { return load.alive() && load.get().pinned; },
        [load](bool on) {
            load.set(on ? say("stays there") : say("may be moved"), [&](Load& l) { l.pinned = on; });
        });
}

}  // namespace

void fill_load(FieldForm& form, Document* doc, const Id& id) {
    const Edited<Load> load{doc, &Plan::loads, id};
    load_values(form, load);
    name_field(form, load);
    form.quantity(
        say("How many"), Dimension::number,
        [load] { return load.alive() ? std::optional<double>(load.get().count) : std::nullopt; },
        [load](std::optional<double> v) {
            return load.set(q("× " + words::number(*v)),
                            [&](Load& l) { l.count = static_cast<int>(std::lround(*v)); });
        },
        false, {}, 1, 999);
    draw_field(form, load);
    plate_field(form, load);
    form.quantity(
        say("At start, each"), Dimension::current,
        [load] { return load.alive() ? load.get().inrush_A : std::nullopt; },
        [load](std::optional<double> v) { return load.set(say("inrush"), [&](Load& l) { l.inrush_A = v; }); },
        true, say("not measured"));
    condition_fields(
        form, say("Live"), doc, [load] { return load.alive() ? load.get().live_when : Condition{}; },
        [load, doc](const QString& what, const Condition& c) {
            if (load.alive() && !(load.get().live_when == c))
                doc->apply(set_live_when(doc->plan(), load.id, c),
                           q(load.get().name) + QStringLiteral(": ") + what);
        });
    form.check(
        say("critical: held to the tighter drop"), [load] { return load.alive() && load.get().critical; },
        [load](bool on) {
            load.set(on ? say("critical") : say("not critical"), [&](Load& l) { l.critical = on; });
        });
    number_field(form, load, &Load::drop_limit);
    form.choice(
        say("Place"), places_of(doc->plan()), [load] { return load.alive() ? load.get().place : Id(); },
        [load](const Id& v) { load.set(say("placed"), [&](Load& l) { l.place = v; }); });
    if (const Run* supply = run_to(doc->plan(), pos_of(id))) {
        const Id run_id = supply->id;
        hanging_fields(form, load, *supply);
        form.heading(say("Supply cable"));
        fill_run(form, doc, run_id, false);
    }
    if (const Run* ret = run_from(doc->plan(), neg_of(id))) {
        form.heading(say("Return to ") + q(words::terminal(doc->plan(), ret->to)));
        fill_run(form, doc, ret->id, false);
    }
    fill_load_more(form, doc, id);
    remark_fields(form, load);
}

}  // namespace yr::app
