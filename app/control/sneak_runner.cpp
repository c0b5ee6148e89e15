#include "control/sneak_runner.h"

#include <QtConcurrent/QtConcurrentRun>

namespace yr::app {

SneakRunner::SneakRunner(PlanDocument* document, QObject* parent) : QObject(parent), document_(document) {
    connect(&watcher_, &QFutureWatcherBase::finished, this, &SneakRunner::take);
}

SneakRunner::~SneakRunner() {
    watcher_.disconnect(this);
    cancel();
    watcher_.waitForFinished();
}

void SneakRunner::start() {
    if (running()) return;
    generation_ = document_->generation();
    pending_ = true;
    stop_ = std::make_shared<std::atomic<bool>>(false);
    watcher_.setFuture(QtConcurrent::run([this, plan = document_->plan(), stop = stop_] {
        SneakAsk ask;
        ask.cancel = stop.get();
        ask.progress = [this](double share) {  // from the worker: queued into the interface's thread
            QMetaObject::invokeMethod(
                this, [this, share] { emit progress(static_cast<int>(100 * share)); }, Qt::QueuedConnection);
        };
        return std::make_shared<SneakSearch>(search_sneaks(plan, ask));
    }));
}

void SneakRunner::cancel() {
    if (stop_) stop_->store(true);
}

void SneakRunner::wait() {
    if (!pending_) return;
    watcher_.disconnect(this);
    watcher_.waitForFinished();
    connect(&watcher_, &QFutureWatcherBase::finished, this, &SneakRunner::take);
    take();
}

void SneakRunner::take() {
    if (!pending_) return;  // wait() has told it already
    pending_ = false;
    result_ = watcher_.result();
    emit finished();
}

}  // namespace yr::app
