#include "io/log_csv.h"

#include <algorithm>
#include <cmath>
#include <cstdlib>

#include "io/csv_table.h"
#include "units/text.h"

namespace yr {
namespace {

enum class Column { none, time, volts, amps, charging_amps, charge, percent };

Column column_of(const std::string& head) {
    const std::string h = to_lower(std::string(trim(head)));
    const auto has = [&](const char* word) { return h.find(word) != std::string::npos; };
    if (has("time") || has("clock") || has("second") || has("date")) return Column::time;
    if (has("charging")) return Column::charging_amps;
    if (has("soc") || has("charge")) return has("%") ? Column::percent : Column::charge;
    if (h == "%") return Column::percent;
    if (h == "v" || has("volt") || h.ends_with(" v")) return Column::volts;
    if (h == "a" || has("amp") || has("current") || h.ends_with(" a")) return Column::amps;
    return Column::none;
}

std::optional<double> number_in(std::string text) {
    std::replace(text.begin(), text.end(), ',', '.');
    const std::string t(trim(text));
    if (t.empty()) return std::nullopt;
    char* end = nullptr;
    const double v = std::strtod(t.c_str(), &end);
    return *end == '\0' && std::isfinite(v) ? std::optional(v) : std::nullopt;
}

// "06:30", "2026-03-01T06:30:15": seconds of the day; nullopt for what has no colon.
std::optional<double> clock_in(const std::string& text) {
    const auto colon = text.find(':');
    if (colon == std::string::npos) return std::nullopt;
    const auto before = text.find_last_of(" T", colon);
    const std::string clock = text.substr(before == std::string::npos ? 0 : before + 1);
    double parts[3] = {0, 0, 0};
    std::size_t n = 0;
    for (const std::string_view part : split(clock, ':')) {
        const auto v = number_in(std::string(part));
        if (!v || n > 2) return std::nullopt;
        parts[n++] = *v;
    }
    return parts[0] * 3600 + parts[1] * 60 + parts[2];
}

class Reader {
  public:
    explicit Reader(const std::string& text) : rows_(split_csv(text, &lines_)) {}

    Result<Log> read() {
        if (rows_.empty()) return fail(ErrorCode::empty, {}, {}, Want::a_time_and_volts_or_amps);
        bool time = false, value = false;
        for (const std::string& head : rows_.front()) {
            columns_.push_back(column_of(head));
            time = time || columns_.back() == Column::time;
            value = value || (columns_.back() != Column::none && columns_.back() != Column::time);
        }
        if (!time || !value) return fail(ErrorCode::empty, "line 1", {}, Want::a_time_and_volts_or_amps);
        for (std::size_t r = 1; r < rows_.size(); ++r)
            if (auto error = row(r)) return tl::unexpected(*error);
        if (out_.points.empty()) return fail(ErrorCode::empty, "line 2", {}, Want::a_time_and_volts_or_amps);
        if (!out_.of_the_clock) {
            const double first = out_.points.front().t_s;
            for (LogPoint& p : out_.points) p.t_s -= first;
        }
        return std::move(out_);
    }

  private:
    std::optional<Error> row(std::size_t r) {
        const CsvRow& cells = rows_[r];
        if (std::all_of(cells.begin(), cells.end(), [](const std::string& c) { return trim(c).empty(); }))
            return std::nullopt;
        LogPoint p;
        bool timed = false;
        for (std::size_t c = 0; c < cells.size() && c < columns_.size(); ++c) {
            if (columns_[c] == Column::none || trim(cells[c]).empty()) continue;
            const auto clock = columns_[c] == Column::time ? clock_in(cells[c]) : std::nullopt;
            const auto v = clock ? clock : number_in(cells[c]);
            if (!v)
                return Error{ErrorCode::not_a_number,
                             "line " + std::to_string(lines_[r]) + ", column " + std::to_string(c + 1),
                             cells[c], Want::a_number};
            switch (columns_[c]) {
                case Column::time:
                    if (timed && !clock) break;  // seconds beside a clock: the clock counts
                    p.t_s = *v, timed = true;
                    out_.of_the_clock = out_.of_the_clock || clock;
                    break;
                case Column::volts:
                    p.volts_V = *v;
                    break;
                case Column::amps:
                    p.amps_A = *v;
                    break;
                case Column::charging_amps:
                    p.amps_A = -*v;
                    break;
                case Column::charge:
                    p.charge = *v > 1.5 ? *v / 100 : *v;
                    break;
                case Column::percent:
                    p.charge = *v / 100;
                    break;
                case Column::none:
                    break;
            }
        }
        if (!timed) return std::nullopt;
        // past midnight the clock begins anew
        while (out_.of_the_clock && !out_.points.empty() && p.t_s < out_.points.back().t_s - 12 * 3600)
            p.t_s += 86400;
        out_.points.push_back(p);
        return std::nullopt;
    }

    std::vector<std::size_t> lines_;
    std::vector<CsvRow> rows_;
    std::vector<Column> columns_;
    Log out_;
};

}  // namespace

Result<Log> read_log_csv(const std::string& text) {
    return Reader(text).read();
}

}  // namespace yr
