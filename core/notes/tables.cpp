#include "notes/tables.h"

#include <algorithm>
#include <optional>
#include <string_view>

#include "typing/load_columns.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

std::vector<std::string> cells_of(std::string_view line) {
    std::string_view inside = trim(line);
    if (inside.starts_with('|')) inside.remove_prefix(1);
    if (inside.ends_with('|')) inside.remove_suffix(1);
    std::vector<std::string> cells;
    for (const std::string_view cell : split(inside, '|')) cells.emplace_back(trim(cell));
    return cells;
}

// The row as a line; what stands in a column of notes is said behind it, too: "ignition", "5 min".
std::string line_of(const std::vector<LoadColumn>& columns, const std::vector<std::string>& cells) {
    std::string name, counted, draws, rest;
    for (std::size_t k = 0; k < cells.size(); ++k) {
        const LoadColumn column = k < columns.size() ? columns[k] : LoadColumn::note;
        if (cells[k].empty() || cells[k] == "-" || column == LoadColumn::ignore) continue;
        const std::string said = typed_cell(column, cells[k]);
        if (column == LoadColumn::name)
            name += (name.empty() ? "" : " ") + cells[k];
        else if (column == LoadColumn::count)
            counted = said == "1x" ? std::string() : " " + said;
        else if (column == LoadColumn::amps || column == LoadColumn::watts || column == LoadColumn::draw)
            draws.insert(0, " " + said);
        else
            rest += ", " + (said.empty() ? cells[k] : said);
    }
    return name + counted + draws + rest;
}

}  // namespace

std::vector<std::string> with_rows_as_lines(std::vector<std::string> lines) {
    static const Pattern rule(R"(^[\s|:+=-]+$)");
    std::optional<std::vector<LoadColumn>> columns;
    for (std::string& line : lines) {
        if (line.find('|') == std::string::npos) {
            columns.reset();
            continue;
        }
        if (rule.is_all_of(line)) continue;
        const std::vector<std::string> cells = cells_of(line);
        if (columns) {
            line = line_of(*columns, cells);
            continue;
        }
        std::vector<LoadColumn> heads = columns_named(cells);
        const auto has = [&](LoadColumn c) {
            return std::find(heads.begin(), heads.end(), c) != heads.end();
        };
        const bool draws = has(LoadColumn::amps) || has(LoadColumn::watts) || has(LoadColumn::draw);
        if (!has(LoadColumn::name) || !draws) continue;
        columns = std::move(heads);
        line.insert(0, "# ");
    }
    return lines;
}

}  // namespace yr
