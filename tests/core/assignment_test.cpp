// The assignment's 0-1 program against trying every way for every load.
#include <gtest/gtest.h>

#include <atomic>
#include <chrono>
#include <cmath>

#include <functional>
#include <limits>
#include <random>

#include "choice/zero_one.h"
#include "choice/zero_one_solvers.h"
#include "control/assignment.h"
#include "support/sweep.h"

namespace yr {
namespace {

AssignProblem random_problem(std::uint32_t seed) {
    std::mt19937 random(seed);
    const auto pick = [&](int below) { return static_cast<int>(random() % static_cast<unsigned>(below)); };
    const auto between = [&](double a, double b) {
        return std::uniform_real_distribution<double>(a, b)(random);
    };
    AssignProblem p;
    const int feeds = 1 + pick(3);
    for (int f = 0; f < feeds; ++f) {
        const int kinds = 1 + pick(2);
        for (int w = 0; w < kinds; ++w) {
            const double rating = between(5, 25);
            p.ways.push_back({f, 1 + pick(3), rating, rating * between(1.2, 2.5), -1});
            if (pick(4) == 0 && p.ways.back().places > 1)
                p.ways.push_back({f, 1, 2 * rating, 4 * rating, static_cast<int>(p.ways.size()) - 1});
        }
        AssignLimit main;
        main.limit_A = between(10, 50);
        for (double& taken : main.taken_A) taken = pick(3) == 0 ? between(0, 8) : 0;
        for (std::size_t w = 0; w < p.ways.size(); ++w)
            if (p.ways[w].feed == f) main.ways.push_back(static_cast<int>(w));
        p.limits.push_back(main);
    }
    const int loads = 2 + pick(4);
    for (int l = 0; l < loads; ++l) {
        AssignLoad a;
        a.amps = between(1, 18);
        a.start_A = a.amps * (pick(3) == 0 ? between(1, 3) : 1);
        for (bool& live : a.live) live = pick(3) != 0;
        for (std::size_t w = 0; w < p.ways.size(); ++w)
            a.cost.push_back(pick(5) == 0 ? std::nullopt : std::optional(between(1, 100)));
        const char* words[] = {"", "", "", "a", "b"};
        a.together = words[pick(5)];
        a.apart = words[pick(5)];
        if (pick(8) == 0) a.pinned = pick(static_cast<int>(p.ways.size()));
        p.loads.push_back(a);
    }
    return p;
}

bool allowed(const AssignProblem& p, const std::vector<int>& way, const std::vector<int>& loads) {
    std::vector<int> used(p.ways.size(), 0);
    for (const int l : loads) {
        const auto w = static_cast<std::size_t>(way[static_cast<std::size_t>(l)]);
        const int base = p.ways[w].joined_of;
        used[base >= 0 ? static_cast<std::size_t>(base) : w] += base >= 0 ? 2 : 1;
    }
    for (std::size_t w = 0; w < p.ways.size(); ++w)
        if (p.ways[w].joined_of < 0 && used[w] > p.ways[w].places) return false;
    const auto feed = [&](int l) {
        return p.ways[static_cast<std::size_t>(way[static_cast<std::size_t>(l)])].feed;
    };
    for (const int a : loads)
        for (const int b : loads) {
            const AssignLoad &x = p.loads[static_cast<std::size_t>(a)],
                             &y = p.loads[static_cast<std::size_t>(b)];
            if (a >= b) continue;
            if (!x.together.empty() && x.together == y.together && feed(a) != feed(b)) return false;
            if (!x.apart.empty() && x.apart == y.apart && feed(a) == feed(b)) return false;
        }
    for (const AssignLimit& limit : p.limits)
        for (std::size_t s = 0; s < kKeyPositions; ++s) {
            double sum = limit.taken_A[s];
            bool any = false;
            for (const int l : loads) {
                const AssignLoad& load = p.loads[static_cast<std::size_t>(l)];
                const int w = way[static_cast<std::size_t>(l)];
                if (load.live[s] && std::count(limit.ways.begin(), limit.ways.end(), w))
                    sum += load.amps, any = true;
            }
            if (any && sum > limit.limit_A + 1e-7) return false;
        }
    return true;
}

std::optional<double> try_every_way(const AssignProblem& p, const std::vector<int>& loads) {
    std::optional<double> best;
    std::vector<int> way(p.loads.size(), -1);
    const std::function<void(std::size_t, double)> place = [&](std::size_t k, double cost) {
        if (k == loads.size()) {
            if (allowed(p, way, loads) && (!best || cost < *best)) best = cost;
            return;
        }
        const auto l = static_cast<std::size_t>(loads[k]);
        for (std::size_t w = 0; w < p.ways.size(); ++w) {
            const AssignLoad& load = p.loads[l];
            if (!load.cost[w] || load.amps > p.ways[w].rating_A || load.start_A > p.ways[w].peak_A) continue;
            if (load.pinned && *load.pinned != static_cast<int>(w)) continue;
            way[l] = static_cast<int>(w);
            place(k + 1, cost + *load.cost[w]);
        }
    };
    place(0, 0);
    return best;
}

std::vector<int> all_loads(const AssignProblem& p) {
    std::vector<int> all(p.loads.size());
    for (std::size_t k = 0; k < all.size(); ++k) all[k] = static_cast<int>(k);
    return all;
}

TEST(Assignment, EqualsTryingEveryWayInFiveHundredCases) {
    int feasible = 0, conflicts = 0;
    for (std::uint32_t seed = 1; seed <= 500; ++seed) {
        const AssignProblem p = random_problem(seed);
        const auto expected = try_every_way(p, all_loads(p));
        const AssignAnswer answer = assign(p);
        ASSERT_EQ(answer.feasible, expected.has_value()) << seed;
        if (expected) {
            ++feasible;
            EXPECT_NEAR(answer.cost, *expected, 1e-6) << seed;
            EXPECT_TRUE(allowed(p, answer.way, all_loads(p))) << seed;
            continue;
        }
        // the reason: cannot be placed, and without any one of them can
        const auto reason = conflict(p);
        ASSERT_FALSE(reason.empty()) << seed;
        EXPECT_FALSE(try_every_way(p, reason)) << seed;
        for (std::size_t k = 0; k < reason.size(); ++k) {
            auto fewer = reason;
            fewer.erase(fewer.begin() + static_cast<std::ptrdiff_t>(k));
            EXPECT_TRUE(try_every_way(p, fewer)) << seed << ", without " << reason[k];
        }
        ++conflicts;
    }
    EXPECT_GT(feasible, 100);
    EXPECT_GT(conflicts, 100);
}

TEST(Assignment, TheLeastLimitIsEnoughAndLessIsNot) {
    int tried = 0;
    for (std::uint32_t seed = 1; seed <= 200; ++seed) {
        AssignProblem p = random_problem(seed);
        if (assign(p).feasible) continue;
        for (std::size_t k = 0; k < p.limits.size(); ++k) {
            const auto least = least_limit_A(p, k);
            if (!least) continue;
            AssignProblem raised = p;
            raised.limits[k].limit_A = *least;
            EXPECT_TRUE(try_every_way(raised, all_loads(raised))) << seed;
            raised.limits[k].limit_A = *least - 0.06;
            EXPECT_FALSE(try_every_way(raised, all_loads(raised))) << seed;
            ++tried;
        }
    }
    EXPECT_GT(tried, 10);
}

TEST(ZeroOne, KnapsackAndItsImpossibleSister) {
    // 2 + 3 + 5 kg is 10 kg and worth 13; every other choice within 10 kg is worth less (tried by hand)
    const double kg[] = {2, 3, 4, 5, 9, 7}, worth[] = {3, 4, 5, 6, 10, 7};
    ZeroOneProgram p;
    std::vector<ZeroOneTerm> weight, some;
    for (std::size_t k = 0; k < 6; ++k) {
        weight.push_back({p.add_choice(-worth[k]), kg[k]});
        some.push_back({static_cast<int>(k), 1});
    }
    p.add_row(weight, RowSense::at_most, 10);
    const auto best = p.solve();
    ASSERT_TRUE(best.optimal());
    EXPECT_DOUBLE_EQ(best.cost, -13);
    p.add_row(some, RowSense::at_least, 5);
    EXPECT_FALSE(p.solve().optimal());
    p.add_row({}, RowSense::at_least, 1);
    EXPECT_FALSE(p.solve().optimal()) << "a row without choices that cannot hold";
}

// A program with so many equals that no solver proves the least in a moment.
ZeroOneProgram long_program() {
    ZeroOneProgram p;
    std::mt19937 random(7);
    std::vector<std::vector<ZeroOneTerm>> rows(6);
    for (int k = 0; k < 90; ++k) {
        const int weight = 1000 + static_cast<int>(random() % 1000);
        const int c = p.add_choice(-weight);
        for (auto& row : rows) row.push_back({c, static_cast<double>(1000 + random() % 1000)});
    }
    for (auto& row : rows) p.add_row(row, RowSense::at_most, 45'000.5);
    return p;
}

// Loads to places of limited amps, as the channels of a large plan are: what is found among the few choices
// that can matter is what the other solver finds among all.
TEST(ZeroOne, TheFewThatMatterHoldTheLeast) {
    int fewer = 0;
    for (unsigned seed = 1; seed <= 6; ++seed) {
        std::mt19937 random(seed);
        ZeroOneProgram p;
        constexpr int kLoads = 90, kPlaces = 30;
        std::vector<std::vector<ZeroOneTerm>> place(kPlaces);
        for (int l = 0; l < kLoads; ++l) {
            std::vector<ZeroOneTerm> once;
            const double amps = 1 + static_cast<double>(random() % 20);
            const int home = static_cast<int>(random() % kPlaces);
            for (int k = 0; k < kPlaces; ++k) {
                const int choice = p.add_choice(amps * (1 + std::abs(k - home)) *
                                                (1 + static_cast<double>(random() % 1000) / 2000));
                once.push_back({choice, 1});
                place[static_cast<std::size_t>(k)].push_back({choice, amps});
            }
            p.add_row(once, RowSense::equal, 1);
        }
        for (const auto& terms : place) p.add_row(terms, RowSense::at_most, 60);
        const ZeroOneLimits patience{4, nullptr, 0.2};
        const auto few = solve_by_few(p, patience);
        if (!few) continue;
        const auto all = solve_beside(p, patience);
        if (!all.optimal()) continue;  // it took too long to prove
        ++fewer;
        ASSERT_TRUE(few->optimal());
        EXPECT_NEAR(few->cost, all.cost, 1e-6 * all.cost) << seed;
        double sum = 0;
        for (std::size_t k = 0; k < few->chosen.size(); ++k) sum += few->chosen[k] * p.costs()[k];
        EXPECT_NEAR(sum, few->cost, 1e-6 * sum) << "the choices are those of the whole program";
    }
    EXPECT_GE(fewer, 3) << "else nothing was looked at";
}

// Rows of all three senses, amounts, costs below 0, choices twice in a row.
ZeroOneProgram program_of_all_sorts(unsigned seed) {
    std::mt19937 random(seed);
    const auto between = [&](double a, double b) {
        return std::uniform_real_distribution<double>(a, b)(random);
    };
    ZeroOneProgram p;
    constexpr int kThings = 25, kWays = 12;
    std::vector<std::vector<ZeroOneTerm>> way(kWays);
    for (int t = 0; t < kThings; ++t) {
        std::vector<ZeroOneTerm> once;
        for (int w = 0; w < kWays; ++w) {
            const int choice = p.add_choice(between(-2, 20));
            once.push_back({choice, 1});
            way[static_cast<std::size_t>(w)].push_back({choice, between(1, 9)});
        }
        p.add_row(once, t % 5 == 0 ? RowSense::at_least : RowSense::equal, t % 7 == 0 ? 2 : 1);
    }
    for (auto& terms : way) {
        terms.push_back({terms.front().choice, 0.5});
        terms.push_back({p.add_amount(between(0.5, 3), 8), -1});
        p.add_row(terms, RowSense::at_most, between(6, 14));
    }
    return p;
}

TEST(ZeroOne, TheRelaxedLeastIsTheSameColumnByColumn) {
    int compared = 0;
    for (unsigned seed = 1; seed <= 30; ++seed) {
        SCOPED_TRACE(seed);
        const ZeroOneProgram p = program_of_all_sorts(seed);
        const auto whole = relax(p, {}), few = relax_by_columns(p, {});
        ASSERT_EQ(whole.has_value(), few.has_value());
        if (!whole) continue;
        ++compared;
        EXPECT_NEAR(few->cost, whole->cost, 1e-6 * std::abs(whole->cost));
        const auto least = p.solve({0.1, nullptr, 1e9});
        if (!least.optimal()) continue;
        double adds = 0;  // a choice of the least answer adds no more than lies between them
        for (std::size_t k = 0; k < least.chosen.size(); ++k)
            if (least.chosen[k] && p.mosts()[k] == 0) adds += few->adds[k];
        EXPECT_LE(adds, least.cost - few->cost + 1e-6);
    }
    EXPECT_GT(compared, 15);
}

TEST(ZeroOne, TellsStoppedFromImpossible) {
    const ZeroOneProgram p = long_program();
    for (const double inside_s : {1e9, 0.0}) {  // GLPK alone, CBC alone
        const auto begun = std::chrono::steady_clock::now();
        const auto answer = p.solve({0.3, nullptr, inside_s});
        const double took = std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
        if (answer.optimal()) continue;  // a fast machine
        EXPECT_EQ(answer.end, ZeroOneEnd::stopped) << inside_s;
        EXPECT_LT(took, 5) << "a machine under load";
    }
    std::atomic<bool> cancel{true};
    EXPECT_EQ(p.solve({1e9, &cancel, 0}).end, ZeroOneEnd::stopped);
}

TEST(ZeroOne, WhatIsNoNumberFails) {
    ZeroOneProgram p;
    const int c = p.add_choice(std::nan(""));
    p.add_row({{c, 1}}, RowSense::at_least, 1);
    EXPECT_EQ(p.solve().end, ZeroOneEnd::failed);
}

// Both solvers on random programs: the same verdict and the same least.
TEST(ZeroOne, BothSolversAgree) {
    for (unsigned seed = 1; seed <= 25; ++seed) {
        std::mt19937 random(seed);
        ZeroOneProgram p;
        for (int k = 0; k < 12; ++k) static_cast<void>(p.add_choice(static_cast<double>(random() % 50)));
        const int amount = p.add_amount(3.5, 10);
        for (int r = 0; r < 8; ++r) {
            std::vector<ZeroOneTerm> terms;
            for (int k = 0; k < 12; ++k)
                if (random() % 3 == 0) terms.push_back({k, static_cast<double>(random() % 9 + 1)});
            if (r == 0) terms.push_back({amount, 1});
            p.add_row(terms, r % 3 == 0 ? RowSense::at_least : RowSense::at_most,
                      static_cast<double>(random() % 20 + 2));
        }
        const auto inside = p.solve({1e9, nullptr, 1e9}), beside = p.solve({1e9, nullptr, 0});
        ASSERT_NE(beside.end, ZeroOneEnd::failed);
        ASSERT_EQ(inside.end, beside.end) << seed;
        if (inside.optimal()) EXPECT_NEAR(inside.cost, beside.cost, 1e-6) << seed;
    }
}

// The shape of a sizing: one size of many for each cable, thicker ones dearer and of less drop, drops of many
// loads over shared trunks. GLPK's clique cuts once cut the least of such a program away.
ZeroOneProgram sizing_like(unsigned seed) {
    std::mt19937 random(seed);
    const auto between = [&](double a, double b) {
        return std::uniform_real_distribution<double>(a, b)(random);
    };
    ZeroOneProgram p;
    std::vector<std::vector<std::pair<int, double>>> drop;  // by cable: choice and its volts
    for (int cable = 0; cable < 24; ++cable) {
        std::vector<ZeroOneTerm> one;
        auto& options = drop.emplace_back();
        const double length = between(0.5, 6), amps = between(1, 15);
        for (int size = 0; size < 7; ++size) {
            const double area = 0.5 * std::pow(1.6, size);
            const int c = p.add_choice(length * area * 9e-3);
            one.push_back({c, 1});
            options.emplace_back(c, amps * length * 0.018 / area);
        }
        p.add_row(one, RowSense::equal, 1);
    }
    for (int load = 0; load < 20; ++load) {
        std::vector<ZeroOneTerm> sum;
        double most = 0;
        for (const int cable : {load % 4, 4 + load, 4 + (load * 7) % 20}) {
            for (const auto& [c, volts] : drop[static_cast<std::size_t>(cable)]) sum.push_back({c, volts});
            most += drop[static_cast<std::size_t>(cable)].front().second;
        }
        p.add_row(sum, RowSense::at_most, most * between(0.2, 0.6));
    }
    return p;
}

TEST(ZeroOne, BothSolversAgreeOnSizings) {
    int solved = 0;
    for (unsigned seed = 1; seed <= test::sweep(14U, 40U); ++seed) {
        const ZeroOneProgram p = sizing_like(seed);
        const auto inside = p.solve({2, nullptr, 1e9}), beside = p.solve({1e9, nullptr, 0});
        ASSERT_NE(beside.end, ZeroOneEnd::failed);
        if (inside.end == ZeroOneEnd::stopped) continue;
        ASSERT_EQ(inside.end, beside.end) << seed;
        if (!inside.optimal()) continue;
        ++solved;
        EXPECT_NEAR(inside.cost, beside.cost, 1e-6 * inside.cost) << seed;
    }
    EXPECT_GT(solved, test::sweep(7, 20));
}

// Whether what was chosen keeps all rows of the program.
bool keeps_rows(const ZeroOneProgram& p, const std::vector<char>& chosen) {
    return std::all_of(p.rows().begin(), p.rows().end(), [&](const ZeroOneProgram::Row& row) {
        double left = 0;
        for (const ZeroOneTerm& t : row.terms) left += chosen[static_cast<std::size_t>(t.choice)] * t.factor;
        if (row.sense == RowSense::at_most) return left <= row.right + 1e-6;
        if (row.sense == RowSense::at_least) return left >= row.right - 1e-6;
        return std::abs(left - row.right) < 1e-6;
    });
}

// Rules that come to light only when an answer breaks them: one search hears them as it goes and ends where a
// program that held them from the start ends, whether an answer is known before or not, near the least or far
// from it.
TEST(ZeroOne, WhatIsObjectedToIsNoAnswer) {
    int objected = 0, none_cheaper = 0;
    for (unsigned seed = 1; seed <= test::sweep(5U, 15U); ++seed) {
        const ZeroOneProgram open = sizing_like(seed);
        std::mt19937 random(seed + 100);
        std::vector<ZeroOneProgram::Row> hidden;
        ZeroOneProgram whole = open;
        for (int k = 0; k < 12; ++k) {
            std::vector<ZeroOneTerm> some;
            for (int c = 0; c < open.choices(); ++c)
                if (random() % 8 == 0) some.push_back({c, 1});
            hidden.push_back({some, RowSense::at_least, 2});
            whole.add_row(some, RowSense::at_least, 2);
        }
        const ZeroOneAnswer least = whole.solve();
        if (!least.optimal()) continue;
        const auto objection = [&](const std::vector<char>& chosen) {
            std::vector<ZeroOneProgram::Row> broken;
            for (const auto& row : hidden) {
                double left = 0;
                for (const ZeroOneTerm& t : row.terms) left += chosen[static_cast<std::size_t>(t.choice)];
                if (left < row.right - 1e-6) broken.push_back(row);
            }
            objected += !broken.empty();
            return broken;
        };
        ZeroOneLimits limits{20, nullptr, 20};
        const double endless = std::numeric_limits<double>::infinity();
        for (const double known : {endless, least.cost * 1.2, least.cost * 1.001, least.cost}) {
            limits.known_cost = known;
            const ZeroOneAnswer answer = open.solve_asking(limits, objection);
            if (answer.end == ZeroOneEnd::stopped) continue;
            if (known == least.cost) {
                EXPECT_EQ(answer.end, ZeroOneEnd::infeasible)
                    << "nothing is cheaper than " << least.cost << ", found " << answer.cost << "; seed "
                    << seed;
                ++none_cheaper;
                continue;
            }
            ASSERT_TRUE(answer.optimal()) << seed << ", known " << known;
            EXPECT_NEAR(answer.cost, least.cost, 1e-6 * least.cost) << seed;
            EXPECT_TRUE(keeps_rows(whole, answer.chosen)) << seed;
        }
    }
    EXPECT_GT(objected, 20);
    EXPECT_GT(none_cheaper, test::sweep(1, 5));
}

// What an objection throws comes out as it is.
TEST(ZeroOne, AnObjectionMayThrow) {
    const ZeroOneProgram p = sizing_like(3);
    struct Enough {};
    EXPECT_THROW(
        static_cast<void>(p.solve_asking(
            {20}, [](const std::vector<char>&) -> std::vector<ZeroOneProgram::Row> { throw Enough(); })),
        Enough);
}

// A guess keeps every row; the least lies between what it costs and its bound.
TEST(ZeroOne, AGuessIsNeverBelowTheLeast) {
    int guessed = 0;
    for (unsigned seed = 1; seed <= 20; ++seed) {
        const ZeroOneProgram p = sizing_like(seed);
        const auto guess = p.guess();
        const ZeroOneAnswer least = p.solve();
        if (!guess || !least.optimal()) continue;
        EXPECT_LE(guess->bound, least.cost * (1 + 1e-9)) << seed;
        if (guess->chosen.empty()) continue;
        ++guessed;
        EXPECT_GE(guess->cost, least.cost * (1 - 1e-9)) << seed;
        EXPECT_TRUE(keeps_rows(p, guess->chosen)) << seed;
    }
    EXPECT_GT(guessed, 8);
}

// A known cost only hides what cannot be cheaper.
TEST(ZeroOne, AKnownCostChangesNoAnswer) {
    int same = 0;
    for (unsigned seed = 1; seed <= 9; ++seed) {
        const ZeroOneProgram p = sizing_like(seed);
        const ZeroOneAnswer least = p.solve();
        if (!least.optimal()) continue;
        for (const double known : {1.0, 1.05}) {
            const ZeroOneAnswer again = p.solve({20, nullptr, 20, least.cost * known});
            ASSERT_TRUE(again.optimal()) << seed;
            EXPECT_NEAR(again.cost, least.cost, 1e-6 * least.cost) << seed << ", known " << known;
            ++same;
        }
    }
    EXPECT_GT(same, 12);
}

}  // namespace
}  // namespace yr
