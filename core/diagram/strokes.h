// A drawing as plain strokes in millimetres, from the left upper corner: written as SVG, painted on the
// screen and on paper from the same list.
#pragma once

#include <string>
#include <vector>

#include "plan/plan.h"

namespace yr {

enum class StrokeKind { line, box, circle, text };
enum class Anchor { left, middle, right };

struct Stroke {
    StrokeKind kind{};
    double x = 0, y = 0;    // line: from; box: left upper corner; circle: middle; text: its baseline
    double x2 = 0, y2 = 0;  // line: to; box: right lower corner; circle: x2 is its radius
    double wide = 0.3;      // of the stroke; text: its height
    bool filled = false, dashed = false, bold = false;
    Anchor anchor = Anchor::left;
    std::string text{};
    Id id{};  // what it belongs to: a click on it chooses that
};

class Strokes {
  public:
    void belongs_to(Id id) { id_ = std::move(id); }
    void line(double x, double y, double x2, double y2, double wide = 0.3) {
        add({StrokeKind::line, x, y, x2, y2, wide, false, false, false, Anchor::left, {}, id_});
    }
    void dashes(double x, double y, double x2, double y2) {
        add({StrokeKind::line, x, y, x2, y2, 0.25, false, true, false, Anchor::left, {}, id_});
    }
    void box(double x, double y, double x2, double y2, double wide = 0.3, bool filled = false) {
        add({StrokeKind::box, x, y, x2, y2, wide, filled, false, false, Anchor::left, {}, id_});
    }
    void circle(double x, double y, double radius, bool filled = false) {
        add({StrokeKind::circle, x, y, radius, 0, 0.3, filled, false, false, Anchor::left, {}, id_});
    }
    void text(double x, double y, std::string words, double high = 2.4, Anchor anchor = Anchor::left,
              bool bold = false) {
        if (!words.empty())
            add({StrokeKind::text, x, y, 0, 0, high, false, false, bold, anchor, std::move(words), id_});
    }
    [[nodiscard]] std::vector<Stroke> take() { return std::move(all_); }

  private:
    void add(Stroke s) { all_.push_back(std::move(s)); }
    std::vector<Stroke> all_;
    Id id_;
};

}  // namespace yr
