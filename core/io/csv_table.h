// A table of text from CSV: fields split by libcsv, the separator found in the first line.
#pragma once

#include <string>
#include <vector>

namespace yr {

using CsvRow = std::vector<std::string>;

// The separator (tab, semicolon or comma) is what stands most often in the first line outside quotes. Quotes
// as usual, a byte-order mark is dropped. Never fails: any bytes give some table. `lines`: where each row
// begins, counted from 1; a quoted cell may hold several lines.
[[nodiscard]] std::vector<CsvRow> split_csv(std::string text, std::vector<std::size_t>* lines = nullptr);

// The field as it stands in a file: quoted, quotes doubled. One that a table program would take for a formula
// has an apostrophe before it, which split_csv() takes off again.
[[nodiscard]] std::string quoted_csv(const std::string& field);

}  // namespace yr
