#include "fabricate/parts.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "catalog/assumptions.h"
#include "fabricate/covering.h"
#include "plan/names.h"
#include "routes/packing.h"
#include "routes/routes.h"

namespace yr {
namespace {

constexpr double kSpareShare = 0.2;  // of the fuses of each rating, one at least; common practice

std::string number(double v) {
    char text[32];
    std::snprintf(text, sizeof text, "%g", std::round(v * 100) / 100);
    return text;
}

class Counter {
  public:
    Counter(const Plan& plan, const PartsAsk& ask) : plan_(plan), ask_(ask), wires_(wire_table(plan)) {}

    std::vector<Part> run() {
        for (const WireRow& w : wires_) wire(w);
        for (const Run& r : plan_.runs)
            for (const Device& d : r.devices) device(r, d);
        spares();
        if (ask_.things) things();
        if (ask_.laid) laid();
        return counted();
    }
    std::vector<Part> cables(const std::set<Id>& runs) {
        for (const WireRow& w : wires_)
            if (runs.contains(plan_.runs[w.run].id)) wire(w);
        return counted();
    }

  private:
    std::vector<Part> counted() const {
        std::vector<Part> all;
        for (const auto& [key, part] : parts_) {
            all.push_back(part);
            all.back().key = key;
            all.back().quantity *= ask_.vehicles;
            if (part.price) all.back().price = *part.price * ask_.vehicles;
        }
        std::stable_sort(all.begin(), all.end(),
                         [](const Part& a, const Part& b) { return a.kind < b.kind; });
        return all;
    }

    Part& add(BuyKind kind, const std::string& what, double quantity, const Id& used, bool metres = false) {
        Part& p = parts_[std::to_string(static_cast<int>(kind)) + " " + what];
        p.kind = kind, p.what = what, p.metres = metres;
        p.quantity += quantity;
        if (!used.empty() && std::find(p.used_at.begin(), p.used_at.end(), used) == p.used_at.end())
            p.used_at.push_back(used);
        return p;
    }

    void wire(const WireRow& w) {
        const Run& run = plan_.runs[w.run];
        const WireSize size = run.size.value_or(WireSize::awg(14));
        Part& cable =
            add(BuyKind::cable, name_of(size) + " " + std::string(enum_name(run.material)) + " " + w.colour,
                w.length_m * w.pieces, run.id, true);
        cable.chosen = cable.chosen || !run.size || !w.length_known;
        const auto wire = conductor(size, run.material);
        for (const CableEnd* e : {&w.from, &w.to}) end(*e, wire ? wire->area_mm2 : 2, size, run.id, w.pieces);
        add(BuyKind::label, "wrap-around label", 2.0 * w.pieces, run.id);
    }

    void end(const CableEnd& e, double mm2, const WireSize& size, const Id& run, int pieces) {
        const std::string copper = name_of(size);
        switch (e.kind) {
            case EndKind::ring: {
                std::string what = "ring " + copper + " M" + number(e.bolt_mm);
                if (e.angle_deg > 0) what += " " + number(e.angle_deg) + "°";
                Part& p = add(BuyKind::lug, what, pieces, run);
                p.chosen = p.chosen || e.chosen;
                break;
            }
            case EndKind::blade:
                add(BuyKind::blade, "blade " + number(e.blade_mm) + " mm, " + copper, pieces, run).chosen =
                    e.chosen;
                break;
            case EndKind::ferrule:
                add(BuyKind::ferrule, "ferrule " + copper, pieces, run).chosen = e.chosen;
                break;
            case EndKind::pin:
                add(BuyKind::pin, "pin " + copper, pieces, run).chosen = e.chosen;
                break;
            case EndKind::splice:
                add(BuyKind::splice, "splice " + copper, pieces, run).chosen = e.chosen;
                break;
            case EndKind::bare:
            case EndKind::by_choice:
                break;
        }
        if (e.boot) add(BuyKind::boot, "boot " + number(std::ceil(std::sqrt(mm2))) + " mm", pieces, run);
        if (e.shrink_mm > 0)
            add(BuyKind::shrink, "heat shrink " + number(e.shrink_mm) + " mm",
                e.shrink_length_mm / 1000 * pieces, run, true);
    }

    // A fuse on a box's channel sits in the box; any other wants a holder.
    void device(const Run& r, const Device& d) {
        if (d.kind == DeviceKind::fuse) {
            const bool breaker = d.fuse == FuseType::breaker_1 || d.fuse == FuseType::breaker_2 ||
                                 d.fuse == FuseType::breaker_3;
            const std::string what = fuse_kind(d.fuse).name + " " + number(d.rating_A) + " A";
            add(breaker ? BuyKind::breaker : BuyKind::fuse, what, 1, d.id);
            if (!breaker && r.channel == 0)
                add(BuyKind::holder, "holder, " + fuse_kind(d.fuse).name, 1, d.id);
        } else if (d.kind != DeviceKind::diode || !d.name.empty()) {
            const std::string amps = d.contact_A ? " " + number(*d.contact_A) + " A" : std::string();
            add(BuyKind::relay, std::string(enum_name(d.kind)) + amps + ": " + d.name, 1, d.id).chosen =
                !d.contact_A;
        }
    }

    void spares() {
        std::map<std::string, Part> fuses;
        for (const auto& [key, p] : parts_)
            if (p.kind == BuyKind::fuse) fuses.emplace(p.what, p);
        for (const auto& [what, p] : fuses)
            add(BuyKind::spare, what, std::max(1.0, std::ceil(p.quantity * kSpareShare)), {}).chosen = true;
    }

    void things() {
        for (const Point& p : plan_.points) {
            if (p.kind == PointKind::box)
                add(BuyKind::box, p.name + ", " + std::to_string(p.channels.size()) + " channels", 1, p.id);
            if (p.kind == PointKind::bus || p.kind == PointKind::stud) add(BuyKind::bus, p.name, 1, p.id);
        }
        const auto priced = [&](BuyKind kind, const auto& x, const std::string& what) {
            Part& p = add(kind, what, 1, x.id);
            if (x.price) p.price = p.price.value_or(0) + *x.price;
        };
        for (const Battery& b : plan_.batteries) priced(BuyKind::battery, b, b.name);
        for (const Source& s : plan_.sources) priced(BuyKind::source, s, s.name);
        for (const Inverter& i : plan_.inverters) priced(BuyKind::inverter, i, i.name);
        for (const Load& l : plan_.loads)
            if (!l.starter && !l.later) add(BuyKind::load, l.name, l.count, l.id);
    }

    void laid() {
        const Routes routes = route_all(plan_);
        for (std::size_t w = 0; w < routes.ways.size(); ++w) {
            const auto& runs = routes.ways[w].runs;
            const Way& way = plan_.ways[w];
            const Waypoint *a = find(plan_.waypoints, std::string_view(way.from)),
                           *b = find(plan_.waypoints, std::string_view(way.to));
            if (runs.empty() || !a || !b || !a->at.spot() || !b->at.spot()) continue;
            const double length = distance_m(*a->at.spot(), *b->at.spot());
            const double mm = loom_diameter(diameters_mm(plan_, runs));
            for (const CoveringLayer& l : covering_of(way, mm, runs.size())) {
                Part& part = add(BuyKind::loom, l.kind + " " + number(l.sold_mm) + " mm",
                                 metres_of(l, length), way.id, true);
                part.chosen = l.chosen;
            }
            const double every = clip_spacing_m(plan_, way);
            add(BuyKind::clip, "clip " + number(std::ceil(mm / 5) * 5) + " mm", std::ceil(length / every),
                way.id)
                .chosen = true;
        }
        for (std::size_t n = 0; n < routes.passages.size(); ++n) {
            const Waypoint& w = plan_.waypoints[n];
            if (routes.passages[n].runs.empty() ||
                (w.kind != PassageKind::grommet && w.kind != PassageKind::gland))
                continue;
            add(BuyKind::grommet,
                std::string(enum_name(w.kind)) + " " +
                    number(w.bore_mm.value_or(routes.passages[n].bundle_mm / allowed_fill())) + " mm",
                1, w.id);
        }
    }

    const Plan& plan_;
    const PartsAsk ask_;
    const std::vector<WireRow> wires_;
    std::map<std::string, Part> parts_;
};

}  // namespace

std::vector<Part> parts_of(const Plan& plan, const PartsAsk& ask) {
    return Counter(plan, ask).run();
}

std::vector<Part> parts_of_cables(const Plan& plan, const std::set<Id>& runs) {
    return Counter(plan, {}).cables(runs);
}

}  // namespace yr
