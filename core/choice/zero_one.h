// A linear program over yes-or-no choices, solved to the proven least cost by COIN-OR CBC. Used wherever the
// plan asks for a best choice among many: loads to channels here, sizes of all cables at once.
#pragma once

#include <vector>

namespace yr {

struct ZeroOneTerm {
    int choice = 0;
    double factor = 1;
};

enum class RowSense { at_most, equal, at_least };

struct ZeroOneAnswer {
    bool feasible = false;
    double cost = 0;
    std::vector<char> chosen;  // by choice; empty where there is no answer
};

class ZeroOneProgram {
  public:
    int add_choice(double cost);               // returns its number
    int add_amount(double cost, double most);  // a quantity from 0 to `most` beside the choices; its number
    void add_row(std::vector<ZeroOneTerm> terms, RowSense sense, double right);
    [[nodiscard]] int choices() const { return static_cast<int>(cost_.size()); }

    // Never fails but by infeasibility. Safe to call from several threads: CBC itself is entered one at a
    // time.
    [[nodiscard]] ZeroOneAnswer solve() const;

  private:
    struct Row {
        std::vector<ZeroOneTerm> terms;
        RowSense sense;
        double right;
    };
    std::vector<double> cost_;
    std::vector<double> most_;  // 0: a choice; else an amount
    std::vector<Row> rows_;
};

}  // namespace yr
