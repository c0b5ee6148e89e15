#include "typing/load_columns.h"

#include <algorithm>

#include "units/quantity.h"
#include "units/text.h"

namespace yr {

std::optional<LoadColumn> column_named(std::string_view heading) {
    static const std::pair<const char*, LoadColumn> words[] = {{"name", LoadColumn::name},
                                                               {"load", LoadColumn::name},
                                                               {"item", LoadColumn::name},
                                                               {"what", LoadColumn::name},
                                                               {"accessory", LoadColumn::name},
                                                               {"device", LoadColumn::name},
                                                               {"circuit", LoadColumn::name},
                                                               {"appliance", LoadColumn::name},
                                                               {"equipment", LoadColumn::name},
                                                               {"component", LoadColumn::name},
                                                               {"description", LoadColumn::name},
                                                               {"count", LoadColumn::count},
                                                               {"qty", LoadColumn::count},
                                                               {"quantity", LoadColumn::count},
                                                               {"pieces", LoadColumn::count},
                                                               {"draw", LoadColumn::draw},
                                                               {"amps", LoadColumn::amps},
                                                               {"amp", LoadColumn::amps},
                                                               {"amps each", LoadColumn::amps},
                                                               {"watts each", LoadColumn::watts},
                                                               {"fuse", LoadColumn::fuse},
                                                               {"breaker", LoadColumn::fuse},
                                                               {"volts", LoadColumn::volts},
                                                               {"voltage", LoadColumn::volts},
                                                               {"v", LoadColumn::volts},
                                                               {"distance", LoadColumn::length_m},
                                                               {"run", LoadColumn::length_m},
                                                               {"cable length", LoadColumn::length_m},
                                                               {"number", LoadColumn::count},
                                                               {"pcs", LoadColumn::count},
                                                               {"no.", LoadColumn::count},
                                                               {"no", LoadColumn::count},
                                                               {"a", LoadColumn::amps},
                                                               {"current", LoadColumn::amps},
                                                               {"watts", LoadColumn::watts},
                                                               {"w", LoadColumn::watts},
                                                               {"power", LoadColumn::watts},
                                                               {"ohm", LoadColumn::ohms},
                                                               {"ohms", LoadColumn::ohms},
                                                               {"start", LoadColumn::start_amps},
                                                               {"inrush", LoadColumn::start_amps},
                                                               {"live", LoadColumn::live},
                                                               {"when", LoadColumn::live},
                                                               {"length", LoadColumn::length_m},
                                                               {"size", LoadColumn::size},
                                                               {"cable", LoadColumn::size},
                                                               {"place", LoadColumn::place},
                                                               {"where", LoadColumn::place},
                                                               {"feed", LoadColumn::feed},
                                                               {"from", LoadColumn::feed},
                                                               {"drop", LoadColumn::drop},
                                                               {"critical", LoadColumn::critical},
                                                               {"note", LoadColumn::note},
                                                               {"notes", LoadColumn::note},
                                                               {"line", LoadColumn::line},
                                                               {"duty", LoadColumn::duty},
                                                               {"channel", LoadColumn::channel}};
    const std::string whole = to_lower(trim(heading));
    const auto unit = whole.find_first_of("([");  // "length (m)"
    const std::string h(trim(std::string_view(whole).substr(0, unit)));
    const bool feet = unit != std::string::npos && (whole.find("ft", unit) != std::string::npos ||
                                                    whole.find("feet", unit) != std::string::npos);
    for (const auto& [word, column] : words)
        if (h == word) return column == LoadColumn::length_m && feet ? LoadColumn::length_ft : column;
    if (h == "ft" || h == "feet") return LoadColumn::length_ft;
    return std::nullopt;
}

namespace {

bool is_draw(LoadColumn c) {
    return c == LoadColumn::amps || c == LoadColumn::watts || c == LoadColumn::draw;
}

// "total amps", "amps (total)", "current total": without the word; empty where it does not stand there.
std::string without_total(const std::string& heading) {
    std::string low = to_lower(heading);
    const auto at = low.find("total");
    if (at == std::string::npos) return {};
    low.erase(at, 5);
    std::erase_if(low, [](char c) { return c == '(' || c == ')'; });
    return std::string(trim(low));
}

bool bare_number(const std::string& cell) {
    const auto q = parse_quantity(cell);
    return q && q->dimension == Dimension::number;
}

// A cell that begins like a part of a line is one already; a bare "ignition" needs its "on".
std::string live_cell(const std::string& cell) {
    const std::string lower = to_lower(cell);
    for (const char* lead : {"on ", "not ", "while ", "when ", "with ", "after ", "charging ", "above "})
        if (lower.starts_with(lead)) return cell;
    return "on " + cell;
}

}  // namespace

std::vector<LoadColumn> columns_named(const std::vector<std::string>& headings) {
    std::vector<LoadColumn> columns;
    std::size_t total = headings.size();
    for (std::size_t k = 0; k < headings.size(); ++k) {
        const std::string of_all = without_total(headings[k]);
        const auto named = column_named(of_all.empty() ? headings[k] : of_all);
        const bool sum = !of_all.empty() && named && is_draw(*named);
        if (sum) total = k;
        columns.push_back(sum                         ? LoadColumn::ignore
                          : named                     ? *named
                          : trim(headings[k]).empty() ? LoadColumn::ignore
                                                      : LoadColumn::note);
    }
    if (total == headings.size() || std::any_of(columns.begin(), columns.end(), is_draw)) return columns;
    columns[total] = *column_named(without_total(headings[total]));
    std::replace(columns.begin(), columns.end(), LoadColumn::count, LoadColumn::ignore);
    return columns;
}

std::string typed_cell(LoadColumn column, const std::string& cell) {
    const auto with_unit = [&](const char* unit) { return bare_number(cell) ? cell + " " + unit : cell; };
    switch (column) {
        case LoadColumn::ignore:
        case LoadColumn::name:
        case LoadColumn::note:
        case LoadColumn::critical:
            return {};
        case LoadColumn::line:
        case LoadColumn::draw:
        case LoadColumn::size:
        case LoadColumn::place:
            return cell;
        case LoadColumn::count:
            return cell + "x";
        case LoadColumn::amps:
            return with_unit("A");
        case LoadColumn::watts:
            return with_unit("W");
        case LoadColumn::ohms:
            return with_unit("ohm");
        case LoadColumn::start_amps:
            return "start " + with_unit("A");
        case LoadColumn::live:
            return live_cell(cell);
        case LoadColumn::duty:
            return "duty " + with_unit("%");
        case LoadColumn::channel:
            return "channel " + cell;
        case LoadColumn::length_m:
            return with_unit("m");
        case LoadColumn::length_ft:
            return with_unit("ft");
        case LoadColumn::fuse:
            return "fuse " + with_unit("A");
        case LoadColumn::volts:
            return with_unit("V");
        case LoadColumn::feed:
            return "from " + cell;
        case LoadColumn::drop:
            return with_unit("%");
    }
    return {};
}

}  // namespace yr
