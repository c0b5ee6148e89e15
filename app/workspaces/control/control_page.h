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

#include "document/job.h"
#include "inspect/checked_channels.h"
#include "inspect/sneak.h"
#include "workspaces/control/box_view.h"
#include "workspaces/control/live_strip.h"
#include "workspaces/workspace.h"

namespace yr::app {

class ControlPage : public Workspace {
    Q_OBJECT

  public:
    explicit ControlPage(Document* document, QWidget* parent = nullptr);
    [[nodiscard]] BoxView* boxes() { return boxes_; }
    [[nodiscard]] LiveStrip* live() { return live_; }
    [[nodiscard]] Job<SneakSearch>* sneaks() { return &sneaks_; }
    enum class View { live, sneak, rails, channels, panel };
    void show_view(View view);
    [[nodiscard]] View view() const { return view_; }
    void search_sneaks_now();
    // Begins in a worker; finish_channels() waits for its answer.
    void give_out_channels();
    void finish_channels();
    // The sentences that the open view shows, for tests and for copying.
    [[nodiscard]] QStringList lines() const;

    [[nodiscard]] Surroundings surroundings() const override {
        return {.states = false, .findings_folded = true};
    }
    void entered() override { boxes_->setFocus(); }
    void finish() override;
    [[nodiscard]] std::vector<WorkspacePicture> pictures() override;

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
    void apply_assignment();

    Job<SneakSearch> sneaks_;
    BoxView* boxes_;
    LiveStrip* live_;
    QStackedWidget* pages_;
    std::vector<QToolButton*> words_;
    QVBoxLayout *sneak_rows_ = nullptr, *rail_rows_ = nullptr, *channel_rows_ = nullptr,
                *panel_rows_ = nullptr;
    QProgressBar* progress_;
    View view_ = View::live;
    Job<CheckedChannels> assigning_;
};

}  // namespace yr::app
