// The fields of connectors and jackets, and of what a run passes on its way.
#include <QDir>
#include <QFileInfo>
#include <QPixmap>
#include <algorithm>

#include "catalog/sockets.h"
#include "details/details_panel.h"
#include "details/details_part.h"
#include "network/connectors.h"
#include "plan/additions_joining.h"
#include "typing/pins.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kPhoto_px = 264;

// What passes each pin: the socket's own function, or the cables that the plan sends through it.
QString pin_table(const Plan& plan, const Connector& c) {
    const Socket* socket = c.socket.empty() ? nullptr : socket_named(c.socket);
    const int count = pin_count(c).value_or(0);
    QStringList lines;
    int last = count;
    for (const Run& r : plan.runs)
        for (const PinUse& use : r.pins)
            if (use.connector == c.id) last = std::max(last, use.pin);
    for (int pin = 1; pin <= last; ++pin) {
        QStringList there;
        for (const Run& r : plan.runs)
            for (const PinUse& use : r.pins)
                if (use.connector == c.id && use.pin == pin) there << q(r.name);
        QString line = QStringLiteral("%1  ").arg(pin);
        if (socket && pin <= static_cast<int>(socket->pins.size()))
            line += q(socket->pins[static_cast<std::size_t>(pin - 1)].function) + QStringLiteral(": ");
        lines << line + (there.isEmpty() ? say("free") : there.join(QStringLiteral(", ")));
    }
    return lines.join(QLatin1Char('\n'));
}

}  // namespace

void photo_of(FieldForm& form, Document* doc, const std::string& photo) {
    if (photo.empty()) return;
    const QFileInfo beside(QFileInfo(doc->store().path()).dir(), q(photo));
    const QPixmap picture(beside.filePath());
    auto* label = new QLabel;
    label->setWordWrap(true);
    label->setAccessibleName(say("Photo"));
    if (picture.isNull())
        label->setText(say("No picture is found at %1.").arg(beside.filePath()));
    else
        label->setPixmap(picture.scaledToWidth(kPhoto_px, Qt::SmoothTransformation));
    form.add(label);
}

// What a place is to cables, boxes and batteries.
void place_marks(FieldForm& form, const Edited<Place>& part) {
    form.choice(
        say("Keep clear"),
        {{say("no need"), "none"},
         {say("an airbag opens there"), "airbag"},
         {say("belts, fans, hinges"), "moving"},
         {say("steering"), "steering"},
         {say("seat slides"), "seat_slide"},
         {say("wheel travel"), "wheel_travel"},
         {say("exhaust or as hot"), "exhaust"},
         {say("fuel lines"), "fuel_line"},
         {say("brake lines"), "brake_line"},
         {say("jack point"), "jack_point"},
         {say("orange cables"), "high_voltage"}},
        [part] { return part.alive() ? Id(enum_name(part.get().hazard)) : Id(); },
        [part](const Id& v) {
            part.set(say("keep clear"), [&](Place& p) { p.hazard = *enum_named<Hazard>(v); });
        });
    const std::pair<QString, bool Place::*> marks[] = {
        {say("water gets there"), &Place::wet},
        {say("people sit there"), &Place::people},
        {say("an outlet of cooled air"), &Place::cold_air},
        {say("boxes may be screwed on there"), &Place::mounting}};
    for (const auto& [words, mark] : marks)
        form.check(
            words, [part, mark = mark] { return part.alive() && part.get().*mark; },
            [part, mark = mark, words = words](bool on) {
                part.set(words, [&](Place& p) { p.*mark = on; });
            });
}

// Its air, its corner and how large it is.
void place_room(FieldForm& form, const Edited<Place>& part) {
    struct Row {
        QString label, open;
        std::optional<double>& (*of)(Place&);
        double least, most;
        Dimension unit = Dimension::number;
    };
    const QString nowhere = say("not placed"), no_room = say("no room of its own");
    const Row rows[] = {
        {say("Hotter by, K"), say("as the rest"), [](Place& p) -> std::optional<double>& { return p.air_K; },
         -60, 120},
        {say("Always at"), say("as the state says"),
         [](Place& p) -> std::optional<double>& { return p.air_C; }, -60, 200, Dimension::temperature},
        {say("Back, m"), nowhere, [](Place& p) -> std::optional<double>& { return p.at.x_m; }, -20, 40},
        {say("Right, m"), nowhere, [](Place& p) -> std::optional<double>& { return p.at.y_m; }, -20, 20},
        {say("Up, m"), nowhere, [](Place& p) -> std::optional<double>& { return p.at.z_m; }, -5, 10},
        {say("Long, m"), no_room, [](Place& p) -> std::optional<double>& { return p.long_m; }, 0.01, 40},
        {say("Wide, m"), no_room, [](Place& p) -> std::optional<double>& { return p.wide_m; }, 0.01, 10},
        {say("High, m"), no_room, [](Place& p) -> std::optional<double>& { return p.high_m; }, 0.01, 10}};
    for (const Row& row : rows)
        form.quantity(
            row.label, row.unit,
            [part, of = row.of]() -> std::optional<double> {
                if (!part.alive()) return std::nullopt;
                Place copy = part.get();
                return of(copy);
            },
            [part, of = row.of, what = row.label](std::optional<double> v) {
                return part.set(what, [&](Place& p) { of(p) = v; });
            },
            true, row.open, row.least, row.most);
}

void fill_place(FieldForm& form, Document* doc, const Id& id) {
    const Edited<Place> part{doc, &Plan::places, id};
    name_field(form, part);
    form.check(
        say("engine space: its air is the engine bay's"),
        [part] { return part.alive() && part.get().engine_space; },
        [part](bool on) { part.set(say("engine space"), [&](Place& p) { p.engine_space = on; }); });
    place_marks(form, part);
    place_room(form, part);
    remark_fields(form, part);
}

void fill_connector(FieldForm& form, Document* doc, const Id& id) {
    const Edited<Connector> part{doc, &Plan::connectors, id};
    name_field(form, part);
    std::vector<Choice> kinds{{say("pins of its own"), {}}};
    for (const Socket& s : sockets()) kinds.push_back({q(s.name), s.key});
    form.choice(
        say("Socket"), kinds, [part] { return part.alive() ? Id(part.get().socket) : Id(); },
        [part](const Id& v) { part.set(say("socket"), [&](Connector& c) { c.socket = v; }); });
    form.choice(
        say("Place"), places_of(doc->plan()), [part] { return part.alive() ? part.get().place : Id(); },
        [part](const Id& v) { part.set(say("placed"), [&](Connector& c) { c.place = v; }); });
    number_field(form, part, &Connector::pins);
    number_field(form, part, &Connector::rows);
    number_field(form, part, &Connector::contact_mm);
    number_field(form, part, &Connector::pin_A);
    number_field(form, part, &Connector::contact_ohm);
    number_field(form, part, &Connector::limit_C);
    form.check(
        say("sealed against water"), [part] { return part.alive() && part.get().sealed; },
        [part](bool on) { part.set(say("sealed"), [&](Connector& c) { c.sealed = on; }); });
    form.text(
        say("Mates with"), [part] { return part.alive() ? q(part.get().mates_with) : QString(); },
        [part](const QString& typed) {
            part.set(say("other half"), [&](Connector& c) { c.mates_with = typed.trimmed().toStdString(); });
            return QString();
        },
        say("not said"));
    form.heading(say("Its pins"));
    form.words(pin_table(doc->plan(), part.get()));
    form.words(say("A cable is led through it in the cable's own details, “Through pins”."));
    remark_fields(form, part);
}

void fill_jacket(FieldForm& form, Document* doc, const Id& id) {
    const Edited<Jacket> part{doc, &Plan::jackets, id};
    name_field(form, part);
    number_field(form, part, &Jacket::cores);
    number_field(form, part, &Jacket::outer_mm);
    form.heading(say("Its cores"));
    QStringList cores;
    for (const Run& r : doc->plan().runs)
        if (r.jacket == id) cores << q(r.name);
    form.words(cores.isEmpty() ? say("none yet: choose it in the details of a cable, “In one jacket”.")
                               : cores.join(QLatin1Char('\n')));
    remark_fields(form, part);
}

void joining_fields(FieldForm& form, const Edited<Run>& run) {
    Document* doc = run.document;
    form.text(
        say("Through pins"),
        [run, doc] { return run.alive() ? q(typed_pins(doc->plan(), run.get().pins)) : QString(); },
        [run, doc](const QString& typed) {
            const auto pins = read_pins(doc->plan(), typed.toStdString());
            if (!pins)
                return pins.error().code == ErrorCode::missing_reference
                           ? say("Through pins: %1 is no connector of this plan. Add, Connector makes one.")
                                 .arg(q(pins.error().given))
                           : say("Through pins: a connector and its pins are needed, such as rear plug: 3, "
                                 "4.");
            return run.set(say("through pins"), [&](Run& r) { r.pins = *pins; })
                       ? QString()
                       : say("Through pins: the connector has no such pin.");
        },
        say("none, e.g. rear plug: 3, 4"));
    std::vector<Choice> jackets{{say("a cable of its own"), {}}};
    for (const Jacket& j : doc->plan().jackets) jackets.push_back({q(j.name), j.id});
    jackets.push_back({say("a new cable of several cores"), "new jacket"});
    form.choice(
        say("In one jacket"), jackets, [run] { return run.alive() ? run.get().jacket : Id(); },
        [run, doc](const Id& v) {
            if (v != "new jacket") {
                run.set(say("in a jacket"), [&](Run& r) { r.jacket = v; });
                return;
            }
            const auto added = add_jacket(doc->plan());
            if (!run.alive() || !added) return;
            Run changed = run.get();
            changed.jacket = added->id;
            doc->apply(Batch{{added->edit, Put<Run>{changed, {}}}},
                       q(changed.name) + say(": core of a new cable"));
        });
}

}  // namespace yr::app
