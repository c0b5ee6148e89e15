#include "catalog/conductors.h"

#include <cmath>
#include <numbers>
#include <optional>

#include "catalog/shipped.h"
#include "catalog/table.h"

namespace yr {
namespace {

struct Row {
    WireSize size;
    double area_mm2;
    double R20_ohm_per_m;
    std::string source;
};

struct MaterialRow {
    double resistance_factor;
    double mass_factor;
    std::string source;
};

struct Tables {
    std::string awg_source;
    double awg_rho_ohm_mm2_per_m = 0;
    std::vector<Row> rows;
    std::vector<WireSize> by_system[3];
    std::vector<MaterialRow> materials;
    Table wall_mm;
    double fill = 0.78;
    double density_kg_per_m3 = 8890;
    InsulationWall wall;
};

Table read_pairs(const nlohmann::json& rows) {
    Table table;
    for (const auto& row : rows) table.emplace_back(row[0].get<double>(), row[1].get<double>());
    return table;
}

Tables read_tables() {
    const nlohmann::json file = shipped_table("conductors.json");
    Tables t;
    const double rho = file.at("copper").at("resistivity_ohm_mm2_per_m").get<double>() *
                       file.at("stranding_factor").at("value").get<double>();
    t.density_kg_per_m3 = file.at("copper").at("density_kg_per_m3").get<double>();
    const auto add = [&](WireSize size, double area, double r20, const std::string& source) {
        t.rows.push_back({size, area, r20, source});
        t.by_system[static_cast<int>(size.system())].push_back(size);
    };
    const std::string awg_source = file.at("awg").at("source").get<std::string>();
    t.awg_source = awg_source;
    t.awg_rho_ohm_mm2_per_m = rho;
    for (const auto& n : file.at("awg").at("numbers")) {
        const double area = awg_area_mm2(n.get<int>());
        add(WireSize::awg(n.get<int>()), area, rho / area, awg_source);
    }
    for (const auto& row : file.at("sae").at("rows")) {
        const double area = row[1].get<double>();
        add(WireSize::sae(row[0].get<int>()), area, rho / area,
            file.at("sae").at("source").get<std::string>());
    }
    for (const auto& row : file.at("metric").at("rows"))
        add(WireSize::metric(row[0].get<double>()), row[0].get<double>(), row[1].get<double>() * 1e-3,
            file.at("metric").at("source").get<std::string>());
    for (const auto& m : file.at("materials"))
        t.materials.push_back({m.at("resistance_factor").get<double>(), m.at("mass_factor").get<double>(),
                               m.at("source").get<std::string>()});
    const auto& wall = file.at("insulation");
    t.wall_mm = read_pairs(wall.at("rows"));
    t.fill = wall.at("fill").get<double>();
    t.wall = {wall.at("conductivity_W_per_mK").get<double>(), wall.at("emissivity").get<double>(),
              wall.at("heat_J_per_m3K").get<double>()};
    return t;
}

const Tables& tables() {
    static const Tables t = read_tables();
    return t;
}

}  // namespace

Result<Conductor> conductor(const WireSize& size, Material material) {
    const Tables& t = tables();
    const MaterialRow& m = t.materials[static_cast<std::size_t>(material)];
    const auto made = [&](const Row& row) {
        Conductor c;
        c.size = size;
        c.material = material;
        c.area_mm2 = row.area_mm2;
        c.R20_ohm_per_m = row.R20_ohm_per_m * m.resistance_factor;
        c.mass_kg_per_m = row.area_mm2 * 1e-6 * t.density_kg_per_m3 * m.mass_factor;
        c.strand_diameter_mm = std::sqrt(4 * row.area_mm2 / (std::numbers::pi * t.fill));
        c.outer_diameter_mm = c.strand_diameter_mm + 2 * interpolate(t.wall_mm, row.area_mm2);
        c.source = material == Material::copper ? row.source : row.source + "; " + m.source;
        return c;
    };
    for (const Row& row : t.rows)
        if (row.size == size) return made(row);
    // any gauge has its area by ASTM B258; only the usual ones are offered
    if (size.system() == SizeSystem::awg && size.number() >= -3 && size.number() <= 40) {
        const double area = awg_area_mm2(size.number());
        return made({size, area, t.awg_rho_ohm_mm2_per_m / area, t.awg_source});
    }
    return fail(ErrorCode::unknown_size, {}, name_of(size), Want::a_size_of_the_tables);
}

const std::vector<WireSize>& sizes_of(SizeSystem system) {
    return tables().by_system[static_cast<int>(system)];
}

WireSize step_size(const WireSize& size, int steps) {
    const auto& all = sizes_of(size.system());
    for (std::size_t k = 0; k < all.size(); ++k) {
        if (!(all[k] == size)) continue;
        const auto wanted = static_cast<long>(k) + steps;
        return all[static_cast<std::size_t>(std::clamp(wanted, 0L, static_cast<long>(all.size()) - 1))];
    }
    return size;
}

const char* name_of(Material material) {
    switch (material) {
        case Material::copper:
            return "copper";
        case Material::tinned:
            return "tinned";
        case Material::cca:
            return "cca";
    }
    return "copper";
}

InsulationWall insulation_wall() {
    return tables().wall;
}

}  // namespace yr
