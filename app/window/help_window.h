// The program's own pages: what each workspace answers, how to work it, its keys, its cautions. Offline,
// searchable.
#pragma once

#include <QDialog>
#include <QLineEdit>
#include <QListWidget>
#include <QTextBrowser>

namespace yr::app {

struct HelpPage {
    QString key;    // of a workspace, or of its own
    QString title;  // the page's first line
    QString text;   // Markdown
};
// In the order in which one reads them.
[[nodiscard]] const std::vector<HelpPage>& help_pages();

class HelpWindow : public QDialog {
    Q_OBJECT

  public:
    explicit HelpWindow(const QString& key, QWidget* parent = nullptr);
    void open_page(const QString& key);
    [[nodiscard]] QTextBrowser* page() { return page_; }
    [[nodiscard]] QListWidget* list() { return list_; }
    [[nodiscard]] QLineEdit* search() { return search_; }

  private:
    void find(const QString& words);

    QLineEdit* search_;
    QListWidget* list_;
    QTextBrowser* page_;
};

}  // namespace yr::app
