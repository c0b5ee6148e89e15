// battery-monitor: writes the log of a day as a battery monitor would, from a plan.
#include <QCoreApplication>
#include <cstdio>
#include <iostream>

#include "files/text_file.h"
#include "plan/plan_json.h"
#include "routes/lay.h"
#include "sim/battery_monitor.h"
#include "sim/options.h"
#include "words/sentences.h"

int main(int argc, char** argv) {
    QCoreApplication qt(argc, argv);
    yr::sim::Options options(
        "battery-monitor: the log of a day of a plan, as CSV, as a battery monitor would write it");
    options.positional("PLAN", "plan file");
    options.add({"day"}, "which day; the first of the plan if left out", "name");
    options.add({"seed"}, "what is hidden: a worn battery, a forgotten load, an error of its own; 0: nothing",
                "number");
    options.add({"every"}, "seconds between rows", "seconds");
    options.add({"o", "output"}, "file to write; standard output if left out", "file");
    options.add({"force"}, "write over what is there");
    options.add({"tell"}, "says on standard error what is hidden");
    if (const auto ended = options.read(1)) return *ended;
    unsigned seed = 0;
    double every_s = 300;
    if (!options.number("seed", seed, 0, 4e9) || !options.number("every", every_s, 1, 3600)) return 2;
    const std::string plan_file = options.first().toStdString(), day_name = options.text("day").toStdString(),
                      out = options.text("output").toStdString();
    const bool tell = options.has("tell"), force = options.has("force");
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
