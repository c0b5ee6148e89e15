#include "support/vehicle_builder.h"

#include <algorithm>
#include <cmath>

#include "catalog/ampacity.h"
#include "size/fuse_size.h"

namespace yr::test {
namespace {

constexpr Accessory kAccessories[] = {
    {"reading lamps", 2, 0, "place-cab", Key::off, true},
    {"pond pump", 6, 4, "place-rear", Key::accessory, true},
    {"rear fridge", 5, 3, "place-rear", Key::off, true},
    {"side lamps", 8, 0, "place-rear", Key::ignition, true},
    {"seat heater", 7, 0, "place-cab", Key::ignition, true},
    {"field radio", 9, 0, "place-cab", Key::accessory, true},
    {"roof bar", 14, 0, "place-cab", Key::ignition, true},
    {"wheel fan", 18, 3, "place-bay", Key::ignition, true},
    {"tyre pump", 25, 3, "place-rear", Key::ignition, true},
    {"logger", 0.6, 0, "place-cab", Key::off, false},
    {"cab fan", 4, 3, "place-cab", Key::accessory, true},
    {"work lights", 20, 0, "place-rear", Key::ignition, true},
};

}  // namespace

VehicleBuilder::VehicleBuilder(unsigned seed) : random_(seed * 7919 + 11) {
    v_.plan = empty_plan("vehicle " + std::to_string(seed));
    v_.plan.runs.clear();
    v_.plan.points.clear();
    v_.plan.policy.sizes = SizeSystem::awg;
}

double VehicleBuilder::between(double low, double high) {
    return low + (high - low) * static_cast<double>(random_() % 1000) / 1000;
}

Id VehicleBuilder::point(const std::string& name, PointKind kind, const Id& place, bool feeds) {
    Point p;
    p.id = "point-" + std::to_string(v_.plan.points.size() + 1);
    p.name = name, p.kind = kind, p.place = place, p.feeds_loads = feeds;
    v_.plan.points.push_back(p);
    return p.id;
}

void VehicleBuilder::metal(const std::string& name, const Terminal& from, const Terminal& to) {
    Run r;
    r.id = "run-" + std::to_string(v_.plan.runs.size() + 1);
    r.name = name, r.from = from, r.to = to, r.body_metal = true, r.resistance_ohm = 2e-4;
    v_.plan.runs.push_back(r);
}

WireSize VehicleBuilder::handbook_size(double amps, double length_m, double drop, bool seconds) {
    for (int awg = 16; awg >= -3; --awg) {
        const WireSize size = WireSize::awg(awg);
        const auto wire = conductor(size);
        if (!wire) continue;
        AmpacityAsk ask;
        ask.size = size, ask.engine_space = true, ask.ambient_C = 85;  // the bay at idle
        const auto table = ampacity(ask);
        if (!table) continue;
        const double ohm = (0.017241 / wire->area_mm2) * (1 + 0.0039 * 40) * 2 * length_m;
        if (amps * ohm > drop * 12) continue;
        if (!seconds && table->allowed_A < amps * 1.25) continue;
        return size;
    }
    return WireSize::awg(-3);
}

Id VehicleBuilder::cable(const std::string& name, const Terminal& from, const Terminal& to, double length_m,
                         double amps, double drop, bool seconds) {
    Run r;
    r.id = "run-" + std::to_string(v_.plan.runs.size() + 1);
    r.name = name, r.from = from, r.to = to, r.length_m = length_m;
    r.size = handbook_size(amps, length_m, drop, seconds);
    r.places = {"place-bay"};
    v_.plan.runs.push_back(r);
    return r.id;
}

Id VehicleBuilder::fused(const std::string& name, const Terminal& from, const Terminal& to, double length_m,
                         double amps, double drop, bool at_end, double reserve, bool both) {
    FuseType type = FuseType::blade;
    double rating = 0;
    for (const FuseType t : {FuseType::blade, FuseType::bolt, FuseType::strip})
        for (const double r : fuse_kind(t).ratings_A)
            if (rating == 0 && r >= amps * reserve) rating = r, type = t;
    if (at_end || both || from.post == Post::pos)
        type = FuseType::strip;  // at a battery's post: cuts off 6 kA
    if (type == FuseType::strip) {
        rating = 0;
        for (const double r : fuse_kind(type).ratings_A)
            if (rating == 0 && r >= amps * reserve) rating = r;
    }
    const Id id = cable(name, from, to, length_m, std::max(amps, rating / 1.25 * 1.001), drop, false);
    Run& run = v_.plan.runs.back();
    const auto fuse = [&](double at_m, int n) {
        Device d;
        d.id = "fuse-" + id + (n > 0 ? "b" : "");
        d.name = name + " fuse" + (n > 0 ? " 2" : "");
        d.fuse = type, d.rating_A = rating, d.at_m = at_m;
        return d;
    };
    if (!at_end || both) run.devices.push_back(fuse(0.1, 0));
    if (at_end || both) run.devices.push_back(fuse(length_m - 0.1, both ? 1 : 0));
    return id;
}

std::vector<Accessory> VehicleBuilder::some_accessories(std::size_t count) {
    std::vector<Accessory> chosen(std::begin(kAccessories), std::end(kAccessories));
    std::shuffle(chosen.begin(), chosen.end(), random_);
    chosen.resize(count);
    return chosen;
}

}  // namespace yr::test
