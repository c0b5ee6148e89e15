// Factors of a sparse matrix that is not symmetric (Eigen's SparseLU, COLAMD ordering), compiled once for
// whoever asks.
#pragma once

#include <Eigen/SparseCore>
#include <memory>

namespace yr {

class LuFactors {
  public:
    LuFactors();
    ~LuFactors();
    LuFactors(const LuFactors&) = delete;
    LuFactors& operator=(const LuFactors&) = delete;

    // The order of elimination, kept for all matrices of that pattern.
    void analyse(const Eigen::SparseMatrix<double>& pattern);
    // False: singular.
    [[nodiscard]] bool factor(const Eigen::SparseMatrix<double>& matrix);
    // Only behind a factor() that was true.
    [[nodiscard]] Eigen::VectorXd solve(const Eigen::VectorXd& right) const;

  private:
    struct Impl;
    std::unique_ptr<Impl> impl_;
};

}  // namespace yr
