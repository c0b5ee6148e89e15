// Columns of a table of loads, wherever it stands: in a spreadsheet's file, pasted, or among notes. Each cell
// says a part of a typed line.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace yr {

// What a column holds. `line`: a whole typed line ("scene light 2x 90 W on ignition"). Bare numbers take the
// unit of their column; `draw` takes W, A or ohm by its own unit.
enum class LoadColumn {
    ignore,
    line,
    name,
    count,
    draw,
    amps,
    watts,
    ohms,
    start_amps,
    live,
    length_m,
    length_ft,
    size,
    fuse,
    volts,
    place,
    feed,
    drop,
    critical,
    note,
    duty,
    channel
};

// The column that a heading names; empty: none of them. What stands in brackets behind it is its unit.
[[nodiscard]] std::optional<LoadColumn> column_named(std::string_view heading);

// The columns of a whole head. One that none names is a note, one without a heading is left out. Of a total
// beside what each takes the total is left out; a total alone is what all of them take, and not counted
// again.
[[nodiscard]] std::vector<LoadColumn> columns_named(const std::vector<std::string>& headings);

// One cell as words that the typed line understands; empty for columns that are no part of it.
[[nodiscard]] std::string typed_cell(LoadColumn column, const std::string& cell);

}  // namespace yr
