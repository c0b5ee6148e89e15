#include "catalog/terminals.h"

#include "catalog/shipped.h"

namespace yr {
namespace {

struct LugRow {
    double to_mm2;
    std::vector<double> bolts_mm;
};

const std::vector<LugRow>& lug_rows() {
    static const std::vector<LugRow> rows = [] {
        std::vector<LugRow> all;
        const auto file = shipped_table("terminals.json");
        for (const auto& row : file.at("lugs"))
            all.push_back({row.at("to_mm2").get<double>(), row.at("bolts_mm").get<std::vector<double>>()});
        return all;
    }();
    return rows;
}

constexpr double kSame_mm = 0.01;

}  // namespace

const std::vector<double>& lug_bolts_mm(double area_mm2) {
    for (const LugRow& row : lug_rows())
        if (area_mm2 <= row.to_mm2) return row.bolts_mm;
    return lug_rows().back().bolts_mm;
}

bool lug_fits(double hole_mm, double bolt_mm) {
    if (hole_mm < bolt_mm - kSame_mm) return false;
    const double next = bolt_mm < 6 ? bolt_mm + 1 : bolt_mm + 2;  // M4 M5 M6 M8 M10 M12 ...
    return hole_mm <= next + kSame_mm;
}

}  // namespace yr
