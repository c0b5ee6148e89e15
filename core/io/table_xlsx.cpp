#include "io/table_xlsx.h"

#include <fmt/format.h>
#include <xlsxwriter.h>

#include <algorithm>
#include <cstdlib>
#include <fstream>
#include <sstream>

#include "files/text_file.h"
#include "io/csv_table.h"

namespace yr {
namespace {

constexpr double kWidest = 60;

double width_of(const Sheet& s, std::size_t column) {
    std::size_t most = s.heads[column].size();
    for (const auto& row : s.rows)
        if (column < row.size())
            if (const auto* text = std::get_if<std::string>(&row[column]))
                most = std::max(most, text->size());
    return std::min(kWidest, static_cast<double>(most) + 2);
}

void fill(lxw_workbook* book, const Sheet& s, lxw_format* bold) {
    lxw_worksheet* page = workbook_add_worksheet(book, s.name.substr(0, 31).c_str());
    for (std::size_t c = 0; c < s.heads.size(); ++c) {
        const auto column = static_cast<lxw_col_t>(c);
        worksheet_set_column(page, column, column, width_of(s, c), nullptr);
        worksheet_write_string(page, 0, column, s.heads[c].c_str(), bold);
    }
    worksheet_freeze_panes(page, 1, 0);
    for (std::size_t r = 0; r < s.rows.size(); ++r)
        for (std::size_t c = 0; c < s.rows[r].size(); ++c) {
            const auto row = static_cast<lxw_row_t>(r + 1);
            const auto column = static_cast<lxw_col_t>(c);
            if (const auto* number = std::get_if<double>(&s.rows[r][c]))
                worksheet_write_number(page, row, column, *number, nullptr);
            else
                worksheet_write_string(page, row, column, std::get<std::string>(s.rows[r][c]).c_str(),
                                       nullptr);
        }
}

}  // namespace

// The library writes a file of its own; what stands at `path` is replaced by write_text_file's one way of
// writing.
Result<bool> write_xlsx(const std::string& path, const std::vector<Sheet>& sheets, bool over) {
    std::string folder = "/tmp/rail-sheet-XXXXXX";
    if (!mkdtemp(folder.data())) return fail(ErrorCode::unwritable_file, path, folder, {});
    const std::string made = folder + "/book.xlsx";
    lxw_workbook* book = workbook_new(made.c_str());
    lxw_format* bold = workbook_add_format(book);
    format_set_bold(bold);
    for (const Sheet& s : sheets) fill(book, s, bold);
    const lxw_error error = workbook_close(book);
    std::ostringstream bytes;
    bytes << std::ifstream(made, std::ios::binary).rdbuf();
    std::remove(made.c_str());
    std::remove(folder.c_str());
    if (error != LXW_NO_ERROR) return fail(ErrorCode::unwritable_file, path, lxw_strerror(error), {});
    return write_text_file(path, bytes.str(), over ? Overwrite::yes : Overwrite::no);
}

std::string sheets_csv(const std::vector<Sheet>& sheets) {
    std::string out;
    for (const Sheet& s : sheets) {
        if (sheets.size() > 1) out += (out.empty() ? "" : "\n") + quoted_csv(s.name) + "\n";
        for (std::size_t c = 0; c < s.heads.size(); ++c) out += (c ? "," : "") + quoted_csv(s.heads[c]);
        out += "\n";
        for (const auto& row : s.rows) {
            for (std::size_t c = 0; c < row.size(); ++c) {
                if (c) out += ",";
                if (const auto* number = std::get_if<double>(&row[c]))
                    out += fmt::format("{:.6g}", *number);
                else
                    out += quoted_csv(std::get<std::string>(row[c]));
            }
            out += "\n";
        }
    }
    return out;
}

}  // namespace yr
