// Long work beside the interface: newest wins, progress, stop, and an owner that goes away.
#include "document/job.h"

#include <gtest/gtest.h>

#include <QElapsedTimer>
#include <QSignalSpy>
#include <QTest>
#include <thread>

namespace yr::test {
namespace {

using app::Job;
using app::Task;

// Works until it is told to stop, a millisecond at a time.
int until_stopped(const Task& task) {
    int turns = 0;
    while (!task.cancelled() && turns < 20000) {
        std::this_thread::sleep_for(std::chrono::milliseconds(1));
        ++turns;
    }
    return turns;
}

TEST(Job, AnswersOnceInTheInterfacesThread) {
    Job<int> job;
    QSignalSpy done(&job, &app::JobBase::done);
    const auto here = std::this_thread::get_id();
    std::thread::id worked;
    job.start(7, [&worked](const Task&) {
        worked = std::this_thread::get_id();
        return 42;
    });
    EXPECT_TRUE(job.running());
    EXPECT_EQ(job.answer(), nullptr) << "not before the interface's thread takes it";
    ASSERT_TRUE(QTest::qWaitFor([&] { return !job.running(); }, 5000));
    ASSERT_NE(job.answer(), nullptr);
    EXPECT_EQ(*job.answer(), 42);
    EXPECT_TRUE(job.current(7));
    EXPECT_FALSE(job.current(8)) << "it is of another plan";
    EXPECT_EQ(done.count(), 1);
    EXPECT_NE(worked, here);
}

TEST(Job, TheNewestQuestionWins) {
    Job<int> job;
    QSignalSpy done(&job, &app::JobBase::done);
    job.start(1, [](const Task& task) { return until_stopped(task); });
    job.start(2, [](const Task&) { return 2; });  // never begun: a newer one comes
    job.start(3, [](const Task&) { return 3; });
    job.finish();
    EXPECT_EQ(*job.answer(), 3);
    EXPECT_EQ(job.generation(), 3U);
    EXPECT_EQ(done.count(), 1) << "what was asked before is not told";
    QCoreApplication::processEvents();
    EXPECT_EQ(done.count(), 1) << "and not told later either";
}

TEST(Job, StoppedByAPersonItGivesWhatItHas) {
    Job<int> job;
    job.start(1, [](const Task& task) { return until_stopped(task); });
    QTest::qWait(30);
    job.cancel();
    job.finish();
    ASSERT_NE(job.answer(), nullptr);
    EXPECT_LT(*job.answer(), 20000);
}

TEST(Job, TellsItsProgressHere) {
    Job<int> job;
    QSignalSpy progress(&job, &app::JobBase::progressed);
    job.start(1, [](const Task& task) {
        task.progress(0.5, QStringLiteral("half"));
        return 1;
    });
    ASSERT_TRUE(QTest::qWaitFor([&] { return !job.running(); }, 5000));
    ASSERT_EQ(progress.count(), 1);
    EXPECT_EQ(progress[0][0].toDouble(), 0.5);
    EXPECT_EQ(progress[0][1].toString(), QStringLiteral("half"));
}

TEST(Job, GoingAwayDoesNotWait) {
    auto ended = std::make_shared<std::atomic<bool>>(false);
    QElapsedTimer clock;
    {
        Job<int> job;
        job.start(1, [ended](const Task&) {
            std::this_thread::sleep_for(std::chrono::milliseconds(400));  // a work that knows no stop
            *ended = true;
            return 1;
        });
        QTest::qWait(20);
        clock.start();
    }
    EXPECT_LT(clock.elapsed(), 200) << "the window would have frozen";
    ASSERT_TRUE(QTest::qWaitFor([&] { return ended->load(); }, 5000)) << "and the work ends in peace";
}

TEST(Job, ForgetsAnAnswerOfAnotherPlan) {
    Job<int> job;
    job.start(1, [](const Task&) { return 1; });
    job.finish();
    job.forget();
    EXPECT_EQ(job.answer(), nullptr);
    EXPECT_FALSE(job.current(1));
}

}  // namespace
}  // namespace yr::test
