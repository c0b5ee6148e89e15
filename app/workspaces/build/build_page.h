// Build: what is bought, cut and made. The bench with its rolls, parts, wires; the card of the chosen cable;
// labels and tables to take along.
#pragma once

#include <QLabel>
#include <QSpinBox>
#include <QStackedWidget>
#include <QToolButton>
#include <QTreeWidget>

#include "document/job.h"
#include "fabricate/first_power.h"
#include "fabricate/parts.h"
#include "widgets/field_form.h"
#include "widgets/view_words.h"
#include "workspaces/build/bench_view.h"
#include "workspaces/build/card_view.h"
#include "workspaces/build/diagram_view.h"
#include "workspaces/build/loom_view.h"
#include "workspaces/build/quote_view.h"
#include "workspaces/build/times_view.h"
#include "workspaces/build/work_view.h"
#include "workspaces/workspace.h"

namespace yr::app {

class BuildPage : public Workspace {
    Q_OBJECT

  public:
    explicit BuildPage(Document* document, QWidget* parent = nullptr);

    [[nodiscard]] BenchView* bench() { return bench_; }
    [[nodiscard]] LoomView* looms() { return looms_; }
    [[nodiscard]] DiagramView* diagram() { return diagram_; }
    [[nodiscard]] WorkView* work() { return work_; }
    [[nodiscard]] QuoteView* quote() { return quote_; }
    [[nodiscard]] TimesView* times() { return times_; }
    [[nodiscard]] QTreeWidget* parts() { return parts_; }
    [[nodiscard]] QTreeWidget* wires() { return wires_; }
    [[nodiscard]] QSpinBox* vehicles() { return vehicles_; }
    [[nodiscard]] FieldForm* form() { return form_; }
    [[nodiscard]] QStringList sentences() const { return sentences_; }
    [[nodiscard]] const std::vector<SizeCutting>* cuts() const { return cutting_.answer(); }

    // Ticks or unticks something as bought or made: one step.
    void mark(const QString& name, const std::string& about, bool done);
    [[nodiscard]] bool is_marked(const QString& name, const std::string& about) const;
    void save_labels(const QString& path);
    void save_tables(const QString& path);
    void save_loom(const QString& name, const QString& path);
    void save_dossier(const QString& path);

    [[nodiscard]] Surroundings surroundings() const override {
        return {.states = false, .details = false, .findings_folded = true};
    }
    [[nodiscard]] std::vector<WorkspaceView> views() const override;
    bool open_view(const QString& key) override;
    [[nodiscard]] QString open_view() const override;
    void entered() override;
    void finish() override;
    [[nodiscard]] std::vector<WorkspacePicture> pictures() override;

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    enum ViewIndex { kBench, kParts, kWires, kLooms, kDiagram, kWork, kQuote, kTimes };  // as kViews
    QWidget* make_head();
    QWidget* make_side();
    QTreeWidget* make_table(const QStringList& heads, const QString& name);
    void refresh();
    void fill_bench();
    void fill_parts();
    void fill_wires();
    void fill_side();
    void side_of_bench();
    void side_of_diagram();
    void side_of_work();
    void side_of_quote();
    void side_of_times();
    void side_of_cable(const WireRow& w);
    void shop_form();
    void refresh_page();
    void refresh_table();
    void refresh_bench();
    void refresh_parts();
    void fill_form(const Run& run);
    void end_fields(const Run& run, bool at_from);
    QLabel* line(const QString& text, const char* name = "");
    void link(const QString& text, const QString& tip, const std::function<void()>& action);
    [[nodiscard]] const WireRow* wire_of(const Id& run) const;

    ViewWords words_;
    QSpinBox* vehicles_;
    QStackedWidget* pages_;
    BenchView* bench_;
    LoomView* looms_;
    DiagramView* diagram_;
    WorkView* work_;
    QuoteView* quote_;
    TimesView* times_;
    QTreeWidget *parts_, *wires_;
    QLineEdit *parts_words_ = nullptr, *wires_words_ = nullptr;
    CardView* card_;
    QVBoxLayout *lines_, *after_, *form_place_;
    QVBoxLayout* into_ = nullptr;
    FieldForm* form_ = nullptr;
    Id form_of_;
    QStringList sentences_;
    std::vector<WireRow> table_;
    quint64 table_of_ = 0;  // of the plan
    std::vector<Part> list_;
    bool filling_ = false;
    Job<std::vector<SizeCutting>> cutting_;
    Job<std::vector<PowerRound>> power_;
};

}  // namespace yr::app
