// The dossier of a job as one PDF: who built it, and who will ever repair it, needs nothing else. Black on
// white; every page with the plan's name, date, fingerprint and number.
#pragma once

#include <QPageSize>
#include <QString>

#include "plan/plan.h"
#include "units/result.h"

namespace yr::app {

// Short hash of the plan as it is saved, so that paper and file can be matched.
[[nodiscard]] QString fingerprint(const Plan& plan);

// `plan_path`: its record beside it is printed as well. How many pages were written. Failure:
// unwritable_file; unreadable_file "dot" where the diagram cannot be drawn.
[[nodiscard]] Result<int> write_dossier(const Plan& plan, const QString& path, QPageSize::PageSizeId page,
                                        const QString& plan_path = {});

}  // namespace yr::app
