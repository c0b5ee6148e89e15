// A table of text from CSV: fields split by libcsv, the separator found in the first line.
#pragma once

#include <string>
#include <vector>

namespace yr {

using CsvRow = std::vector<std::string>;

// Tab or semicolon where the first line holds one, else comma. Quotes as usual, a byte-order mark is dropped.
// Never fails: any bytes give some table.
[[nodiscard]] std::vector<CsvRow> split_csv(std::string text);

// The field as it stands in a file: quoted, quotes doubled.
[[nodiscard]] std::string quoted_csv(const std::string& field);

}  // namespace yr
