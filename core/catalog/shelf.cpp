#include "catalog/shelf.h"

#include "catalog/shipped.h"

namespace yr {
namespace {

Chemistry chemistry_named(const std::string& name) {
    for (Chemistry c : {Chemistry::flooded, Chemistry::agm, Chemistry::gel, Chemistry::lifepo4})
        if (name == name_of(c)) return c;
    throw std::logic_error("shelf.json: no chemistry " + name);
}

Shelf read_shelf() {
    const nlohmann::json file = shipped_table("shelf.json");
    Shelf s;
    for (const auto& x : file.at("alternators"))
        s.alternators.push_back({x.at("name"), x.at("rated_A"), x.at("idle_A")});
    for (const auto& x : file.at("batteries")) {
        ShelfBattery b{x.at("name"), chemistry_named(x.at("chemistry")), x.at("capacity_Ah"), {}, {}};
        if (x.contains("cranking_A")) b.cranking_A = x.at("cranking_A").get<double>();
        if (x.contains("R0_ohm")) b.R0_ohm = x.at("R0_ohm").get<double>();
        s.batteries.push_back(std::move(b));
    }
    for (const auto& x : file.at("starters")) s.starters.push_back({x.at("name"), x.at("ohm")});
    for (const auto& x : file.at("straps"))
        s.straps.push_back(
            {x.at("name"), *parse_wire_size(x.at("size").get<std::string>()), x.at("length_m")});
    return s;
}

}  // namespace

const Shelf& shelf() {
    static const Shelf all = read_shelf();
    return all;
}

}  // namespace yr
