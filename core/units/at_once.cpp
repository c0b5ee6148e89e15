#include "units/at_once.h"

// What pieces share stands behind a mutex here; the thread sanitizer knows no fences.
#define BOOST_ASIO_DISABLE_FENCED_BLOCK

#include <algorithm>
#include <boost/asio/post.hpp>
#include <boost/asio/thread_pool.hpp>
#include <condition_variable>
#include <exception>
#include <memory>
#include <mutex>
#include <thread>

namespace yr {
namespace {

std::size_t threads() {
    return std::max(1U, std::thread::hardware_concurrency());
}

// One for the program: its threads stay, and with them the tables that each keeps of the cables it warmed. As
// many as processors, so that one is free for a helper's own pieces while the caller waits for that helper.
boost::asio::thread_pool& pool() {
    static boost::asio::thread_pool others(threads());
    return others;
}

// What the caller and those who help it take from. A helper that comes when all is done finds it closed: what
// the work needs may be gone by then.
class Shared {
  public:
    Shared(std::size_t count, const std::function<void(std::size_t)>& work, const std::atomic<bool>* stop)
        : count_(count), work_(&work), stop_(stop) {}

    // Works until nothing is left; `after` each piece.
    void take(const std::function<void(double)>& after) noexcept {
        try {
            for (std::size_t k = next_++; k < count_ && !(stop_ && *stop_); k = next_++) {
                (*work_)(k);
                const std::size_t done = ++done_;
                if (after) after(static_cast<double>(done) / static_cast<double>(count_));
            }
        } catch (...) {
            next_ = count_;
            const std::scoped_lock lock(guard_);
            if (!error_) error_ = std::current_exception();
        }
    }

    void help() {
        {
            const std::scoped_lock lock(guard_);
            if (closed_) return;
            ++helping_;
        }
        take(nullptr);
        const std::scoped_lock lock(guard_);
        --helping_;
        left_.notify_all();
    }

    void close() {
        std::unique_lock lock(guard_);
        closed_ = true;
        left_.wait(lock, [this] { return helping_ == 0; });
        if (error_) std::rethrow_exception(error_);
    }

  private:
    const std::size_t count_;
    const std::function<void(std::size_t)>* work_;
    const std::atomic<bool>* stop_;
    std::atomic<std::size_t> next_{0}, done_{0};
    std::mutex guard_;
    std::condition_variable left_;
    std::size_t helping_ = 0;
    bool closed_ = false;
    std::exception_ptr error_;
};

}  // namespace

void at_once(std::size_t count, const std::function<void(std::size_t)>& work, const std::atomic<bool>* stop,
             const std::function<void(double)>& progress) {
    const auto shared = std::make_shared<Shared>(count, work, stop);
    for (std::size_t k = 1; k < std::min(count, threads()); ++k)
        boost::asio::post(pool(), [shared] { shared->help(); });
    shared->take(progress);
    shared->close();
}

}  // namespace yr
