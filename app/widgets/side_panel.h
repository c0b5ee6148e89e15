// What stands at the side of a workspace: a panel of one width that scrolls, filled with lines anew each
// time.
#pragma once

#include <QScrollArea>
#include <QString>
#include <QVBoxLayout>

namespace yr::app {

// A panel so wide; `column` is where its content goes. The caller puts it beside its picture.
[[nodiscard]] QScrollArea* side_panel(int width_px, QVBoxLayout*& column);

// Takes out all that stands in it; what goes is hidden at once and deleted when events come by.
void clear_lines(QVBoxLayout* lines);

// A line that is clicked, as rich text: its link is "do".
[[nodiscard]] QString act_text(const QString& text);

}  // namespace yr::app
