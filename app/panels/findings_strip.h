// Under the picture: what is wrong, one line each, most severe first: mark, sentence, rule, the mend.
#pragma once

#include <QLabel>
#include <QScrollArea>
#include <QToolButton>
#include <QVBoxLayout>
#include <functional>

#include "document/document.h"
#include "words/accepted.h"

namespace yr::app {

class FindingsStrip : public QWidget {
    Q_OBJECT

  public:
    explicit FindingsStrip(Document* document, QWidget* parent = nullptr);
    // What is listed, line by line; a group is one line until it is opened.
    [[nodiscard]] QStringList sentences() const { return sentences_; }
    // Folded: the line that counts them, and nothing else.
    [[nodiscard]] bool folded() const { return folded_; }
    void fold(bool folded);
    [[nodiscard]] QString counts() const { return counts_->text(); }
    // Takes a finding as it is, for that reason; it counts no longer.
    void accept(const Finding& finding, const QString& reason, const QString& who);
    void take_back(const Id& acceptance);

  signals:
    void fold_asked();
    void workspace_asked(const QString& workspace, const QString& view);
    void why_finding(const Finding& finding, const QPoint& global);

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    void refresh();
    void show_counts();
    QWidget* row_of(const Finding& finding, int indent);
    QWidget* line_of(Severity severity, const QString& text, bool soft, int indent,
                     const std::function<void()>& chosen, const std::function<void(const QPoint&)>& why,
                     const std::vector<QWidget*>& right);
    void add_bunch(const words::FindingBunch& bunch, const std::vector<Finding>& findings);
    void ask_to_accept(const Finding& finding);
    QToolButton* rule_button(const Finding& finding);
    QToolButton* mend_button(const QString& text, const QString& tip, const std::function<void()>& act);
    QToolButton* more_button(const Finding& finding);
    void go_to(const Finding& finding);

    Document* document_;
    void walk(const QWidget* from, int by);
    void let_tab_in(std::size_t row);

    struct Row {
        QWidget* sentence;
        std::vector<QWidget*> right;
    };
    std::vector<Row> walked_;  // in order; Tab comes to one of them alone
    QLabel* counts_;
    QToolButton* fold_;
    QScrollArea* scroll_;
    bool folded_ = false;
    QVBoxLayout* rows_;
    QStringList sentences_, open_;  // open_: groups that are shown whole
};

}  // namespace yr::app
