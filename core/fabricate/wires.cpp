#include "fabricate/wires.h"

#include "routes/routes.h"
#include "size/run_limits.h"

namespace yr {
namespace {

const Load* load_of(const Plan& plan, const Run& run, bool& back) {
    if (const Load* l = find(plan.loads, std::string_view(run.to.owner)); l && run.to.post == Post::pos)
        return back = false, l;
    if (const Load* l = find(plan.loads, std::string_view(run.from.owner)); l && run.from.post == Post::neg)
        return back = true, l;
    return nullptr;
}

bool switched(const Run& run) {
    for (const Device& d : run.devices)
        if (d.kind == DeviceKind::switching) return true;
    return false;
}

std::string fuse_of(const Plan& plan, const Run& run) {
    const auto said = [](const Device& d) {
        char text[32];
        std::snprintf(text, sizeof text, "%g A", d.rating_A);
        return std::string(text);
    };
    for (const Device& d : run.devices)
        if (d.kind == DeviceKind::fuse) return said(d);
    for (const EndProtection& end : fed_ends(plan, run))
        if (end.upstream) return said(*end.upstream);
    return {};
}

}  // namespace

std::vector<WireRow> wire_table(const Plan& plan) {
    const SupplySide supply(plan);
    const Routes routes = route_all(plan);
    std::vector<WireRow> table;
    int spine = 0;
    for (std::size_t k = 0; k < plan.runs.size(); ++k) {
        const Run& run = plan.runs[k];
        if (!is_cut(run)) continue;
        WireRow row;
        row.run = k;
        row.pieces = run.parallel;
        const auto known = length_of(run);
        row.length_known = known.has_value();
        row.length_m = length_or_assumed_m(run);
        row.from = end_of(plan, run, true), row.to = end_of(plan, run, false);
        bool back = false;
        const Load* load = load_of(plan, run, back);
        if (!run.number.empty())
            row.number = run.number;
        else if (load)
            row.number = std::to_string(load - plan.loads.data() + 1) + (back ? "-2" : "-1");
        else
            row.number = "S" + std::to_string(++spine);
        const bool positive = supply.is_supply(run) || (load && !back);
        row.colour = !run.colour.empty()     ? run.colour
                     : !positive             ? "black"
                     : load || switched(run) ? "blue"
                                             : "red";
        row.fuse = positive ? fuse_of(plan, run) : std::string();
        if (routes.by_run[k])
            for (const Leg& leg : routes.by_run[k]->path.legs)
                if (leg.way) {
                    const Id& way = plan.ways[*leg.way].id;
                    if (row.ways.empty() || row.ways.back() != way) row.ways.push_back(way);
                }
        table.push_back(std::move(row));
    }
    return table;
}

}  // namespace yr
