#include "workspaces/survey/meter_client.h"

#include <QCoreApplication>
#include <QDir>
#include <QHostAddress>
#include <cmath>

namespace yr::app {
namespace {

const char* key_word(SurveyKey key) {
    static const char* words[] = {"OFF", "ACCESSORY", "RUNNING", "AFTER"};
    return words[static_cast<int>(key)];
}

}  // namespace

MeterClient::MeterClient(QObject* parent) : QObject(parent) {
    connect(&process_, &QProcess::readyReadStandardOutput, this, &MeterClient::read_process);
    connect(&process_, &QProcess::errorOccurred, this, [this](QProcess::ProcessError e) {
        if (e == QProcess::FailedToStart) emit failed(say("The bench meter could not be started."));
    });
    connect(&socket_, &QTcpSocket::connected, this, &MeterClient::ready);
    connect(&socket_, &QTcpSocket::readyRead, this, &MeterClient::take_line);
    connect(&socket_, &QTcpSocket::errorOccurred, this, [this] {
        tasks_.clear();
        emit failed(say("The bench meter does not answer: ") + socket_.errorString() + QLatin1Char('.'));
    });
}

MeterClient::~MeterClient() {
    socket_.disconnect(this);
    process_.disconnect(this);
    process_.kill();
    process_.waitForFinished(2000);
}

void MeterClient::start_stand_in(const QStringList& arguments) {
    socket_.abort();
    process_.kill();
    process_.waitForFinished(2000);
    points_.clear();
    const QString program =
        QDir(QCoreApplication::applicationDirPath()).filePath(QStringLiteral("bench-meter"));
    QString found = qEnvironmentVariable("YR_BENCH_METER", program);  // tests run from elsewhere
    process_.start(found, arguments + QStringList{QStringLiteral("--port"), QStringLiteral("0")});
}

void MeterClient::read_process() {
    while (process_.canReadLine()) {
        const QString line = QString::fromUtf8(process_.readLine()).trimmed();
        const QString listening = say("listening on 127.0.0.1:");
        if (line.startsWith(listening))
            connect_to(line.mid(listening.size()).toUShort());
        else if (const qsizetype colon = line.indexOf(QStringLiteral(": ")); colon > 0)
            points_.emplace_back(line.left(colon).toStdString(), line.mid(colon + 2));
    }
}

void MeterClient::connect_to(quint16 port) {
    socket_.abort();
    socket_.connectToHost(QHostAddress(QHostAddress::LocalHost), port);
}

void MeterClient::take(std::vector<Task> tasks) {
    if (!connected()) {
        emit failed(say("No bench meter is connected."));
        return;
    }
    tasks_ = std::move(tasks);
    if (tasks_.empty())
        emit done();
    else
        ask_next();
}

void MeterClient::ask_next() {
    const Task& t = tasks_.front();
    const auto send = [this](const QString& line) { socket_.write(line.toUtf8() + '\n'); };
    send(QStringLiteral("SIM:KEY ") + QLatin1String(key_word(t.reading.key)));
    send(QStringLiteral("SIM:DRAW \"%1\"").arg(QString::fromStdString(t.drawn_at.text())));
    send(QStringLiteral("ROUT:RED \"%1\"").arg(QString::fromStdString(t.red.text())));
    send(QStringLiteral("MEAS:VOLT:DC?"));
}

void MeterClient::take_line() {
    while (socket_.canReadLine() && !tasks_.empty()) {
        bool number = false;
        const double volts = QString::fromUtf8(socket_.readLine()).trimmed().toDouble(&number);
        SurveyReading reading = tasks_.front().reading;
        const Terminal red = tasks_.front().red;
        tasks_.erase(tasks_.begin());
        if (!number || std::abs(volts) > 1e6) {
            tasks_.clear();
            emit failed(say("The meter finds nothing at “%1”: that place is not on its vehicle.")
                            .arg(QString::fromStdString(red.text())));
            return;
        }
        reading.volts_V = std::round(volts * 1000) / 1000;  // a millivolt is all that such a meter shows
        emit read(reading);
        if (!tasks_.empty())
            ask_next();
        else
            emit done();
    }
}

}  // namespace yr::app
