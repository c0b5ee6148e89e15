// Where is it? Every single fault of a plan weighed against what was read (Bayes): the circuit is solved with
// each at several strengths, the strength integrated out, everything that may differ without being a fault
// taken into account. Where no single fault explains the readings, pairs of the likeliest.
//
// What no reading could tell apart stays together: faults whose readings would be the same are said to be so.
#pragma once

#include <atomic>

#include "meter/expect.h"
#include "meter/faults.h"

namespace yr {

// What is seen without a meter.
enum class Seen { dead, weak, works };
struct Complaint {
    Id load;
    Id state;
    Seen seen = Seen::dead;
};

struct Suspect {
    Fault fault;
    std::optional<Fault> second;  // of a pair
    double probability = 0;
    double strength_low = 0, strength = 0, strength_high = 0;  // where it is graded: tenth, half, nine tenths
    std::vector<double> would_read;                            // by reading, at its likeliest strength
    std::vector<double> off_by;  // how many standard deviations each reading is from that
    std::size_t twin_of = 0;     // the first suspect whose readings would be the same; its own index: none
};

struct Location {
    std::vector<Suspect> suspects;  // likeliest first
    std::size_t looked = 0;         // faults weighed
    bool explained = false;         // the likeliest fits what was read
    bool pairs = false;             // single faults did not
    // Of one thing to be mended, over all its faults.
    [[nodiscard]] double of_thing(const Id& thing) const;
    // Things by probability, most first; the empty id: nothing is wrong.
    [[nodiscard]] std::vector<std::pair<Id, double>> things() const;
};

struct LocateAsk {
    std::vector<Reading> readings;
    std::vector<Complaint> complaints;
    bool something_is_wrong = true;  // nobody looks for a fault without a reason
    bool pairs = true;
    const std::atomic<bool>* stop = nullptr;
};

// Keeps the solved faults from one reading to the next.
class Locator {
  public:
    explicit Locator(const Plan& plan);  // outlives this
    ~Locator();
    Locator(const Locator&) = delete;
    Locator& operator=(const Locator&) = delete;

    [[nodiscard]] Location locate(const LocateAsk& ask);
    [[nodiscard]] const std::vector<Fault>& faults() const;
    [[nodiscard]] Expecter& expecter();
    // The circuit with that fault in that state.
    [[nodiscard]] const Solution& solved(std::size_t fault, std::size_t strength, const Probing& where);
    // How many strengths of a fault are solved: more where they reach over decades.
    [[nodiscard]] static std::size_t grades_of(const Fault& fault);

  private:
    struct Impl;
    class Weighing;
    std::unique_ptr<Impl> impl_;
};

}  // namespace yr
