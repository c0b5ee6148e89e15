// The window's top line: the vehicle's name, a word for each workspace, and at the right the option that is
// shown, the menus, units, undo.
#pragma once

#include <QHBoxLayout>
#include <QLineEdit>
#include <QMenu>
#include <QToolButton>
#include <QWidget>
#include <vector>

#include "document/document.h"

namespace yr::app {

class TopLine : public QWidget {
    Q_OBJECT

  public:
    explicit TopLine(Document* document, QWidget* parent = nullptr);

    // Words in the order in which they are added.
    void add_workspace(const QString& key, const QString& name);
    void show_workspace(const QString& key);
    // Stands beside the words, hidden until its workspace shows it.
    void add_corner(QWidget* corner);
    [[nodiscard]] QMenu* plan_menu() { return plan_menu_; }
    [[nodiscard]] QMenu* add_menu() { return add_menu_; }
    [[nodiscard]] QMenu* more_menu() { return more_menu_; }
    [[nodiscard]] QMenu* help_menu() { return help_menu_; }
    [[nodiscard]] QMenu* options_menu() { return options_menu_; }
    void switch_units();

  signals:
    void workspace_asked(const QString& key);

  protected:
    void resizeEvent(QResizeEvent* event) override;

  private:
    void refresh();
    void refresh_options();
    void take_title();

    Document* document_;
    QLineEdit* title_;
    QHBoxLayout* words_;
    std::vector<std::pair<QString, QToolButton*>> word_of_;
    QToolButton *undo_, *redo_, *units_, *options_;
    QMenu *plan_menu_, *add_menu_, *more_menu_, *help_menu_, *options_menu_;
    bool close_ = false;
};

}  // namespace yr::app
