// Proving: the readings in order, each with its band, what was read and what that means. Every value goes
// into the record at once, so that nothing is lost when the lid shuts.
#pragma once

#include <QTreeWidget>
#include <QWidget>
#include <map>

#include "document/document.h"
#include "document/job.h"
#include "meter/test_points.h"
#include "workspaces/meter/entry_bar.h"

namespace yr::app {

class ProveView : public QWidget {
    Q_OBJECT

  public:
    explicit ProveView(Document* document, QWidget* parent = nullptr);
    void refresh();
    void finish();
    [[nodiscard]] const ProvePlan* points() const { return job_.answer(); }
    // What is proved: a copy of the plan as this vehicle was built, or the plan as it stands.
    void go_by(std::optional<Plan> built);
    [[nodiscard]] bool against() const { return built_.has_value(); }
    [[nodiscard]] const Plan& plan() const { return built_ ? *built_ : document_->plan(); }
    [[nodiscard]] QTreeWidget* table() { return table_; }
    [[nodiscard]] EntryBar* entry() { return entry_; }
    [[nodiscard]] const TestPoint* current() const;
    [[nodiscard]] std::size_t done() const { return read_.size(); }
    // What was read, by number of the point.
    [[nodiscard]] const std::map<std::size_t, double>& read() const { return read_; }
    void go_to(std::size_t point);
    void take(double value);
    // Of a record of this vehicle: what was read before, so that one goes on where one stood.
    void resume(const std::vector<std::pair<Probing, double>>& readings);

    enum Column { number, probes, should_be, read_now, verdict_now };

  signals:
    void taken(const yr::TestPoint& point, double value, yr::Verdict verdict);
    void moved();

  private:
    void fill();
    void add_step(const QString& name, double before);
    void add_row(std::size_t point);
    void show_steps();
    void ask();

    Document* document_;
    QTreeWidget* table_;
    EntryBar* entry_;
    std::map<std::size_t, double> read_;
    std::size_t at_ = 0;
    std::optional<Plan> built_;
    Job<ProvePlan> job_;
};

}  // namespace yr::app
