// The Survey workspace in the real window: typing, pasting, the meter, and what is concluded.
#include <QSignalSpy>
#include <QTcpSocket>
#include <QTest>

#include "app/window_fixture.h"
#include "io/readings_csv.h"
#include "sim/bench_meter.h"

namespace yr::test {
namespace {

class SurveyPageTest : public WindowTest {
  protected:
    void SetUp() override {
        window.go_to(QStringLiteral("survey"));
        qputenv("YR_BENCH_METER", YR_BIN_DIR "/bench-meter");
    }
    void type_cell(int row, int column, const char* text) {
        page()->table()->item(row, column)->setText(QString::fromUtf8(text));
    }
    app::SurveyPage* page() { return window.workspace<app::SurveyPage>(); }
};

TEST_F(SurveyPageTest, ATypedReadingIsKeptConcludedFromAndUndone) {
    const std::size_t before = plan().survey.readings.size();
    page()->show_draw("sp-front");
    type_cell(0, 1, "12.31 V");
    type_cell(1, 1, "13.28");
    EXPECT_EQ(plan().survey.readings.size(), before + 2);
    EXPECT_EQ(plan().survey.readings.back().drawn_at, "sp-front");
    EXPECT_EQ(doc().store().undo_stack()->undoText(),
              QStringLiteral("battery behind the cab, key off: 13.28"));
    doc().store().undo_stack()->undo();
    doc().store().undo_stack()->undo();
    EXPECT_EQ(plan().survey.readings.size(), before);
}

TEST_F(SurveyPageTest, WhatIsNoVoltageIsSaidAndNothingIsTaken) {
    const Survey before = plan().survey;
    QSignalSpy said(page(), &app::SurveyPage::said);
    type_cell(0, 1, "a lot");
    EXPECT_EQ(plan().survey, before);
    ASSERT_EQ(said.count(), 1);
    EXPECT_TRUE(said[0][0].toString().contains(QStringLiteral("front battery")))
        << said[0][0].toString().toStdString();
    EXPECT_EQ(page()->table()->item(0, 1)->text(), QStringLiteral("12.66"));
}

TEST_F(SurveyPageTest, ATableIsPastedWholeOrNotAtAll) {
    const Survey before = plan().survey;
    EXPECT_FALSE(page()->paste(QStringLiteral("point,running\nrear socket,14\nother,oops\n")));
    EXPECT_EQ(plan().survey, before);
    EXPECT_TRUE(page()->paste(QStringLiteral("point;key off;running\nrear socket;12,61;14,02\n")));
    EXPECT_EQ(plan().survey.points.size(), before.points.size() + 1);
    EXPECT_EQ(page()->table()->rowCount(), static_cast<int>(plan().survey.points.size()));
}

TEST_F(SurveyPageTest, TheCardTellsKnownFromAssumed) {
    EXPECT_TRUE(page()->card()->row_text("alternator").contains(QStringLiteral("180")));
    EXPECT_TRUE(page()->card()->row_text("gnd-cab").contains(QStringLiteral("assumed")));
    EXPECT_TRUE(page()->card()->row_text("gnd-cab").contains(QStringLiteral("millivolts")))
        << "and how to find out";
    Point ground = *find(plan().points, "gnd-cab");
    ground.bond_ohm = 0.8e-3;
    doc().apply(Put<Point>{ground, {}}, QStringLiteral("measured"));
    EXPECT_FALSE(page()->card()->row_text("gnd-cab").contains(QStringLiteral("assumed")));
}

TEST_F(SurveyPageTest, TheMeterOnThisPlanSettlesWhatWasOpen) {
    EXPECT_TRUE(page()->conclusions().contains(QStringLiteral("can't tell"))) << "before any draw";
    QSignalSpy ready(page()->meter(), &app::MeterClient::ready),
        done(page()->meter(), &app::MeterClient::done);
    page()->start_meter(false);
    ASSERT_TRUE(ready.wait(10000));
    for (int round = 0; round < 4; ++round) {
        page()->read_asked();
        if (done.count() <= round) ASSERT_TRUE(done.wait(20000));
    }
    EXPECT_TRUE(page()->conclusions().contains(QStringLiteral("DC-DC charger")))
        << page()->conclusions().toStdString();
    EXPECT_FALSE(page()->conclusions().contains(QStringLiteral("can't tell")))
        << page()->conclusions().toStdString();
}

TEST_F(SurveyPageTest, AHiddenVehicleIsPracticeFromNothing) {
    QSignalSpy ready(page()->meter(), &app::MeterClient::ready),
        done(page()->meter(), &app::MeterClient::done);
    page()->start_meter(true);
    ASSERT_TRUE(ready.wait(10000));
    EXPECT_GE(plan().survey.points.size(), 3U);
    EXPECT_TRUE(plan().survey.readings.empty());
    page()->read_missing();
    ASSERT_TRUE(done.wait(20000));
    EXPECT_EQ(plan().survey.readings.size(), plan().survey.points.size() * 4);
    EXPECT_EQ(doc().store().undo_stack()->count(), 2) << "all that the meter read is one step";
}

TEST_F(SurveyPageTest, NoMeterIsSaidSo) {
    QSignalSpy said(page(), &app::SurveyPage::said);
    page()->paste(QStringLiteral("point,running\nrear socket,14\n"));
    page()->read_missing();
    ASSERT_GE(said.count(), 1);
}

// The stand-in itself, over its socket.
TEST(BenchMeter, AnswersScpiOnTheLoopbackOnly) {
    const Plan vehicle = hidden_vehicle(5).plan;
    sim::MeterSettings quiet;
    quiet.noise_V = 0;
    sim::BenchMeter meter(vehicle, quiet);
    ASSERT_TRUE(meter.start(0));
    EXPECT_EQ(meter.serverAddress(), QHostAddress(QHostAddress::LocalHost));
    QTcpSocket socket;
    socket.connectToHost(QHostAddress::LocalHost, meter.serverPort());
    const auto ask = [&](const char* line) {
        socket.write(QByteArray(line) + '\n');
        (void)QTest::qWaitFor([&] { return socket.canReadLine(); }, 3000);
        return QString::fromUtf8(socket.readLine()).trimmed();
    };
    EXPECT_TRUE(ask("*IDN?").startsWith(QStringLiteral("Your Rail")));
    socket.write("SIMulate:KEY running\nrout:red \"battery-1.pos\"\n");
    EXPECT_NEAR(ask("MEASure:VOLTage:DC?").toDouble(),
                *read_volts(vehicle, {"battery-1.pos", {}, SurveyKey::running, {}, 100}), 1e-4);
    socket.write("SIM:DRAW \"battery-1.pos\"\n");
    EXPECT_NEAR(ask("meas:volt:dc?").toDouble(),
                *read_volts(vehicle, {"battery-1.pos", {}, SurveyKey::running, "battery-1.pos", 100}), 1e-4);
    socket.write("ROUT:RED nowhere\n");
    EXPECT_EQ(ask("MEAS:VOLT:DC?"), QStringLiteral("9.91E+37"));
    EXPECT_TRUE(ask("SYST:ERR?").contains(QStringLiteral("No such terminal")));
    socket.write("FETCH:THE:DOG\n");
    EXPECT_TRUE(ask("SYSTem:ERRor?").contains(QStringLiteral("-113")));
    EXPECT_TRUE(ask("SYST:ERR?").startsWith(QStringLiteral("0"))) << "an error is told once";
}

}  // namespace
}  // namespace yr::test
