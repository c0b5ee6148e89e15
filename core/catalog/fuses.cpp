#include "catalog/fuses.h"

#include "catalog/shipped.h"

namespace yr {
namespace {

constexpr FuseType kTypes[] = {FuseType::blade, FuseType::blade_large, FuseType::bolt,
                               FuseType::strip, FuseType::stud,        FuseType::high};

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

}  // namespace yr
