#include "plan/additions_joining.h"

#include <algorithm>

#include "catalog/sockets.h"

namespace yr {

Result<Addition> add_connector(const Plan& plan, const std::string& socket) {
    Connector c;
    c.id = new_id(plan, "connector");
    c.name = "connector";
    if (const Socket* known = socket.empty() ? nullptr : socket_named(socket)) {
        c.socket = socket;
        c.name = known->name;
    } else if (!socket.empty()) {
        return fail(ErrorCode::unknown_name, "socket", socket, Want::a_socket_of_the_tables);
    } else {
        c.pins = 6, c.contact_mm = 2.8;
    }
    const Id id = c.id;
    return Addition{Put<Connector>{std::move(c), {}}, id};
}

Result<Addition> add_jacket(const Plan& plan) {
    Jacket j;
    j.id = new_id(plan, "jacket");
    j.name = "cable of several cores";
    const Id id = j.id;
    return Addition{Put<Jacket>{std::move(j), {}}, id};
}

namespace {

Point stud_between(const Id& id, const std::string& name, const Id& place) {
    Point p;
    p.id = id, p.name = name, p.kind = PointKind::stud, p.place = place;
    return p;
}

Device contact(const Id& id, const std::string& name, const Load& load, const std::string& way) {
    Device d;
    d.id = id, d.name = name, d.kind = DeviceKind::switching;
    d.closed_when = load.live_when;
    d.closed_when.switches.push_back(load.name + " " + way);
    return d;
}

}  // namespace

Result<Addition> add_reversing_pair(const Plan& plan, const Id& id) {
    const Load* load = find(plan.loads, id);
    const auto ends_on = [&](const Terminal& post) {
        return std::find_if(plan.runs.begin(), plan.runs.end(),
                            [&](const Run& r) { return r.from == post || r.to == post; });
    };
    const auto feed = ends_on(pos_of(id)), back = ends_on(neg_of(id));
    if (!load || feed == plan.runs.end() || back == plan.runs.end())
        return fail(ErrorCode::missing_reference, "load", name_of(plan, id), Want::a_load_of_this_plan);
    Batch batch;
    const Id plus = id + "-plus", minus = id + "-minus";
    batch.edits.emplace_back(Put<Point>{stud_between(plus, load->name + " pack +", load->place), {}});
    batch.edits.emplace_back(
        Put<Point>{stud_between(minus, load->name + " pack \xE2\x88\x92", load->place), {}});
    for (auto [run, post, stud] :
         {std::tuple{*feed, pos_of(id), plus}, std::tuple{*back, neg_of(id), minus}}) {
        (run.from == post ? run.from : run.to) = stud;
        batch.edits.emplace_back(Put<Run>{run, {}});
    }
    const auto lay = [&](const Terminal& from, const Terminal& to, const std::string& way, int n) {
        Run r;
        r.id = id + "-" + way + std::to_string(n);
        r.name = load->name + " " + way + (n == 1 ? " +" : " \xE2\x88\x92");
        r.from = from, r.to = to, r.length_m = 0.2, r.size = feed->size, r.places = feed->places;
        r.devices = {
            contact(r.id + "-contact", load->name + " " + way + " contact " + std::to_string(n), *load, way)};
        batch.edits.emplace_back(Put<Run>{std::move(r), {}});
    };
    lay(plus, pos_of(id), "in", 1);
    lay(neg_of(id), minus, "in", 2);
    lay(plus, neg_of(id), "out", 1);
    lay(pos_of(id), minus, "out", 2);
    Load turned = *load;
    for (const char* way : {" in", " out"}) {
        Condition one;
        one.switches = {load->name + way};
        turned.live_when.any_of.push_back(one);
    }
    batch.edits.emplace_back(Put<Load>{std::move(turned), {}});
    return Addition{std::move(batch), id};
}

}  // namespace yr
