// Plans made up from a seed: the same seed gives the same plan.
#pragma once

#include <cstdint>

#include "plan/plan.h"

namespace yr::test {

struct RandomShape {
    bool loops = true;       // cross links on the supply and on the return side
    bool resistive = false;  // loads are plain resistances, the battery alone feeds
    bool devices =
        false;  // second battery behind relay, diode or charger; solar, shore, inverter, coils; more states
    int feeds = 4;
    int loads = 8;
};

[[nodiscard]] Plan random_plan(std::uint32_t seed, const RandomShape& shape = {});

// One battery, one alternator and that many devices with a memory in a tangle, some of which cannot settle.
[[nodiscard]] Plan nervous_plan(std::uint32_t seed);

// A plan with that many loads on a two-level tree, for speed.
[[nodiscard]] Plan wide_plan(int loads);

[[nodiscard]] std::string demo_path(const std::string& name);
inline const char* const kDemos[] = {"river-gauging-truck", "orchard-spray-buggy", "electric-litter-cart"};
[[nodiscard]] inline std::string truck_path() {
    return demo_path(kDemos[0]);
}
[[nodiscard]] const Plan& truck();            // the first demo, read once
[[nodiscard]] Plan laid_demo(std::size_t k);  // its cables as long as their ways

}  // namespace yr::test
