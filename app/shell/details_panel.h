// Beside the picture: the selected thing, its fields edited in place and its numbers, each of which can be
// asked.
#pragma once

#include <QFutureWatcher>
#include <QScrollArea>
#include <QToolButton>

#include "shell/field_form.h"

namespace yr::app {

class DetailsPanel : public QWidget {
    Q_OBJECT

  public:
    explicit DetailsPanel(PlanDocument* document, QWidget* parent = nullptr);
    [[nodiscard]] FieldForm* form() { return form_; }

  signals:
    void why(const std::vector<words::ValueRef>& refs, const QPoint& global);
    void remove_asked(const Id& id);

  private:
    void rebuild();
    void refresh();
    [[nodiscard]] QString shape() const;  // changes when other fields are needed

    PlanDocument* document_;
    QScrollArea* scroll_;
    QLabel* title_;
    FieldForm* form_ = nullptr;
    QString shape_;
};

// What the form of each kind of thing holds; one function a kind. `id` must exist.
void fill_load(FieldForm& form, PlanDocument* document, const Id& id);
void fill_run(FieldForm& form, PlanDocument* document, const Id& id, bool whole);
void fill_source(FieldForm& form, PlanDocument* document, const Id& id);
void fill_battery(FieldForm& form, PlanDocument* document, const Id& id);
void fill_point(FieldForm& form, PlanDocument* document, const Id& id);
void fill_inverter(FieldForm& form, PlanDocument* document, const Id& id);
void fill_load_more(FieldForm& form, PlanDocument* document, const Id& id);  // what it needs, for fill_load
void fill_box(FieldForm& form, PlanDocument* document, const Id& id);  // limits and channels, for fill_point
void fill_state(FieldForm& form, PlanDocument* document, const Id& id);
void fill_policy(FieldForm& form, PlanDocument* document);

// Selecting this id opens the plan's own rules.
inline const Id kRulesId = "rules of this plan";

}  // namespace yr::app
