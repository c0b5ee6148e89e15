#include "workspaces/build/quote_view.h"

#include <QHeaderView>
#include <QTimer>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "plan/variant.h"
#include "text/say.h"
#include "units/quantity.h"
#include "widgets/table_tools.h"
#include "widgets/tokens.h"
#include "words/sentences.h"
#include "words/work_words.h"

namespace yr::app {
namespace {

QString amount(double v) {
    return q(words::number(std::round(v * 100) / 100, 9));
}

}  // namespace

QuoteView::QuoteView(Document* document, QWidget* parent) : QWidget(parent), document_(document) {
    lines_ = plain_table({say("what"), say("needed"), say("unit"), say("pack of"), say("each"), say("price"),
                          say("supplier"), say("price of"), say("customer's")},
                         say("Lines of the quote"));
    lines_->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed |
                            QAbstractItemView::SelectedClicked);
    make_handy(lines_);
    sums_ = plain_table({say("sum"), say("as planned")}, say("Sums of the quote"));
    sums_->setMaximumHeight(230);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(lines_, 1);
    column->addWidget(sums_);
    connect(&job_, &JobBase::done, this, [this] {
        fill_lines();
        fill_sums();
        emit worked_out();
    });
    connect(lines_, &QTreeWidget::itemChanged, this, [this](QTreeWidgetItem* item, int column_of) {
        if (filling_) return;
        const std::string key = item->data(0, Qt::UserRole).toString().toStdString();
        const QString text =
            column_of == brought
                ? (item->checkState(brought) == Qt::Checked ? QStringLiteral("x") : QString())
                : item->text(column_of);
        QTimer::singleShot(0, this, [this, key, column_of, text] { say_of(key, column_of, text); });
    });
}

void QuoteView::refresh(int vehicles) {
    job_.start(document_->store().generation(),
               [plan = document_->plan(), stored = document_->store().stored(), vehicles](const Task& task) {
                   Answer a;
                   const PartsAsk ask{vehicles, true, true};
                   a.mine = yr::quote(plan, ask);
                   for (const Variant& v : stored.variants) {
                       if (v.id == plan.active || task.cancelled()) continue;
                       const Plan to = with_variant(stored, v.id);
                       const ChangeOrder order = change_order(plan, to);
                       Option o{v.name, yr::quote(to, ask), {}, order.minutes};
                       for (const ChangeLine& c : order.lines) {
                           const bool there = c.run.empty() || yr::find(to.runs, std::string_view(c.run));
                           o.changes.push_back(words::sentence(there ? to : plan, c));
                       }
                       a.options.push_back(std::move(o));
                   }
                   return a;
               });
}

void QuoteView::finish() {
    if (job_.running()) job_.finish();
}

const Quote& QuoteView::quote() const {
    static const Quote none;
    return job_.answer() ? job_.answer()->mine : none;
}

const std::vector<QuoteView::Option>& QuoteView::options() const {
    static const std::vector<Option> none;
    return job_.answer() ? job_.answer()->options : none;
}

void QuoteView::fill_lines() {
    filling_ = true;
    {
        const Refill refill(lines_);
        for (const QuoteLine& l : quote().lines) {
            const Price* said = price_of(document_->plan(), l.key, l.what);
            auto* item = new TableRow(lines_);
            item->setData(0, Qt::UserRole, q(l.key));
            item->setFlags(item->flags() | Qt::ItemIsEditable);
            item->setText(what, q(l.what));
            item->setText(needed, q(words::number(l.quantity, 4)));
            item->setText(unit, l.metres ? say("m") : say("pieces"));
            item->setText(packs, q(words::number(l.pack, 4)));
            item->setText(each, said && said->each ? amount(*said->each) : QString());
            item->setText(price, l.price ? amount(*l.price) : QString());
            item->setText(supplier, q(l.supplier));
            item->setText(dated, q(l.dated));
            item->setCheckState(brought, l.brought ? Qt::Checked : Qt::Unchecked);
            for (const int c : {needed, packs, each, price}) item->setTextAlignment(c, Qt::AlignRight);
        }
    }
    const int widths[] = {230, 60, 52, 60, 64, 70, 120, 84, 80};
    for (int k = 0; k < 9; ++k) lines_->header()->resizeSection(k, widths[k]);
    filling_ = false;
}

// A column for each option: the same sums side by side.
void QuoteView::fill_sums() {
    std::vector<std::pair<QString, Quote>> all;
    all.emplace_back(document_->plan().active.empty() ? say("as planned") : say("as shown"), quote());
    for (const Option& o : options()) all.emplace_back(q(o.name), o.quote);
    sums_->clear();
    QStringList heads{say("sum")};
    for (const auto& [name, of] : all) heads << name;
    sums_->setColumnCount(static_cast<int>(heads.size()));
    sums_->setHeaderLabels(heads);
    std::vector<std::vector<std::pair<std::string, std::string>>> sums;
    sums.reserve(all.size());
    for (const auto& [name, of] : all) sums.push_back(words::quote_sums(of));
    for (std::size_t k = 0; k < sums.front().size(); ++k) {
        auto* item = new TableRow(sums_);
        item->setText(0, q(sums.front()[k].first));
        for (std::size_t c = 0; c < sums.size(); ++c)
            if (k < sums[c].size()) {
                item->setText(static_cast<int>(c) + 1, q(sums[c][k].second));
                item->setTextAlignment(static_cast<int>(c) + 1, Qt::AlignRight);
            }
    }
    sums_->header()->resizeSection(0, 330);
}

void QuoteView::say_of(const std::string& key, int column, const QString& text) {
    if (column < packs || column == price) return fill_lines();  // these follow from the plan
    Policy policy = document_->plan().policy;
    std::string words;
    for (const QuoteLine& l : quote().lines)
        if (l.key == key) words = l.what;
    const Price* said = price_of(document_->plan(), key, words);
    auto found = policy.prices.begin() +
                 (said ? said - document_->plan().policy.prices.data() : std::ssize(policy.prices));
    if (found == policy.prices.end()) {
        Price fresh;
        fresh.part = key;
        policy.prices.push_back(fresh);
        found = policy.prices.end() - 1;
    }
    const std::string typed = text.trimmed().toStdString();
    if (column == packs || column == each) {
        const auto number = typed.empty() ? Result<double>(0.0) : parse_value(typed, Dimension::number);
        if (!number || *number < 0 || (column == packs && *number <= 0)) {
            document_->store().refuse(say("“%1” is no price or pack of %2.").arg(text, q(key)));
            return fill_lines();
        }
        if (column == packs)
            found->pack = *number;
        else if (typed.empty())
            found->each.reset();
        else
            found->each = *number;
    }
    if (column == supplier) found->supplier = typed;
    if (column == dated) found->dated = typed;
    if (column == brought) found->brought = !typed.empty();
    if (policy == document_->plan().policy) return fill_lines();
    document_->apply(SetPolicy{policy}, say("price"));
}

}  // namespace yr::app

#include "moc_quote_view.cpp"
