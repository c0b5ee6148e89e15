// The bench: every roll a long bar at one scale, its pieces along it with their numbers, the rest hatched;
// what is made is ticked. A click chooses a cable, its card opens beside it.
#pragma once

#include <QWidget>
#include <set>
#include <vector>

#include "document/document.h"
#include "fabricate/cut_plan.h"
#include "widgets/spoken_parts.h"

namespace yr::app {

struct BenchPiece {
    Id run;
    QRectF rect;
    QString text;
    bool made = false;
};
struct BenchRoll {
    QRectF rect;   // whole
    QString head;  // "roll 1 of 25 m"
    std::vector<BenchPiece> pieces;
};
struct BenchGroup {
    QString sentence;
    double y = 0;
    bool fix = false;  // a piece that no roll holds
    std::vector<BenchRoll> rolls;
};

class BenchView : public QWidget, public SpokenParts {
    Q_OBJECT

  public:
    explicit BenchView(Document* document, QWidget* parent = nullptr);
    // `made`: runs that are done.
    void show(const std::vector<SizeCutting>& cuts, const std::vector<WireRow>& wires,
              const std::set<Id>& made);
    [[nodiscard]] const std::vector<BenchGroup>& groups() const { return groups_; }
    [[nodiscard]] std::vector<SpokenPart> spoken_parts() const override;

  protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

  private:
    void lay_out();
    [[nodiscard]] const BenchPiece* piece_at(const QPointF& point) const;
    void walk(int by);

    Document* document_;
    std::vector<SizeCutting> cuts_;
    std::map<Id, QString> number_;
    std::set<Id> made_;
    std::vector<BenchGroup> groups_;
};

}  // namespace yr::app
