#include "solve/lu_factors.h"

#include <Eigen/SparseLU>

namespace yr {

struct LuFactors::Impl {
    Eigen::SparseLU<Eigen::SparseMatrix<double>> lu;
};

LuFactors::LuFactors() : impl_(std::make_unique<Impl>()) {}
LuFactors::~LuFactors() = default;

void LuFactors::analyse(const Eigen::SparseMatrix<double>& pattern) {
    impl_->lu.analyzePattern(pattern);
}

bool LuFactors::factor(const Eigen::SparseMatrix<double>& matrix) {
    impl_->lu.factorize(matrix);
    return impl_->lu.info() == Eigen::Success;
}

Eigen::VectorXd LuFactors::solve(const Eigen::VectorXd& right) const {
    return impl_->lu.solve(right);
}

}  // namespace yr
