// The one way to do long work beside the interface. One job holds one question: asked again, the newest wins
// (what runs is told to stop, its answer is dropped). Progress and answers arrive in the interface's thread.
//
// A job that goes away tells its work to stop and does not wait for it; the application waits for what still
// runs when it ends, with every window gone, so closing never freezes.
#pragma once

#include <QObject>
#include <QString>
#include <atomic>
#include <functional>
#include <memory>
#include <optional>

namespace yr::app {

// What a piece of work sees of its job, in its own thread.
class Task {
  public:
    struct Shared;
    explicit Task(std::shared_ptr<Shared> shared) : shared_(std::move(shared)) {}
    // Set as soon as the answer is not wanted any more, or a person said stop; for the core's `cancel`.
    [[nodiscard]] const std::atomic<bool>* cancel() const;
    [[nodiscard]] bool cancelled() const { return cancel()->load(); }
    // 0..1, and what is being done; either may be left empty.
    void progress(double share, const QString& text = {}) const;

  private:
    std::shared_ptr<Shared> shared_;
};

class JobBase : public QObject {
    Q_OBJECT

  public:
    explicit JobBase(QObject* parent = nullptr);
    ~JobBase() override;
    [[nodiscard]] bool running() const { return running_ != nullptr; }
    // Tells the work to stop; what it has by then is its answer.
    void cancel();
    // Waits until the newest question is answered, for tests and pictures; done() has then been told.
    void finish();

  signals:
    void progressed(double share, const QString& text);
    void done();

  protected:
    struct Question {
        std::function<void(const Task&)> work;  // in a worker
        std::function<void()> take;             // in the interface's thread, before done()
    };
    void ask(Question question);

  private:
    friend class Task;
    void progress_of(const std::shared_ptr<Task::Shared>& turn, double share, const QString& text);
    void launch(Question question);
    void ended(const std::shared_ptr<Task::Shared>& turn);

    std::shared_ptr<Task::Shared> running_;
    std::function<void()> take_;
    std::optional<Question> next_;
};

template <class T>
class Job : public JobBase {
  public:
    using JobBase::JobBase;
    // `generation` says which plan is asked about; `work` must hold copies of all that it reads.
    void start(quint64 generation, std::function<T(const Task&)> work) {
        auto answer = std::make_shared<std::optional<T>>();
        ask({[answer, work = std::move(work)](const Task& task) { answer->emplace(work(task)); },
             [this, answer, generation] {
                 answer_ = answer;
                 generation_ = generation;
             }});
    }
    // nullptr before the first answer.
    [[nodiscard]] const T* answer() const { return answer_ && *answer_ ? &**answer_ : nullptr; }
    [[nodiscard]] quint64 generation() const { return generation_; }  // of the answer
    // Whether the answer is of the plan as it is.
    [[nodiscard]] bool current(quint64 generation) const { return answer() && generation_ == generation; }
    void forget() { answer_.reset(); }

  private:
    std::shared_ptr<std::optional<T>> answer_;
    quint64 generation_ = 0;
};

}  // namespace yr::app
