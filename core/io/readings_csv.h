// Survey readings as CSV, in and out. Fields are split by a library (libcsv); this reads what the columns
// mean.
#pragma once

#include <string>

#include "plan/plan.h"
#include "units/result.h"

namespace yr {

// Readings of a pasted or loaded table, put into a copy of `survey`; points that it does not know yet are
// added as outlets, or as batteries where their name says so. Comma, semicolon or tab between fields, decimal
// comma where the separator is not a comma, quotes, a byte-order mark. Two shapes are read:
//     point, key off, accessory, running, after       one row a point, an empty cell is "not read"
//     point, key, drawn at, volts                     one row a reading
// Failure: not_a_number or unknown_name with the line and column as its place; then nothing is taken.
[[nodiscard]] Result<Survey> read_readings_csv(const std::string& text, const Survey& survey,
                                               const Plan& plan);

// One row a reading, with a heading, comma between fields.
[[nodiscard]] std::string readings_csv(const Survey& survey);

}  // namespace yr
