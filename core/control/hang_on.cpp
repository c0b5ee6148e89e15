#include "control/hang_on.h"

#include <algorithm>
#include <set>

namespace yr {
namespace {

bool is_fed_thing(const Plan& plan, const Id& id) {
    if (const Point* p = find(plan.points, id))
        return p->kind == PointKind::bus || p->kind == PointKind::stud || p->kind == PointKind::box ||
               p->kind == PointKind::splice;
    if (const Source* s = find(plan.sources, id)) return s->kind == SourceKind::converter;
    return find(plan.inverters, id) != nullptr;
}

// Post by which such a thing takes its supply.
bool takes_at(const Plan& plan, const Id& thing, const Terminal& t) {
    if (owner_of(t) != thing) return false;
    if (find(plan.sources, thing)) return t.post == Post::in;
    return t.post == Post::pos || t.post == Post::stud;
}

// What hangs behind it, whatever switch is open.
std::set<Id> fed_by(const Plan& plan, const Id& thing) {
    std::set<Id> reached{thing};
    for (bool more = true; more;) {
        more = false;
        for (const Run& r : plan.runs)
            if (reached.contains(owner_of(r.from)) && r.from.post != Post::neg && r.to.post != Post::neg &&
                is_fed_thing(plan, owner_of(r.to)))
                more = reached.insert(owner_of(r.to)).second || more;
    }
    return reached;
}

// On the positive side: a cable from a battery's positive post leads to it.
bool of_the_positive_side(const Plan& plan, const Id& point) {
    return !battery_behind(plan, Terminal(point)).empty();
}

}  // namespace

const Run* feed_of(const Plan& plan, const Id& thing) {
    if (!is_fed_thing(plan, thing)) return nullptr;
    for (const Run& r : plan.runs)
        if (takes_at(plan, thing, r.to)) return &r;
    return nullptr;
}

Id battery_behind(const Plan& plan, const Terminal& supply) {
    Terminal at = supply;
    std::set<Id> seen;
    while (seen.insert(owner_of(at)).second) {
        if (find(plan.batteries, owner_of(at))) return at.post == Post::neg ? Id() : owner_of(at);
        const auto before = std::find_if(plan.runs.begin(), plan.runs.end(), [&](const Run& r) {
            return r.to == at && r.from.post != Post::neg;
        });
        if (before == plan.runs.end()) return {};
        at = before->from;
        if (find(plan.sources, owner_of(at)))  // a converter: what stands before it
            if (const Run* in = feed_of(plan, owner_of(at))) at = in->from;
    }
    return {};
}

std::vector<Terminal> supplies_for(const Plan& plan, const Id& thing) {
    const std::set<Id> behind = fed_by(plan, thing);
    std::vector<Terminal> supplies;
    for (const Battery& b : plan.batteries) supplies.push_back(pos_of(b.id));
    for (const Point& p : plan.points)
        if ((p.kind == PointKind::bus || p.kind == PointKind::stud || p.kind == PointKind::splice) &&
            !behind.contains(p.id) && of_the_positive_side(plan, p.id))
            supplies.emplace_back(p.id);
    return supplies;
}

Result<Edit> hang_on(const Plan& plan, const Id& thing, const Terminal& supply) {
    const Run* feed = feed_of(plan, thing);
    const auto supplies = supplies_for(plan, thing);
    if (!feed || std::find(supplies.begin(), supplies.end(), supply) == supplies.end())
        return fail(ErrorCode::missing_reference, name_of(plan, thing), supply.text(),
                    Want::a_terminal_of_this_plan);
    const Id before = battery_behind(plan, feed->from), now = battery_behind(plan, supply);
    Batch edits;
    for (Run r : plan.runs) {
        const bool its_return = owner_of(r.from) == thing && r.from.post == Post::neg;
        if (r.id == feed->id)
            r.from = supply, r.channel = 0;
        else if (its_return && !before.empty() && !now.empty() && r.to == neg_of(before))
            r.to = neg_of(now);
        else
            continue;
        edits.edits.emplace_back(Put<Run>{r, std::nullopt});
    }
    if (const Point* p = find(plan.points, thing); p && !before.empty() && p->return_at == neg_of(before)) {
        Point moved = *p;
        moved.return_at = neg_of(now);
        edits.edits.emplace_back(Put<Point>{moved, std::nullopt});
    }
    return Edit(edits);
}

}  // namespace yr
