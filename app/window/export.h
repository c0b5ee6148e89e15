// What leaves the program from the window: pictures, tables, notes, a netlist, paper. Files are written by
// the one place that writes (files/text_file.h).
#pragma once

#include <QMenu>
#include <functional>

#include "document/document.h"
#include "workspaces/workspace.h"

namespace yr::app {

// `said` shows what went wrong, or where the file is.
void fill_export_menu(QMenu* menu, QWidget* window, Document* document, Workspace* open,
                      const std::function<void(const QString&)>& said);

// The view as it would be printed: on white, in greys.
[[nodiscard]] QImage printed(QWidget* view);

}  // namespace yr::app
