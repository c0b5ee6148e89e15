// Words for what is live when and through what: findings about boxes and control, assignments, rails, sneak
// paths.
#pragma once

#include "control/assign.h"
#include "control/boxes.h"
#include "control/rails.h"
#include "inspect/checked_channels.h"
#include "inspect/sneak.h"
#include "inspect/two_boxes.h"
#include "words/sentences.h"

namespace yr::words {

// "key at accessory, hoist on", with switches that are on and fuses that are out.
[[nodiscard]] std::string situation(const SneakPath& path, const Plan& plan);

// "Dash camera is alive (8.1 V) with key off, scene on: through beacons."
[[nodiscard]] std::string sentence(const SneakPath& path, const Plan& plan, const Style& style = {});

// "The same for echo sounder, cab display and 3 more." for those that share a cause with the first.
[[nodiscard]] std::string same_for(const std::vector<std::size_t>& cause, const SneakSearch& search,
                                   const Plan& plan);

// "battery cable, cab box feed, radio feed, two-way radio, radio return": names along the path.
[[nodiscard]] std::string path_text(const SneakPath& path, const Plan& plan);

// "diode in radio feed", "coil from hoist contactor's own rail"; what the button says.
[[nodiscard]] std::string mend_label(const SneakMend& mend, const Plan& plan);

// What a search looked at: "17 switches and fuses at 5 key positions: every one of 655 360 combinations."
[[nodiscard]] std::string search_text(const SneakSearch& search);

// Why a load sits where it does, one line a reason; the first is its own place.
[[nodiscard]] std::vector<std::string> reasons(const PlacedLoad& placed, const Plan& plan,
                                               const Style& style = {});

// Why nothing fits, and what would make it fit.
[[nodiscard]] std::string conflict_text(const Assignment& assignment, const Plan& plan);
// The same of one that was inspected whole: also where nothing is proved.
[[nodiscard]] std::string conflict_text(const CheckedChannels& checked, const Plan& plan,
                                        const Style& style = {});
[[nodiscard]] std::string sentence(const Remedy& remedy, const Plan& plan, const Style& style = {});

// "Key at accessory: 7 loads, 22 A. Cab box is live just then. Elsewhere hangs: satellite terminal."
[[nodiscard]] std::string sentence(const RailGroup& group, const Plan& plan, const Style& style = {});

// "cab box channel 3", "always block".
[[nodiscard]] std::string place_text(const Plan& plan, const Id& feed, int channel);

// "Two boxes: 9.3 kg of copper, 41 m on the boxes, cable and ends 212, 0.31 V lost at worst; 5 loads on the
// second."
[[nodiscard]] std::string sentence(const BoxOption& option, const Style& style = {});
[[nodiscard]] const char* name_of(BoxLayout layout);

}  // namespace yr::words
