#include "io/readings_csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>

#include "io/csv_table.h"
#include "units/quantity.h"

namespace yr {
namespace {

std::string trimmed(const std::string& s) {
    const auto first = s.find_first_not_of(" \t\r\n"), last = s.find_last_not_of(" \t\r\n");
    return first == std::string::npos ? std::string() : s.substr(first, last - first + 1);
}

std::string lower(std::string s) {
    std::transform(s.begin(), s.end(), s.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return s;
}

std::optional<SurveyKey> key_named(const std::string& word) {
    const std::string w = lower(trimmed(word));
    if (w == "off" || w == "key off") return SurveyKey::off;
    if (w == "accessory" || w == "key accessory" || w == "acc") return SurveyKey::accessory;
    if (w == "running" || w == "engine running") return SurveyKey::running;
    if (w == "after" || w == "after switch-off") return SurveyKey::after;
    return std::nullopt;
}

class Reader {
  public:
    Reader(const Survey& survey, const Plan& plan) : survey_(survey), plan_(plan) {}

    Result<Survey> read(const std::vector<CsvRow>& rows) {
        if (rows.empty()) return fail(ErrorCode::empty, "line 1", {}, Want::a_table_of_readings);
        std::vector<std::optional<SurveyKey>> keys;
        for (const std::string& cell : rows[0]) keys.push_back(key_named(cell));
        const bool wide = std::any_of(keys.begin(), keys.end(), [](const auto& k) { return k.has_value(); });
        const bool heading = wide || lower(trimmed(rows[0].front())) == "point";
        for (std::size_t n = heading ? 1 : 0; n < rows.size(); ++n) {
            if (std::all_of(rows[n].begin(), rows[n].end(), [](const auto& c) { return trimmed(c).empty(); }))
                continue;
            const auto taken = wide ? wide_row(rows[n], keys, n + 1) : long_row(rows[n], n + 1);
            if (!taken) return tl::unexpected(taken.error());
        }
        return std::move(survey_);
    }

  private:
    static std::string place(std::size_t line, std::size_t column) {
        return fmt::format("line {}, column {}", line, column + 1);
    }

    Result<bool> wide_row(const CsvRow& row, const std::vector<std::optional<SurveyKey>>& keys,
                          std::size_t line) {
        if (trimmed(row[0]).empty())
            return fail(ErrorCode::empty, place(line, 0), {}, Want::the_name_of_a_point);
        const Id point = point_named(row[0]);
        for (std::size_t k = 1; k < row.size() && k < keys.size(); ++k) {
            if (!keys[k] || trimmed(row[k]).empty()) continue;
            const auto volts = read_V(row[k], place(line, k));
            if (!volts) return tl::unexpected(volts.error());
            put({point, *keys[k], {}, *volts});
        }
        return true;
    }

    Result<bool> long_row(const CsvRow& row, std::size_t line) {
        if (row.size() < 3)
            return fail(ErrorCode::empty, fmt::format("line {}", line), {},
                        Want::point_key_drawn_at_and_volts);
        const auto key = key_named(row[1]);
        if (!key)
            return fail(ErrorCode::unknown_name, place(line, 1), row[1],
                        Want::key_off_accessory_running_or_after);
        const bool four = row.size() > 3;
        const auto volts = read_V(row[four ? 3 : 2], place(line, four ? 3 : 2));
        if (!volts) return tl::unexpected(volts.error());
        const std::string drawn = four ? trimmed(row[2]) : std::string();
        put({point_named(row[0]), *key, drawn.empty() ? Id() : point_named(drawn), *volts});
        return true;
    }

    static Result<double> read_V(const std::string& cell, const std::string& where) {
        auto volts = parse_value(trimmed(cell), Dimension::voltage);
        if (!volts) {
            volts.error().place = where;
            return volts;
        }
        if (*volts < -100 || *volts > 100)
            return fail(ErrorCode::out_of_range, where, cell, Want::volts_from_100_to_100);
        return volts;
    }

    Id point_named(const std::string& cell) {
        const std::string name = trimmed(cell);
        for (const SurveyPoint& p : survey_.points)
            if (lower(p.name) == lower(name) || p.id == name) return p.id;
        Plan ids = plan_;
        ids.survey = survey_;
        SurveyPoint p;
        p.id = new_id(ids, "measured");
        p.name = name;
        const std::string l = lower(name);
        p.kind = l.find("batter") != std::string::npos       ? SurveyKind::battery
                 : l.find("alternator") != std::string::npos ? SurveyKind::alternator
                                                             : SurveyKind::outlet;
        survey_.points.push_back(p);
        return p.id;
    }

    void put(const SurveyReading& r) {
        for (SurveyReading& old : survey_.readings)
            if (old.point == r.point && old.key == r.key && old.drawn_at == r.drawn_at) {
                old.volts_V = r.volts_V;
                return;
            }
        survey_.readings.push_back(r);
    }

    Survey survey_;
    const Plan& plan_;
};

}  // namespace

Result<Survey> read_readings_csv(const std::string& text, const Survey& survey, const Plan& plan) {
    return Reader(survey, plan).read(split_csv(text));
}

std::string readings_csv(const Survey& survey) {
    const auto name = [&](const Id& id) {
        const SurveyPoint* p = find(survey.points, id);
        return quoted_csv(p ? p->name : id);
    };
    static const char* keys[] = {"key off", "accessory", "running", "after"};
    std::string out = "point,key,drawn at,volts\n";
    for (const SurveyReading& r : survey.readings)
        out += fmt::format("{},{},{},{:.6g}\n", name(r.point), keys[static_cast<int>(r.key)],
                           r.drawn_at.empty() ? std::string() : name(r.drawn_at), r.volts_V);
    return out;
}

}  // namespace yr
