#include "sim/bench_meter.h"

#include <QRegularExpression>
#include <QTimer>
#include <algorithm>
#include <memory>

#include "solve/settle.h"

namespace yr::sim {
namespace {

constexpr double kInput_ohm = 10e6;  // of the meter, common practice
constexpr double kNoiseBound = 2.7;  // standard deviations; a meter's noise has an end
constexpr qsizetype kLongestLine = 4096;
constexpr qint64 kUnreadAnswers = 64LL * 1024;  // of a client that asks and does not listen
const char kNothing[] = "9.91E+37";             // SCPI's "not a number"

QString unquoted(QString text) {
    text = text.trimmed();
    if (text.size() >= 2 && text.front() == QLatin1Char('"') && text.back() == QLatin1Char('"'))
        text = text.mid(1, text.size() - 2);
    return text;
}

// "MEASure:VOLTage:DC?" is met by "meas:volt:dc?" and by every spelling between: capitals are the short form.
bool matches(const QString& given, const QString& pattern) {
    const QStringList a = given.split(QLatin1Char(':')), b = pattern.split(QLatin1Char(':'));
    if (a.size() != b.size()) return false;
    for (qsizetype k = 0; k < a.size(); ++k) {
        QString brief;
        for (const QChar c : b[k])
            if (!c.isLower()) brief += c;
        if (a[k].compare(brief, Qt::CaseInsensitive) != 0 && a[k].compare(b[k], Qt::CaseInsensitive) != 0)
            return false;
    }
    return true;
}

}  // namespace

BenchMeter::BenchMeter(Plan plan, const MeterSettings& settings, QObject* parent)
    : QTcpServer(parent), plan_(std::move(plan)), settings_(settings), random_(settings.seed) {
    if (settings.fault) hidden_ = std::make_unique<HiddenFault>(plan_, settings.seed, *settings.fault);
    connect(this, &QTcpServer::newConnection, this, &BenchMeter::take_connection);
}

bool BenchMeter::start(quint16 port) {
    return listen(QHostAddress::LocalHost, port);
}

void BenchMeter::take_connection() {
    while (QTcpSocket* socket = nextPendingConnection()) {
        auto session = std::make_shared<Session>();
        socket->setReadBufferSize(2 * kLongestLine);  // more waits at its sender
        const auto take = [this, socket, session] { take_lines(socket, *session); };
        connect(socket, &QTcpSocket::readyRead, this, take);
        connect(socket, &QTcpSocket::bytesWritten, this, take);
        connect(socket, &QTcpSocket::disconnected, socket, &QObject::deleteLater);
    }
}

// One line, and the next when the others had their turn: who floods the meter holds up nobody but himself.
void BenchMeter::take_lines(QTcpSocket* socket, Session& session) {
    if (session.turn_waits || socket->bytesToWrite() > kUnreadAnswers) return;
    if (!socket->canReadLine()) {
        if (socket->bytesAvailable() > kLongestLine) socket->abort();  // no line is that long
        return;
    }
    const QString reply = answer(QString::fromUtf8(socket->readLine()).trimmed(), session);
    if (!reply.isEmpty()) socket->write(reply.toUtf8() + '\n');
    session.turn_waits = true;
    QTimer::singleShot(0, socket, [this, socket, &session] {
        session.turn_waits = false;
        take_lines(socket, session);
    });
}

QString BenchMeter::answer(const QString& line, Session& session) {
    if (line.isEmpty()) return {};
    const qsizetype space = line.indexOf(QRegularExpression(QStringLiteral("\\s")));
    const QString command = space < 0 ? line : line.left(space);
    const QString argument = space < 0 ? QString() : unquoted(line.mid(space + 1));
    const auto fail_with = [&](const char* error) {
        session.error = QString::fromUtf8(error);
        return QString();
    };
    if (command == QStringLiteral("*IDN?")) return QStringLiteral("Your Rail,simulated bench meter,0,1.0");
    if (command == QStringLiteral("*RST")) {
        session.red = session.black = Terminal();
        session.error = QString::fromUtf8(kNoError);
        return {};
    }
    if (matches(command, QStringLiteral("SYSTem:ERRor?"))) {
        QString error = session.error;
        session.error = QString::fromUtf8(kNoError);
        return error;
    }
    if (matches(command, QStringLiteral("ROUTe:RED"))) return session.red = argument.toStdString(), QString();
    if (matches(command, QStringLiteral("ROUTe:BLACk")))
        return session.black = argument.toStdString(), QString();
    if (matches(command, QStringLiteral("SIMulate:DRAW")))
        return drawn_at_ = argument.toStdString(), QString();
    if (matches(command,
                QStringLiteral("SIMulate:STATE"))) {  // of the plan, by name or id; empty: the key again
        const State* s = find_state(plan_, argument.toStdString());
        if (!argument.isEmpty() && !s) return fail_with("-224,\"Illegal parameter value\"");
        probing_.state = s ? s->id : Id();
        return {};
    }
    if (matches(command, QStringLiteral("SIMulate:UNPLug"))) {  // loads by id, commas between
        probing_.unplugged.clear();
        for (const QString& id : argument.split(QLatin1Char(','), Qt::SkipEmptyParts))
            probing_.unplugged.push_back(id.trimmed().toStdString());
        return {};
    }
    if (matches(command, QStringLiteral("MEASure:RESistance?"))) return measure(session, ReadKind::ohms);
    if (!probing_.state.empty() && matches(command, QStringLiteral("MEASure:VOLTage:DC?")))
        return measure(session, ReadKind::volts);
    if (!probing_.state.empty() && matches(command, QStringLiteral("MEASure:CURRent:DC?")))
        return measure(session, ReadKind::amps);
    if (matches(command, QStringLiteral("SIMulate:KEY"))) {
        const QStringList keys{QStringLiteral("OFF"), QStringLiteral("ACCESSORY"), QStringLiteral("RUNNING"),
                               QStringLiteral("AFTER")};
        const qsizetype at = keys.indexOf(argument.toUpper());
        if (at < 0) return fail_with("-224,\"Illegal parameter value\"");
        key_ = static_cast<SurveyKey>(at);
        return {};
    }
    if (matches(command, QStringLiteral("MEASure:VOLTage:DC?"))) return measure_volts(session);
    if (matches(command, QStringLiteral("MEASure:CURRent:DC?"))) return measure_current(session);
    return fail_with("-113,\"Undefined header\"");
}

// In a state of the plan, with the hidden fault where there is one.
QString BenchMeter::measure(const Session& session, ReadKind kind) {
    Probing where = probing_;
    where.kind = kind;
    where.red = session.red, where.black = session.black;
    if (kind == ReadKind::amps) where.run = session.red.text();
    std::optional<double> value;
    if (hidden_ && hidden_->there()) {
        value = hidden_->read(where);
    } else if (kind == ReadKind::ohms) {
        value = ohms_between(plan_, where.red, where.black).value_or(1e9);
    } else {
        OperatingPointSolver solver;
        value = value_at(solve_for(plan_, where, solver), plan_, where);
        if (value) {
            const double noise =
                std::clamp(std::normal_distribution<double>(0, 1)(random_), -kNoiseBound, kNoiseBound);
            *value = *value * (1 + settings_.gain_error) +
                     noise * std::min(settings_.noise_V, 0.001 * std::abs(*value) + 1e-4);
        }
    }
    return value ? QString::number(*value, 'E', 6) : QString::fromUtf8(kNothing);
}

QString BenchMeter::measure_volts(Session& session) {
    const auto volts = read_volts(plan_, {session.red, session.black, key_, drawn_at_});
    if (!volts) {
        session.error = QStringLiteral("-200,\"No such terminal\"");
        return QString::fromUtf8(kNothing);
    }
    const double noise =
        std::clamp(std::normal_distribution<double>(0, 1)(random_), -kNoiseBound, kNoiseBound);
    const double seen = *volts * (1 + settings_.gain_error) * kInput_ohm / (kInput_ohm + settings_.lead_ohm);
    return QString::number(seen + noise * settings_.noise_V, 'E', 6);
}

// A clamp meter: the red terminal names a run.
QString BenchMeter::measure_current(Session& session) {
    State state = state_of(plan_, key_);
    const Solution s = solve(plan_, state);
    for (std::size_t k = 0; k < plan_.runs.size(); ++k)
        if (plan_.runs[k].id == session.red)
            return QString::number(s.point.conductors[k].current_A * (1 + settings_.gain_error), 'E', 6);
    session.error = QStringLiteral("-200,\"No such run\"");
    return QString::fromUtf8(kNothing);
}

}  // namespace yr::sim

#include "moc_bench_meter.cpp"
