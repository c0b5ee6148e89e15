// What the job costs: every line with its price, pack and supplier to be typed in place, the sums under it;
// beside them what the other options cost, and what changing to one of them would take from here.
#pragma once

#include <QTreeWidget>
#include <QWidget>

#include "document/document.h"
#include "document/job.h"
#include "fabricate/quote.h"

namespace yr::app {

class QuoteView : public QWidget {
    Q_OBJECT

  public:
    explicit QuoteView(Document* document, QWidget* parent = nullptr);
    void refresh(int vehicles);
    void finish();
    // False until the first answer is there: until then quote() is empty.
    [[nodiscard]] bool ready() const { return job_.answer() != nullptr; }
    [[nodiscard]] const Quote& quote() const;
    // Each other option: what it costs, and what changing to it takes from here.
    struct Option {
        std::string name;
        Quote quote;
        std::vector<std::string> changes;
        double minutes = 0;
    };
    [[nodiscard]] const std::vector<Option>& options() const;
    [[nodiscard]] QTreeWidget* lines() { return lines_; }
    [[nodiscard]] QTreeWidget* sums() { return sums_; }
    // Sets what is said of one part's price: column as in the table.
    void say_of(const std::string& key, int column, const QString& text);

    enum Column { what, needed, unit, packs, each, price, supplier, dated, brought };

  signals:
    void worked_out();

  private:
    struct Answer {
        Quote mine;
        std::vector<Option> options;
    };
    void fill_lines();
    void fill_sums();

    Document* document_;
    Job<Answer> job_;
    bool filling_ = false;
    QTreeWidget *lines_, *sums_;
};

}  // namespace yr::app
