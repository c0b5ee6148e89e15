// What a reading should be, and the band that everything allowed gives it.
#pragma once

#include <map>

#include "meter/slopes.h"

namespace yr {

struct Expectation {
    double value = 0;
    double spread = 0;  // standard deviation by the plan's tolerances
    double meter = 0;   // the most that the meter may be off
    bool solved = false;
    // Nine readings in ten of what is right, and the meter's doubt on top.
    [[nodiscard]] double low() const { return value - kBand * spread - meter; }
    [[nodiscard]] double high() const { return value + kBand * spread + meter; }
    static constexpr double kBand = 2;
};

// Readings of one plan as they should be. Keeps what it has solved.
class Expecter {
  public:
    explicit Expecter(const Plan& plan);  // outlives this
    ~Expecter();
    [[nodiscard]] Expectation of(const Probing& where);
    // The same, knowing readings that were taken before (linear, Gaussian): what they say of causes in common
    // narrows the band and moves its middle.
    [[nodiscard]] Expectation knowing(const Probing& where, const std::vector<Reading>& taken);
    [[nodiscard]] const Solution& solution(const Probing& where);
    [[nodiscard]] Slopes slopes(const Probing& where);
    [[nodiscard]] const Instrument& instrument() const { return instrument_; }

  private:
    struct Entry;
    Entry& entry(const Probing& where);
    const Plan& plan_;
    Instrument instrument_;
    OperatingPointSolver solver_;
    std::map<std::pair<Id, std::vector<Id>>, std::unique_ptr<Entry>> entries_;
};

// Ohms between two terminals with every battery off and its loads as resistances that are off: the copper
// path between them, in parallel where there are several; nullopt: nothing joins them.
[[nodiscard]] std::optional<double> ohms_between(const Plan& plan, const Terminal& a, const Terminal& b);

}  // namespace yr
