// A table pasted among notes: "| Item | Qty | Amps | Where |" and its rows.
#pragma once

#include <string>
#include <vector>

namespace yr {

// The rows of each table whose head says what stands in its columns, as lines of typing: "2x", "4.6 A", "6
// m", fuse and words behind the name. Its head and its rules become remarks; other lines stay as they are.
// One line for one.
[[nodiscard]] std::vector<std::string> with_rows_as_lines(std::vector<std::string> lines);

}  // namespace yr
