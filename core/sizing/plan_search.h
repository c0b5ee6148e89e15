// The search for the least sizes of a whole plan: a 0-1 program over the choices of all free runs, whose
// answers are solved as the real circuit; what breaks a limit there is cut away. For plan_sizing.cpp.
#pragma once

#include <optional>
#include <vector>

#include "choice/zero_one.h"
#include "sizing/sizing_model.h"

namespace yr {

// A cut: at least one of these choices is taken.
using Cut = std::vector<std::pair<std::size_t, int>>;

// What a program of yes-or-no choices and the real circuit say by turns, until the least is proved.
class Search {
    using Lever = SizingModel::Lever;

  public:
    Search(SizingModel& model, const SizingAsk& ask, const Deadline& deadline)
        : model_(model), ask_(ask), deadline_(deadline), rows_(model.drop_rows()) {
        count_sizes();
    }

    void run(SizingResult& result);

  private:
    struct Relaxed {
        Design design;
        double cost = 0;
    };

    // Different sizes count as whole kilograms beyond all copper, so that copper only parts equals.
    void count_sizes();

    // The cost in the goal's own unit.
    double shown(double cost) const;

    double cost_of(const Design& d) const;

    // Stock counts where money does: its metres are free, what exceeds it is bought.
    double stock_m(const WireSize& size) const;
    bool in_stock(const WireSize& size) const { return ask_.goal == SizingGoal::money && stock_m(size) > 0; }
    std::size_t size_index(const WireSize& size) const;
    double length_of(std::size_t f) const;
    // Money of the run's ends: what it costs without any length.
    double ends_money(std::size_t f) const;
    double money_per_m(const WireSize& size) const;

    // What the program chooses among: one run, or a load's feed and return together, where those that are no
    // better in anything are left out.
    struct Unit {
        std::vector<std::size_t> runs;
        std::vector<std::vector<int>> options;  // a choice for each of its runs
    };

    // What hangs on a run beyond its unit, by run: looked up once, for plans of a thousand cables.
    struct RunTies {
        std::vector<char> asks;   // a pair that is no unit, or a ground, hangs on what is chosen there
        std::vector<char> gives;  // the same, as the side that must be thick
        std::vector<std::vector<std::pair<std::size_t, const std::vector<double>*>>>
            rows;                                // that it has a term in, and its volts by choice
        std::vector<std::vector<char>> carries;  // by choice: surely, in every passing design
    };

    double choice_cost(std::size_t f, int c) const;

    void find_units();
    int count(std::size_t f) const { return static_cast<int>(model_.runs()[f].choices.size()); }

    // An option goes where another costs no more and loses no more in any row, and surely carries its
    // current.
    void leave_out_worse(Unit& unit, const RunTies& ties) const;
    RunTies ties_of_runs() const;

    // The cheapest that all rows and cuts leave. `end` says whether that is proved.
    struct Chosen {
        ZeroOneEnd end = ZeroOneEnd::failed;
        Relaxed relaxed{};
    };
    Chosen choose(double known_cost);
    // A cheap one that they leave, where one is found soon, and what none costs less than. Empty: the program
    // is so small that a proof is as cheap.
    struct Guess {
        std::optional<Relaxed> relaxed{};
        double bound = 0;
    };
    std::optional<Guess> guess();
    using Terms = std::vector<std::vector<std::vector<int>>>;  // by run and choice: the options that hold it
    // The program as rows and cuts make it now, and the number of each unit's options in it.
    struct Asked {
        ZeroOneProgram program;
        std::vector<std::vector<int>> ids;  // by unit and option
        Terms x{};
        bool impossible = false;  // a unit has no option
    };
    Asked asked() const;
    Relaxed answer_to(const Asked& asked, const std::vector<char>& chosen, double cost) const;

    // The rounds until the least is proved or time is up; throws DeadlineOver.
    struct Best {
        std::optional<Design> design;
        double cost = 0;
        Relaxed last{};  // that was looked at
        bool last_passes = false;
    };
    void search(SizingResult& result, Best& best);
    enum class Turn { over, again, dear };  // it is decided; it broke limits; no cheap one is left
    Turn cheap_turn(SizingResult& result, Best& best);
    // Some answer near the last one, be it not the least.
    void look_for_one(Best& best);
    // Whether the search goes on with what was chosen; the cuts that it breaks are there then.
    bool take(const Relaxed& relaxed, SizingResult& result, Best& best);
    // One search for what is cheaper than the best that is known, each answer solved as the real circuit
    // within it. Whether it came to its end: the best is the least then.
    bool prove(SizingResult& result, Best& best);

    ZeroOneProgram::Row row_of(const SizingModel::DropRow& row, const Terms& x) const;
    static ZeroOneProgram::Row row_of(const Cut& cut, const Terms& x);

    // Without pairs as units: which returns go with which feed. Grounds always.
    void add_pair_rows(ZeroOneProgram& program, const Terms& x) const;

    void add_size_rows(ZeroOneProgram& program, const Terms& x) const;

    void add_stock_rows(ZeroOneProgram& program, const Terms& x) const;

    // What a breach proves: with some runs even at their best ends and others a little better than they are
    // it still stands, so one of the rest must be better than that. Tried in so many orders of the runs.
    std::vector<Cut> cuts_of(const Breach& b, const Design& design, std::size_t orders);

    Cut cut_in_order(const Breach& b, Design lifted, const std::vector<Lever>& ordered);

    // One cut for each load or run that breaks a limit, in its worst state. False: a breach that nothing
    // mends.
    bool add_cuts(const Design& design, const std::vector<Breach>& broken, SizingResult& result);

    // Steps from a design that breaks limits to one that passes, each the cheapest for what it mends.
    std::optional<Design> repair(Design design, std::vector<Breach> broken);
    bool stands(const Design& d);
    // Thinner step by step, the dearest first, as far as every limit stands.
    Design thinned(Design design);
    // One that keeps every limit, be it not the least: what is near it mended, else from the thickest of all
    // down. Empty where even that does not keep them.
    std::optional<Design> some_answer(const Design& near);

    // Of equal cost, what stands in the plan already is kept.
    Design polished(Design best, double best_cost);

    void fill(SizingResult& result, const Design& best);

    // The limit that the next thinner size breaks.
    void what_binds(std::size_t f, const Design& best, SizedRun& sized);

    SizingModel& model_;
    const SizingAsk& ask_;
    const Deadline& deadline_;
    std::vector<SizingModel::DropRow> rows_;
    std::vector<Cut> cuts_;
    std::vector<Unit> units_;
    std::vector<const SizingModel::Pair*> loose_pairs_;  // those that are no unit: kept as rows
    std::vector<WireSize> sizes_;
    double per_size_ = 0;
    int next_look_ = 1;  // the turn from which some answer is looked for, where no cheap one is found
};

}  // namespace yr
