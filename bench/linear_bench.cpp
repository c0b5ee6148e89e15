// The linear system of one Newton step, our way (Eigen's LDL' in the order of AMD) against SuiteSparse's KLU
// and CHOLMOD on the same matrix in one run: the pattern looked at once, then factors and a solution.
// The answers are compared before anything is timed.
#include <benchmark/benchmark.h>
#include <cholmod.h>
#include <klu.h>

#include "plan/plan_json.h"
#include "solve/nodal_system.h"
#include "support/random_plan.h"

namespace {

using namespace yr;

struct Stamp {
    std::size_t slot;
    NodeIndex a, b;
    double g;
};

// Conductances of what this plan is made of, near enough to those of a solve: copper at 20 C, joints; loads
// as what they draw at 12 V.
struct Stamped {
    Network net;
    std::vector<Stamp> stamps;
    double anchor_S = 1;  // of each island: so that the answers can be compared to the last digits

    explicit Stamped(const Plan& plan) : net(compile(plan, plan.states.back())) {
        NodalSystem system;
        system.prepare(net);
        for (std::size_t k = 0; k < net.conductors.size(); ++k) {
            const ConductorElement& c = net.conductors[k];
            if (c.closed) stamps.push_back({k, c.from, c.to, 1 / (c.fixed_ohm + c.cable20_ohm + 1e-6)});
        }
        for (std::size_t k = 0; k < net.batteries.size(); ++k)
            stamps.push_back({system.slot_of_battery(k), net.batteries[k].pos, net.batteries[k].neg,
                              1 / net.batteries[k].R0_ohm});
        for (std::size_t k = 0; k < net.loads.size(); ++k)
            if (net.loads[k].pos != kNoNode && net.loads[k].neg != kNoNode)
                stamps.push_back({system.slot_of_load(k), net.loads[k].pos, net.loads[k].neg, 0.4});
    }

    [[nodiscard]] Eigen::VectorXd amps() const {
        Eigen::VectorXd v = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(net.nodes.size()));
        for (const BatteryElement& b : net.batteries) v[b.pos] += 100, v[b.neg] -= 100;
        return v;
    }
};

Plan plan_of(std::int64_t loads) {
    return loads ? test::wide_plan(static_cast<int>(loads)) : *load_plan(test::demo_path(test::kDemos[0]));
}

void put(const Stamped& from, NodalSystem& system) {
    system.clear();
    for (const NodeIndex n : system.anchors()) system.stamp_ground(n, from.anchor_S);
    for (const Stamp& s : from.stamps) system.stamp(s.slot, s.g);
}

// The same matrix by columns: the whole of it, or its upper triangle.
Eigen::SparseMatrix<double> matrix_of(const Stamped& from, bool upper_alone) {
    NodalSystem system;
    system.prepare(from.net);
    std::vector<Eigen::Triplet<double>> all;
    for (const NodeIndex n : system.anchors()) all.emplace_back(n, n, from.anchor_S);
    for (std::size_t k = 0; k < from.net.nodes.size(); ++k)
        all.emplace_back(static_cast<int>(k), static_cast<int>(k), 0.0);
    for (const Stamp& s : from.stamps) {
        if (s.a == s.b) continue;
        all.emplace_back(s.a, s.a, s.g), all.emplace_back(s.b, s.b, s.g);
        all.emplace_back(std::min(s.a, s.b), std::max(s.a, s.b), -s.g);
        if (!upper_alone) all.emplace_back(std::max(s.a, s.b), std::min(s.a, s.b), -s.g);
    }
    const auto n = static_cast<Eigen::Index>(from.net.nodes.size());
    Eigen::SparseMatrix<double> m(n, n);
    m.setFromTriplets(all.begin(), all.end());
    m.makeCompressed();
    return m;
}

Eigen::VectorXd ours_of(const Stamped& from) {
    NodalSystem system;
    system.prepare(from.net);
    put(from, system);
    if (!system.factorise()) return {};
    return system.solve(from.amps());
}

void same_answer(benchmark::State& b, const Eigen::VectorXd& theirs, const Stamped& from) {
    const Eigen::VectorXd ours = ours_of(from);
    if (ours.size() != theirs.size() ||
        !((ours - theirs).cwiseAbs().maxCoeff() < 1e-5 * ours.cwiseAbs().maxCoeff()))
        b.SkipWithError("the answers differ");
}

void pattern_ours(benchmark::State& b) {
    const Stamped from(plan_of(b.range(0)));
    for (auto _ : b) {
        NodalSystem system;
        system.prepare(from.net);
        benchmark::DoNotOptimize(system.anchors().data());
    }
}

void factors_ours(benchmark::State& b) {
    const Stamped from(plan_of(b.range(0)));
    const Eigen::VectorXd amps = from.amps();
    NodalSystem system;
    system.prepare(from.net);
    for (auto _ : b) {
        put(from, system);
        benchmark::DoNotOptimize(system.factorise());
        benchmark::DoNotOptimize(system.solve(amps).data());
    }
}

class Klu {
  public:
    explicit Klu(const Stamped& from) : m_(matrix_of(from, false)) {
        klu_defaults(&common_);
        n_ = static_cast<int>(m_.rows());
    }
    ~Klu() {
        klu_free_numeric(&numeric_, &common_);
        klu_free_symbolic(&symbolic_, &common_);
    }
    Klu(const Klu&) = delete;
    Klu& operator=(const Klu&) = delete;
    void look() {
        klu_free_symbolic(&symbolic_, &common_);
        symbolic_ = klu_analyze(n_, m_.outerIndexPtr(), m_.innerIndexPtr(), &common_);
    }
    void factor() {
        if (!numeric_)
            numeric_ = klu_factor(m_.outerIndexPtr(), m_.innerIndexPtr(), m_.valuePtr(), symbolic_, &common_);
        else
            klu_refactor(m_.outerIndexPtr(), m_.innerIndexPtr(), m_.valuePtr(), symbolic_, numeric_,
                         &common_);
    }
    void solve(Eigen::VectorXd& x) { klu_solve(symbolic_, numeric_, n_, 1, x.data(), &common_); }

  private:
    Eigen::SparseMatrix<double> m_;
    int n_ = 0;
    klu_common common_{};
    klu_symbolic* symbolic_ = nullptr;
    klu_numeric* numeric_ = nullptr;
};

void pattern_klu(benchmark::State& b) {
    Klu klu{Stamped(plan_of(b.range(0)))};
    for (auto _ : b) klu.look();
}

void factors_klu(benchmark::State& b) {
    const Stamped from(plan_of(b.range(0)));
    Klu klu(from);
    klu.look();
    klu.factor();
    const Eigen::VectorXd amps = from.amps();
    Eigen::VectorXd x = amps;
    klu.solve(x);
    same_answer(b, x, from);
    for (auto _ : b) {
        klu.factor();
        x = amps;
        klu.solve(x);
    }
}

class Cholmod {
  public:
    Cholmod(const Stamped& from, int supernodal) : m_(matrix_of(from, true)) {
        cholmod_start(&common_);
        common_.supernodal = supernodal;
        common_.nmethods = 1;
        common_.method[0].ordering = CHOLMOD_AMD;
        a_.nrow = a_.ncol = static_cast<std::size_t>(m_.rows());
        a_.nzmax = static_cast<std::size_t>(m_.nonZeros());
        a_.p = m_.outerIndexPtr();
        a_.i = m_.innerIndexPtr();
        a_.x = m_.valuePtr();
        a_.stype = 1;
        a_.itype = CHOLMOD_INT;
        a_.xtype = CHOLMOD_REAL;
        a_.dtype = CHOLMOD_DOUBLE;
        a_.sorted = a_.packed = 1;
    }
    ~Cholmod() {
        cholmod_free_factor(&factor_, &common_);
        cholmod_finish(&common_);
    }
    Cholmod(const Cholmod&) = delete;
    Cholmod& operator=(const Cholmod&) = delete;
    void look() {
        cholmod_free_factor(&factor_, &common_);
        factor_ = cholmod_analyze(&a_, &common_);
    }
    void factor() { cholmod_factorize(&a_, factor_, &common_); }
    [[nodiscard]] Eigen::VectorXd solve(Eigen::VectorXd amps) {
        cholmod_dense rhs{};
        rhs.nrow = rhs.d = rhs.nzmax = static_cast<std::size_t>(amps.size());
        rhs.ncol = 1;
        rhs.x = amps.data();
        rhs.xtype = CHOLMOD_REAL;
        rhs.dtype = CHOLMOD_DOUBLE;
        cholmod_dense* x = cholmod_solve(CHOLMOD_A, factor_, &rhs, &common_);
        const Eigen::VectorXd answer = Eigen::Map<Eigen::VectorXd>(static_cast<double*>(x->x), amps.size());
        cholmod_free_dense(&x, &common_);
        return answer;
    }

  private:
    Eigen::SparseMatrix<double> m_;
    cholmod_common common_{};
    cholmod_sparse a_{};
    cholmod_factor* factor_ = nullptr;
};

void pattern_cholmod(benchmark::State& b) {
    Cholmod cholmod{Stamped(plan_of(b.range(0))), CHOLMOD_SIMPLICIAL};
    for (auto _ : b) cholmod.look();
}

void factors_cholmod(benchmark::State& b, int supernodal) {
    const Stamped from(plan_of(b.range(0)));
    Cholmod cholmod(from, supernodal);
    cholmod.look();
    cholmod.factor();
    const Eigen::VectorXd amps = from.amps();
    same_answer(b, cholmod.solve(amps), from);
    for (auto _ : b) {
        cholmod.factor();
        benchmark::DoNotOptimize(cholmod.solve(amps));
    }
}

void sizes(benchmark::internal::Benchmark* b) {
    b->ArgName("loads")->Arg(0)->Arg(1000)->Arg(10000)->Arg(100000)->Unit(benchmark::kMicrosecond);
}
BENCHMARK(pattern_ours)->Apply(sizes);
BENCHMARK(pattern_klu)->Apply(sizes);
BENCHMARK(pattern_cholmod)->Apply(sizes);
BENCHMARK(factors_ours)->Apply(sizes);
BENCHMARK(factors_klu)->Apply(sizes);
BENCHMARK_CAPTURE(factors_cholmod, simplicial, CHOLMOD_SIMPLICIAL)->Apply(sizes);
BENCHMARK_CAPTURE(factors_cholmod, supernodal, CHOLMOD_SUPERNODAL)->Apply(sizes);

}  // namespace

BENCHMARK_MAIN();
