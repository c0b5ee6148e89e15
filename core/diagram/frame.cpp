#include "diagram/frame.h"

#include <algorithm>

namespace yr {
namespace {

constexpr int kColumns = 8, kRows = 6;
constexpr double kColumn_mm = (kSheetWide_mm - 2 * kFrame_mm) / kColumns;
constexpr double kRow_mm = (kSheetHigh_mm - 2 * kFrame_mm) / kRows;

void draw_zones(Strokes& s) {
    for (int c = 0; c < kColumns; ++c) {
        const double x = kFrame_mm + (c + 0.5) * kColumn_mm;
        s.text(x, kFrame_mm + 3.8, std::to_string(c + 1), 2.8, Anchor::middle);
        s.text(x, kSheetHigh_mm - kFrame_mm - 1.4, std::to_string(c + 1), 2.8, Anchor::middle);
        if (c > 0)
            s.line(kFrame_mm + c * kColumn_mm, kFrame_mm, kFrame_mm + c * kColumn_mm, kFrame_mm + kZone_mm,
                   0.25);
    }
    for (int r = 0; r < kRows; ++r) {
        const double y = kFrame_mm + (r + 0.5) * kRow_mm;
        const std::string letter(1, static_cast<char>('A' + r));
        s.text(kFrame_mm + 2.5, y, letter, 2.8, Anchor::middle);
        s.text(kSheetWide_mm - kFrame_mm - 2.5, y, letter, 2.8, Anchor::middle);
    }
}

}  // namespace

std::string zone_at(double x_mm, double y_mm) {
    const int column = std::clamp(static_cast<int>((x_mm - kFrame_mm) / kColumn_mm), 0, kColumns - 1);
    const int row = std::clamp(static_cast<int>((y_mm - kFrame_mm) / kRow_mm), 0, kRows - 1);
    return std::string(1, static_cast<char>('A' + row)) + std::to_string(column + 1);
}

void draw_frame(Strokes& s, const SheetTitle& title) {
    const double wide = kSheetWide_mm, high = kSheetHigh_mm, inner = kFrame_mm + kZone_mm;
    s.box(kFrame_mm, kFrame_mm, wide - kFrame_mm, high - kFrame_mm, 0.5);
    s.box(inner, inner, wide - inner, high - inner, 0.25);
    draw_zones(s);
    const double base = high - inner;
    s.line(inner, base - kTitle_mm, wide - inner, base - kTitle_mm, 0.25);
    s.text(inner + 3, base - 8, title.vehicle, 3.6, Anchor::left, true);
    s.text(inner + 3, base - 3, title.kind, 2.6);
    s.text(wide / 2, base - 5.5, title.title, 4, Anchor::middle, true);
    s.text(wide - inner - 3, base - 5.5,
           "sheet " + std::to_string(title.number) + " of " + std::to_string(title.of), 3.2, Anchor::right);
}

}  // namespace yr
