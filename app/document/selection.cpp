#include "document/selection.h"

#include <utility>

#include "document/plan_store.h"

namespace yr::app {

Selection::Selection(PlanStore* store, QObject* parent) : QObject(parent), store_(store) {
    // Told only with `edited`: until then the shown circuit is still that of the plan of before.
    connect(store_, &PlanStore::opened, this, [this] {
        untold_ = untold_ || !id_.empty();
        id_.clear();
    });
    connect(store_, &PlanStore::edited, this, [this] {
        if (std::exchange(untold_, false)) emit chosen();
    });
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

#include "moc_selection.cpp"
