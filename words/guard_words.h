// Words for sizes, fuses and shorts: findings of that kind, what decides a size, the outcome of sizing a
// plan, and rows of the fault study.
#pragma once

#include "guard/starting.h"
#include "inspect/checked_sizing.h"
#include "inspect/doubts.h"
#include "sizing/placement.h"
#include "sizing/plan_sizing.h"
#include "words/sentences.h"

namespace yr::words {

// "ampacity", "drop", "its fuse", ...; what decides a size.
[[nodiscard]] const char* name_of(Limit limit);

// Copper melts at 1085 C, the core of copper-clad aluminium at 660 (handbook values, from memory).
[[nodiscard]] constexpr double melts_at_C(Material material) {
    return material == Material::cca ? 660 : 1085;
}

// " 3 cables stay as they are: another size would bring: …", or nothing.
// Why not all limits are kept, before what is sized all the same; empty where all are.
[[nodiscard]] std::string given_up_text(const CheckedSizing& checked, const Plan& plan,
                                        const Style& style = {});
[[nodiscard]] std::string kept_text(const CheckedSizing& checked, const Plan& plan, const Style& style = {});

// "Measure the length of rear box feed, 3 m assumed: at 5.4 m it needs 4 AWG instead of 8 AWG."
[[nodiscard]] std::string sentence(const Doubt& doubt, const Plan& plan, const Style& style = {});
// "The other 22 change nothing."
[[nodiscard]] std::string sentence(const Doubts& doubts);

// "blade fuse", "type III breaker".
[[nodiscard]] std::string device_kind(FuseType type);

// Seconds as people read them: "40 ms", "1.3 s", "25 min"; "not sure to open" for none.
[[nodiscard]] std::string seconds(double s, const Style& style = {});
[[nodiscard]] std::string opens_text(const std::optional<double>& s, const Style& style = {});

// "Least copper, proved: 14.2 kg, was 19.8 kg." and the like.
[[nodiscard]] std::string sentence(const SizingResult& result, const SizingAsk& ask, const Plan& plan,
                                   const Style& style = {});
[[nodiscard]] std::string sentence(const SizingBlocker& blocker, const Plan& plan, const Style& style = {});
// "drop of scene lights in Driving", "ampacity", "nothing: it is the thinnest".
// What one size less or more of a cable would cost; `now`: what the whole costs.
[[nodiscard]] std::string sentence(const NextSizes& next, double now, SizingGoal goal, const Plan& plan,
                                   const Style& style = {});
[[nodiscard]] std::string binds_text(const SizedRun& run, const Plan& plan);
// A cost in the goal's unit.
[[nodiscard]] std::string cost_text(double cost, SizingGoal goal, const Style& style = {});

// Where a short is: "far end of scene lights", "behind scene lights fuse".
[[nodiscard]] std::string place_text(const ShortPlace& place, const Plan& plan);
// What happens: "scene lights fuse opens in 6 ms to 40 ms; scene lights reaches 71 °C of 160 °C."
[[nodiscard]] std::string sentence(const ShortRow& row, const Plan& plan, const Style& style = {});
[[nodiscard]] Severity severity_of(const ShortRow& row);

// "The bus dips from 12.6 V to 10.9 V; the hoist feed fuse uses 12 % of what opens it."
[[nodiscard]] std::string sentence(const StartStudy& study, const Plan& plan, const Style& style = {});

}  // namespace yr::words
