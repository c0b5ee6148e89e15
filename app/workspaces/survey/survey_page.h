// The Survey workspace: the vehicle card, the table of volts that were read by key position, what they prove,
// and which reading to take next.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QTableWidget>
#include <QToolButton>
#include <QVBoxLayout>

#include "bench/meter_client.h"
#include "survey/infer.h"
#include "workspaces/survey/vehicle_card.h"
#include "workspaces/workspace.h"

namespace yr::app {

class SurveyPage : public Workspace {
    Q_OBJECT

  public:
    explicit SurveyPage(Document* document, QWidget* parent = nullptr);

    [[nodiscard]] QTableWidget* table() { return table_; }
    [[nodiscard]] VehicleCard* card() { return card_; }
    [[nodiscard]] MeterClient* meter() { return &meter_; }
    [[nodiscard]] QString conclusions() const;
    // Puts a table of readings in, as pasted. False when it was refused.
    bool paste(const QString& text);
    // Reads what the table lacks, or everything that is asked for, from the connected meter.
    void read_missing();
    void read_asked();
    // Starts the stand-in on the open plan, or on a made-up vehicle whose points then become the survey's.
    void start_meter(bool hidden);
    bool may_replace_survey();
    void show_draw(const Id& point);
    void add_point(SurveyKind kind);

    [[nodiscard]] Surroundings surroundings() const override {
        return {.states = false, .findings_folded = true};
    }
    void entered() override { table_->setFocus(); }
    [[nodiscard]] std::vector<WorkspacePicture> pictures() override;

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    QWidget* make_readings();
    void fill_meter_menu(QMenu* menu);
    void fill_shelf_menu(QMenu* menu);
    void refresh();
    void fill_table();
    void fill_conclusions();
    void take_cell(int row, int column);
    void put_readings(const std::vector<SurveyReading>& readings, const QString& name);
    [[nodiscard]] Id drawn_at() const;
    [[nodiscard]] std::optional<double> volts(const Id& point, SurveyKey key, const Id& drawn) const;
    [[nodiscard]] std::optional<MeterClient::Task> task(const SurveyReading& wanted) const;

    MeterClient meter_;
    VehicleCard* card_;
    QTableWidget* table_ = nullptr;
    QComboBox* draw_ = nullptr;
    QVBoxLayout* lines_ = nullptr;
    int hidden_ = 0;
    bool hidden_asked_ = false;
    bool filling_ = false;
};

}  // namespace yr::app
