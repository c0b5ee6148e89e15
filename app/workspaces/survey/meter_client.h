// Talks SCPI to a bench meter on the loopback: starts the stand-in that ships, or takes one that listens
// already.
#pragma once

#include <QProcess>
#include <QTcpSocket>
#include <functional>

#include "survey/infer.h"
#include "text/say.h"

namespace yr::app {

class MeterClient : public QObject {
    Q_OBJECT

  public:
    explicit MeterClient(QObject* parent = nullptr);
    ~MeterClient() override;

    // Starts bench-meter with these arguments, and connects once it says where it listens.
    void start_stand_in(const QStringList& arguments);
    // Connects to a meter on 127.0.0.1 that listens already; other hosts are not asked.
    void connect_to(quint16 port);
    [[nodiscard]] bool connected() const { return socket_.state() == QAbstractSocket::ConnectedState; }
    // Terminals that the stand-in named, with their names: a hidden vehicle's points.
    [[nodiscard]] const std::vector<std::pair<Terminal, QString>>& points() const { return points_; }

    struct Task {
        SurveyReading reading;  // volts are filled in
        Terminal red, drawn_at;
    };
    // Reads one after another; read() for each, done() at the end.
    void take(std::vector<Task> tasks);
    [[nodiscard]] bool busy() const { return !tasks_.empty(); }

  signals:
    void ready();
    void read(const yr::SurveyReading& reading);
    void done();
    void failed(const QString& sentence);

  private:
    void ask_next();
    void take_line();
    void read_process();

    QProcess process_;
    QTcpSocket socket_;
    std::vector<std::pair<Terminal, QString>> points_;
    std::vector<Task> tasks_;
};

}  // namespace yr::app
