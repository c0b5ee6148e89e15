// The main views of the demo drawn into PNG files: for machines without a display, and for the pictures in
// docs/.
#pragma once

#include <QString>

namespace yr::app {

// Writes one 1280x800 PNG per view into `folder` (made if missing) and says so on standard output.
// Returns the process's exit code: 0, or 1 when the folder cannot be written.
enum class Pictures { all, main };  // main: the first of each workspace
int render_views(const QString& folder, Pictures which = Pictures::all);

}  // namespace yr::app
