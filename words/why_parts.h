// Shared by the files that build explanations.
#pragma once

#include <fmt/format.h>

#include <cmath>

#include "catalog/assumptions.h"
#include "words/sentences.h"
#include "words/why.h"

namespace yr::words {

// What an explanation needs at hand.
struct WhyContext {
    const Plan& plan;
    const State& state;
    const Solution& solution;
    const Style& style;

    [[nodiscard]] std::string A(double v) const { return quantity(v, Dimension::current, style); }
    [[nodiscard]] std::string V(double v) const { return quantity(v, Dimension::voltage, style); }
    [[nodiscard]] std::string W(double v) const { return quantity(v, Dimension::power, style); }
    [[nodiscard]] std::string ohm(double v) const { return quantity(v, Dimension::resistance, style); }
    [[nodiscard]] std::string C(double v) const { return quantity(v, Dimension::temperature, style); }
    [[nodiscard]] std::string m(double v) const { return quantity(v, Dimension::length, style); }
    [[nodiscard]] std::string pc(double v) const { return quantity(v, Dimension::fraction, style); }

    // What this state assumed about a thing.
    void add_assumptions(Explanation& e, const Id& id) const {
        for (const AssumptionUse& use : solution.network.assumptions)
            if (use.id == id) e.assumptions.push_back(assumption_text(use, plan));
    }
};

template <class T>
[[nodiscard]] std::optional<std::size_t> index_of(const std::vector<T>& list, const Id& id) {
    for (std::size_t k = 0; k < list.size(); ++k)
        if (list[k].id == id) return k;
    return std::nullopt;
}

[[nodiscard]] Explanation why_supply(const ValueRef& ref, const WhyContext& c);  // sources, batteries, feeds

}  // namespace yr::words
