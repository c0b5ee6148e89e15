#include "document/selection.h"

#include "document/plan_store.h"

namespace yr::app {

Selection::Selection(PlanStore* store, QObject* parent) : QObject(parent), store_(store) {
    connect(store_, &PlanStore::opened, this, [this] { choose({}); });
}

void Selection::choose(const Id& thing) {
    Id id = thing;
    for (const Run& r : store_->plan().runs)
        if (yr::find(r.devices, thing)) id = r.id;
    if (id == id_) return;
    id_ = id;
    emit chosen();
}

}  // namespace yr::app
