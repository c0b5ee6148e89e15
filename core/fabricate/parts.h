// What is to be bought: cable by metres, lugs, blades, shrink, fuses with spares, holders, relays, boxes,
// loom, grommets, clips, ties, labels. Each line counts what the plan needs and says what it is used for.
#pragma once

#include <set>

#include "fabricate/wires.h"

namespace yr {

enum class BuyKind {
    cable,  // m
    lug,    // pieces, all below too but shrink and loom
    blade,
    ferrule,
    pin,
    splice,
    boot,
    shrink,  // m
    fuse,
    spare,
    holder,
    breaker,
    relay,
    box,
    bus,
    battery,
    source,
    inverter,
    load,
    loom,  // m
    grommet,
    clip,
    label
};

struct Part {
    std::string key;  // stable: what a mark is about
    BuyKind kind{};
    std::string what;     // "4 AWG red", "ring 25 mm2 M8 45°"
    double quantity = 0;  // m or pieces
    bool metres = false;
    std::vector<Id> used_at;        // runs or things
    std::optional<double> price{};  // of all of it
    bool chosen = false;            // nothing said so: what is usual
};

struct PartsAsk {
    int vehicles = 1;
    bool things = true;  // boxes, batteries and loads too, not what joins them alone
    bool laid = true;    // loom, clips and grommets, where cables have ways
};
// Sorted by kind, then what.
[[nodiscard]] std::vector<Part> parts_of(const Plan& plan, const PartsAsk& ask = {});

// What these cables alone take: copper, ends, shrink, labels; not the fuses in them.
[[nodiscard]] std::vector<Part> parts_of_cables(const Plan& plan, const std::set<Id>& runs);

}  // namespace yr
