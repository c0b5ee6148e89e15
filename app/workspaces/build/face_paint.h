// Both halves of a connector from the side at which the wires go in, on the screen and on paper.
#pragma once

#include <QPainter>
#include <vector>

#include "fabricate/faces.h"

namespace yr::app {

struct FacePaint {
    QPointF at;          // its top left corner
    double width = 400;  // of both halves together
    double line = 15;    // of one line of text, in the painter's pixels
    QColor ink, soft, fill, own;
    Id chosen{};  // a run that stands out
};

// How high it comes out.
[[nodiscard]] double face_height(const ConnectorFace& face, double line);
// Where a pin lies; `behind`: of the half towards the loads.
[[nodiscard]] QRectF pin_rect(const ConnectorFace& face, const FacePin& pin, const FacePaint& how,
                              bool behind);
void paint_face(QPainter& p, const Plan& plan, const std::vector<WireRow>& wires, const ConnectorFace& face,
                const FacePaint& how);

}  // namespace yr::app
