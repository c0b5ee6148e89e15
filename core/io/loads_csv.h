// Loads from a spreadsheet: a table whose columns are given a meaning, each row read as if it had been typed.
#pragma once

#include "io/csv_table.h"
#include "typing/load_columns.h"
#include "typing/typed_line.h"

namespace yr {

struct LoadsTable {
    std::vector<CsvRow> rows;         // without the heading
    std::vector<LoadColumn> columns;  // one a column of the widest row
    std::size_t heading_cells = 0;    // 0: no heading
};

// Splits and guesses each column's meaning from its heading or, without one, from what stands in it.
[[nodiscard]] LoadsTable read_loads_table(const std::string& text);

struct TableLoad {
    std::size_t row = 0;  // of LoadsTable::rows
    TypedLine line;       // what was not understood stands in it, as for typing
};

// Rows that hold anything, in order.
[[nodiscard]] std::vector<TableLoad> read_rows(const Plan& plan, const LoadsTable& table,
                                               const Library* library = nullptr);

// The plan's loads with a heading, comma between fields; read_loads_table knows the columns again.
[[nodiscard]] std::string loads_csv(const Plan& plan);

}  // namespace yr
