// Work shared out between threads: every piece once, also where pieces ask for pieces, and nothing lost on
// the way.
#include "units/at_once.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <numeric>
#include <stdexcept>
#include <thread>
#include <vector>

namespace yr::test {
namespace {

TEST(AtOnce, EveryPieceOnce) {
    for (const std::size_t count : {0U, 1U, 2U, 3U, 1000U}) {
        std::vector<std::atomic<int>> times(count);
        at_once(count, [&](std::size_t k) { ++times[k]; });
        for (const auto& t : times) EXPECT_EQ(t, 1);
    }
}

TEST(AtOnce, PiecesAskForPiecesThreeDeep) {
    std::atomic<int> sum{0};
    at_once(7, [&](std::size_t a) {
        at_once(5, [&](std::size_t b) {
            at_once(3, [&](std::size_t c) { sum += static_cast<int>(a * 100 + b * 10 + c); });
        });
    });
    EXPECT_EQ(sum, 7 * 5 * 3 * (3 * 100 + 2 * 10 + 1));
}

TEST(AtOnce, SeveralCallersShareThePool) {
    std::atomic<int> pieces{0};
    std::vector<std::thread> callers;
    callers.reserve(4);
    for (int k = 0; k < 4; ++k)
        callers.emplace_back([&] {
            for (int n = 0; n < 50; ++n) at_once(20, [&](std::size_t) { ++pieces; });
        });
    for (auto& c : callers) c.join();
    EXPECT_EQ(pieces, 4 * 50 * 20);
}

TEST(AtOnce, AnExceptionReachesTheCallerAndEndsTheRest) {
    std::atomic<int> begun{0};
    const auto work = [&](std::size_t k) {
        ++begun;
        if (k == 3) throw std::runtime_error("the fourth");
    };
    EXPECT_THROW(at_once(1'000'000, work), std::runtime_error);
    EXPECT_GE(begun, 4);
    EXPECT_LT(begun, 1'000'000);
}

TEST(AtOnce, StopsWhenAsked) {
    std::atomic<bool> stop{false};
    std::atomic<std::size_t> begun{0};
    at_once(
        1'000'000,
        [&](std::size_t) {
            if (++begun == 10) stop = true;
        },
        &stop);
    EXPECT_GE(begun, 10U);
    EXPECT_LT(begun, 1'000'000U);
}

TEST(AtOnce, TellsTheCallerHowFarItIs) {
    std::vector<double> shares;
    const auto caller = std::this_thread::get_id();
    at_once(
        100, [](std::size_t) { std::this_thread::sleep_for(std::chrono::microseconds(50)); }, nullptr,
        [&](double share) {
            EXPECT_EQ(std::this_thread::get_id(), caller);
            shares.push_back(share);
        });
    ASSERT_FALSE(shares.empty());
    EXPECT_TRUE(std::all_of(shares.begin(), shares.end(), [](double s) { return s > 0 && s <= 1; }));
}

}  // namespace
}  // namespace yr::test
