// A day on one time axis: the strip of states, amps as a mirror, charge as water in a channel for each
// battery, volts. Edges of the strip are dragged; the cursor reads all lanes; Enter or a double click asks
// for its moment on the rail.
#pragma once

#include <QWidget>
#include <optional>

#include "day/stop_at.h"
#include "day/verdicts.h"
#include "document/document.h"
#include "io/log_csv.h"
#include "widgets/spoken_parts.h"

namespace yr::app {

struct DayResult {
    Id day;
    DayRun run;
    DayVerdicts verdicts;
    std::optional<DayAfterDay> after;
    std::optional<StopAt> stop;
};

class DayChart : public QWidget, public SpokenParts {
    Q_OBJECT

  public:
    explicit DayChart(Document* document, QWidget* parent = nullptr);
    // nullptr: nothing yet. The result must live until the next call.
    void show_result(const DayResult* result);
    // The same day of another option over it, on one scale; nullptr: none. Must live until the next call.
    void show_other(const DayResult* result, const QString& name);
    // A log under the lanes; empty: none.
    void show_log(const Log& log);
    [[nodiscard]] const Log& log() const { return log_; }
    // Where its points stand in the day, seconds from its beginning.
    [[nodiscard]] double log_s(const LogPoint& point) const;
    void set_day(const Id& day);
    [[nodiscard]] const Day* day() const;
    [[nodiscard]] std::size_t chosen_part() const { return chosen_; }
    void choose_part(std::size_t part);
    [[nodiscard]] double cursor_s() const { return cursor_s_; }
    void set_cursor(double t_s);
    // Where a stretch of the strip, and the edge behind it, stand.
    [[nodiscard]] QRectF stretch_rect(std::size_t stretch) const;
    [[nodiscard]] std::vector<SpokenPart> spoken_parts() const override;
    [[nodiscard]] QString numbers() const;  // the course as a table
    QSize minimumSizeHint() const override { return {420, 320}; }

  signals:
    void part_chosen();
    void moment_asked(double t_s);
    void cursor_moved();

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dragMoveEvent(QDragMoveEvent* event) override;
    void dragLeaveEvent(QDragLeaveEvent* event) override;
    void dropEvent(QDropEvent* event) override;

  private:
    [[nodiscard]] double x_of(double t_s) const;
    [[nodiscard]] double t_of(double x) const;
    [[nodiscard]] QRectF lane(int index) const;  // 0 strip, 1 amps, then a channel each, last volts
    [[nodiscard]] int lanes() const;
    [[nodiscard]] int edge_at(const QPointF& at) const;  // stretch whose end stands there; -1: none
    void drag_edge(double x, bool free);
    void move_part(std::size_t part, double x);
    // A state let fall there: an hour of it, out of the part that it falls on.
    void drop_state(const Id& state, double x);
    void paint_other(QPainter& p, const QRectF& r, std::size_t battery, bool volts,
                     const std::function<double(double)>& y) const;
    void paint_log(QPainter& p, const QRectF& r, std::optional<double> LogPoint::*value,
                   const std::function<double(double)>& y) const;
    void paint_strip(QPainter& p) const;
    void paint_amps(QPainter& p) const;
    void paint_charge(QPainter& p, std::size_t battery) const;
    void paint_volts(QPainter& p) const;
    void paint_cursor(QPainter& p) const;
    void paint_axis(QPainter& p) const;
    [[nodiscard]] const DayPoint* point_at(double t_s) const;

    Document* document_;
    Id day_;
    const DayResult* result_ = nullptr;
    std::vector<Stretch> line_;
    double length_s_ = 86400, cursor_s_ = -1;
    std::size_t chosen_ = 0;
    int dragged_ = -1;
    const DayResult* other_ = nullptr;
    QString other_name_;
    Log log_;
    std::optional<std::size_t> carried_;  // a part that is carried to another place in the strip
    double carried_from_x_ = 0, carried_to_x_ = 0;
    std::optional<double> hovers_x_;  // a state from the shelf is carried over the strip
};

}  // namespace yr::app
