#include "workspaces/workspace.h"

#include <QTreeWidget>

#include "widgets/table_tools.h"

namespace yr::app {

Workspace::Workspace(Document* document, const QString& key, const QString& name, QWidget* parent)
    : QWidget(parent), document_(document), key_(key), name_(name) {
    setAccessibleName(name);
}

bool Workspace::has_view(const QString& key) const {
    for (const WorkspaceView& v : views())
        if (v.key == key) return true;
    return false;
}

void Workspace::in_state(const char* name) {
    const auto& states = document_->plan().states;
    if (const State* s = find_state(document_->plan(), name))
        document_->shown().set_state(static_cast<int>(s - states.data()));
}

Id Workspace::feed_of(const std::string& load) const {
    for (const Run& r : document_->plan().runs)
        if (r.name == load + " feed") return r.id;
    return {};
}

QString Workspace::numbers() const {
    QStringList tables;
    for (const QTreeWidget* table : findChildren<QTreeWidget*>())
        if (table->isVisible()) tables << table_text(*table);
    return tables.join(QLatin1Char('\n'));
}

}  // namespace yr::app

#include "moc_workspace.cpp"
