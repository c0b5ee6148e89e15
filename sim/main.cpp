// bench-meter: the stand-in by hand.
#include <CLI/CLI.hpp>
#include <QCoreApplication>
#include <cstdio>

#include "plan/plan_json.h"
#include "plan/variant.h"
#include "routes/lay.h"
#include "sim/bench_meter.h"
#include "words/sentences.h"

int main(int argc, char** argv) {
    QCoreApplication qt(argc, argv);
    CLI::App app{"bench-meter: answers SCPI on the loopback for a hidden vehicle; docs/bench-meter.md"};
    std::string plan_file;
    unsigned port = 5025;
    std::uint32_t vehicle = 1;
    yr::sim::MeterSettings settings;
    app.add_option("--plan", plan_file, "read this plan; left out: a made-up vehicle");
    app.add_option("--vehicle", vehicle, "which made-up vehicle");
    app.add_option("--port", port, "TCP port on 127.0.0.1; 0 takes a free one")->check(CLI::Range(0, 65535));
    app.add_option("--noise", settings.noise_V, "standard deviation of a reading, V")
        ->check(CLI::Range(0.0, 1.0));
    app.add_option("--lead", settings.lead_ohm, "resistance of the leads, ohm")
        ->check(CLI::Range(0.0, 100.0));
    std::string fault;
    app.add_option("--fault", fault, "a fault hidden in the plan")
        ->check(CLI::IsMember({"open_circuit", "bad_ground", "wrong_size", "two_at_once", "with_heat"}));
    app.add_option("--seed", settings.seed, "which fault, and the noise");
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& e) {
        return app.exit(e) == 0 ? 0 : 2;  // as rail does: 2 for what it was not made for
    }
    const char* levels[] = {"open_circuit", "bad_ground", "wrong_size", "two_at_once", "with_heat"};
    for (std::size_t k = 0; k < yr::kPracticeLevels; ++k)
        if (fault == levels[k]) settings.fault = static_cast<yr::PracticeLevel>(k);
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
