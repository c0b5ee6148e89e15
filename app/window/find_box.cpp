#include "window/find_box.h"

#include <QKeyEvent>
#include <QVBoxLayout>

#include "plan/lists.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

constexpr int kMost = 60;

struct Kind {
    template <class T>
    static QString of(const T&) {
        if constexpr (std::is_same_v<T, Place>) return say("place");
        if constexpr (std::is_same_v<T, Waypoint>) return say("waypoint");
        if constexpr (std::is_same_v<T, Way>) return say("way");
        if constexpr (std::is_same_v<T, Point>) return say("point");
        if constexpr (std::is_same_v<T, Source>) return say("source");
        if constexpr (std::is_same_v<T, Battery>) return say("battery");
        if constexpr (std::is_same_v<T, Inverter>) return say("inverter");
        if constexpr (std::is_same_v<T, Connector>) return say("connector");
        if constexpr (std::is_same_v<T, Jacket>) return say("cable of several cores");
        if constexpr (std::is_same_v<T, Run>) return say("cable");
        if constexpr (std::is_same_v<T, Load>) return say("load");
        if constexpr (std::is_same_v<T, State>) return say("state");
        if constexpr (std::is_same_v<T, Day>) return say("day");
    }
};

}  // namespace

FindBox::FindBox(Document* document, QWidget* parent) : QDialog(parent), document_(document) {
    setWindowTitle(say("Find"));
    resize(420, 380);
    edit_ = new QLineEdit;
    edit_->setPlaceholderText(say("part of a name, a note, a fuse"));
    edit_->setAccessibleName(say("What to find"));
    edit_->installEventFilter(this);
    found_ = new QListWidget;
    found_->setAccessibleName(say("What is found"));
    auto* column = new QVBoxLayout(this);
    column->addWidget(edit_);
    column->addWidget(found_, 1);
    connect(edit_, &QLineEdit::textChanged, this, &FindBox::search);
    connect(edit_, &QLineEdit::returnPressed, this, &FindBox::accept);
    connect(found_, &QListWidget::itemActivated, this, &FindBox::accept);
    search();
}

// Up and down walk in the list while one goes on typing.
bool FindBox::eventFilter(QObject* watched, QEvent* event) {
    if (watched == edit_ && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        const int step = key == Qt::Key_Down ? 1 : key == Qt::Key_Up ? -1 : 0;
        if (step != 0 && found_->count() > 0) {
            found_->setCurrentRow(std::clamp(found_->currentRow() + step, 0, found_->count() - 1));
            return true;
        }
    }
    return QDialog::eventFilter(watched, event);
}

void FindBox::search() {
    found_->clear();
    const QString wanted = edit_->text().trimmed();
    const auto add = [&](const std::string& name, const QString& kind, const Id& id,
                         const std::string& note) {
        if (found_->count() >= kMost) return;
        if (!wanted.isEmpty() && !q(name).contains(wanted, Qt::CaseInsensitive) &&
            !q(note).contains(wanted, Qt::CaseInsensitive))
            return;
        auto* item = new QListWidgetItem(q(words::capital(name)) + QStringLiteral("  ·  ") + kind, found_);
        item->setData(Qt::UserRole, q(id));
        if (!note.empty()) item->setToolTip(q(note));
    };
    each_list(document_->plan(), [&](const auto& things) {
        for (const auto& x : things) add(x.name, Kind::of(x), x.id, x.remarks.note);
    });
    for (const Run& r : document_->plan().runs)
        for (const Device& d : r.devices) add(d.name, say("in ") + q(r.name), r.id, {});
    if (found_->count() > 0) found_->setCurrentRow(0);
}

void FindBox::accept() {
    if (QListWidgetItem* item = found_->currentItem())
        document_->selection().choose(item->data(Qt::UserRole).toString().toStdString());
    QDialog::accept();
}

}  // namespace yr::app

#include "moc_find_box.cpp"
