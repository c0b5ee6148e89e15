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
    std::vector<std::string> sources;  // by material
};

struct MaterialRow {
    double resistance_factor;
    double mass_factor;
    std::string source;
};

struct Tables {
    std::vector<std::string> awg_sources;  // by material
    double awg_rho_ohm_mm2_per_m = 0;
    std::vector<Row> rows;
    std::vector<std::vector<Conductor>> made;  // of the rows, by material: they are asked for all the time
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

Conductor made_of(const Tables& t, const Row& row, Material material) {
    const MaterialRow& m = t.materials[static_cast<std::size_t>(material)];
    Conductor c;
    c.size = row.size;
    c.material = material;
    c.area_mm2 = row.area_mm2;
    c.R20_ohm_per_m = row.R20_ohm_per_m * m.resistance_factor;
    c.mass_kg_per_m = row.area_mm2 * 1e-6 * t.density_kg_per_m3 * m.mass_factor;
    c.strand_diameter_mm = std::sqrt(4 * row.area_mm2 / (std::numbers::pi * t.fill));
    c.outer_diameter_mm = c.strand_diameter_mm + 2 * interpolate(t.wall_mm, row.area_mm2);
    return c;
}

Tables read_tables() {
    const nlohmann::json file = shipped_table("conductors.json");
    Tables t;
    for (const auto& m : file.at("materials"))
        t.materials.push_back({m.at("resistance_factor").get<double>(), m.at("mass_factor").get<double>(),
                               m.at("source").get<std::string>()});
    const auto by_material = [&](const std::string& source) {
        std::vector<std::string> all{source};  // copper, and what else there is
        for (std::size_t m = 1; m < t.materials.size(); ++m)
            all.push_back(source + "; " + t.materials[m].source);
        return all;
    };
    const double rho = file.at("copper").at("resistivity_ohm_mm2_per_m").get<double>() *
                       file.at("stranding_factor").at("value").get<double>();
    t.density_kg_per_m3 = file.at("copper").at("density_kg_per_m3").get<double>();
    const auto add = [&](WireSize size, double area, double r20, const std::string& source) {
        t.rows.push_back({size, area, r20, by_material(source)});
        t.by_system[static_cast<int>(size.system())].push_back(size);
    };
    const std::string awg_source = file.at("awg").at("source").get<std::string>();
    t.awg_sources = by_material(awg_source);
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
    const auto& wall = file.at("insulation");
    t.wall_mm = read_pairs(wall.at("rows"));
    t.fill = wall.at("fill").get<double>();
    t.wall = {wall.at("conductivity_W_per_mK").get<double>(), wall.at("emissivity").get<double>(),
              wall.at("heat_J_per_m3K").get<double>()};
    return t;
}

const Tables& tables() {
    static const Tables t = [] {
        Tables all = read_tables();
        all.made.resize(all.materials.size());
        for (std::size_t m = 0; m < all.made.size(); ++m)
            for (const Row& row : all.rows)
                all.made[m].push_back(made_of(all, row, static_cast<Material>(m)));
        return all;
    }();
    return t;
}

}  // namespace

Result<Conductor> conductor(const WireSize& size, Material material) {
    const Tables& t = tables();
    const auto m = static_cast<std::size_t>(material);
    const auto sourced = [&](Conductor c, const std::vector<std::string>& sources) {
        c.source = sources[m];
        return c;
    };
    for (std::size_t k = 0; k < t.rows.size(); ++k)
        if (t.rows[k].size == size) return sourced(t.made[m][k], t.rows[k].sources);
    // any gauge has its area by ASTM B258; only the usual ones are offered
    if (size.system() == SizeSystem::awg && size.number() >= -3 && size.number() <= 40) {
        const double area = awg_area_mm2(size.number());
        return sourced(made_of(t, {size, area, t.awg_rho_ohm_mm2_per_m / area, {}}, material), t.awg_sources);
    }
    return fail(ErrorCode::unknown_size, {}, name_of(size), Want::a_size_of_the_tables);
}

const std::vector<WireSize>& sizes_of(SizeSystem system) {
    return tables().by_system[static_cast<int>(system)];
}

WireSize step_size(const WireSize& size, int steps) {
    const auto& all = sizes_of(size.system());
    const auto last = static_cast<long>(all.size()) - 1;
    const auto exact = std::find(all.begin(), all.end(), size);
    if (exact != all.end())
        return all[static_cast<std::size_t>(std::clamp(exact - all.begin() + steps, 0L, last))];
    // one that stands between two of them: the first step leads to one of these
    const auto own = conductor(size, Material::copper);
    if (!own || steps == 0) return size;
    const auto thicker = std::find_if(all.begin(), all.end(), [&](const WireSize& s) {
        const auto there = conductor(s, Material::copper);
        return there && there->area_mm2 > own->area_mm2;
    });
    const long wanted = (thicker - all.begin()) + steps - (steps > 0 ? 1 : 0);
    const bool beyond = steps > 0 ? thicker == all.end() : thicker == all.begin();
    return beyond ? size : all[static_cast<std::size_t>(std::clamp(wanted, 0L, last))];
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
