// What the generated vehicles are put together from. Sized by handbook formulas that share nothing with the
// product's own rules but the tables.
#pragma once

#include <random>
#include <string>
#include <vector>

#include "support/vehicles.h"

namespace yr::test {

struct Accessory {
    const char* name;
    double amps;
    double start;  // times its running amps; 0: none
    const char* place;
    Key key;
    bool own_switch;
};

class VehicleBuilder {
  public:
    explicit VehicleBuilder(unsigned seed);
    [[nodiscard]] TestVehicle build();        // a car, van or truck of 12 V
    [[nodiscard]] TestVehicle build_small();  // a small machine: a stator, one battery, a few loads
    [[nodiscard]] TestVehicle build_cart();   // 48 V packs, 12 V by a converter

    [[nodiscard]] const Id& charge_cable() const { return charge_; }
    [[nodiscard]] const Id& block_feed() const { return block_feed_; }
    [[nodiscard]] const std::vector<Id>& branches() const { return branches_; }  // feed runs of accessories

  private:
    bool chance(unsigned percent) { return random_() % 100 < percent; }
    double pick(std::initializer_list<double> of) { return *(of.begin() + random_() % of.size()); }
    double between(double low, double high);
    std::vector<Accessory> some_accessories(std::size_t count);

    Id point(const std::string& name, PointKind kind, const Id& place, bool feeds);
    void metal(const std::string& name, const Terminal& from, const Terminal& to);
    // Copper at 60 C for the drop, the table with a quarter in reserve for the amps; `seconds`: the drop
    // alone.
    WireSize handbook_size(double amps, double length_m, double drop, bool seconds);
    Id cable(const std::string& name, const Terminal& from, const Terminal& to, double length_m, double amps,
             double drop, bool seconds);
    // With a fuse a hand's breadth from each end that a battery feeds, above the load and within the cable.
    Id fused(const std::string& name, const Terminal& from, const Terminal& to, double length_m, double amps,
             double drop, bool at_end, double reserve, bool both = false);
    Id load(const Accessory& a);
    void switch_in(Run& run, const Load& l, double at_m, const std::string& name);
    void accessory(const Accessory& a, const Id& feed, int channel = 0);
    void starter_circuit(const Id& battery, double main_m);
    void alternator(const Id& battery, double main_m);
    void inverter(const Id& battery);
    void winch(const Id& battery);
    void second_battery(const Id& first);
    Id second_block(const Id& battery);
    void join(const Id& first, const Id& second);
    void control_box(const Id& battery);
    void engine_management(const Id& battery);
    void solar(const Id& battery);
    void trailer(const Id& battery);
    void states();

    TestVehicle v_;
    std::mt19937 random_;
    bool rear_ = false;
    Id body_, engine_, charge_, block_feed_;
    std::vector<Id> branches_, loads_;
};

}  // namespace yr::test
