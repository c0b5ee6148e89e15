#include "io/csv_table.h"

#include <csv.h>

#include <algorithm>
#include <array>
#include <string_view>

namespace yr {
namespace {

// The one that stands most often in the first line outside quotes; a comma where none does.
char separator_of(const std::string& text) {
    constexpr std::string_view possible = "\t;,";
    std::array<int, 3> count{};
    bool quoted = false;
    for (const char c : text) {
        if (c == '"') quoted = !quoted;
        if (quoted) continue;
        if (c == '\n') break;
        if (const auto k = possible.find(c); k != std::string_view::npos) ++count[k];
    }
    const auto most = std::max_element(count.begin(), count.end());
    return *most == 0 ? ',' : possible[static_cast<std::size_t>(most - count.begin())];
}

// Tables of numbers take a cell that begins so for a formula.
bool looks_like_formula(const std::string& field) {
    return !field.empty() && std::string_view("=+-@\t\r").find(field.front()) != std::string_view::npos;
}

}  // namespace

std::vector<CsvRow> split_csv(std::string text, std::vector<std::size_t>* lines) {
    if (text.starts_with("\xEF\xBB\xBF")) text.erase(0, 3);
    struct Sink {
        std::vector<CsvRow> rows;
        CsvRow row;
        std::vector<std::size_t> lines;
        std::size_t begun = 1, line = 1;  // where the row begins, where the parser is
    } sink;
    csv_parser parser;
    csv_init(&parser, CSV_APPEND_NULL);
    csv_set_delim(&parser, static_cast<unsigned char>(separator_of(text)));
    const auto field = [](void* data, std::size_t size, void* out) {
        std::string cell(data ? static_cast<const char*>(data) : "", data ? size : 0);
        if (cell.size() > 1 && cell.front() == '\'' && looks_like_formula(cell.substr(1))) cell.erase(0, 1);
        static_cast<Sink*>(out)->row.push_back(std::move(cell));
    };
    const auto row = [](int, void* out) {
        auto* s = static_cast<Sink*>(out);
        s->rows.push_back(std::move(s->row));
        s->row.clear();
        s->lines.push_back(s->begun);
        s->begun = s->line + 1;
    };
    for (std::size_t at = 0; at < text.size(); ++sink.line) {  // line by line, to know where a row begins
        const std::size_t end = std::min(text.find('\n', at), text.size() - 1);
        const std::size_t rows = sink.rows.size();
        csv_parse(&parser, text.data() + at, end + 1 - at, field, row, &sink);
        const bool blank = text.find_first_not_of("\r\n", at) > end;
        if (blank && rows == sink.rows.size() && sink.row.empty() && sink.begun == sink.line)
            sink.begun = sink.line + 1;
        at = end + 1;
    }
    csv_fini(&parser, field, row, &sink);
    csv_free(&parser);
    if (lines) *lines = std::move(sink.lines);
    return std::move(sink.rows);
}

std::string quoted_csv(const std::string& field) {
    const std::string safe = looks_like_formula(field) ? "'" + field : field;
    std::string out(2 * safe.size() + 3, '\0');
    out.resize(csv_write(out.data(), out.size(), safe.data(), safe.size()));
    return out;
}

}  // namespace yr
