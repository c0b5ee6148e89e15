#include "workspaces/meter/likely_view.h"

#include <QHeaderView>
#include <QLabel>
#include <QTimer>
#include <QVBoxLayout>
#include <array>

#include "text/say.h"
#include "units/quantity.h"
#include "widgets/table_tools.h"
#include "words/meter_words.h"
#include "words/sentences.h"

namespace yr::app {

LikelyView::LikelyView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    auto* words = new QLabel(
        say("How likely one thing of each kind is at fault, against the others, before anything is "
            "read: common practice, no source. Double-click “own” where your vehicles teach you "
            "better; emptied, the typical one counts again. Of this plan, the last column says what "
            "is likeliest before the first reading."));
    words->setWordWrap(true);
    words->setObjectName(QStringLiteral("soft"));
    words->setContentsMargins(16, 4, 16, 4);
    table_ = editable_table({say("fault"), say("typical"), say("own"), say("of this plan")},
                            say("How likely each kind of fault is"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(words);
    column->addWidget(table_, 1);
    connect(table_, &QTreeWidget::itemChanged, this, [this](QTreeWidgetItem* item, int c) {
        if (filling_) return;
        const auto kind = static_cast<FaultKind>(item->data(0, Qt::UserRole).toInt());
        const QString text = item->text(own);
        QTimer::singleShot(0, this, [this, kind, text, c] { c == own ? say_weight(kind, text) : refresh(); });
    });
}

void LikelyView::refresh() {
    filling_ = true;
    {
        std::array<double, kFaultKinds> of_plan{};
        double all = 0;
        for (const Fault& f : faults_of(document_->plan()))
            of_plan[static_cast<std::size_t>(f.kind)] += f.prior, all += f.prior;
        const Refill refill(table_);
        for (std::size_t k = 0; k < kFaultKinds; ++k) {
            const auto kind = static_cast<FaultKind>(k);
            auto* item = new TableRow(table_);
            item->setData(0, Qt::UserRole, static_cast<int>(k));
            item->setFlags(item->flags() | Qt::ItemIsEditable);
            item->setText(what, q(words::fault_kind_text(kind)));
            item->setText(typical, q(words::number(fault_prior(kind).prior)));
            for (const FaultWeight& w : document_->plan().policy.faults)
                if (w.fault == name_of(kind)) item->setText(own, q(words::number(w.weight)));
            item->setText(share,
                          q(words::quantity(of_plan[k] / all, Dimension::fraction, document_->style())));
            for (const int c : {typical, own, share}) item->setTextAlignment(c, Qt::AlignRight);
        }
    }
    const int widths[] = {380, 90, 90, 120};
    for (int c = 0; c < 4; ++c) table_->header()->resizeSection(c, widths[c]);
    filling_ = false;
}

void LikelyView::say_weight(FaultKind kind, const QString& text) {
    Policy policy = document_->plan().policy;
    std::erase_if(policy.faults, [&](const FaultWeight& w) { return w.fault == name_of(kind); });
    if (!text.trimmed().isEmpty()) {
        const auto v = parse_value(text.trimmed().toStdString(), Dimension::number);
        if (!v || *v <= 0 || *v > 1000) {
            document_->store().refuse(v ? say("A weight lies above 0 and at 1000 at most.")
                                        : q(words::sentence(v.error())));
            return refresh();
        }
        policy.faults.push_back({std::string(name_of(kind)), *v});
    }
    if (policy == document_->plan().policy) return refresh();
    document_->apply(SetPolicy{policy}, say("how likely a fault is"));
}

}  // namespace yr::app

#include "moc_likely_view.cpp"
