#include "document/plan_files.h"

#include <QFile>
#include <QFileInfo>
#include <QSaveFile>
#include <QSettings>

#include "plan/plan_json.h"
#include "text/say.h"

namespace yr::app {
namespace {
constexpr int kMostRecent = 8;
const QString kRecentKey = QStringLiteral("recent");
}  // namespace

Result<Plan> read_plan_file(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return fail(ErrorCode::unreadable_file, path.toStdString());
    const QByteArray bytes = file.readAll();
    if (file.error() != QFileDevice::NoError) return fail(ErrorCode::unreadable_file, path.toStdString());
    auto plan =
        plan_from_json_text(std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
    if (!plan) plan.error().place = QFileInfo(path).fileName().toStdString() + ", " + plan.error().place;
    return plan;
}

Result<bool> write_plan_file(const Plan& plan, const QString& path) {
    QSaveFile file(path);
    const std::string text = to_json_text(plan);
    if (!file.open(QIODevice::WriteOnly) ||
        file.write(text.data(), static_cast<qint64>(text.size())) != static_cast<qint64>(text.size()) ||
        !file.commit())
        return fail(ErrorCode::unwritable_file, path.toStdString());
    return true;
}

QStringList recent_files() {
    QStringList list = QSettings().value(kRecentKey).toStringList();
    list.removeIf([](const QString& path) { return !QFileInfo::exists(path); });
    return list;
}

void remember_recent(const QString& path) {
    QStringList list = QSettings().value(kRecentKey).toStringList();
    const QString absolute = QFileInfo(path).absoluteFilePath();
    list.removeAll(absolute);
    list.prepend(absolute);
    while (list.size() > kMostRecent) list.removeLast();
    QSettings().setValue(kRecentKey, list);
}

std::vector<DemoPlan> demo_plans() {
    return {
        {say("River-gauging truck"),
         say("A service truck with a second battery, a hoist and two boxes; some mistakes are "
             "left in it to find."),
         QStringLiteral(":/plans/river-gauging-truck.yourrail.json")},
        {say("Orchard spray buggy"), say("A small machine whose 20 A stator cannot grow."),
         QStringLiteral(":/plans/orchard-spray-buggy.yourrail.json")},
        {say("Electric litter cart"), say("A 48 V battery, a converter with a limit, and 12 V behind it."),
         QStringLiteral(":/plans/electric-litter-cart.yourrail.json")}};
}

Plan read_demo(const QString& resource) {
    auto plan = read_plan_file(resource);
    return plan ? *plan : empty_plan("New vehicle");
}

}  // namespace yr::app
