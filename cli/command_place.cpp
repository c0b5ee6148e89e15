// rail route, rail stand, rail furnish: where things stand and cables lie.
#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "inspect/heat_along.h"
#include "inspect/stand.h"
#include "inspect/two_boxes.h"
#include "plan/names.h"
#include "plan/variant.h"
#include "routes/furnish.h"
#include "routes/lay.h"
#include "units/text.h"
#include "watch.h"
#include "words/control_words.h"
#include "words/format.h"
#include "words/sentences.h"

namespace yr::cli {
namespace {

struct PlaceAsk {
    std::string plan, variant, thing, outline, out;
    bool json = false, force = false, set = false, follow = false, layouts = false;
};

std::string by(const Plan& plan, const Route& route) {
    std::string names;
    std::size_t last = plan.ways.size();
    for (const Leg& leg : route.path.legs)
        if (leg.way && *leg.way != last)
            names += (names.empty() ? "" : ", ") + plan.ways[last = *leg.way].name;
    return names.empty() ? words::translated("straight") : names;
}

// Hottest air that a route passes, over all states, C.
double hottest_C(const Plan& plan, const Route& route) {
    double most = -1e9;
    for (const State& s : plan.states) {
        most = std::max(most, s.ambient_C);
        for (const Id& id : places_along(plan, route)) most = std::max(most, air_at(plan, id, s));
    }
    return most;
}

// The hottest spot of each run's copper over all states; empty where no state says.
std::vector<std::optional<HeatAlong>> hottest_copper(const Plan& plan, const Routes& routes) {
    std::vector<std::optional<HeatAlong>> most(plan.runs.size());
    OperatingPointSolver solver;
    for (const State& s : plan.states) {
        const Solution solved = solve(plan, s, solver);
        for (std::size_t k = 0; k < plan.runs.size(); ++k) {
            if (!routes.by_run[k]) continue;
            auto heat = heat_along(plan, k, *routes.by_run[k], s, solved.network, solved.point);
            if (heat && (!most[k] || heat->hottest_C > most[k]->hottest_C)) most[k] = std::move(heat);
        }
    }
    return most;
}

Json route_json(const Plan& plan, const Routes& routes, std::size_t k, const std::optional<HeatAlong>& heat) {
    const Route& r = *routes.by_run[k];
    Json legs = Json::array();
    for (const Leg& leg : r.path.legs)
        legs.push_back({{"way", leg.way ? Json(plan.ways[*leg.way].name) : Json(nullptr)},
                        {"length_m", leg.length_m()}});
    Json passed = Json::array();
    for (const std::size_t n : r.path.waypoints) passed.push_back(plan.waypoints[n].name);
    const Run& run = plan.runs[k];
    return {{"id", run.id},
            {"name", run.name},
            {"way_m", r.way_m},
            {"length_m", r.length_m},
            {"slack_m", r.length_m - r.way_m},
            {"said_m", run.length_m ? Json(*run.length_m) : Json(nullptr)},
            {"hottest_air_C", hottest_C(plan, r)},
            {"hottest_copper_C", heat ? Json(heat->hottest_C) : Json(nullptr)},
            {"hottest_at_m", heat ? Json(heat->at_m) : Json(nullptr)},
            {"bundle", bundled_with(plan, routes, k)},
            {"held", r.held},
            {"passes", passed},
            {"legs", legs}};
}

int run_route(const PlaceAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const Routes routes = route_all(*plan);
    const auto heat = hottest_copper(*plan, routes);
    if (ask.json) {
        Json out = {{"plan", plan->vehicle.name}, {"fits", routes.fits}, {"rounds", routes.rounds}};
        out["runs"] = Json::array(), out["passages"] = Json::array(), out["unjoined"] = Json::array();
        for (std::size_t k = 0; k < plan->runs.size(); ++k)
            if (routes.by_run[k]) out["runs"].push_back(route_json(*plan, routes, k, heat[k]));
        for (std::size_t n = 0; n < plan->waypoints.size(); ++n)
            if (plan->waypoints[n].kind != PassageKind::bend)
                out["passages"].push_back({{"id", plan->waypoints[n].id},
                                           {"name", plan->waypoints[n].name},
                                           {"cables", routes.passages[n].runs.size()},
                                           {"bundle_mm", routes.passages[n].bundle_mm},
                                           {"share_of_bore", routes.passages[n].share}});
        for (const std::size_t k : routes.unjoined) out["unjoined"].push_back(plan->runs[k].id);
        out["source"] = "docs/method.md";
        print(out);
        return routes.fits && routes.unjoined.empty() ? 0 : 1;
    }
    std::vector<std::vector<std::string>> rows{
        {words::translated("cable"), words::translated("said"), words::translated("way"),
         words::translated("with slack"), words::translated("hottest air"),
         words::translated("hottest copper"), words::translated("lie together"), words::translated("by")}};
    const auto m = [](double v) { return words::quantity(v, Dimension::length); };
    for (std::size_t k = 0; k < plan->runs.size(); ++k) {
        const auto& r = routes.by_run[k];
        if (!r) continue;
        rows.push_back({plan->runs[k].name, plan->runs[k].length_m ? m(*plan->runs[k].length_m) : "",
                        m(r->way_m), m(r->length_m),
                        words::quantity(hottest_C(*plan, *r), Dimension::temperature),
                        heat[k] ? words::quantity(heat[k]->hottest_C, Dimension::temperature) : "",
                        std::to_string(bundled_with(*plan, routes, k)), by(*plan, *r)});
    }
    if (rows.size() == 1) {
        tell("No cable has both its ends standing somewhere: say where things stand, or `rail furnish`.\n");
        return 1;
    }
    print_table(rows);
    for (std::size_t n = 0; n < plan->waypoints.size(); ++n)
        if (routes.passages[n].share > 0)
            tell("{0}: {1} full, {2} allowed.\n", words::capital(plan->waypoints[n].name),
                 words::quantity(routes.passages[n].share, Dimension::fraction),
                 words::quantity(allowed_fill(), Dimension::fraction));
    for (const std::size_t k : routes.unjoined) tell("{0}: no way joins its ends.\n", plan->runs[k].name);
    return routes.fits && routes.unjoined.empty() ? 0 : 1;
}

// A thing of the plan by name or id; empty: none of it may stand somewhere.
Id thing_named(const Plan& plan, const std::string& name) {
    Id found;
    each_list(plan, [&](const auto& things) {
        using Thing = typename std::remove_cvref_t<decltype(things)>::value_type;
        if constexpr (requires(const Thing& t) { t.at.spot(), t.place; })
            for (const Thing& t : things)
                if (found.empty() && (t.id == name || to_lower(t.name) == to_lower(name))) found = t.id;
    });
    return found;
}

int run_stand(const PlaceAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const Id thing = thing_named(*plan, ask.thing);
    if (thing.empty())
        return refuse(
            {ErrorCode::missing_reference, "THING", ask.thing, Want::a_thing_that_stands_somewhere});
    const auto advice = stand_advice(*plan, thing, true, watch().cancel());
    if (!advice) {
        tell_error("Nothing that ends on {0} stands anywhere yet, or the plan has no ways.\n", ask.thing);
        return 1;
    }
    if (ask.json) {
        Json out = {{"plan", plan->vehicle.name}, {"thing", thing}};
        out["best"] = Json::array();
        for (const StandChoice& c : advice->best)
            out["best"].push_back({{"x_m", c.spot.spot.x_m},
                                   {"y_m", c.spot.spot.y_m},
                                   {"z_m", c.spot.spot.z_m},
                                   {"place", name_of(*plan, c.spot.place)},
                                   {"copper_kg", c.kg},
                                   {"saves_kg", c.saves_kg},
                                   {"worst_drop_V", c.worst_drop_V},
                                   {"saves_V", c.saves_V}});
        out["spots"] = advice->map.spots.size();
        print(out);
    } else {
        for (const StandChoice& c : advice->best)
            tell("{0}, {1} m behind the axle, {2} m to the right: {3} kg of copper less, {4} mV less lost.\n",
                 words::capital(name_of(*plan, c.spot.place)), words::number(c.spot.spot.x_m, 3),
                 words::number(c.spot.spot.y_m, 3), words::number(c.saves_kg, 3),
                 words::number(c.saves_V * 1000, 3));
    }
    if (ask.out.empty() || advice->best.empty()) return 0;
    return write_changed(ask.plan, ask.variant, advice->best.front().edit, ask.out, ask.force);
}

// A plan's options for a box, side by side.
int run_layouts(const PlaceAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const Id box = thing_named(*plan, ask.thing);
    const auto found = one_box_or_two(*plan, box, watch().cancel());
    if (!found) {
        tell_error("{0} is no box with four loads or more that stand somewhere along the plan's ways.\n",
                   ask.thing);
        return 1;
    }
    Json out = {{"plan", plan->vehicle.name}, {"box", box}, {"options", Json::array()}};
    Batch variants;
    Plan with = *plan;  // for ids alone
    for (const BoxOption& o : found->options) {
        if (ask.json)
            out["options"].push_back({{"layout", words::name_of(o.layout)},
                                      {"copper_kg", o.kg},
                                      {"metres", o.metres},
                                      {"worst_drop_V", o.worst_drop_V},
                                      {"money", o.money},
                                      {"moved", o.moved},
                                      {"sized", o.sized}});
        else
            fmt::print("{}\n", words::sentence(o));
        if (o.layout == BoxLayout::as_it_is) continue;
        Variant v = difference(*plan, o.plan, new_id(with, "variant"), words::name_of(o.layout));
        with.variants.push_back(v);
        variants.edits.emplace_back(Put<Variant>{v, {}});
    }
    if (ask.json) print(out);
    if (ask.out.empty()) return 0;
    return write_changed(ask.plan, ask.variant, variants, ask.out, ask.force);
}

int run_furnish(const PlaceAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const auto outline = ask.outline.empty() ? outline_of_words(plan->vehicle.kind + " " + plan->vehicle.name)
                                             : enum_named<Outline>(ask.outline).value_or(Outline::none);
    if (outline == Outline::none)
        return refuse({ErrorCode::unknown_name, "--outline", ask.outline, Want::an_outline});
    Plan now = *plan;
    Batch all;
    const auto add = [&](const Edit& edit) {
        const bool good = yr::apply(now, edit).has_value();
        if (good) all.edits.push_back(edit);
        return good;
    };
    const auto laid_out = furnish(now, outline);
    if (!laid_out) return refuse(laid_out.error());
    add(*laid_out);
    if (ask.set) add(stand_in_places(now));
    if (ask.follow) {
        std::vector<Id> runs;
        for (const Run& r : now.runs)
            if (ends_of(now, r) && !r.resistance_ohm) runs.push_back(r.id);
        add(follow_way(now, runs));
    }
    return write_changed(ask.plan, ask.variant, all, ask.out, ask.force);
}

}  // namespace

void add_place(CLI::App& app, Action& action) {
    auto o = std::make_shared<PlaceAsk>();
    const auto common = [o](CLI::App* c) {
        c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
        add_variant_option(*c, o->variant);
    };
    CLI::App* c =
        app.add_subcommand("route", words::translated("Along what way each cable lies, and how long it is"));
    common(c);
    add_seconds_option(*c);
    c->add_flag("--json", o->json, words::translated("JSON"));
    c->callback([o, &action] { action = [o] { return run_route(*o); }; });

    c = app.add_subcommand("stand", words::translated("Where a box, bus, battery or ground should stand"));
    common(c);
    c->add_option("THING", o->thing, words::translated("its name or id"))->required();
    c->add_option(
        "-o,--output", o->out,
        words::translated("the plan with it on the best spot; with --layouts, with the layouts as options"));
    c->add_flag("--layouts", o->layouts,
                words::translated("of a box: one, two, or its cables home to the supply, side by side"));
    c->add_flag("--force", o->force, words::translated("write over what is there"));
    add_seconds_option(*c);
    c->add_flag("--json", o->json, words::translated("JSON"));
    c->callback([o, &action] { action = [o] { return o->layouts ? run_layouts(*o) : run_stand(*o); }; });

    c = app.add_subcommand("furnish",
                           words::translated("Rooms and ways of a typical vehicle for a plan without"));
    common(c);
    c->add_option("--outline", o->outline,
                  words::translated(
                      "car, pickup, van, truck, tractor, all_terrain, buggy, trailer, cart; by the vehicle's "
                      "kind if left out"));
    c->add_flag("--set", o->set, words::translated("things set where their places are"));
    c->add_flag("--follow", o->follow,
                words::translated("typed lengths left open, so that cables follow their ways"));
    c->add_option("-o,--output", o->out, words::translated("file to write"))->required();
    c->add_flag("--force", o->force, words::translated("write over what is there"));
    c->callback([o, &action] { action = [o] { return run_furnish(*o); }; });
}

}  // namespace yr::cli
