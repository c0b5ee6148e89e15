// Plans on disk for the application: open, save whole or not at all, the list of recent ones.
#pragma once

#include <QByteArray>
#include <QString>
#include <QStringList>

#include "plan/plan.h"
#include "units/result.h"

namespace yr::app {

// Failure: as plan_from_json_text(), with the file's name before the place; unreadable_file.
[[nodiscard]] Result<Plan> read_plan_file(const QString& path);

// As write_text_file(): whole or not at all.
[[nodiscard]] Result<bool> write_plan_file(const Plan& plan, const QString& path);

// What stands in a file now, to see later whether another program has changed it; empty where there is none.
[[nodiscard]] QByteArray fingerprint(const QString& path);

[[nodiscard]] QStringList recent_files();
void remember_recent(const QString& path);

struct DemoPlan {
    QString title, sentence, resource;
};
// The shipped plans: a service truck, a small machine, an electric cart.
[[nodiscard]] std::vector<DemoPlan> demo_plans();
[[nodiscard]] Plan read_demo(const QString& resource);

}  // namespace yr::app
