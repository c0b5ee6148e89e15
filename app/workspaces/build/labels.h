// Labels on paper: both ends of every cable, the fuses of each box for its lid with a code to read by a
// phone, and the panel's switches. As PDF by Qt, A4 or Letter.
#pragma once

#include <QPageSize>
#include <QString>

#include "plan/plan.h"
#include "units/result.h"

namespace yr::app {

// Failure: unwritable_file; file_exists where `over` is false.
[[nodiscard]] Result<bool> write_labels(const Plan& plan, const QString& path, QPageSize::PageSizeId page,
                                        bool over);

// What the code on a box's label says: its circuits and fuses in plain text, without any address.
[[nodiscard]] std::string box_text(const Plan& plan, const Point& box);

}  // namespace yr::app
