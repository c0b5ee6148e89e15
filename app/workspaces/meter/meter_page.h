// Meter: does the finished work agree with the plan, and where is the fault? Prove, find, record, practise.
#pragma once

#include <QCheckBox>
#include <QStackedWidget>
#include <QToolButton>

#include "bench/meter_client.h"
#include "meter/fit_log.h"
#include "widgets/view_words.h"
#include "workspaces/meter/find_view.h"
#include "workspaces/meter/likely_view.h"
#include "workspaces/meter/plug_view.h"
#include "workspaces/meter/practise_view.h"
#include "workspaces/meter/prove_view.h"
#include "workspaces/meter/record_view.h"
#include "workspaces/meter/rest_view.h"
#include "workspaces/meter/wire_view.h"
#include "workspaces/meter/years_view.h"
#include "workspaces/workspace.h"

namespace yr::app {

class MeterPage : public Workspace {
    Q_OBJECT

  public:
    explicit MeterPage(Document* document, QWidget* parent = nullptr);

    [[nodiscard]] ProveView* prove() { return prove_; }
    [[nodiscard]] FindView* find_fault() { return find_; }
    [[nodiscard]] RestView* at_rest() { return rest_; }
    // Fits a log of volts and amps to the first battery that gives; takes it into the plan where asked.
    void fit(const QString& path);
    void take_fitted();
    [[nodiscard]] const std::optional<LogFit>& fitted() const { return fit_; }
    [[nodiscard]] WireView* wire() { return wire_; }
    [[nodiscard]] PlugView* plug() { return plug_; }
    [[nodiscard]] YearsView* years() { return years_; }
    [[nodiscard]] LikelyView* likely() { return likely_; }
    [[nodiscard]] RecordView* record() { return record_; }
    [[nodiscard]] PractiseView* practise() { return practise_; }
    [[nodiscard]] MeterClient* meter() { return &meter_; }
    [[nodiscard]] QStringList sentences() const { return sentences_; }

    [[nodiscard]] Surroundings surroundings() const override {
        return {.states = false, .details = false, .findings_folded = true};
    }
    [[nodiscard]] std::vector<WorkspaceView> views() const override;
    bool open_view(const QString& key) override;
    [[nodiscard]] QString open_view() const override;
    void entered() override;
    void plan_opened() override;
    void finish() override;
    [[nodiscard]] std::vector<WorkspacePicture> pictures() override;

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    QWidget* make_head();
    void refresh();
    void fill_side();
    void side_of_prove();
    void side_of_find();
    void side_of_rest();
    void side_of_wire();
    void side_of_plug();
    void side_of_years();
    void side_of_record();
    void side_of_built();
    void against_what();
    void side_of_likely();
    void lines_of_fit();
    void side_of_practise();
    QLabel* line(const QString& text, const char* name = "");
    void link(const QString& text, const QString& tip, const std::function<void()>& action);
    void read_by_meter(const Probing& where);
    void keep(const TestPoint& point, double value, Verdict verdict);

    ViewWords words_;
    QStackedWidget* pages_;
    ProveView* prove_;
    FindView* find_;
    RestView* rest_;
    LikelyView* likely_;
    WireView* wire_;
    PlugView* plug_;
    YearsView* years_;
    RecordView* record_;
    PractiseView* practise_;
    QVBoxLayout* lines_;
    QStringList sentences_;
    MeterClient meter_;
    std::optional<LogFit> fit_;
    Id fit_of_;
    std::optional<Probing> waiting_;  // for the meter to be there
};

}  // namespace yr::app
