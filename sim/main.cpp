// bench-meter: the stand-in by hand.
#include <QCoreApplication>
#include <cstdio>

#include "plan/plan_json.h"
#include "plan/variant.h"
#include "routes/lay.h"
#include "sim/bench_meter.h"
#include "sim/options.h"
#include "words/sentences.h"

int main(int argc, char** argv) {
    QCoreApplication qt(argc, argv);
    const QStringList faults{"open_circuit", "bad_ground", "wrong_size", "two_at_once", "with_heat"};
    yr::sim::Options options(
        "bench-meter: answers SCPI on the loopback for a hidden vehicle; docs/bench-meter.md");
    options.add({"plan"}, "read this plan; left out: a made-up vehicle", "file");
    options.add({"vehicle"}, "which made-up vehicle", "number");
    options.add({"port"}, "TCP port on 127.0.0.1; 0 takes a free one", "number");
    options.add({"noise"}, "standard deviation of a reading, V", "volts");
    options.add({"lead"}, "resistance of the leads, ohm", "ohm");
    options.add({"fault"}, "a fault hidden in the plan: " + faults.join(", "), "kind");
    options.add({"seed"}, "which fault, and the noise", "number");
    if (const auto ended = options.read(0)) return *ended;
    unsigned port = 5025;
    std::uint32_t vehicle = 1;
    yr::sim::MeterSettings settings;
    if (!options.number("port", port, 0, 65535) || !options.number("vehicle", vehicle, 0, 4e9) ||
        !options.number("noise", settings.noise_V, 0, 1) ||
        !options.number("lead", settings.lead_ohm, 0, 100) || !options.number("seed", settings.seed, 0, 4e9))
        return 2;
    if (options.has("fault")) {
        const auto level = faults.indexOf(options.text("fault"));
        if (level < 0) return yr::sim::Options::refuse("--fault: one of " + faults.join(", ") + ".");
        settings.fault = static_cast<yr::PracticeLevel>(level);
    }
    const std::string plan_file = options.text("plan").toStdString();
    yr::Plan plan = yr::hidden_vehicle(vehicle).plan;
    if (!plan_file.empty()) {
        const auto loaded = yr::load_plan(plan_file);
        if (!loaded) {
            std::fprintf(stderr, "%s\n", yr::words::sentence(loaded.error()).c_str());
            return 2;
        }
        plan = yr::shown_plan(*loaded);
        yr::lay(plan);
    }
    for (const yr::SurveyPoint& p : plan.survey.points)
        std::printf("%s: %s\n", p.terminal.text().c_str(), p.name.c_str());
    yr::sim::BenchMeter meter(plan, settings);
    if (!meter.start(static_cast<quint16>(port))) {
        std::fprintf(stderr, "Port %u on 127.0.0.1 is taken.\n", port);
        return 2;
    }
    std::printf("listening on 127.0.0.1:%u\n", meter.serverPort());
    std::fflush(stdout);
    return QCoreApplication::exec();
}
