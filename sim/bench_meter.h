// A bench meter that is not there: answers SCPI over TCP on the loopback, driven by a hidden vehicle.
// docs/bench-meter.md lists its commands. Each connection has probes of its own; the vehicle's key and draw
// are shared, as in a workshop, and what one connection resets is its own probes.
#pragma once

#include <QHostAddress>
#include <QTcpServer>
#include <QTcpSocket>
#include <random>

#include "meter/practice.h"
#include "survey/simulate.h"

namespace yr::sim {

struct MeterSettings {
    double noise_V = 0.003;   // standard deviation of a reading
    double gain_error = 0.0;  // share, the same for every reading
    double lead_ohm = 0.2;    // of both leads; with the meter's 10 megohm input it moves a reading by nothing
    std::uint32_t seed = 1;
    // Which fault is hidden in the plan that it answers for; empty: none.
    std::optional<PracticeLevel> fault{};
};

class BenchMeter : public QTcpServer {
    Q_OBJECT

  public:
    BenchMeter(Plan plan, const MeterSettings& settings, QObject* parent = nullptr);

    // Listens on 127.0.0.1 and on nothing else. `port` 0 takes a free one. False when the port is taken.
    bool start(quint16 port);

    static constexpr char kNoError[] = "0,\"No error\"";
    struct Session {
        Terminal red, black;
        QString error = QString::fromUtf8(kNoError);
        bool turn_waits = false;  // its next line is to be taken when the others had their turn
    };
    // The answer to one line, empty for a command without one.
    [[nodiscard]] QString answer(const QString& line, Session& session);

  private:
    void take_connection();
    void take_lines(QTcpSocket* socket, Session& session);
    [[nodiscard]] QString measure_volts(Session& session);
    [[nodiscard]] QString measure_current(Session& session);

    [[nodiscard]] QString measure(const Session& session, ReadKind kind);

    Plan plan_;
    std::unique_ptr<HiddenFault> hidden_;
    Probing probing_;  // state and what is unplugged; empty state: the survey's key decides
    MeterSettings settings_;
    SurveyKey key_ = SurveyKey::off;
    Terminal drawn_at_;
    std::mt19937 random_;
};

}  // namespace yr::sim
