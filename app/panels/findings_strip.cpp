#include "panels/findings_strip.h"

#include <QApplication>
#include <QClipboard>
#include <QDate>
#include <QDialog>
#include <QDialogButtonBox>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QSettings>
#include <functional>

#include "widgets/tokens.h"
#include "words/finding_rows.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

// A sentence, on as many lines as it takes, selected by click or keyboard; it answers F1.
class SentenceLine : public QWidget {
  public:
    SentenceLine(QString text, const QColor& colour) : text_(std::move(text)), colour_(colour) {
        setFocusPolicy(Qt::StrongFocus);
        setMinimumHeight(26);
        QSizePolicy policy(QSizePolicy::Expanding, QSizePolicy::Minimum);
        policy.setHeightForWidth(true);
        setSizePolicy(policy);
        setAccessibleName(text_);
        setCursor(Qt::PointingHandCursor);
    }
    std::function<void()> chosen;
    std::function<void(const QPoint&)> why;
    std::function<void(int)> walk;   // so many rows down
    std::function<void()> to_right;  // into what stands at the right

    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override {
        const QFontMetrics fm(type_font(Type::body));
        return std::max(26, fm.boundingRect(QRect(0, 0, width, 1000), Qt::TextWordWrap, text_).height() + 6);
    }
    QSize sizeHint() const override { return {400, heightForWidth(std::max(width(), 200))}; }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setPen(colour_);
        p.setFont(type_font(Type::body));
        p.drawText(rect(), Qt::AlignVCenter | Qt::AlignLeft | Qt::TextWordWrap, text_);
        if (hasFocus()) p.setPen(tokens().source), p.drawLine(0, height() - 3, width(), height() - 3);
    }
    void mousePressEvent(QMouseEvent*) override { chosen(); }
    void keyPressEvent(QKeyEvent* e) override {
        if (e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter || e->key() == Qt::Key_Space)
            chosen();
        else if (e->key() == Qt::Key_F1)
            why(mapToGlobal(rect().center()));
        else if (e->key() == Qt::Key_Down || e->key() == Qt::Key_Up)
            walk(e->key() == Qt::Key_Down ? 1 : -1);
        else if (e->key() == Qt::Key_Home || e->key() == Qt::Key_End)
            walk(e->key() == Qt::Key_End ? 100000 : -100000);
        else if (e->key() == Qt::Key_Right)
            to_right();
        else
            QWidget::keyPressEvent(e);
    }

  private:
    QString text_;
    QColor colour_;
};

}  // namespace

FindingsStrip::FindingsStrip(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setObjectName(QStringLiteral("panel"));
    setAttribute(Qt::WA_StyledBackground);
    setAccessibleName(say("Findings"));
    counts_ = new QLabel;
    counts_->setObjectName(QStringLiteral("soft"));
    counts_->setFont(type_font(Type::small));
    auto* inside = new QWidget;
    inside->setObjectName(QStringLiteral("panel"));
    rows_ = new QVBoxLayout(inside);
    rows_->setContentsMargins(16, 0, 12, 4);
    rows_->setSpacing(0);
    auto* scroll = scroll_ = new QScrollArea;
    scroll->setObjectName(QStringLiteral("panel"));
    scroll->setWidget(inside);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFocusPolicy(Qt::NoFocus);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 6, 0, 0);
    column->setSpacing(2);
    auto* head = new QHBoxLayout;
    head->setContentsMargins(16, 0, 16, 0);
    head->addWidget(counts_);
    head->addStretch();
    fold_ = new QToolButton;
    fold_->setObjectName(QStringLiteral("quiet"));
    fold_->setFont(type_font(Type::small));
    connect(fold_, &QToolButton::clicked, this, &FindingsStrip::fold_asked);
    head->addWidget(fold_);
    column->addLayout(head);
    column->addWidget(scroll);
    fold(false);
    connect(&document_->store(), &PlanStore::edited, this, &FindingsStrip::show_counts);
    connect(&document_->inspector(), &Inspector::inspected, this, &FindingsStrip::refresh);
    connect(&document_->inspector(), &Inspector::mends_proved, this, &FindingsStrip::refresh);
    connect(&document_->inspector(), &Inspector::days_told, this, &FindingsStrip::refresh);
    // what stood there was of another plan
    connect(&document_->store(), &PlanStore::opened, this, &FindingsStrip::refresh);
    refresh();
}

void FindingsStrip::fold(bool folded) {
    folded_ = folded;
    scroll_->setVisible(!folded);
    fold_->setText(folded ? say("Show them  F8") : say("Fold away  F8"));
    fold_->setAccessibleName(folded ? say("Show the findings") : say("Fold the findings away"));
    // as high as its one line, or as the splitter says
    setMinimumHeight(folded ? 0 : 96);
    setMaximumHeight(folded ? sizeHint().height() : QWIDGETSIZE_MAX);
}

// From a row, or from what stands in it, to another.
void FindingsStrip::walk(const QWidget* from, int by) {
    const auto at = std::find_if(walked_.begin(), walked_.end(), [&](const Row& r) {
        return r.sentence == from || std::find(r.right.begin(), r.right.end(), from) != r.right.end();
    });
    if (at == walked_.end()) return;
    const auto last = static_cast<std::ptrdiff_t>(walked_.size()) - 1;
    const auto to = std::clamp<std::ptrdiff_t>(at - walked_.begin() + by, 0, last);
    let_tab_in(static_cast<std::size_t>(to));
    QWidget* sentence = walked_[static_cast<std::size_t>(to)].sentence;
    sentence->setFocus(Qt::TabFocusReason);
    scroll_->ensureWidgetVisible(sentence, 0, 20);
}

void FindingsStrip::let_tab_in(std::size_t row) {
    for (std::size_t k = 0; k < walked_.size(); ++k)
        walked_[k].sentence->setFocusPolicy(k == row ? Qt::StrongFocus : Qt::ClickFocus);
}

// In a row, Left and Right go along it; Up and Down to the next rows.
bool FindingsStrip::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress) return QWidget::eventFilter(watched, event);
    const int key = static_cast<QKeyEvent*>(event)->key();
    for (const Row& row : walked_) {
        const auto at = std::find(row.right.begin(), row.right.end(), watched);
        if (at == row.right.end()) continue;
        if (key == Qt::Key_Left)
            (at == row.right.begin() ? row.sentence : *(at - 1))->setFocus(Qt::TabFocusReason);
        else if (key == Qt::Key_Right && at + 1 != row.right.end())
            (*(at + 1))->setFocus(Qt::TabFocusReason);
        else if (key == Qt::Key_Up || key == Qt::Key_Down)
            walk(*at, key == Qt::Key_Down ? 1 : -1);
        else
            break;
        return true;
    }
    return QWidget::eventFilter(watched, event);
}

void FindingsStrip::go_to(const Finding& f) {
    if (const State* s = yr::find(document_->plan().states, f.state))
        document_->shown().set_state(static_cast<int>(s - document_->plan().states.data()));
    document_->selection().choose(f.id);
    // a day and a way are seen in their own workspaces
    if (!f.day.empty())
        emit workspace_asked(
            QStringLiteral("day"),
            q(f.day) + (f.at_s >= 0 ? QStringLiteral("@%1").arg(f.at_s, 0, 'f', 0) : QString()));
    else if (words::row_of(f.kind).group == words::FindingGroup::place)
        emit workspace_asked(QStringLiteral("place"),
                             yr::find(document_->plan().waypoints, f.id) ? q(f.id) : QString());
}

// Mark, sentence and, at the right, what else there is: the rule, a button, what one may do besides.
QWidget* FindingsStrip::line_of(Severity severity, const QString& text, bool soft, int indent,
                                const std::function<void()>& chosen,
                                const std::function<void(const QPoint&)>& why,
                                const std::vector<QWidget*>& right) {
    auto* row = new QWidget;
    row->setMinimumHeight(28);
    row->setObjectName(QStringLiteral("panel"));
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(indent, 0, 0, 0);
    line->setSpacing(8);
    auto* mark = new QLabel(QString::fromUtf8(words::mark(severity)));
    mark->setFixedWidth(18);
    mark->setToolTip(QString::fromUtf8(words::name_of(severity)));
    mark->setObjectName(soft                         ? QStringLiteral("soft")
                        : severity == Severity::stop ? QStringLiteral("stop")
                        : severity == Severity::fix  ? QStringLiteral("fix")
                                                     : QStringLiteral("soft"));
    sentences_ << text;
    auto* sentence =
        new SentenceLine(text, soft || severity == Severity::note ? tokens().soft : tokens().ink);
    sentence->chosen = chosen;
    sentence->why = why;
    line->addWidget(mark);
    line->addWidget(sentence, 1);
    for (QWidget* w : right) {
        line->addWidget(w, 0, Qt::AlignTop);
        w->setFocusPolicy(Qt::ClickFocus);  // the keyboard comes by Right, so that Tab leaves the list
        w->installEventFilter(this);
    }
    sentence->setFocusPolicy(walked_.empty() ? Qt::StrongFocus : Qt::ClickFocus);
    sentence->walk = [this, sentence](int by) { walk(sentence, by); };
    sentence->to_right = [first = right.empty() ? nullptr : right.front()] {
        if (first) first->setFocus(Qt::TabFocusReason);
    };
    walked_.push_back({sentence, right});
    return row;
}

QToolButton* FindingsStrip::rule_button(const Finding& f) {
    const words::Rule rule = words::rule_of(f, document_->plan());
    auto* source = new QToolButton;
    source->setText(q(rule.label));
    source->setObjectName(QStringLiteral("quiet"));
    source->setFont(type_font(Type::small));
    source->setToolTip(q(rule.source) + say("\nclick: why?"));
    source->setAccessibleName(say("Why? ") + q(rule.label));
    connect(source, &QToolButton::clicked, this,
            [this, f, source] { emit why_finding(f, source->mapToGlobal(source->rect().center())); });
    return source;
}

QToolButton* FindingsStrip::mend_button(const QString& text, const QString& tip,
                                        const std::function<void()>& act) {
    auto* mend = new QToolButton;
    mend->setObjectName(QStringLiteral("mend"));
    mend->setFixedWidth(190);
    mend->setText(QFontMetrics(type_font(Type::bold)).elidedText(text, Qt::ElideRight, 172));
    mend->setToolTip(tip.isEmpty() ? text : tip);
    mend->setAccessibleName(text);
    connect(mend, &QToolButton::clicked, this, act);
    return mend;
}

// Accepting it, or taking that back.
QToolButton* FindingsStrip::more_button(const Finding& f) {
    auto* more = new QToolButton;
    more->setText(QStringLiteral("…"));
    more->setObjectName(QStringLiteral("quiet"));
    more->setToolTip(say("Accept it as it is, with a reason"));
    more->setAccessibleName(say("More about this finding"));
    more->setPopupMode(QToolButton::InstantPopup);
    auto* menu = new QMenu(more);
    if (const Accepted* a = words::accepted(f, document_->plan()))
        menu->addAction(say("It is no longer accepted"), this, [this, id = a->id] { take_back(id); });
    else
        menu->addAction(say("Accept it as it is …"), this, [this, f] { ask_to_accept(f); });
    menu->addAction(say("Copy the sentence"), this, [this, f] {
        QApplication::clipboard()->setText(q(words::sentence(f, document_->plan(), document_->style())));
    });
    more->setMenu(menu);
    return more;
}

QWidget* FindingsStrip::row_of(const Finding& f, int indent) {
    const Accepted* taken = words::accepted(f, document_->plan());
    QString text = q(words::sentence(f, document_->plan(), document_->style()));
    if (taken)
        text += say(" Accepted: %1").arg(q(taken->reason)) +
                (taken->who.empty() ? QString() : say(" (%1, %2)").arg(q(taken->who), q(taken->when)));
    const QString label = q(words::mend_label(f, document_->plan()));
    const QString help = document_->inspector().proved() ? q(words::would_help(f)) : QString();
    auto* mend = label.isEmpty() ? mend_button(say("Go there"), help, [this, f] { go_to(f); })
                                 : mend_button(label, q(words::mend_name(f, document_->plan())),
                                               [this, f] { document_->inspector().mend(f); });
    return line_of(
        f.severity, text, taken != nullptr, indent, [this, f] { go_to(f); },
        [this, f](const QPoint& where) { emit why_finding(f, where); },
        {rule_button(f), mend, more_button(f)});
}

// Findings of one kind behind the worst of them.
void FindingsStrip::add_bunch(const words::FindingBunch& bunch, const std::vector<Finding>& findings) {
    if (bunch.which.size() == 1 && !bunch.accepted) {
        rows_->addWidget(row_of(findings[bunch.which.front()], 0));
        return;
    }
    const Finding& worst = findings[bunch.which.front()];
    const QString key = bunch.accepted ? QStringLiteral("accepted")
                                       : QString::fromLatin1(words::row_of(worst.kind).name) +
                                             QString::number(static_cast<int>(worst.severity));
    const bool open = open_.contains(key);
    const auto turn = [this, key] {
        if (!open_.removeOne(key)) open_ << key;
        refresh();
    };
    std::vector<QWidget*> right;
    if (!bunch.accepted) right.push_back(rule_button(worst));
    right.push_back(
        mend_button(open ? say("Fold them") : say("Show all %1").arg(bunch.which.size()), {}, turn));
    rows_->addWidget(line_of(
        bunch.accepted ? Severity::note : worst.severity,
        q(words::sentence(bunch, findings, document_->plan(), document_->style())), bunch.accepted, 0, turn,
        [this, worst](const QPoint& where) { emit why_finding(worst, where); }, right));
    if (open)
        for (const std::size_t k : bunch.which) rows_->addWidget(row_of(findings[k], 24));
}

void FindingsStrip::ask_to_accept(const Finding& f) {
    QDialog dialog(this);
    dialog.setWindowTitle(say("Accept as it is"));
    auto* column = new QVBoxLayout(&dialog);
    auto* what = new QLabel(q(words::sentence(f, document_->plan(), document_->style())));
    what->setWordWrap(true);
    auto* reason = new QLineEdit;
    reason->setPlaceholderText(say("why it may stay as it is"));
    reason->setAccessibleName(say("Reason"));
    auto* who = new QLineEdit(QSettings().value(QStringLiteral("who")).toString());
    who->setPlaceholderText(say("who says so"));
    who->setAccessibleName(say("Who"));
    auto* note = new QLabel(
        say("It stays listed, counts no longer, is printed with the plan, and comes back when its number "
            "gets worse."));
    note->setWordWrap(true);
    note->setObjectName(QStringLiteral("soft"));
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
    buttons->button(QDialogButtonBox::Ok)->setText(say("Accept"));
    connect(buttons, &QDialogButtonBox::accepted, &dialog, [&dialog, reason, note] {
        if (!reason->text().trimmed().isEmpty()) return dialog.accept();
        note->setText(say("A reason is needed: whoever reads the plan later asks for it."));
        reason->setFocus();
    });
    connect(buttons, &QDialogButtonBox::rejected, &dialog, &QDialog::reject);
    for (QWidget* w : {static_cast<QWidget*>(what), static_cast<QWidget*>(reason), static_cast<QWidget*>(who),
                       static_cast<QWidget*>(note), static_cast<QWidget*>(buttons)})
        column->addWidget(w);
    dialog.setMinimumWidth(460);
    if (dialog.exec() != QDialog::Accepted) return;
    QSettings().setValue(QStringLiteral("who"), who->text().trimmed());
    accept(f, reason->text().trimmed(), who->text().trimmed());
}

void FindingsStrip::accept(const Finding& f, const QString& reason, const QString& who) {
    const Accepted a = words::acceptance_of(f, document_->plan(), reason.toStdString(), who.toStdString(),
                                            QDate::currentDate().toString(Qt::ISODate).toStdString());
    document_->apply(Put<Accepted>{a, {}}, say("accept: ") + q(a.name));
}

void FindingsStrip::take_back(const Id& acceptance) {
    document_->apply(Remove<Accepted>{acceptance}, say("accepted no longer"));
}

void FindingsStrip::refresh() {
    while (QLayoutItem* item = rows_->takeAt(0)) {
        if (item->widget()) item->widget()->deleteLater();
        delete item;
    }
    sentences_.clear();
    walked_.clear();
    const auto& findings = document_->inspector().findings();
    for (const words::FindingBunch& b : words::bunches(findings, document_->plan())) add_bunch(b, findings);
    rows_->addStretch();
    show_counts();
}

void FindingsStrip::show_counts() {
    const auto& findings = document_->inspector().findings();
    QStringList parts;
    for (int k = 0; k < 4; ++k) {
        const auto severity = static_cast<Severity>(k);
        if (const std::size_t count = words::count_of(severity, findings, document_->plan()))
            parts << QStringLiteral("%1 %2 %3")
                         .arg(QString::fromUtf8(words::mark(severity)))
                         .arg(count)
                         .arg(QString::fromUtf8(words::name_of(severity)));
    }
    // none is said only of the plan as it is
    const bool looking = !document_->inspector().current();
    QString text = looking           ? say("Looking over all states …")
                   : parts.isEmpty() ? say("No findings over all states.")
                                     : say("Findings over all states");
    if (!parts.isEmpty()) text += QStringLiteral("    ") + parts.join(QStringLiteral("    "));
    counts_->setText(text);
}

}  // namespace yr::app

#include "moc_findings_strip.cpp"
