// The families of rules; each appends what it finds. For findings.cpp.
#pragma once

#include "inspect/findings.h"

namespace yr {

struct Case {
    const Plan& plan;
    const std::vector<Solution>& solutions;  // by state
    bool with_mends;
};

void inspect_drops(const Case& c, std::vector<Finding>& out);   // drop, no operating point, dead, key rail
void inspect_cables(const Case& c, std::vector<Finding>& out);  // ampacity, temperature, thin returns
void inspect_protection(const Case& c, std::vector<Finding>& out);  // fuses
void inspect_supply(const Case& c, std::vector<Finding>& out);      // sources, batteries, assumptions

// Adds `finding`, or replaces the one of the same kind and place when this one is worse (larger value /
// limit).
void keep_worst(std::vector<Finding>& out, std::size_t from, Finding finding);

}  // namespace yr
