#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "plan/names.h"
#include "plan/plan_json.h"
#include "words/survey_words.h"

namespace yr::cli {
namespace {

int run_survey(const std::string& path, bool json) {
    const auto plan = load_plan(path);
    if (!plan) return refuse(plan.error());
    const SurveyProof proof = infer(plan->survey);
    const auto lines = words::conclusions(proof, plan->survey);
    if (json) {
        Json out;
        out["plan"] = plan->vehicle.name;
        out["conclusions"] = Json::array();
        for (const auto& line : lines)
            out["conclusions"].push_back({{"text", line.text}, {"settled", line.settled}});
        out["joins"] = Json::array();
        for (const JoinFact& f : proof.joins)
            out["joins"].push_back({{"a", f.a},
                                    {"b", f.b},
                                    {"key", enum_name(f.key)},
                                    {"verdict", words::name_of(f.verdict)},
                                    {"a_V", f.a_V},
                                    {"b_V", f.b_V},
                                    {"reason", words::reason(f, plan->survey)}});
        out["asks"] = Json::array();
        for (const SurveyAsk& ask : proof.asks)
            out["asks"].push_back(
                {{"point", ask.point}, {"key", enum_name(ask.key)}, {"drawn_at", ask.drawn_at}});
        out["source"] = "core/survey/infer.h, common practice";
        out["assumptions"] = Json::array();
        print(out);
        return 0;
    }
    if (plan->survey.points.empty()) tell("This plan holds no survey.\n");
    for (const auto& line : lines) fmt::print("{} {}\n", line.settled ? " " : "?", line.text);
    if (!proof.asks.empty()) tell("\nTo settle the rest:\n");
    for (const SurveyAsk& ask : proof.asks) fmt::print("  {}\n", words::sentence(ask, plan->survey));
    return 0;
}

}  // namespace

void add_survey(CLI::App& app, Action& action) {
    struct Options {
        std::string plan;
        bool json = false;
    };
    auto o = std::make_shared<Options>();
    CLI::App* c = app.add_subcommand(
        "survey", words::translated("What the readings of a plan's survey prove, and which to take next"));
    c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
    c->add_flag("--json", o->json, words::translated("JSON"));
    c->callback([o, &action] { action = [o] { return run_survey(o->plan, o->json); }; });
}

}  // namespace yr::cli
