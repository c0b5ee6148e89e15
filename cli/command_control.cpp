// assign, rails, sneak, library: who is live when, and through what.
#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "inspect/checked_channels.h"
#include "plan/library.h"
#include "plan/plan_json.h"
#include "plan/variant.h"
#include "typing/typed_line.h"
#include "watch.h"
#include "words/control_words.h"

namespace yr::cli {
namespace {

struct ControlOptions {
    bool force = false;
    std::string plan, variant, output, words;
    bool json = false, joined = false;
};

Json placed_json(const PlacedLoad& p, const Plan& plan) {
    Json out = {{"load", p.load},      {"name", name_of(plan, p.load)},
                {"feed", p.feed},      {"channel", p.channel},
                {"moved", p.moved},    {"pinned", p.pinned},
                {"current_A", p.amps}, {"feed_m", p.feed_m},
                {"local_m", p.local_m}};
    out["reasons"] = words::reasons(p, plan);
    return out;
}

Json assignment_json(const Assignment& a, const Plan& plan) {
    Json out = {{"feasible", a.feasible}};
    if (a.feasible) {
        out["amp_metres"] = a.amp_metres;
        out["amp_metres_before"] = a.amp_metres_before;
        out["placed"] = Json::array();
        for (const PlacedLoad& p : a.placed) out["placed"].push_back(placed_json(p, plan));
    } else {
        out["conflict"] = a.conflict;
        out["sentence"] = words::conflict_text(a, plan);
        out["remedies"] = Json::array();
        for (const Remedy& r : a.remedies) out["remedies"].push_back(words::sentence(r, plan));
    }
    out["source"] = "0-1 program, proven least amp-metres; docs/method.md";
    out["assumptions"] = assumptions_json({});
    return out;
}

int run_assign(const ControlOptions& o) {
    const auto plan = load_shown(o.plan, o.variant);
    if (!plan) return refuse(plan.error());
    AssignAsk ask;
    ask.allow_joined = o.joined;
    ask.cancel = watch().cancel();
    const CheckedChannels checked = assign_checked(*plan, ask);
    const Assignment& a = checked.assignment;
    if (!a.known) {
        fmt::print(stderr, "{}\n", words::conflict_text(checked, *plan));
        return 1;
    }
    if (o.json) {
        Json out = assignment_json(a, *plan);
        out["with_it"] = Json::array();
        for (const Finding& f : checked.mended) out["with_it"].push_back(words::mend_label(f, *plan));
        print(out);
    } else if (a.feasible) {
        std::vector<std::vector<std::string>> rows{{"", "goes on", "amps", "moved"}};
        for (const PlacedLoad& p : a.placed)
            rows.push_back({name_of(*plan, p.load), words::place_text(*plan, p.feed, p.channel),
                            words::quantity(p.amps, Dimension::current),
                            p.moved    ? "moved"
                            : p.pinned ? "pinned"
                                       : ""});
        print_table(rows);
        tell("{0} A m of copper; {1} as the plan stands.\n", words::number(a.amp_metres, 4),
             words::number(a.amp_metres_before, 4));
        for (const Finding& f : checked.mended) tell("With it: {0}\n", words::mend_label(f, *plan));
    } else {
        fmt::print("{}\n", words::conflict_text(a, *plan));
        if (!a.remedies.empty()) tell("Any of these would do:\n");
        for (const Remedy& r : a.remedies) fmt::print("  {}\n", words::sentence(r, *plan));
    }
    if (!a.feasible) return 1;
    if (!o.output.empty()) {
        if (const int code = write_changed(o.plan, o.variant, a.edit, o.output, o.force)) return code;
        tell("{0} written.\n", o.output);
    }
    return 0;
}

Json sneak_json(const SneakPath& p, const Plan& plan) {
    const char* kinds[] = {"alive", "past_fuse", "dead"};
    Json out = {{"load", p.load},
                {"name", name_of(plan, p.load)},
                {"kind", kinds[static_cast<int>(p.kind)]},
                {"key", name_of(p.position)},
                {"switches", p.state.switches},
                {"pulled", p.state.pulled},
                {"voltage_V", p.volts_V},
                {"through", p.through},
                {"path", p.path},
                {"sentence", words::sentence(p, plan)}};
    out["mends"] = Json::array();
    for (const SneakMend& m : p.mends) out["mends"].push_back(words::mend_label(m, plan));
    return out;
}

int run_sneak(const ControlOptions& o) {
    const auto plan = load_shown(o.plan, o.variant);
    if (!plan) return refuse(plan.error());
    SneakAsk ask;
    ask.cancel = watch().cancel();
    ask.progress = [](double share) { watch().progress(share); };
    const SneakSearch s = search_sneaks(*plan, ask);
    if (o.json) {
        Json out = {{"complete", s.complete},
                    {"switches", s.switches},
                    {"fuses", s.fuses},
                    {"combinations", s.combinations},
                    {"looked_at", s.looked_at}};
        out["found"] = Json::array();
        for (const SneakPath& p : s.found) out["found"].push_back(sneak_json(p, *plan));
        out["source"] = "every combination by decisions on what can still matter; docs/method.md";
        out["assumptions"] =
            assumptions_json({"master disconnects closed", "loads as resistances at nominal volts",
                              "sensing relays and cut-offs as they settle at that key position"});
        print(out);
        return s.found.empty() ? 0 : 1;
    }
    for (const auto& cause : by_cause(s.found)) {
        const SneakPath& p = s.found[cause.front()];
        fmt::print("{} {} {}\n", words::mark(Severity::fix), words::sentence(p, *plan),
                   words::same_for(cause, s, *plan));
        if (!p.path.empty()) fmt::print("    {}\n", words::path_text(p, *plan));
        for (const SneakMend& m : p.mends) tell("    mend: {0}\n", words::mend_label(m, *plan));
    }
    fmt::print("{} {}\n", words::search_text(s),
               s.found.empty() ? words::translated("No load is alive or dead against the plan.") : "");
    return s.found.empty() ? 0 : 1;
}

int run_rails(const ControlOptions& o) {
    const auto plan = load_shown(o.plan, o.variant);
    if (!plan) return refuse(plan.error());
    const RailGrouping g = group_rails(*plan);
    if (o.json) {
        Json out = {{"relays", g.relays}, {"switched_loads", g.switched}};
        out["groups"] = Json::array();
        for (const RailGroup& r : g.groups)
            out["groups"].push_back({{"when", words::condition(r.when, &*plan)},
                                     {"loads", r.loads},
                                     {"current_A", r.amps},
                                     {"start_A", r.start_A},
                                     {"feeds", r.feeds},
                                     {"astray", r.astray},
                                     {"sentence", words::sentence(r, *plan)}});
        out["source"] = "loads that are live at the same times share a rail; docs/method.md";
        out["assumptions"] = assumptions_json({});
        print(out);
        return 0;
    }
    for (const RailGroup& r : g.groups) fmt::print("{}\n", words::sentence(r, *plan));
    tell("{0} rails, {1} of them behind a relay; no two could be one.\n", g.groups.size(), g.relays);
    return 0;
}

int run_library(const ControlOptions& o) {
    const auto found = search(shipped_library(), o.words, 500);
    if (o.json) {
        Json out;
        out["loads"] = Json::array();
        for (const LoadEntry* e : found)
            out["loads"].push_back(
                {{"name", e->load.name}, {"trade", e->trade}, {"line", typed_text(Plan{}, e->load)}});
        out["source"] = "typical values, check the plate; common practice, no source";
        out["assumptions"] = assumptions_json({});
        print(out);
        return found.empty() ? 1 : 0;
    }
    std::string trade;
    for (const LoadEntry* e : found) {
        if (e->trade != trade) fmt::print("{}\n", trade = e->trade);
        fmt::print("  {}\n", typed_text(Plan{}, e->load));
    }
    if (found.empty()) tell("Nothing in the library matches that.\n");
    return found.empty() ? 1 : 0;
}

CLI::App* add_command(CLI::App& app, Action& action, const char* name, const char* text, bool plan,
                      const std::shared_ptr<ControlOptions>& o, int (*run)(const ControlOptions&)) {
    CLI::App* c = app.add_subcommand(name, text);
    if (plan) {
        c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
        add_variant_option(*c, o->variant);
        add_seconds_option(*c);
    }
    c->add_flag("--json", o->json, words::translated("JSON"));
    c->callback([o, run, &action] { action = [o, run] { return run(*o); }; });
    return c;
}

}  // namespace

void add_control(CLI::App& app, Action& action) {
    const auto assign_options = std::make_shared<ControlOptions>();
    CLI::App* assign = add_command(app, action, "assign", "Loads given to channels and feeds, least copper",
                                   true, assign_options, run_assign);
    assign->add_flag("--joined", assign_options->joined,
                     words::translated("two solid-state channels may be joined for one load"));
    assign->add_option("-o,--output", assign_options->output,
                       words::translated("write the plan with its channels given out"));
    assign->add_flag("--force", assign_options->force, words::translated("write over an existing file"));
    add_command(app, action, "sneak", "Loads alive or dead against the plan in any combination", true,
                std::make_shared<ControlOptions>(), run_sneak);
    add_command(app, action, "rails", "Loads grouped by when they are live", true,
                std::make_shared<ControlOptions>(), run_rails);
    const auto library_options = std::make_shared<ControlOptions>();
    CLI::App* library = add_command(app, action, "library", "Typical accessories by name or trade", false,
                                    library_options, run_library);
    library->add_option("WORDS", library_options->words,
                        words::translated("part of a name, another word for it, or a trade"));
}

}  // namespace yr::cli
