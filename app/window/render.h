// The main views of the demo drawn into PNG files: for machines without a display, and for the pictures in
// docs/.
#pragma once

#include <QSize>
#include <QString>

namespace yr::app {

enum class Pictures { all, main };  // main: the first of each workspace

struct Rendering {
    Pictures which = Pictures::all;
    QSize size{1280, 800};
    QString only;  // those whose file name holds this
    QString plan;  // this file instead of the demo where a view is of the demo's truck; empty: the demo
};

// Writes one PNG per view into `folder` (made if missing) and says so on standard output.
// Returns the process's exit code: 0, or 1 when the folder cannot be written.
int render_views(const QString& folder, const Rendering& what = {});

}  // namespace yr::app
