// What every table of the program does: its rows sort as people sort, by number where a cell begins with one;
// words typed above it leave only the rows that hold them; Ctrl+C and its menu give it as text.
#pragma once

#include <QLineEdit>
#include <QTreeWidget>

namespace yr::app {

// What a cell is worth when sorted: "17 ms … 1.44 s" is 0.017, "▲ 12.3 V" is 12.3; nothing where it is no
// number.
[[nodiscard]] std::optional<double> sort_value(const QString& text);

// "run 2" before "run 10", upper and lower case alike.
[[nodiscard]] bool natural_less(const QString& a, const QString& b);

class TableRow : public QTreeWidgetItem {
  public:
    static constexpr int kSortRole = Qt::UserRole + 1;  // a number that counts instead of the text
    using QTreeWidgetItem::QTreeWidgetItem;
    bool operator<(const QTreeWidgetItem& other) const override;
};

// The shown rows as text, cells with tabs between them, the heads first.
[[nodiscard]] QString table_text(const QTreeWidget& table);

// Sorting by its heads (its own order until one is clicked), and copying.
void make_handy(QTreeWidget* table);

// The column of names takes what the others leave, and no less than so many pixels: where there is not as
// much, the rest is scrolled to.
void stretch_names(QTreeWidget* table, int column, int least_px = 150);

// As every table looks: flat rows under small heads.
[[nodiscard]] QTreeWidget* plain_table(const QStringList& heads, const QString& name);
// One whose rows are made editable by whoever fills it: a double click or F2 opens a cell.
[[nodiscard]] QTreeWidget* editable_table(const QStringList& heads, const QString& name);

// The line for words; the caller puts it above the table. After that was filled anew: filter_rows().
[[nodiscard]] QLineEdit* filter_line(QTreeWidget* table);
void filter_rows(QTreeWidget* table, const QString& words);

// Empties a table and keeps it from sorting while it is filled; sorted and filtered again when this goes.
class Refill {
  public:
    explicit Refill(QTreeWidget* table, const QLineEdit* words = nullptr);
    ~Refill();
    Refill(const Refill&) = delete;
    Refill& operator=(const Refill&) = delete;

  private:
    QTreeWidget* table_;
    const QLineEdit* words_;
};

}  // namespace yr::app
