// How thick a cable must be: every size against ampacity, drop, fuse and its own temperature, what decides,
// and the thinnest that passes.
#pragma once

#include <optional>
#include <vector>

#include "network/thermal.h"
#include "network/thermal_time.h"
#include "plan/plan.h"

namespace yr {

// short_circuit: hurt before the fuse opens; terminals, bend: it does not fit; pair: thinner than its supply;
// sturdy: so thin that it breaks by shaking
enum class Limit {
    none,
    ampacity,
    drop,
    fuse,
    temperature,
    short_circuit,
    terminals,
    bend,
    pair,
    sturdy,
    judged
};

struct SizeAsk {
    double current_A = 0;         // continuous, above 0
    double there_and_back_m = 0;  // the whole way
    double nominal_V = 12;
    double drop_share = 0.03;  // of nominal
    Material material = Material::copper;
    double insulation_C = 105;
    bool engine_space = false;
    int bundle = 1;
    double ambient_C = 30;
    bool bundle_derating = true;
    SizeSystem system = SizeSystem::awg;
    AmpacityTable table = AmpacityTable::abyc;
    std::optional<double> fuse_A;  // protects this cable
    FuseType fuse = FuseType::blade;
    int parallel = 1;            // cables side by side, of one length
    std::optional<double> on_s;  // comes and goes: so long at a stretch, judged by its heat in time
    double duty = 0.1;           // share of the time, where it comes and goes
};

struct SizeRow {
    Conductor wire;
    Ampacity ampacity;
    double temperature_C = 0;    // of the conductor, by heat balance
    double drop_V = 0;           // at that temperature, there and back
    double rule_drop_V = 0;      // by the table's own quick formula (quick_drop_V)
    bool table_carries = false;  // the continuous table's verdict
    bool carries = false;        // ampacity; by heat in time alone where the current comes and goes
    bool withstands = true;      // the fuse opens before the cable is hurt, over its whole band
    double guard_C = 0;          // what the cable reaches at worst before it does; 0 without a fuse
    bool drop_fits = false;      // both drops
    bool fuse_fits = true;
    bool stays_cool = false;  // the conductor stays within its insulation by the heat balance
    [[nodiscard]] bool passes() const {
        return carries && drop_fits && fuse_fits && stays_cool && withstands;
    }
};

struct SizeLadder {
    std::vector<SizeRow> rows;    // thinnest first
    int chosen = -1;              // index of the thinnest that passes; -1: none does
    Limit decides = Limit::none;  // what the next thinner size fails by the widest margin
    double drop_limit_V = 0;
    double physics_ambient_C = 30;  // an engine space without a stated temperature counts as 50 C
};

// Failure: out_of_range with the argument's name as place.
[[nodiscard]] Result<SizeLadder> size_cable(const SizeAsk& ask);

// ABYC E-11: E = 10.75 I L / cmil, L in ft there and back (copper at 29 C). ISO 10133 annex: E = 0.0164 I L /
// S (copper at 8 C). Both from memory; kept as the rules they are, beside the physics.
[[nodiscard]] double quick_drop_V(AmpacityTable table, double current_A, double there_and_back_m,
                                  double area_mm2);

[[nodiscard]] double circular_mils(double area_mm2);

}  // namespace yr
