#include "panels/findings_strip.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolButton>
#include <functional>

#include "widgets/tokens.h"
#include "words/sentences.h"

namespace yr::app {
namespace {

// A sentence that is elided to its width, selected by click or keyboard, and answers F1.
class SentenceLine : public QWidget {
  public:
    SentenceLine(QString text, const QColor& colour) : text_(std::move(text)), colour_(colour) {
        setFocusPolicy(Qt::StrongFocus);
        setMinimumHeight(26);
        setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        setToolTip(text_);
        setAccessibleName(text_);
        setCursor(Qt::PointingHandCursor);
    }
    std::function<void()> chosen;
    std::function<void(const QPoint&)> why;

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setPen(colour_);
        p.setFont(type_font(Type::body));
        p.drawText(rect(), Qt::AlignVCenter | Qt::AlignLeft,
                   QFontMetrics(p.font()).elidedText(text_, Qt::ElideRight, width()));
        if (hasFocus()) p.setPen(tokens().source), p.drawLine(0, height() - 3, width(), height() - 3);
    }
    void mousePressEvent(QMouseEvent*) override { chosen(); }
    void keyPressEvent(QKeyEvent* e) override {
        if (e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter || e->key() == Qt::Key_Space)
            chosen();
        else if (e->key() == Qt::Key_F1)
            why(mapToGlobal(rect().center()));
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
    auto* scroll = new QScrollArea;
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
    column->addLayout(head);
    column->addWidget(scroll);
    connect(&document_->inspector(), &Inspector::inspected, this, &FindingsStrip::refresh);
    connect(&document_->inspector(), &Inspector::mends_proved, this, &FindingsStrip::refresh);
    refresh();
}

void FindingsStrip::go_to(const Finding& f) {
    if (const State* s = yr::find(document_->plan().states, f.state))
        document_->shown().set_state(static_cast<int>(s - document_->plan().states.data()));
    document_->selection().choose(f.id);
}

QWidget* FindingsStrip::row_of(const Finding& f) {
    auto* row = new QWidget;
    row->setFixedHeight(28);
    row->setObjectName(QStringLiteral("panel"));
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    line->setSpacing(8);
    auto* mark = new QLabel(QString::fromUtf8(words::mark(f.severity)));
    mark->setFixedWidth(18);
    mark->setToolTip(QString::fromUtf8(words::name_of(f.severity)));
    mark->setObjectName(f.severity == Severity::stop  ? QStringLiteral("stop")
                        : f.severity == Severity::fix ? QStringLiteral("fix")
                                                      : QStringLiteral("soft"));
    const QString text = q(words::sentence(f, document_->plan(), document_->style()));
    sentences_ << text;
    auto* sentence = new SentenceLine(text, f.severity == Severity::note ? tokens().soft : tokens().ink);
    sentence->chosen = [this, f] { go_to(f); };
    sentence->why = [this, f](const QPoint& where) { emit why_finding(f, where); };
    const words::Rule rule = words::rule_of(f, document_->plan());
    auto* source = new QToolButton;
    source->setText(q(rule.label));
    source->setObjectName(QStringLiteral("quiet"));
    source->setFont(type_font(Type::small));
    source->setToolTip(q(rule.source) + say("\nclick: why?"));
    source->setAccessibleName(say("Why? ") + q(rule.label));
    connect(source, &QToolButton::clicked, this,
            [this, f, source] { emit why_finding(f, source->mapToGlobal(source->rect().center())); });
    auto* mend = new QToolButton;
    mend->setObjectName(QStringLiteral("mend"));
    mend->setFixedWidth(190);
    const QString label = q(words::mend_label(f, document_->plan()));
    mend->setText(label.isEmpty()
                      ? say("Go there")
                      : QFontMetrics(type_font(Type::bold)).elidedText(label, Qt::ElideRight, 172));
    if (!label.isEmpty()) mend->setToolTip(q(words::mend_name(f, document_->plan())));
    connect(mend, &QToolButton::clicked, this, [this, f] {
        if (f.mend)
            document_->inspector().mend(f);
        else
            go_to(f);
    });
    line->addWidget(mark);
    line->addWidget(sentence, 1);
    line->addWidget(source);
    line->addWidget(mend);
    return row;
}

void FindingsStrip::refresh() {
    while (QLayoutItem* item = rows_->takeAt(0)) {
        if (item->widget()) item->widget()->deleteLater();
        delete item;
    }
    sentences_.clear();
    int counts[4] = {0, 0, 0, 0};
    for (const Finding& f : document_->inspector().findings()) {
        ++counts[static_cast<int>(f.severity)];
        rows_->addWidget(row_of(f));
    }
    rows_->addStretch();
    QStringList parts;
    for (int k = 0; k < 4; ++k)
        if (counts[k])
            parts << QStringLiteral("%1 %2 %3")
                         .arg(QString::fromUtf8(words::mark(static_cast<Severity>(k))))
                         .arg(counts[k])
                         .arg(QString::fromUtf8(words::name_of(static_cast<Severity>(k))));
    counts_->setText(parts.isEmpty()
                         ? say("No findings over all states.")
                         : say("Findings over all states    ") + parts.join(QStringLiteral("    ")));
}

}  // namespace yr::app
