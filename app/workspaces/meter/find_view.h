// Finding a fault: what is complained of, the staircase of that load, readings, and after each the suspects
// and the reading that tells most.
#pragma once

#include <QComboBox>
#include <QWidget>
#include <memory>

#include "document/document.h"
#include "document/job.h"
#include "meter/next_reading.h"
#include "workspaces/meter/entry_bar.h"
#include "workspaces/meter/stair_view.h"

namespace yr::app {

struct FindAnswer {
    Location now;
    std::optional<NextReading> next;
    std::vector<Stair> stairs;
};

class FindView : public QWidget {
    Q_OBJECT

  public:
    explicit FindView(Document* document, QWidget* parent = nullptr);
    void refresh();
    void finish();
    [[nodiscard]] const FindAnswer* answer() const { return job_.answer(); }
    [[nodiscard]] EntryBar* entry() { return entry_; }
    [[nodiscard]] StairView* stairs() { return stairs_; }
    [[nodiscard]] const std::vector<Reading>& readings() const { return readings_; }
    [[nodiscard]] const std::vector<Complaint>& complaints() const { return complaints_; }
    [[nodiscard]] std::optional<Probing> asked() const { return asked_; }
    [[nodiscard]] bool working() const { return job_.running(); }
    // The fields of the complaint.
    [[nodiscard]] QComboBox* load() { return load_; }
    [[nodiscard]] QComboBox* state() { return state_; }
    [[nodiscard]] QComboBox* seen() { return seen_; }

    void complain(const Complaint& complaint);
    void begin_anew();
    void take(double value);
    void ask_at(const Probing& where);
    void take_back();

  signals:
    void changed();

  private:
    void fill_choices();
    void start();
    void show_answer();

    Document* document_;
    QComboBox *load_, *state_, *seen_;
    StairView* stairs_;
    EntryBar* entry_;
    std::vector<Complaint> complaints_;
    std::vector<Reading> readings_;
    std::optional<Probing> asked_;  // another place than the one that tells most
    struct Holder;                  // a plan and its solved faults, kept from one reading to the next
    std::shared_ptr<Holder> holder_;
    quint64 holder_of_ = 0;
    Job<FindAnswer> job_;
};

}  // namespace yr::app
