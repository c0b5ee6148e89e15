#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <memory>
#include <thread>

#include "commands.h"
#include "inspect/days.h"
#include "inspect/places.h"
#include "plan/plan_json.h"
#include "watch.h"
#include "words/accepted.h"
#include "words/finding_rows.h"
#include "words/sentences.h"

namespace yr::cli {
namespace {

void print_finding(const Finding& f, const std::string& sentence, const Plan& plan) {
    const std::string mend = words::mend_label(f, plan);
    fmt::print("{} {:5}  {}  [{}]{}\n", words::mark(f.severity), words::name_of(f.severity), sentence,
               words::rule_of(f, plan).label, mend.empty() ? "" : "  mend: " + mend);
}

Json finding_json(const Finding& f, const Plan& plan) {
    const words::Rule rule = words::rule_of(f, plan);
    Json out = {{"severity", words::name_of(f.severity)},
                {"kind", words::row_of(f.kind).name},
                {"sentence", words::sentence(f, plan)},
                {"id", f.id},
                {"place", name_of(plan, f.id)}};
    if (!f.other.empty()) out["other"] = f.other;
    if (const State* s = find(plan.states, f.state)) out["state"] = s->name;
    out["value"] = f.value;
    if (f.limit > 0) out["limit"] = f.limit;
    if (const Day* day = find(plan.days, f.day)) {
        out["day"] = day->name;
        if (f.at_s >= 0) out["at_s"] = f.at_s;
    }
    if (f.hours) out["hours_to_half"] = *f.hours;
    out["rule"] = rule.label;
    out["source"] = rule.source;
    if (const Accepted* a = words::accepted(f, plan))
        out["accepted"] = {{"reason", a->reason}, {"who", a->who}, {"when", a->when}};
    if (f.mend) out["mend"] = words::mend_label(f, plan);
    if (const std::string help = words::would_help(f); !help.empty()) out["would_help"] = help;
    return out;
}

int run_check(const std::string& path, const std::string& variant, bool json, bool with_day_mends) {
    const auto plan = load_shown(path, variant);
    if (!plan) return refuse(plan.error());
    Inspection result = inspect_with_candidates(*plan);
    add_findings(result, place_findings(*plan, result.solutions));
    close_mends(*plan, result, watch().cancel());
    add_findings(result, day_findings(*plan, watch().cancel()));
    if (with_day_mends) mend_days(*plan, result.findings, watch().cancel());
    const auto count = [&](Severity s) { return words::count_of(s, result.findings, *plan); };
    const bool bad = count(Severity::stop) + count(Severity::fix) > 0;
    if (json) {
        Json out;
        out["plan"] = plan->vehicle.name;
        out["counts"] = {{"stop", count(Severity::stop)},
                         {"fix", count(Severity::fix)},
                         {"check", count(Severity::check)},
                         {"note", count(Severity::note)}};
        out["findings"] = Json::array();
        for (const Finding& f : result.findings) out["findings"].push_back(finding_json(f, *plan));
        std::vector<std::string> assumed;
        if (!result.solutions.empty())
            for (const AssumptionUse& use : result.solutions.front().network.assumptions) {
                std::string line = words::assumption_text(use, *plan);
                if (std::find(assumed.begin(), assumed.end(), line) == assumed.end())
                    assumed.push_back(std::move(line));
            }
        out["assumptions"] = assumptions_json(assumed);
        print(out);
        return bad ? 1 : 0;
    }
    std::size_t taken = 0;
    for (const words::FindingBunch& bunch : words::bunches(result.findings, *plan)) {
        if (bunch.accepted) {
            taken += bunch.which.size();
            continue;
        }
        const Finding& worst = result.findings[bunch.which.front()];
        if (words::row_of(worst.kind).group == words::FindingGroup::assumptions && bunch.which.size() > 1) {
            print_finding(worst, words::sentence(bunch, result.findings, *plan), *plan);
            continue;
        }
        for (const std::size_t k : bunch.which)
            print_finding(result.findings[k], words::sentence(result.findings[k], *plan), *plan);
    }
    if (taken > 0) tell("{0} accepted as they are:\n", taken);
    for (const Finding& f : result.findings)
        if (const Accepted* a = words::accepted(f, *plan))
            tell("  {0}  {1} Accepted: {2}\n", words::name_of(f.severity), words::sentence(f, *plan),
                 a->reason);
    tell(
        "{0} stop, {1} fix, {2} check, {3} note. Local codes, the vehicle maker and licensed practice come "
        "first.\n",
        count(Severity::stop), count(Severity::fix), count(Severity::check), count(Severity::note));
    return bad ? 1 : 0;
}

// Anew whenever the file is another one; a file that is gone or damaged for a moment is said and waited for.
int check_again_and_again(const std::string& path, const std::string& variant, bool json,
                          bool with_day_mends) {
    const auto stamp = [&] {
        std::error_code none;
        return std::filesystem::last_write_time(path, none);
    };
    const std::atomic<bool>* stop = watch().cancel();
    int code = 0;
    while (!*stop) {
        const auto seen = stamp();
        code = run_check(path, variant, json, with_day_mends);
        std::fflush(stdout);
        while (!*stop && stamp() == seen) std::this_thread::sleep_for(std::chrono::milliseconds(200));
    }
    return code;
}

}  // namespace

void add_check(CLI::App& app, Action& action) {
    struct Options {
        std::string plan, variant;
        bool json = false, keep_watching = false, day_mends = false;
    };
    auto o = std::make_shared<Options>();
    CLI::App* c = app.add_subcommand(
        "check", words::translated("Findings over all states; exit 1 if any is 'stop' or 'fix'"));
    c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
    add_variant_option(*c, o->variant);
    add_seconds_option(*c);
    c->add_flag("--json", o->json, words::translated("JSON"));
    c->add_flag("--day-mends", o->day_mends,
                words::translated("what would make its days last as well: seconds"));
    c->add_flag("--watch", o->keep_watching,
                words::translated("again each time the file changes, until Ctrl+C"));
    c->callback([o, &action] {
        action = [o] {
            return o->keep_watching ? check_again_and_again(o->plan, o->variant, o->json, o->day_mends)
                                    : run_check(o->plan, o->variant, o->json, o->day_mends);
        };
    });
}

}  // namespace yr::cli
