// Whatever text the window has no room for is told whole by a tool tip, wherever it stands: labels, buttons,
// fields, choices, cells and heads of tables.
#pragma once

#include <QString>
#include <QWidget>

namespace yr::app {

// For all widgets of the program, once.
void tell_whole_texts();

// What a widget shows cut at this place, whole; empty where nothing is cut.
[[nodiscard]] QString cut_text(const QWidget* widget, const QPoint& at = {});

}  // namespace yr::app
