#include "chart/strands.h"

#include <algorithm>
#include <numeric>
#include <random>

#include "units/at.h"

namespace yr {
StrandSweep::StrandSweep(FlowGraph graph) : graph_(std::move(graph)) {
    const std::size_t n = graph_.node_V.size();
    outgoing_.resize(n);
    sunk_.assign(n, 0);
    arriving_.resize(n);
    double total = 0;
    std::vector<int> waiting(n, 0);
    std::vector<char> used(n, 0);
    for (std::size_t k = 0; k < graph_.branches.size(); ++k) {
        const Branch& b = graph_.branches[k];
        outgoing_[at(b.high)].push_back(static_cast<int>(k));
        ++waiting[at(b.low)];
        used[at(b.high)] = used[at(b.low)] = 1;
    }
    for (const Lift& l : graph_.lifts) {
        sunk_[at(l.from)] += l.amps;
        total += l.amps;
        used[at(l.from)] = used[at(l.to)] = 1;
    }
    eps_ = 1e-9 * total;
    // Topological, the highest potential first among those whose inflow is complete.
    const auto lower = [&](NodeIndex a, NodeIndex b) {
        return graph_.node_V[at(a)] != graph_.node_V[at(b)] ? graph_.node_V[at(a)] < graph_.node_V[at(b)]
                                                            : a > b;
    };
    std::vector<NodeIndex> ready;
    for (std::size_t k = 0; k < n; ++k)
        if (used[k] && waiting[k] == 0) ready.push_back(static_cast<NodeIndex>(k));
    std::make_heap(ready.begin(), ready.end(), lower);
    while (!ready.empty()) {
        std::pop_heap(ready.begin(), ready.end(), lower);
        const NodeIndex node = ready.back();
        ready.pop_back();
        sequence_.push_back(node);
        for (int k : outgoing_[at(node)])
            if (--waiting[at(graph_.branches[at(k)].low)] == 0) {
                ready.push_back(graph_.branches[at(k)].low);
                std::push_heap(ready.begin(), ready.end(), lower);
            }
    }
}

int StrandSweep::cost(const Orders& orders, const std::vector<int>& lifts, SweepResult* keep) {
    for (NodeIndex n : sequence_) arriving_[at(n)].clear();
    double x = 0;
    for (int k : lifts) {
        const Lift& l = graph_.lifts[at(k)];
        arriving_[at(l.to)].emplace_back(x, x + l.amps);
        if (keep) keep->sources.push_back({k, x, x + l.amps});
        x += l.amps;
    }
    int cuts = 0;
    std::vector<std::pair<double, double>> merged;
    for (NodeIndex n : sequence_) {
        auto& in = arriving_[at(n)];
        std::sort(in.begin(), in.end());
        merged.clear();
        for (const auto& s : in) {
            if (!merged.empty() && s.first - merged.back().second < eps_)
                merged.back().second = s.second;
            else
                merged.push_back(s);
        }
        // What sources take away leaves first, at the left: it only ends here and is not drawn.
        std::size_t slot = 0;
        double from = merged.empty() ? 0 : merged[0].first;
        const auto take = [&](double amps, int branch) {
            int pieces = 0;
            while (amps > eps_ && slot < merged.size()) {
                const double room = merged[slot].second - from;
                const double used = std::min(room, amps);
                if (used > eps_ && branch >= 0) {
                    ++pieces;
                    if (keep) keep->pieces.push_back({branch, from, from + used});
                    arriving_[at(graph_.branches[at(branch)].low)].emplace_back(from, from + used);
                }
                amps -= used;
                from += used;
                if (merged[slot].second - from <= eps_ && ++slot < merged.size()) from = merged[slot].first;
            }
            return pieces;
        };
        if (sunk_[at(n)] > eps_) take(sunk_[at(n)], -1);
        for (int k : orders[at(n)]) cuts += std::max(0, take(graph_.branches[at(k)].amps, k) - 1);
    }
    return cuts;
}

void StrandSweep::improve(Orders& orders, std::vector<int>& lifts, int& best, int& budget) {
    const auto try_moves = [&](std::vector<int>& list) {
        bool better = false;
        for (std::size_t from = 0; from < list.size(); ++from)
            for (std::size_t to = 0; to < list.size() && best > 0 && budget > 0; ++to) {
                if (to == from) continue;
                std::vector<int> moved = list;
                const int branch = moved[from];
                moved.erase(moved.begin() + static_cast<std::ptrdiff_t>(from));
                moved.insert(moved.begin() + static_cast<std::ptrdiff_t>(to), branch);
                std::swap(list, moved);
                --budget;
                const int now = cost(orders, lifts, nullptr);
                if (now < best)
                    best = now, better = true;
                else
                    std::swap(list, moved);
            }
        return better;
    };
    bool better = true;
    while (better && best > 0 && budget > 0) {
        better = try_moves(lifts);
        for (NodeIndex n : sequence_) better = try_moves(orders[at(n)]) || better;
    }
}

bool StrandSweep::read_previous(const ChartOrder& previous, Orders& orders, std::vector<int>& lifts) const {
    if (previous.leaving.size() != outgoing_.size()) return false;
    bool same = true;
    const auto rank = [&](std::size_t node, int branch) {
        const auto& list = previous.leaving[node];
        const auto found = std::find(list.begin(), list.end(), graph_.branches[at(branch)].ref);
        if (found == list.end()) same = false;
        return found - list.begin();
    };
    for (std::size_t n = 0; n < orders.size(); ++n) {
        if (orders[n].size() != previous.leaving[n].size()) same = false;
        std::stable_sort(orders[n].begin(), orders[n].end(),
                         [&](int a, int b) { return rank(n, a) < rank(n, b); });
        for (int k : orders[n]) (void)rank(n, k);
    }
    const auto lift_rank = [&](int k) {
        const auto found =
            std::find(previous.sources.begin(), previous.sources.end(), graph_.lifts[at(k)].source);
        if (found == previous.sources.end()) same = false;
        return found - previous.sources.begin();
    };
    if (lifts.size() != previous.sources.size()) same = false;
    for (int k : lifts) (void)lift_rank(k);
    std::stable_sort(lifts.begin(), lifts.end(), [&](int a, int b) { return lift_rank(a) < lift_rank(b); });
    return same;
}

ChartOrder StrandSweep::write(const Orders& orders, const std::vector<int>& lifts) const {
    ChartOrder order;
    order.leaving.resize(orders.size());
    for (std::size_t n = 0; n < orders.size(); ++n)
        for (int k : orders[n]) order.leaving[n].push_back(graph_.branches[at(k)].ref);
    for (int k : lifts) order.sources.push_back(graph_.lifts[at(k)].source);
    return order;
}

ChartOrder StrandSweep::choose_order(const ChartOrder* previous) {
    Orders orders = outgoing_;
    std::vector<int> lifts(graph_.lifts.size());
    std::iota(lifts.begin(), lifts.end(), 0);
    // alternators and converters first, batteries after them: the strip reads "what it can give, then the
    // battery"
    std::stable_sort(lifts.begin(), lifts.end(),
                     [&](int a, int b) { return graph_.lifts[at(a)].source > graph_.lifts[at(b)].source; });
    if (previous && read_previous(*previous, orders, lifts)) return *previous;
    int best = cost(orders, lifts, nullptr);
    int budget = std::max(200, 60000 / (1 + static_cast<int>(graph_.branches.size())));
    improve(orders, lifts, best, budget);
    // A small network may need another start to come out whole; a fixed seed keeps the picture the same every
    // time.
    std::mt19937 random(1940);
    for (int restart = 0; restart < 40 && best > 0 && budget > 0 && graph_.branches.size() < 20; ++restart) {
        Orders other = outgoing_;
        for (auto& list : other) std::shuffle(list.begin(), list.end(), random);
        std::vector<int> other_lifts = lifts;
        int other_best = cost(other, other_lifts, nullptr);
        improve(other, other_lifts, other_best, budget);
        if (other_best < best) best = other_best, orders = other, lifts = other_lifts;
    }
    return write(orders, lifts);
}

SweepResult StrandSweep::run(const ChartOrder& order, bool keep_pieces) {
    Orders orders = outgoing_;
    std::vector<int> lifts(graph_.lifts.size());
    std::iota(lifts.begin(), lifts.end(), 0);
    (void)read_previous(order, orders, lifts);
    SweepResult result;
    result.cuts = cost(orders, lifts, keep_pieces ? &result : nullptr);
    return result;
}

StrandSweep::Depths StrandSweep::depths() const {
    const std::size_t n = graph_.node_V.size();
    Depths d{std::vector<int>(n, 0), std::vector<int>(n, 0)};
    for (NodeIndex node : sequence_)
        for (int k : outgoing_[at(node)]) {
            const Branch& b = graph_.branches[at(k)];
            if (b.ref.thing == ChartThing::conductor)
                d.from_top[at(b.low)] = std::max(d.from_top[at(b.low)], d.from_top[at(node)] + 1);
        }
    for (auto node = sequence_.rbegin(); node != sequence_.rend(); ++node)
        for (int k : outgoing_[at(*node)]) {
            const Branch& b = graph_.branches[at(k)];
            if (b.ref.thing == ChartThing::conductor)
                d.from_floor[at(*node)] = std::max(d.from_floor[at(*node)], d.from_floor[at(b.low)] + 1);
        }
    return d;
}

}  // namespace yr
