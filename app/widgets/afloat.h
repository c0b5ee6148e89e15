// Keeps a widget over an edge of its host: what is under it stays where it is.
#pragma once

#include <QEvent>
#include <QWidget>
#include <algorithm>

namespace yr::app {

class Afloat : public QObject {
  public:
    enum class Edge { top, left, right };

    // REQUIRES: `what` is a child of `host`.
    Afloat(QWidget* what, QWidget* host, Edge edge) : QObject(what), what_(what), host_(host), edge_(edge) {
        what_->installEventFilter(this);
        host_->installEventFilter(this);
        place();
    }
    void move_to(Edge edge) {
        edge_ = edge;
        place();
    }
    [[nodiscard]] Edge edge() const { return edge_; }

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override {
        const bool host_resized = watched == host_ && event->type() == QEvent::Resize;
        const bool shown = watched == what_ && event->type() == QEvent::Show;
        if (host_resized || shown || (watched == what_ && event->type() == QEvent::LayoutRequest)) place();
        if (shown) what_->raise();
        return false;
    }

  private:
    void place() {
        if (what_->parentWidget() != host_) return;  // docked elsewhere just now
        if (edge_ == Edge::top) {
            const int wanted = what_->hasHeightForWidth() ? what_->heightForWidth(host_->width())
                                                          : what_->sizeHint().height();
            what_->setGeometry(0, 0, host_->width(), std::min(wanted, host_->height()));
        } else {
            const int wanted = std::max(what_->sizeHint().width(), what_->minimumWidth());
            const int width = std::min(wanted, host_->width());
            what_->setGeometry(edge_ == Edge::left ? 0 : host_->width() - width, 0, width, host_->height());
        }
    }

    QWidget *what_, *host_;
    Edge edge_;
};

}  // namespace yr::app
