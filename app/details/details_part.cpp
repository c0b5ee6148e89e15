#include "details/details_part.h"
#include "control/hang_on.h"
#include "plan/unusual.h"
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

namespace {

// What "Put in line" offers, as it is usually fitted.
Device new_device(const Edited<Run>& run, const Id& what) {
    const Plan& plan = run.document->plan();
    Device d;
    d.kind = what == "breaker"                          ? DeviceKind::fuse
             : enum_named<DeviceKind>(what).has_value() ? *enum_named<DeviceKind>(what)
                                                        : DeviceKind::switching;
    const bool fuse = d.kind == DeviceKind::fuse;
    d.id = new_id(plan, fuse ? "fuse" : "device");
    if (fuse) d.rating_A = 30;
    if (what == "fuse") d.at_m = run.get().length_m.value_or(3.0);
    if (what == "breaker") d.fuse = FuseType::breaker_3, d.closed_when.switches = {run.get().name};
    if (what == "other") d.rests_closed = true;
    if (what == "latching") d.latching = true, d.closed_when.switches = {run.get().name};
    if (what == "flasher") d.pulse_share = 0.5;
    if (what == "shunt") {
        for (const Battery& b : plan.batteries)
            if (run.get().from == neg_of(b.id) || run.get().to == neg_of(b.id)) d.measures = b.id;
        d.resistance_ohm = 1e-4;
    }
    d.name = what == "sensing_relay" ? "sensing relay"
             : what == "cutoff"      ? "low-voltage cut-off"
             : what == "diode"       ? "isolator"
             : what == "fuse"        ? run.get().name + " second fuse"
             : what == "other"       ? "other contact"
             : what == "latching"    ? "latching disconnect"
             : what == "flasher"     ? "flasher"
             : what == "breaker"     ? run.get().name + " breaker"
             : what == "shunt"       ? "battery sensor"
                                     : "switch";
    return d;
}

}  // namespace

void add_device_choice(FieldForm& form, const Edited<Run>& run) {
    form.choice(
        say("Put in line"),
        {{say("choose …"), {}},
         {say("switch or contactor"), "switch"},
         {say("sensing relay"), "sensing_relay"},
         {say("low-voltage cut-off"), "cutoff"},
         {say("isolator, one way"), "diode"},
         {say("one more fuse"), "fuse"},
         {say("the other contact of a relay"), "other"},
         {say("latching disconnect"), "latching"},
         {say("flasher or dimmer"), "flasher"},
         {say("breaker that is the switch"), "breaker"},
         {say("sensor that counts a battery"), "shunt"}},
        [] { return Id(); },
        [run](const Id& v) {
            if (v.empty() || !run.alive()) return;
            const Device d = new_device(run, v);
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
    const Edited<Run>& run = part.run;
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
        say("the other contact: closed at rest"), [of] { return of() && of()->rests_closed; },
        [change](bool on) { change(say("closed at rest"), [&](Device& x) { x.rests_closed = on; }); });
    form.check(
        say("latching: stays where it was put"), [of] { return of() && of()->latching; },
        [change](bool on) { change(say("latching"), [&](Device& x) { x.latching = on; }); });
    FieldForm* pulses = form.fold(
        say("Pulses"), of()->pulse_share || !of()->pulse_curve.empty() || of()->signal != Signal::steady);
    device_number(*pulses, part, &Device::pulse_share);
    pulses->text(
        say("by warmth, °C"), [of] { return of() ? q(typed_curve(of()->pulse_curve, false)) : QString(); },
        [change](const QString& typed) {
            const auto curve = read_curve(typed.toStdString(), false);
            if (!curve) return say("By warmth: pairs are needed, such as 60: 0.2, 95: 1.");
            return change(say("pulses by warmth"), [&](Device& x) { x.pulse_curve = *curve; })
                       ? QString()
                       : say("By warmth: degrees must rise, and shares lie from 0 to 1.");
        },
        say("the same always"));
    device_number(*pulses, part, &Device::pulse_s);
    pulses->choice(
        say("What it gives"),
        {{say("steady volts"), "steady"},
         {say("pulses"), "pulsed"},
         {say("test pulses to its lamp"), "monitored"}},
        [of] { return of() ? Id(enum_name(of()->signal)) : Id(); },
        [change](const Id& v) {
            change(say("signal"), [&](Device& x) { x.signal = *enum_named<Signal>(v); });
        });
    form.check(
        say("master: meant to make all dead"), [of] { return of() && of()->master; },
        [change](bool on) { change(say("master"), [&](Device& x) { x.master = on; }); });
}

}  // namespace

void device_fields(FieldForm& form, const Edited<Run>& run, const Id& device) {
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
                       : now.kind == DeviceKind::shunt       ? "counts a battery"
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
    if (now.kind == DeviceKind::shunt) {
        number("Resistance", Dimension::resistance, &Device::resistance_ohm, say("assumed 0.5 mΩ"), 1e-7, 10);
        std::vector<Choice> batteries{{say("none"), {}}};
        for (const Battery& b : run.document->plan().batteries) batteries.push_back({q(b.name), b.id});
        form.choice(
            say("Counts"), batteries, [of] { return of() ? of()->measures : Id(); },
            [change](const Id& v) { change(say("counts"), [&](Device& x) { x.measures = v; }); });
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

void fed_from_field(FieldForm& form, Document* doc, const Id& thing) {
    if (!feed_of(doc->plan(), thing)) return;
    std::vector<Choice> supplies;
    for (const Terminal& t : supplies_for(doc->plan(), thing))
        supplies.push_back({q(words::terminal(doc->plan(), t)), t.text()});
    form.choice(
        say("Fed from"), supplies,
        [doc, thing] {
            const Run* feed = feed_of(doc->plan(), thing);
            return feed ? feed->from.text() : std::string();
        },
        [doc, thing](const Id& supply) { doc->hang(thing, Terminal(supply)); });
}

QString doubt_of(const Document* document, Dimension dimension, double value) {
    const auto odd = unusual(document->plan(), dimension, value);
    if (!odd) return {};
    const QString typed = q(words::quantity(value, dimension, document->style())),
                  most = q(words::quantity(odd->most, dimension, document->style()));
    return odd->breaks ? say("What hangs on this rail bears %1: %2 would break it.").arg(most, typed)
                       : say("%1 is more than vehicles have (%2).").arg(typed, most);
}

}  // namespace yr::app
