#include "details/details_part.h"
#include "words/sentences.h"

namespace yr::app {
QString text_of(double v, Dimension d, const Document* doc) {
    return q(words::quantity(v, d, doc->style()));
}

std::vector<Choice> places_of(const Plan& plan) {
    std::vector<Choice> list{{say("not said"), {}}};
    for (const Place& p : plan.places) list.push_back({q(p.name), p.id});
    return list;
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
        say("Put in line"),
        {{say("choose …"), {}},
         {say("switch or contactor"), "switch"},
         {say("sensing relay"), "sensing_relay"},
         {say("low-voltage cut-off"), "cutoff"},
         {say("isolator, one way"), "diode"},
         {say("one more fuse"), "fuse"}},
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

namespace {

// An optional number of a device, as its declaration says.
void device_number(FieldForm& form, const DevicePart& part, std::optional<double> Device::*member) {
    const Field field = declared(member);
    const QString label = say(field.label);
    form.quantity(
        label, field.dimension, [part, member] { return part.get() ? part.get()->*member : std::nullopt; },
        [part, member, label](std::optional<double> v) {
            return part.set(label.toLower(), [&](Device& x) { x.*member = v; });
        },
        true, say(field.open), field.least, field.most);
}

// What closes a contact, and what that contact bears.
void contact_fields(FieldForm& form, const DevicePart& part) {
    const Part<Run>& run = part.run;
    const auto of = [part] { return part.get(); };
    const auto change = [part](const QString& what, const std::function<void(Device&)>& f) {
        return part.set(what, f);
    };
    std::vector<Choice> coils{{say("none: by hand or key"), {}}};
    for (const Load& l : run.document->plan().loads)
        if (l.inverter.empty()) coils.push_back({q(l.name), l.id});
    form.choice(
        say("Coil"), coils, [of] { return of() ? of()->coil : Id(); },
        [change](const Id& v) { change(say("coil"), [&](Device& x) { x.coil = v; }); });
    form.choice(
        say("Coil's kick"),
        {{say("not known"), "unknown"},
         {say("nothing holds it"), "none"},
         {say("a diode holds it"), "diode"},
         {say("a resistor holds it"), "resistor"}},
        [of] { return of() ? Id(enum_name(of()->suppression)) : Id(); },
        [change](const Id& v) {
            change(say("suppression"), [&](Device& x) { x.suppression = *enum_named<Suppression>(v); });
        });
    device_number(form, part, &Device::contact_A);
    std::vector<Choice> units{{say("no control unit"), {}}};
    for (const Load& l : run.document->plan().loads)
        if (l.inverter.empty()) units.push_back({q(l.name), l.id});
    form.choice(
        say("Grounds without"), units, [of] { return of() ? of()->grounds_without : Id(); },
        [change](const Id& v) {
            change(say("grounds without supply"), [&](Device& x) { x.grounds_without = v; });
        });
    form.check(
        say("master: meant to make all dead"), [of] { return of() && of()->master; },
        [change](bool on) { change(say("master"), [&](Device& x) { x.master = on; }); });
}

}  // namespace

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
    form.button(say("Take it out of the line"), [run, device] {
        run.set(say("device out"),
                [&](Run& r) { std::erase_if(r.devices, [&](const Device& d) { return d.id == device; }); });
    });
    if (now.kind == DeviceKind::diode) {
        number("Forward volts", Dimension::voltage, &Device::forward_V, say("assumed 0.7 V"), 0.001, 5);
        number("Resistance", Dimension::resistance, &Device::resistance_ohm, say("assumed 0.5 mΩ"), 1e-7, 10);
        return;
    }
    if (now.kind != DeviceKind::switching) {
        const bool guard = now.kind == DeviceKind::cutoff;
        number("Closes from", Dimension::voltage, &Device::close_V,
               guard ? say("assumed 12.6 V") : say("assumed 13.3 V"), 1, 100);
        number("Opens below", Dimension::voltage, &Device::open_V,
               guard ? say("assumed 11.5 V") : say("assumed 12.8 V"), 1, 100);
        number("Waits", Dimension::time, &Device::delay_s, say("not at all"), 1e-3, 86400);
        if (!guard)
            form.choice(
                say("Senses"),
                {{say("where it begins"), "from"},
                 {say("where it ends"), "to"},
                 {say("either end"), "either"}},
                [of] { return of() ? Id(enum_name(of()->senses)) : Id(); },
                [change](const Id& v) {
                    change(say("senses ") + q(v), [&](Device& x) { x.senses = *enum_named<Senses>(v); });
                });
    }
    condition_fields(
        form, say("May close"), run.document, [of] { return of() ? of()->closed_when : Condition{}; },
        [change](const QString& text, const Condition& c) {
            change(text, [&](Device& x) { x.closed_when = c; });
        });
    if (now.kind == DeviceKind::switching) contact_fields(form, part);
}

}  // namespace yr::app
