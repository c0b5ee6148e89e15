// The pages of a job's dossier as sections of plain lines and tables; who prints them sets them.
#pragma once

#include <string>
#include <vector>

#include "inspect/findings.h"
#include "io/table_xlsx.h"
#include "meter/records.h"

namespace yr::words {

struct DossierSection {
    std::string title;
    std::vector<std::string> lines;  // before the table
    Sheet table;                     // no heads: none
    std::vector<std::string> after;  // behind it
    std::vector<double> widths{};    // of its columns, shares; empty: as their texts ask
    bool own_page = true;            // begins a page
};

// What goes in: worked out once by whoever prints.
struct DossierAsk {
    const Plan& plan;
    const std::vector<Solution>& solutions;  // by state
    const std::vector<Finding>& findings;
    std::string fingerprint;        // of the plan's file, short
    std::string date;               // of the print
    std::vector<Record> records{};  // of the vehicle
};

// Caution and job; balance by state; wire table; parts; cuts; fuse map of each box; findings with those that
// were accepted, by whom and why; order of work; first power; readings to take and the record; hand-over with
// room for signatures.
[[nodiscard]] std::vector<DossierSection> dossier(const DossierAsk& ask);

// For the glove box: what each switch does, where the master and the jump posts are, what parking and welding
// ask, at how many volts to stop.
[[nodiscard]] DossierSection drivers_page(const Plan& plan);
// Solved with each fuse, ground, plug and cable out.
[[nodiscard]] DossierSection symptom_card(const Plan& plan);
[[nodiscard]] DossierSection fuse_map(const Plan& plan, const Point& box);

}  // namespace yr::words
