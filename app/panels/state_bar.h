// The states as a line of words, and beside them the conditions of the chosen one, edited in place.
#pragma once

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QMenu>
#include <QToolButton>
#include <QWidget>
#include <functional>

#include "document/document.h"

namespace yr::app {

class StateBar : public QWidget {
    Q_OBJECT

  public:
    explicit StateBar(Document* document, QWidget* parent = nullptr);
    // Whether `All states` is on; the states' own buttons are then off.
    [[nodiscard]] bool all_states() const { return all_->isChecked(); }
    void set_all_states(bool on);
    void fill_state_menu(QMenu* menu, const Id& state);
    [[nodiscard]] QToolButton* rest() { return rest_; }  // the menu of states that found no room

  signals:
    void all_states_changed(bool on);

  protected:
    void resizeEvent(QResizeEvent* event) override;

  private:
    struct Condition {
        QLineEdit* edit;
        std::function<QString(const State&)> show;
    };
    void add_condition(const QString& object_name, const QString& tip, Dimension dimension, double low,
                       double high, const std::function<std::optional<double>(const State&)>& get,
                       const std::function<void(State&, double)>& set);
    void rebuild_buttons();
    void fit_buttons();
    void refresh();

    Document* document_;
    QButtonGroup* group_;
    QToolButton *all_ = nullptr, *more_ = nullptr, *found_ = nullptr;
    QToolButton* rest_ = nullptr;  // states that the line has no room for
    bool shown_all_ = false;
    QBoxLayout* outer_;
    QHBoxLayout* buttons_;
    QHBoxLayout* conditions_;
    std::vector<Condition> fields_;
};

}  // namespace yr::app
