// What a job costs: packs of parts, consumables, hours as a range, travel, margin, tax; and what a change
// costs once part of it is bought, cut and fitted.
#pragma once

#include "fabricate/parts.h"
#include "fabricate/work.h"

namespace yr {

struct QuoteLine {
    std::string key, what;
    double quantity = 0;
    bool metres = false;
    double packs = 0;  // bought, each of `pack`
    double pack = 1;
    std::optional<double> price;  // of all packs; empty: not known
    std::string supplier, dated;
    bool brought = false;  // by the customer: not in the sum
    bool bought = false;   // already
};

struct Quote {
    std::vector<QuoteLine> lines;
    double parts = 0, consumables = 0, margin = 0, travel = 0;
    double least_h = 0, most_h = 0;  // of work
    double least_work = 0, most_work = 0;
    double least_tax = 0, most_tax = 0;
    double least = 0, most = 0;  // all together
    std::size_t unpriced = 0;    // lines without a price: the sum is without them
    bool rate_known = false;
};

// What the shop says of a line of the parts: by its key, or by its words as one types them ("2 AWG red").
[[nodiscard]] const Price* price_of(const Plan& plan, const std::string& key, const std::string& what);

[[nodiscard]] Quote quote(const Plan& plan, const PartsAsk& ask = {});

// What is ordered from one supplier: neither bought yet nor brought by the customer.
struct OrderList {
    std::string supplier;  // empty: of what nobody said where it comes from
    std::vector<QuoteLine> lines;
    double price = 0;  // of those whose price is known
    std::size_t unpriced = 0;
};
// By supplier as alphabets go, what has none last; each line of the quote stands in at most one.
[[nodiscard]] std::vector<OrderList> order_lists(const Quote& quote);

enum class ChangeKind { make, remake, undo, waste, buy, left_over };

struct ChangeLine {
    ChangeKind kind{};
    Id run;            // make, remake, undo, waste
    std::string part;  // buy, left_over: what
    double quantity = 0;
    bool metres = false;
    std::optional<double> price;
    std::vector<std::string> marks;  // what was done to it already: "made", "laid", "connected"
};
struct ChangeOrder {
    std::vector<ChangeLine> lines;
    double minutes = 0;  // more work, undoing included
    double price = 0;    // of what is bought more, as far as it is known
};

// From where one stands: `from` with its marks is how far the work is, `to` how it shall be (an option of
// it). A cable that is made and stays the same is kept; one that is made and changes is wasted, and its
// copper and ends with it. `buy` is what is wanted beyond what `from` wanted; what is bought and no longer
// wanted is left over.
[[nodiscard]] ChangeOrder change_order(const Plan& from, const Plan& to);

}  // namespace yr
