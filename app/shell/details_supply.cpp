// The fields of sources, batteries and points.
#include "plan/names.h"
#include "shell/details_panel.h"

namespace yr::app {
namespace {

using K = words::ValueKind;

template <class T>
const T* get(const PlanDocument* doc, std::vector<T> Plan::*list, const Id& id) {
    return yr::find(doc->plan().*list, id);
}

// An optional number of a source, battery or point.
template <class T>
void number_field(FieldForm& form, PlanDocument* doc, std::vector<T> Plan::*list, const Id& id,
                  const QString& label, Dimension dimension, std::optional<double> T::*member,
                  const QString& assumed, double low, double high) {
    form.quantity(
        label, dimension,
        [doc, list, id, member] {
            const T* x = get(doc, list, id);
            return x ? x->*member : std::nullopt;
        },
        [doc, list, id, member, label](std::optional<double> v) {
            T changed = *get(doc, list, id);
            changed.*member = v;
            return doc->apply(Put<T>{changed, {}}, q(changed.name) + QStringLiteral(": ") + label.toLower());
        },
        true, assumed, low, high);
}

template <class T>
void name_field(FieldForm& form, PlanDocument* doc, std::vector<T> Plan::*list, const Id& id) {
    form.text(
        QStringLiteral("Name"),
        [doc, list, id] {
            const T* x = get(doc, list, id);
            return x ? q(x->name) : QString();
        },
        [doc, list, id](const QString& typed) {
            if (typed.trimmed().isEmpty()) return QStringLiteral("A name is needed.");
            T changed = *get(doc, list, id);
            changed.name = typed.trimmed().toStdString();
            doc->apply(Put<T>{changed, {}}, QStringLiteral("name ") + typed.trimmed());
            return QString();
        });
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
    name_field(form, doc, &Plan::sources, id);
    const bool converter = get(doc, &Plan::sources, id)->kind == SourceKind::converter;
    const auto field = [&](const char* label, Dimension d, std::optional<double> Source::*m,
                           const char* assumed, double low, double high) {
        number_field(form, doc, &Plan::sources, id, QString::fromUtf8(label), d, m,
                     QString::fromUtf8(assumed), low, high);
    };
    field(converter ? "Limit" : "Rated", Dimension::current, &Source::rated_A,
          converter ? "assumed 20 A" : "assumed 90 A", 0.1, 2000);
    if (!converter) {
        field("At idle speed", Dimension::current, &Source::idle_A, "half of rated", 0, 2000);
        field("Pulley ratio", Dimension::number, &Source::pulley_ratio, "assumed 2.7", 0.1, 20);
    }
    field("Regulated to", Dimension::voltage, &Source::regulated_V, "assumed 14.2 V", 5, 70);
    if (converter) {
        field("Efficiency", Dimension::fraction, &Source::efficiency, "assumed 90 %", 0.3, 1);
        field("Standby", Dimension::power, &Source::standby_W, "none", 0, 500);
    }
    form.words(q("works when: " + words::condition(get(doc, &Plan::sources, id)->works_when)));
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
    name_field(form, doc, &Plan::batteries, id);
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
        number_field(form, doc, &Plan::batteries, id, QString::fromUtf8(label), d, m,
                     QString::fromUtf8(assumed), low, high);
    };
    field("Capacity", Dimension::charge, &Battery::capacity_Ah, "assumed 70 Ah", 0.1, 5000);
    field("Cranking", Dimension::current, &Battery::cranking_A, "not known", 1, 5000);
    field("R0, warm", Dimension::resistance, &Battery::R0_ohm, "from cranking or capacity", 1e-7, 1000);
    field("Charge", Dimension::fraction, &Battery::charge, "assumed 80 %", 0, 1);
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
    name_field(form, doc, &Plan::points, id);
    if (p.kind == PointKind::ground)
        number_field(form, doc, &Plan::points, id, QStringLiteral("Bond"), Dimension::resistance,
                     &Point::bond_ohm, QStringLiteral("assumed 1 mΩ"), 1e-7, 1000);
    if (!p.bonded_to.empty()) form.words(q("bonded to " + yr::name_of(doc->plan(), p.bonded_to)));
    if (!p.place.empty()) form.words(q("in " + yr::name_of(doc->plan(), p.place)));
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
