// Control: what is alive, when, and through what. Boxes and feeds above; below them, by turns: alive or dead
// by key position, sneak paths, the rails that loads ask for, loads given out to channels, and the panel's
// labels.
#pragma once

#include <QLabel>
#include <QProgressBar>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>
#include <functional>

#include "control/assign.h"
#include "control/box_view.h"
#include "control/live_strip.h"
#include "control/sneak_runner.h"

namespace yr::app {

class ControlPage : public QWidget {
    Q_OBJECT

  public:
    explicit ControlPage(PlanDocument* document, QWidget* parent = nullptr);
    ~ControlPage() override;
    [[nodiscard]] BoxView* boxes() { return boxes_; }
    [[nodiscard]] LiveStrip* live() { return live_; }
    [[nodiscard]] SneakRunner* sneaks() { return &sneaks_; }
    enum class View { live, sneak, rails, channels, panel };
    void show_view(View view);
    [[nodiscard]] View view() const { return view_; }
    void search_sneaks_now();
    // Begins in a worker; finish_channels() waits for its answer.
    void give_out_channels();
    void finish_channels();
    // The sentences that the open view shows, for tests and for copying.
    [[nodiscard]] QStringList lines() const;

  signals:
    void rail_asked();  // something is shown on the rail
    void said(const QString& text);

  protected:
    void showEvent(QShowEvent*) override;

  private:
    QWidget* scrolled(QWidget* inside);
    QWidget* list_page(QVBoxLayout*& rows);
    void clear(QVBoxLayout* rows);
    QLabel* line(QVBoxLayout* rows, const QString& text, const char* kind);
    QToolButton* action(const QString& text, const std::function<void()>& run);
    void add_row(QVBoxLayout* rows, const QString& text, const char* kind,
                 const std::vector<QToolButton*>& buttons);
    void refresh();
    void refresh_sneaks();
    void add_path(const SneakPath& path);
    void refresh_rails();
    void refresh_channels();
    void refresh_panel();
    void take_assignment();
    void apply_assignment();

    PlanDocument* document_;
    SneakRunner sneaks_;
    BoxView* boxes_;
    LiveStrip* live_;
    QStackedWidget* pages_;
    std::vector<QToolButton*> words_;
    QVBoxLayout *sneak_rows_ = nullptr, *rail_rows_ = nullptr, *channel_rows_ = nullptr,
                *panel_rows_ = nullptr;
    QProgressBar* progress_;
    View view_ = View::live;
    using Assigned = std::pair<quint64, std::shared_ptr<Assignment>>;
    QFutureWatcher<Assigned> assigning_;
    bool asked_ = false;  // begun, its answer not yet shown
    std::shared_ptr<Assignment> assignment_;
    quint64 assigned_ = 0;  // generation that the assignment is of
};

}  // namespace yr::app
