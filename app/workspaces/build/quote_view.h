// What the job costs: every line with its price, pack and supplier to be typed in place, the sums under it;
// beside them what the other options cost, and what changing to one of them would take from here.
#pragma once

#include <QTreeWidget>
#include <QWidget>

#include "document/document.h"
#include "fabricate/quote.h"

namespace yr::app {

class QuoteView : public QWidget {
    Q_OBJECT

  public:
    explicit QuoteView(Document* document, QWidget* parent = nullptr);
    void refresh(int vehicles);
    [[nodiscard]] const Quote& quote() const { return quote_; }
    [[nodiscard]] QTreeWidget* lines() { return lines_; }
    [[nodiscard]] QTreeWidget* sums() { return sums_; }
    // Sets what is said of one part's price: column as in the table.
    void say_of(const std::string& key, int column, const QString& text);

    enum Column { what, needed, unit, packs, each, price, supplier, dated, brought };

  private:
    void fill_lines();
    void fill_sums();

    Document* document_;
    Quote quote_;
    int vehicles_ = 1;
    bool filling_ = false;
    QTreeWidget *lines_, *sums_;
};

}  // namespace yr::app
