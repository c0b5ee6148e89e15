// A table of loads out of any spreadsheet: read or told, never more than it holds.
#include "io/loads_csv.h"

#include "fuzz/fuzz.h"

YR_FUZZ(text) {
    const yr::Plan plan = yr::empty_plan("fuzz");
    const yr::LoadsTable table = yr::read_loads_table(text);
    const auto rows = yr::read_rows(plan, table);
    yr::fuzz::require(rows.size() <= text.size() + 1);
}
