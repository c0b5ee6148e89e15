#include "notes/changes.h"

#include <algorithm>

#include "control/place_on.h"
#include "notes/kinds.h"
#include "notes/plan_text.h"
#include "plan/variant.h"
#include "size/run_limits.h"
#include "typing/typed_line.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

using K = StatementKind;

// What the line says of a load that is there; the rest stays.
Statement change_load(const Plan& plan, const Load& before, const std::string& rest) {
    Statement s;
    s.kind = K::change;
    s.about = before.id;
    // a fuse alone is not what it draws
    static const Pattern fuse(R"(^\s*(?:(?:fuse[ds]?|breaker)\b|\d+(?:\.\d+)?\s*A\s+(?:fuse|breaker)\b))");
    const TypedLine line =
        read_line(plan, "\"" + before.name + "\"" + (fuse.is_in(rest) ? ", " : " ") + rest);
    s.not_understood = line.not_understood;
    s.doubt = line.doubt;
    PlanBuilder b(plan);
    Load l = before;
    if (line.draw) l.draw = *line.draw, l.count = line.count;
    if (line.draw_least) l.draw_least = line.draw_least;
    if (line.inrush_A) l.inrush_A = line.inrush_A;
    if (line.start_W) l.start_W = line.start_W;
    if (line.live_when) l.live_when = *line.live_when;
    if (line.drop_limit) l.drop_limit = line.drop_limit;
    if (!line.place.empty()) l.place = line.place;
    if (line.critical) l.critical = true;
    if (line.details.duty) l.duty = line.details.duty;
    if (line.details.inrush_s) l.inrush_s = line.details.inrush_s;
    if (line.details.plate_V) l.plate_V = line.details.plate_V;
    if (line.details.least_V) l.least_V = line.details.least_V;
    if (!(l.live_when == before.live_when)) b.add(set_live_when(plan, l.id, l.live_when));
    if (!(l == before)) b.put(l);
    for (const Run& r : plan.runs) {
        if (r.to != pos_of(l.id) && r.from != neg_of(l.id)) continue;
        Run changed = r;
        if (line.length_m && (r.to == pos_of(l.id) || r.length_m == supply_run(plan, l.id)->length_m))
            changed.length_m = line.length_m;
        if (line.size) changed.size = line.size;
        for (Device& d : changed.devices)
            if (line.fuse_A && d.kind == DeviceKind::fuse) d.rating_A = *line.fuse_A;
        for (Device& d : changed.devices)
            if (d.at_m && changed.length_m) d.at_m = std::min(*d.at_m, *changed.length_m);
        if (!(changed == r)) b.put(changed);
    }
    Edit edit = b.finish();
    if (std::get<Batch>(edit).edits.empty() && line.feed.empty())
        s.error = Error{ErrorCode::empty, before.name, rest, Want::what_to_change};
    else
        s.edit = std::move(edit);
    return s;
}

// Fields by their names in the plan file: "duty 0.3, note "wet"".
Statement change_fields(const Plan& plan, const Id& id, std::string_view rest) {
    Statement s;
    s.kind = K::set;
    s.about = id;
    const std::string_view text = trim(rest);
    const auto space = text.find_first_of(" \t");
    if (space == std::string_view::npos) {
        s.error = Error{ErrorCode::empty, name_of(plan, id), std::string(text), Want::key_and_value};
        return s;
    }
    const auto after = with_field(plan, id, text.substr(0, space), text.substr(space));
    if (!after) {
        s.error = after.error();
        return s;
    }
    s.edit = edit_between(plan, *after);
    return s;
}

}  // namespace

Statement read_change(const Plan& plan, const Id& id, const std::string& rest) {
    const Load* load = find(plan.loads, id);
    Statement fields = change_fields(plan, id, rest);
    if (!load || fields.edit) {
        fields.kind = K::change;
        return fields;
    }
    return change_load(plan, *load, rest);
}

// "set rear light duty 0.3": the longest name first.
Statement read_set(const Plan& plan, std::string_view rest) {
    Statement s;
    s.kind = K::set;
    const std::string text(trim(rest));
    std::string best;
    Id id;
    const auto consider = [&](const Id& thing, const std::string& name) {
        for (const std::string& head : {name, "\"" + name + "\""})
            if (head.size() > best.size() && to_lower(text).starts_with(to_lower(head) + " "))
                best = head, id = thing;
    };
    each_list(plan, [&](const auto& things) {
        for (const auto& x : things) consider(x.id, x.name);
    });
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices) consider(d.id, d.name);
    if (id.empty()) {
        s.error = Error{ErrorCode::missing_reference, "set", text, Want::something_that_is_in_the_plan};
        return s;
    }
    return change_fields(plan, id, std::string_view(text).substr(best.size()));
}

Statement read_remove(const Plan& plan, std::string_view rest) {
    Statement s;
    s.kind = K::remove;
    const std::string name = unquoted(rest);
    each_list(plan, [&](const auto& things) {
        for (const auto& x : things)
            if (s.about.empty() && to_lower(x.name) == to_lower(name)) s.about = x.id;
    });
    if (s.about.empty())
        s.error = Error{ErrorCode::missing_reference, "remove", name, Want::something_that_is_in_the_plan};
    else
        s.edit = remove_with_runs(plan, s.about);
    return s;
}

}  // namespace yr
