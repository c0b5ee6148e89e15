#include "io/csv_table.h"

#include <csv.h>

namespace yr {
namespace {

char separator_of(const std::string& text) {
    const std::string line = text.substr(0, text.find('\n'));
    for (char c : {'\t', ';'})
        if (line.find(c) != std::string::npos) return c;
    return ',';
}

}  // namespace

std::vector<CsvRow> split_csv(std::string text) {
    if (text.starts_with("\xEF\xBB\xBF")) text.erase(0, 3);
    struct Sink {
        std::vector<CsvRow> rows;
        CsvRow row;
    } sink;
    csv_parser parser;
    csv_init(&parser, CSV_APPEND_NULL);
    csv_set_delim(&parser, static_cast<unsigned char>(separator_of(text)));
    const auto field = [](void* data, std::size_t size, void* out) {
        static_cast<Sink*>(out)->row.emplace_back(data ? static_cast<const char*>(data) : "",
                                                  data ? size : 0);
    };
    const auto row = [](int, void* out) {
        auto* s = static_cast<Sink*>(out);
        s->rows.push_back(std::move(s->row));
        s->row.clear();
    };
    csv_parse(&parser, text.data(), text.size(), field, row, &sink);
    csv_fini(&parser, field, row, &sink);
    csv_free(&parser);
    return std::move(sink.rows);
}

std::string quoted_csv(const std::string& field) {
    std::string out(2 * field.size() + 3, '\0');
    out.resize(csv_write(out.data(), out.size(), field.data(), field.size()));
    return out;
}

}  // namespace yr
