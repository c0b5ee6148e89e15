#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <memory>
#include <set>
#include <tuple>

#include "commands.h"
#include "inspect/checked_sizing.h"
#include "plan/plan_json.h"
#include "watch.h"
#include "words/guard_words.h"

namespace yr::cli {
namespace {

using words::quantity;

const char* status_word(SizingStatus s) {
    switch (s) {
        case SizingStatus::least:
            return "least";
        case SizingStatus::best_found:
            return "best_found";
        case SizingStatus::impossible:
            return "impossible";
        case SizingStatus::stopped:
            return "stopped";
    }
    return "";
}

struct OptimiseOptions {
    std::string plan, variant, objective = "mass", states, out, price, next;
    double most_s = 60;
    bool keep_fuses = false, force = false, json = false;
};

std::vector<std::string> names_in(const std::string& text) {
    std::vector<std::string> parts;
    std::string part;
    for (const char c : text + ",") {
        if (c != ',') {
            part += c;
            continue;
        }
        while (!part.empty() && part.front() == ' ') part.erase(part.begin());
        while (!part.empty() && part.back() == ' ') part.pop_back();
        if (!part.empty()) parts.push_back(part);
        part.clear();
    }
    return parts;
}

Json totals_json(const SizingTotals& t) {
    return {{"mass_kg", t.mass_kg}, {"money", t.money}, {"sizes", t.sizes}};
}

Json sizing_json(const SizingResult& r, const Plan& plan, const SizingAsk& ask) {
    Json out = {{"status", status_word(r.status)},
                {"cost", r.cost},
                {"bound", r.bound},
                {"gap", r.gap()},
                {"rounds", r.rounds},
                {"cuts", r.cuts},
                {"before", totals_json(r.before)},
                {"after", totals_json(r.after)},
                {"summary", words::sentence(r, ask, plan)}};
    out["runs"] = Json::array();
    for (const SizedRun& s : r.runs) {
        Json run = {
            {"id", s.run}, {"name", name_of(plan, s.run)}, {"from", name_of(s.from)}, {"to", name_of(s.to)}};
        if (s.fuse_to_A > 0) run["fuse_from_A"] = s.fuse_from_A, run["fuse_to_A"] = s.fuse_to_A;
        run["binds"] = words::binds_text(s, plan);
        out["runs"].push_back(std::move(run));
    }
    out["left_out"] = Json::array();
    for (const Id& id : r.left_out) out["left_out"].push_back(name_of(plan, id));
    out["blockers"] = Json::array();
    for (const SizingBlocker& b : r.blockers) out["blockers"].push_back(words::sentence(b, plan));
    out["source"] =
        "0-1 program (GLPK, COIN-OR CBC), each choice solved as the real circuit; ampacity, drop and fuse "
        "rules as "
        "in `rail check`; then inspected whole";
    return out;
}

Result<NextSizes> next_sizes_of(const CheckedSizing& inspected, const Plan& plan, const SizedRun& run,
                                const OptimiseOptions& o) {
    SizingAsk again = inspected.asked;
    again.cancel = watch().cancel(), again.most_s = std::min(o.most_s, 10.0);
    return next_sizes(plan, again, run);
}

Json next_json(const NextSizes& n, const Plan& plan) {
    const auto size = [](const std::optional<WireSize>& s) { return s ? Json(name_of(*s)) : Json(nullptr); };
    const auto cost = [](const std::optional<double>& c) { return c ? Json(*c) : Json(nullptr); };
    return {{"run", name_of(plan, n.run)},          {"thinner", size(n.thinner)},
            {"thinner_cost", cost(n.thinner_cost)}, {"thicker", size(n.thicker)},
            {"thicker_cost", cost(n.thicker_cost)}, {"whole", n.whole}};
}

int run_optimise(const OptimiseOptions& o) {
    const auto plan = load_shown(o.plan, o.variant);
    if (!plan) return refuse(plan.error());
    SizingAsk ask;
    ask.most_s = o.most_s;
    ask.cancel = watch().cancel();
    ask.fuses = !o.keep_fuses;
    if (o.objective == "money")
        ask.goal = SizingGoal::money;
    else if (o.objective == "sizes")
        ask.goal = SizingGoal::sizes;
    else if (o.objective != "mass")
        return refuse({ErrorCode::unknown_name, "--objective", o.objective, Want::mass_money_or_sizes});
    ask.states = names_in(o.states);
    if (!o.price.empty()) {
        const Load* load = nullptr;
        for (const Load& l : plan->loads)
            if (l.id == o.price || l.name == o.price) load = &l;
        if (!load)
            return refuse({ErrorCode::missing_reference, "--price-of", o.price, Want::a_load_of_this_plan});
        const auto curve = price_of_volts(*plan, ask, load->id);
        if (!curve) return refuse(curve.error());
        Json out = {{"load", load->name}, {"objective", o.objective}, {"points", Json::array()}};
        for (const PricePoint& p : *curve) {
            out["points"].push_back(
                {{"limit_V", p.limit_V}, {"cost", p.cost ? Json(*p.cost) : Json(nullptr)}});
            if (!o.json)
                tell("  {0} allowed: {1}\n", quantity(p.limit_V, Dimension::voltage),
                     p.cost ? words::cost_text(*p.cost, ask.goal) : std::string("no choice of sizes"));
        }
        if (o.json) print(out);
        return 0;
    }
    if (!o.next.empty() && o.next != "all" &&
        std::none_of(plan->runs.begin(), plan->runs.end(),
                     [&](const Run& r) { return r.id == o.next || r.name == o.next; }))
        return refuse({ErrorCode::missing_reference, "--next", o.next, Want::a_run_of_this_plan});
    const auto inspected = size_checked(*plan, ask);
    if (!inspected) return refuse("--" + inspected.error().place, inspected.error());
    const SizingResult* result = &inspected->sizing;
    const bool found = result->status == SizingStatus::least || result->status == SizingStatus::best_found;
    if (found && !o.out.empty())
        if (const int code = write_changed(o.plan, o.variant, result->edit, o.out, o.force)) return code;
    if (o.json) {
        Json out = sizing_json(*result, *plan, ask);
        out["given_up"] = Json::array();
        for (const SizingBlocker& b : inspected->given_up)
            out["given_up"].push_back(words::sentence(b, *plan));
        out["thickened"] = Json::array();
        for (const Id& id : inspected->thickened) out["thickened"].push_back(name_of(*plan, id));
        out["kept"] = Json::array();
        for (const Id& id : inspected->kept) out["kept"].push_back(name_of(*plan, id));
        out["against"] = Json::array();
        for (const Finding& f : inspected->against) out["against"].push_back(words::sentence(f, *plan));
        if (found && !o.next.empty()) {
            out["next"] = Json::array();
            for (const SizedRun& s : result->runs) {
                if (o.next != "all" && o.next != s.run && o.next != name_of(*plan, s.run)) continue;
                const auto next = next_sizes_of(*inspected, *plan, s, o);
                if (!next) return refuse(next.error());
                out["next"].push_back(next_json(*next, *plan));
            }
        }
        print(out);
        return found && inspected->given_up.empty() ? 0 : 1;
    }
    fmt::print("{}{}{}\n", words::given_up_text(*inspected, *plan), words::sentence(*result, ask, *plan),
               words::kept_text(*inspected, *plan));
    for (std::size_t k = 1; k < result->blockers.size(); ++k)
        fmt::print("{}\n", words::sentence(result->blockers[k], *plan));
    std::vector<std::vector<std::string>> rows;
    for (const SizedRun& s : result->runs)
        rows.push_back(
            {name_of(*plan, s.run), s.from == s.to ? "stays" : words::short_size(s.from), "\xE2\x86\x92",
             words::short_size(s.to),
             s.fuse_to_A > 0 && s.fuse_to_A != s.fuse_from_A
                 ? words::number(s.fuse_from_A) + " \xE2\x86\x92 " + quantity(s.fuse_to_A, Dimension::current)
                 : "",
             words::binds_text(s, *plan)});
    print_table(rows);
    if (found && !o.next.empty())
        for (const SizedRun& s : result->runs) {
            if (o.next != "all" && o.next != s.run && o.next != name_of(*plan, s.run)) continue;
            const auto next = next_sizes_of(*inspected, *plan, s, o);
            if (!next) return refuse(next.error());
            fmt::print("{}\n", words::sentence(*next, result->cost, ask.goal, *plan));
        }
    if (found)
        tell(
            "Copper {0} \xE2\x86\x92 {1} kg, money {2} \xE2\x86\x92 {3}, sizes {4} \xE2\x86\x92 {5}. Local "
            "codes, "
            "the vehicle "
            "maker and licensed practice come first.\n",
            words::number(result->before.mass_kg), words::number(result->after.mass_kg),
            words::number(result->before.money, 4), words::number(result->after.money, 4),
            result->before.sizes, result->after.sizes);
    return found && inspected->given_up.empty() ? 0 : 1;
}

int run_doubts(const OptimiseOptions& o) {
    const auto plan = load_shown(o.plan, o.variant);
    if (!plan) return refuse(plan.error());
    DoubtAsk ask;
    ask.cancel = watch().cancel();
    const Doubts doubts = doubts_of(*plan, ask);
    if (o.json) {
        const char* kinds[] = {"length", "bond", "draw", "battery_ohm", "regulated", "air"};
        Json out = {{"plan", plan->vehicle.name}, {"others", doubts.others}, {"whole", doubts.whole}};
        out["matter"] = Json::array();
        for (const Doubt& d : doubts.matter)
            out["matter"].push_back({{"kind", kinds[static_cast<std::size_t>(d.kind)]},
                                     {"thing", d.thing},
                                     {"with", d.with ? Json(*d.with) : Json(nullptr)},
                                     {"assumed", d.assumed},
                                     {"low", d.low},
                                     {"high", d.high},
                                     {"flips", d.flips.size()},
                                     {"low_kg", d.low_kg},
                                     {"high_kg", d.high_kg},
                                     {"what", words::sentence(d, *plan)}});
        print(out);
        return 0;
    }
    fmt::print("{}\n", words::sentence(doubts));
    for (const Doubt& d : doubts.matter) fmt::print("  {}\n", words::sentence(d, *plan));
    return 0;
}

Json short_json(const ShortRow& r, const FaultStudy& study, const Plan& plan) {
    const ShortPlace& place = study.places[r.place];
    Json out = {{"run", plan.runs[place.run].id},
                {"place", words::place_text(place, plan)},
                {"state", plan.states[r.state].name},
                {"short_ohm", r.ohm},
                {"most_A", r.most_A},
                {"least_A", r.least_A},
                {"clears", r.clears()},
                {"fastest_s", r.fastest_s < 1e8 ? Json(r.fastest_s) : Json(nullptr)},
                {"slowest_s", r.slowest.seconds ? Json(*r.slowest.seconds) : Json(nullptr)}};
    out["opens"] = Json::array();
    for (const Id& d : r.slowest.devices) out["opens"].push_back(name_of(plan, d));
    if (!r.near.empty()) {
        out["nearest"] = name_of(plan, r.near);
        out["nearest_A"] = r.near_A;
        out["interrupts_A"] = r.interrupts_A;
        out["interrupts"] = r.near_interrupts;
    }
    if (r.hottest) {
        out["hottest_run"] = plan.runs[r.hottest->run].name;
        out["reached_C"] = r.hottest->reached_C;
        out["allowed_C"] = r.hottest->allowed_C;
    }
    if (!r.first_up.empty()) out["upstream_first"] = name_of(plan, r.first_up);
    if (!r.management.empty()) out["management_first"] = name_of(plan, r.management);
    out["bus_V"] = r.bus_V;
    out["severity"] = words::name_of(words::severity_of(r));
    out["sentence"] = words::sentence(r, plan);
    return out;
}

// What matters first: by severity, what heats a cable most, what stays; each place once, in its worst state.
std::vector<const ShortRow*> worst_first(const std::vector<const ShortRow*>& rows) {
    const auto rank = [](const ShortRow& r) {
        const double heat = r.hottest ? r.hottest->reached_C / r.hottest->allowed_C : 0;
        return std::make_tuple(static_cast<int>(words::severity_of(r)), r.clears(), r.ohm > 0, -heat,
                               -r.near_A / std::max(r.interrupts_A, 1.0));
    };
    std::vector<const ShortRow*> sorted = rows;
    std::stable_sort(sorted.begin(), sorted.end(),
                     [&](const ShortRow* a, const ShortRow* b) { return rank(*a) < rank(*b); });
    std::set<std::size_t> told;
    std::erase_if(sorted, [&](const ShortRow* r) { return !told.insert(r->place).second; });
    return sorted;
}

void print_short(const ShortRow& r, const FaultStudy& study, const Plan& plan) {
    const std::string through =
        r.ohm > 0 ? " through " + quantity(r.ohm, Dimension::resistance) : std::string(" bolted");
    fmt::print("{} {}{}, {}: {}\n", words::mark(words::severity_of(r)),
               words::place_text(study.places[r.place], plan), through, plan.states[r.state].name,
               words::sentence(r, plan));
}

constexpr std::size_t kShortLines = 10;

int run_faults(const std::string& path, const std::string& variant, const std::string& state, bool all,
               bool json) {
    const auto plan = load_shown(path, variant);
    if (!plan) return refuse(plan.error());
    if (!state.empty() && !find_state(*plan, state))
        return refuse({ErrorCode::missing_reference, "--state", state, Want::a_state_of_this_plan});
    const auto solutions = solve_all(*plan);
    const FaultStudy study = study_faults(*plan, solutions, watch().cancel());
    const auto shown = [&](const ShortRow& r) {
        const State& s = plan->states[r.state];
        return state.empty() || s.id == state || s.name == state;
    };
    int worst = 0;
    Json rows = Json::array();
    std::size_t count = 0, good = 0;
    std::vector<const ShortRow*> matter;
    for (const ShortRow& r : study.rows) {
        if (!shown(r)) continue;
        ++count;
        const Severity severity = words::severity_of(r);
        good += severity == Severity::note;
        if (severity <= Severity::fix) worst = 1;
        if (json)
            rows.push_back(short_json(r, study, *plan));
        else if (all)
            print_short(r, study, *plan);
        else if (severity != Severity::note)
            matter.push_back(&r);
    }
    matter = worst_first(matter);
    for (std::size_t k = 0; k < std::min(matter.size(), kShortLines); ++k)
        print_short(*matter[k], study, *plan);
    if (matter.size() > kShortLines) {
        const auto more = static_cast<long>(matter.size() - kShortLines);
        fmt::print("{}\n", words::say_n("And {0} more place.", "And {0} more places.", more));
    }
    for (std::size_t k = 0; k < plan->states.size(); ++k) {
        if (solutions[k].point.settled || !(state.empty() || &plan->states[k] == find_state(*plan, state)))
            continue;
        worst = 1;
        if (!json) fmt::print("{} {}\n", words::mark(Severity::stop), words::no_answer(plan->states[k]));
    }
    if (json) {
        print({{"plan", plan->vehicle.name},
               {"rows", std::move(rows)},
               {"complete", !watch().stopped()},
               {"source",
                "circuit theory; ISO 8820 and SAE J553 bands, IEC 60364-5-54 temperatures (from memory)"},
               {"assumptions",
                {"most: new, warm, full batteries, copper at 0 C, no other load; least: batteries aged to "
                 "twice their "
                 "resistance, copper at its insulation's limit, other loads on",
                 "cable inductance is left out"}}});
        return worst;
    }
    tell(
        "{0} shorts looked at, {1} cleared by the right device in time.{2} Local codes, the vehicle maker "
        "and "
        "licensed "
        "practice come first.\n",
        count, good, all ? "" : words::translated(" --all shows every one."));
    return worst;
}

int run_start(const std::string& path, const std::string& variant, const std::string& state,
              const std::string& starts, double seconds, bool json) {
    const auto plan = load_shown(path, variant);
    if (!plan) return refuse(plan.error());
    const State* s = find_state(*plan, state);
    if (!s) return refuse({ErrorCode::missing_reference, "--state", state, Want::a_state_of_this_plan});
    StartAsk ask;
    ask.state = static_cast<std::size_t>(s - plan->states.data());
    ask.seconds = seconds;
    for (const std::string& name : names_in(starts)) {
        Id id = name;
        for (const Load& l : plan->loads)
            if (l.name == name) id = l.id;
        for (const Inverter& i : plan->inverters)
            if (i.name == name) id = i.id;
        ask.starts.push_back(id);
    }
    const auto study = study_start(*plan, ask, watch().cancel());
    if (!study) return refuse("--" + study.error().place, study.error());
    if (json) {
        Json out = {{"state", s->name},
                    {"finished", study->finished},
                    {"before_V", study->before_V},
                    {"least_bus_V", study->least_bus_V},
                    {"t_s", study->t_s},
                    {"bus_V", study->bus_V},
                    {"total_A", study->total_A}};
        out["fuses"] = Json::array();
        for (const FuseWarming& f : study->fuses)
            out["fuses"].push_back({{"fuse", name_of(*plan, f.device)},
                                    {"peak_A", f.peak_A},
                                    {"i2t_A2s", f.i2t_A2s},
                                    {"used", f.used}});
        out["events"] = Json::array();
        for (const StartEvent& e : study->events)
            out["events"].push_back({{"device", name_of(*plan, e.device)}, {"t_s", e.t_s}});
        out["summary"] = words::sentence(*study, *plan);
        print(out);
        return study->finished ? 0 : 1;
    }
    fmt::print("{}\n", words::sentence(*study, *plan));
    return study->finished ? 0 : 1;
}

}  // namespace

void add_guard(CLI::App& app, Action& action) {
    auto o = std::make_shared<OptimiseOptions>();
    CLI::App* c =
        app.add_subcommand("optimise", words::translated("All cables sized together to the proven least"));
    c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
    add_variant_option(*c, o->variant);
    c->add_option("--objective", o->objective, words::translated("mass, money or sizes; mass if left out"));
    c->add_option("--states", o->states,
                  words::translated("names with commas; all but cranking if left out"));
    c->add_option("-o,--out", o->out, words::translated("write the sized plan here"));
    c->add_flag("--force", o->force, words::translated("write over a file that is there"));
    c->add_flag("--keep-fuses", o->keep_fuses, words::translated("fuse ratings stay"));
    c->add_option("--next", o->next,
                  words::translated("what one size less or more of this cable would cost; all: of each"));
    c->add_option("--price-of", o->price,
                  words::translated("what each tenth of a volt less costs this load"));
    c->add_option("--seconds", o->most_s, words::translated("how long it may search; 60 if left out"))
        ->check(a_duration(1e6));
    c->add_flag("--json", o->json, words::translated("JSON"));
    c->callback([o, &action] { action = [o] { return run_optimise(*o); }; });

    auto d = std::make_shared<OptimiseOptions>();
    c = app.add_subcommand("doubts", words::translated("What to measure before anything is ordered"));
    c->add_option("PLAN", d->plan, words::translated("plan file"))->required();
    add_variant_option(*c, d->variant);
    add_seconds_option(*c);
    c->add_flag("--json", d->json, words::translated("JSON"));
    c->callback([d, &action] { action = [d] { return run_doubts(*d); }; });

    struct FaultOptions {
        std::string plan, variant, state, starts;
        double seconds = 3;
        bool all = false, json = false;
    };
    auto f = std::make_shared<FaultOptions>();
    c = app.add_subcommand(
        "faults",
        words::translated("A short at every far end and behind every fuse; exit 1 if any is a hazard"));
    c->add_option("PLAN", f->plan, words::translated("plan file"))->required();
    add_variant_option(*c, f->variant);
    add_seconds_option(*c);
    c->add_option("--state", f->state, words::translated("one state; all if left out"));
    c->add_flag("--all", f->all, words::translated("also those that are cleared well"));
    c->add_flag("--json", f->json, words::translated("JSON"));
    c->callback([f, &action] {
        action = [f] { return run_faults(f->plan, f->variant, f->state, f->all, f->json); };
    });

    auto s = std::make_shared<FaultOptions>();
    c = app.add_subcommand(
        "start", words::translated("The first seconds after switching on: dips, contactors, fuses"));
    c->add_option("PLAN", s->plan, words::translated("plan file"))->required();
    add_variant_option(*c, s->variant);
    c->add_option("--state", s->state, words::translated("in which state"))->required();
    c->add_option("--starts", s->starts,
                  words::translated("what comes on, names with commas; all that runs if left out"));
    c->add_option("--follow", s->seconds, words::translated("seconds that are followed; 3 if left out"))
        ->check(a_duration(600));
    add_seconds_option(*c);
    c->add_flag("--json", s->json, words::translated("JSON"));
    c->callback([s, &action] {
        action = [s] { return run_start(s->plan, s->variant, s->state, s->starts, s->seconds, s->json); };
    });
}

}  // namespace yr::cli
