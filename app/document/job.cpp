#include "document/job.h"

#include <sys/resource.h>
#include <QCoreApplication>
#include <QPointer>
#include <QThreadPool>
#include <condition_variable>
#include <mutex>

namespace yr::app {

struct Task::Shared {
    std::atomic<bool> cancel{false};
    std::mutex mutex;
    std::condition_variable changed;
    bool ended = false;        // guarded
    JobBase* owner = nullptr;  // guarded; nullptr once the job is gone
};

namespace {

// Belongs to the application, whose end waits for what still runs.
QThreadPool* workers() {
    static QPointer<QThreadPool> pool;
    if (!pool) {
        pool = new QThreadPool(QCoreApplication::instance());
        // findings must not wait behind a long sizing
        pool->setMaxThreadCount(std::max(4, pool->maxThreadCount()));
    }
    return pool;
}

// The interface goes first where there are fewer processors than work. Qt's priorities change nothing under
// the usual scheduler of Linux, where a thread has a nice value of its own (setpriority(2), "C library/kernel
// differences"), and the threads that it starts have the same.
void stand_back() {
    constexpr int kNice = 5;
    thread_local const int done = setpriority(PRIO_PROCESS, 0, kNice);  // as it is where it may not
    (void)done;
}

}  // namespace

const std::atomic<bool>* Task::cancel() const {
    return &shared_->cancel;
}

void Task::progress(double share, const QString& text) const {
    const std::scoped_lock lock(shared_->mutex);
    if (JobBase* owner = shared_->owner)
        QMetaObject::invokeMethod(
            owner, [owner, turn = shared_, share, text] { owner->progress_of(turn, share, text); },
            Qt::QueuedConnection);
}

JobBase::JobBase(QObject* parent) : QObject(parent) {}

JobBase::~JobBase() {
    if (!running_) return;
    running_->cancel = true;
    const std::scoped_lock lock(running_->mutex);
    running_->owner = nullptr;
}

void JobBase::cancel() {
    next_.reset();
    if (running_) running_->cancel = true;
}

void JobBase::ask(Question question) {
    if (!running_) {
        launch(std::move(question));
        return;
    }
    next_ = std::move(question);
    running_->cancel = true;
}

void JobBase::launch(Question question) {
    running_ = std::make_shared<Task::Shared>();
    running_->owner = this;
    take_ = std::move(question.take);
    workers()->start([turn = running_, work = std::move(question.work)] {
        stand_back();
        work(Task(turn));
        const std::scoped_lock lock(turn->mutex);
        turn->ended = true;
        if (JobBase* owner = turn->owner)
            QMetaObject::invokeMethod(
                owner, [owner, turn] { owner->ended(turn); }, Qt::QueuedConnection);
        turn->changed.notify_all();
    });
}

// Word of a turn that finish() has taken meanwhile comes too late.
void JobBase::progress_of(const std::shared_ptr<Task::Shared>& turn, double share, const QString& text) {
    if (turn == running_) emit progressed(share, text);
}

void JobBase::ended(const std::shared_ptr<Task::Shared>& turn) {
    if (turn != running_) return;  // finish() has taken it
    running_.reset();
    if (next_) {
        Question question = std::move(*next_);
        next_.reset();
        launch(std::move(question));
        return;
    }
    std::exchange(take_, nullptr)();
    emit done();
}

void JobBase::finish() {
    while (running_) {
        const auto turn = running_;
        {
            std::unique_lock lock(turn->mutex);
            turn->changed.wait(lock, [&] { return turn->ended; });
        }
        ended(turn);
    }
}

}  // namespace yr::app

#include "moc_job.cpp"
