#include <fmt/format.h>

#include <algorithm>
#include <memory>

#include "commands.h"
#include "inspect/findings.h"
#include "plan/plan_json.h"
#include "words/sentences.h"

namespace yr::cli {
namespace {

constexpr const char* kKindNames[] = {"drop_over_limit",
                                      "no_operating_point",
                                      "load_dead",
                                      "constant_on_key_rail",
                                      "cable_over_ampacity",
                                      "cable_over_temperature",
                                      "fuse_above_cable",
                                      "fuse_missing",
                                      "fuse_far",
                                      "supply_short",
                                      "battery_drains",
                                      "source_at_limit",
                                      "converter_dead",
                                      "return_thinner",
                                      "rests_on_assumption",
                                      "no_charge_left",
                                      "never_charged",
                                      "charged_too_high",
                                      "charged_too_cold",
                                      "battery_cranks",
                                      "shares_unequally",
                                      "will_not_crank",
                                      "cranks_for",
                                      "volts_outside",
                                      "inverter_over",
                                      "inverter_surge",
                                      "converter_surge",
                                      "modified_sine",
                                      "stays_charged",
                                      "interrupt_low",
                                      "start_up",
                                      "chatters",
                                      "stands_as_it_came",
                                      "alive_with_master_open",
                                      "relay_defeated",
                                      "channel_over",
                                      "channel_start",
                                      "group_over",
                                      "box_main_over",
                                      "forgets",
                                      "tap_over",
                                      "contact_over",
                                      "coil_kick",
                                      "load_alive",
                                      "key_on_constant",
                                      "signal_missing",
                                      "shares_ground",
                                      "parked_draw",
                                      "short_stays",
                                      "short_hurts",
                                      "short_upstream",
                                      "interrupt_short",
                                      "start_opens_fuse",
                                      "fuse_loaded",
                                      "fuse_kind_hot",
                                      "breaker_recloses",
                                      "parallel_shares",
                                      "parallel_left",
                                      "aluminium_core",
                                      "lug_misfit",
                                      "terminal_small",
                                      "bend_tight",
                                      "joint_drop",
                                      "cable_drop",
                                      "starter_drop",
                                      "strap_thin",
                                      "duty_hot",
                                      "management_first",
                                      "range_over"};
static_assert(std::size(kKindNames) == static_cast<std::size_t>(FindingKind::range_over) + 1);

Json finding_json(const Finding& f, const Plan& plan) {
    const words::Rule rule = words::rule_of(f, plan);
    Json out = {{"severity", words::name_of(f.severity)},
                {"kind", kKindNames[static_cast<int>(f.kind)]},
                {"sentence", words::sentence(f, plan)},
                {"id", f.id},
                {"place", name_of(plan, f.id)}};
    if (!f.other.empty()) out["other"] = f.other;
    if (const State* s = find(plan.states, f.state)) out["state"] = s->name;
    out["value"] = f.value;
    if (f.limit > 0) out["limit"] = f.limit;
    if (f.hours) out["hours_to_half"] = *f.hours;
    out["rule"] = rule.label;
    out["source"] = rule.source;
    if (f.mend) out["mend"] = words::mend_label(f, plan);
    return out;
}

int run_check(const std::string& path, const std::string& variant, bool json) {
    const auto plan = load_shown(path, variant);
    if (!plan) return refuse(plan.error());
    const Inspection result = inspect(*plan);
    const auto count = [&](Severity s) {
        return std::count_if(result.findings.begin(), result.findings.end(),
                             [&](const Finding& f) { return f.severity == s; });
    };
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
    for (const Finding& f : result.findings) {
        const std::string mend = words::mend_label(f, *plan);
        fmt::print("{} {:5}  {}  [{}]{}\n", words::mark(f.severity), words::name_of(f.severity),
                   words::sentence(f, *plan), words::rule_of(f, *plan).label,
                   mend.empty() ? "" : "  mend: " + mend);
    }
    tell(
        "{0} stop, {1} fix, {2} check, {3} note. Local codes, the vehicle maker and licensed practice come "
        "first.\n",
        count(Severity::stop), count(Severity::fix), count(Severity::check), count(Severity::note));
    return bad ? 1 : 0;
}

}  // namespace

void add_check(CLI::App& app, Action& action) {
    struct Options {
        std::string plan, variant;
        bool json = false;
    };
    auto o = std::make_shared<Options>();
    CLI::App* c = app.add_subcommand(
        "check", words::translated("Findings over all states; exit 1 if any is 'stop' or 'fix'"));
    c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
    add_variant_option(*c, o->variant);
    c->add_flag("--json", o->json, words::translated("JSON"));
    c->callback([o, &action] { action = [o] { return run_check(o->plan, o->variant, o->json); }; });
}

}  // namespace yr::cli
