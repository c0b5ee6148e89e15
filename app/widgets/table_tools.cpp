#include "widgets/table_tools.h"

#include <QAction>
#include <QApplication>
#include <QClipboard>
#include <QCollator>
#include <QHeaderView>

#include "text/say.h"
#include "units/quantity.h"
#include "widgets/tokens.h"

namespace yr::app {

std::optional<double> sort_value(const QString& text) {
    QString t = text;
    for (const QChar mark : {QChar(0x25A0), QChar(0x25B2), QChar(0x25CB), QChar(0x00B7)}) t.remove(mark);
    t.replace(QChar(0x2009), QLatin1Char(' ')).replace(QChar(0x2212), QLatin1Char('-'));
    t.replace(QLatin1Char(','), QLatin1Char('.'));
    t = t.trimmed().section(QStringLiteral(" …"), 0, 0).section(say(" of "), 0, 0);
    // the longest beginning that is a quantity
    const QStringList words = t.split(QLatin1Char(' '), Qt::SkipEmptyParts).mid(0, 2);
    for (qsizetype n = words.size(); n > 0; --n)
        if (const auto q = parse_quantity(words.mid(0, n).join(QLatin1Char(' ')).toStdString()))
            return q->value;
    return std::nullopt;
}

bool natural_less(const QString& a, const QString& b) {
    static const QCollator collator = [] {
        QCollator c{QLocale(QLocale::English)};  // that of "C" knows no numbers
        c.setNumericMode(true);
        c.setCaseSensitivity(Qt::CaseInsensitive);
        return c;
    }();
    return collator.compare(a, b) < 0;
}

bool TableRow::operator<(const QTreeWidgetItem& other) const {
    const int column = treeWidget() ? std::max(0, treeWidget()->sortColumn()) : 0;
    const auto value = [column](const QTreeWidgetItem& i) -> std::optional<double> {
        const QVariant own = i.data(column, kSortRole);
        return own.isValid() ? std::optional(own.toDouble()) : sort_value(i.text(column));
    };
    const auto a = value(*this), b = value(other);
    if (a && b && *a != *b) return *a < *b;
    if (a.has_value() != b.has_value()) return a.has_value();
    return natural_less(text(column), other.text(column));
}

QString table_text(const QTreeWidget& table) {
    QStringList lines;
    const auto line = [&](const QTreeWidgetItem& item) {
        QStringList cells;
        for (int k = 0; k < table.columnCount(); ++k)
            if (!table.isColumnHidden(k)) cells << item.text(k).trimmed();
        lines << cells.join(QLatin1Char('\t'));
    };
    if (table.headerItem() && !table.isHeaderHidden()) line(*table.headerItem());
    for (int k = 0; k < table.topLevelItemCount(); ++k)
        if (!table.topLevelItem(k)->isHidden()) line(*table.topLevelItem(k));
    return lines.join(QLatin1Char('\n')) + QLatin1Char('\n');
}

void filter_rows(QTreeWidget* table, const QString& words) {
    const QStringList wanted = words.simplified().split(QLatin1Char(' '), Qt::SkipEmptyParts);
    for (int k = 0; k < table->topLevelItemCount(); ++k) {
        QString all;
        for (int c = 0; c < table->columnCount(); ++c)
            all += table->topLevelItem(k)->text(c) + QLatin1Char(' ');
        const bool fits = std::all_of(wanted.begin(), wanted.end(),
                                      [&](const QString& w) { return all.contains(w, Qt::CaseInsensitive); });
        table->topLevelItem(k)->setHidden(!fits);
    }
}

void make_handy(QTreeWidget* table) {
    table->header()->setTextElideMode(Qt::ElideRight);  // a long head ends in dots, never begins in them
    table->header()->setSortIndicator(-1, Qt::AscendingOrder);
    table->setSortingEnabled(true);
    table->header()->setSectionsClickable(true);
    auto* copy = new QAction(say("Copy the table as text"), table);
    copy->setShortcut(QKeySequence::Copy);
    copy->setShortcutContext(Qt::WidgetShortcut);
    table->addAction(copy);
    table->setContextMenuPolicy(Qt::ActionsContextMenu);
    QObject::connect(copy, &QAction::triggered, table,
                     [table] { QApplication::clipboard()->setText(table_text(*table)); });
}

namespace {

class NameRoom : public QObject {
  public:
    NameRoom(QTreeWidget* table, int column, int least_px)
        : QObject(table), table_(table), column_(column), least_px_(least_px) {
        table->viewport()->installEventFilter(this);
        connect(table->header(), &QHeaderView::sectionResized, this, [this](int section) {
            if (section != column_) fit();
        });
    }
    bool eventFilter(QObject* object, QEvent* event) override {
        if (event->type() == QEvent::Resize) fit();
        return QObject::eventFilter(object, event);
    }
    void fit() {
        QHeaderView* header = table_->header();
        int others = 0;
        for (int k = 0; k < header->count(); ++k)
            if (k != column_) others += header->sectionSize(k);
        const int left = table_->viewport()->width() - others;
        header->setSectionResizeMode(column_, left < least_px_ ? QHeaderView::Fixed : QHeaderView::Stretch);
        if (left < least_px_) header->resizeSection(column_, least_px_);
    }

  private:
    QTreeWidget* table_;
    int column_, least_px_;
};

}  // namespace

void stretch_names(QTreeWidget* table, int column, int least_px) {
    table->header()->setStretchLastSection(false);
    NameRoom* room = nullptr;
    for (QObject* child : table->children())
        if (auto* there = dynamic_cast<NameRoom*>(child)) room = there;
    if (!room) room = new NameRoom(table, column, least_px);
    room->fit();
}

QTreeWidget* plain_table(const QStringList& heads, const QString& name) {
    auto* t = new QTreeWidget;
    t->setObjectName(QStringLiteral("table"));
    t->setHeaderLabels(heads);
    t->setRootIsDecorated(false);
    t->setIndentation(0);
    t->setAllColumnsShowFocus(true);
    t->setAccessibleName(name);
    t->header()->setFont(type_font(Type::small));
    return t;
}

QTreeWidget* editable_table(const QStringList& heads, const QString& name) {
    auto* t = plain_table(heads, name);
    t->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed |
                       QAbstractItemView::SelectedClicked);
    make_handy(t);
    return t;
}

QLineEdit* filter_line(QTreeWidget* table) {
    auto* words = new QLineEdit;
    words->setPlaceholderText(say("only rows with …"));
    words->setAccessibleName(say("Only rows with these words"));
    words->setClearButtonEnabled(true);
    words->setMaximumWidth(160);
    QObject::connect(words, &QLineEdit::textChanged, table,
                     [table](const QString& text) { filter_rows(table, text); });
    return words;
}

Refill::Refill(QTreeWidget* table, const QLineEdit* words) : table_(table), words_(words) {
    table_->setSortingEnabled(false);
    table_->clear();
}

Refill::~Refill() {
    table_->setSortingEnabled(true);
    if (words_) filter_rows(table_, words_->text());
}

}  // namespace yr::app
