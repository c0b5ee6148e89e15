// Plans on disk for the application: open, save whole or not at all, the list of recent ones.
#pragma once

#include <QString>
#include <QStringList>

#include "plan/plan.h"
#include "units/result.h"

namespace yr::app {

// Failure: as plan_from_json_text(), with the file's name before the place; unreadable_file.
[[nodiscard]] Result<Plan> read_plan_file(const QString& path);

// Writes through a temporary file and a rename. Failure: unwritable_file, and the old file stays whole.
[[nodiscard]] Result<bool> write_plan_file(const Plan& plan, const QString& path);

[[nodiscard]] QStringList recent_files();
void remember_recent(const QString& path);

struct DemoPlan {
    QString title, sentence, resource;
};
// The shipped plans: a service truck, a small machine, an electric cart.
[[nodiscard]] std::vector<DemoPlan> demo_plans();
[[nodiscard]] Plan read_demo(const QString& resource);

}  // namespace yr::app
