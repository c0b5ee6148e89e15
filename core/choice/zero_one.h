// A linear program over yes-or-no choices, solved to the proven least cost. Used wherever the plan asks for a
// best choice among many: loads to channels here, sizes of all cables at once.
//
// Two solvers stand behind it. GLPK works inside this process and answers small programs at once; what it has
// not proved in a moment goes to COIN-OR CBC, run as a program of its own: its licence (EPL-1.0) and
// the GPL may not be linked into one, and a crash of it is an error here and nothing more.
#pragma once

#include <atomic>
#include <functional>
#include <limits>
#include <optional>
#include <vector>

namespace yr {

struct ZeroOneTerm {
    int choice = 0;
    double factor = 1;
};

enum class RowSense { at_most, equal, at_least };

enum class ZeroOneEnd {
    optimal,     // proved least
    infeasible,  // proved that no choice keeps all rows
    stopped,     // cancelled, or out of time: nothing is proved
    failed       // no solver could be run, or it broke: nothing is proved
};

struct ZeroOneAnswer {
    ZeroOneEnd end = ZeroOneEnd::failed;
    double cost = 0;
    std::vector<char> chosen;  // by choice; empty unless optimal
    [[nodiscard]] bool optimal() const { return end == ZeroOneEnd::optimal; }
};

// How long it may take, and what ends it sooner; looked at at least every tenth of a second.
struct ZeroOneLimits {
    double most_s = std::numeric_limits<double>::infinity();
    const std::atomic<bool>* cancel = nullptr;
    double inside_s = 0.5;  // how long GLPK tries before CBC is asked; infinity: GLPK alone; 0: CBC alone
    // What an answer costs that is known already: only choices that can stand in one no dearer are looked at.
    double known_cost = std::numeric_limits<double>::infinity();
    // CBC works the program over before it solves it. Of an assignment, whose relaxed answer is whole but for
    // a few choices, that takes four fifths of the time (1 000 loads: 8.2 s, 1.6 without).
    bool worked_over = true;
};

// An answer that keeps every row and is cheap, found at once; nothing is proved of it but what lies below.
struct ZeroOneGuess {
    double cost = 0;
    std::vector<char> chosen;  // by choice; empty: none was found soon
    double bound = 0;          // no answer costs less
};

class ZeroOneProgram {
  public:
    struct Row {
        std::vector<ZeroOneTerm> terms;
        RowSense sense;
        double right;
    };
    // Asked of an answer that keeps all rows: further rows that it breaks and that every good answer keeps.
    // None: it is good. May throw; the search ends then and throws the same.
    using Objection = std::function<std::vector<Row>(const std::vector<char>& chosen)>;

    int add_choice(double cost);               // returns its number
    int add_amount(double cost, double most);  // a quantity from 0 to `most` beside the choices; its number
    void add_row(std::vector<ZeroOneTerm> terms, RowSense sense, double right);
    [[nodiscard]] int choices() const { return static_cast<int>(cost_.size()); }

    // Safe to call from several threads at a time.
    [[nodiscard]] ZeroOneAnswer solve(const ZeroOneLimits& limits = {}) const;
    // The least that nobody objects to: one search, into which the rows come as answers are refused. GLPK
    // alone; `stopped` where it does not end in time: the objections were worth hearing all the same.
    [[nodiscard]] ZeroOneAnswer solve_asking(const ZeroOneLimits& limits, const Objection& objection) const;
    // Empty: the program is so small that solve() is as fast, or it has no answer, or time is up.
    [[nodiscard]] std::optional<ZeroOneGuess> guess(const ZeroOneLimits& limits = {}) const;

    [[nodiscard]] const std::vector<double>& costs() const { return cost_; }
    [[nodiscard]] const std::vector<double>& mosts() const { return most_; }
    [[nodiscard]] const std::vector<Row>& rows() const { return rows_; }

  private:
    [[nodiscard]] bool all_finite() const;

    std::vector<double> cost_;
    std::vector<double> most_;  // 0: a choice; else an amount
    std::vector<Row> rows_;     // none without terms
    bool impossible_ = false;   // a row without terms does not hold, or a number is none
};

}  // namespace yr
