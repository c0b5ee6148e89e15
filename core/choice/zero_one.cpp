#include "choice/zero_one.h"

#include <coin/Cbc_C_Interface.h>

#include <memory>
#include <mutex>

namespace yr {
namespace {

struct CloseModel {
    void operator()(Cbc_Model* m) const { Cbc_deleteModel(m); }
};
using Model = std::unique_ptr<Cbc_Model, CloseModel>;

}  // namespace

int ZeroOneProgram::add_choice(double cost) {
    cost_.push_back(cost);
    most_.push_back(0);
    return choices() - 1;
}

int ZeroOneProgram::add_amount(double cost, double most) {
    cost_.push_back(cost);
    most_.push_back(most);
    return choices() - 1;
}

void ZeroOneProgram::add_row(std::vector<ZeroOneTerm> terms, RowSense sense, double right) {
    rows_.push_back({std::move(terms), sense, right});
}

ZeroOneAnswer ZeroOneProgram::solve() const {
    for (const Row& row : rows_) {  // a row without choices is decided already, and CBC does not like it
        if (!row.terms.empty()) continue;
        const bool holds = row.sense == RowSense::at_most    ? 0 <= row.right
                           : row.sense == RowSense::at_least ? 0 >= row.right
                                                             : row.right == 0;
        if (!holds) return {};
    }
    if (cost_.empty()) return {true, 0, {}};

    static std::mutex one_at_a_time;  // CBC keeps parameters in globals
    const std::lock_guard lock(one_at_a_time);
    const Model model(Cbc_newModel());
    Cbc_setParameter(model.get(), "logLevel", "0");
    Cbc_setParameter(model.get(), "ratioGap", "0");
    Cbc_setParameter(model.get(), "allowableGap", "0");
    for (std::size_t k = 0; k < cost_.size(); ++k) {
        const bool amount = most_[k] > 0;
        Cbc_addCol(model.get(), "", 0, amount ? most_[k] : 1, cost_[k], amount ? 0 : 1, 0, nullptr, nullptr);
    }
    std::vector<int> columns;
    std::vector<double> factors;
    for (const Row& row : rows_) {
        if (row.terms.empty()) continue;
        columns.clear(), factors.clear();
        for (const ZeroOneTerm& t : row.terms) columns.push_back(t.choice), factors.push_back(t.factor);
        const char sense = row.sense == RowSense::at_most ? 'L' : row.sense == RowSense::equal ? 'E' : 'G';
        Cbc_addRow(model.get(), "", static_cast<int>(columns.size()), columns.data(), factors.data(), sense,
                   row.right);
    }
    Cbc_solve(model.get());
    ZeroOneAnswer answer;
    if (!Cbc_isProvenOptimal(model.get())) return answer;
    const double* values = Cbc_getColSolution(model.get());
    if (!values) return answer;
    answer.feasible = true;
    for (std::size_t k = 0; k < cost_.size(); ++k) {
        answer.chosen.push_back(values[k] > 0.5);
        if (most_[k] > 0)
            answer.cost += cost_[k] * values[k];
        else if (answer.chosen.back())
            answer.cost += cost_[k];
    }
    return answer;
}

}  // namespace yr
