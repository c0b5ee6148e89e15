#include "bench/meter_client.h"

#include <QCoreApplication>
#include <QDir>
#include <QHostAddress>
#include <QSignalBlocker>
#include <cmath>
#include <utility>

#include "words/format.h"

namespace yr::app {
namespace {

constexpr int kPatience_ms = 5000;
constexpr qint64 kLongestAnswer = 4096;
constexpr double kNothing_V = 9e37;  // SCPI says 9.91E+37 for "not a number"
constexpr double kMostVolts = 1000;

const char* key_word(SurveyKey key) {
    static const char* words[] = {"OFF", "ACCESSORY", "RUNNING", "AFTER"};
    return words[static_cast<int>(key)];
}

}  // namespace

MeterClient::MeterClient(QObject* parent) : QObject(parent) {
    connect(&process_, &QProcess::readyReadStandardOutput, this, &MeterClient::read_process);
    connect(&process_, &QProcess::errorOccurred, this, [this](QProcess::ProcessError e) {
        if (e == QProcess::FailedToStart) fail(say("The bench meter could not be started."));
    });
    connect(&process_, &QProcess::finished, this, &MeterClient::process_ended);
    connect(&socket_, &QTcpSocket::connected, this, [this] {
        patience_.stop();
        emit ready();
    });
    connect(&socket_, &QTcpSocket::readyRead, this, &MeterClient::take_line);
    connect(&socket_, &QTcpSocket::errorOccurred, this,
            [this] { fail(say("The bench meter does not answer: %1.").arg(socket_.errorString())); });
    patience_.setSingleShot(true);
    patience_.setInterval(kPatience_ms);
    connect(&patience_, &QTimer::timeout, this, [this] {
        fail(say("The bench meter gave no answer for %1 s. It was let go: connect it anew.")
                 .arg(q(words::number(patience_.interval() / 1000.0))));
    });
}

MeterClient::~MeterClient() {
    patience_.disconnect(this);
    let_go();
}

// No word of a meter that is let go on purpose is heard any more.
void MeterClient::let_go() {
    patience_.stop();
    tasks_.clear();
    taken_.clear();
    const QSignalBlocker sockets(socket_), processes(process_);
    socket_.abort();
    process_.kill();
    process_.waitForFinished(2000);
}

void MeterClient::fail(const QString& sentence) {
    const std::vector<SurveyReading> before = std::move(taken_);
    let_go();
    emit failed(sentence, before);
}

void MeterClient::process_ended() {
    const QString last =
        QString::fromUtf8(process_.readAllStandardError()).trimmed().section(QLatin1Char('\n'), -1);
    fail(last.isEmpty() ? say("The bench meter has ended.") : say("The bench meter has ended: %1").arg(last));
}

void MeterClient::start_stand_in(const QStringList& arguments) {
    let_go();
    points_.clear();
    const QString program =
        QDir(QCoreApplication::applicationDirPath()).filePath(QStringLiteral("bench-meter"));
    QString found = qEnvironmentVariable("YR_BENCH_METER", program);  // tests run from elsewhere
    patience_.start();
    process_.start(found, arguments + QStringList{QStringLiteral("--port"), QStringLiteral("0")});
}

void MeterClient::read_process() {
    while (process_.canReadLine()) {
        const QString line = QString::fromUtf8(process_.readLine()).trimmed();
        const QLatin1String listening("listening on 127.0.0.1:");  // the stand-in's, in no language
        if (line.startsWith(listening))
            connect_to(line.mid(listening.size()).toUShort());
        else if (const qsizetype colon = line.indexOf(QStringLiteral(": ")); colon > 0)
            points_.emplace_back(line.left(colon).toStdString(), line.mid(colon + 2));
    }
}

void MeterClient::connect_to(quint16 port) {
    patience_.start();
    tasks_.clear();
    {
        const QSignalBlocker blocked(socket_);
        socket_.abort();
    }
    socket_.connectToHost(QHostAddress(QHostAddress::LocalHost), port);
}

void MeterClient::take(std::vector<Task> tasks) {
    if (!connected()) {
        emit failed(say("No bench meter is connected."), {});
        return;
    }
    if (busy()) {
        emit failed(
            say_n("The meter is still reading: %n place is to come.",
                  "The meter is still reading: %n places are to come.", static_cast<long>(tasks_.size())),
            {});
        return;
    }
    taken_.clear();
    tasks_ = std::move(tasks);
    if (tasks_.empty())
        emit done({});
    else
        ask_next();
}

void MeterClient::ask_next() {
    const Task& t = tasks_.front();
    const auto send = [this](const QString& line) { socket_.write(line.toUtf8() + '\n'); };
    if (!t.query.isEmpty()) {
        for (const QString& command : t.commands) send(command);
        send(t.query);
        patience_.start();
        return;
    }
    send(QStringLiteral("SIM:KEY ") + QLatin1String(key_word(t.reading.key)));
    send(QStringLiteral("SIM:DRAW \"%1\"").arg(QString::fromStdString(t.drawn_at.text())));
    send(QStringLiteral("ROUT:RED \"%1\"").arg(QString::fromStdString(t.red.text())));
    send(QStringLiteral("MEAS:VOLT:DC?"));
    patience_.start();
}

void MeterClient::take_line() {
    if (!busy()) {  // said without having been asked: nothing that a later question may take for its answer
        socket_.readAll();
        return;
    }
    if (socket_.bytesAvailable() > kLongestAnswer && !socket_.canReadLine()) {
        fail(say("The bench meter answers with what is no number."));
        return;
    }
    while (socket_.canReadLine() && busy()) {
        patience_.stop();
        const QString line = QString::fromUtf8(socket_.readLine()).trimmed();
        bool number = false;
        const double volts = line.toDouble(&number);
        const QString red = QString::fromStdString(tasks_.front().red.text());
        if (number && volts > kNothing_V && std::isfinite(volts)) {  // the meter is well: the place is wrong
            const std::vector<SurveyReading> before = std::move(taken_);
            tasks_.clear();
            emit failed(say("The meter finds nothing at “%1”: that place is not on its vehicle.").arg(red),
                        before);
            return;
        }
        if (number && !tasks_.front().query.isEmpty()) {
            tasks_.clear();
            emit answered(volts);
            return;
        }
        if (!number || !(std::abs(volts) <= kMostVolts)) {
            fail(say("The bench meter answered “%1” at “%2”, which is no voltage. It was let go: connect it "
                     "anew.")
                     .arg(line.left(40), red));
            return;
        }
        taken_.push_back(tasks_.front().reading);
        taken_.back().volts_V =
            std::round(volts * 1000) / 1000;  // a millivolt is all that such a meter shows
        tasks_.erase(tasks_.begin());
        if (busy())
            ask_next();
        else
            emit done(std::exchange(taken_, {}));
    }
}

}  // namespace yr::app

#include "moc_meter_client.cpp"
