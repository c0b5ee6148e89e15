// The search for sneak paths in a worker: progress, cancel, and its answer for the plan it began with.
#pragma once

#include <QFutureWatcher>
#include <QObject>
#include <atomic>
#include <memory>

#include "inspect/sneak.h"
#include "shell/document.h"

namespace yr::app {

class SneakRunner : public QObject {
    Q_OBJECT

  public:
    explicit SneakRunner(PlanDocument* document, QObject* parent = nullptr);
    ~SneakRunner() override;

    void start();
    void cancel();
    void wait();  // until the answer is there, with its signal
    [[nodiscard]] bool running() const { return pending_; }
    // nullptr before the first search; `current()` says whether the plan is still the one that was searched.
    [[nodiscard]] const SneakSearch* result() const { return result_.get(); }
    [[nodiscard]] bool current() const { return result_ && generation_ == document_->generation(); }

  signals:
    void progress(int percent);
    void finished();

  private:
    void take();
    PlanDocument* document_;
    QFutureWatcher<std::shared_ptr<SneakSearch>> watcher_;
    std::shared_ptr<SneakSearch> result_;
    std::shared_ptr<std::atomic<bool>> stop_;
    quint64 generation_ = 0;
    bool pending_ = false;  // begun, its answer not yet told
};

}  // namespace yr::app
