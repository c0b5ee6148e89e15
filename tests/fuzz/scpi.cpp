// Lines to the bench meter: each is answered or told as an error, none ends it.
#include "fuzz/fuzz.h"
#include "sim/bench_meter.h"

YR_FUZZ(text) {
    static yr::sim::BenchMeter meter(yr::hidden_vehicle(5).plan, {});
    yr::sim::BenchMeter::Session session;
    for (const QString& line :
         QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())).split(QLatin1Char('\n'))) {
        const QString said = meter.answer(line.left(4096).trimmed(), session);
        yr::fuzz::require(!said.contains(QLatin1Char('\n')) || line.startsWith(QStringLiteral("SYST")));
    }
}
