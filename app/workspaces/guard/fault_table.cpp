#include "workspaces/guard/fault_table.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <algorithm>
#include <map>

#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/guard_words.h"
#include "words/sentences.h"

namespace yr::app {

FaultTable::FaultTable(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    setAccessibleName(say("Shorts everywhere"));
    through_ = new QComboBox;
    for (const double ohm : kShortOhms)
        through_->addItem(
            ohm > 0 ? say("through ") + q(words::quantity(ohm, Dimension::resistance)) : say("bolted"), ohm);
    through_->setAccessibleName(say("What the short is made of"));
    which_ = new QComboBox;
    which_->addItems({say("worst of all states"), say("in the chosen state")});
    which_->setAccessibleName(say("In which states"));
    summary_ = new QLabel;
    summary_->setObjectName(QStringLiteral("soft"));
    table_ = new QTreeWidget;
    table_->setObjectName(QStringLiteral("table"));
    table_->setHeaderLabels({say("a short at"), say("least … most"), say("opens"), say("within"),
                             say("hottest cable"), say("bus"), say("also")});
    table_->setRootIsDecorated(false);
    table_->setIndentation(0);
    table_->setAllColumnsShowFocus(true);
    table_->setAccessibleName(say("Fault study"));
    table_->header()->setFont(type_font(Type::small));
    table_->header()->setSectionResizeMode(QHeaderView::Fixed);
    const int widths[] = {200, 118, 134, 128, 186, 70};
    for (int k = 0; k < 6; ++k) table_->header()->resizeSection(k, widths[k]);
    stretch_names(table_, 6, 120);
    make_handy(table_);
    words_ = filter_line(table_);
    summary_->setWordWrap(true);
    auto* head = new QHBoxLayout;
    head->setContentsMargins(12, 2, 12, 2);
    head->addWidget(summary_, 1);
    head->addWidget(words_);
    head->addWidget(which_);
    head->addWidget(through_);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addLayout(head);
    column->addWidget(table_, 1);
    for (QComboBox* box : {through_, which_})
        connect(box, &QComboBox::currentIndexChanged, this, [this] { fill(); });
    connect(table_, &QTreeWidget::itemClicked, this, [this](QTreeWidgetItem* item) {
        document_->selection().choose(item->data(0, Qt::UserRole).toString().toStdString());
    });
    connect(&document_->inspector(), &Inspector::inspected, this, [this] {
        stale_ = true;
        if (isVisible()) begin();
    });
    connect(&document_->shown(), &ShownCircuit::shown, this, [this] {
        if (isVisible() && which_->currentIndex() == 1) fill();
    });
    connect(&study_, &JobBase::done, this, &FaultTable::fill);
}

void FaultTable::showEvent(QShowEvent*) {
    if (stale_) begin();
}

void FaultTable::begin() {
    if (!document_->inspector().current()) return;
    stale_ = false;
    summary_->setText(say("Trying shorts everywhere …"));
    study_.start(document_->store().generation(),
                 [plan = document_->plan(), solutions = document_->inspector().inspection().solutions](
                     const Task& task) { return study_faults(plan, solutions, task.cancel()); });
}

void FaultTable::finish() {
    document_->inspector().finish();
    if (stale_) begin();
    study_.finish();
}

void FaultTable::fill() {
    if (!study_.current(document_->store().generation())) return;
    const FaultStudy& study = *study_.answer();
    const Plan& plan = document_->plan();
    const auto style = document_->style();
    const Refill refill(table_, words_);
    const double ohm = through_->currentData().toDouble();
    // one row a place: the worst of its states, or the chosen one
    std::map<std::size_t, const ShortRow*> rows;
    const auto worse = [](const ShortRow& a, const ShortRow& b) {
        const auto rank = [](const ShortRow& r) {
            return std::tuple(static_cast<int>(words::severity_of(r)),
                              -(r.slowest.seconds ? *r.slowest.seconds : 1e9));
        };
        return rank(a) < rank(b);
    };
    std::size_t looked = 0;
    for (const ShortRow& r : study.rows) {
        ++looked;
        if (r.ohm != ohm || r.place >= study.places.size()) continue;
        if (which_->currentIndex() == 1 && static_cast<int>(r.state) != document_->shown().state_index())
            continue;
        const ShortRow*& now = rows[r.place];
        if (!now || worse(r, *now)) now = &r;
    }
    std::vector<const ShortRow*> sorted;
    sorted.reserve(rows.size());
    for (const auto& [place, row] : rows) sorted.push_back(row);
    std::stable_sort(sorted.begin(), sorted.end(),
                     [&](const ShortRow* a, const ShortRow* b) { return worse(*a, *b); });
    std::size_t good = 0;
    for (const ShortRow* r : sorted) {
        const ShortPlace& place = study.places[r->place];
        if (place.run >= plan.runs.size()) continue;
        const Severity severity = words::severity_of(*r);
        good += severity == Severity::note;
        auto* item = new TableRow(table_);
        item->setText(0, QString::fromUtf8(words::mark(severity)) + QLatin1Char(' ') +
                             q(words::place_text(place, plan)));
        item->setData(0, Qt::UserRole, q(plan.runs[place.run].id));
        item->setText(1, q(words::number(r->least_A)) + QStringLiteral(" … ") +
                             q(words::quantity(r->most_A, Dimension::current, style)));
        QStringList opens;
        for (const Id& d : r->slowest.devices) opens << q(yr::name_of(plan, d));
        item->setText(2, opens.isEmpty() ? (r->near.empty() ? say("nothing is there") : say("not sure"))
                                         : opens.join(QStringLiteral(", ")));
        item->setText(3, r->clears() ? (r->fastest_s < 1e8
                                            ? q(words::seconds(r->fastest_s, style)) + QStringLiteral(" … ")
                                            : QString()) +
                                           q(words::seconds(*r->slowest.seconds, style))
                                     : QStringLiteral("–"));
        if (r->hottest)
            item->setText(
                4, q(plan.runs[r->hottest->run].name) + QStringLiteral(" ") +
                       (r->hottest->reached_C >= words::melts_at_C(plan.runs[r->hottest->run].material)
                            ? say("melts")
                            : q(words::quantity(r->hottest->reached_C, Dimension::temperature, style))));
        item->setText(5, q(words::quantity(r->bus_V, Dimension::voltage, style)));
        QStringList also;
        if (!r->near_interrupts)
            also << say("over the %1 it cuts off")
                        .arg(q(words::quantity(r->interrupts_A, Dimension::current, style)));
        if (!r->first_up.empty()) also << q(yr::name_of(plan, r->first_up)) + say(" may open first");
        if (!r->management.empty()) also << q(yr::name_of(plan, r->management)) + say(" cuts itself off");
        if (which_->currentIndex() == 0) also << say("worst in ") + q(plan.states[r->state].name);
        item->setText(6, also.join(QStringLiteral("; ")));
        item->setToolTip(6, item->text(6));
        item->setToolTip(0, q(words::sentence(*r, plan, style)));
        item->setToolTip(4, item->text(4));
        if (severity == Severity::stop)
            item->setForeground(0, tokens().stop);
        else if (severity == Severity::fix)
            item->setForeground(0, tokens().fix);
    }
    summary_->setText(say("%1 shorts looked at; of the %2 places shown %3 are cleared well.")
                          .arg(looked)
                          .arg(sorted.size())
                          .arg(good));
}

}  // namespace yr::app

#include "moc_fault_table.cpp"
