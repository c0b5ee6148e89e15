#include "shell/details_part.h"

namespace yr::app {
QString text_of(double v, Dimension d, const PlanDocument* doc) {
    return q(words::quantity(v, d, doc->style()));
}

std::vector<Choice> places_of(const Plan& plan) {
    std::vector<Choice> list{{QStringLiteral("not said"), {}}};
    for (const Place& p : plan.places) list.push_back({q(p.name), p.id});
    return list;
}

QString curve_text(const std::vector<std::pair<double, double>>& curve, bool shares) {
    QStringList parts;
    for (const auto& [x, y] : curve)
        parts << (shares ? q(words::number(100 * x, 6)) + QStringLiteral(" %: ")
                         : q(words::number(x, 6)) + QStringLiteral(": ")) +
                     q(words::number(y, 6));
    return parts.join(QStringLiteral(", "));
}

std::optional<std::vector<std::pair<double, double>>> read_curve(const QString& text, bool shares) {
    std::vector<std::pair<double, double>> curve;
    if (text.trimmed().isEmpty()) return curve;
    for (const QString& part : text.split(QLatin1Char(','))) {
        const QStringList two = part.split(QLatin1Char(':'));
        if (two.size() != 2) return std::nullopt;
        QString first = two[0].trimmed();
        if (shares && !first.endsWith(QLatin1Char('%'))) first += QStringLiteral(" %");
        const auto x = parse_value(first.toStdString(), shares ? Dimension::fraction : Dimension::number);
        const auto y = parse_value(two[1].trimmed().toStdString(), Dimension::number);
        if (!x || !y) return std::nullopt;
        curve.emplace_back(*x, *y);
    }
    return curve;
}

const Device* DevicePart::get() const {
    return run.alive() ? yr::find(run.get().devices, device) : nullptr;
}

bool DevicePart::set(const QString& what, const std::function<void(Device&)>& change) const {
    return run.set(what, [&](Run& r) {
        for (Device& x : r.devices)
            if (x.id == device) change(x);
    });
}

void add_device_choice(FieldForm& form, const Part<Run>& run) {
    form.choice(
        QStringLiteral("Put in line"),
        {{QStringLiteral("choose …"), {}},
         {QStringLiteral("switch or contactor"), "switch"},
         {QStringLiteral("sensing relay"), "sensing_relay"},
         {QStringLiteral("low-voltage cut-off"), "cutoff"},
         {QStringLiteral("isolator, one way"), "diode"},
         {QStringLiteral("one more fuse"), "fuse"}},
        [] { return Id(); },
        [run](const Id& v) {
            const auto kind = enum_named<DeviceKind>(v);
            if (!kind || !run.alive()) return;
            Device d;
            d.id = new_id(run.document->plan(), *kind == DeviceKind::fuse ? "fuse" : "device");
            d.kind = *kind;
            d.at_m = *kind == DeviceKind::fuse ? std::optional<double>(run.get().length_m.value_or(3.0))
                                               : std::nullopt;
            d.rating_A = *kind == DeviceKind::fuse ? 30 : 0;
            d.name = *kind == DeviceKind::sensing_relay ? "sensing relay"
                     : *kind == DeviceKind::cutoff      ? "low-voltage cut-off"
                     : *kind == DeviceKind::diode       ? "isolator"
                     : *kind == DeviceKind::fuse        ? run.get().name + " second fuse"
                                                        : "switch";
            run.set(q(d.name), [&](Run& r) { r.devices.push_back(d); });
        });
}

void device_fields(FieldForm& form, const Part<Run>& run, const Id& device) {
    const DevicePart part{run, device};
    const auto of = [part] { return part.get(); };
    const auto change = [part](const QString& what, const std::function<void(Device&)>& f) {
        return part.set(what, f);
    };
    const auto number = [&](const char* label, Dimension d, std::optional<double> Device::*m,
                            const QString& assumed, double low, double high) {
        const QString text = QString::fromUtf8(label);
        form.quantity(
            text, d, [of, m] { return of() ? of()->*m : std::nullopt; },
            [change, m, text](std::optional<double> v) {
                return change(text.toLower(), [&](Device& x) { x.*m = v; });
            },
            true, assumed, low, high);
    };
    const Device& now = *of();
    const char* what = now.kind == DeviceKind::sensing_relay ? "closes and opens by volts"
                       : now.kind == DeviceKind::cutoff      ? "cuts off by volts"
                       : now.kind == DeviceKind::diode       ? "passes one way only"
                                                             : "switches";
    form.heading(q(words::capital(now.name) + ", " + what));
    form.button(QStringLiteral("Take it out of the line"), [run, device] {
        run.set(QStringLiteral("device out"),
                [&](Run& r) { std::erase_if(r.devices, [&](const Device& d) { return d.id == device; }); });
    });
    if (now.kind == DeviceKind::diode) {
        number("Forward volts", Dimension::voltage, &Device::forward_V, QStringLiteral("assumed 0.7 V"),
               0.001, 5);
        number("Resistance", Dimension::resistance, &Device::resistance_ohm, QStringLiteral("assumed 0.5 mΩ"),
               1e-7, 10);
        return;
    }
    if (now.kind != DeviceKind::switching) {
        const bool guard = now.kind == DeviceKind::cutoff;
        number("Closes from", Dimension::voltage, &Device::close_V,
               guard ? QStringLiteral("assumed 12.6 V") : QStringLiteral("assumed 13.3 V"), 1, 100);
        number("Opens below", Dimension::voltage, &Device::open_V,
               guard ? QStringLiteral("assumed 11.5 V") : QStringLiteral("assumed 12.8 V"), 1, 100);
        number("Waits", Dimension::time, &Device::delay_s, QStringLiteral("not at all"), 1e-3, 86400);
        if (!guard)
            form.choice(
                QStringLiteral("Senses"),
                {{QStringLiteral("where it begins"), "from"},
                 {QStringLiteral("where it ends"), "to"},
                 {QStringLiteral("either end"), "either"}},
                [of] { return of() ? Id(enum_name(of()->senses)) : Id(); },
                [change](const Id& v) {
                    change(QStringLiteral("senses ") + q(v),
                           [&](Device& x) { x.senses = *enum_named<Senses>(v); });
                });
    }
    condition_fields(
        form, QStringLiteral("May close"), run.document,
        [of] { return of() ? of()->closed_when : Condition{}; },
        [change](const QString& text, const Condition& c) {
            change(text, [&](Device& x) { x.closed_when = c; });
        });
    if (now.kind != DeviceKind::switching) return;
    std::vector<Choice> coils{{QStringLiteral("none: by hand or key"), {}}};
    for (const Load& l : run.document->plan().loads)
        if (l.inverter.empty()) coils.push_back({q(l.name), l.id});
    form.choice(
        QStringLiteral("Coil"), coils, [of] { return of() ? of()->coil : Id(); },
        [change](const Id& v) { change(QStringLiteral("coil"), [&](Device& x) { x.coil = v; }); });
    form.choice(
        QStringLiteral("Coil's kick"),
        {{QStringLiteral("not known"), "unknown"},
         {QStringLiteral("nothing holds it"), "none"},
         {QStringLiteral("a diode holds it"), "diode"},
         {QStringLiteral("a resistor holds it"), "resistor"}},
        [of] { return of() ? Id(enum_name(of()->suppression)) : Id(); },
        [change](const Id& v) {
            change(QStringLiteral("suppression"),
                   [&](Device& x) { x.suppression = *enum_named<Suppression>(v); });
        });
    number("Contacts carry", Dimension::current, &Device::contact_A, QStringLiteral("not said"), 0.1, 10000);
    std::vector<Choice> units{{QStringLiteral("no control unit"), {}}};
    for (const Load& l : run.document->plan().loads)
        if (l.inverter.empty()) units.push_back({q(l.name), l.id});
    form.choice(
        QStringLiteral("Grounds without"), units, [of] { return of() ? of()->grounds_without : Id(); },
        [change](const Id& v) {
            change(QStringLiteral("grounds without supply"), [&](Device& x) { x.grounds_without = v; });
        });
    form.check(
        QStringLiteral("master: meant to make all dead"), [of] { return of() && of()->master; },
        [change](bool on) { change(QStringLiteral("master"), [&](Device& x) { x.master = on; }); });
}

}  // namespace yr::app
