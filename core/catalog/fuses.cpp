#include "catalog/fuses.h"

#include <algorithm>
#include <cmath>

#include "catalog/shipped.h"

namespace yr {
namespace {

constexpr FuseType kTypes[] = {
    FuseType::blade, FuseType::blade_large, FuseType::bolt,      FuseType::strip,     FuseType::stud,
    FuseType::high,  FuseType::glass,       FuseType::breaker_1, FuseType::breaker_2, FuseType::breaker_3};

std::vector<FuseKind> read_kinds() {
    std::vector<FuseKind> kinds;
    const nlohmann::json file = shipped_table("fuses.json");
    for (std::size_t k = 0; k < file.at("types").size(); ++k) {
        const auto& entry = file.at("types")[k];
        FuseKind kind;
        kind.type = kTypes[k];
        kind.name = entry.at("name").get<std::string>();
        kind.ratings_A = entry.at("ratings_A").get<std::vector<double>>();
        kind.rated_V = entry.at("rated_V").get<double>();
        kind.interrupting_A = entry.at("interrupting_A").get<double>();
        kind.rated_drop_V = entry.at("rated_drop_V").get<double>();
        kind.rerating_per_K = entry.at("rerating_per_K").get<double>();
        kind.continuous_share = entry.at("continuous_share").get<double>();
        kind.source = entry.at("source").get<std::string>();
        for (const auto& point : entry.at("band")) {
            FusePoint p{point[0].get<double>(), point[1].get<double>(), std::nullopt};
            if (!point[2].is_null()) p.latest_s = point[2].get<double>();
            kind.band.push_back(p);
        }
        kinds.push_back(std::move(kind));
    }
    return kinds;
}

const std::vector<FuseKind>& kinds() {
    static const std::vector<FuseKind> all = read_kinds();
    return all;
}

}  // namespace

const FuseKind& fuse_kind(FuseType type) {
    return kinds()[static_cast<std::size_t>(type)];
}

std::optional<FuseType> fuse_type_named(std::string_view name) {
    for (const FuseKind& kind : kinds())
        if (kind.name == name) return kind.type;
    return std::nullopt;
}

const char* name_of(FuseType type) {
    return fuse_kind(type).name.c_str();
}

namespace {

constexpr double kNeverOpens_s = 1e9;  // below the first point of a band

double log_between(double x0, double y0, double x1, double y1, double x) {
    return y0 * std::exp(std::log(y1 / y0) * std::log(x / x0) / std::log(x1 / x0));
}

}  // namespace

OpeningTime opening_time(const FuseKind& kind, double multiple) {
    const auto& band = kind.band;
    if (multiple < band.front().multiple) return {kNeverOpens_s, std::nullopt};
    if (multiple >= band.back().multiple) {
        const double by_energy = std::pow(band.back().multiple / multiple, 2);
        return {band.back().earliest_s * by_energy, *band.back().latest_s * by_energy};
    }
    std::size_t k = 1;
    while (multiple >= band[k].multiple) ++k;
    const FusePoint &a = band[k - 1], &b = band[k];
    OpeningTime t;
    t.earliest_s = log_between(a.multiple, a.earliest_s, b.multiple, b.earliest_s, multiple);
    if (a.latest_s) t.latest_s = log_between(a.multiple, *a.latest_s, b.multiple, *b.latest_s, multiple);
    return t;
}

double rerated_A(const FuseKind& kind, double rating_A, double air_C) {
    return rating_A * std::max(0.1, 1 - kind.rerating_per_K * (air_C - 25));
}

bool is_breaker(FuseType type) {
    return type >= FuseType::breaker_1;
}

double fuse_resistance_ohm(FuseType type, double rating_A) {
    return fuse_kind(type).rated_drop_V / rating_A;
}

const std::vector<FuseChoice>& standard_fuses() {
    static const std::vector<FuseChoice> list = [] {
        std::vector<FuseChoice> all;
        for (double a : fuse_kind(FuseType::blade).ratings_A) all.push_back({FuseType::blade, a});
        for (double a : fuse_kind(FuseType::bolt).ratings_A)
            if (a > all.back().rating_A) all.push_back({FuseType::bolt, a});
        return all;
    }();
    return list;
}

std::vector<FuseChoice> standard_fuses(double rail_V) {
    std::vector<FuseChoice> fit;
    for (const FuseType type :
         {FuseType::blade, FuseType::bolt, FuseType::strip, FuseType::stud, FuseType::high}) {
        if (fuse_kind(type).rated_V < rail_V - 1e-9) continue;
        if (fit.empty() && type == FuseType::blade) return standard_fuses();
        for (const double a : fuse_kind(type).ratings_A)
            if (std::none_of(fit.begin(), fit.end(), [&](const FuseChoice& f) { return f.rating_A == a; }))
                fit.push_back({type, a});
    }
    std::sort(fit.begin(), fit.end(),
              [](const FuseChoice& a, const FuseChoice& b) { return a.rating_A < b.rating_A; });
    return fit;
}

}  // namespace yr
