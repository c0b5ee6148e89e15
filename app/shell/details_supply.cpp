// The fields of sources, batteries and points.
#include "shell/details_panel.h"
#include "shell/details_part.h"

namespace yr::app {
namespace {

using K = words::ValueKind;

template <class T>
const T* get(const PlanDocument* doc, std::vector<T> Plan::*list, const Id& id) {
    return yr::find(doc->plan().*list, id);
}

QString amps(double v, const PlanDocument* doc) {
    return q(words::quantity(v, Dimension::current, doc->style()));
}
QString volts(double v, const PlanDocument* doc) {
    return q(words::quantity(v, Dimension::voltage, doc->style()));
}

}  // namespace

void fill_source(FieldForm& form, PlanDocument* doc, const Id& id) {
    const auto result = [doc, id]() -> SourceResult {
        const Source* s = get(doc, &Plan::sources, id);
        return s ? doc->solution().point.sources[static_cast<std::size_t>(s - doc->plan().sources.data())]
                 : SourceResult{};
    };
    form.value(QStringLiteral("Gives"), [=] { return amps(result().current_A, doc); },
               {K::source_current, id, 0});
    form.value(QStringLiteral("Could give"), [=] { return amps(result().limit_A, doc); },
               {K::source_limit, id, 0});
    form.value(QStringLiteral("At"), [=] { return volts(result().voltage_V, doc); },
               {K::source_voltage, id, 0});
    const Part<Source> part{doc, &Plan::sources, id};
    name_field(form, part);
    const SourceKind kind = part.get().kind;
    const bool converter = kind == SourceKind::converter;
    const bool turned = kind == SourceKind::alternator || kind == SourceKind::stator;
    const auto field = [&](const char* label, Dimension d, std::optional<double> Source::*m,
                           const char* assumed, double low, double high) {
        number_field(form, part, QString::fromUtf8(label), d, m, QString::fromUtf8(assumed), low, high);
    };
    field(turned ? "Rated" : "Limit", Dimension::current, &Source::rated_A,
          turned                      ? "assumed 90 A"
          : kind == SourceKind::solar ? "none"
                                      : "assumed 20 A",
          0.1, 2000);
    if (turned) {
        field("At idle speed", Dimension::current, &Source::idle_A, "half of rated", 0, 2000);
        curve_field(form, part, QStringLiteral("Amps by rpm"), &Source::curve, false,
                    QStringLiteral("from these two"));
        field("Pulley ratio", Dimension::number, &Source::pulley_ratio, "assumed 2.7", 0.1, 20);
    }
    if (kind == SourceKind::solar)
        field("Panel", Dimension::power, &Source::panel_W, "assumed 100 W", 1, 100000);
    field("Regulated to", Dimension::voltage, &Source::regulated_V, "assumed 14.2 V", 5, 70);
    if (turned) field("Down to", Dimension::voltage, &Source::least_V, "never less", 5, 70);
    field("Droop", Dimension::resistance, &Source::droop_ohm, "assumed 4 mΩ", 1e-7, 1);
    if (kind == SourceKind::stator) {
        field("Its share", Dimension::fraction, &Source::share, "all of the winding", 0.01, 1);
        field("Regulator", Dimension::current, &Source::regulator_A, "passes all", 0.1, 2000);
    }
    if (kind != SourceKind::shore)  // what a shore charger takes from the mains is not the vehicle's
        field("Efficiency", Dimension::fraction, &Source::efficiency,
              turned ? "assumed 55 %" : "assumed 90 %", 0.3, 1);
    if (turned)
        form.value(QStringLiteral("Engine gives"),
                   [=] { return text_of(result().shaft_W, Dimension::power, doc); },
                   {K::source_current, id, 0});
    if (converter) {
        field("Standby", Dimension::power, &Source::standby_W, "none", 0, 500);
        field("For a moment", Dimension::current, &Source::surge_A, "no more", 0.1, 5000);
        field("Starts from", Dimension::voltage, &Source::enable_on_V, "any volts", 1, 100);
        field("Stops below", Dimension::voltage, &Source::enable_off_V, "never", 1, 100);
        field("Stays charged", Dimension::time, &Source::stays_charged_s, "not at all", 1e-3, 86400);
    }
    if (!turned) {
        std::vector<Choice> batteries{{QStringLiteral("none"), {}}};
        for (const Battery& b : doc->plan().batteries) batteries.push_back({q(b.name), b.id});
        form.choice(
            QStringLiteral("Charges"), batteries, [part] { return part.alive() ? part.get().charges : Id(); },
            [part](const Id& v) { part.set(QStringLiteral("charges"), [&](Source& s) { s.charges = v; }); });
        field("Floats at", Dimension::voltage, &Source::float_V, "no float", 5, 70);
    }
    condition_fields(
        form, QStringLiteral("Works"), doc,
        [part] { return part.alive() ? part.get().works_when : Condition{}; },
        [part](const QString& what, const Condition& c) {
            part.set(what, [&](Source& s) { s.works_when = c; });
        });
    field("Bolt, M", Dimension::number, &Source::stud_mm, "not said", 2, 30);
    field("Price", Dimension::number, &Source::price, "not set", 0, 1e7);
}

void fill_battery(FieldForm& form, PlanDocument* doc, const Id& id) {
    const auto result = [doc, id]() -> BatteryResult {
        const Battery* b = get(doc, &Plan::batteries, id);
        return b ? doc->solution().point.batteries[static_cast<std::size_t>(b - doc->plan().batteries.data())]
                 : BatteryResult{};
    };
    form.value(QStringLiteral("Gives"),
               [=] {
                   const double a = result().current_A;
                   return a < 0 ? QStringLiteral("takes ") + amps(-a, doc) : amps(a, doc);
               },
               {K::battery_current, id, 0});
    form.value(QStringLiteral("At"), [=] { return volts(result().voltage_V, doc); },
               {K::battery_voltage, id, 0});
    form.value(QStringLiteral("Half empty in"),
               [=] {
                   return q(doc->why({K::battery_hours, id, 0}).value);
               },
               {K::battery_hours, id, 0});
    const Part<Battery> part{doc, &Plan::batteries, id};
    name_field(form, part);
    form.choice(
        QStringLiteral("Chemistry"),
        {{QStringLiteral("flooded lead"), "flooded"},
         {QStringLiteral("AGM lead"), "agm"},
         {QStringLiteral("gel lead"), "gel"},
         {QStringLiteral("LiFePO4"), "lifepo4"}},
        [doc, id] {
            const Battery* b = get(doc, &Plan::batteries, id);
            return b ? Id(enum_name(b->chemistry)) : Id();
        },
        [doc, id](const Id& v) {
            Battery changed = *get(doc, &Plan::batteries, id);
            changed.chemistry = *enum_named<Chemistry>(v);
            doc->apply(Put<Battery>{changed, {}}, q(changed.name + " is " + v));
        });
    const auto field = [&](const char* label, Dimension d, std::optional<double> Battery::*m,
                           const char* assumed, double low, double high) {
        number_field(form, part, QString::fromUtf8(label), d, m, QString::fromUtf8(assumed), low, high);
    };
    field("Capacity", Dimension::charge, &Battery::capacity_Ah, "assumed 70 Ah", 0.1, 5000);
    field("Cranking", Dimension::current, &Battery::cranking_A, "not known", 1, 5000);
    enum_field(form, part, QStringLiteral("Cranking by"),
               {{QStringLiteral("SAE J537"), "sae"}, {QStringLiteral("EN 50342-1"), "en"}},
               &Battery::cranking_standard);
    field("Reserve, min", Dimension::number, &Battery::reserve_min, "not known", 1, 5000);
    field("R0, warm", Dimension::resistance, &Battery::R0_ohm, "from cranking or capacity", 1e-7, 1000);
    field("Charge", Dimension::fraction, &Battery::charge, "assumed 80 %", 0, 1);
    field("Left by age", Dimension::fraction, &Battery::health, "as new", 0.05, 1);
    field("Peukert", Dimension::number, &Battery::peukert, "by chemistry", 1, 2);
    field("Charge at most", Dimension::voltage, &Battery::charge_most_V, "by chemistry", 5, 80);
    number_field(form, part, QStringLiteral("Bolts, M"), Dimension::number, &Battery::stud_mm,
                 QStringLiteral("not said"), 2, 30);
    number_field(form, part, QStringLiteral("Cuts itself off at"), Dimension::current, &Battery::cuts_at_A,
                 QStringLiteral("never"), 1, 1e5);
    field("Price", Dimension::number, &Battery::price, "not set", 0, 1e7);
}

void fill_point(FieldForm& form, PlanDocument* doc, const Id& id) {
    const Point& p = *get(doc, &Plan::points, id);
    if (p.kind != PointKind::ground && p.kind != PointKind::chassis)
        form.value(QStringLiteral("Hands on"),
                   [doc, id] {
                       return q(doc->why({K::feed_current, id, 0}).value);
                   },
                   {K::feed_current, id, 0});
    if (p.kind == PointKind::ground)
        form.value(QStringLiteral("Bond loses"),
                   [doc, id] {
                       return q(doc->why({K::bond_drop, id, 0}).value);
                   },
                   {K::bond_drop, id, 0});
    const Part<Point> part{doc, &Plan::points, id};
    name_field(form, part);
    if (p.kind == PointKind::ground)
        number_field(form, part, QStringLiteral("Bond"), Dimension::resistance, &Point::bond_ohm,
                     QStringLiteral("assumed 1 mΩ"), 1e-7, 1000);
    if (!p.bonded_to.empty()) form.words(q("bonded to " + yr::name_of(doc->plan(), p.bonded_to)));
    if (!p.place.empty()) form.words(q("in " + yr::name_of(doc->plan(), p.place)));
    if (p.kind != PointKind::chassis) {
        number_field(form, part, QStringLiteral("Bolt, M"), Dimension::number, &Point::stud_mm,
                     QStringLiteral("not said"), 2, 30);
        number_field(form, part, QStringLiteral("Takes cable up to"), Dimension::area, &Point::most_mm2,
                     QStringLiteral("any"), 0.1, 1000);
    }
    if (p.kind == PointKind::box) fill_box(form, doc, id);
    if (p.feeds_loads) {
        form.words(QStringLiteral("hangs on:"));
        for (const Run& r : doc->plan().runs)
            if (r.to == id) {
                form.heading(q(words::capital(r.name)));
                fill_run(form, doc, r.id, false);
            }
    }
}

}  // namespace yr::app
