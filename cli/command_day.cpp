// rail day, rail runtime: a plan in time.
#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "day/sky.h"
#include "plan/plan_json.h"
#include "units/text.h"
#include "watch.h"
#include "words/day_words.h"
#include "words/sentences.h"

namespace yr::cli {
namespace {

struct DayAsk {
    std::string plan, variant, day, csv;
    int days = 1;
    bool year = false, json = false, remedies = false, force = false;
};

const Day* chosen_day(const Plan& plan, const std::string& name) {
    for (const Day& d : plan.days)
        if (name.empty() || to_lower(d.name) == to_lower(name) || d.id == name) return &d;
    return nullptr;
}

std::string csv_of(const Plan& plan, const Day& day, const DayRun& run) {
    std::string out = "seconds,clock,state";
    for (const Battery& b : plan.batteries)
        out += fmt::format(",\"{0} charge\",\"{0} V\",\"{0} A\",\"{0} C\"", b.name);
    for (const Source& s : plan.sources) out += fmt::format(",\"{} A\"", s.name);
    out += "\n";
    for (const DayPoint& p : run.points) {
        out += fmt::format("{:.1f},{},\"{}\"", p.t_s, clock_text(day, p.t_s), plan.states[p.state].name);
        for (std::size_t k = 0; k < plan.batteries.size(); ++k)
            out += fmt::format(",{:.6f},{:.4f},{:.4f},{:.2f}", p.charge[k], p.battery_V[k], p.battery_A[k],
                               p.battery_C[k]);
        for (const double a : p.source_A) out += fmt::format(",{:.4f}", a);
        out += "\n";
    }
    return out;
}

Json json_of(const Plan& plan, const Day& day, const DayRun& run, const DayVerdicts& v,
             const DayAfterDay& after, const std::vector<words::DaySentence>& said,
             const std::vector<DayRemedy>& remedies) {
    Json out;
    out["plan"] = plan.vehicle.name;
    out["day"] = day.name;
    out["length_s"] = run.length_s;
    out["whole"] = run.whole;
    out["verdicts"] = Json::array();
    for (const auto& s : said) {
        Json one = {{"severity", s.severity}, {"text", s.text}};
        if (s.t_s >= 0) one["t_s"] = s.t_s, one["clock"] = clock_text(day, s.t_s);
        if (!s.about.empty()) one["about"] = s.about;
        out["verdicts"].push_back(one);
    }
    out["batteries"] = Json::array();
    for (const BatteryDay& b : v.batteries)
        out["batteries"].push_back({{"id", b.battery},
                                    {"least_charge", b.least_charge},
                                    {"least_charge_s", b.least_charge_s},
                                    {"least_V", b.least_V},
                                    {"begin", b.begin},
                                    {"end", b.end},
                                    {"given_Ah", b.given_Ah},
                                    {"taken_Ah", b.taken_Ah}});
    out["cranks"] = Json::array();
    for (const CrankPoint& c : v.cranks)
        out["cranks"].push_back({{"t_s", c.t_s},
                                 {"post_V", c.as_entered.post_V},
                                 {"least_V", c.as_entered.least_V},
                                 {"worn_post_V", c.worn.post_V}});
    out["returns"] = after.returns;
    out["days_run"] = after.days;
    out["no_start_on_day"] = after.no_start_on ? Json(*after.no_start_on) : Json(nullptr);
    out["remedies"] = Json::array();
    for (const DayRemedy& r : remedies)
        out["remedies"].push_back({{"does_it", r.does_it},
                                   {"text", words::sentence(r, plan)},
                                   {"about", r.about},
                                   {"value", r.value}});
    out["balance"] = {{"worst_Ah", run.balance.worst_Ah}, {"energy_W", run.balance.energy_W}};
    out["source"] = "implicit midpoint over the solved circuit; docs/method.md";
    return out;
}

int run_the_year(const DayAsk& ask, const Plan& plan, const Day& day) {
    const Year year = year_of(plan, day, watch().cancel(), [](double share) { watch().progress(share); });
    const auto said = words::year_sentences(plan, year);
    if (ask.json) {
        Json out = {{"plan", plan.vehicle.name}, {"day", day.name}};
        out["months"] = Json::array();
        for (const MonthVerdict& m : year.months)
            out["months"].push_back({{"coldest_C", m.coldest_C},
                                     {"hottest_C", m.hottest_C},
                                     {"sun_h", m.sun_h},
                                     {"lasts", m.lasts},
                                     {"dark_week_lasts", m.dark_week_lasts},
                                     {"least_charge", m.least_charge}});
        out["batteries"] = Json::array();
        for (std::size_t k = 0; k < year.lives.size(); ++k)
            out["batteries"].push_back({{"id", plan.batteries[k].id},
                                        {"full_cycles_a_year", year.lives[k].cycles},
                                        {"depth", year.lives[k].depth},
                                        {"least_years", year.lives[k].least_years},
                                        {"most_years", year.lives[k].most_years}});
        out["verdicts"] = Json::array();
        for (const auto& s : said) out["verdicts"].push_back(s.text);
        out["source"] = "docs/method.md";
        print(out);
    } else {
        std::vector<std::vector<std::string>> rows{{"", "coldest", "sun", "lowest", "lasts", "dark week"}};
        for (std::size_t m = 0; m < year.months.size(); ++m) {
            const MonthVerdict& v = year.months[m];
            rows.push_back({words::month_name(m), words::quantity(v.coldest_C, Dimension::temperature),
                            words::number(v.sun_h, 2) + " h",
                            words::quantity(v.least_charge, Dimension::fraction), v.lasts ? "✓" : "■",
                            v.dark_week_lasts ? "✓" : "▲"});
        }
        if (!year.months.empty()) print_table(rows);
        for (const auto& s : said)
            fmt::print("{}  {}\n", words::mark(static_cast<Severity>(s.severity)), s.text);
    }
    return year.months.size() == 12 ? 0 : 1;
}

int run_the_day(const DayAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const Day* day = chosen_day(*plan, ask.day);
    if (!day) return refuse({ErrorCode::missing_reference, "days", ask.day, Want::a_day_of_this_plan});
    if (ask.year) return run_the_year(ask, *plan, *day);
    DayOptions options;
    options.stop = watch().cancel();
    const DayRun run = run_day(*plan, *day, options);
    const DayVerdicts v = verdicts(*plan, *day, run);
    const DayAfterDay after = day_after_day(*plan, *day, std::max(ask.days, 14), options.stop);
    const auto said = words::day_sentences(*plan, *day, run, v, &after);
    std::vector<DayRemedy> remedies;
    if (ask.remedies) remedies = what_would_make_it_last(*plan, day->id, options.stop);
    if (!ask.csv.empty())
        if (const int code = write_out(ask.csv, csv_of(*plan, *day, run), ask.force)) return code;
    if (ask.json) {
        print(json_of(*plan, *day, run, v, after, said, remedies));
        return run.whole ? 0 : 1;
    }
    if (ask.csv == "-") return run.whole ? 0 : 1;
    tell("{0}, {1}, from {2}:\n", plan->vehicle.name, day->name, clock_text(*day, 0));
    for (const auto& s : said)
        fmt::print("  {}  {}\n", words::mark(static_cast<Severity>(s.severity)), s.text);
    if (v.standing_A > 0)
        if (const auto stop = stop_at(*plan, v.standing_A, v.standing_C))
            fmt::print("  ·  {}\n", words::sentence(*stop, *plan));
    if (ask.remedies && !remedies.empty()) {
        tell("What would make it last, each alone:\n");
        for (const DayRemedy& r : remedies)
            fmt::print("  {}  {}\n", r.does_it ? "✓" : "–", words::sentence(r, *plan));
    }
    return run.whole ? 0 : 1;
}

// ---- runtime

struct RuntimeAsk {
    std::string battery, load;
    bool json = false;
};

// "100 Ah LiFePO4", "1000 Wh": capacity and chemistry; of a store, what comes out of its sockets.
int run_runtime(const RuntimeAsk& ask) {
    double Ah = 0, Wh = 0, watts = 0;
    Chemistry chemistry = Chemistry::agm;
    std::string text;
    for (const std::string_view word : yr::split(ask.battery, ' ')) {
        const std::string w = to_lower(word);
        if (w == "lifepo4" || w == "lithium")
            chemistry = Chemistry::lifepo4;
        else if (w == "flooded")
            chemistry = Chemistry::flooded;
        else if (w == "gel")
            chemistry = Chemistry::gel;
        else if (w != "agm")
            text += (text.empty() ? "" : " ") + std::string(word);
    }
    if (to_lower(text).ends_with("wh")) {
        const auto v = parse_value(text.substr(0, text.size() - 2), Dimension::number);
        if (!v) return refuse("--battery", v.error());
        Wh = *v;
    } else {
        const auto v = parse_value(text, Dimension::charge);
        if (!v) return refuse("--battery", v.error());
        Ah = *v;
    }
    const auto draw = parse_quantity(ask.load, Dimension::power);
    if (!draw) return refuse("--load", draw.error());
    constexpr double volts = 12.4;
    watts = draw->dimension == Dimension::current ? draw->value * volts : draw->value;
    if (!(watts > 0) || !(Ah > 0 || Wh > 0))
        return refuse({ErrorCode::out_of_range, "--load", ask.load, Want::a_name_and_a_draw_above_0});
    double least_h = 0, most_h = 0;
    if (Wh > 0) {  // a store's converters leave 80 to 92 % (common practice)
        least_h = 0.80 * Wh / watts, most_h = 0.92 * Wh / watts;
    } else {
        const auto& c = chemistry_data(chemistry);
        const double amps = watts / volts;
        const Wells w = fit_wells(Ah, c.peukert, 0);
        const auto hours = [&](double share) {  // until that share of it is used
            double low = 0.01, high = 5000;
            for (int k = 0; k < 60; ++k) {
                const double h = std::sqrt(low * high);
                (capacity_at_Ah(w, h) * share / h > amps ? low : high) = h;
            }
            return low;
        };
        const bool lead = chemistry != Chemistry::lifepo4;
        least_h = hours(lead ? 0.5 : 0.8), most_h = hours(lead ? 0.8 : 0.95);
    }
    if (ask.json) {
        print({{"least_h", least_h}, {"most_h", most_h}, {"watts", watts}, {"source", "docs/method.md"}});
        return 0;
    }
    tell("{0} to {1}: {2} from {3}.\n", words::duration_h(least_h), words::duration_h(most_h),
         words::quantity(watts, Dimension::power), ask.battery);
    if (Wh > 0)
        tell("Its own converters take 8 to 20 %; through its mains outlet another tenth.\n");
    else
        tell(
            "Down to half and to a fifth for lead, to a fifth and nearly empty for lithium; a worn battery "
            "has less.\n");
    return 0;
}

}  // namespace

void add_day(CLI::App& app, Action& action) {
    auto o = std::make_shared<DayAsk>();
    CLI::App* c = app.add_subcommand(
        "day", words::translated("A day in time: does it last, and does the engine start"));
    c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
    c->add_option("--day", o->day, words::translated("which day; the first of the plan if left out"));
    c->add_option("--days", o->days, words::translated("most days in a row that are run"))
        ->check(CLI::Range(1, 1000));
    c->add_flag("--year", o->year, words::translated("twelve months, a dark week in each, cycles and years"));
    c->add_flag("--remedies", o->remedies, words::translated("what would make it last"));
    c->add_option("--csv", o->csv, words::translated("the course as a table, - for standard output"));
    c->add_flag("--force", o->force, words::translated("write over what is there"));
    add_variant_option(*c, o->variant);
    add_seconds_option(*c);
    c->add_flag("--json", o->json, words::translated("JSON"));
    c->callback([o, &action] { action = [o] { return run_the_day(*o); }; });

    auto r = std::make_shared<RuntimeAsk>();
    CLI::App* t = app.add_subcommand(
        "runtime", words::translated("How long a battery or store runs a load, as a range"));
    t->add_option("--battery", r->battery,
                  words::translated("\"100 Ah LiFePO4\", \"95 Ah AGM\", \"1000 Wh\""))
        ->required();
    t->add_option("--load", r->load, words::translated("\"45 W\", \"6 A\""))->required();
    t->add_flag("--json", r->json, words::translated("JSON"));
    t->callback([r, &action] { action = [r] { return run_runtime(*r); }; });
}

}  // namespace yr::cli
