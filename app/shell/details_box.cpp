// The fields of a control box: its limits and its channels.
#include <algorithm>
#include <cmath>

#include "control/place_on.h"
#include "shell/details_panel.h"
#include "shell/details_part.h"
#include "shell/own_library.h"

namespace yr::app {
namespace {

// "15 A, start 30 A, group A, label RADIO"
QString channel_text(const Channel& c, const PlanDocument* doc) {
    QStringList parts;
    if (c.rating_A) parts << q(words::editable(*c.rating_A, Dimension::current, doc->style()));
    if (c.peak_A)
        parts << QStringLiteral("start ") + q(words::editable(*c.peak_A, Dimension::current, doc->style()));
    if (!c.group.empty()) parts << QStringLiteral("group ") + q(c.group);
    if (!c.label.empty()) parts << QStringLiteral("label ") + q(c.label);
    return parts.join(QStringLiteral("; "));
}

// The channel with what was typed, or the sentence of what is wrong.
QString read_channel(const QString& typed, Channel& c) {
    Channel read;
    read.number = c.number;
    for (const QString& part : typed.split(QLatin1Char(';'))) {
        const QString p = part.trimmed();
        if (p.isEmpty()) continue;
        if (p.startsWith(QStringLiteral("group "), Qt::CaseInsensitive)) {
            read.group = p.mid(6).trimmed().toStdString();
        } else if (p.startsWith(QStringLiteral("label "), Qt::CaseInsensitive)) {
            read.label = p.mid(6).trimmed().toStdString();
        } else {
            const bool start = p.startsWith(QStringLiteral("start "), Qt::CaseInsensitive);
            const auto v = parse_value((start ? p.mid(6) : p).toStdString(), Dimension::current);
            if (!v || !(*v > 0))
                return QStringLiteral(
                           "Channel %1: amps are needed, such as 15 A; start 30 A; group A; label PUMP.")
                    .arg(c.number);
            (start ? read.peak_A : read.rating_A) = *v;
        }
    }
    c = read;
    return {};
}

QString groups_text(const Point& box) {
    QStringList parts;
    for (const ChannelGroup& g : box.groups)
        parts << q(g.name) + QStringLiteral(": ") + q(words::number(g.limit_A, 6));
    return parts.join(QStringLiteral(", "));
}

QString read_groups(const QString& typed, std::vector<ChannelGroup>& groups) {
    groups.clear();
    for (const QString& part : typed.split(QLatin1Char(','))) {
        if (part.trimmed().isEmpty()) continue;
        const QStringList two = part.split(QLatin1Char(':'));
        const auto v = two.size() == 2 ? parse_value(two[1].trimmed().toStdString(), Dimension::current)
                                       : Result<double>(fail(ErrorCode::empty));
        if (!v || !(*v > 0) || two[0].trimmed().isEmpty())
            return QStringLiteral("Shared limits: a name and amps each are needed, such as A: 35, B: 20.");
        groups.push_back({two[0].trimmed().toStdString(), *v});
    }
    return {};
}

}  // namespace

void fill_box(FieldForm& form, PlanDocument* doc, const Id& id) {
    const Part<Point> box{doc, &Plan::points, id};
    form.heading(QStringLiteral("Control box"));
    number_field(form, box, QStringLiteral("Main carries"), Dimension::current, &Point::main_A,
                 QStringLiteral("not said"), 0.1, 10000);
    number_field(form, box, QStringLiteral("Takes itself"), Dimension::power, &Point::standby_W,
                 QStringLiteral("nothing"), 0, 1000);
    enum_field(form, box, QStringLiteral("Outputs"),
               {{QStringLiteral("relays"), "relay"}, {QStringLiteral("solid-state"), "solid_state"}},
               &Point::output);
    form.check(
        QStringLiteral("comes back after a power loss"), [box] { return box.alive() && box.get().remembers; },
        [box](bool on) {
            box.set(on ? QStringLiteral("comes back") : QStringLiteral("stays off"),
                    [&](Point& p) { p.remembers = on; });
        });
    form.text(
        QStringLiteral("Shared limits"), [box] { return box.alive() ? groups_text(box.get()) : QString(); },
        [box](const QString& typed) {
            std::vector<ChannelGroup> groups;
            if (QString wrong = read_groups(typed, groups); !wrong.isEmpty()) return wrong;
            return box.set(QStringLiteral("shared limits"), [&](Point& p) { p.groups = groups; })
                       ? QString()
                       : QStringLiteral("A channel still belongs to a group that is gone.");
        },
        QStringLiteral("none, e.g. A: 35, B: 20"));
    form.words(QStringLiteral("Channels: amps; start amps; group; label"));
    for (const Channel& now : box.get().channels) {
        const int number = now.number;
        const auto of = [box, number]() -> const Channel* {
            if (!box.alive()) return nullptr;
            for (const Channel& c : box.get().channels)
                if (c.number == number) return &c;
            return nullptr;
        };
        form.text(
            QStringLiteral("Channel %1").arg(number),
            [of, doc] { return of() ? channel_text(*of(), doc) : QString(); },
            [of, box, number](const QString& typed) {
                if (!of()) return QString();
                Channel c = *of();
                if (QString wrong = read_channel(typed, c); !wrong.isEmpty()) return wrong;
                return box.set(QStringLiteral("channel %1").arg(number),
                               [&](Point& p) {
                                   for (Channel& x : p.channels)
                                       if (x.number == number) x = c;
                               })
                           ? QString()
                           : QStringLiteral("The box has no group of that name.");
            },
            QStringLiteral("assumed 10 A"), QString::number(number));
    }
    form.button(QStringLiteral("One channel more"), [box] {
        box.set(QStringLiteral("one channel more"), [](Point& p) {
            Channel c = p.channels.empty() ? Channel{} : p.channels.back();
            c.number = 1;
            for (const Channel& x : p.channels) c.number = std::max(c.number, x.number + 1);
            c.label.clear();
            p.channels.push_back(c);
        });
    });
    form.button(QStringLiteral("The last channel out"), [box, doc] {
        if (!box.alive() || box.get().channels.empty()) return;
        const int last = box.get().channels.back().number;
        if (run_on_channel(doc->plan(), box.id, last))
            emit doc->refused(QStringLiteral("Channel %1 is in use; move what hangs on it first.").arg(last));
        else
            box.set(QStringLiteral("channel %1 out").arg(last), [](Point& p) { p.channels.pop_back(); });
    });
    form.button(QStringLiteral("Keep in my library"), [box, doc] {
        if (!box.alive()) return;
        const QString wrong = keep_box(box.get());
        emit doc->refused(wrong.isEmpty() ? QStringLiteral("%1 is kept: it stands in Add, Control box.")
                                                .arg(q(words::capital(box.get().name)))
                                          : wrong);
    });
}

}  // namespace yr::app
