#include "document/plan_files.h"

#include <QCryptographicHash>
#include <QFile>
#include <QFileInfo>
#include <QSettings>

#include "plan/plan_json.h"
#include "text/say.h"

namespace yr::app {
namespace {
constexpr int kMostRecent = 8;
const QString kRecentKey = QStringLiteral("recent");
}  // namespace

Result<Plan> read_plan_file(const QString& path) {
    Result<std::string> text = [&]() -> Result<std::string> {
        if (!path.startsWith(QLatin1Char(':'))) return read_text_file(path.toStdString());
        QFile shipped(path);  // inside the program
        if (!shipped.open(QIODevice::ReadOnly)) return fail(ErrorCode::unreadable_file, path.toStdString());
        return shipped.readAll().toStdString();
    }();
    if (!text) return tl::unexpected(text.error());
    auto plan = plan_from_json_text(*text);
    if (!plan) plan.error().place = QFileInfo(path).fileName().toStdString() + ", " + plan.error().place;
    return plan;
}

Result<bool> write_plan_file(const Plan& plan, const QString& path) {
    return save_plan(plan, path.toStdString(), Overwrite::yes);
}

QByteArray fingerprint(const QString& path) {
    QFile file(path);
    QCryptographicHash hash(QCryptographicHash::Sha256);
    if (!file.open(QIODevice::ReadOnly) || !hash.addData(&file)) return {};
    return hash.result();
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
