// Beside the picture: the selected thing, its fields edited in place and its numbers, each of which can be
// asked.
#pragma once

#include <QScrollArea>
#include <QToolButton>

#include "document/document.h"
#include "widgets/field_form.h"

namespace yr::app {

class DetailsPanel : public QWidget {
    Q_OBJECT

  public:
    explicit DetailsPanel(Document* document, QWidget* parent = nullptr);
    [[nodiscard]] FieldForm* form() { return form_; }

    void look_again() { refresh(); }  // its place has changed

  signals:
    void why(const std::vector<words::ValueRef>& refs, const QPoint& global);
    void remove_asked(const Id& id);

  private:
    void rebuild();
    void refresh();
    [[nodiscard]] QString shape() const;  // changes when other fields are needed

    Document* document_;
    QScrollArea* scroll_;
    QWidget* holder_;  // of the form that is shown
    QLabel* title_;
    FieldForm* form_ = nullptr;
    QString shape_;
};

// What the form of each kind of thing holds; one function a kind. `id` must exist.
void fill_load(FieldForm& form, Document* document, const Id& id);
void fill_run(FieldForm& form, Document* document, const Id& id, bool whole);
void fill_source(FieldForm& form, Document* document, const Id& id);
void fill_battery(FieldForm& form, Document* document, const Id& id);
void fill_point(FieldForm& form, Document* document, const Id& id);
void fill_inverter(FieldForm& form, Document* document, const Id& id);
void fill_load_more(FieldForm& form, Document* document, const Id& id);  // what it needs, for fill_load
void fill_box(FieldForm& form, Document* document, const Id& id);  // limits and channels, for fill_point
void fill_place(FieldForm& form, Document* document, const Id& id);
void fill_connector(FieldForm& form, Document* document, const Id& id);
void fill_jacket(FieldForm& form, Document* document, const Id& id);
void fill_state(FieldForm& form, Document* document, const Id& id);
void fill_policy(FieldForm& form, Document* document);

}  // namespace yr::app
