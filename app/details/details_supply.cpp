// The fields of sources, batteries and points.
#include "details/details_panel.h"
#include "details/details_part.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

using K = words::ValueKind;

template <class T>
const T* get(const Document* doc, std::vector<T> Plan::*list, const Id& id) {
    return yr::find(doc->plan().*list, id);
}

QString amps(double v, const Document* doc) {
    return q(words::quantity(v, Dimension::current, doc->style()));
}
QString volts(double v, const Document* doc) {
    return q(words::quantity(v, Dimension::voltage, doc->style()));
}

}  // namespace

void fill_source(FieldForm& form, Document* doc, const Id& id) {
    const auto result = [doc, id]() -> SourceResult {
        const Source* s = get(doc, &Plan::sources, id);
        return s ? doc->shown()
                       .solution()
                       .point.sources[static_cast<std::size_t>(s - doc->plan().sources.data())]
                 : SourceResult{};
    };
    form.value(say("Gives"), [=] { return amps(result().current_A, doc); }, {K::source_current, id, 0});
    form.value(say("Could give"), [=] { return amps(result().limit_A, doc); }, {K::source_limit, id, 0});
    form.value(say("At"), [=] { return volts(result().voltage_V, doc); }, {K::source_voltage, id, 0});
    const Edited<Source> part{doc, &Plan::sources, id};
    name_field(form, part);
    const SourceKind kind = part.get().kind;
    const bool converter = kind == SourceKind::converter;
    const bool turned = kind == SourceKind::alternator || kind == SourceKind::stator;
    number_field(form, part, turned ? say("Rated") : say("Limit"), Dimension::current, &Source::rated_A,
                 turned                      ? say("assumed 90 A")
                 : kind == SourceKind::solar ? say("none")
                                             : say("assumed 20 A"),
                 0.1, 2000);
    if (turned) {
        number_field(form, part, &Source::idle_A);
        curve_field(form, part, say("Amps by rpm"), &Source::curve, false, say("from these two"));
        number_field(form, part, &Source::pulley_ratio);
    }
    if (kind == SourceKind::solar) number_field(form, part, &Source::panel_W);
    number_field(form, part, &Source::regulated_V);
    if (turned) number_field(form, part, &Source::least_V);
    number_field(form, part, &Source::droop_ohm);
    if (kind == SourceKind::stator) {
        number_field(form, part, &Source::share);
        number_field(form, part, &Source::regulator_A);
    }
    if (kind != SourceKind::shore)  // what a shore charger takes from the mains is not the vehicle's
        number_field(form, part, say("Efficiency"), Dimension::fraction, &Source::efficiency,
                     turned ? say("assumed 55 %") : say("assumed 90 %"), 0.3, 1);
    if (turned)
        form.value(say("Engine gives"), [=] { return text_of(result().shaft_W, Dimension::power, doc); },
                   {K::source_current, id, 0});
    if (converter) {
        number_field(form, part, &Source::standby_W);
        number_field(form, part, &Source::surge_A);
        number_field(form, part, &Source::enable_on_V);
        number_field(form, part, &Source::enable_off_V);
        number_field(form, part, &Source::stays_charged_s);
    }
    fed_from_field(form, doc, id);
    if (!turned) {
        std::vector<Choice> batteries{{say("whatever it is joined to"), {}}};
        for (const Battery& b : doc->plan().batteries) batteries.push_back({q(b.name), b.id});
        form.choice(
            say("Charges"), batteries, [part] { return part.alive() ? part.get().charges : Id(); },
            [part](const Id& v) { part.set(say("charges"), [&](Source& s) { s.charges = v; }); });
        number_field(form, part, &Source::float_V);
    }
    condition_fields(
        form, say("Works"), doc, [part] { return part.alive() ? part.get().works_when : Condition{}; },
        [part](const QString& what, const Condition& c) {
            part.set(what, [&](Source& s) { s.works_when = c; });
        });
    number_field(form, part, &Source::stud_mm);
    number_field(form, part, &Source::price);
    remark_fields(form, part);
}

void fill_battery(FieldForm& form, Document* doc, const Id& id) {
    const auto result = [doc, id]() -> BatteryResult {
        const Battery* b = get(doc, &Plan::batteries, id);
        return b ? doc->shown()
                       .solution()
                       .point.batteries[static_cast<std::size_t>(b - doc->plan().batteries.data())]
                 : BatteryResult{};
    };
    form.value(say("Gives"),
               [=] {
                   const double a = result().current_A;
                   return a < 0 ? say("takes ") + amps(-a, doc) : amps(a, doc);
               },
               {K::battery_current, id, 0});
    form.value(say("At"), [=] { return volts(result().voltage_V, doc); }, {K::battery_voltage, id, 0});
    form.value(say("Half empty in"),
               [=] {
                   return q(doc->shown().why({K::battery_hours, id, 0}).value);
               },
               {K::battery_hours, id, 0});
    const Edited<Battery> part{doc, &Plan::batteries, id};
    name_field(form, part);
    form.choice(
        say("Chemistry"),
        {{say("flooded lead"), "flooded"},
         {say("AGM lead"), "agm"},
         {say("gel lead"), "gel"},
         {say("LiFePO4"), "lifepo4"}},
        [doc, id] {
            const Battery* b = get(doc, &Plan::batteries, id);
            return b ? Id(enum_name(b->chemistry)) : Id();
        },
        [doc, id](const Id& v) {
            Battery changed = *get(doc, &Plan::batteries, id);
            changed.chemistry = *enum_named<Chemistry>(v);
            doc->apply(Put<Battery>{changed, {}}, q(changed.name + " is " + v));
        });
    number_field(form, part, &Battery::capacity_Ah);
    number_field(form, part, &Battery::cranking_A);
    enum_field(form, part, say("Cranking by"), {{say("SAE J537"), "sae"}, {say("EN 50342-1"), "en"}},
               &Battery::cranking_standard);
    number_field(form, part, &Battery::reserve_min);
    number_field(form, part, &Battery::R0_ohm);
    number_field(form, part, &Battery::charge);
    number_field(form, part, &Battery::health);
    number_field(form, part, &Battery::peukert);
    number_field(form, part, &Battery::charge_most_V);
    number_field(form, part, &Battery::stud_mm);
    number_field(form, part, &Battery::cuts_at_A);
    number_field(form, part, &Battery::apart_mm);
    number_field(form, part, &Battery::price);
    remark_fields(form, part);
}

void fill_point(FieldForm& form, Document* doc, const Id& id) {
    const Point& p = *get(doc, &Plan::points, id);
    if (p.kind != PointKind::ground && p.kind != PointKind::chassis)
        form.value(say("Passes on"),
                   [doc, id] {
                       return q(doc->shown().why({K::feed_current, id, 0}).value);
                   },
                   {K::feed_current, id, 0});
    if (p.kind == PointKind::ground)
        form.value(say("Bond loses"),
                   [doc, id] {
                       return q(doc->shown().why({K::bond_drop, id, 0}).value);
                   },
                   {K::bond_drop, id, 0});
    const Edited<Point> part{doc, &Plan::points, id};
    name_field(form, part);
    fed_from_field(form, doc, id);
    if (p.kind == PointKind::ground) number_field(form, part, &Point::bond_ohm);
    if (!p.bonded_to.empty()) form.words(say("bonded to ") + q(yr::name_of(doc->plan(), p.bonded_to)));
    if (!p.place.empty()) form.words(say("in ") + q(yr::name_of(doc->plan(), p.place)));
    if (p.kind != PointKind::chassis && p.kind != PointKind::splice) {
        number_field(form, part, &Point::stud_mm);
        number_field(form, part, &Point::most_lugs);
        number_field(form, part, &Point::most_mm2);
    }
    if (p.kind == PointKind::chassis || p.kind == PointKind::bus)
        enum_field(form, part, say("Made of"),
                   {{say("not said"), "unknown"},
                    {say("steel"), "steel"},
                    {say("aluminium"), "aluminium"},
                    {say("stainless steel"), "stainless"},
                    {say("copper or brass"), "copper"}},
                   &Point::metal);
    if (p.kind == PointKind::box || p.kind == PointKind::bus) number_field(form, part, &Point::apart_mm);
    if (p.kind == PointKind::splice)
        form.check(
            say("sealed against water"), [part] { return part.alive() && part.get().sealed; },
            [part](bool on) { part.set(say("sealed"), [&](Point& x) { x.sealed = on; }); });
    if (p.kind == PointKind::box) fill_box(form, doc, id);
    if (p.feeds_loads) {
        form.words(say("Its feed:"));
        for (const Run& r : doc->plan().runs)
            if (r.to == id) {
                form.heading(q(words::capital(r.name)));
                fill_run(form, doc, r.id, false);
            }
    }
    remark_fields(form, part);
}

}  // namespace yr::app
