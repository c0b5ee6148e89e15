// What a person may do while a command works: see how far it is, stop it (Ctrl+C), or give it so many
// seconds.
//
// A command that looks at cancel() ends by itself and tells what it has; one that does not is ended a moment
// later. Either way a sentence says so and the exit code is 1. A file that is being written is written whole
// first.
#pragma once

#include <CLI/CLI.hpp>
#include <atomic>
#include <functional>
#include <string>

namespace yr::cli {

class Watch {
  public:
    // Set when the work shall end; for the core's `cancel`. What has asked for it may end with a part of its
    // answer.
    [[nodiscard]] const std::atomic<bool>* cancel() {
        heeded_ = true;
        return &cancel_;
    }
    [[nodiscard]] bool stopped() const { return cancel_; }
    // 0..1, shown on a terminal.
    void progress(double share) { share_ = share; }
    void limit_s(double most_s) { most_s_ = most_s; }

    // Runs the command with all of that around it.
    int run(const std::function<int()>& action);

    // While one lives the command is not ended from outside: a file is being written.
    class Writing {
      public:
        Writing();
        ~Writing();
        Writing(const Writing&) = delete;
        Writing& operator=(const Writing&) = delete;
    };

  private:
    void look_on(const std::atomic<bool>& done);
    void show(double seconds) const;

    std::atomic<bool> cancel_ = false, heeded_ = false;
    std::atomic<int> writing_ = 0;
    std::atomic<double> share_ = -1, most_s_ = 0;  // no share known; no limit
};

// The one of this process.
[[nodiscard]] Watch& watch();

// "--seconds": how long the command may take; without it, as long as it takes.
void add_seconds_option(CLI::App& command);
// A whole duration: a number of seconds above nothing.
[[nodiscard]] CLI::Validator a_duration(double most_s);

}  // namespace yr::cli
