#include "guard/stiff_stepper.h"

#include <algorithm>
#include <boost/numeric/odeint/stepper/rosenbrock4.hpp>
#include <boost/numeric/odeint/stepper/rosenbrock4_controller.hpp>
#include <boost/numeric/odeint/stepper/rosenbrock4_dense_output.hpp>
#include <cmath>
#include <stdexcept>

namespace yr {
namespace {

namespace odeint = boost::numeric::odeint;
using Vector = boost::numeric::ublas::vector<double>;
using Matrix = boost::numeric::ublas::matrix<double>;
using Values = StiffStepper::Values;

constexpr double kAbsolute = 1e-7, kRelative = 1e-6;
constexpr double kFirstStep_s = 1e-7;
constexpr double kNudge = 1e-6;  // for derivatives by differences

Values plain(const Vector& x) {
    return {x.begin(), x.end()};
}

Vector packed(const Values& x) {
    Vector v(x.size());
    std::copy(x.begin(), x.end(), v.begin());
    return v;
}

// Odeint has no other way out of the right side; step() catches it.
struct NoSlopes : std::runtime_error {
    NoSlopes() : std::runtime_error("no slopes") {}
};

Values slopes_at(const StiffStepper::Slopes& slopes, const Values& x, double t) {
    Values dxdt(x.size(), 0);
    if (!slopes(x, t, dxdt)) throw NoSlopes();
    return dxdt;
}

struct Right {
    const StiffStepper::Slopes* slopes;
    void operator()(const Vector& x, Vector& dxdt, double t) const {
        const Values d = slopes_at(*slopes, plain(x), t);
        std::copy(d.begin(), d.end(), dxdt.begin());
    }
};

struct Jacobian {
    const StiffStepper::Slopes* slopes;
    void operator()(const Vector& x, Matrix& j, double t, Vector& dfdt) const {
        Values here = plain(x);
        const Values f0 = slopes_at(*slopes, here, t);
        for (std::size_t c = 0; c < here.size(); ++c) {
            const double kept = here[c], h = kNudge * std::max(1.0, std::abs(kept));
            here[c] = kept + h;
            const Values f1 = slopes_at(*slopes, here, t);
            here[c] = kept;
            for (std::size_t r = 0; r < here.size(); ++r) j(r, c) = (f1[r] - f0[r]) / h;
        }
        std::fill(dfdt.begin(), dfdt.end(), 0.0);
    }
};

using Controller = odeint::rosenbrock4_controller<odeint::rosenbrock4<double>>;

}  // namespace

struct StiffStepper::Impl {
    Slopes slopes;
    double longest_s;
    std::unique_ptr<odeint::rosenbrock4_dense_output<Controller>> dense;
};

StiffStepper::StiffStepper(Slopes slopes, double longest_s)
    : impl_(new Impl{std::move(slopes), longest_s, nullptr}) {}

StiffStepper::~StiffStepper() = default;

void StiffStepper::begin(const Values& x, double t) {
    impl_->dense = std::make_unique<odeint::rosenbrock4_dense_output<Controller>>(
        Controller(kAbsolute, kRelative, impl_->longest_s));
    impl_->dense->initialize(packed(x), t, std::min(kFirstStep_s, impl_->longest_s));
}

bool StiffStepper::step() {
    try {
        impl_->dense->do_step(std::make_pair(Right{&impl_->slopes}, Jacobian{&impl_->slopes}));
        return true;
    } catch (const std::runtime_error&) {  // NoSlopes, or Odeint's step that shrinks to nothing
        return false;
    }
}

double StiffStepper::t_s() const {
    return impl_->dense->current_time();
}

Values StiffStepper::at(double t) const {
    Vector x(impl_->dense->current_state().size());
    impl_->dense->calc_state(t, x);
    return plain(x);
}

}  // namespace yr
