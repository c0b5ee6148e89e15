// The trainer: a hidden fault on the open plan, a complaint, probes put where one likes, each reading costs
// minutes; afterwards the way that the best strategy takes.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QSpinBox>
#include <QTreeWidget>
#include <QWidget>
#include <memory>

#include "document/document.h"
#include "document/job.h"
#include "meter/practice.h"

namespace yr::app {

class PractiseView : public QWidget {
    Q_OBJECT

  public:
    explicit PractiseView(Document* document, QWidget* parent = nullptr);
    void refresh();
    void finish();
    void begin(std::uint32_t seed, PracticeLevel level);
    [[nodiscard]] const HiddenFault* hidden() const { return hidden_.get(); }
    [[nodiscard]] const PracticeScore& score() const { return score_; }
    [[nodiscard]] bool over() const { return over_; }
    [[nodiscard]] QTreeWidget* log() { return log_; }
    [[nodiscard]] QString told() const { return told_->text(); }
    [[nodiscard]] const std::vector<PathStep>* best() const { return job_.answer(); }
    void read(const Probing& where);
    void mend(const Id& thing);
    void give_up();

  signals:
    void changed();

  private:
    void fill_choices();
    void end(const QString& text);

    Document* document_;
    QComboBox *level_, *red_, *black_, *state_, *thing_;
    QSpinBox* seed_;
    QLabel* told_;
    QTreeWidget* log_;
    std::shared_ptr<Plan> plan_;
    std::unique_ptr<HiddenFault> hidden_;
    PracticeScore score_;
    std::uint32_t number_ = 1;
    PracticeLevel of_level_{};
    std::optional<Probing> last_;
    bool over_ = true;
    Job<std::vector<PathStep>> job_;
};

}  // namespace yr::app
