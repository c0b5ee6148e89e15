#include "solve/turns.h"

#include <algorithm>
#include <cmath>

#include "solve/load_paths.h"

namespace yr {
namespace {

constexpr double kCarries_A = 1e-3;
constexpr double kColdStart_s = 1e5;   // before cranking everything has the air's temperature
constexpr double kSame = 0.002;        // amps that changed so little: the heat is carried over, to 0.02 K
constexpr double kHardlyWarm_K = 0.5;  // cooler than this in the long run: the steady balance will do

// Amps that come and go, by conductor, and the longest turn of them.
struct Turning {
    double away_A = 0;
    int load = -1;
};

std::vector<Turning> turning(const Network& net, const OperatingPoint& point) {
    std::vector<Turning> at(net.conductors.size());
    const LoadPaths paths(net, point);
    for (std::size_t k = 0; k < net.loads.size(); ++k) {
        const LoadElement& l = net.loads[k];
        if (l.on_s <= 0 || l.inverter >= 0 || point.loads[k].status != LoadStatus::on) continue;
        for (const int c : paths.of(k)) {
            Turning& t = at[static_cast<std::size_t>(c)];
            t.away_A += point.loads[k].current_A;
            if (t.load < 0 || l.on_s > net.loads[static_cast<std::size_t>(t.load)].on_s)
                t.load = static_cast<int>(k);
        }
    }
    return at;
}

std::optional<TurnHeat> heat(const ConductorElement& c, double amps, const DutyCycle& cycle, int load) {
    if (c.cable20_ohm <= 0 || !c.closed || amps < kCarries_A) return std::nullopt;
    const DutyCycle each = each_of(cycle, c.parallel);
    const double forever_C = conductor_temperature_C(c.cable, each.on_A, c.cable.ambient_C);
    if (c.turn && c.turn->load == load && std::abs(cycle.on_A - c.turn->cycle.on_A) < kSame * cycle.on_A &&
        std::abs(cycle.rest_A - c.turn->cycle.rest_A) < kSame * cycle.on_A) {
        const double share = cycle.on_A / c.turn->cycle.on_A;  // the rise goes with the square
        return TurnHeat{cycle, c.cable.ambient_C + (c.turn->end_C - c.cable.ambient_C) * share * share, load};
    }
    const bool cool = forever_C < c.cable.ambient_C + kHardlyWarm_K;
    return TurnHeat{cycle, cool ? forever_C : duty_temperature(c.cable, each).peak_C, load};
}

}  // namespace

double heat_by_turns(Network& net, const OperatingPoint& point) {
    const bool some =
        std::any_of(net.loads.begin(), net.loads.end(), [](const LoadElement& l) { return l.on_s > 0; });
    if (net.lasts_s <= 0 && !some) return 0;
    const std::vector<Turning> turns =
        net.lasts_s > 0 ? std::vector<Turning>(net.conductors.size()) : turning(net, point);
    double moved = 0;
    for (std::size_t k = 0; k < net.conductors.size(); ++k) {
        ConductorElement& c = net.conductors[k];
        const double amps = std::abs(point.conductors[k].current_A);
        const double was_C = c.turn ? c.turn->end_C : point.conductors[k].temperature_C;
        if (net.lasts_s > 0) {
            c.turn = heat(c, amps, {amps, net.lasts_s, 0, kColdStart_s}, -1);
        } else if (turns[k].load >= 0) {
            const LoadElement& l = net.loads[static_cast<std::size_t>(turns[k].load)];
            c.turn =
                heat(c, amps, {amps, l.on_s, std::max(0.0, amps - turns[k].away_A), l.rest_s}, turns[k].load);
        } else {
            c.turn.reset();
        }
        if (c.turn) moved = std::max(moved, std::abs(c.turn->end_C - was_C));
    }
    return moved;
}

}  // namespace yr
