#include "workspaces/day/state_shelf.h"

#include <QApplication>
#include <QDrag>
#include <QMimeData>
#include <QMouseEvent>
#include <QToolButton>

#include "text/say.h"

namespace yr::app {
namespace {

constexpr int kGap_px = 4, kHigh_px = 30;

}  // namespace

StateShelf::StateShelf(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setFixedHeight(kHigh_px);
    setAccessibleName(say("States to be dragged onto the day"));
}

void StateShelf::refresh() {
    std::vector<std::pair<Id, std::string>> now;
    for (const State& s : document_->plan().states) now.emplace_back(s.id, s.name);
    if (now == shown_) return;  // an edge that is dragged changes no state
    shown_ = std::move(now);
    for (QToolButton* b : words_) b->hide(), b->deleteLater();
    words_.clear();
    for (const State& s : document_->plan().states) {
        auto* b = new QToolButton(this);
        b->setText(q(s.name));
        b->setObjectName(QStringLiteral("state"));
        b->setProperty("state", q(s.id));
        b->setToolTip(say("Drag it onto the strip where it shall be; a click puts it at the end"));
        b->setCursor(Qt::OpenHandCursor);
        b->installEventFilter(this);
        connect(b, &QToolButton::clicked, this, [this, id = s.id] { emit asked(id); });
        words_.push_back(b);
    }
    fit();
}

void StateShelf::resizeEvent(QResizeEvent*) {
    fit();
}

void StateShelf::fit() {
    int x = 0;
    bool room = true;
    for (QToolButton* b : words_) {
        b->ensurePolished();
        const int wide = b->sizeHint().width();
        room = room && x + wide <= width();
        b->setVisible(room);
        b->setGeometry(x, 0, wide, kHigh_px);
        x += wide + kGap_px;
    }
}

bool StateShelf::eventFilter(QObject* watched, QEvent* event) {
    auto* b = qobject_cast<QToolButton*>(watched);
    if (event->type() == QEvent::MouseButtonPress) pressed_ = static_cast<QMouseEvent*>(event)->pos();
    if (b && event->type() == QEvent::MouseMove) {
        auto* move = static_cast<QMouseEvent*>(event);
        if ((move->buttons() & Qt::LeftButton) &&
            (move->pos() - pressed_).manhattanLength() >= QApplication::startDragDistance()) {
            b->setDown(false);
            auto* carried = new QMimeData;
            carried->setData(QString::fromLatin1(kStateMime), b->property("state").toString().toUtf8());
            auto* drag = new QDrag(this);  // goes by itself
            drag->setMimeData(carried);
            drag->setPixmap(b->grab());
            drag->exec(Qt::CopyAction);
            return true;
        }
    }
    return QWidget::eventFilter(watched, event);
}

}  // namespace yr::app

#include "moc_state_shelf.cpp"
