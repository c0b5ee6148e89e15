// The looms laid flat, as they are tied on a board: true to length, branch points and breakouts with their
// figures; below them the connectors from the wires' side. On the screen, and 1:1 on paper in tiles.
#pragma once

#include <QPageSize>
#include <QWidget>
#include <vector>

#include "document/document.h"
#include "fabricate/faces.h"
#include "fabricate/harness.h"
#include "units/result.h"
#include "widgets/spoken_parts.h"
#include "workspaces/build/face_paint.h"

namespace yr::app {

class LoomView : public QWidget, public SpokenParts {
    Q_OBJECT

  public:
    explicit LoomView(Document* document, QWidget* parent = nullptr);
    void show(const std::vector<FlatLoom>& looms);
    [[nodiscard]] const std::vector<FlatLoom>& looms() const { return looms_; }
    // Where a loom's point is drawn.
    [[nodiscard]] QPointF on_screen(std::size_t loom, const FlatPoint& point) const;
    [[nodiscard]] const std::vector<ConnectorFace>& faces() const { return faces_; }
    // Where a pin of a connector is drawn; `behind`: in the half towards the loads.
    [[nodiscard]] QRectF pin_on_screen(std::size_t face, std::size_t pin, bool behind) const;
    [[nodiscard]] std::vector<SpokenPart> spoken_parts() const override;

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

  private:
    void lay_out();
    [[nodiscard]] FacePaint face_at(std::size_t face) const;
    void choose(const std::vector<std::size_t>& runs);

    Document* document_;
    std::vector<FlatLoom> looms_;
    std::vector<ConnectorFace> faces_;
    std::vector<WireRow> wires_;
    std::vector<QPointF> origin_;  // of each loom, px
    std::vector<double> face_y_;   // of each connector, px
    double px_per_m_ = 100;
};

// One loom at 1:1 over as many pages as it takes, each with its place in the whole, a bar of 100 mm, marks to
// glue by and its pin table at the end. Failure: unwritable_file; missing_reference where there is no such
// loom.
[[nodiscard]] Result<int> write_loom(const Plan& plan, const QString& name, const QString& path,
                                     QPageSize::PageSizeId page, bool over);

}  // namespace yr::app
