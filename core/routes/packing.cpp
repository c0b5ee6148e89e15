#include "routes/packing.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <functional>
#include <map>
#include <numeric>

namespace yr {
namespace {

constexpr double kPi = 3.14159265358979323846;
constexpr int kStarts = 40, kFewStarts = 6;
constexpr std::size_t kMany = 24;  // discs: beyond, the starts differ little
constexpr int kPackRounds = 250;
constexpr double kWorth = 2e-3;  // so much smaller must another start be

// Numbers without pattern that are the same on every machine.
class Dice {
  public:
    explicit Dice(std::uint64_t seed) : state_(seed * 0x9E3779B97F4A7C15ULL + 1) {}
    double operator()() {
        state_ ^= state_ << 13, state_ ^= state_ >> 7, state_ ^= state_ << 17;
        return static_cast<double>(state_ >> 11) / 9007199254740992.0;
    }

  private:
    std::uint64_t state_;
};

double length_of(double x, double y) {
    return std::sqrt(x * x + y * y);  // no need for std::hypot's care at the ends of the range
}

double round_of(const std::vector<Disc>& discs, double x, double y) {
    double r = 0;
    for (const Disc& d : discs) r = std::max(r, length_of(d.x - x, d.y - y) + d.d / 2);
    return r;
}

// The middle of the smallest circle round discs that lie where they lie: steps towards the farthest.
double centre(std::vector<Disc>& discs) {
    double x = 0, y = 0;
    for (int k = 1; k <= 600; ++k) {
        const Disc* far = &discs.front();
        double most = -1;
        for (const Disc& d : discs)
            if (const double r = length_of(d.x - x, d.y - y) + d.d / 2; r > most) most = r, far = &d;
        x += (far->x - x) / (k + 1), y += (far->y - y) / (k + 1);
    }
    for (Disc& d : discs) d.x -= x, d.y -= y;
    return round_of(discs, 0, 0);
}

// Pushes overlapping discs apart and those beyond the circle inwards, until neither is left or no round
// helps. Returns how much overlap is left.
double relax(std::vector<Disc>& discs, double radius, int rounds) {
    double worst = 0;
    for (int n = 0; n < rounds; ++n) {
        worst = 0;
        for (std::size_t a = 0; a < discs.size(); ++a) {
            Disc& p = discs[a];
            const double far = length_of(p.x, p.y), room = radius - p.d / 2;
            if (far > room && far > 0) {
                worst = std::max(worst, far - room);
                const double to = std::max(0.0, room) / far;
                p.x *= to, p.y *= to;
            }
            for (std::size_t b = a + 1; b < discs.size(); ++b) {
                Disc& q = discs[b];
                double dx = q.x - p.x, dy = q.y - p.y;
                const double apart = (p.d + q.d) / 2;
                if (dx * dx + dy * dy >= apart * apart) continue;
                const double at = length_of(dx, dy);
                worst = std::max(worst, apart - at);
                if (at < 1e-12) dx = 1e-6, dy = 0;
                const double push = (apart - at) / std::max(at, 1e-6);
                // the lighter one gives way more
                const double share = p.d * p.d / (p.d * p.d + q.d * q.d);
                p.x -= dx * push * (1 - share), p.y -= dy * push * (1 - share);
                q.x += dx * push * share, q.y += dy * push * share;
            }
        }
        if (worst < radius * 1e-7) break;
    }
    return worst;
}

// The smallest circle into which this start can be pressed: halved between what fits and what does not. Empty
// where it does not even go into `most`.
std::vector<Disc> pressed(std::vector<Disc> start, double least, double most) {
    if (relax(start, most, kPackRounds) > most * 1e-4) return {};
    std::vector<Disc> best = std::move(start);
    double low = least, high = most;
    for (int k = 0; k < 14 && high - low > high * 5e-4; ++k) {
        const double r = (low + high) / 2;
        std::vector<Disc> now = best;
        for (Disc& d : now) d.x *= r / high, d.y *= r / high;
        if (relax(now, r, kPackRounds) < r * 1e-4)
            best = std::move(now), high = r;
        else
            low = r;
    }
    relax(best, high * (1 + 2e-4), kPackRounds);
    return best;
}

}  // namespace

double bundle_by_factor(const std::vector<double>& diameters) {
    if (diameters.size() == 1) return diameters.front();
    double squares = 0;
    for (const double d : diameters) squares += d * d;
    return 1.2 * std::sqrt(squares);
}

Packing pack(const std::vector<double>& diameters) {
    Packing out;
    const std::size_t n = diameters.size();
    if (n == 0) return out;
    std::vector<std::size_t> order(n);
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return diameters[a] > diameters[b]; });
    double area = 0, two = 0;
    for (const double d : diameters) area += d * d;
    two = diameters[order[0]] + (n > 1 ? diameters[order[1]] : 0);
    // neither denser than the plane nor than its two thickest beside each other
    const double least = std::max(two, std::sqrt(area)) / 2, most = 1.35 * std::sqrt(area) / 2 + two / 4;
    double best = 1e18;
    const int starts = n <= 2 ? 1 : n > kMany ? kFewStarts : kStarts;
    for (int s = 0; s < starts; ++s) {
        Dice draw(static_cast<std::uint64_t>(s) + 1);
        std::vector<Disc> start;
        for (std::size_t k = 0; k < n; ++k) {
            const double d = diameters[order[k]];
            // the first start winds outwards from the thickest, the others lie anyhow
            const double far =
                s == 0 ? (most - d / 2) * std::sqrt(static_cast<double>(k) / static_cast<double>(n))
                       : (most - d / 2) * std::sqrt(draw());
            const double turn = s == 0 ? 2.399963 * static_cast<double>(k) : 2 * kPi * draw();
            start.push_back({far * std::cos(turn), far * std::sin(turn), d});
        }
        // a start that does not at once go into a smaller circle than the best so far is let go
        std::vector<Disc> lies = pressed(std::move(start), least, std::min(most, best * (1 - kWorth)));
        if (lies.empty()) continue;
        const double r = centre(lies);
        if (r >= best) continue;
        best = r;
        out.discs.assign(n, {});
        for (std::size_t k = 0; k < n; ++k) out.discs[order[k]] = lies[k];
    }
    out.diameter = 2 * best;
    return out;
}

double loom_diameter(const std::vector<double>& diameters) {
    if (diameters.empty()) return 0;
    // A plan is routed again after every change that leaves most bundles as they are: each thread keeps what
    // it packed, thickest first, which is the order that pack() lays them in.
    constexpr std::size_t kKept = 512;
    static thread_local std::map<std::vector<double>, double> kept;
    std::vector<double> sorted = diameters;
    std::sort(sorted.begin(), sorted.end(), std::greater<>());
    if (const auto known = kept.find(sorted); known != kept.end()) return known->second;
    if (kept.size() >= kKept) kept.clear();
    const double mm = std::max(pack(sorted).diameter, bundle_by_factor(sorted));
    kept.emplace(std::move(sorted), mm);
    return mm;
}

}  // namespace yr
