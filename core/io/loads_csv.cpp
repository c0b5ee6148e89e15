#include "io/loads_csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>

#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

// Without a heading: numbers with a unit tell what they are, the first column of words is the name.
LoadColumn column_like(const std::vector<CsvRow>& rows, std::size_t k, bool named) {
    for (const CsvRow& row : rows) {
        if (k >= row.size() || std::string(trim(row[k])).empty()) continue;
        const auto q = parse_quantity(std::string(trim(row[k])));
        if (!q) return named ? LoadColumn::line : LoadColumn::name;
        switch (q->dimension) {
            case Dimension::power:
            case Dimension::current:
            case Dimension::resistance:
                return LoadColumn::draw;
            case Dimension::length:
                return LoadColumn::length_m;
            case Dimension::fraction:
                return LoadColumn::drop;
            case Dimension::number:
                return LoadColumn::count;
            case Dimension::voltage:
            case Dimension::area:
            case Dimension::temperature:
            case Dimension::charge:
            case Dimension::time:
            case Dimension::speed:
                return LoadColumn::line;
        }
    }
    return LoadColumn::ignore;
}

bool says_yes(const std::string& cell) {
    const std::string c = to_lower(cell);
    return c == "yes" || c == "y" || c == "x" || c == "1" || c == "true" || c == "critical";
}

}  // namespace

LoadsTable read_loads_table(const std::string& text) {
    LoadsTable t;
    t.rows = split_csv(text);
    std::size_t width = 0;
    for (const CsvRow& row : t.rows) width = std::max(width, row.size());
    t.columns.assign(width, LoadColumn::ignore);
    if (t.rows.empty()) return t;
    const CsvRow first = t.rows.front();
    const auto known =
        std::count_if(first.begin(), first.end(), [](const auto& h) { return column_named(h).has_value(); });
    if (known >= 1 && (known > 1 || first.size() == 1)) {
        const std::vector<LoadColumn> named = columns_named(first);
        std::copy(named.begin(), named.end(), t.columns.begin());
        t.rows.erase(t.rows.begin());
        t.heading_cells = first.size();
        return t;
    }
    if (width == 1) {
        t.columns[0] = LoadColumn::line;
        return t;
    }
    bool named = false;
    for (std::size_t k = 0; k < width; ++k) {
        t.columns[k] = column_like(t.rows, k, named);
        named = named || t.columns[k] == LoadColumn::name;
    }
    return t;
}

std::vector<TableLoad> read_rows(const Plan& plan, const LoadsTable& table, const Library* library) {
    std::vector<TableLoad> loads;
    for (std::size_t n = 0; n < table.rows.size(); ++n) {
        std::string name, typed, note;
        bool critical = false;
        for (std::size_t k = 0; k < table.rows[n].size() && k < table.columns.size(); ++k) {
            const std::string cell = std::string(trim(table.rows[n][k]));
            if (cell.empty()) continue;
            const LoadColumn column = table.columns[k];
            if (column == LoadColumn::name) name += (name.empty() ? "" : " ") + cell;
            if (column == LoadColumn::note) note += (note.empty() ? "" : " ") + cell;
            if (column == LoadColumn::critical) critical = critical || says_yes(cell);
            if (const std::string words = typed_cell(column, cell); !words.empty())
                typed += (typed.empty() ? "" : "; ") + words;
        }
        if (name.empty() && typed.empty()) continue;
        TableLoad load;
        load.row = n;
        // The name goes in as it stands: a load called "key light 5 m" is not five metres long.
        if (name.empty()) {
            load.line = read_line(plan, typed, library);
        } else {
            std::string named = name;
            std::erase(named, '"');
            named.insert(0, "\"").append("\"; ").append(typed);
            load.line = read_line(plan, named, library);
            load.line.name = name;
        }
        // most often 1,5 without quotes in a file of commas
        for (std::size_t k = table.heading_cells; table.heading_cells > 0 && k < table.rows[n].size(); ++k)
            if (const std::string cell = std::string(trim(table.rows[n][k])); !cell.empty())
                load.line.not_understood.push_back(cell);
        load.line.critical = load.line.critical || critical;
        if (!note.empty()) load.line.note = note;
        loads.push_back(std::move(load));
    }
    return loads;
}

std::string loads_csv(const Plan& plan) {
    std::string out = "name,count,draw,start,duty,live,length,size,place,feed,channel,drop,critical,note\n";
    for (const Load& l : plan.loads) {
        const Run* supply = nullptr;
        for (const Run& r : plan.runs)
            if (r.to == pos_of(l.id)) supply = &r;
        const char* unit = l.draw.kind == DrawKind::power     ? "W"
                           : l.draw.kind == DrawKind::current ? "A"
                                                              : "ohm";
        const auto name_or = [&](const Id& id) { return id.empty() ? std::string() : name_of(plan, id); };
        const std::string when = typed_condition(plan, l.live_when);
        const Point* feed = supply ? find(plan.points, supply->from) : nullptr;
        out += fmt::format("{},{},{:.6g} {},{},{},{},{},{},{},{},{},{},{},{}\n", quoted_csv(l.name), l.count,
                           l.draw.value, unit, l.inrush_A ? fmt::format("{:.6g} A", *l.inrush_A) : "",
                           l.duty ? fmt::format("{:.6g} %", *l.duty * 100) : "",
                           when.empty() ? std::string("always") : quoted_csv(when),
                           supply && supply->length_m ? fmt::format("{:.6g} m", *supply->length_m) : "",
                           supply && supply->size ? quoted_csv(name_of(*supply->size)) : "",
                           quoted_csv(name_or(l.place)), quoted_csv(feed ? feed->name : ""),
                           supply && supply->channel > 0 ? std::to_string(supply->channel) : "",
                           l.drop_limit ? fmt::format("{:.6g} %", *l.drop_limit * 100) : "",
                           l.critical ? "yes" : "", quoted_csv(l.remarks.note));
    }
    return out;
}

}  // namespace yr
