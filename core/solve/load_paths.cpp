#include "solve/load_paths.h"

#include <algorithm>
#include <cmath>

#include "units/at.h"

namespace yr {
namespace {

constexpr double kCarriesCurrent_A = 1e-6;

}  // namespace

LoadPaths::LoadPaths(const Network& network, const OperatingPoint& point)
    : net_(network),
      point_(point),
      first_(network.nodes.size() + 1, 0),
      seen_(network.nodes.size(), 0),
      taken_(network.conductors.size(), 0) {
    const auto each = [&](auto&& use) {
        for (std::size_t k = 0; k < net_.conductors.size(); ++k)
            if (std::abs(point_.conductors[k].current_A) >= kCarriesCurrent_A)
                for (const NodeIndex n : {net_.conductors[k].from, net_.conductors[k].to})
                    use(at(n), static_cast<int>(k));
    };
    each([&](std::size_t node, int) { ++first_[node + 1]; });
    for (std::size_t n = 0; n < net_.nodes.size(); ++n) first_[n + 1] += first_[n];
    touching_.resize(at(first_.back()));
    std::vector<int> next(first_.begin(), first_.end() - 1);
    each([&](std::size_t node, int conductor) { touching_[at(next[node]++)] = conductor; });
}

void LoadPaths::follow(NodeIndex start, bool upstream, std::vector<int>& path) const {
    const int visit = 2 * question_ + (upstream ? 1 : 0);
    std::vector<NodeIndex> open{start};
    while (!open.empty()) {
        const NodeIndex node = open.back();
        open.pop_back();
        if (seen_[at(node)] == visit) continue;
        seen_[at(node)] = visit;
        for (int n = first_[at(node)]; n < first_[at(node) + 1]; ++n) {
            const int k = touching_[at(n)];
            NodeIndex high = net_.conductors[at(k)].from, low = net_.conductors[at(k)].to;
            if (point_.conductors[at(k)].current_A < 0) std::swap(high, low);
            if ((upstream ? low : high) != node) continue;
            if (taken_[at(k)] != question_) path.push_back(k);
            taken_[at(k)] = question_;
            open.push_back(upstream ? high : low);
        }
    }
}

std::vector<int> LoadPaths::of(std::size_t load) const {
    ++question_;
    std::vector<int> path;
    follow(net_.loads[load].pos, true, path);
    follow(net_.loads[load].neg, false, path);
    std::sort(path.begin(), path.end(), [&](int a, int b) {
        const double drop_a = std::abs(point_.conductors[at(a)].drop_V),
                     drop_b = std::abs(point_.conductors[at(b)].drop_V);
        return drop_a != drop_b ? drop_a > drop_b : a < b;
    });
    return path;
}

std::vector<int> path_of_load(const Network& network, const OperatingPoint& point, int load_index) {
    return LoadPaths(network, point).of(at(load_index));
}

}  // namespace yr
