// Place: where things stand, along what way each cable lies, how long, how hot and how thick a loom that
// makes.
#pragma once

#include <QLabel>
#include <QScrollArea>
#include <QToolButton>

#include "document/job.h"
#include "inspect/stand.h"
#include "inspect/two_boxes.h"
#include "widgets/field_form.h"
#include "workspaces/place/cross_section.h"
#include "workspaces/place/place_view.h"
#include "workspaces/workspace.h"

namespace yr::app {

class PlacePage : public Workspace {
    Q_OBJECT

  public:
    explicit PlacePage(Document* document, QWidget* parent = nullptr);

    [[nodiscard]] PlaceView* view() { return view_; }
    [[nodiscard]] CrossSection* section() { return section_; }
    [[nodiscard]] FieldForm* form() { return form_; }
    [[nodiscard]] QStringList sentences() const { return sentences_; }
    [[nodiscard]] const StandAdvice* advice() const;

    void lay_out(Outline outline);
    void set_all();
    void follow_ways();
    void ask_where();
    void take_spot(std::size_t index);
    // Of the chosen box: one, two, or its cables home to the supply, laid, sized and priced side by side.
    void ask_layouts();
    [[nodiscard]] const BoxOptions* layouts() const;
    // Kept as an option of the plan beside those that are there.
    void keep_layout(std::size_t index);
    void put_picture(const QString& path);

    [[nodiscard]] Surroundings surroundings() const override {
        return {.details = false, .findings_folded = true};
    }
    [[nodiscard]] QString numbers() const override;
    [[nodiscard]] QRect where_is(const Id& id) const override;
    // The id of a waypoint: that one is chosen.
    bool open_view(const QString& key) override;
    [[nodiscard]] QString open_view() const override { return {}; }
    void entered() override;
    void plan_opened() override;
    void finish() override;
    [[nodiscard]] std::vector<WorkspacePicture> pictures() override;

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    QWidget* make_side();
    void refresh();
    void fill_side();
    void fill_offers();
    void fill_way();
    void fill_waypoint();
    void covering_choice(const Way& way);
    void fill_thing();
    void fill_run(const Run& run);
    void fill_findings();
    void fill_map();
    void fill_layouts(const Id& box);
    void fill_form();
    void form_of_waypoint(const Id& id);
    void form_of_thing(const Id& id);
    void choose_picture();
    void picture_measured(double metres_now);
    QLabel* line(const QString& text, const char* name = "");
    QLabel* title(const QString& text);
    void link(const QString& text, const QString& tip, const std::function<void()>& action);

    PlaceView* view_;
    QLabel* head_;
    QVBoxLayout *lines_, *after_, *form_place_;
    QVBoxLayout* into_ = nullptr;  // where line() puts
    CrossSection* section_;
    FieldForm* form_ = nullptr;
    QString shape_;  // of the form: what it is of
    QStringList sentences_;
    Job<std::optional<StandAdvice>> standing_;
    Job<std::optional<BoxOptions>> boxes_;
    Id boxes_of_;  // the box whose layouts were asked for
    Id asked_;     // the thing of which the map is
};

}  // namespace yr::app
