// Time over current on log axes for one run: its fuse's band, what its cable bears, start and short currents,
// the fuses up and down stream. The fuse can be dragged to another rating.
#pragma once

#include <qcustomplot.h>

#include "document/document.h"
#include "size/guard_curves.h"
#include "widgets/spoken_parts.h"

namespace yr::app {

class CurveChart : public QCustomPlot, public SpokenParts {
    Q_OBJECT

  public:
    explicit CurveChart(Document* document, QWidget* parent = nullptr);
    // nullopt: nothing to draw. `plan`: of which the curves are; it is not kept.
    void show_curves(std::optional<GuardCurves> curves, const Plan& plan);
    [[nodiscard]] const std::optional<GuardCurves>& curves() const { return curves_; }
    // Where the own fuse's band stands on the widget; the middle of what can be taken hold of.
    [[nodiscard]] QPointF handle() const;

    [[nodiscard]] std::vector<SpokenPart> spoken_parts() const override;

  signals:
    void rating_asked(const Id& device, double rating_A);

  protected:
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void changeEvent(QEvent* event) override;

  private:
    void draw();
    void style_axes();
    void add_band(const FuseBandCurve& band, double scale, bool own);
    void add_line(const CurvePoints& points, const QPen& pen, const QString& name);
    void add_mark(double amps, const QString& text, const QColor& colour, double at_s, Qt::PenStyle style);
    void turn_marks();
    std::vector<QCPItemText*> marks_;
    [[nodiscard]] const Device* device_of(const FuseBandCurve& band) const;
    [[nodiscard]] const Device* own_device() const;
    [[nodiscard]] double snapped_A(double rating_A) const;

    Document* document_;
    std::optional<GuardCurves> curves_;
    std::vector<std::optional<Device>> fuses_;  // as they were when the curves were drawn, one each
    std::optional<double> grabbed_A_;           // current under the pointer when the fuse was taken
    double dragged_A_ = 0;                      // rating while it is dragged; 0: it is not
};

}  // namespace yr::app
