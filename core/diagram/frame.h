// The sheet that a diagram is drawn on: frame, zones (A1 to F8, as drawings are folded and read) and title.
#pragma once

#include <string>

#include "diagram/strokes.h"

namespace yr {

inline constexpr double kSheetWide_mm = 420, kSheetHigh_mm = 297;  // ISO 216 A3, laid across
inline constexpr double kFrame_mm = 10, kZone_mm = 5, kTitle_mm = 14;

struct SheetTitle {
    std::string vehicle, kind, title;
    std::size_t number = 1, of = 1;
};

[[nodiscard]] std::string zone_at(double x_mm, double y_mm);
void draw_frame(Strokes& s, const SheetTitle& title);

}  // namespace yr
