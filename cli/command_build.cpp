// rail parts, rail wires, rail cut, export xlsx and csv of them: what is bought, cut and made.
#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "plan/names.h"
#include "units/text.h"
#include "watch.h"
#include "words/build_words.h"

namespace yr::cli {
namespace {

struct BuildAsk {
    std::string plan, variant;
    int vehicles = 1;
    bool json = false, joined_only = false;
};

int run_parts(const BuildAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const auto parts = parts_of(*plan, {ask.vehicles, !ask.joined_only, true});
    if (!ask.json) return print_sheet(words::parts_sheet(*plan, parts)), 0;
    Json out = {{"plan", plan->vehicle.name}, {"vehicles", ask.vehicles}};
    out["parts"] = Json::array();
    for (const Part& p : parts)
        out["parts"].push_back({{"key", p.key},
                                {"kind", words::name_of(p.kind)},
                                {"what", p.what},
                                {"quantity", p.quantity},
                                {"unit", p.metres ? "m" : "pieces"},
                                {"price", p.price ? Json(*p.price) : Json(nullptr)},
                                {"chosen", p.chosen},
                                {"used_at", p.used_at}});
    print(out);
    return 0;
}

Json end_json(const CableEnd& e) {
    return {{"kind", std::string(enum_name(e.kind))},
            {"bolt_mm", e.bolt_mm},
            {"angle_deg", e.angle_deg},
            {"strip_mm", e.strip_mm},
            {"shrink_mm", e.shrink_mm},
            {"boot", e.boot},
            {"chosen", e.chosen}};
}

int run_wires(const BuildAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const auto wires = wire_table(*plan);
    if (!ask.json) return print_sheet(words::wires_sheet(*plan, wires)), 0;
    Json out = {{"plan", plan->vehicle.name}};
    out["wires"] = Json::array();
    for (const WireRow& w : wires) {
        const Run& run = plan->runs[w.run];
        out["wires"].push_back({{"number", w.number},
                                {"id", run.id},
                                {"name", run.name},
                                {"from", run.from.text()},
                                {"to", run.to.text()},
                                {"size", run.size ? Json(name_of(*run.size)) : Json(nullptr)},
                                {"colour", w.colour},
                                {"length_m", w.length_m},
                                {"length_known", w.length_known},
                                {"pieces", w.pieces},
                                {"end_from", end_json(w.from)},
                                {"end_to", end_json(w.to)},
                                {"ways", w.ways},
                                {"fuse", w.fuse}});
    }
    print(out);
    return 0;
}

int run_cut(const BuildAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const auto cuts = cut_plan(*plan, ask.vehicles, watch().cancel());
    bool whole = true;
    for (const SizeCutting& c : cuts) whole = whole && c.cutting.too_long.empty();
    if (ask.json) {
        Json out = {{"plan", plan->vehicle.name}, {"vehicles", ask.vehicles}};
        out["sizes"] = Json::array();
        for (const SizeCutting& c : cuts) {
            Json rolls = Json::array();
            for (const CutRoll& r : c.cutting.rolls) {
                Json pieces = Json::array();
                for (const std::size_t k : r.pieces)
                    pieces.push_back({{"run", c.pieces[k].name},
                                      {"length_m", c.pieces[k].length_m},
                                      {"vehicle", c.pieces[k].vehicle + 1}});
                rolls.push_back({{"length_m", r.roll.length_m},
                                 {"at_hand", r.roll.at_hand},
                                 {"pieces", pieces},
                                 {"rest_m", r.rest_m(c.pieces)}});
            }
            out["sizes"].push_back({{"size", name_of(c.size)},
                                    {"colour", c.colour},
                                    {"sold_m", c.sold_m},
                                    {"by_the_metre_m", c.by_the_metre},
                                    {"bought", c.cutting.bought},
                                    {"at_least", c.cutting.at_least},
                                    {"proved", c.cutting.proved},
                                    {"too_long", c.cutting.too_long.size()},
                                    {"rolls", rolls}});
        }
        print(out);
        return whole ? 0 : 1;
    }
    for (const SizeCutting& c : cuts) {
        fmt::print("{}\n", words::sentence(c));
        int n = 0;
        for (const CutRoll& r : c.cutting.rolls) {
            std::string pieces;
            for (const std::size_t k : r.pieces)
                pieces += fmt::format("{}{} {}", pieces.empty() ? "" : ", ", name_of(*plan, c.pieces[k].name),
                                      words::quantity(c.pieces[k].length_m, Dimension::length));
            tell("  roll {0} of {1}{2}: {3}; rest {4}\n", ++n,
                 words::quantity(r.roll.length_m, Dimension::length),
                 r.roll.at_hand ? words::translated(" at hand") : std::string(), pieces,
                 words::quantity(r.rest_m(c.pieces), Dimension::length));
        }
    }
    return whole ? 0 : 1;
}

}  // namespace

int export_build(const std::string& plan_path, const std::string& variant, const std::string& out,
                 int vehicles, bool force) {
    const auto plan = load_shown(plan_path, variant);
    if (!plan) return refuse(plan.error());
    const auto cuts = cut_plan(*plan, vehicles, watch().cancel());
    const std::vector<Sheet> sheets{words::parts_sheet(*plan, parts_of(*plan, {vehicles, true, true})),
                                    words::wires_sheet(*plan, wire_table(*plan)),
                                    words::cuts_sheet(*plan, cuts), words::kits_sheet(*plan, cuts)};
    if (const auto written = write_xlsx(out, sheets, force); !written) return refuse(written.error());
    return 0;
}

void add_build(CLI::App& app, Action& action) {
    auto o = std::make_shared<BuildAsk>();
    const auto common = [o](CLI::App* c) {
        c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
        add_variant_option(*c, o->variant);
        add_seconds_option(*c);
        c->add_flag("--json", o->json, words::translated("JSON"));
    };
    CLI::App* c = app.add_subcommand("parts", words::translated("What is to be bought"));
    common(c);
    c->add_option("--vehicles", o->vehicles, words::translated("so many vehicles alike"))
        ->check(CLI::Range(1, 1000));
    c->add_flag("--joined-only", o->joined_only,
                words::translated("cable and small parts alone, without boxes and loads"));
    c->callback([o, &action] { action = [o] { return run_parts(*o); }; });
    c = app.add_subcommand("wires",
                           words::translated("Every cable: number, ends, size, colour, length, fuse"));
    common(c);
    c->callback([o, &action] { action = [o] { return run_wires(*o); }; });
    c = app.add_subcommand("cut", words::translated("All cables cut from the fewest rolls"));
    common(c);
    c->add_option("--vehicles", o->vehicles, words::translated("so many vehicles alike"))
        ->check(CLI::Range(1, 1000));
    c->callback([o, &action] { action = [o] { return run_cut(*o); }; });
}

}  // namespace yr::cli
