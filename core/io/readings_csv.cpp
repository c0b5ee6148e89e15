#include "io/readings_csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <set>
#include <tuple>

#include "io/csv_table.h"
#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

std::optional<SurveyKey> key_named(const std::string& word) {
    const std::string w = to_lower(std::string(trim(word)));
    if (w == "off" || w == "key off") return SurveyKey::off;
    if (w == "accessory" || w == "key accessory" || w == "acc") return SurveyKey::accessory;
    if (w == "running" || w == "engine running") return SurveyKey::running;
    if (w == "after" || w == "after switch-off") return SurveyKey::after;
    return std::nullopt;
}

class ReadingsReader {
  public:
    ReadingsReader(const Survey& survey, const Plan& plan) : survey_(survey), plan_(plan) {}

    Result<Survey> read(const std::vector<CsvRow>& rows, const std::vector<std::size_t>& lines) {
        if (rows.empty()) return fail(ErrorCode::empty, "line 1", {}, Want::a_table_of_readings);
        std::vector<std::optional<SurveyKey>> keys;
        for (const std::string& cell : rows[0]) keys.push_back(key_named(cell));
        const bool wide = std::any_of(keys.begin(), keys.end(), [](const auto& k) { return k.has_value(); });
        for (std::size_t k = 1; wide && k < keys.size(); ++k)
            if (!keys[k] && !std::string(trim(rows[0][k])).empty())
                return fail(ErrorCode::unknown_name, place(1, k), rows[0][k],
                            Want::key_off_accessory_running_or_after);
        const bool heading = wide || to_lower(trim(rows[0].front())) == "point";
        for (std::size_t n = heading ? 1 : 0; n < rows.size(); ++n) {
            if (std::all_of(rows[n].begin(), rows[n].end(),
                            [](const auto& c) { return std::string(trim(c)).empty(); }))
                continue;
            if (const auto extra = beyond(rows[n], wide ? rows[0].size() : 4, lines[n]))
                return tl::unexpected(*extra);
            const auto taken = wide ? wide_row(rows[n], keys, lines[n]) : long_row(rows[n], lines[n]);
            if (!taken) return tl::unexpected(taken.error());
        }
        return std::move(survey_);
    }

  private:
    static std::string place(std::size_t line, std::size_t column) {
        return fmt::format("line {}, column {}", line, column + 1);
    }

    // A cell beyond the heading: most often 1,5 without quotes in a file of commas.
    static std::optional<Error> beyond(const CsvRow& row, std::size_t width, std::size_t line) {
        for (std::size_t k = width; k < row.size(); ++k)
            if (!std::string(trim(row[k])).empty())
                return Error{ErrorCode::out_of_range, place(line, k), row[k],
                             Want::no_more_cells_than_the_heading_has};
        return std::nullopt;
    }

    Result<bool> wide_row(const CsvRow& row, const std::vector<std::optional<SurveyKey>>& keys,
                          std::size_t line) {
        if (std::string(trim(row[0])).empty())
            return fail(ErrorCode::empty, place(line, 0), {}, Want::the_name_of_a_point);
        const Id point = point_named(row[0]);
        for (std::size_t k = 1; k < row.size() && k < keys.size(); ++k) {
            if (!keys[k] || std::string(trim(row[k])).empty()) continue;
            const auto volts = read_V(row[k], place(line, k));
            if (!volts) return tl::unexpected(volts.error());
            if (auto twice = put({point, *keys[k], {}, *volts}, place(line, k)))
                return tl::unexpected(*twice);
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
        const std::string drawn = four ? std::string(trim(row[2])) : std::string();
        if (auto twice = put({point_named(row[0]), *key, drawn.empty() ? Id() : point_named(drawn), *volts},
                             place(line, four ? 3 : 2)))
            return tl::unexpected(*twice);
        return true;
    }

    static Result<double> read_V(const std::string& cell, const std::string& where) {
        auto volts = parse_reading(std::string(trim(cell)), Dimension::voltage);
        if (!volts) {
            volts.error().place = where;
            return volts;
        }
        if (*volts < -100 || *volts > 100)
            return fail(ErrorCode::out_of_range, where, cell, Want::volts_from_100_to_100);
        return volts;
    }

    Id point_named(const std::string& cell) {
        const std::string name = std::string(trim(cell));
        for (const SurveyPoint& p : survey_.points)
            if (to_lower(p.name) == to_lower(name) || p.id == name) return p.id;
        Plan ids = plan_;
        ids.survey = survey_;
        SurveyPoint p;
        p.id = new_id(ids, "measured");
        p.name = name;
        const std::string l = to_lower(name);
        p.kind = l.find("batter") != std::string::npos       ? SurveyKind::battery
                 : l.find("alternator") != std::string::npos ? SurveyKind::alternator
                                                             : SurveyKind::outlet;
        survey_.points.push_back(p);
        return p.id;
    }

    // One that the survey has from before is replaced; one that stands in this table twice is asked about.
    std::optional<Error> put(const SurveyReading& r, const std::string& where) {
        if (!taken_.insert({r.point, static_cast<int>(r.key), r.drawn_at}).second)
            return Error{ErrorCode::doubled_key, where, fmt::format("{:.6g} V", r.volts_V), {}};
        for (SurveyReading& old : survey_.readings)
            if (old.point == r.point && old.key == r.key && old.drawn_at == r.drawn_at) {
                old.volts_V = r.volts_V;
                return std::nullopt;
            }
        survey_.readings.push_back(r);
        return std::nullopt;
    }

    std::set<std::tuple<Id, int, Id>> taken_;
    Survey survey_;
    const Plan& plan_;
};

}  // namespace

Result<Survey> read_readings_csv(const std::string& text, const Survey& survey, const Plan& plan) {
    std::vector<std::size_t> lines;
    const auto rows = split_csv(text, &lines);
    return ReadingsReader(survey, plan).read(rows, lines);
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
