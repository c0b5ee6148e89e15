// Day: does it last the night, and start in the morning? The strip of states with the lanes under it, what it
// comes to in sentences, and what would make it last.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QMenu>
#include <QToolButton>
#include <QVBoxLayout>

#include "day/remedies.h"
#include "widgets/field_form.h"
#include "words/day_words.h"
#include "workspaces/day/day_chart.h"
#include "workspaces/day/state_shelf.h"
#include "workspaces/workspace.h"

namespace yr::app {

class DayPage : public Workspace {
    Q_OBJECT

  public:
    explicit DayPage(Document* document, QWidget* parent = nullptr);
    [[nodiscard]] DayChart* chart() { return chart_; }
    [[nodiscard]] QComboBox* days() { return days_; }
    [[nodiscard]] FieldForm* form() { return form_; }
    [[nodiscard]] const DayResult* result() const { return running_.answer(); }
    // What stands at the right, line by line.
    [[nodiscard]] QStringList sentences() const { return sentences_; }
    [[nodiscard]] const std::vector<DayRemedy>& remedies() const { return remedies_; }
    // A day laid out of the plan's states becomes the one shown.
    void new_day();
    void add_part(const Id& state);
    [[nodiscard]] StateShelf* shelf() { return shelf_; }
    void look_for_remedies();
    void apply_remedy(std::size_t index);
    void look_at_year();
    // The same day of another option laid over this one: its id, "-" for the plan as it stands, empty for
    // none.
    void compare_with(const Id& option);
    [[nodiscard]] const DayResult* other() const { return other_.answer(); }
    // A log from a logger or battery monitor under the lanes.
    void lay_log(const QString& path);
    void label_volts();

    [[nodiscard]] Surroundings surroundings() const override {
        return {.states = false, .details = false, .findings_folded = true};
    }
    [[nodiscard]] QString numbers() const override { return chart_->numbers(); }
    // "day-field@23400": that day with the cursor there; "day-field": the day.
    bool open_view(const QString& key) override;
    [[nodiscard]] QString open_view() const override { return {}; }
    void entered() override;
    void plan_opened() override;
    void finish() override;
    [[nodiscard]] std::vector<WorkspacePicture> pictures() override;

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    QWidget* make_head();
    QWidget* make_side();
    void refresh();
    void run();
    void take_run();
    void take_remedies();
    void fill_side();
    void fill_form();
    void fill_parts_menu();
    void change_part(const QString& what, const std::function<void(Day&, DayPart&)>& change);
    void to_rail(double t_s);
    void fill_options();
    void run_other();
    void choose_log();
    void tell_log(const DayResult& result);
    void tell_other(const DayResult& result);
    QLabel* line(const QString& text, const char* name = "");

    struct Found {
        Id day;
        std::vector<DayRemedy> remedies;
    };
    QComboBox* days_;
    QComboBox* options_;
    QToolButton* log_;
    StateShelf* shelf_ = nullptr;
    QToolButton *more_, *last_, *whole_year_;
    DayChart* chart_;
    QLabel* readout_;
    QVBoxLayout* lines_;
    QVBoxLayout* form_place_;
    FieldForm* form_ = nullptr;
    Id day_;
    QString shape_;
    QStringList sentences_;
    std::vector<DayRemedy> remedies_;
    bool searched_ = false;
    Job<DayResult> drawing_;  // the lanes alone, for what is dragged
    Job<DayResult> running_;
    Job<Found> seeking_;
    Job<Year> year_;
    Job<DayResult> other_;
    Id option_;   // laid over; empty: none
    Id year_of_;  // the day that it is asked of
};

}  // namespace yr::app
