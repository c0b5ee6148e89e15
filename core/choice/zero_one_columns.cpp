#include <algorithm>
#include <chrono>
#include <cmath>
#include <numeric>

#include "choice/glpk_problem.h"
#include "choice/zero_one_solvers.h"

namespace yr {
namespace {

constexpr std::size_t kCheapest = 4;  // choices that a row which must be reached begins with
constexpr std::size_t kAtOnce = 2;    // times the rows: how many choices come in at once
constexpr double kMissed = 1e3;       // times the dearest choice: what a unit missed of such a row costs
constexpr double kTooCheap = 1e-9;    // of the dearest choice: what a price must be off by
constexpr int kMostRounds = 200;

// A choice's terms, by row.
struct InRow {
    int row = 0;
    double factor = 0;
};

class Columns {
  public:
    Columns(const ZeroOneProgram& program, const ZeroOneLimits& limits)
        : program_(program), limits_(limits), problem_(glp_create_prob()) {
        glp_term_out(GLP_OFF);
        transpose();
        begin();
    }

    std::optional<Relaxed> solve() {
        const auto begun = std::chrono::steady_clock::now();
        for (int round = 0; round < kMostRounds; ++round) {
            ZeroOneLimits left = limits_;
            left.most_s -= std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
            if (left.most_s <= 0 || (limits_.cancel && *limits_.cancel)) return std::nullopt;
            if (simplex(p(), milliseconds(left), GLP_PRIMAL) != 0 || glp_get_status(p()) != GLP_OPT)
                return std::nullopt;
            const std::vector<double> adds = adds_now();
            if (take_in(adds)) continue;
            if (!reaches_all()) return std::nullopt;
            if (missed_.empty()) return relaxed(adds);
            close_missed();
        }
        return std::nullopt;
    }

  private:
    glp_prob* p() const { return problem_.get(); }
    std::size_t count() const { return program_.costs().size(); }
    bool is_amount(std::size_t k) const { return program_.mosts()[k] > 0; }

    void transpose() {
        terms_.resize(count());
        int number = 0;
        for (const ZeroOneProgram::Row& row : program_.rows()) {
            ++number;
            for (const ZeroOneTerm& t : once_each(row.terms))
                terms_[static_cast<std::size_t>(t.choice)].push_back({number, t.factor});
        }
        for (const double c : program_.costs()) dearest_ = std::max(dearest_, std::abs(c));
        column_.assign(count(), 0);
    }

    // All rows, each that nothing chosen does not keep with what it misses at a high price; and the cheapest.
    void begin() {
        const auto& rows = program_.rows();
        glp_set_obj_dir(p(), GLP_MIN);
        if (!rows.empty()) glp_add_rows(p(), static_cast<int>(rows.size()));
        for (std::size_t r = 0; r < rows.size(); ++r) {
            const ZeroOneProgram::Row& row = rows[r];
            const int number = static_cast<int>(r) + 1;
            set_bounds(p(), number, row);
            const bool short_of = row.sense != RowSense::at_most && row.right > 0;
            const bool beyond = row.sense != RowSense::at_least && row.right < 0;
            if (!short_of && !beyond) continue;
            add_missed(number, short_of ? 1 : -1);
            take_cheapest(row);
        }
        for (std::size_t k = 0; k < count(); ++k)
            if (is_amount(k)) take(k);
    }

    void add_missed(int row, double factor) {
        const int column = glp_add_cols(p(), 1);
        glp_set_col_bnds(p(), column, GLP_LO, 0, 0);
        glp_set_obj_coef(p(), column, kMissed * dearest_);
        const std::vector<int> rows{0, row};
        const std::vector<double> factors{0, factor};
        glp_set_mat_col(p(), column, 1, rows.data(), factors.data());
        missed_.push_back(column);
    }

    void take_cheapest(const ZeroOneProgram::Row& row) {
        std::vector<ZeroOneTerm> terms = row.terms;
        const std::size_t few = std::min(kCheapest, terms.size());
        std::partial_sort(terms.begin(), terms.begin() + static_cast<std::ptrdiff_t>(few), terms.end(),
                          [&](const ZeroOneTerm& a, const ZeroOneTerm& b) {
                              return program_.costs()[static_cast<std::size_t>(a.choice)] <
                                     program_.costs()[static_cast<std::size_t>(b.choice)];
                          });
        for (std::size_t k = 0; k < few; ++k) take(static_cast<std::size_t>(terms[k].choice));
    }

    void take(std::size_t k) {
        if (column_[k] > 0) return;
        const int column = column_[k] = glp_add_cols(p(), 1);
        glp_set_col_bnds(p(), column, GLP_DB, 0, is_amount(k) ? program_.mosts()[k] : 1);
        glp_set_obj_coef(p(), column, program_.costs()[k]);
        std::vector<int> rows{0};
        std::vector<double> factors{0};
        for (const InRow& t : terms_[k]) rows.push_back(t.row), factors.push_back(t.factor);
        glp_set_mat_col(p(), column, static_cast<int>(rows.size()) - 1, rows.data(), factors.data());
    }

    // What each choice that is 0 adds by today's prices; below 0: it is too cheap to be left out.
    std::vector<double> adds_now() const {
        std::vector<double> price(program_.rows().size() + 1, 0);
        for (std::size_t r = 1; r < price.size(); ++r) price[r] = glp_get_row_dual(p(), static_cast<int>(r));
        std::vector<double> adds(count(), 0);
        for (std::size_t k = 0; k < count(); ++k) {
            if (column_[k] > 0) {
                if (glp_get_col_stat(p(), column_[k]) == GLP_NL)
                    adds[k] = std::max(0.0, glp_get_col_dual(p(), column_[k]));
                continue;
            }
            adds[k] = program_.costs()[k];
            for (const InRow& t : terms_[k]) adds[k] -= t.factor * price[static_cast<std::size_t>(t.row)];
        }
        return adds;
    }

    bool take_in(const std::vector<double>& adds) {
        std::vector<std::size_t> cheap;
        for (std::size_t k = 0; k < count(); ++k)
            if (column_[k] == 0 && adds[k] < -kTooCheap * std::max(1.0, dearest_)) cheap.push_back(k);
        const std::size_t most =
            std::min(cheap.size(), kAtOnce * std::max<std::size_t>(50, program_.rows().size()));
        std::partial_sort(cheap.begin(), cheap.begin() + static_cast<std::ptrdiff_t>(most), cheap.end(),
                          [&](std::size_t a, std::size_t b) { return adds[a] < adds[b]; });
        for (std::size_t k = 0; k < most; ++k) take(cheap[k]);
        return most > 0;
    }

    bool reaches_all() const {
        return std::all_of(missed_.begin(), missed_.end(),
                           [&](int column) { return glp_get_col_prim(p(), column) < 1e-7; });
    }

    // At its price even the little that rounding leaves there counts.
    void close_missed() {
        for (const int column : missed_) glp_set_col_bnds(p(), column, GLP_FX, 0, 0);
        missed_.clear();
    }

    Relaxed relaxed(std::vector<double> adds) const {
        for (double& a : adds) a = std::max(0.0, a);
        return {glp_get_obj_val(p()), std::move(adds)};
    }

    const ZeroOneProgram& program_;
    const ZeroOneLimits& limits_;
    GlpkProblem problem_;
    std::vector<std::vector<InRow>> terms_;  // by choice
    std::vector<int> column_;                // by choice, from 1; 0: left out so far
    std::vector<int> missed_;
    double dearest_ = 0;
};

}  // namespace

std::optional<Relaxed> relax_by_columns(const ZeroOneProgram& program, const ZeroOneLimits& limits) {
    return Columns(program, limits).solve();
}

}  // namespace yr
