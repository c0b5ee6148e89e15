// Boxes and feeds as slabs: a box with its channels, what hangs on each and what is free; a block or bus with
// its loads. A load is dragged from one to another and stays where it was put.
#pragma once

#include <QWidget>
#include <map>
#include <vector>

#include "document/document.h"
#include "widgets/spoken_parts.h"

namespace yr::app {

struct BoxCell {
    QRectF rect;
    int channel = 0;  // 0: on a block, bus or stud
    Id load;          // empty: free
    QString name, amount;
    double share = 0;  // of what the channel carries
    bool pinned = false;
    std::optional<Severity> severity;
};

struct BoxGroup {
    QRectF rect;  // bracket under its channels
    QString text;
    bool over = false;
};

struct BoxSlab {
    Id feed;
    QRectF rect;
    QString title, amount;
    double share = -1;  // of its main; below 0: no limit
    std::vector<BoxCell> cells;
    std::vector<BoxGroup> groups;
};

class BoxView : public QWidget, public SpokenParts {
    Q_OBJECT

  public:
    explicit BoxView(Document* document, QWidget* parent = nullptr);
    [[nodiscard]] const std::vector<BoxSlab>& slabs() const { return slabs_; }
    [[nodiscard]] const BoxCell* cell_of(const Id& load) const;
    [[nodiscard]] const BoxCell* cell_at(const Id& feed, int channel) const;
    QSize sizeHint() const override;
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override;

    [[nodiscard]] std::vector<SpokenPart> spoken_parts() const override;

  protected:
    void paintEvent(QPaintEvent*) override;
    void showEvent(QShowEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

  private:
    void refresh();
    void lay_slabs();
    void refresh_when_seen();
    bool stale_ = false;
    [[nodiscard]] double lay_out(double width, std::vector<BoxSlab>& slabs) const;
    [[nodiscard]] double box_slab(const Point& box, double top, double width, BoxSlab& slab) const;
    [[nodiscard]] double feed_slab(const Point& feed, double top, double width, BoxSlab& slab) const;
    struct Hit {
        const BoxSlab* slab = nullptr;
        const BoxCell* cell = nullptr;
    };
    [[nodiscard]] Hit hit(const QPointF& at) const;
    void drop(const QPointF& at);
    [[nodiscard]] QString drop_text(const QPointF& at) const;

    Document* document_;
    std::vector<BoxSlab> slabs_;
    mutable std::map<int, int> height_of_width_;  // a layout asks again and again, by turns for two widths
    QPointF press_{-1, -1}, mouse_{-1, -1};
    Id pressed_, dragged_;
};

}  // namespace yr::app
