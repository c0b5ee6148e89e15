#include "solve/nodal_system.h"

#include <algorithm>
#include <numeric>

namespace yr {
namespace {

int root_of(std::vector<int>& parent, int k) {
    while (parent[static_cast<std::size_t>(k)] != k) {
        parent[static_cast<std::size_t>(k)] =
            parent[static_cast<std::size_t>(parent[static_cast<std::size_t>(k)])];
        k = parent[static_cast<std::size_t>(k)];
    }
    return k;
}

template <class F>
void each_pair(const Network& net, F&& use) {
    for (const auto& c : net.conductors) use(c.from, c.to);
    for (const auto& b : net.batteries) use(b.pos, b.neg);
    for (const auto& s : net.sources) {
        use(s.out, s.neg);
        use(s.in != kNoNode ? s.in : s.out, s.neg);
    }
    for (const auto& l : net.loads) use(l.pos, l.neg);
}

}  // namespace

void NodalSystem::find_islands(const Network& net) {
    // Islands of what conducts in this state. A load does not tie islands unless it is a plain resistance.
    std::vector<int> parent(net.nodes.size());
    std::iota(parent.begin(), parent.end(), 0);
    const auto join = [&](NodeIndex a, NodeIndex b) {
        parent[static_cast<std::size_t>(root_of(parent, a))] = root_of(parent, b);
    };
    for (const auto& c : net.conductors)
        if (c.closed) join(c.from, c.to);
    for (const auto& b : net.batteries) join(b.pos, b.neg);
    for (const auto& s : net.sources)
        if (s.works) join(s.out, s.neg);
    for (const auto& l : net.loads)
        if (l.kind == DrawKind::resistance && l.wanted) join(l.pos, l.neg);
    island_.resize(net.nodes.size());
    for (std::size_t k = 0; k < net.nodes.size(); ++k) island_[k] = root_of(parent, static_cast<int>(k));
    // Anchors: the reference, then a battery's negative post, else the island's own root.
    std::vector<char> held(net.nodes.size(), 0);
    anchors_.clear();
    const auto hold = [&](NodeIndex n) {
        char& done = held[static_cast<std::size_t>(island(n))];
        if (!done) anchors_.push_back(n);
        done = 1;
    };
    hold(net.reference);
    for (const auto& b : net.batteries) hold(b.neg);
    for (const auto& s : net.sources) hold(s.neg);
    for (std::size_t k = 0; k < net.nodes.size(); ++k) hold(static_cast<NodeIndex>(k));
}

void NodalSystem::prepare(const Network& net) {
    find_islands(net);
    std::vector<std::pair<NodeIndex, NodeIndex>> pairs;
    each_pair(net, [&](NodeIndex a, NodeIndex b) { pairs.emplace_back(std::max(a, b), std::min(a, b)); });
    conductors_ = net.conductors.size();
    batteries_ = net.batteries.size();
    sources_ = net.sources.size();
    const auto n = static_cast<Eigen::Index>(net.nodes.size());
    if (pairs == pairs_ && matrix_.rows() == n) return;
    pairs_ = std::move(pairs);
    place_.setIdentity(n);
    lay_pattern(n);
    Eigen::PermutationMatrix<Eigen::Dynamic, Eigen::Dynamic, int> from;
    Eigen::AMDOrdering<int>()(matrix_.selfadjointView<Eigen::Upper>(), from);
    place_ = from.inverse();
    lay_pattern(n);
    ldlt_.analyzePattern(matrix_);
    diagonal_.resize(net.nodes.size());
    for (int k = 0; k < n; ++k) diagonal_[static_cast<std::size_t>(k)] = entry(k, k);
    slots_.clear();
    for (const auto& [a, b] : pairs_) slots_.push_back({entry(a, a), entry(b, b), entry(a, b)});
}

void NodalSystem::lay_pattern(Eigen::Index n) {
    std::vector<Eigen::Triplet<double>> triplets;
    triplets.reserve(pairs_.size() + static_cast<std::size_t>(n));
    for (const auto& [a, b] : pairs_) {
        const int x = place_.indices()[a], y = place_.indices()[b];
        triplets.emplace_back(std::min(x, y), std::max(x, y), 0.0);
    }
    for (int k = 0; k < n; ++k) triplets.emplace_back(k, k, 1.0);
    matrix_.resize(n, n);
    matrix_.setFromTriplets(triplets.begin(), triplets.end());
}

void NodalSystem::clear() {
    std::fill(matrix_.valuePtr(), matrix_.valuePtr() + matrix_.nonZeros(), 0.0);
}

int NodalSystem::entry(NodeIndex a, NodeIndex b) const {
    const int x = place_.indices()[a], y = place_.indices()[b];
    const int row = std::min(x, y), column = std::max(x, y);
    const int* inner = matrix_.innerIndexPtr();
    const int* begin = inner + matrix_.outerIndexPtr()[column];
    const int* end = inner + matrix_.outerIndexPtr()[column + 1];
    return static_cast<int>(std::lower_bound(begin, end, row) - inner);
}

void NodalSystem::stamp(std::size_t slot, double g) {
    const Slot& s = slots_[slot];
    double* values = matrix_.valuePtr();
    if (s.diagonal_a == s.off_diagonal) return;  // both ends on one node
    values[s.diagonal_a] += g;
    values[s.diagonal_b] += g;
    values[s.off_diagonal] -= g;
}

void NodalSystem::stamp_ground(NodeIndex a, double g) {
    matrix_.valuePtr()[diagonal_[static_cast<std::size_t>(a)]] += g;
}

bool NodalSystem::factorise() {
    ldlt_.factorize(matrix_);
    if (ldlt_.info() != Eigen::Success) return false;
    positive_ = ldlt_.vectorD().minCoeff() > 0;
    return true;
}

const Eigen::VectorXd& NodalSystem::solve(const Eigen::VectorXd& rhs) {
    placed_.noalias() = place_ * rhs;
    solved_ = ldlt_.solve(placed_);
    x_.noalias() = place_.transpose() * solved_;
    return x_;
}

}  // namespace yr
