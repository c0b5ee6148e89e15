// battery-monitor: writes the log of a day as a battery monitor would, from a plan.
#include <CLI/CLI.hpp>
#include <cstdio>
#include <iostream>

#include "files/text_file.h"
#include "plan/plan_json.h"
#include "routes/lay.h"
#include "sim/battery_monitor.h"
#include "words/sentences.h"

int main(int argc, char** argv) {
    CLI::App app{"A simulated battery monitor: the log of a day of a plan, as CSV"};
    std::string plan_file, day_name, out;
    unsigned seed = 0;
    double every_s = 300;
    bool tell = false, force = false;
    app.add_option("PLAN", plan_file, "plan file")->required();
    app.add_option("--day", day_name, "which day; the first of the plan if left out");
    app.add_option("--seed", seed,
                   "what is hidden: a worn battery, a forgotten load, an error of its own; 0: nothing");
    app.add_option("--every", every_s, "seconds between rows")->check(CLI::Range(1.0, 3600.0));
    app.add_option("-o,--output", out, "file to write; standard output if left out");
    app.add_flag("--force", force, "write over what is there");
    app.add_flag("--tell", tell, "says on standard error what is hidden");
    CLI11_PARSE(app, argc, argv);
    const auto refuse = [](const yr::Error& e) {
        std::cerr << yr::words::sentence(e) << "\n";
        return 2;
    };
    auto plan = yr::load_plan(plan_file);
    if (!plan) return refuse(plan.error());
    yr::lay(*plan);
    const yr::Day* day = nullptr;
    for (const yr::Day& d : plan->days)
        if (!day && (day_name.empty() || d.name == day_name || d.id == day_name)) day = &d;
    if (!day)
        return refuse({yr::ErrorCode::missing_reference, "days", day_name, yr::Want::a_day_of_this_plan});
    const yr::HiddenInTheDay hidden = yr::hidden_of(seed);
    const auto log = yr::monitor_log(*plan, *day, hidden, every_s, seed);
    if (!log) return refuse(log.error());
    if (tell)
        std::fprintf(stderr, "health %.2f, forgotten %.2f A, monitor off by %.0f mV\n", hidden.health,
                     hidden.forgotten_A, 1000 * hidden.volts_off_V);
    if (out.empty()) {
        std::cout << *log;
        return std::cout.flush() ? 0 : 1;
    }
    if (const auto written = yr::write_text_file(out, *log, force ? yr::Overwrite::yes : yr::Overwrite::no);
        !written)
        return refuse(written.error());
    return 0;
}
