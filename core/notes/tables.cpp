#include "notes/tables.h"

#include <algorithm>
#include <optional>
#include <string_view>

#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

enum class Column { name, count, amps, watts, volts, metres, feet, fuse, words };

std::vector<std::string> cells_of(std::string_view line) {
    std::string_view inside = trim(line);
    if (inside.starts_with('|')) inside.remove_prefix(1);
    if (inside.ends_with('|')) inside.remove_suffix(1);
    std::vector<std::string> cells;
    for (const std::string_view cell : split(inside, '|')) cells.emplace_back(trim(cell));
    return cells;
}

Column column_of(const std::string& head) {
    struct Head {
        Pattern words;
        Column column;
    };
    static const Head heads[] = {
        {Pattern(
             R"(^(?:item|name|load|device|circuit|appliance|what|equipment|component|description)s?\b.*$)"),
         Column::name},
        {Pattern(R"(^(?:qty|quantity|count|no\.?|number|pcs|#|how many)$)"), Column::count},
        {Pattern(R"(^(?:fuse|breaker)\b.*$)"), Column::fuse},
        {Pattern(R"(^(?:amps?|current|draw|a|draw \(?a(?:mps)?\)?|current \(a(?:mps)?\)|amps? .*)$)"),
         Column::amps},
        {Pattern(R"(^(?:watts?|power|w|power \(w(?:atts)?\)|watts? .*)$)"), Column::watts},
        {Pattern(R"(^(?:volts?|voltage|v)$)"), Column::volts},
        {Pattern(
             R"(^(?:(?:cable|run|wire)?\s*(?:length|distance|run)(?:\s*\(?(?:m|metres?|meters?)\)?)?|metres?|meters?|m)$)"),
         Column::metres},
        {Pattern(R"(^(?:(?:cable|run|wire)?\s*(?:length|distance|run)\s*\(?(?:ft|feet)\)?|ft|feet)$)"),
         Column::feet}};
    for (const auto& [words, column] : heads)
        if (words.is_all_of(head)) return column;
    return Column::words;
}

// What a cell says in typing; a figure without its unit gets that of its column.
std::string said_in(Column column, const std::string& cell) {
    static const Pattern figure(R"(^\d+(?:[.,]\d+)?$)");
    const bool bare = figure.is_all_of(cell);
    switch (column) {
        case Column::name:
            return cell;
        case Column::count:
            return bare ? cell + "x" : cell;
        case Column::amps:
            return bare ? cell + " A" : cell;
        case Column::watts:
            return bare ? cell + " W" : cell;
        case Column::volts:
            return bare ? cell + " V" : cell;
        case Column::metres:
            return bare ? cell + " m" : cell;
        case Column::feet:
            return bare ? cell + " ft" : cell;
        case Column::fuse:
            return "fuse " + (bare ? cell + " A" : cell);
        case Column::words:
            return cell;
    }
    return cell;
}

std::string line_of(const std::vector<Column>& columns, const std::vector<std::string>& cells) {
    std::string name, counted, figures;
    for (std::size_t k = 0; k < cells.size(); ++k) {
        const Column column = k < columns.size() ? columns[k] : Column::words;
        if (cells[k].empty() || cells[k] == "-") continue;
        const std::string said = said_in(column, cells[k]);
        if (column == Column::name)
            name = said;
        else if (column == Column::count)
            counted = said == "1x" ? std::string() : said;
        else if (column == Column::amps || column == Column::watts)
            figures.insert(0, " " + said);
        else
            figures += ", " + said;
    }
    return name + (counted.empty() ? "" : " " + counted) + figures;
}

}  // namespace

std::vector<std::string> with_rows_as_lines(std::vector<std::string> lines) {
    static const Pattern rule(R"(^[\s|:+=-]+$)");
    std::optional<std::vector<Column>> columns;
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
        std::vector<Column> heads;
        for (const std::string& cell : cells) heads.push_back(column_of(to_lower(cell)));
        const auto has = [&](Column c) { return std::find(heads.begin(), heads.end(), c) != heads.end(); };
        if (!has(Column::name) || !(has(Column::amps) || has(Column::watts))) continue;
        columns = std::move(heads);
        line = "# " + line;
    }
    return lines;
}

}  // namespace yr
