#include "workspaces/empty/empty_workspace.h"

#include <QLabel>
#include <QVBoxLayout>

namespace yr::app {

EmptyWorkspace::EmptyWorkspace(Document* document)
    : Workspace(document, QStringLiteral("empty"), QStringLiteral("Empty"), nullptr) {
    auto* column = new QVBoxLayout(this);
    column->addWidget(new QLabel(QStringLiteral("nothing yet")));
}

}  // namespace yr::app
