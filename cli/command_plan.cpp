#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "io/loads_csv.h"
#include "io/spice.h"
#include "plan/plan_json.h"
#include "plan/roles.h"
#include "plan/schema.h"
#include "words/sentences.h"

namespace yr::cli {
namespace {

struct Options {
    std::string plan, out, name = "New vehicle", state, variant;
    bool json = false, force = false;
};

int write_plan(const Plan& plan, const Options& o) {
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

int run_new(const Options& o) {
    return write_plan(empty_plan(o.name), o);
}

int run_convert(const Options& o) {
    const auto plan = load_plan(o.plan);
    if (!plan) return refuse(plan.error());
    return write_plan(*plan, o);
}

int run_validate(const Options& o) {
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

int run_spice(const Options& o) {
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

int run_csv(const Options& o) {
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
    auto o = std::make_shared<Options>();
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
