#include "routes/net.h"

#include <algorithm>
#include <cmath>
#include <queue>

#include "catalog/assumptions.h"

namespace yr {
namespace {

// What a metre costs beyond its length: judgement, no source. A hazard costs so much that any way round is
// taken.
constexpr double kHot = 0.4, kFlexes = 0.5, kWet = 0.1, kOffWay = 0.6, kHazard = 60, kThroughWall = 60;
constexpr double kBend_m = 0.03;     // each waypoint: a cable that turns wants more
constexpr std::size_t kEntries = 4;  // ways that a thing may come on to
constexpr double kBeside_m = 0.6;    // things so near are joined straight wherever they stand

Spot between(const Spot& a, const Spot& b, double t) {
    return {a.x_m + (b.x_m - a.x_m) * t, a.y_m + (b.y_m - a.y_m) * t, a.z_m + (b.z_m - a.z_m) * t};
}

// Share of the straight from a to b at which it is nearest to p.
double nearest(const Spot& a, const Spot& b, const Spot& p) {
    const double dx = b.x_m - a.x_m, dy = b.y_m - a.y_m, dz = b.z_m - a.z_m;
    const double square = dx * dx + dy * dy + dz * dz;
    if (square <= 0) return 0;
    const double t = ((p.x_m - a.x_m) * dx + (p.y_m - a.y_m) * dy + (p.z_m - a.z_m) * dz) / square;
    return std::clamp(t, 0.0, 1.0);
}

}  // namespace

std::optional<Room> room_of(const Place& p) {
    const auto corner = p.at.spot();
    if (!corner || !p.long_m || !p.wide_m || !p.high_m) return std::nullopt;
    return Room{*corner, {corner->x_m + *p.long_m, corner->y_m + *p.wide_m, corner->z_m + *p.high_m}};
}

bool is_grave(Hazard hazard) {
    return hazard != Hazard::none && hazard != Hazard::exhaust && hazard != Hazard::jack_point;
}

bool is_hazard(const Place& p) {
    return p.hazard != Hazard::none;
}

Id place_at(const Plan& plan, const Spot& spot) {
    const Place* best = nullptr;
    double least = 1e18;
    for (const Place& p : plan.places) {
        const auto room = room_of(p);
        if (!room || is_hazard(p) || !room->holds(spot, 1e-9)) continue;
        const double volume = *p.long_m * *p.wide_m * *p.high_m;
        if (volume < least) least = volume, best = &p;
    }
    return best ? best->id : Id();
}

double inside_m(const Room& room, const Spot& a, const Spot& b, double margin_m) {
    double enters = 0, leaves = 1;
    const auto axis = [&](double from, double to, double low, double high) {
        const double d = to - from;
        if (std::abs(d) < 1e-12) {
            if (from < low || from > high) leaves = -1;
            return;
        }
        const double one = (low - from) / d, two = (high - from) / d;
        enters = std::max(enters, std::min(one, two)), leaves = std::min(leaves, std::max(one, two));
    };
    axis(a.x_m, b.x_m, room.low.x_m - margin_m, room.high.x_m + margin_m);
    axis(a.y_m, b.y_m, room.low.y_m - margin_m, room.high.y_m + margin_m);
    axis(a.z_m, b.z_m, room.low.z_m - margin_m, room.high.z_m + margin_m);
    return leaves > enters ? (leaves - enters) * distance_m(a, b) : 0;
}

double cost_per_m(const Plan& plan, const Spot& a, const Spot& b) {
    const double length = distance_m(a, b);
    if (length <= 0) return 1;
    const double clear = plan.policy.exhaust_m.value_or(assumption("exhaust_m").value);
    double cost = 1;
    for (const Place& p : plan.places) {
        const auto room = room_of(p);
        if (!room) continue;
        const double share = inside_m(*room, a, b, p.hazard == Hazard::exhaust ? clear : 0) / length;
        if (share <= 0) continue;
        if (is_hazard(p)) cost += kHazard * share;
        if (p.engine_space || p.air_K.value_or(0) > 10) cost += kHot * share;
        if (p.wet) cost += kWet * share;
    }
    return cost;
}

WayNet::WayNet(const Plan& plan) : plan_(plan) {
    std::unordered_map<std::string_view, std::size_t> index;
    for (std::size_t k = 0; k < plan.waypoints.size(); ++k) {
        at_.push_back(plan.waypoints[k].at.spot());
        index.emplace(plan.waypoints[k].id, k);
    }
    edges_.resize(at_.size());
    for (std::size_t w = 0; w < plan.ways.size(); ++w) {
        const Way& way = plan.ways[w];
        const auto a = index.find(way.from), b = index.find(way.to);
        const bool joins = a != index.end() && b != index.end() && at_[a->second] && at_[b->second];
        from_.push_back(joins ? a->second : 0), to_.push_back(joins ? b->second : 0);
        cost_.push_back(-1);
        if (!joins) continue;
        const Spot &s = *at_[a->second], &t = *at_[b->second];
        double each = cost_per_m(plan, s, t) + (way.flexes ? kFlexes : 0);
        if (const Place* own = find(plan.places, way.place); own && own->engine_space) each += kHot;
        cost_.back() = distance_m(s, t) * each + kBend_m;
        edges_[a->second].push_back({b->second, w, cost_.back()});
        edges_[b->second].push_back({a->second, w, cost_.back()});
    }
    if (std::none_of(cost_.begin(), cost_.end(), [](double c) { return c >= 0; })) edges_.clear();
}

const std::vector<WayNet::Entry>& WayNet::entries(const Spot& spot) const {
    const auto [known, anew] = entries_.try_emplace({spot.x_m, spot.y_m, spot.z_m});
    if (anew) known->second = found_entries(spot);
    return known->second;
}

std::vector<WayNet::Entry> WayNet::found_entries(const Spot& spot) const {
    std::vector<Entry> all;
    // on a waypoint itself, as where a cable is held to pass: on to each of its ways, whichever side of a
    // hole
    for (std::size_t w = 0; w < cost_.size(); ++w) {
        if (cost_[w] < 0) continue;
        for (const bool end : {false, true})
            if (const Spot& at = *at_[end ? to_[w] : from_[w]]; distance_m(at, spot) < 1e-9)
                all.push_back({w, end ? 1.0 : 0.0, 0, at});
    }
    if (!all.empty()) return all;
    const Id home = place_at(plan_, spot);
    for (std::size_t w = 0; w < cost_.size(); ++w) {
        if (cost_[w] < 0) continue;
        const Spot &a = *at_[from_[w]], &b = *at_[to_[w]];
        const double at = nearest(a, b, spot);
        const Spot on = between(a, b, at);
        const Id there = place_at(plan_, on);
        // at a hole it comes on to the way of its own side only: the other begins behind the hole
        const std::size_t end = at <= 1e-9 ? from_[w] : at >= 1 - 1e-9 ? to_[w] : plan_.waypoints.size();
        if (end < plan_.waypoints.size() && plan_.waypoints[end].kind != PassageKind::bend &&
            place_at(plan_, between(a, b, 0.5)) != home)
            continue;
        // into another room, or out of one, only through a passage, which is a waypoint
        const bool wall = home != there;
        const double each = cost_per_m(plan_, spot, on) + kOffWay + (wall ? kThroughWall : 0);
        all.push_back({w, at, distance_m(spot, on) * each, on});
    }
    const std::size_t keep = std::min(kEntries, all.size());
    std::partial_sort(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(keep), all.end(),
                      [](const Entry& x, const Entry& y) { return x.off_cost < y.off_cost; });
    all.resize(keep);
    return all;
}

std::optional<Path> WayNet::shortest(const Spot& from, const Spot& to,
                                     const std::vector<double>& surcharge) const {
    const auto extra = [&](std::size_t n) { return n < surcharge.size() ? surcharge[n] : 0.0; };
    Path best;
    best.cost = 1e18;
    const Id here = place_at(plan_, from), there = place_at(plan_, to);
    const double straight = distance_m(from, to);
    if ((!here.empty() && here == there) || straight <= kBeside_m || edges_.empty()) {
        if (edges_.empty() && !(here == there && !here.empty()) && straight > kBeside_m) return std::nullopt;
        best.cost = straight * (cost_per_m(plan_, from, to) + kOffWay);
        best.legs = {{std::nullopt, from, to, 0, 0}};
    }
    if (edges_.empty()) return best;
    const std::vector<Entry>&in = entries(from), &out = entries(to);  // a map's entries stay where they are
    // along one way
    for (const Entry& a : in)
        for (const Entry& b : out) {
            if (a.way != b.way) continue;
            const double cost = a.off_cost + b.off_cost + std::abs(b.at - a.at) * cost_[a.way];
            if (cost >= best.cost) continue;
            best = {{{std::nullopt, from, a.spot, 0, 0},
                     {a.way, a.spot, b.spot, a.at, b.at},
                     {std::nullopt, b.spot, to, 0, 0}},
                    {},
                    cost};
        }
    // over waypoints
    constexpr std::size_t none = static_cast<std::size_t>(-1);
    struct Best {
        double cost = 1e18;
        std::size_t before = none, way = none, entry = none;
        bool done = false;
    };
    std::vector<Best> node(at_.size());
    using Item = std::pair<double, std::size_t>;
    std::priority_queue<Item, std::vector<Item>, std::greater<>> queue;
    const auto offer = [&](std::size_t n, double cost, std::size_t before, std::size_t way,
                           std::size_t entry) {
        cost += extra(n);
        if (cost >= node[n].cost) return;
        node[n] = {cost, before, way, entry, false};
        queue.emplace(cost, n);
    };
    for (std::size_t e = 0; e < in.size(); ++e) {
        offer(from_[in[e].way], in[e].off_cost + in[e].at * cost_[in[e].way], none, in[e].way, e);
        offer(to_[in[e].way], in[e].off_cost + (1 - in[e].at) * cost_[in[e].way], none, in[e].way, e);
    }
    while (!queue.empty()) {
        const auto [cost, n] = queue.top();
        queue.pop();
        if (node[n].done || cost > node[n].cost) continue;
        if (cost >= best.cost) break;
        node[n].done = true;
        for (const Edge& e : edges_[n])
            if (!node[e.to].done) offer(e.to, cost + e.cost, n, e.way, none);
    }
    std::size_t last = none, exit = none;
    bool at_end = false;
    for (std::size_t e = 0; e < out.size(); ++e)
        for (const bool end : {false, true}) {
            const std::size_t n = end ? to_[out[e].way] : from_[out[e].way];
            const double rest = (end ? 1 - out[e].at : out[e].at) * cost_[out[e].way] + out[e].off_cost;
            if (node[n].cost + rest >= best.cost) continue;
            best.cost = node[n].cost + rest, last = n, exit = e, at_end = end;
        }
    if (last == none) return best.cost < 1e17 ? std::optional(best) : std::nullopt;
    best.legs.clear(), best.waypoints.clear();
    for (std::size_t n = last; n != none; n = node[n].before) best.waypoints.push_back(n);
    std::reverse(best.waypoints.begin(), best.waypoints.end());
    const Best& first = node[best.waypoints.front()];
    const Entry& a = in[first.entry];
    const auto end_of = [&](std::size_t way, std::size_t n) { return to_[way] == n ? 1.0 : 0.0; };
    best.legs.push_back({std::nullopt, from, a.spot, 0, 0});
    best.legs.push_back(
        {a.way, a.spot, *at_[best.waypoints.front()], a.at, end_of(a.way, best.waypoints.front())});
    for (std::size_t k = 1; k < best.waypoints.size(); ++k) {
        const std::size_t n = best.waypoints[k], way = node[n].way;
        best.legs.push_back({way, *at_[best.waypoints[k - 1]], *at_[n], 1 - end_of(way, n), end_of(way, n)});
    }
    const Entry& b = out[exit];
    best.legs.push_back({b.way, *at_[last], b.spot, at_end ? 1.0 : 0.0, b.at});
    best.legs.push_back({std::nullopt, b.spot, to, 0, 0});
    std::erase_if(best.legs, [](const Leg& leg) { return leg.length_m() < 1e-9; });
    return best;
}

std::optional<Path> WayNet::shortest_by(const Spot& from, const std::vector<Id>& via, const Spot& to,
                                        const std::vector<double>& surcharge) const {
    Path all;
    Spot at = from;
    const auto pass = [&](std::size_t n) {
        if (all.waypoints.empty() || all.waypoints.back() != n) all.waypoints.push_back(n);
    };
    const auto go = [&](const Spot& next) {
        const auto part = shortest(at, next, surcharge);
        if (!part) return false;
        all.legs.insert(all.legs.end(), part->legs.begin(), part->legs.end());
        for (const std::size_t n : part->waypoints) pass(n);
        all.cost += part->cost;
        at = next;
        return true;
    };
    for (const Id& id : via) {
        const Waypoint* w = find(plan_.waypoints, std::string_view(id));
        const auto spot = w ? w->at.spot() : std::nullopt;
        if (!spot) continue;
        if (!go(*spot)) return std::nullopt;
        pass(static_cast<std::size_t>(w - plan_.waypoints.data()));
    }
    if (!go(to)) return std::nullopt;
    return all;
}

}  // namespace yr
