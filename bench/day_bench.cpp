// A day run through against ngspice's transient analysis of the same battery and load, by turns in one run.
// What ngspice takes to start, read its deck and end, is measured with an analysis of next to nothing and
// taken off.
#include <algorithm>
#include <chrono>
#include <cstdio>
#include <functional>
#include <vector>

#include "support/day_deck.h"
#include "support/run_program.h"

namespace {

double seconds(const std::function<void()>& what) {
    const auto begin = std::chrono::steady_clock::now();
    what();
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
}

}  // namespace

int main() {
    using yr::test::day_deck, yr::test::run, yr::test::small, yr::test::Small, yr::test::TempFolder,
        yr::test::write_text;
    std::vector<double> ratios;
    const TempFolder folder;
    for (unsigned seed = 0; seed < 8; ++seed) {
        const Small s = small(seed);
        const double hours = s.day.parts.front().length_s / 3600;
        const yr::DayRun day = yr::run_day(s.plan, s.day);
        const double amps = day.points[day.points.size() / 2].battery_A[0],
                     volts = day.points.back().battery_V[0] + 0.02;
        write_text(folder.file("day.cir"), day_deck(s, day, amps, hours, volts));
        write_text(folder.file("nothing.cir"), day_deck(s, day, amps, 20.0 / 3600, volts));
        double ours = 1e9, theirs = 1e9, start = 1e9;
        for (int k = 0; k < 5; ++k) {
            ours = std::min(ours, seconds([&] { (void)yr::run_day(s.plan, s.day); }));
            theirs = std::min(theirs, seconds([&] { (void)run("ngspice -b " + folder.file("day.cir")); }));
            start = std::min(start, seconds([&] { (void)run("ngspice -b " + folder.file("nothing.cir")); }));
        }
        ratios.push_back((theirs - start) / ours);
        std::printf("seed %u: ours %.2f ms, ngspice %.2f ms and %.2f ms to start: %.1f times\n", seed,
                    1000 * ours, 1000 * (theirs - start), 1000 * start, ratios.back());
    }
    std::sort(ratios.begin(), ratios.end());
    std::printf("median %.1f times\n", ratios[ratios.size() / 2]);
    return 0;
}
