#include "catalog/ampacity.h"

#include <cmath>
#include <vector>

#include "catalog/shipped.h"
#include "catalog/table.h"

namespace yr {
namespace {

struct Column {
    double insulation_C = 0;
    double engine_factor = 1;
    Table by_area;  // mm2 -> A
};

struct OneTable {
    double ambient_C = 30;
    std::vector<Column> columns;
    std::string source;
};

OneTable read_table(const nlohmann::json& file) {
    OneTable t;
    t.ambient_C = file.at("ambient_C").get<double>();
    t.source = file.at("source").get<std::string>();
    const bool awg = file.at("areas") == "awg";
    for (std::size_t c = 0; c < file.at("insulations_C").size(); ++c) {
        Column column{
            file.at("insulations_C")[c].get<double>(), file.at("engine_factor")[c].get<double>(), {}};
        for (const auto& row : file.at("rows"))
            column.by_area.emplace_back(awg ? awg_area_mm2(row[0].get<int>()) : row[0].get<double>(),
                                        row[c + 1].get<double>());
        t.columns.push_back(std::move(column));
    }
    return t;
}

const OneTable& table_of(AmpacityTable which) {
    static const OneTable abyc = read_table(shipped_table("ampacity.json").at("abyc"));
    static const OneTable iso = read_table(shipped_table("ampacity.json").at("iso"));
    return which == AmpacityTable::abyc ? abyc : iso;
}

// The column of the highest insulation class that this insulation reaches; the lowest column below all.
const Column& column_of(const OneTable& table, double insulation_C) {
    const Column* best = &table.columns.front();
    for (const Column& c : table.columns)
        if (c.insulation_C <= insulation_C + 1e-9) best = &c;
    return *best;
}

double rise_ratio(double limit_C, double from_C, double other_limit_C, double table_C) {
    return std::sqrt(std::max(0.0, limit_C - from_C) / (other_limit_C - table_C));
}

}  // namespace

double bundle_factor(int conductors) {
    static const Table rows = [] {
        Table t;
        const nlohmann::json file = shipped_table("ampacity.json");
        for (const auto& row : file.at("bundle").at("rows"))
            t.emplace_back(row[0].get<double>(), row[1].get<double>());
        return t;
    }();
    double factor = 1;
    for (const auto& [from, f] : rows)
        if (conductors >= from) factor = f;
    return factor;
}

Result<Ampacity> ampacity(const AmpacityAsk& ask) {
    const auto wire = conductor(ask.size, ask.material);
    if (!wire) return tl::unexpected(wire.error());
    const OneTable& table = table_of(ask.table);
    if (ask.bundle < 1)
        return fail(ErrorCode::out_of_range, "bundle", std::to_string(ask.bundle), Want::from_1_or_more);
    if (!(ask.insulation_C > table.ambient_C + 10) || ask.insulation_C > 300)
        return fail(ErrorCode::out_of_range, "insulation", std::to_string(ask.insulation_C),
                    Want::from_41_to_300_c);

    const Column& column = column_of(table, ask.insulation_C);
    Ampacity a;
    a.source = table.source;
    a.interpolated = true;
    for (const auto& [area, amps] : column.by_area)
        if (std::abs(area - wire->area_mm2) < 1e-9 * area) a.interpolated = false;
    a.beyond_table = wire->area_mm2 < column.by_area.front().first * (1 - 1e-9) ||
                     wire->area_mm2 > column.by_area.back().first * (1 + 1e-9);
    a.table_A = interpolate_log(column.by_area, wire->area_mm2);
    // Resistance decides the heat: a poorer metal carries less by the root of its resistance.
    if (ask.material != Material::copper)
        a.table_A *= std::sqrt(conductor(ask.size)->R20_ohm_per_m / wire->R20_ohm_per_m);
    const bool scaled =
        std::abs(column.insulation_C - ask.insulation_C) > 5.5;  // ISO's middle class is 85 to 90
    if (scaled) {
        a.table_A *= rise_ratio(ask.insulation_C, table.ambient_C, column.insulation_C, table.ambient_C);
        a.insulation_scaled = true;
    }
    if (ask.engine_space) a.engine_factor = column.engine_factor;
    if (ask.ambient_C > table.ambient_C)
        a.ambient_factor = rise_ratio(ask.insulation_C, ask.ambient_C, ask.insulation_C, table.ambient_C);
    a.surroundings = std::min(a.engine_factor, a.ambient_factor);
    if (ask.bundle_derating) a.bundle_factor = bundle_factor(ask.bundle);
    a.allowed_A = a.table_A * a.surroundings * a.bundle_factor;
    return a;
}

const char* name_of(AmpacityTable table) {
    return table == AmpacityTable::abyc ? "abyc" : "iso";
}

}  // namespace yr
