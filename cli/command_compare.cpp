#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "inspect/compare.h"
#include "plan/plan_json.h"
#include "watch.h"
#include "words/format.h"

namespace yr::cli {
namespace {

Json option_json(const OptionResult& r) {
    Json out = {{"name", r.name}, {"id", r.variant}};
    const auto put = [&](const char* key, const std::optional<double>& v) {
        out[key] = v ? Json(*v) : Json(nullptr);
    };
    const auto put_deciding = [&](const char* key, const Deciding& d) {
        put(key, d.value);
        if (d.value) out["decided_by"][key] = d.state;
    };
    out["decided_by"] = Json::object();
    put_deciding("idle_balance_A", r.idle_A);
    put_deciding("drive_balance_A", r.drive_A);
    put_deciding("parked_hours_to_half", r.parked_h);
    put_deciding("cranking_V", r.cranking_V);
    out["copper_kg"] = r.copper_kg;
    out["added_copper_kg"] = r.added_copper_kg;
    put("added_cost", r.added_cost);
    out["no_answer_in"] = r.without;
    out["stop"] = r.stops;
    out["fix"] = r.fixes;
    return out;
}

int run_compare(const std::string& path, bool json) {
    const auto plan = load_plan(path);
    if (!plan) return refuse(plan.error());
    const auto options = compare_options(*plan);
    const bool answered =
        std::all_of(options.begin(), options.end(), [](const OptionResult& r) { return r.without.empty(); });
    if (json) {
        Json out;
        out["plan"] = plan->vehicle.name;
        out["options"] = Json::array();
        for (const OptionResult& r : options) out["options"].push_back(option_json(r));
        out["source"] = "each option solved in every state; docs/method.md";
        out["assumptions"] = Json::array();
        print(out);
        return answered ? 0 : 1;
    }
    const auto text = [](const Deciding& d, Dimension dimension) {
        return d.value ? words::quantity(*d.value, dimension) : std::string("–");
    };
    std::vector<std::vector<std::string>> rows{
        {"", "idling", "driving", "parked to half", "cranking", "copper", "cost", "stop", "fix"}};
    for (const OptionResult& r : options)
        rows.push_back({r.name, text(r.idle_A, Dimension::current), text(r.drive_A, Dimension::current),
                        r.parked_h.value ? words::duration_h(*r.parked_h.value) : "–",
                        text(r.cranking_V, Dimension::voltage), words::number(r.copper_kg) + " kg",
                        r.added_cost ? words::number(*r.added_cost, 4) : "–", std::to_string(r.stops),
                        std::to_string(r.fixes)});
    print_table(rows);
    for (const OptionResult& r : options)
        for (const std::string& state : r.without)
            tell("{0}: in state {1} the circuit has no answer, and nothing is told of it.\n", r.name, state);
    return answered ? 0 : 1;
}

}  // namespace

void add_compare(CLI::App& app, Action& action) {
    struct Options {
        std::string plan;
        bool json = false;
    };
    auto o = std::make_shared<Options>();
    CLI::App* c = app.add_subcommand(
        "compare", words::translated("The plan and its variants side by side on what decides between them"));
    c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
    add_seconds_option(*c);
    c->add_flag("--json", o->json, words::translated("JSON"));
    c->callback([o, &action] { action = [o] { return run_compare(o->plan, o->json); }; });
}

}  // namespace yr::cli
