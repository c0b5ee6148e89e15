// One type for every way a wire size is written: AWG (ASTM B258), SAE (J1128/J1127) and metric (IEC 60228).
// A size is a name, not an area: "SAE 8" is thinner than "8 AWG", and a 25 mm2 cable has the resistance of
// its table. What the tables know of a size is in catalog/conductors.h.
#pragma once

#include <compare>
#include <string>
#include <string_view>

#include "units/result.h"

namespace yr {

enum class SizeSystem { awg, sae, metric };

class WireSize {
  public:
    // AWG or SAE number: 10 is "10", 0 is "1/0", -3 is "4/0". Range -3..40.
    [[nodiscard]] static WireSize awg(int number) { return {SizeSystem::awg, static_cast<double>(number)}; }
    [[nodiscard]] static WireSize sae(int number) { return {SizeSystem::sae, static_cast<double>(number)}; }
    // Nominal area in mm2, as printed on the cable.
    [[nodiscard]] static WireSize metric(double nominal_mm2) { return {SizeSystem::metric, nominal_mm2}; }

    [[nodiscard]] SizeSystem system() const { return system_; }
    [[nodiscard]] int number() const { return static_cast<int>(value_); }  // AWG and SAE only
    [[nodiscard]] double nominal_mm2() const { return value_; }            // metric only

    friend bool operator==(const WireSize&, const WireSize&) = default;

  private:
    WireSize(SizeSystem system, double value) : system_(system), value_(value) {}
    SizeSystem system_;
    double value_;
};

// "10", "10 AWG", "1/0", "AWG 4/0", "000", "SAE 8", "8 SAE", "25 mm2", "25mm²". A bare number is AWG.
// Failure: unknown_size. Whether a table holds the size is the catalogue's question.
[[nodiscard]] Result<WireSize> parse_wire_size(std::string_view text);

// "10 AWG", "1/0 AWG", "SAE 8", "25 mm²"; what parse_wire_size reads back to the same size.
[[nodiscard]] std::string name_of(const WireSize& size);

// ASTM B258: d = 0.127 mm * 92^((36 - n)/39). n from -3 (4/0) to 40.
[[nodiscard]] double awg_diameter_mm(int number);
[[nodiscard]] double awg_area_mm2(int number);

}  // namespace yr
