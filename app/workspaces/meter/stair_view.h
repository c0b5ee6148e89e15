// The staircase: the way from source to load and back along one line, expected volts as steps with their
// band, readings as dots. A dot under its step is the bad joint.
#pragma once

#include <QWidget>

#include "document/document.h"
#include "meter/staircase.h"
#include "widgets/spoken_parts.h"

namespace yr::app {

class StairView : public QWidget, public SpokenParts {
    Q_OBJECT

  public:
    explicit StairView(Document* document, QWidget* parent = nullptr);
    void show(std::vector<Stair> stairs, std::vector<Reading> readings, const std::optional<Probing>& next);
    [[nodiscard]] const std::vector<Stair>& stairs() const { return stairs_; }
    [[nodiscard]] QRectF step(std::size_t k) const;  // on the screen
    QSize minimumSizeHint() const override { return {400, 240}; }
    [[nodiscard]] std::vector<SpokenPart> spoken_parts() const override;

  signals:
    void asked(const yr::Terminal& at);  // a step was clicked: read there

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

  private:
    struct Scale {
        double low = 0, high = 1, top = 0, bottom = 1;
        [[nodiscard]] double y(double v) const { return bottom - (v - low) / (high - low) * (bottom - top); }
    };
    [[nodiscard]] Scale scale(bool on_return) const;
    [[nodiscard]] std::optional<double> read_at(const Terminal& t) const;

    Document* document_;
    std::vector<Stair> stairs_;
    std::vector<Reading> readings_;
    std::optional<Probing> next_;
};

}  // namespace yr::app
