#include "panels/type_line.h"

#include <QKeyEvent>
#include <QVBoxLayout>

#include "control/circuit.h"
#include "document/own_library.h"
#include "widgets/tokens.h"
#include "words/control_words.h"
#include "words/sentences.h"

namespace yr::app {

QString understood_text(const TypedLine& line, const Plan& plan, const words::Style& style) {
    QStringList parts;
    const auto quantity = [&](double v, Dimension d) { return q(words::quantity(v, d, style)); };
    if (!line.name.empty()) parts << q(line.name);
    const QString times = line.count > 1 ? QStringLiteral("%1 × ").arg(line.count) : QString();
    if (line.draw) {
        const Dimension d = line.draw->kind == DrawKind::power     ? Dimension::power
                            : line.draw->kind == DrawKind::current ? Dimension::current
                                                                   : Dimension::resistance;
        parts << times + quantity(line.draw->value, d);
    } else if (!times.isEmpty()) {
        parts << say("%1 pieces").arg(line.count);
    }
    if (line.details.plate_V) parts << say("at ") + quantity(*line.details.plate_V, Dimension::voltage);
    if (line.details.duty) parts << quantity(*line.details.duty, Dimension::fraction) + say(" of the time");
    if (line.inrush_A) parts << quantity(*line.inrush_A, Dimension::current) + say(" at start");
    if (line.live_when) parts << q(words::condition(*line.live_when, &plan));
    if (line.length_m) parts << quantity(*line.length_m, Dimension::length);
    if (line.size) parts << q(words::short_size(*line.size));
    if (!line.place.empty()) parts << q(yr::name_of(plan, line.place));
    if (!line.feed.empty()) parts << say("from ") + q(yr::name_of(plan, line.feed));
    if (line.channel > 0) parts << say("channel %1").arg(line.channel);
    if (!line.inverter.empty()) parts << say("mains from ") + q(yr::name_of(plan, line.inverter));
    if (line.start_W) parts << quantity(*line.start_W, Dimension::power) + say(" at start");
    if (line.critical) parts << say("critical");
    if (line.drop_limit) parts << quantity(*line.drop_limit, Dimension::fraction) + say(" drop");
    if (line.chassis) parts << (*line.chassis ? say("chassis return") : say("home-run"));
    if (line.details.own_ground) parts << say("own ground");
    if (!line.details.together.empty()) parts << say("together ") + q(line.details.together);
    if (!line.details.apart.empty()) parts << say("apart ") + q(line.details.apart);
    if (!line.entry.empty()) parts << say("typical, check the plate");
    return parts.join(QStringLiteral(" · "));
}

TypeLine::TypeLine(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    edit_ = new QLineEdit;
    edit_->setPlaceholderText(say("work light 2x 35 W on ignition, 4 m"));
    edit_->setAccessibleName(say("Add a load by typing"));
    edit_->setMinimumHeight(34);
    edit_->setObjectName(QStringLiteral("type_line"));
    understood_ = new QLabel;
    understood_->setObjectName(QStringLiteral("good"));
    problem_ = new QLabel;
    problem_->setObjectName(QStringLiteral("fix"));
    for (QLabel* l : {understood_, problem_}) {
        l->setFont(type_font(Type::small));
        l->setWordWrap(true);
        l->hide();
    }
    matches_ = new QListWidget;
    matches_->setObjectName(QStringLiteral("matches"));
    matches_->setAccessibleName(say("From the library"));
    matches_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    matches_->setFont(type_font(Type::small));
    matches_->hide();
    edit_->installEventFilter(this);
    matches_->installEventFilter(this);
    connect(matches_, &QListWidget::itemClicked, this,
            [this](QListWidgetItem* item) { take_entry(item->data(Qt::UserRole).toString()); });
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 12, 12, 4);
    column->setSpacing(4);
    column->addWidget(edit_);
    column->addWidget(understood_);
    column->addWidget(problem_);
    column->addWidget(matches_);
    problem_->setTextFormat(Qt::RichText);
    problem_->setTextInteractionFlags(Qt::LinksAccessibleByMouse);
    connect(problem_, &QLabel::linkActivated, this, &TypeLine::settle_doubt);
    connect(edit_, &QLineEdit::textChanged, this, &TypeLine::read);
    connect(edit_, &QLineEdit::returnPressed, this, &TypeLine::add);
}

void TypeLine::take_entry(const QString& name) {
    edit_->setText(name);
    edit_->setFocus();
    edit_->setCursorPosition(static_cast<int>(name.size()));
}

void TypeLine::show_matches(const TypedLine& line) {
    matches_->clear();
    const bool wanted = !line.draw && line.name.size() >= 2;
    if (wanted)
        for (const LoadEntry* e : search(library(), line.name, 6)) {
            Load plain = e->load;
            const QString draw =
                q(typed_text(Plan{}, plain)).mid(q(plain.name).size()).section(QLatin1Char(','), 0, 0);
            auto* item = new QListWidgetItem(q(plain.name) + draw + (e->own ? say("  · my own") : QString()));
            item->setData(Qt::UserRole, q(plain.name));
            item->setToolTip(q(typed_text(Plan{}, plain)) + say("\nTypical, check the plate."));
            matches_->addItem(item);
        }
    matches_->setVisible(matches_->count() > 0);
    matches_->setFixedHeight(matches_->count() * 24 + 6);
}

// Down goes into the list, Enter takes what is chosen there, Escape and Up at its top come back.
bool TypeLine::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress) return QWidget::eventFilter(watched, event);
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (watched == edit_ && key == Qt::Key_Tab && next_reading()) return true;
    if (watched == edit_ && key == Qt::Key_Down && matches_->count() > 0) {
        matches_->setCurrentRow(0);
        matches_->setFocus();
        return true;
    }
    if (watched == matches_ && (key == Qt::Key_Return || key == Qt::Key_Enter) && matches_->currentItem()) {
        take_entry(matches_->currentItem()->data(Qt::UserRole).toString());
        return true;
    }
    if (watched == matches_ &&
        (key == Qt::Key_Escape || (key == Qt::Key_Up && matches_->currentRow() == 0))) {
        edit_->setFocus();
        return true;
    }
    return QWidget::eventFilter(watched, event);
}

void TypeLine::read() {
    const TypedLine line = read_line(document_->plan(), edit_->text().toStdString(), &library());
    show_matches(line);
    understood_->setText(understood_text(line, document_->plan(), document_->style()) +
                         (line.complete() ? QStringLiteral("   ⏎") : QString()));
    understood_->setVisible(!edit_->text().trimmed().isEmpty());
    QStringList problems;
    if (line.doubt)
        problems << say("“%1”: is it <a href='%2'>%2</a> or <a href='%3'>%3</a>? Tab chooses")
                        .arg(q(line.doubt->text).toHtmlEscaped(), q(line.doubt->large).toHtmlEscaped(),
                             q(line.doubt->small).toHtmlEscaped());
    else if (!line.name.empty() && !line.draw)
        problems << say("its draw is missing: W, A or ohm");
    if (line.name.empty() && line.draw) problems << say("its name is missing");
    if (!line.not_understood.empty()) {
        QStringList words;
        for (const auto& w : line.not_understood) words << q(w).toHtmlEscaped();
        problems << say("not understood, kept as a note: ") + words.join(QStringLiteral(" "));
    }
    problem_->setText(problems.join(QStringLiteral("; ")));
    problem_->setVisible(!problems.isEmpty());
}

// The number in doubt as one of its readings; it stays undone by the line's own Ctrl+Z.
void TypeLine::settle_doubt(const QString& reading) {
    const TypedLine line = read_line(document_->plan(), edit_->text().toStdString(), &library());
    if (!line.doubt) return;
    const auto at = static_cast<int>(edit_->text().indexOf(q(line.doubt->text)));
    edit_->setSelection(at, static_cast<int>(line.doubt->text.size()));
    edit_->insert(reading);
    settled_ = {reading, reading == q(line.doubt->large) ? q(line.doubt->small) : q(line.doubt->large)};
    edit_->setFocus();
}

// The first Tab takes the larger reading, the next the other one.
bool TypeLine::next_reading() {
    const TypedLine line = read_line(document_->plan(), edit_->text().toStdString(), &library());
    if (line.doubt) {
        settle_doubt(q(line.doubt->large));
        return true;
    }
    const auto at = settled_.first.isEmpty() ? -1 : static_cast<int>(edit_->text().indexOf(settled_.first));
    if (at < 0) return false;
    edit_->setSelection(at, static_cast<int>(settled_.first.size()));
    edit_->insert(settled_.second);
    std::swap(settled_.first, settled_.second);
    return true;
}

void TypeLine::add() {
    const TypedLine line = read_line(document_->plan(), edit_->text().toStdString(), &library());
    if (line.doubt) return read();  // it asks
    const auto circuit = make_circuit(document_->plan(), line);
    if (!circuit) {
        problem_->setText(q(words::sentence(circuit.error())).toHtmlEscaped());
        problem_->show();
        return;
    }
    if (!document_->apply(circuit->edit, say("add ") + q(line.name))) return;
    edit_->clear();
    settled_ = {};
    document_->selection().choose(circuit->load);
}

}  // namespace yr::app
