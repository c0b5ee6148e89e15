#include "document/document.h"

#include "control/hang_on.h"
#include "control/place_on.h"
#include "words/control_words.h"
#include "words/sentences.h"

namespace yr::app {

Document::Document(QObject* parent)
    : QObject(parent), shown_(&store_, nullptr), selection_(&store_), inspector_(&store_) {}

namespace {

// The other way of a load's circuit, where both are of one size and it may be changed: what is stepped
// together.
const Run* other_way(const Plan& plan, const Run& run) {
    const bool there = run.to.post == Post::pos && yr::find(plan.loads, run.to.owner);
    const bool back = run.from.post == Post::neg && yr::find(plan.loads, run.from.owner);
    if (!there && !back) return nullptr;
    for (const Run& r : plan.runs) {
        const bool partner = there ? r.from == neg_of(run.to.owner) : r.to == pos_of(run.from.owner);
        if (partner && r.size == run.size && r.size && !r.pinned && !r.body_metal && !r.resistance_ohm)
            return &r;
    }
    return nullptr;
}

}  // namespace

bool Document::step_run(const Id& id, int steps, bool alone) {
    const Run* run = yr::find(plan().runs, id);
    if (!run) return false;
    if (run->body_metal || run->resistance_ohm) {
        store_.refuse(say("%1 has a given resistance, not a size.").arg(q(words::capital(run->name))));
        return false;
    }
    Run thicker = *run;
    const WireSize now = run->size.value_or(WireSize::awg(14));
    thicker.size = step_size(now, steps);
    if (*thicker.size == now && run->size) {
        store_.refuse(
            (steps > 0 ? say("%1 is already the thickest size.") : say("%1 is already the thinnest size."))
                .arg(q(words::capital(run->name))));
        return false;
    }
    Batch both{{Put<Run>{thicker, {}}}};
    if (const Run* partner = alone ? nullptr : other_way(plan(), *run)) {
        Run same = *partner;
        same.size = thicker.size;
        both.edits.emplace_back(Put<Run>{same, {}});
    }
    return apply(both, say("%1 to %2").arg(q(run->name), q(yr::name_of(*thicker.size))), q("size " + id));
}

bool Document::move_load(const Id& load, const Id& feed) {
    return put_load(load, feed, 0);
}

bool Document::put_load(const Id& load_id, const Id& feed, int channel) {
    const Load* load = yr::find(plan().loads, load_id);
    const Point* point = yr::find(plan().points, feed);
    const Run* now = load ? supply_run(plan(), load_id) : nullptr;
    if (!load || !point || !now) return false;
    if (now->from == feed && (now->channel == channel || channel == 0)) return false;
    if (channel == 0 && !point->channels.empty()) {
        channel = fitting_channel(plan(), *point, nominal_A(plan(), *load), start_A(plan(), *load));
        if (channel == 0) {
            store_.refuse(say("%1 has no free channel that carries %2 and its start.")
                              .arg(q(words::capital(point->name)), q(load->name)));
            return false;
        }
    }
    const auto edit = swap_onto(plan(), load_id, feed, channel);
    if (!edit) {
        store_.refuse(q(words::sentence(edit.error())));
        return false;
    }
    return apply(*edit, say("%1 to %2").arg(q(load->name), q(words::place_text(plan(), feed, channel))));
}

bool Document::hang(const Id& thing, const Terminal& supply) {
    const auto edit = hang_on(plan(), thing, supply);
    if (!edit) {
        store_.refuse(q(words::sentence(edit.error())));
        return false;
    }
    return apply(
        *edit, say("%1 fed from %2").arg(q(yr::name_of(plan(), thing)), q(words::terminal(plan(), supply))));
}

}  // namespace yr::app

#include "moc_document.cpp"
