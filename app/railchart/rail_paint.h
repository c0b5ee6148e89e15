// Paints a rail scene. Two scenes and a progress between them make the glide from the old sizes to the new.
#pragma once

#include <QPainter>

#include "railchart/rail_scene.h"

namespace yr::app {

struct RailPaint {
    const ShownCircuit& circuit;
    const RailScene& scene;
    const RailScene* before = nullptr;  // glides from here
    double progress = 1;
    Id hovered, selected;
    QString drag_hint;  // drawn at the mouse while a load is dragged
    QPointF mouse;
    QSizeF size;
};

void paint_rail(QPainter& painter, const RailPaint& what);

// The dark card beside the mouse: what this rectangle is, in four lines.
void paint_card(QPainter& painter, const RailPaint& what, const SceneItem& item);

// The lines of that card; tests read them.
[[nodiscard]] QStringList card_lines(const ShownCircuit& circuit, const SceneItem& item);

}  // namespace yr::app
