// The Survey workspace in the real window: typing, pasting, the meter, and what is concluded.
#include <QSignalSpy>
#include <QTcpSocket>
#include <QTest>

#include "app/window_fixture.h"
#include "io/readings_csv.h"
#include "sim/bench_meter.h"
#include "support/folders.h"
#include "support/starts_a_process.h"

namespace yr::test {
namespace {

class SurveyPageTest : public WindowTest {
  protected:
    void SetUp() override {
        window.go_to(QStringLiteral("survey"));
        qputenv("YR_BENCH_METER", QByteArray::fromStdString(test::bin_dir() + "/bench-meter"));
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
    YR_STARTS_A_PROCESS();
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
    YR_STARTS_A_PROCESS();
    QSignalSpy ready(page()->meter(), &app::MeterClient::ready),
        done(page()->meter(), &app::MeterClient::done);
    answer_box(0);  // its points take the place of the plan's: it asks
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

// A meter that does what it is told by the test: how each question is answered, or not at all.
class OddMeter : public QTcpServer {
  public:
    explicit OddMeter(std::function<QByteArray(int)> reply) {
        connect(this, &QTcpServer::newConnection, this, [this, reply] {
            QTcpSocket* s = nextPendingConnection();
            connect(s, &QTcpSocket::readyRead, s, [this, s, reply] {
                while (s->canReadLine())
                    if (s->readLine().startsWith("MEAS")) {
                        const QByteArray said = reply(++asked);
                        said == "leave" ? s->abort() : void(s->write(said));
                    }
            });
        });
        EXPECT_TRUE(listen(QHostAddress::LocalHost));
    }
    int asked = 0;
};

class OddMeterTest : public SurveyPageTest {
  protected:
    OddMeterTest() {
        Survey s;
        for (int k = 0; k < 3; ++k)
            s.points.push_back({"p" + std::to_string(k), "post " + std::to_string(k), SurveyKind::battery,
                                "battery-front.pos"});
        doc().apply(SetSurvey{s}, QStringLiteral("three places"));
    }
    void join(OddMeter& meter) {
        QSignalSpy ready(page()->meter(), &app::MeterClient::ready);
        page()->meter()->connect_to(meter.serverPort());
        ASSERT_TRUE(ready.wait(5000));
    }
    // The sentence that ends a reading of all twelve.
    QString end_of_reading() {
        QSignalSpy said(page(), &app::SurveyPage::said);
        page()->read_missing();
        (void)QTest::qWaitFor([&] { return !said.isEmpty(); }, 5000);
        return said.isEmpty() ? QString() : said.last()[0].toString();
    }
};

TEST_F(OddMeterTest, ASecondReadAllWaitsForTheFirstAndPairsNothingWrongly) {
    OddMeter meter([](int n) { return QByteArray::number(12 + n / 100.0) + '\n'; });
    join(meter);
    QSignalSpy done(page()->meter(), &app::MeterClient::done), said(page(), &app::SurveyPage::said);
    page()->read_missing();
    page()->read_missing();
    ASSERT_EQ(said.count(), 1);
    EXPECT_EQ(said[0][0].toString(), QStringLiteral("The meter is still reading: 12 places are to come."));
    ASSERT_TRUE(done.wait(5000));
    ASSERT_EQ(plan().survey.readings.size(), 12U);
    for (std::size_t k = 0; k < 12; ++k)
        EXPECT_NEAR(plan().survey.readings[k].volts_V, 12 + (static_cast<double>(k) + 1) / 100, 1e-9);
}

TEST_F(OddMeterTest, WhatWasReadBeforeAFailureIsKeptOnceAndNotMixedIntoTheNextSet) {
    OddMeter meter([](int n) { return n == 3 ? QByteArray("9.91E+37\n") : QByteArray("12.5\n"); });
    join(meter);
    const QString said = end_of_reading();
    EXPECT_TRUE(said.contains(QStringLiteral("finds nothing at “battery-front.pos”"))) << said.toStdString();
    EXPECT_TRUE(said.endsWith(QStringLiteral("2 readings before it are kept."))) << said.toStdString();
    EXPECT_EQ(plan().survey.readings.size(), 2U);
    QSignalSpy done(page()->meter(), &app::MeterClient::done);
    page()->read_missing();
    ASSERT_TRUE(done.wait(5000));
    EXPECT_EQ(done[0][0].value<std::vector<SurveyReading>>().size(), 10U);
    EXPECT_EQ(plan().survey.readings.size(), 12U);
}

TEST_F(OddMeterTest, ASilentMeterIsLetGoAndItsLateAnswerIsNobodys) {
    OddMeter meter([](int n) { return n == 2 ? QByteArray() : QByteArray("12.5\n"); });
    join(meter);
    page()->meter()->set_patience(1500);
    const QString said = end_of_reading();
    EXPECT_TRUE(said.startsWith(QStringLiteral("The bench meter gave no answer for 1.5 s.")))
        << said.toStdString();
    EXPECT_FALSE(page()->meter()->connected());
    EXPECT_FALSE(page()->meter()->busy());
    EXPECT_EQ(plan().survey.readings.size(), 1U);
}

TEST_F(OddMeterTest, AMeterThatLeavesOrTalksNonsenseIsTold) {
    OddMeter leaves([](int n) { return n == 2 ? QByteArray("leave") : QByteArray("12.5\n"); });
    join(leaves);
    EXPECT_TRUE(end_of_reading().startsWith(QStringLiteral("The bench meter does not answer")));
    for (const char* odd : {"twelve\n", "nan\n", "inf\n", "-9.91E+37\n", "1E6\n"}) {
        OddMeter meter([&](int) { return QByteArray(odd); });
        join(meter);
        EXPECT_TRUE(end_of_reading().contains(QStringLiteral("is no voltage"))) << odd;
    }
    EXPECT_EQ(plan().survey.readings.size(), 1U);
}

TEST_F(OddMeterTest, AStandInThatEndsIsToldWithItsLastWord) {
    YR_STARTS_A_PROCESS();
    QSignalSpy said(page(), &app::SurveyPage::said);
    page()->meter()->start_stand_in({QStringLiteral("--plan"), QStringLiteral("nowhere.json")});
    ASSERT_TRUE(QTest::qWaitFor([&] { return !said.isEmpty(); }, 5000));
    EXPECT_TRUE(said[0][0].toString().startsWith(QStringLiteral("The bench meter has ended: nowhere.json")))
        << said[0][0].toString().toStdString();
}

// The stand-in itself, over its socket.
TEST(BenchMeter, AProbeHeldNowhereReadsNothing) {
    const Plan vehicle = hidden_vehicle(5).plan;
    EXPECT_FALSE(read_volts(vehicle, {}));
    sim::BenchMeter meter(vehicle, {});
    sim::BenchMeter::Session session;
    EXPECT_EQ(meter.answer(QStringLiteral("MEAS:VOLT:DC?"), session), QStringLiteral("9.91E+37"));
    EXPECT_TRUE(meter.answer(QStringLiteral("SYST:ERR?"), session).contains(QStringLiteral("-200")));
}

TEST(BenchMeter, OneConnectionsResetLeavesTheOthersVehicleAlone) {
    const Plan vehicle = hidden_vehicle(5).plan;
    sim::MeterSettings quiet;
    quiet.noise_V = 0;
    sim::BenchMeter meter(vehicle, quiet);
    sim::BenchMeter::Session one, other;
    const QString red = QStringLiteral("ROUT:RED battery-1.pos"), volts = QStringLiteral("MEAS:VOLT:DC?");
    (void)meter.answer(red, one);
    (void)meter.answer(QStringLiteral("SIM:KEY RUNNING"), one);
    const QString before = meter.answer(volts, one);
    (void)meter.answer(red, other);
    (void)meter.answer(QStringLiteral("*RST"), other);
    EXPECT_EQ(meter.answer(volts, one), before);
    EXPECT_EQ(meter.answer(volts, other), QStringLiteral("9.91E+37")) << "its own probe is nowhere";
}

TEST(BenchMeter, AFloodHoldsUpNobodyElse) {
    sim::BenchMeter meter(hidden_vehicle(5).plan, {});
    ASSERT_TRUE(meter.start(0));
    QTcpSocket flood, quiet;
    for (QTcpSocket* s : {&flood, &quiet}) {
        s->connectToHost(QHostAddress::LocalHost, meter.serverPort());
        ASSERT_TRUE(QTest::qWaitFor([&] { return s->state() == QAbstractSocket::ConnectedState; }, 3000));
    }
    flood.write(QByteArray("*IDN?\n").repeated(200000));
    QCoreApplication::processEvents();
    quiet.write("*IDN?\n");
    ASSERT_TRUE(QTest::qWaitFor([&] { return quiet.canReadLine(); }, 5000));
    EXPECT_GT(flood.bytesToWrite() + 1, 0);
    qint64 answered = 0;
    while (flood.canReadLine()) answered += flood.readLine().isEmpty() ? 0 : 1;
    EXPECT_LT(answered, 100000) << "it was answered before the flood was through";
    flood.abort();
    EXPECT_TRUE(quiet.readLine().startsWith("Your Rail"));
}

TEST(BenchMeter, WrongArgumentsEndWithTwo) {
    for (const char* wrong : {"--noise 5", "--port 70000", "--lead x", "--what", "--plan"})
        EXPECT_EQ(run((test::bin_dir() + "/bench-meter ") + wrong).code, 2) << wrong;
}

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
