// The words at the head of a workspace with several views: one for each, the open one marked.
#pragma once

#include <QHBoxLayout>
#include <QStackedWidget>
#include <QToolButton>
#include <functional>
#include <span>
#include <vector>

namespace yr::app {

// In the order of the pages; the first has the empty key. Texts are marked for the catalogue (words::later).
struct ViewWord {
    const char *key, *name, *tip;
};

class WordRow;

class ViewWords {
  public:
    explicit ViewWords(std::span<const ViewWord> views) : views_(views) {}
    // Puts them into a row; a click opens the view of that key. What finds no room goes into a menu at the
    // end.
    void add_to(QHBoxLayout* row, const std::function<void(const QString&)>& open);
    // Marks the word and shows the page of that key.
    void show(const QString& key, QStackedWidget* pages) const;
    [[nodiscard]] QString key_of(int page) const;

  private:
    std::span<const ViewWord> views_;
    std::vector<QToolButton*> words_;
    WordRow* row_ = nullptr;
};

}  // namespace yr::app
