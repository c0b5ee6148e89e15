// The cables of a way or passage cut across, at true scale to each other: every one a circle, the loom or the
// hole round them.
#pragma once

#include <QWidget>
#include <vector>

#include "document/document.h"
#include "routes/packing.h"
#include "widgets/spoken_parts.h"

namespace yr::app {

class CrossSection : public QWidget, public SpokenParts {
    Q_OBJECT

  public:
    explicit CrossSection(Document* document, QWidget* parent = nullptr);
    // Indices of runs; `bore_mm` 0: no hole. Packs them: milliseconds.
    void show(const std::vector<std::size_t>& runs, double bore_mm);
    [[nodiscard]] double bundle_mm() const { return packing_.diameter; }
    [[nodiscard]] double factor_mm() const { return factor_mm_; }
    [[nodiscard]] const Packing& packing() const { return packing_; }
    QSize sizeHint() const override { return {250, 210}; }
    [[nodiscard]] std::vector<SpokenPart> spoken_parts() const override;

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    bool event(QEvent* event) override;

  private:
    [[nodiscard]] QRectF circle(const Disc& disc) const;
    [[nodiscard]] double px_per_mm() const;
    [[nodiscard]] int disc_at(const QPointF& point) const;

    Document* document_;
    Packing packing_;
    std::vector<std::size_t> of_;  // run of each disc
    double bore_mm_ = 0, factor_mm_ = 0;
};

}  // namespace yr::app
