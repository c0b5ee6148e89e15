// The trainer: a vehicle with a hidden fault that answers a meter, a complaint in a customer's words, a score
// against the best strategy.
#pragma once

#include <memory>
#include <random>

#include "meter/next_reading.h"

namespace yr {

enum class PracticeLevel { open_circuit, bad_ground, wrong_size, two_at_once, with_heat };
inline constexpr std::size_t kPracticeLevels = 5;

class HiddenFault {
  public:
    // A fault of that level which makes some load of the plan dead or weak; the same seed gives the same.
    // `plan` outlives it.
    HiddenFault(const Plan& plan, std::uint32_t seed, PracticeLevel level);

    [[nodiscard]] bool there() const { return there_; }  // false: this plan has none of that level that shows
    [[nodiscard]] const Fault& fault() const { return fault_; }
    [[nodiscard]] const std::optional<Fault>& second() const { return second_; }
    [[nodiscard]] double strength() const { return strength_; }
    [[nodiscard]] const std::vector<Complaint>& complaints() const { return complaints_; }
    // What the meter shows there: true to the circuit, with the meter's gain and noise. nullopt: no such
    // place.
    [[nodiscard]] std::optional<double> read(const Probing& where);
    [[nodiscard]] bool is_it(const Id& thing) const;

  private:
    bool hide(const Plan& plan, PracticeLevel level);
    [[nodiscard]] Solution solved(const Probing& where);

    const Plan& plan_;
    std::mt19937 random_;
    Fault fault_;
    std::optional<Fault> second_;
    double strength_ = 0, second_strength_ = 0, gain_ = 0;
    bool there_ = false;
    std::vector<Complaint> complaints_;
    OperatingPointSolver solver_;
};

struct PracticeScore {
    double minutes = 0;
    std::size_t readings = 0, wrong_repairs = 0;
    [[nodiscard]] double points() const {  // wrong repairs count double
        return minutes + 20.0 * 2 * static_cast<double>(wrong_repairs);
    }
};

struct PathStep {
    Probing where;
    double value = 0, minutes = 0;
    Id likeliest;  // afterwards
    double probability = 0;
};
// The way that the best strategy takes to it: readings until one thing is sure, at most `most`.
[[nodiscard]] std::vector<PathStep> best_path(const Plan& plan, HiddenFault& hidden, std::size_t most = 12,
                                              const std::atomic<bool>* stop = nullptr);

}  // namespace yr
