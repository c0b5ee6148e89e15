#include "routes/furnish.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "routes/net.h"
#include "routes/routes.h"
#include "units/text.h"

namespace yr {
namespace {

enum class Slot { bay, cab, behind, load, roof };

Slot slot_of(const Place& p) {
    const std::string name = to_lower(p.name);
    const auto has = [&](const char* word) { return name.find(word) != std::string::npos; };
    if (p.engine_space || has("engine") || has("bonnet") || has("hood")) return Slot::bay;
    if (has("behind")) return Slot::behind;
    if (has("roof") || has("roll bar") || has("mast")) return Slot::roof;
    if (has("cab") || has("dash") || has("seat") || has("cockpit")) return Slot::cab;
    if (has("front") && !has("box")) return Slot::bay;
    return Slot::load;
}

Room room_of(Slot slot, const OutlineShape& s) {
    const double w = s.wide_m * 0.47, rear = s.rear_x() - 0.05;
    const bool behind = s.engine == EngineAt::rear;
    switch (slot) {
        case Slot::bay:
            return behind ? Room{{s.cab_end_m + 0.1, -w, s.floor_m - 0.15}, {rear, w, s.dash_m - 0.1}}
                          : Room{{s.front_x() + 0.08, -w, -0.15}, {s.firewall_m, w, s.bonnet_m}};
        case Slot::cab:
            if (s.cab_end_m - s.firewall_m < 0.3) return room_of(Slot::load, s);  // it has none
            return {{s.firewall_m, -w, s.floor_m}, {s.cab_end_m, w, s.roof_z() - 0.15}};
        case Slot::behind:
            return {{s.cab_end_m, -w, s.floor_m}, {s.cab_end_m + 0.38, w, s.dash_m + 0.3}};
        case Slot::load:
            return behind ? Room{{s.cab_end_m + 0.1, -w, s.dash_m - 0.1}, {rear, w, s.roof_z() - 0.2}}
                          : Room{{s.cab_end_m + 0.4, -w, s.floor_m}, {rear, w, s.roof_z() - 0.15}};
        case Slot::roof:
            return {{s.firewall_m + 0.3, -w, behind ? s.dash_m + 0.3 : s.roof_z() - 0.15},
                    {s.engine == EngineAt::front ? rear : s.cab_end_m + 0.3, w, s.roof_z() + 0.05}};
    }
    return {};
}

void take_room(Place& p, const Room& r) {
    const auto mm = [](double v) { return std::round(v * 1000) / 1000; };
    p.at = stand_at({mm(r.low.x_m), mm(r.low.y_m), mm(r.low.z_m)});
    p.long_m = mm(r.high.x_m - r.low.x_m), p.wide_m = mm(r.high.y_m - r.low.y_m),
    p.high_m = mm(r.high.z_m - r.low.z_m);
}

class Furnisher {
  public:
    Furnisher(const Plan& plan, Outline outline) : plan_(plan), ids_(plan), outline_(outline) {
        vehicle_ = plan.vehicle;
        vehicle_.outline = outline;
        s_ = shape_of(vehicle_);
    }

    Edit run() {
        out_.edits.emplace_back(SetVehicle{vehicle_});
        rooms();
        hazards();
        switch (s_.engine) {
            case EngineAt::front:
                engine_in_front();
                break;
            case EngineAt::rear:
                engine_behind();
                break;
            case EngineAt::none:
                no_engine();
                break;
        }
        return std::move(out_);
    }

  private:
    // Places of one kind share its room in strips from front to rear.
    void rooms() {
        std::map<Slot, std::vector<Place>> all;
        for (const Place& p : plan_.places)
            if (!p.at.spot() && !is_hazard(p)) all[slot_of(p)].push_back(p);
        for (auto& [slot, places] : all) {
            const Room whole = room_of(slot, s_);
            const double step = (whole.high.x_m - whole.low.x_m) / static_cast<double>(places.size());
            for (std::size_t k = 0; k < places.size(); ++k) {
                Room strip = whole;
                strip.low.x_m = whole.low.x_m + step * static_cast<double>(k);
                strip.high.x_m = strip.low.x_m + step;
                take_room(places[k], strip);
                if (slot == Slot::cab) places[k].people = has_closed_cab();
                if (slot == Slot::load || slot == Slot::behind) places[k].mounting = true;
                out_.edits.emplace_back(Put<Place>{places[k], {}});
            }
        }
    }

    // Open machines have no air that gas could stay in, nor airbags.
    [[nodiscard]] bool has_closed_cab() const {
        return outline_ == Outline::car || outline_ == Outline::pickup || outline_ == Outline::van ||
               outline_ == Outline::truck;
    }

    void hazard(const char* name, const Room& room, Hazard what) {
        if (std::any_of(plan_.places.begin(), plan_.places.end(),
                        [&](const Place& p) { return p.hazard == what; }))
            return;
        Place p;
        p.id = next("place"), p.name = name, p.hazard = what;
        take_room(p, room);
        out_.edits.emplace_back(Put<Place>{p, {}});
    }

    void hazards() {
        if (s_.engine == EngineAt::none) return;
        const double under = s_.floor_m - 0.35, r = s_.wide_m;
        if (s_.engine == EngineAt::front) {
            hazard("exhaust",
                   {{s_.firewall_m - 0.2, 0.16 * r, under}, {s_.rear_x() - 0.7, 0.26 * r, under + 0.14}},
                   Hazard::exhaust);
            hazard("belts",
                   {{s_.front_x() + 0.15, -0.14 * r, 0}, {s_.front_x() + 0.35, 0.14 * r, s_.bonnet_m * 0.7}},
                   Hazard::moving);
        } else {
            hazard("exhaust",
                   {{s_.cab_end_m + 0.5, 0.16 * r, under}, {s_.rear_x() - 0.1, 0.28 * r, under + 0.16}},
                   Hazard::exhaust);
        }
        if (has_closed_cab())
            hazard("airbag",
                   {{s_.firewall_m + 0.12, 0.1 * r, s_.dash_m - 0.05},
                    {s_.firewall_m + 0.5, 0.34 * r, s_.dash_m + 0.2}},
                   Hazard::airbag);
    }

    Id next(const char* head) { return Id(head) + "-" + ids_.next(head); }

    Id at(const char* name, double x, double y, double z, PassageKind kind = PassageKind::bend,
          double bore_mm = 0) {
        Waypoint w;
        w.id = next("waypoint"), w.name = name, w.kind = kind;
        const auto mm = [](double v) { return std::round(v * 1000) / 1000; };
        w.at = stand_at({mm(x), mm(y), mm(z)});
        if (bore_mm > 0) w.bore_mm = bore_mm;
        w.guarded = kind == PassageKind::grommet || kind == PassageKind::gland;
        w.sealed = w.guarded;
        out_.edits.emplace_back(Put<Waypoint>{w, {}});
        return w.id;
    }
    void way(const char* name, const Id& from, const Id& to, bool flexes = false) {
        Way w;
        w.id = next("way"), w.name = name, w.from = from, w.to = to, w.typical = true, w.flexes = flexes;
        out_.edits.emplace_back(Put<Way>{w, {}});
    }

    void engine_in_front() {
        const double L = -0.40 * s_.wide_m, R = -L, fw = s_.firewall_m, ce = s_.cab_end_m,
                     rear = s_.rear_x() - 0.15;
        const double zb = s_.bonnet_m * 0.6, zf = s_.floor_m + 0.06, zr = s_.floor_m - 0.2,
                     zd = s_.dash_m - 0.1;
        const double nose = s_.front_x() + 0.2, roof = s_.roof_z() - 0.06;
        const bool closed = outline_ == Outline::car || outline_ == Outline::van;  // no wall behind the cab
        // bay
        const Id bfl = at("bay, front left", nose, L, zb), bfr = at("bay, front right", nose, R, zb);
        const Id bbl = at("bay, rear left", fw - 0.08, L, zb), bbr = at("bay, rear right", fw - 0.08, R, zb);
        way("left wing", bfl, bbl), way("right wing", bfr, bbr);
        way("front panel", bfl, bfr), way("bulkhead", bbl, bbr);
        // through the firewall to dash and sills
        const Id hole = at("firewall grommet", fw, 0.5 * L, zd, PassageKind::grommet, 28);
        const Id dl = at("dash, left", fw + 0.15, 0.8 * L, zd),
                 dr = at("dash, right", fw + 0.15, 0.85 * R, zd - 0.2);
        way("to the firewall", bbl, hole), way("behind the dash, left", hole, dl);
        way("behind the dash", dl, dr);
        const Id slf = at("left sill, front", fw + 0.3, L, zf), slr = at("left sill, rear", ce - 0.06, L, zf);
        const Id srf = at("right sill, front", fw + 0.3, R, zf),
                 srr = at("right sill, rear", ce - 0.06, R, zf);
        way("left kick panel", dl, slf), way("left sill", slf, slr);
        way("right kick panel", dr, srf), way("right sill", srf, srr), way("behind the seats", slr, srr);
        // load space
        const Id llf = at("load space, front left", ce + 0.15, L, zf + 0.1),
                 llr = at("load space, rear left", rear, L, zf + 0.1);
        const Id lrf = at("load space, front right", ce + 0.15, R, zf + 0.1),
                 lrr = at("load space, rear right", rear, R, zf + 0.1);
        way("left side", llf, llr), way("right side", lrf, lrr), way("headboard", llf, lrf),
            way("tail", llr, lrr);
        if (closed) {
            way("left sill to load space", slr, llf), way("right sill to load space", srr, lrf);
        } else {
            const Id back = at("cab rear grommet", ce, 0.7 * L, zf + 0.05, PassageKind::grommet, 25);
            way("to the cab's rear", slr, back), way("out of the cab", back, llf);
        }
        frame(bbl, bbr, llf, llr, zr);
        const Id rf = at("roof, front", fw + 0.55, 0.9 * L, roof),
                 rr = at("roof, rear", closed ? rear : ce - 0.05, 0.9 * L, roof);
        way("left pillar", dl, rf), way("roof edge", rf, rr), way("rear pillar", rr, closed ? llr : llf);
    }

    // Under the floor: the left rail, and the right one past the exhaust.
    void frame(const Id& bbl, const Id& bbr, const Id& llf, const Id& llr, double z) {
        const double l = -0.24 * s_.wide_m, fw = s_.firewall_m, ce = s_.cab_end_m, rear = s_.rear_x() - 0.2;
        const Id a = at("left rail, front", fw, l, z), b = at("left rail, middle", ce + 0.35, l, z),
                 c = at("left rail, rear", rear, l, z);
        way("down to the left rail", bbl, a), way("left frame rail", a, b),
            way("left frame rail, rear", b, c);
        const Id up = at("floor gland", ce + 0.35, -0.3 * s_.wide_m, s_.floor_m, PassageKind::gland, 32);
        way("up from the rail", b, up), way("to the load space", up, llf);
        const Id tail = at("tail gland", rear, -0.3 * s_.wide_m, s_.floor_m, PassageKind::gland, 25);
        way("up at the tail", c, tail), way("to the tail", tail, llr);
        const Id d = at("right rail, front", fw, -l, z), e = at("right rail, rear", rear, -l, z);
        way("down to the right rail", bbr, d), way("right frame rail", d, e), way("across the tail", e, c);
    }

    void engine_behind() {
        const double L = -0.38 * s_.wide_m, R = -L, fw = s_.firewall_m, ce = s_.cab_end_m,
                     rear = s_.rear_x() - 0.15;
        const double zf = s_.floor_m + 0.06, zd = s_.dash_m - 0.1, roof = s_.roof_z() - 0.05,
                     ze = s_.floor_m + 0.15;
        const Id fl = at("front, left", s_.front_x() + 0.15, L, zd - 0.1),
                 fr = at("front, right", s_.front_x() + 0.15, R, zd - 0.1);
        const Id dl = at("dash, left", fw, L, zd), dr = at("dash, right", fw, R, zd);
        way("front, left side", fl, dl), way("front, right side", fr, dr), way("behind the dash", dl, dr);
        const Id sl = at("left tube, front", fw + 0.2, L, zf), tl = at("left tube, rear", ce, L, zf);
        const Id sr = at("right tube, front", fw + 0.2, R, zf), tr = at("right tube, rear", ce, R, zf);
        way("left leg", dl, sl), way("left tube", sl, tl), way("right leg", dr, sr),
            way("right tube", sr, tr);
        way("behind the seat", tl, tr);
        const Id in = at("engine space, gland", ce + 0.1, 0.7 * L, ze, PassageKind::gland, 25);
        const Id er = at("engine space, rear left", rear, L, ze),
                 rr = at("engine space, rear right", rear, R, ze);
        way("into the engine space", tl, in), way("left of the engine", in, er),
            way("behind the engine", er, rr);
        const Id bar = at("roll bar, left", ce, L, roof), bar_r = at("roll bar, right", ce, R, roof);
        const Id tank = at("load frame, front", ce + 0.15, L, s_.dash_m + 0.05),
                 tank_r = at("load frame, rear", rear, L, s_.dash_m + 0.05);
        way("up the roll bar", tl, tank), way("roll bar", tank, bar), way("across the roll bar", bar, bar_r);
        way("load frame", tank, tank_r);
    }

    void no_engine() {
        const double L = -0.4 * s_.wide_m, R = -L, front = s_.front_x() + 0.15, rear = s_.rear_x() - 0.15;
        const double zf = s_.floor_m + 0.06, roof = s_.roof_z() - 0.06, ce = s_.cab_end_m;
        const Id a = at("front, left", front, L, zf), b = at("front, right", front, R, zf);
        const Id c = at("middle, left", ce, L, zf), d = at("middle, right", ce, R, zf);
        const Id e = at("rear, left", rear, L, zf), f = at("rear, right", rear, R, zf);
        way("left side, front", a, c), way("left side, rear", c, e), way("right side, front", b, d),
            way("right side, rear", d, f);
        way("across the front", a, b), way("across the middle", c, d), way("across the rear", e, f);
        const Id dash = at("panel", s_.firewall_m, 0.8 * L, s_.dash_m),
                 up = at("roof, front", ce - 0.1, 0.9 * L, roof),
                 back = at("roof, rear", rear, 0.9 * L, roof);
        way("up to the panel", a, dash), way("pillar", dash, up), way("roof edge", up, back),
            way("rear pillar", back, e);
        if (outline_ == Outline::trailer) {
            const Id tongue = at("drawbar", s_.front_x() + 0.05, 0.02, s_.floor_m - 0.1, PassageKind::hinge);
            way("along the drawbar", tongue, a, true);
        }
    }

    // Ids that neither the plan nor this batch has.
    class Numbers {
      public:
        explicit Numbers(const Plan& plan) {
            each_id(plan, [&](const Id& id) { taken_[id] = true; });
        }
        std::string next(const std::string& head) {
            int& n = last_[head];
            do ++n;
            while (taken_.contains(head + "-" + std::to_string(n)));
            return std::to_string(n);
        }

      private:
        std::map<std::string, bool> taken_;
        std::map<std::string, int> last_;
    };

    const Plan& plan_;
    Numbers ids_;
    const Outline outline_;
    Vehicle vehicle_;
    OutlineShape s_;
    Batch out_;
};

// Calls use(thing) for each thing that may stand somewhere: not places nor waypoints.
template <class F>
void each_standing(const Plan& plan, F&& use) {
    each_list(plan, [&](const auto& things) {
        using Thing = typename std::remove_cvref_t<decltype(things)>::value_type;
        if constexpr (std::is_same_v<Thing, Point>) {
            for (const Point& p : things)  // a chassis part is as long as the vehicle: it stands at no spot
                if (p.kind != PointKind::chassis) use(p);
        } else if constexpr (requires(const Thing& t) { t.at.spot(), t.place; }) {
            for (const Thing& t : things) use(t);
        }
    });
}

}  // namespace

Result<Edit> furnish(const Plan& plan, Outline outline) {
    if (!plan.ways.empty())
        return fail(ErrorCode::duplicate_id, "ways", plan.ways.front().name, Want::a_plan_without_ways);
    return Furnisher(plan, outline).run();
}

std::vector<Id> could_stand(const Plan& plan) {
    std::vector<Id> all;
    each_standing(plan, [&](const auto& t) {
        const Place* p = find(plan.places, t.place);
        if (!t.at.spot() && p && room_of(*p)) all.push_back(t.id);
    });
    return all;
}

Edit stand_in_places(const Plan& plan) {
    Batch batch;
    std::map<Id, std::vector<Id>> in;  // by place
    const std::vector<Id> all = could_stand(plan);
    each_standing(plan, [&](const auto& t) {
        if (std::find(all.begin(), all.end(), t.id) != all.end()) in[t.place].push_back(t.id);
    });
    each_standing(plan, [&](const auto& t) {
        using Thing = std::remove_cvref_t<decltype(t)>;
        const auto here = in.find(t.place);
        if (here == in.end()) return;
        const auto found = std::find(here->second.begin(), here->second.end(), t.id);
        if (found == here->second.end()) return;
        const Room room = *room_of(*find(plan.places, t.place));
        // a grid as square as the room, a quarter of a cell off its walls
        const auto n = static_cast<double>(here->second.size()),
                   k = static_cast<double>(found - here->second.begin());
        const double length = room.high.x_m - room.low.x_m, width = room.high.y_m - room.low.y_m;
        const double across = std::max(1.0, std::round(std::sqrt(n * width / std::max(0.05, length))));
        const double along = std::ceil(n / across);
        const double x = room.low.x_m + length * (std::floor(k / across) + 0.5) / along;
        const double y = room.low.y_m + width * (std::fmod(k, across) + 0.5) / across;
        const double z = room.low.z_m + std::min(0.25, (room.high.z_m - room.low.z_m) / 2);
        Thing placed = t;
        const auto cm = [](double v) { return std::round(v * 100) / 100; };
        placed.at = stand_at({cm(x), cm(y), cm(z)});
        batch.edits.emplace_back(Put<Thing>{placed, {}});
    });
    return batch;
}

Result<Edit> stand(const Plan& plan, const Id& id, const Spot& spot) {
    std::optional<Edit> edit;
    const auto mm = [](double v) { return std::round(v * 1000) / 1000; };
    const Spot at{mm(spot.x_m), mm(spot.y_m), mm(spot.z_m)};
    each_standing(plan, [&](const auto& t) {
        using Thing = std::remove_cvref_t<decltype(t)>;
        if (t.id != id || edit) return;
        Thing moved = t;
        moved.at = stand_at(at);
        if (const Id in = place_at(plan, at); !in.empty()) moved.place = in;
        edit = Put<Thing>{moved, {}};
    });
    if (const Waypoint* w = find(plan.waypoints, std::string_view(id)); w && !edit) {
        Waypoint moved = *w;
        moved.at = stand_at(at);
        edit = Put<Waypoint>{moved, {}};
    }
    if (!edit) return fail(ErrorCode::missing_reference, "stand", id, Want::a_thing_that_stands_somewhere);
    return *edit;
}

Edit follow_way(const Plan& plan, const std::vector<Id>& runs) {
    Batch batch;
    for (const Id& id : runs) {
        const Run* run = find(plan.runs, std::string_view(id));
        if (!run || !run->length_m) continue;
        Run open = *run;
        open.length_m.reset(), open.length_least_m.reset();
        open.places.clear(), open.bundle = 1;
        // what sat within a hand of the far end stays there by distance; the rest is at its beginning anyhow
        batch.edits.emplace_back(Put<Run>{open, {}});
    }
    return batch;
}

}  // namespace yr
