// Which fuses are a load's own, and on which its supply rests at all: for the search of sneak paths.
#include <algorithm>
#include <map>
#include <queue>
#include <set>
#include <string_view>
#include <unordered_set>

#include "control/feed_tree.h"
#include "inspect/sneak.h"

namespace yr {
namespace {

constexpr int kMostDeep = 4;  // relays that switch relays, converters behind converters

// Cables of the supply as a graph: what is joined to a battery or source when all contacts are closed. A way
// through another load is none: what comes that way is what is searched for.
class SupplyWays {
  public:
    explicit SupplyWays(const Plan& plan) : plan_(plan) {
        for (const Run& r : plan.runs) {
            if (r.body_metal) continue;
            at_[r.from].push_back(&r);
            at_[r.to].push_back(&r);
        }
    }

    // Whether the load is fed with that run taken out.
    [[nodiscard]] bool fed_without(const Load& load, const Run& without) const {
        std::set<Terminal> seen{pos_of(load.id)};
        std::queue<Terminal> open;
        open.push(pos_of(load.id));
        while (!open.empty()) {
            const Terminal node = open.front();
            open.pop();
            if (feeds(node)) return true;
            if (!(node == pos_of(load.id)) && find(plan_.loads, node.owner)) continue;
            const auto runs = at_.find(node);
            if (runs == at_.end()) continue;
            for (const Run* r : runs->second) {
                if (r->id == without.id) continue;
                const Terminal& next = r->from == node ? r->to : r->from;
                if (seen.insert(next).second) open.push(next);
                if (const Terminal in = in_of(next.owner);  // through a converter
                    next == out_of(next.owner) && at_.contains(in) && seen.insert(in).second)
                    open.push(in);
            }
        }
        return false;
    }

  private:
    // A battery's positive post, or a source that takes its watts from elsewhere than this network.
    [[nodiscard]] bool feeds(const Terminal& node) const {
        if (find(plan_.batteries, node.owner)) return node == pos_of(node.owner);
        const Source* s = find(plan_.sources, node.owner);
        return s && node == out_of(s->id) &&
               std::none_of(plan_.runs.begin(), plan_.runs.end(),
                            [&](const Run& r) { return r.to == in_of(s->id) || r.from == in_of(s->id); });
    }

    const Plan& plan_;
    std::map<Terminal, std::vector<const Run*>> at_;
};

class FuseFinder {
  public:
    FuseFinder(const Plan& plan, bool needed_only)
        : plan_(plan), needed_only_(needed_only), paths_(feed_paths(plan)), ways_(plan) {}

    std::vector<Id> of(const Load& load) {
        add(load, 0);
        return std::move(fuses_);
    }

  private:
    // Its supply run and those on the way from the battery, on through converters.
    std::vector<const Run*> way_to(const Run& supply) const {
        std::vector<const Run*> runs{&supply};
        Terminal from = supply.from;
        for (int hop = 0; hop < kMostDeep; ++hop) {
            const auto path = paths_.find(owner_of(from));
            if (path == paths_.end()) break;
            for (const Id& id : path->second.runs) runs.push_back(find(plan_.runs, id));
            const Terminal in = in_of(path->second.root);
            const auto input = std::find_if(plan_.runs.begin(), plan_.runs.end(),
                                            [&](const Run& r) { return r.to == in || r.from == in; });
            if (input == plan_.runs.end()) break;
            runs.push_back(&*input);
            from = input->to == in ? input->from : input->to;
        }
        return runs;
    }

    void add(const Load& load, int depth) {
        const Run* supply = supply_run(plan_, load.id);
        if (!supply || depth > kMostDeep) return;
        const auto add_load = [&](const Id& id) {
            if (const Load* other = find(plan_.loads, id); other && other->id != load.id)
                add(*other, depth + 1);
        };
        for (const Run* r : way_to(*supply)) {
            // another feed is meant there: with this one's fuse out it runs on that
            if (needed_only_ && ways_.fed_without(load, *r)) continue;
            for (const Device& d : r->devices) {
                if (d.kind == DeviceKind::fuse) fuses_.push_back(d.id);
                if (!d.coil.empty()) add_load(d.coil);
                for (const Id& id : d.closed_when.circuits) add_load(id);
            }
        }
        for (const Id& id : load.live_when.circuits) add_load(id);
    }

    const Plan& plan_;
    bool needed_only_;
    std::map<Id, FeedPath> paths_;
    SupplyWays ways_;
    std::vector<Id> fuses_;
};

}  // namespace

std::vector<Id> own_fuses(const Plan& plan, const Load& load) {
    return FuseFinder(plan, true).of(load);
}

std::vector<Id> fuses_it_rests_on(const Plan& plan, const Load& load) {
    std::vector<Id> fuses = FuseFinder(plan, false).of(load);
    std::unordered_set<std::string_view> loads;
    for (const Load& l : plan.loads) loads.insert(l.id);
    std::unordered_set<Id> known(fuses.begin(), fuses.end());
    for (const Run& r : plan.runs) {  // and every trunk: what it takes away is no sneak path
        const bool trunk = !loads.contains(r.to.owner) && !loads.contains(r.from.owner);
        if (!trunk && !(r.to == pos_of(load.id)) && !(r.from == pos_of(load.id))) continue;
        for (const Device& d : r.devices)
            if (d.kind == DeviceKind::fuse && known.insert(d.id).second) fuses.push_back(d.id);
    }
    return fuses;
}

}  // namespace yr
