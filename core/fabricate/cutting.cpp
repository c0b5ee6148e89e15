#include "fabricate/cutting.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <numeric>

namespace yr {
namespace {

using Clock = std::chrono::steady_clock;
constexpr double kLimit_s = 1.0;
constexpr long kCheckEvery = 4096;

int cm(double m, bool up) {
    return static_cast<int>(up ? std::ceil(m * 100 - 1e-6) : std::floor(m * 100 + 1e-6));
}

// Martello and Toth's bound on how many rolls of that length hold pieces of these lengths (longest first).
int least_rolls(const std::vector<int>& pieces, int roll) {
    long all = 0;
    for (const int p : pieces) all += p;
    int best = static_cast<int>((all + roll - 1) / roll);
    for (int split = 0; split <= roll / 2; ++split) {
        if (split > 0 && std::find(pieces.begin(), pieces.end(), split) == pieces.end()) continue;
        int large = 0, half = 0;
        long half_sum = 0, small_sum = 0;
        for (const int p : pieces) {
            if (p > roll - split)
                ++large;
            else if (p > roll / 2)
                ++half, half_sum += p;
            else if (p >= split)
                small_sum += p;
        }
        const long spare = static_cast<long>(half) * roll - half_sum;
        const int more = small_sum > spare ? static_cast<int>((small_sum - spare + roll - 1) / roll) : 0;
        best = std::max(best, large + half + more);
    }
    return best;
}

struct Bin {
    int rest = 0;
    bool at_hand = false;
    std::vector<std::size_t> pieces;
};

class Cutter {
  public:
    Cutter(const std::vector<CutPiece>& pieces, const std::vector<double>& at_hand_m, double sold_m,
           const std::atomic<bool>* stop)
        : pieces_(pieces), sold_(cm(sold_m, false)), stop_(stop) {
        for (const CutPiece& p : pieces) length_.push_back(cm(p.length_m, true));
        for (const double m : at_hand_m) hand_.push_back(cm(m, false));
        std::sort(hand_.begin(), hand_.end());
        order_.resize(pieces.size());
        std::iota(order_.begin(), order_.end(), std::size_t{0});
        std::stable_sort(order_.begin(), order_.end(),
                         [&](std::size_t a, std::size_t b) { return length_[a] > length_[b]; });
    }

    Cutting run() {
        const int longest = std::max(sold_, hand_.empty() ? 0 : hand_.back());
        std::erase_if(order_, [&](std::size_t k) {
            if (length_[k] <= longest) return false;
            out_.too_long.push_back(k);
            return true;
        });
        best_ = best_fit();
        bound();
        if (bought(best_) > out_.at_least) branch();
        finish();
        return std::move(out_);
    }

  private:
    static int bought(const std::vector<Bin>& bins) {
        return static_cast<int>(std::count_if(bins.begin(), bins.end(),
                                              [](const Bin& b) { return !b.at_hand && !b.pieces.empty(); }));
    }

    // Longest first into the roll where it leaves least; a new one is bought only where none holds it.
    std::vector<Bin> best_fit() {
        std::vector<Bin> bins;
        for (const int m : hand_) bins.push_back({m, true, {}});
        for (const std::size_t k : order_) {
            Bin* tight = nullptr;
            for (Bin& b : bins)
                if (b.rest >= length_[k] && (!tight || b.rest < tight->rest)) tight = &b;
            if (!tight && sold_ >= length_[k]) bins.push_back({sold_, false, {}}), tight = &bins.back();
            if (!tight) {
                out_.too_long.push_back(k);
                continue;
            }
            tight->rest -= length_[k];
            tight->pieces.push_back(k);
        }
        return bins;
    }

    // What is at hand takes at most its length away from what must be bought.
    void bound() {
        if (sold_ <= 0) return;
        std::vector<int> lengths;
        for (const std::size_t k : order_)
            if (std::find(out_.too_long.begin(), out_.too_long.end(), k) == out_.too_long.end())
                lengths.push_back(length_[k]);
        if (hand_.empty()) {
            out_.at_least = lengths.empty() ? 0 : least_rolls(lengths, sold_);
            return;
        }
        const long all = std::accumulate(lengths.begin(), lengths.end(), 0L);
        const long hand = std::accumulate(hand_.begin(), hand_.end(), 0L);
        long only_sold = 0;  // pieces that no roll at hand holds
        std::vector<int> large;
        for (const int p : lengths)
            if (p > hand_.back()) only_sold += p, large.push_back(p);
        out_.at_least = static_cast<int>(std::max(0L, (all - hand + sold_ - 1) / sold_));
        if (!large.empty()) out_.at_least = std::max(out_.at_least, least_rolls(large, sold_));
    }

    void branch() {
        ends_ = Clock::now() +
                std::chrono::duration_cast<Clock::duration>(std::chrono::duration<double>(kLimit_s));
        std::vector<Bin> bins;
        for (const int m : hand_) bins.push_back({m, true, {}});
        std::vector<std::size_t> todo;
        for (const std::size_t k : order_)
            if (std::find(out_.too_long.begin(), out_.too_long.end(), k) == out_.too_long.end())
                todo.push_back(k);
        left_.assign(todo.size() + 1, 0);
        for (std::size_t k = todo.size(); k-- > 0;) left_[k] = left_[k + 1] + length_[todo[k]];
        most_ = bought(best_);
        go(todo, 0, bins, 0);
        if (!out_of_time_) out_.at_least = bought(best_);  // all was tried
    }

    // `count` rolls are bought so far. Rolls alike are the same: only the first of each rest is tried.
    void go(const std::vector<std::size_t>& todo, std::size_t at, std::vector<Bin>& bins, int count) {
        if (out_of_time_ || most_ <= out_.at_least) return;
        if (++nodes_ % kCheckEvery == 0 && ((stop_ && *stop_) || Clock::now() > ends_)) {
            out_of_time_ = true;
            return;
        }
        if (at == todo.size()) {
            if (count < most_) most_ = count, best_ = bins;
            return;
        }
        long room = 0;
        for (const Bin& b : bins) room += b.rest;
        const long short_by = left_[at] - room;
        const int more = short_by > 0 ? static_cast<int>((short_by + sold_ - 1) / sold_) : 0;
        if (count + more >= most_) return;
        const int length = length_[todo[at]];
        std::vector<int> tried;
        const std::size_t known = bins.size();
        for (std::size_t n = 0; n < known; ++n) {  // by index: rolls are added below
            const int rest = bins[n].rest;
            if (rest < length || std::find(tried.begin(), tried.end(), rest) != tried.end()) continue;
            tried.push_back(rest);
            bins[n].rest -= length, bins[n].pieces.push_back(todo[at]);
            go(todo, at + 1, bins, count);
            bins[n].rest += length, bins[n].pieces.pop_back();
            if (rest == length) return;  // it fills a roll to the last centimetre: nothing is better
        }
        if (length <= sold_ && count + 1 < most_) {
            bins.push_back({sold_ - length, false, {todo[at]}});
            go(todo, at + 1, bins, count + 1);
            bins.pop_back();
        }
    }

    void finish() {
        std::size_t hand = 0;
        for (const Bin& b : best_) {
            const int whole = b.at_hand ? hand_[hand++] : sold_;
            if (b.pieces.empty()) continue;
            CutRoll r;
            r.roll = {whole / 100.0, b.at_hand};
            r.pieces = b.pieces;
            out_.longest_rest_m = std::max(out_.longest_rest_m, b.rest / 100.0);
            out_.rolls.push_back(std::move(r));
        }
        out_.bought = bought(best_);
        out_.proved = out_.bought == out_.at_least;
        std::sort(out_.too_long.begin(), out_.too_long.end());
    }

    const std::vector<CutPiece>& pieces_;
    std::vector<int> length_, hand_;  // cm
    int sold_;
    const std::atomic<bool>* stop_;
    std::vector<std::size_t> order_;
    std::vector<Bin> best_;
    std::vector<long> left_;
    Clock::time_point ends_;
    long nodes_ = 0;
    int most_ = 0;
    bool out_of_time_ = false;
    Cutting out_;
};

}  // namespace

double CutRoll::rest_m(const std::vector<CutPiece>& all) const {
    double used = 0;
    for (const std::size_t k : pieces) used += all[k].length_m;
    return roll.length_m - used;
}

Cutting cut(const std::vector<CutPiece>& pieces, const std::vector<double>& at_hand_m, double sold_m,
            const std::atomic<bool>* stop) {
    return Cutter(pieces, at_hand_m, sold_m, stop).run();
}

}  // namespace yr
