// Building in words: ends, steps of the hands, parts, wires and cuts as tables.
#pragma once

#include <string>
#include <vector>

#include "fabricate/covering.h"
#include "fabricate/cut_plan.h"
#include "fabricate/parts.h"
#include "io/table_xlsx.h"
#include "words/format.h"

namespace yr::words {

// "ring, M8, 45°, cap, shrink 12.7 mm"; "(chosen)" behind what nobody said.
[[nodiscard]] std::string end_text(const CableEnd& end);
// "tape 19 mm, split loom 13 mm over it"; empty where it is not covered.
[[nodiscard]] std::string covering_text(const std::vector<CoveringLayer>& layers);
[[nodiscard]] std::string step_text(EndStep step, const CableEnd& end, double area_mm2);
[[nodiscard]] const char* name_of(BuyKind kind);
[[nodiscard]] std::string colour_text(const std::string& colour);
// Both lines of an end's label: number and name, then where it goes.
[[nodiscard]] std::string label_text(const Plan& plan, const WireRow& wire, bool at_from);
// What a cutting comes to, in one sentence.
[[nodiscard]] std::string sentence(const SizeCutting& cutting, const Style& style = {});

// Tables with headings, for the screen, CSV and spreadsheets alike.
[[nodiscard]] Sheet parts_sheet(const Plan& plan, const std::vector<Part>& parts);
[[nodiscard]] Sheet wires_sheet(const Plan& plan, const std::vector<WireRow>& wires);
// The pieces of several vehicles alike, a bag each: number on the label, which cable, length, roll it is cut
// from.
[[nodiscard]] Sheet kits_sheet(const Plan& plan, const std::vector<SizeCutting>& cuts);
[[nodiscard]] Sheet cuts_sheet(const Plan& plan, const std::vector<SizeCutting>& cuts);

}  // namespace yr::words
