// The order of work, first power, symptoms, quote and change order in words.
#pragma once

#include <string>
#include <vector>

#include "fabricate/first_power.h"
#include "fabricate/quote.h"
#include "fabricate/symptoms.h"
#include "fabricate/work.h"
#include "io/table_xlsx.h"
#include "words/format.h"

namespace yr::words {

// "Lay 4 cables from the cab to the cargo bed: 3-1, 3-2 ..."
[[nodiscard]] std::string sentence(const Plan& plan, const WorkStep& step);
// Where: "On the bench", a place's name, "To finish".
[[nodiscard]] std::string where(const Plan& plan, const WorkStep& step);
[[nodiscard]] std::string work_caution(WorkCaution caution);
// What is known of a place or thing that the step is at: its note and caution, else empty.
[[nodiscard]] std::string remark(const Plan& plan, const WorkStep& step);
// "main stud: 13 mm spanner, 8 to 11 Nm (typical, the maker's first), 3 lugs"
[[nodiscard]] std::string fixing(const Plan& plan, const Fixing& fixing);
// "14 of 61 done, 5 h 40 min to go, 9 visits to places (the fewest)"
[[nodiscard]] std::string sentence(const WorkOrder& order);
[[nodiscard]] std::string minutes_text(double minutes);
// Of a task of the table of times ("make_thick"): "a cable of 16 mm² or more made".
[[nodiscard]] std::string task_name(const std::string& task);

// What is done, and what the lamp shows.
[[nodiscard]] std::string sentence(const Plan& plan, const PowerStep& step);
[[nodiscard]] std::vector<std::string> before_first_power(const Plan& plan);

// "Scene lights and pump dead, radio lives: look at the ground of the rear."
[[nodiscard]] std::string sentence(const Plan& plan, const Symptom& symptom);
[[nodiscard]] std::string name_of(const Plan& plan, const Break& what);

[[nodiscard]] std::string sentence(const Plan& plan, const ChangeLine& line);
// The sums of a quote, each on a line: what, and how much.
[[nodiscard]] std::vector<std::pair<std::string, std::string>> quote_sums(const Quote& quote);

[[nodiscard]] Sheet work_sheet(const Plan& plan, const WorkOrder& order);
[[nodiscard]] Sheet quote_sheet(const Quote& quote);
// One supplier's list, and what it comes to in a line: "Harbour Cable: 7 lines, 120.50".
[[nodiscard]] Sheet order_sheet(const OrderList& list);
[[nodiscard]] std::string sentence(const OrderList& list);
[[nodiscard]] Sheet change_sheet(const Plan& plan, const ChangeOrder& order);

}  // namespace yr::words
