// The linear system that each Newton step solves: symmetric, pattern found once, values stamped in place.
// For operating_point.cpp.
#pragma once

#include <Eigen/SparseCholesky>
#include <vector>

#include "network/network.h"

namespace yr {

class NodalSystem {
  public:
    // Lays out the pattern of this network; cheap when it is the pattern of the last call.
    void prepare(const Network& network);

    void clear();
    // A conductance in the place of that element; see slot_of_*.
    void stamp(std::size_t slot, double g);
    // Places of the elements, in the network's order. A source has two: output, and input where it has one.
    [[nodiscard]] std::size_t slot_of_battery(std::size_t k) const { return conductors_ + k; }
    [[nodiscard]] std::size_t slot_of_output(std::size_t k) const { return conductors_ + batteries_ + 2 * k; }
    [[nodiscard]] std::size_t slot_of_input(std::size_t k) const { return slot_of_output(k) + 1; }
    [[nodiscard]] std::size_t slot_of_load(std::size_t k) const { return slot_of_output(sources_) + k; }
    void stamp_ground(NodeIndex a, double g);

    // False when the matrix is singular. `positive` says whether it is positive definite, which it is exactly
    // on the branch that light load leads to.
    [[nodiscard]] bool factorise();
    [[nodiscard]] bool positive() const { return positive_; }
    [[nodiscard]] const Eigen::VectorXd& solve(const Eigen::VectorXd& rhs);

    [[nodiscard]] const std::vector<NodeIndex>& anchors() const { return anchors_; }
    [[nodiscard]] int island(NodeIndex n) const { return island_[static_cast<std::size_t>(n)]; }

  private:
    void find_islands(const Network& network);
    void lay_pattern(Eigen::Index n);
    [[nodiscard]] int entry(NodeIndex a, NodeIndex b) const;  // index of that value in the matrix

    struct Slot {
        int diagonal_a, diagonal_b, off_diagonal;
    };

    std::vector<std::pair<NodeIndex, NodeIndex>> pairs_;
    std::vector<Slot> slots_;
    std::vector<int> diagonal_;
    std::size_t conductors_ = 0, batteries_ = 0, sources_ = 0;
    std::vector<NodeIndex> anchors_;  // one node of each island, held at 0 V
    std::vector<int> island_;
    // Upper triangle, nodes in the order that fills in least: put in order once a pattern, not once a
    // factorisation.
    Eigen::SparseMatrix<double> matrix_;
    Eigen::PermutationMatrix<Eigen::Dynamic, Eigen::Dynamic, int> place_;  // of each node
    Eigen::VectorXd placed_, solved_, x_;
    Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>, Eigen::Upper, Eigen::NaturalOrdering<int>> ldlt_;
    bool positive_ = false;
};

}  // namespace yr
