#include "watch.h"

#include <fmt/format.h>
#include <unistd.h>

#include <chrono>
#include <cmath>
#include <csignal>
#include <cstdlib>
#include <thread>

#include "commands.h"
#include "words/format.h"
#include "words/sentences.h"

namespace yr::cli {
namespace {

using Clock = std::chrono::steady_clock;

constexpr auto kLook = std::chrono::milliseconds(20);
constexpr double kGrace_s = 0.15;  // for work that ends by itself when it is told to
constexpr double kQuiet_s = 1;     // shorter work shows nothing
constexpr int kTicksShown = 10;    // one line on the terminal in so many looks

std::atomic<bool> interrupted = false;
static_assert(std::atomic<bool>::is_always_lock_free, "a signal handler may set it");

void take_interrupt(int) {
    interrupted = true;
}

double since(Clock::time_point begin) {
    return std::chrono::duration<double>(Clock::now() - begin).count();
}

void clear_line() {
    if (isatty(STDERR_FILENO)) fmt::print(stderr, "\r\x1b[K");
}

}  // namespace

Watch& watch() {
    static Watch one;
    return one;
}

Watch::Writing::Writing() {
    ++watch().writing_;
}

Watch::Writing::~Writing() {
    --watch().writing_;
}

void Watch::show(double seconds) const {
    const std::string time = words::duration_h(std::floor(seconds) / 3600);
    if (share_ >= 0)
        fmt::print(stderr, "\r\x1b[K{}",
                   words::say("{0} %, {1} so far; Ctrl+C stops", std::lround(100 * share_), time));
    else
        fmt::print(stderr, "\r\x1b[K{}", words::say("{0} so far; Ctrl+C stops", time));
    std::fflush(stderr);
}

void Watch::look_on(const std::atomic<bool>& done) {
    const auto begin = Clock::now();
    const bool terminal = isatty(STDERR_FILENO) != 0;
    double told_s = 0;
    for (int tick = 1; !done; ++tick) {
        std::this_thread::sleep_for(kLook);
        const double now_s = since(begin);
        if (!cancel_ && (interrupted || (most_s_ > 0 && now_s > most_s_))) {
            cancel_ = true;
            told_s = now_s;
        }
        if (cancel_ && now_s > told_s + kGrace_s && writing_ == 0 && !done) {
            clear_line();
            tell_error("Stopped: there is no answer yet.\n");
            std::fflush(stderr);
            std::_Exit(1);
        }
        if (terminal && !cancel_ && now_s > kQuiet_s && tick % kTicksShown == 0) show(now_s);
    }
    if (terminal && since(begin) > kQuiet_s) clear_line();
}

int Watch::run(const std::function<int()>& action) {
    std::signal(SIGINT, take_interrupt);
    std::atomic<bool> done = false;
    std::thread looker([&] { look_on(done); });
    const auto end = [&] {
        done = true;
        looker.join();
    };
    try {
        const int code = action();
        end();
        if (!cancel_ || !heeded_) return code;
        tell_error("Stopped: what is told was found until then, and there may be more.\n");
        return code == 0 ? 1 : code;
    } catch (...) {
        end();
        throw;
    }
}

CLI::Validator a_duration(double most_s) {
    const std::function<std::string(std::string&)> judge = [most_s](std::string& text) {
        double seconds = 0;
        const bool number = CLI::detail::lexical_cast(text, seconds);
        if (number && seconds > 0 && seconds <= most_s) return std::string();  // neither does "nan" pass
        return words::say("{0} is no time: a number of seconds above 0 and up to {1} is needed",
                          words::printable(text), words::number(most_s, 7));
    };
    return CLI::Validator(judge, "SECONDS");
}

void add_seconds_option(CLI::App& command) {
    command
        .add_option_function<double>(
            "--seconds", [](const double& s) { watch().limit_s(s); },
            words::translated("how long it may take; as long as it takes if left out"))
        ->check(a_duration(1e6));
}

}  // namespace yr::cli
