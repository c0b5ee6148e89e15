#include "widgets/side_panel.h"

#include <QTimer>

#include "widgets/tokens.h"

namespace yr::app {

QScrollArea* side_panel(int width_px, QVBoxLayout*& column) {
    auto* side = new QScrollArea;
    side->setObjectName(QStringLiteral("panel"));
    side->setWidgetResizable(true);
    side->setFrameShape(QFrame::NoFrame);
    side->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    side->setFixedWidth(width_px);
    auto* inside = new QWidget;
    inside->setObjectName(QStringLiteral("panel"));
    column = new QVBoxLayout(inside);
    column->setContentsMargins(16, 10, 12, 12);
    side->setWidget(inside);
    return side;
}

void clear_lines(QVBoxLayout* lines) {
    while (QLayoutItem* item = lines->takeAt(0)) {
        if (item->widget()) item->widget()->hide(), item->widget()->deleteLater();
        delete item;
    }
    // New lines are shown one by one behind the caller: until all stand in their places nothing is painted,
    // or they flash squeezed into the room that was there.
    if (QWidget* panel = lines->parentWidget(); panel && panel->isVisible() && panel->updatesEnabled()) {
        panel->setUpdatesEnabled(false);
        QTimer::singleShot(0, panel, [panel] { panel->setUpdatesEnabled(true); });
    }
}

QString act_text(const QString& text) {
    return QStringLiteral("<a href='do' style='color:%1; text-decoration:none'><b>%2</b></a>")
        .arg(tokens().supply[0].name(), text.toHtmlEscaped());
}

}  // namespace yr::app
