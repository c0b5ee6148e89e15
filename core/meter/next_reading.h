// The reading that tells most a minute: which of what is suspected has to be mended is what counts, so pairs
// of suspects with different things to mend are what a reading should part (after Golovin, Krause and Ray
// 2010, equivalence class edge cutting).
#pragma once

#include "meter/locate.h"

namespace yr {

struct NextReading {
    Probing where;
    double minutes = 0;
    double parts = 0;   // share of what is still undecided that it is expected to decide
    Expectation sound;  // as the plan says
    // What it would be if each of the likeliest were it: thing, value.
    std::vector<std::pair<Id, double>> if_it_is;
};

struct NextAsk {
    std::vector<Reading> readings;
    std::vector<Complaint> complaints;
    std::optional<Probing> last;  // where the probes are now
    std::vector<Id> states{};     // that may be asked for; empty: those complained of, else all
    double sure = 0.95;           // one thing this likely: no further reading is asked for
    const std::atomic<bool>* stop = nullptr;
};

// nullopt: one thing is sure enough, or no reading would part what is left.
[[nodiscard]] std::optional<NextReading> next_reading(Locator& locator, const Plan& plan, const Location& now,
                                                      const NextAsk& ask);

// Every place where probes can be held in that state: each terminal against the battery's negative, across
// each cable, a clamp round each.
[[nodiscard]] std::vector<Probing> places_to_probe(const Plan& plan, const Id& state);

// Where a terminal or run is reached: its thing's place.
[[nodiscard]] Id place_of(const Plan& plan, const Probing& where);

}  // namespace yr
