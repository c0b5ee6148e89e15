// What may be wrong, one thing at a time: each fault as a change to the compiled circuit, with how likely it
// is beforehand and how strong it may be.
#pragma once

#include <string>
#include <vector>

#include "catalog/fault_kinds.h"
#include "meter/reading.h"
#include "network/network.h"

namespace yr {

struct Fault {
    FaultKind kind = FaultKind::none;
    Id thing;                    // what is to be mended: run, ground point, battery, source, load
    Id other;                    // swapped: the other run
    double prior = 1;            // against the others
    double least = 0, most = 0;  // strength; 0, 0: it is there or not
    [[nodiscard]] bool graded() const { return most > 0; }
};

// Against the others: one's own weight where the plan says one.
[[nodiscard]] double likely(const Plan& plan, FaultKind kind);

// All single faults of a plan, `none` first. Body metal has joints only.
[[nodiscard]] std::vector<Fault> faults_of(const Plan& plan);

// Puts it into a compiled circuit. `strength` means what its kind says.
void put_in(Network& network, const Plan& plan, const Fault& fault, double strength);

// From least to most, evenly in logarithms; one value for what is not graded.
[[nodiscard]] std::vector<double> strengths(const Fault& fault, std::size_t count);

}  // namespace yr
