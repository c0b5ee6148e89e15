// Talks SCPI to a bench meter on the loopback: starts the stand-in that ships, or takes one that listens
// already.
#pragma once

#include <QProcess>
#include <QTcpSocket>
#include <QTimer>

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
        QStringList commands{};  // instead, where something else than a survey is read ...
        QString query{};         // ... and this question; its answer comes as answered()
    };
    // One question beside the survey: commands in SCPI, then the query.
    void ask(const QStringList& commands, const QString& query) { take({Task{{}, {}, {}, commands, query}}); }
    // Reads one after another: done() at the end. While a set is being read no other is begun: that is said.
    // What was read when a meter fails, is told with the failure.
    void take(std::vector<Task> tasks);
    [[nodiscard]] bool busy() const { return !tasks_.empty(); }
    // How long an answer, or a stand-in's start, may take. A meter that is silent for longer is let go, so
    // that a late answer is never taken for another question's.
    void set_patience(int milliseconds) { patience_.setInterval(milliseconds); }

  signals:
    void ready();
    void done(const std::vector<yr::SurveyReading>& readings);
    void answered(double value);
    void failed(const QString& sentence, const std::vector<yr::SurveyReading>& read_before);

  private:
    void ask_next();
    void take_line();
    void read_process();
    void process_ended();
    void let_go();
    void fail(const QString& sentence);

    QProcess process_;
    QTcpSocket socket_;
    std::vector<std::pair<Terminal, QString>> points_;
    std::vector<Task> tasks_;  // not answered yet; the first has been asked
    std::vector<SurveyReading> taken_;
    QTimer patience_;
};

}  // namespace yr::app
