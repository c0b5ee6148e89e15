// What a day comes to: lowest charge and volts, hours in the dark, starts, whether it returns to where it
// began.
#pragma once

#include <optional>

#include "day/cranking.h"
#include "day/run_day.h"

namespace yr {

struct BatteryDay {
    Id battery;
    double least_charge = 1, least_charge_s = 0;
    double least_V = 0, least_V_s = 0;
    double begin = 0, end = 0;  // charge
    double given_Ah = 0, taken_Ah = 0;
    double colder_s = 0;  // lithium below freezing with charging volts on it
};
struct DarkLoad {
    Id load;
    double seconds = 0, from_s = 0;  // in all; first
    bool critical = false;
};
struct CrankPoint {
    double t_s = 0;
    CrankCheck as_entered, worn;
};
struct DayVerdicts {
    std::vector<BatteryDay> batteries;
    std::vector<DarkLoad> dark;              // longest first
    std::vector<CrankPoint> cranks;          // every moment at which the engine stands; empty: nothing cranks
    std::optional<std::size_t> worst_crank;  // in `cranks`
    std::vector<std::pair<Id, int>> trips;   // cut-offs and how often each opened
    std::vector<Id> hunting;
    // The longest stretch in which the engine stands: mean amps from the battery that cranks, and its air at
    // the coldest.
    double standing_A = 0, standing_C = 20;
};
// `quick`: cranking is tried as the engine stands longest and every three hours, and with the battery as it
// is alone.
[[nodiscard]] DayVerdicts verdicts(const Plan& plan, const Day& day, const DayRun& run, bool quick = false);

// The day over and over.
struct DayAfterDay {
    bool returns = false;                       // the batteries end where they began, once it has settled
    int days = 0;                               // run through
    std::vector<double> settled;                // charge of each battery at the beginning of the settled day
    std::vector<double> first_loss, last_loss;  // charge that each loses over a day; below 0: gains
    std::optional<int> no_start_on;             // first day on which the engine does not start, from 1
    std::optional<int> dark_on;                 // first day on which something critical is dark
    double no_start_s = 0, dark_s = 0;          // from the beginning of that day
    Id dark_load, no_start_battery;
    DayRun last;  // the last that was run through, whole
};
// `first_failure_ends`: only whether it fails is asked; the days then jump towards where they settle.
[[nodiscard]] DayAfterDay day_after_day(const Plan& plan, const Day& day, int most_days = 30,
                                        const std::atomic<bool>* stop = nullptr, double tolerance = 3,
                                        bool first_failure_ends = false);

// Charge a day that counts as settling where it is asked whether a day lasts.
inline constexpr double kSettles = 0.006;

// How worn a battery is held to be in the second crank lane: health 75 %.
inline constexpr double kWorn = 0.25;

}  // namespace yr
