// The order of work as a column by place: a box to tick for each step, large enough for a thumb, its minutes;
// the chosen step opens to its fastenings, cautions and what is known of the place.
#pragma once

#include <QLabel>
#include <QScrollArea>
#include <QToolButton>
#include <QVBoxLayout>
#include <functional>

#include "document/document.h"
#include "fabricate/work.h"

namespace yr::app {

class WorkView : public QScrollArea {
    Q_OBJECT

  public:
    explicit WorkView(Document* document, QWidget* parent = nullptr);
    void refresh();
    [[nodiscard]] const WorkOrder& order() const { return order_; }
    [[nodiscard]] const std::string& open_step() const { return open_; }
    void open_step(const std::string& key);

    // Each is one step that can be undone.
    void tick(const std::string& key, bool done);
    void put_off(const std::string& key, bool off);
    void first(const std::string& key, bool on);
    // By hand: right before that step; what a rule of order forbids is not offered.
    void before(const std::string& key, const std::string& other);
    // In its usual order again.
    void usual(const std::string& key);
    void note(const std::string& key, const QString& text);
    // A picture of the step; its path is kept beside the plan's file where it lies there.
    void photo(const std::string& key, const QString& path);
    // The first step that is not done, not put off and waits for nothing.
    [[nodiscard]] const WorkStep* next() const;

  private:
    struct Row {
        QToolButton* box;
        QLabel* what;
    };
    // What the column shows, in a word: where it stays the same, rows are only told what is done.
    [[nodiscard]] std::string shape() const;
    void tell(const Row& row, const WorkStep& step) const;
    void add_head(const QString& where);
    void add_step(const WorkStep& step);
    void add_details(const WorkStep& step);
    void add_moves(const WorkStep& step, QVBoxLayout* lines);
    void add_act(QVBoxLayout* lines, const QString& text, const std::function<void()>& does);
    // The next step before or behind it that is not done; nullptr: there is none, or a rule keeps them so.
    [[nodiscard]] const WorkStep* neighbour(const WorkStep& step, int way) const;
    [[nodiscard]] bool moved_by_hand(const std::string& key) const;
    void add_photos(const WorkStep& step, QVBoxLayout* lines);
    [[nodiscard]] QString folder() const;
    void move_mark(const char* name, const std::string& key, bool on, const QString& done);
    [[nodiscard]] const WorkStep* step(const std::string& key) const;
    [[nodiscard]] QString by_whom() const;

    Document* document_;
    QVBoxLayout* column_;
    WorkOrder order_;
    std::string open_, shape_;
    std::vector<Row> rows_;
};

}  // namespace yr::app
