#include "widgets/split_page.h"

#include <QHBoxLayout>
#include <QSplitter>
#include <QVBoxLayout>

#include "text/say.h"

namespace yr::app {

std::vector<QToolButton*> fill_split_page(QWidget* page, QWidget* upper, const std::vector<PageWord>& words,
                                          QWidget* lower, const QList<int>& heights,
                                          const std::function<void(int)>& chosen) {
    std::vector<QToolButton*> buttons;
    auto* head = new QHBoxLayout;
    head->setContentsMargins(12, 4, 12, 4);
    head->setSpacing(4);
    for (std::size_t k = 0; k < words.size(); ++k) {
        auto* b = new QToolButton;
        b->setText(say(words[k].text));
        b->setToolTip(say(words[k].tip));
        b->setObjectName(QStringLiteral("state"));
        b->setCheckable(true);
        b->setMinimumHeight(32);
        QObject::connect(b, &QToolButton::clicked, page, [chosen, k] { chosen(static_cast<int>(k)); });
        head->addWidget(b);
        buttons.push_back(b);
    }
    head->addStretch();
    auto* below = new QWidget;
    auto* column = new QVBoxLayout(below);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addLayout(head);
    column->addWidget(lower, 1);
    auto* split = new QSplitter(Qt::Vertical);
    split->addWidget(upper);
    split->addWidget(below);
    split->setChildrenCollapsible(false);
    split->setHandleWidth(3);
    split->setSizes(heights);
    auto* whole = new QVBoxLayout(page);
    whole->setContentsMargins(0, 0, 0, 0);
    whole->addWidget(split);
    return buttons;
}

const Run* run_of_selection(const Plan& plan, const Id& selection, const Id& before) {
    if (const Run* r = yr::find(plan.runs, selection)) return r;
    if (yr::find(plan.loads, selection))
        if (const Run* r = supply_run(plan, selection)) return r;
    for (const Run& r : plan.runs)
        if (yr::find(r.devices, selection)) return &r;
    return yr::find(plan.runs, before);
}

}  // namespace yr::app
