// The linear system that each Newton step solves: symmetric, pattern found once, values stamped in place.
// For operating_point.cpp.
#pragma once

#include <Eigen/Sparse>
#include <vector>

#include "network/network.h"

namespace yr {

class NodalSystem {
  public:
    // Lays out the pattern of this network; cheap when it is the pattern of the last call.
    void prepare(const Network& network);

    void clear();
    // A conductance between two nodes.
    void stamp(NodeIndex a, NodeIndex b, double g);
    void stamp_ground(NodeIndex a, double g);

    // False when the matrix is singular. `positive` says whether it is positive definite, which it is exactly on
    // the branch that light load leads to.
    [[nodiscard]] bool factorise();
    [[nodiscard]] bool positive() const { return positive_; }
    [[nodiscard]] const Eigen::VectorXd& solve(const Eigen::VectorXd& rhs);

    [[nodiscard]] const std::vector<NodeIndex>& anchors() const { return anchors_; }
    [[nodiscard]] int island(NodeIndex n) const { return island_[static_cast<std::size_t>(n)]; }

  private:
    void find_islands(const Network& network);
    double& entry(NodeIndex a, NodeIndex b);

    std::vector<std::pair<NodeIndex, NodeIndex>> pairs_;
    std::vector<NodeIndex> anchors_;  // one node of each island, held at 0 V
    std::vector<int> island_;
    Eigen::SparseMatrix<double> matrix_;  // lower triangle
    Eigen::VectorXd x_;
    Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>, Eigen::Lower, Eigen::AMDOrdering<int>> ldlt_;
    bool positive_ = false;
};

}  // namespace yr
