#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "files/text_file.h"
#include "io/loads_csv.h"
#include "io/place_svg.h"
#include "io/spice.h"
#include "notes/notes.h"
#include "notes/plan_text.h"
#include "plan/plan_json.h"
#include "plan/roles.h"
#include "plan/schema.h"
#include "words/sentences.h"
#include "words/statement_words.h"

namespace yr::cli {
namespace {

struct PlanOptions {
    std::string plan, out, name = "New vehicle", state, variant, view;
    int vehicles = 1, sheet = 1;
    bool json = false, force = false;
};

int write_plan(const Plan& plan, const PlanOptions& o) {
    if (const int code = write_out(o.out, to_json_text(plan), o.force)) return code;
    if (o.json)
        print({{"written", o.out},
               {"version", kPlanVersion},
               {"assumptions", Json::array()},
               {"source", "docs/plan.schema.json"}});
    else
        tell("{0} written.\n", o.out);
    return 0;
}

int run_new(const PlanOptions& o) {
    return write_plan(empty_plan(o.name), o);
}

// Every line with what it became; those that are not wholly understood on standard error, with their number.
int run_type(const PlanOptions& o) {
    const auto text = read_text_file(o.plan);
    if (!text) return refuse(text.error());
    const Notes notes = read_notes(*text, &shipped_library());
    long number = 0;
    Json lines = Json::array(), kept = Json::array();
    std::string told;
    for (const NoteLine& line : notes.lines) {
        ++number;
        if (!line.statement.note.empty()) {
            kept.push_back({{"line", number}, {"note", line.statement.note}});
            told += words::say("line {0}: kept as a note: {1}", number, line.statement.note) + "\n";
        }
        if (!line.bad()) continue;
        std::string why;
        if (line.statement.error) why = words::sentence(*line.statement.error);
        if (line.statement.doubt)
            why = words::say("{0}: is it {1} or {2}?", line.statement.doubt->text,
                             line.statement.doubt->large, line.statement.doubt->small);
        for (const std::string& word : line.statement.not_understood)
            why += (why.empty() ? "" : " ") + words::say("“{0}” is not understood.", word);
        lines.push_back({{"line", number}, {"text", line.text}, {"problem", why}});
        fmt::print(stderr, "{}\n", words::say("line {0}: {1}: {2}", number, line.text, why));
    }
    if (notes.things) fmt::print(stderr, "{}\n", words::sentence(*notes.things));
    if (const int code = write_out(o.out, to_json_text(notes.plan), o.force)) return code;
    if (o.json)
        print({{"written", o.out},
               {"lines", number},
               {"not_understood", lines},
               {"kept_as_notes", kept},
               {"added_states", notes.added_states},
               {"given_switches", notes.given_switches},
               {"source", "docs/guide"},
               {"assumptions", Json::array()}});
    else if (o.out != "-")
        tell("{0}{1} written: {2} loads, {3} runs.\n", told, o.out, notes.plan.loads.size(),
             notes.plan.runs.size());
    if (!o.json && o.out != "-")
        for (const std::string& added : words::added_to_page(notes)) tell("{0}\n", added);
    return notes.bad() > 0 ? 1 : 0;
}

int run_notes(const PlanOptions& o) {
    const auto plan = load_plan(o.plan);
    if (!plan) return refuse(plan.error());
    return write_out(o.out, plan_text(*plan), o.force);
}

int run_convert(const PlanOptions& o) {
    const auto plan = load_plan(o.plan);
    if (!plan) return refuse(plan.error());
    return write_plan(*plan, o);
}

int run_validate(const PlanOptions& o) {
    const auto plan = load_plan(o.plan);
    if (!plan) {
        if (o.json)
            print(
                {{"valid", false}, {"error", words::sentence(plan.error())}, {"place", plan.error().place}});
        return refuse(plan.error());
    }
    if (o.json)
        print({{"valid", true},
               {"version", kPlanVersion},
               {"loads", plan->loads.size()},
               {"runs", plan->runs.size()},
               {"source", "docs/plan.schema.json"},
               {"assumptions", Json::array()}});
    else
        tell("{0}: a whole plan with {1} loads, {2} runs and {3} states.\n", o.plan, plan->loads.size(),
             plan->runs.size(), plan->states.size());
    return 0;
}

int run_spice(const PlanOptions& o) {
    const auto plan = load_shown(o.plan, o.variant);
    if (!plan) return refuse(plan.error());
    const State* state = o.state.empty() ? &opening_state(*plan) : find_state(*plan, o.state);
    if (!state)
        return refuse(
            {ErrorCode::unknown_name, "--state", o.state, Want::the_name_of_one_of_the_plan_s_states});
    const std::string deck =
        spice_netlist(*plan, solve(*plan, *state), plan->vehicle.name + ", " + state->name);
    if (const int code = write_out(o.out, deck, o.force)) return code;
    if (o.json && o.out != "-")
        print({{"written", o.out},
               {"state", state->name},
               {"source", "the solved operating point"},
               {"assumptions", Json::array()}});
    return 0;
}

int run_svg(const PlanOptions& o) {
    const auto plan = load_shown(o.plan, o.variant);
    if (!plan) return refuse(plan.error());
    const State* state = o.state.empty() ? &opening_state(*plan) : find_state(*plan, o.state);
    if (!state)
        return refuse(
            {ErrorCode::unknown_name, "--state", o.state, Want::the_name_of_one_of_the_plan_s_states});
    if (const int code = write_out(o.out, place_svg(*plan, route_all(*plan), *state), o.force)) return code;
    if (o.json && o.out != "-") print({{"written", o.out}, {"view", o.view}, {"state", state->name}});
    return 0;
}

int run_csv(const PlanOptions& o) {
    const auto plan = load_shown(o.plan, o.variant);
    if (!plan) return refuse(plan.error());
    const std::string text = loads_csv(*plan);
    if (const int code = write_out(o.out, text, o.force)) return code;
    if (o.json && o.out != "-")
        print({{"written", o.out},
               {"loads", plan->loads.size()},
               {"source", "the plan"},
               {"assumptions", Json::array()}});
    return 0;
}

}  // namespace

void add_plan(CLI::App& app, Action& action) {
    auto o = std::make_shared<PlanOptions>();
    CLI::App* plan =
        app.add_subcommand("plan", words::translated("Make, check and bring up to date plan files"));
    plan->require_subcommand(1);
    const auto common = [o](CLI::App* c) { c->add_flag("--json", o->json, words::translated("JSON")); };

    CLI::App* c =
        plan->add_subcommand("new", words::translated("A plan with a battery, a bus and the usual states"));
    c->add_option("FILE", o->out, words::translated("file to write"))->required();
    c->add_option("--name", o->name, words::translated("the vehicle's name"));
    c->add_flag("--force", o->force, words::translated("write over an existing file"));
    common(c);
    c->callback([o, &action] { action = [o] { return run_new(*o); }; });

    c = plan->add_subcommand(
        "validate", words::translated("Whether a file is a whole plan; exit 2 and the place if it is not"));
    c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
    common(c);
    c->callback([o, &action] { action = [o] { return run_validate(*o); }; });

    c = plan->add_subcommand("convert",
                             words::translated("Read a plan of any version and write it in the present one"));
    c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
    c->add_option("-o,--output", o->out, words::translated("file to write"))->required();
    c->add_flag("--force", o->force, words::translated("write over an existing file"));
    common(c);
    c->callback([o, &action] { action = [o] { return run_convert(*o); }; });

    c = plan->add_subcommand("type",
                             words::translated("A page of typed lines as a plan; exit 1 if a line is not "
                                               "wholly understood"));
    c->add_option("NOTES", o->plan, words::translated("file of lines, one thing a line"))->required();
    c->add_option("-o,--output", o->out, words::translated("plan file to write, - for standard output"))
        ->required();
    c->add_flag("--force", o->force, words::translated("write over an existing file"));
    common(c);
    c->callback([o, &action] { action = [o] { return run_type(*o); }; });

    c = plan->add_subcommand("notes",
                             words::translated("A plan as lines, one a thing, to mail, print and compare"));
    c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
    c->add_option("-o,--output", o->out, words::translated("file to write, - for standard output"))
        ->default_str("-");
    c->add_flag("--force", o->force, words::translated("write over an existing file"));
    c->callback([o, &action] {
        if (o->out.empty()) o->out = "-";
        action = [o] { return run_notes(*o); };
    });

    c = plan->add_subcommand("schema", words::translated("The JSON Schema of plan files"));
    c->callback([&action] { action = [] { return fmt::print("{}", plan_schema_text()), 0; }; });
    c = plan->add_subcommand("fields",
                             words::translated("Every field of plan files, as a table in Markdown"));
    c->callback([&action] { action = [] { return fmt::print("{}", plan_fields_table()), 0; }; });

    CLI::App* exports = app.add_subcommand("export", words::translated("The circuit in another format"));
    exports->require_subcommand(1);
    c = exports->add_subcommand("spice", words::translated("SPICE netlist of one state"));
    c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
    c->add_option("-o,--output", o->out, words::translated("file to write, - for standard output"))
        ->required();
    c->add_option("--state", o->state,
                  words::translated("name of the state; Idling, or the first, if left out"));
    c->add_flag("--force", o->force, words::translated("write over an existing file"));
    add_variant_option(*c, o->variant);
    common(c);
    c->callback([o, &action] { action = [o] { return run_spice(*o); }; });
    c = exports->add_subcommand("svg", words::translated("A view as a drawing"));
    c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
    c->add_option("--view", o->view, words::translated("which: place, diagram"))
        ->check(CLI::IsMember({"place", "diagram"}))
        ->required();
    c->add_option("--sheet", o->sheet, words::translated("of the diagram, from 1"));
    c->add_option("-o,--output", o->out, words::translated("file to write, - for standard output"))
        ->required();
    c->add_option("--state", o->state,
                  words::translated("name of the state; Idling, or the first, if left out"));
    c->add_flag("--force", o->force, words::translated("write over an existing file"));
    add_variant_option(*c, o->variant);
    common(c);
    c->callback([o, &action] {
        action = [o] {
            return o->view == "diagram" ? export_diagram(o->plan, o->variant, o->out, o->sheet, o->force)
                                        : run_svg(*o);
        };
    });
    c = exports->add_subcommand("xlsx",
                                words::translated("Parts, wires and cuts as a workbook for spreadsheets"));
    c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
    c->add_option("-o,--output", o->out, words::translated("file to write"))->required();
    c->add_option("--vehicles", o->vehicles, words::translated("so many vehicles alike"))
        ->check(CLI::Range(1, 1000));
    c->add_flag("--force", o->force, words::translated("write over an existing file"));
    add_variant_option(*c, o->variant);
    c->callback([o, &action] {
        action = [o] { return export_build(o->plan, o->variant, o->out, o->vehicles, o->force); };
    });
    c = exports->add_subcommand("csv", words::translated("The loads as a table"));
    c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
    c->add_option("-o,--output", o->out, words::translated("file to write, - for standard output"))
        ->required();
    c->add_flag("--force", o->force, words::translated("write over an existing file"));
    add_variant_option(*c, o->variant);
    common(c);
    c->callback([o, &action] { action = [o] { return run_csv(*o); }; });
}

}  // namespace yr::cli
