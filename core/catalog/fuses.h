// Fuse types with their ratings, resistance and time-current band. Source: data/catalog/fuses.json.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace yr {

// blade, blade_large, bolt: ISO 8820-3 and -5; strip: bolted strip of 6 kA; stud: block on the battery's own
// stud, 10 kA; high: cartridge of 20 kA, for lithium banks
// glass: small cylinder; breaker_1 closes again by itself, breaker_2 stays open while it has volts, breaker_3
// is reset by hand (SAE J553 types I, II, III)
enum class FuseType { blade, blade_large, bolt, strip, stud, high, glass, breaker_1, breaker_2, breaker_3 };

struct FusePoint {
    double multiple = 1;             // of the rating
    double earliest_s = 0;           // it holds at least this long
    std::optional<double> latest_s;  // it has opened by then; empty: no opening is guaranteed
};

struct FuseKind {
    FuseType type{};
    std::string name;
    std::vector<double> ratings_A;
    double rated_V = 32;
    double interrupting_A = 1000;
    double rated_drop_V = 0.1;      // volts lost at rated current
    double rerating_per_K = 0;      // share of its rating that it loses per kelvin of air above 25 C
    double continuous_share = 0.8;  // of its rating that it carries for ever
    std::vector<FusePoint> band;
    std::string source;
};

[[nodiscard]] const FuseKind& fuse_kind(FuseType type);
[[nodiscard]] std::optional<FuseType> fuse_type_named(std::string_view name);
[[nodiscard]] const char* name_of(FuseType type);

// Opening time at a multiple of the (re-rated) rating: log-log between the band's points, constant I2t beyond
// its last one. Earliest: it holds at least so long. Latest: it has opened by then; empty: nothing is
// promised.
struct OpeningTime {
    double earliest_s = 0;
    std::optional<double> latest_s;
};
[[nodiscard]] OpeningTime opening_time(const FuseKind& kind, double multiple);

// Current that the element takes for its rating in air of that temperature; re-rating scales currents, not
// I2t.
[[nodiscard]] double rerated_A(const FuseKind& kind, double rating_A, double air_C);

// Whether it can be closed again; the word "breaker" is used for these.
[[nodiscard]] bool is_breaker(FuseType type);

// Resistance of the element from its rated drop, ohm.
[[nodiscard]] double fuse_resistance_ohm(FuseType type, double rating_A);

// Ratings one would choose from: blade to 40 A, bolt-down above; on rails beyond their volts the kinds that
// are made for them. Ascending.
struct FuseChoice {
    FuseType type{};
    double rating_A = 0;
};
[[nodiscard]] const std::vector<FuseChoice>& standard_fuses();
[[nodiscard]] std::vector<FuseChoice> standard_fuses(double rail_V);

}  // namespace yr
