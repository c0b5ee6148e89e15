// Where things stand and cables lie, as lines: "stand rear box: 2.1 back, 0.4 left, 0.3 up", "waypoint
// firewall hole: grommet 28 mm, 0.5 back, 0.4 left, 0.8 up", "way left sill: dash to rear, flexes", "outline
// van".
#include <algorithm>

#include "notes/kinds.h"
#include "plan/names.h"
#include "routes/furnish.h"
#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

// "2.1 back", "40 cm left", "0.3 m up": metres along its axis.
bool take_axis(std::string_view piece, Stand& at) {
    struct Word {
        const char* word;
        std::optional<double> Stand::*axis;
        double sign;
    };
    constexpr Word words[] = {{"back", &Stand::x_m, 1},     {"behind", &Stand::x_m, 1},
                              {"forward", &Stand::x_m, -1}, {"front", &Stand::x_m, -1},
                              {"right", &Stand::y_m, 1},    {"left", &Stand::y_m, -1},
                              {"up", &Stand::z_m, 1},       {"down", &Stand::z_m, -1}};
    for (const Word& w : words) {
        if (!to_lower(piece).ends_with(std::string(" ") + w.word)) continue;
        const auto v = parse_value(trim(piece.substr(0, piece.size() - std::string_view(w.word).size())),
                                   Dimension::length);
        if (!v) return false;
        at.*w.axis = w.sign * *v;
        return true;
    }
    return false;
}

// What is not said of a spot is the middle of the axle.
void fill(Stand& at) {
    for (auto* axis : {&at.x_m, &at.y_m, &at.z_m})
        if (!*axis) *axis = 0;
}

const Waypoint* waypoint_named(const Plan& plan, std::string_view text) {
    const std::string name = to_lower(unquoted(text));
    for (const Waypoint& w : plan.waypoints)
        if (to_lower(w.name) == name) return &w;
    return nullptr;
}

}  // namespace

Made make_stand(PlanBuilder& b, std::string_view text, std::vector<std::string>& not_understood) {
    const auto colon = text.find(':');
    const std::string name = unquoted(text.substr(0, colon));
    Stand at;
    bool any = false;
    for (const std::string_view raw : split(text.substr(colon + 1), ',')) {
        const std::string_view piece = trim(raw);
        if (piece.empty()) continue;
        if (take_axis(piece, at))
            any = true;
        else
            not_understood.emplace_back(piece);
    }
    Id id;
    each_list(b.plan(), [&](const auto& things) {
        using Thing = typename std::remove_cvref_t<decltype(things)>::value_type;
        if constexpr (requires(const Thing& t) { t.at.spot(), t.place; })
            for (const Thing& t : things)
                if (id.empty() && to_lower(t.name) == to_lower(name)) id = t.id;
    });
    if (id.empty())
        return fail(ErrorCode::missing_reference, "stand", name, Want::a_thing_that_stands_somewhere);
    if (!any) return fail(ErrorCode::empty, name, std::string(trim(text)), Want::where_it_stands);
    fill(at);
    const auto edit = stand(b.plan(), id, *at.spot());
    if (!edit) return tl::unexpected(edit.error());
    b.add(*edit);
    return id;
}

Made make_waypoint(PlanBuilder& b, std::string_view text, std::vector<std::string>& not_understood) {
    const auto colon = text.find(':');
    Waypoint w;
    w.name = unquoted(text.substr(0, colon));
    if (const Waypoint* known = waypoint_named(b.plan(), w.name)) w = *known;  // said anew
    if (w.id.empty()) w.id = b.id("waypoint");
    for (const std::string_view raw : split(text.substr(colon + 1), ',')) {
        const std::string_view piece = trim(raw);
        if (piece.empty() || take_axis(piece, w.at)) continue;
        const std::string low = to_lower(piece);
        const auto space = low.find(' ');
        const auto kind = enum_named<PassageKind>(low.substr(0, space));
        if (low == "guarded" || low == "sealed") {
            (low == "guarded" ? w.guarded : w.sealed) = true;
        } else if (kind) {
            w.kind = *kind;
            if (*kind == PassageKind::grommet || *kind == PassageKind::gland) w.guarded = true;
            if (space == std::string::npos) continue;
            const auto bore = parse_value(trim(piece.substr(space)), Dimension::length);
            if (bore && *bore > 0 && *bore <= 0.5)
                w.bore_mm = *bore * 1000;
            else
                not_understood.emplace_back(piece);
        } else {
            not_understood.emplace_back(piece);
        }
    }
    if (!w.at.x_m && !w.at.y_m && !w.at.z_m)
        return fail(ErrorCode::empty, w.name, std::string(trim(text)), Want::where_it_stands);
    fill(w.at);
    b.put(w);
    return w.id;
}

Made make_way(PlanBuilder& b, std::string_view text, std::vector<std::string>& not_understood) {
    const auto colon = text.find(':');
    Way w;
    w.name = unquoted(text.substr(0, colon));
    for (const Way& known : b.plan().ways)
        if (to_lower(known.name) == to_lower(w.name)) w = known;
    if (w.id.empty()) w.id = b.id("way");
    for (const std::string_view raw : split(text.substr(colon + 1), ',')) {
        const std::string_view piece = trim(raw);
        const auto to = to_lower(piece).find(" to ");
        if (piece.empty()) continue;
        if (to_lower(piece) == "flexes") {
            w.flexes = true;
        } else if (const std::string low = to_lower(piece);
                   low.starts_with("in ") || low.starts_with("covered in ")) {
            // "covered in tape and split loom": layers from the inside out
            std::string layers = low.substr(low.find("in ") + 3);
            for (std::size_t at = 0; (at = layers.find(" and ")) != std::string::npos;)
                layers.replace(at, 5, ", ");
            w.covering = layers;
        } else if (to != std::string::npos) {
            const std::string_view ends[] = {piece.substr(0, to), piece.substr(to + 4)};
            for (int k = 0; k < 2; ++k) {
                const Waypoint* end = waypoint_named(b.plan(), ends[k]);
                if (!end)
                    return fail(ErrorCode::missing_reference, w.name, unquoted(ends[k]),
                                Want::a_waypoint_of_this_plan);
                (k == 0 ? w.from : w.to) = end->id;
            }
        } else {
            not_understood.emplace_back(piece);
        }
    }
    if (w.from.empty())
        return fail(ErrorCode::empty, w.name, std::string(trim(text)), Want::a_waypoint_of_this_plan);
    b.put(w);
    return w.id;
}

Statement read_outline(const Plan& plan, std::string_view text) {
    Statement s;
    s.kind = StatementKind::outline;
    std::string word = to_lower(unquoted(text));
    std::replace(word.begin(), word.end(), ' ', '_');
    std::replace(word.begin(), word.end(), '-', '_');
    const auto outline = enum_named<Outline>(word);
    if (!outline || *outline == Outline::none) {
        s.error = Error{ErrorCode::unknown_name, "outline", std::string(trim(text)), Want::an_outline};
        return s;
    }
    const auto edit = furnish(plan, *outline);
    if (!edit) {
        s.error = edit.error();
        return s;
    }
    s.edit = *edit;
    return s;
}

}  // namespace yr
