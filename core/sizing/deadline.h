// When a search must end: a time, or a person who says stop. Deep loops ask check(), which throws; whoever
// began the search catches DeadlineOver and gives what there is.
#pragma once

#include <atomic>
#include <chrono>
#include <exception>

namespace yr {

struct DeadlineOver : std::exception {};

class Deadline {
  public:
    Deadline(double most_s, const std::atomic<bool>* cancel) : most_s_(most_s), cancel_(cancel) {}
    [[nodiscard]] double left_s() const {
        return most_s_ - std::chrono::duration<double>(std::chrono::steady_clock::now() - begun_).count();
    }
    [[nodiscard]] bool over() const { return (cancel_ && *cancel_) || left_s() <= 0; }
    void check() const {
        if (over()) throw DeadlineOver();
    }
    [[nodiscard]] const std::atomic<bool>* cancel() const { return cancel_; }

  private:
    std::chrono::steady_clock::time_point begun_ = std::chrono::steady_clock::now();
    double most_s_;
    const std::atomic<bool>* cancel_;
};

}  // namespace yr
