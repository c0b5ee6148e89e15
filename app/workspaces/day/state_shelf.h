// The plan's states as a row of words above the day's strip: dragged onto it, or clicked, each becomes a
// part.
#pragma once

#include <QWidget>

#include "document/document.h"

class QToolButton;

namespace yr::app {

// What is carried from here to the strip: the state's id.
inline constexpr const char* kStateMime = "application/x-your-rail-state";

class StateShelf : public QWidget {
    Q_OBJECT

  public:
    explicit StateShelf(Document* document, QWidget* parent = nullptr);
    void refresh();
    [[nodiscard]] const std::vector<QToolButton*>& words() const { return words_; }
    QSize minimumSizeHint() const override { return {0, 30}; }

  signals:
    void asked(const Id& state);  // clicked

  protected:
    void resizeEvent(QResizeEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    void fit();

    Document* document_;
    std::vector<QToolButton*> words_;  // those that find no room are hidden: the menu beside has all
    std::vector<std::pair<Id, std::string>> shown_;  // states, by id and name
    QPoint pressed_;
};

}  // namespace yr::app
