// Pieces of work that do not hang on each other, as many at once as the machine has threads.
#pragma once

#include <algorithm>
#include <atomic>
#include <cstddef>
#include <functional>
#include <future>
#include <thread>
#include <vector>

namespace yr {

// work(0) … work(count - 1), each once, in no order; `done(share)` in the caller's thread after each of its
// own. Once *stop is set none is begun any more. An exception of a piece reaches the caller.
inline void at_once(std::size_t count, const std::function<void(std::size_t)>& work,
                    const std::atomic<bool>* stop = nullptr,
                    const std::function<void(double)>& progress = nullptr) {
    std::atomic<std::size_t> next{0}, done{0};
    const auto stopped = [&] { return stop && *stop; };
    const auto others_work = [&] {
        for (std::size_t k = next++; k < count && !stopped(); k = next++) work(k), ++done;
    };
    std::vector<std::future<void>> others;
    const std::size_t threads = std::max(1U, std::thread::hardware_concurrency());
    for (std::size_t k = 1; k < std::min(count, threads); ++k)
        others.push_back(std::async(std::launch::async, others_work));
    for (std::size_t k = next++; k < count && !stopped(); k = next++) {
        work(k), ++done;
        if (progress) progress(static_cast<double>(done) / static_cast<double>(count));
    }
    for (auto& other : others) other.get();
}

}  // namespace yr
