#include <fmt/format.h>

#include <memory>
#include <set>

#include "commands.h"
#include "plan/names.h"
#include "plan/plan_json.h"
#include "plan/rail_volts.h"
#include "plan/roles.h"
#include "size/run_ladder.h"
#include "watch.h"
#include "words/sentences.h"

namespace yr::cli {
namespace {

struct SolveOptions {
    std::string plan, state, variant;
    bool all = false, json = false;
};

const char* status_word(LoadStatus s) {
    switch (s) {
        case LoadStatus::off:
            return "off";
        case LoadStatus::on:
            return "on";
        case LoadStatus::dead:
            return "dead";
        case LoadStatus::unsolved:
            return "unsolved";
        case LoadStatus::collapsed:
            return "collapsed";
    }
    return "";
}

const char* mode_word(DeviceMode m) {
    switch (m) {
        case DeviceMode::off:
            return "off";
        case DeviceMode::regulating:
            return "regulating";
        case DeviceMode::limited:
            return "limited";
        case DeviceMode::blocking:
            return "blocking";
    }
    return "";
}

Json state_json(const Plan& plan, const State& state, const Solution& s) {
    Json out;
    out["state"] = state.name;
    out["settled"] = s.point.settled;
    out["iterations"] = s.point.iterations;
    if (!s.point.settled) {
        out["message"] = words::no_answer(state);
        return out;
    }
    out["residuals"] = {{"node_A", s.point.residuals.node_A},
                        {"energy_W", s.point.residuals.energy_W},
                        {"good", s.point.residuals.good()}};
    for (std::size_t k = 0; k < plan.sources.size(); ++k) {
        const SourceResult& r = s.point.sources[k];
        out["sources"].push_back({{"id", plan.sources[k].id},
                                  {"name", plan.sources[k].name},
                                  {"mode", mode_word(r.mode)},
                                  {"voltage_V", r.voltage_V},
                                  {"current_A", r.current_A},
                                  {"limit_A", r.limit_A},
                                  {"input_A", r.input_A},
                                  {"shaft_W", r.shaft_W}});
    }
    for (std::size_t k = 0; k < plan.batteries.size(); ++k) {
        const BatteryResult& r = s.point.batteries[k];
        out["batteries"].push_back({{"id", plan.batteries[k].id},
                                    {"name", plan.batteries[k].name},
                                    {"voltage_V", r.voltage_V},
                                    {"current_A", r.current_A},
                                    {"charging", r.current_A < 0}});
    }
    for (std::size_t k = 0; k < plan.inverters.size(); ++k) {
        const LoadResult& r = s.point.loads[s.network.plan_loads + k];
        out["inverters"].push_back({{"id", plan.inverters[k].id},
                                    {"name", plan.inverters[k].name},
                                    {"status", status_word(r.status)},
                                    {"voltage_V", r.voltage_V},
                                    {"current_A", r.current_A},
                                    {"input_W", r.power_W},
                                    {"mains_W", inverter_ac_W(plan, plan.inverters[k], state)}});
    }
    for (std::size_t k = 0; k < s.memories.size(); ++k)
        out["relays"].push_back({{"id", s.network.memories[k].id},
                                 {"name", name_of(plan, s.network.memories[k].id)},
                                 {"closed", s.memories[k].closed},
                                 {"sensed_V", s.memories[k].sensed_V},
                                 {"close_V", s.network.memories[k].close_V},
                                 {"open_V", s.network.memories[k].open_V},
                                 {"chatters", s.memories[k].chatters}});
    out["loads"] = Json::array();
    for (std::size_t k = 0; k < plan.loads.size(); ++k) {
        const LoadResult& r = s.point.loads[k];
        out["loads"].push_back({{"id", plan.loads[k].id},
                                {"name", plan.loads[k].name},
                                {"status", status_word(r.status)},
                                {"voltage_V", r.voltage_V},
                                {"current_A", r.current_A},
                                {"power_W", r.power_W},
                                {"drop_V", r.drop_V},
                                {"drop_limit_V", drop_limit_V(plan, plan.loads[k])}});
    }
    out["runs"] = Json::array();
    for (std::size_t k = 0; k < plan.runs.size(); ++k) {
        const ConductorResult& r = s.point.conductors[k];
        const ConductorElement& e = s.network.conductors[k];
        Json run = {{"id", plan.runs[k].id}, {"name", plan.runs[k].name},
                    {"closed", e.closed},    {"current_A", r.current_A},
                    {"drop_V", r.drop_V},    {"resistance_ohm", e.fixed_ohm + r.cable_ohm}};
        if (e.cable20_ohm > 0) run["temperature_C"] = r.temperature_C;
        if (const auto a = run_ampacity(plan, plan.runs[k], state)) run["ampacity_A"] = a->allowed_A;
        out["runs"].push_back(std::move(run));
    }
    Json nodes = Json::object();
    for (std::size_t k = 0; k < s.network.nodes.size(); ++k)
        nodes[s.network.nodes[k].text()] = s.point.node_V[k];
    out["nodes_V"] = std::move(nodes);
    return out;
}

std::vector<std::string> assumption_lines(const Plan& plan, const Solution& s) {
    std::vector<std::string> lines;
    std::set<std::string> seen;
    const NameIndex names(plan);
    for (const AssumptionUse& use : s.network.assumptions) {
        std::string line = words::assumption_text(use, names.of(use.id));
        if (seen.insert(line).second) lines.push_back(std::move(line));
    }
    return lines;
}

void print_state(const Plan& plan, const State& state, const Solution& s) {
    const auto A = [](double v) { return words::quantity(v, Dimension::current); };
    const auto V = [](double v) { return words::quantity(v, Dimension::voltage); };
    fmt::print("{}\n", state.name);
    if (!s.point.settled) {
        fmt::print("  {}\n\n", words::no_answer(state));
        return;
    }
    std::vector<std::vector<std::string>> rows;
    for (std::size_t k = 0; k < plan.sources.size(); ++k) {
        const SourceResult& r = s.point.sources[k];
        rows.push_back(
            {plan.sources[k].name, A(r.current_A), "of " + A(r.limit_A), V(r.voltage_V), mode_word(r.mode)});
    }
    for (std::size_t k = 0; k < plan.batteries.size(); ++k) {
        const BatteryResult& r = s.point.batteries[k];
        rows.push_back({plan.batteries[k].name, A(r.current_A), "", V(r.voltage_V),
                        r.current_A < 0 ? "charging" : "gives"});
    }
    for (std::size_t k = 0; k < plan.loads.size(); ++k) {
        const LoadResult& r = s.point.loads[k];
        if (r.status == LoadStatus::off) continue;
        if (r.status != LoadStatus::on)
            rows.push_back({plan.loads[k].name, status_word(r.status)});
        else if (s.network.loads[k].inverter >= 0)
            rows.push_back(
                {plan.loads[k].name, words::quantity(r.power_W, Dimension::power), V(r.voltage_V), "mains"});
        else
            rows.push_back(
                {plan.loads[k].name, A(r.current_A), V(r.voltage_V),
                 "drop " + words::quantity(r.drop_V / rail_V(plan, plan.loads[k]), Dimension::fraction),
                 "of " + words::quantity(drop_limit_V(plan, plan.loads[k]) / rail_V(plan, plan.loads[k]),
                                         Dimension::fraction)});
    }
    for (std::size_t k = 0; k < plan.inverters.size(); ++k) {
        const LoadResult& r = s.point.loads[s.network.plan_loads + k];
        if (r.status == LoadStatus::off) continue;
        rows.push_back({plan.inverters[k].name, A(r.current_A), V(r.voltage_V), status_word(r.status)});
    }
    for (std::size_t k = 0; k < s.memories.size(); ++k)
        rows.push_back({name_of(plan, s.network.memories[k].id),
                        s.memories[k].chatters ? "chatters"
                        : s.memories[k].closed ? "closed"
                                               : "open",
                        V(s.memories[k].sensed_V)});
    print_table(rows);
    tell("  currents agree to {:.1e} A, energy to {:.1e} W\n\n", s.point.residuals.node_A,
         s.point.residuals.energy_W);
}

int run_solve(const SolveOptions& o) {
    const auto plan = load_shown(o.plan, o.variant);
    if (!plan) return refuse(plan.error());
    std::vector<State> states;
    if (o.all) {
        states = plan->states;
    } else if (!o.state.empty()) {
        const State* s = find_state(*plan, o.state);
        if (!s)
            return refuse(
                {ErrorCode::unknown_name, "--state", o.state, Want::the_name_of_one_of_the_plan_s_states});
        states = {*s};
    } else {
        states = {opening_state(*plan)};
    }
    OperatingPointSolver solver;
    Json list = Json::array();
    std::vector<std::string> assumed;
    bool answered = true;
    for (const State& state : states) {
        const Solution s = solve(*plan, state, solver);
        answered = answered && s.point.settled;
        if (o.json) {
            assumed = assumption_lines(*plan, s);
            list.push_back(state_json(*plan, state, s));
        } else {
            print_state(*plan, state, s);
        }
    }
    if (!o.json) return answered ? 0 : 1;
    Json out;
    out["plan"] = plan->vehicle.name;
    out["nominal_V"] = plan->vehicle.nominal_V;
    if (o.all) {
        out["states"] = std::move(list);
    } else {
        for (const auto& [key, value] : list[0].items()) out[key] = value;
    }
    out["source"] = "Kirchhoff's laws; element laws and their sources in docs/method.md";
    out["assumptions"] = assumptions_json(assumed);
    print(out);
    return answered ? 0 : 1;
}

}  // namespace

void add_solve(CLI::App& app, Action& action) {
    auto o = std::make_shared<SolveOptions>();
    CLI::App* c = app.add_subcommand(
        "solve", words::translated("Voltages and currents of a plan in one state, or in all"));
    c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
    auto* state = c->add_option("--state", o->state,
                                words::translated("name of the state; Idling, or the first, if left out"));
    c->add_flag("--all-states", o->all, words::translated("every state of the plan"))->excludes(state);
    add_variant_option(*c, o->variant);
    add_seconds_option(*c);
    c->add_flag("--json", o->json, words::translated("JSON with SI units"));
    c->callback([o, &action] { action = [o] { return run_solve(*o); }; });
}

}  // namespace yr::cli
