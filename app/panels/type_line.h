// The line on top of the list: anything is typed, what was understood is shown at once, its kind first; Enter
// adds it.
#pragma once

#include <QLabel>
#include <QListWidget>
#include <QTimer>
#include <QWidget>

#include "document/document.h"
#include "document/job.h"
#include "inspect/doubts.h"
#include "notes/next.h"
#include "notes/statement.h"
#include "widgets/growing_line.h"

namespace yr::app {

// "scene light · 2 × 90 W · key at ignition · 4.5 m · cargo roof"
[[nodiscard]] QString understood_text(const TypedLine& line, const Plan& plan, const words::Style& style);

// The same for whatever a line says, and what is in the way of it, as rich text.
[[nodiscard]] QString statement_text(const Statement& statement, const Plan& plan, const words::Style& style);
[[nodiscard]] QStringList statement_problems(const Statement& statement);

class TypeLine : public QWidget {
    Q_OBJECT

  public:
    explicit TypeLine(Document* document, QWidget* parent = nullptr);
    [[nodiscard]] GrowingLine* edit() { return edit_; }
    // These first read what was typed last, where that still waits for the keys to rest.
    [[nodiscard]] QString understood() { return as_read(), understood_->text(); }
    [[nodiscard]] QString problem() { return as_read(), problem_->isHidden() ? QString() : problem_->text(); }
    // What the library has for what is typed; hidden where the line says its own draw.
    [[nodiscard]] QListWidget* matches() { return as_read(), matches_; }
    // The one thing that would help most now; empty where nothing is missing, or it was put away.
    [[nodiscard]] QString next() const { return next_->isHidden() ? QString() : next_->text(); }
    // Works out now which of the assumed lengths matters, and waits for it.
    void finish_measuring();
  signals:
    void page_pasted(const QString& several);  // lines that are for paste, not for one line

  public:
    // Puts an entry's name on the line, ready for Enter or for more words.
    void take_entry(const QString& name);

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    void read();
    void as_read();
    void show_matches(const TypedLine& line);
    void show_names();
    void add();
    void settle_doubt(const QString& reading);
    [[nodiscard]] bool next_reading();
    [[nodiscard]] bool recall(int key);
    // The reading that is chosen, and how many there are.
    [[nodiscard]] Statement statement(std::size_t* count = nullptr) const;

    Document* document_;
    GrowingLine* edit_;
    void show_next();
    void take_next();
    [[nodiscard]] std::optional<NextStep> next_step() const;
    void measure();

    QLabel *understood_, *problem_, *next_;
    bool next_put_away_ = false;
    QTimer keys_rest_;       // a line is read when its keys rest, not at each of them
    QTimer rest_;            // nobody has changed anything for a while
    Job<Doubts> measuring_;  // which of the assumed lengths a size hangs on
    QListWidget* matches_;
    QStringList earlier_;
    QString being_typed_;
    std::size_t reading_ = 0;              // which of the line's readings, by Tab
    int recalled_ = 0;                     // lines back
    std::pair<QString, QString> settled_;  // how a number in doubt is read now, and how it might be read
};

}  // namespace yr::app
