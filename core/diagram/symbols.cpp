#include "diagram/symbols.h"

#include <algorithm>
#include <cmath>

#include "plan/names.h"

namespace yr {
namespace {

std::string amps(double v) {
    char text[32];
    std::snprintf(text, sizeof text, "%g A", v);
    return text;
}

// A make contact, S00227: a fixed end and an arm that is not on it.
void contact(Strokes& out, double x, double y) {
    out.line(x - 4, y, x - 2, y), out.line(x + 2, y, x + 4, y);
    out.line(x - 2, y, x + 1.8, y - 2.2);
}

}  // namespace

void draw(Strokes& out, Symbol symbol, double x, double y, double size, bool mirrored) {
    const double h = size / 2, way = mirrored ? -1 : 1;
    switch (symbol) {
        case Symbol::battery:  // the long thin stroke is its positive end, towards the right where it feeds
            out.line(x + 1.2 * way, y - h, x + 1.2 * way, y + h, 0.3);
            out.line(x - 1.2 * way, y - h / 2, x - 1.2 * way, y + h / 2, 0.9);
            out.line(x + 1.2, y, x + h, y), out.line(x - h, y, x - 1.2, y);
            out.text(x + 2.2 * way, y - h + 1.2, "+", 2.4, mirrored ? Anchor::right : Anchor::left);
            break;
        case Symbol::generator:
            out.circle(x, y, h);
            out.text(x, y, "G", 3, Anchor::middle, true);
            out.text(x, y + 3, "3~", 2.2, Anchor::middle);
            break;
        case Symbol::motor:
            out.circle(x, y, h);
            out.text(x, y + 1.2, "M", 3.4, Anchor::middle, true);
            break;
        case Symbol::lamp: {
            out.circle(x, y, h);
            const double d = h * 0.7071;
            out.line(x - d, y - d, x + d, y + d), out.line(x - d, y + d, x + d, y - d);
            break;
        }
        case Symbol::converter:
        case Symbol::rectifier:
        case Symbol::inverter:
            out.box(x - h, y - h, x + h, y + h);
            out.line(x - h, y + h, x + h, y - h);
            out.text(x - h * 0.55, y - h * 0.2, symbol == Symbol::rectifier ? "~" : "=", 3, Anchor::middle);
            out.text(x + h * 0.55, y + h * 0.75, symbol == Symbol::inverter ? "~" : "=", 3, Anchor::middle);
            break;
        case Symbol::solar:
            out.box(x - h, y - h, x + h, y + h);
            out.line(x - h, y - h, x, y), out.line(x - h, y + h, x, y);
            break;
        case Symbol::junction:
            out.circle(x, y, 1, true);
            break;
        case Symbol::bar:
            out.line(x, y - h, x, y + h, 1.2);
            break;
        case Symbol::coil:
            out.box(x - h * 0.6, y - h, x + h * 0.6, y + h);
            out.line(x - h * 0.6, y + h * 0.6, x + h * 0.6, y - h * 0.6);
            break;
        case Symbol::unit:
        case Symbol::load:
            out.box(x - h, y - h, x + h, y + h);
            break;
    }
}

void draw_device(Strokes& out, const Device& d, double x, double y) {
    const Id owner = d.id;
    out.belongs_to(owner);
    switch (d.kind) {
        case DeviceKind::fuse:
            if (is_breaker(d.fuse)) {  // S00287: a contact with a cross
                contact(out, x, y);
                out.line(x + 1.2, y - 0.8, x + 2.8, y + 0.8), out.line(x + 1.2, y + 0.8, x + 2.8, y - 0.8);
            } else {  // S00362
                out.box(x - 2.6, y - 1.1, x + 2.6, y + 1.1);
                out.line(x - 4, y, x + 4, y);
            }
            out.text(x, y + 3.9, amps(d.rating_A), 2.2, Anchor::middle, true);
            return;
        case DeviceKind::switching:
            contact(out, x, y);
            if (!d.coil.empty()) {  // driven: the dashed line is what moves it
                out.dashes(x, y - 1.2, x, y + 3.4);
                out.text(x - 4, y + 3.2, "30", 1.8), out.text(x + 4, y + 3.2, "87", 1.8, Anchor::right);
            } else if (d.master) {
                out.text(x, y + 3.6, "master", 2, Anchor::middle);
            }
            return;
        case DeviceKind::sensing_relay:
        case DeviceKind::cutoff:
            contact(out, x, y);
            out.dashes(x, y - 1.2, x, y + 2.4);
            out.box(x - 1.6, y + 2.4, x + 1.6, y + 4.6);
            out.text(x, y + 4.2, d.kind == DeviceKind::cutoff ? "U<" : "U>", 1.8, Anchor::middle);
            return;
        case DeviceKind::diode:  // S00641
            out.line(x - 4, y, x + 4, y);
            out.line(x - 1.6, y - 1.6, x - 1.6, y + 1.6), out.line(x - 1.6, y - 1.6, x + 1.4, y);
            out.line(x - 1.6, y + 1.6, x + 1.4, y), out.line(x + 1.4, y - 1.6, x + 1.4, y + 1.6);
            return;
        case DeviceKind::shunt:  // S00555
            out.box(x - 2.6, y - 0.9, x + 2.6, y + 0.9);
            out.line(x - 4, y, x - 2.6, y), out.line(x + 2.6, y, x + 4, y);
            out.line(x - 2, y + 0.9, x - 2, y + 2.4), out.line(x + 2, y + 0.9, x + 2, y + 2.4);
            return;
    }
}

void draw_ground(Strokes& out, double x, double y, const std::string& name, bool frame) {
    out.line(x, y, x, y + 1.5);
    if (frame) {  // S00202
        out.line(x - 2, y + 1.5, x + 2, y + 1.5);
        for (const double at : {-1.8, 0.0, 1.8}) out.line(x + at, y + 1.5, x + at - 0.9, y + 3);
    } else {  // to a bar of its own: three strokes, S00200
        out.line(x - 2, y + 1.5, x + 2, y + 1.5), out.line(x - 1.3, y + 2.3, x + 1.3, y + 2.3);
        out.line(x - 0.6, y + 3.1, x + 0.6, y + 3.1);
    }
    out.text(x + 2.6, y + 3, name, 2.2);
}

void draw_pin(Strokes& out, double x, double y, const std::string& text) {
    out.line(x - 0.6, y - 1, x + 0.4, y), out.line(x - 0.6, y + 1, x + 0.4, y);
    out.line(x + 0.8, y - 1, x + 1.8, y), out.line(x + 0.8, y + 1, x + 1.8, y);
    out.text(x + 0.6, y - 1.6, text, 1.8, Anchor::middle);
}

Symbol symbol_of(const Plan& plan, const Id& thing) {
    if (find(plan.batteries, std::string_view(thing))) return Symbol::battery;
    if (find(plan.inverters, std::string_view(thing))) return Symbol::inverter;
    if (const Source* s = find(plan.sources, std::string_view(thing))) {
        switch (s->kind) {
            case SourceKind::alternator:
            case SourceKind::stator:
                return Symbol::generator;
            case SourceKind::converter:
                return Symbol::converter;
            case SourceKind::shore:
                return Symbol::rectifier;
            case SourceKind::solar:
                return Symbol::solar;
        }
    }
    if (const Point* p = find(plan.points, std::string_view(thing))) {
        switch (p->kind) {
            case PointKind::stud:
            case PointKind::splice:
            case PointKind::ground:
            case PointKind::chassis:
                return Symbol::junction;
            case PointKind::bus:
                return Symbol::bar;
            case PointKind::box:
                return Symbol::unit;
        }
    }
    if (const Load* l = find(plan.loads, std::string_view(thing))) {
        for (const Run& r : plan.runs)
            for (const Device& d : r.devices)
                if (d.coil == thing) return Symbol::coil;
        if (l->starter || l->start == StartKind::motor || !l->line_curve.empty()) return Symbol::motor;
        if (l->start == StartKind::lamp) return Symbol::lamp;
        const auto named = [&](const char* word) { return l->name.find(word) != std::string::npos; };
        if (named("light") || named("lamp") || named("beacon")) return Symbol::lamp;
        if (named("pump") || named("fan") || named("motor") || named("winch") || named("hoist"))
            return Symbol::motor;
    }
    return Symbol::load;
}

std::string terminal_number(const Plan& plan, const Terminal& at) {
    if (find(plan.batteries, std::string_view(at.owner))) return at.post == Post::pos ? "30" : "31";
    if (const Source* s = find(plan.sources, std::string_view(at.owner)))
        return at.post == Post::in ? "30" : s->kind == SourceKind::alternator ? "B+" : "30";
    const Load* l = find(plan.loads, std::string_view(at.owner));
    if (!l) return {};
    const bool coil = symbol_of(plan, l->id) == Symbol::coil;
    if (at.post == Post::neg) return coil ? "85" : "31";
    if (coil) return "86";
    if (l->starter) return "30";
    switch (l->live_when.key) {
        case Key::off:
            return l->live_when.switches.empty() ? "30" : "";
        case Key::accessory:
            return "75";
        case Key::ignition:
            return "15";
        case Key::crank:
            return "50";
    }
    return {};
}

}  // namespace yr
