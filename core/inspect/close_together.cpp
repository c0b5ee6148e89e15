#include "inspect/close_together.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <memory>
#include <optional>
#include <set>
#include <unordered_map>

#include "inspect/rules.h"
#include "units/at_once.h"

namespace yr {
namespace {

// What an edit puts, takes or sets; `whole` where that is no single thing of the plan.
struct Touched {
    std::map<Id, const Run*> ids;  // things, and the devices of runs; with the run as it is put
    bool whole = false;

    // Two edits that put the same run alike do not meet in it: ten loads may ask for the same thicker feed.
    [[nodiscard]] bool meets(const Touched& other) const {
        return whole || other.whole || std::any_of(ids.begin(), ids.end(), [&](const auto& mine) {
                   const auto theirs = other.ids.find(mine.first);
                   if (theirs == other.ids.end()) return false;
                   return !mine.second || !theirs->second || !(*mine.second == *theirs->second);
               });
    }
};

struct Touching {
    Touched& out;
    void operator()(const Put<Run>& put) const {
        out.ids.emplace(put.thing.id, &put.thing);
        for (const Device& d : put.thing.devices) out.ids.emplace(d.id, &put.thing);
    }
    void operator()(const Batch& batch) const {
        for (const Edit& e : batch.edits) std::visit(*this, static_cast<const Edit::Kinds&>(e));
    }
    template <class T>
    void operator()(const T& edit) const {
        if constexpr (requires { out.ids.emplace(edit.thing.id, nullptr); })
            out.ids.emplace(edit.thing.id, nullptr);
        else if constexpr (requires { out.ids.emplace(edit.id, nullptr); })
            out.ids.emplace(edit.id, nullptr);
        else
            out.whole = true;
    }
};

Touched touched_by(const Edit& edit) {
    Touched out;
    std::visit(Touching{out}, static_cast<const Edit::Kinds&>(edit));
    return out;
}

// Whether an edit leaves every run where it ran, with the switches that it had: then it is told by size and
// fuses which shorts it may move.
bool keeps_the_circuit(const Plan& plan, const Edit& edit) {
    if (const auto* all = std::get_if<Batch>(&edit))
        return std::all_of(all->edits.begin(), all->edits.end(),
                           [&](const Edit& e) { return keeps_the_circuit(plan, e); });
    const auto* put = std::get_if<Put<Run>>(&edit);
    const Run* was = put ? find(plan.runs, put->thing.id) : nullptr;
    if (!was || was->from != put->thing.from || was->to != put->thing.to) return false;
    const auto others = [](const Run& r) {
        std::vector<Device> out;
        for (const Device& d : r.devices)
            if (d.kind != DeviceKind::fuse) out.push_back(d);
        return out;
    };
    return others(*was) == others(put->thing);
}

// A finding on its way to a mend.
struct Seeker {
    Finding* finding = nullptr;
    std::vector<Mend> candidates;
    std::size_t next = 0;  // the candidate in question
    Touched touched;
    std::size_t part = 0;  // of the plan, in which what it touches lies

    [[nodiscard]] bool seeks() const { return next < candidates.size(); }
    [[nodiscard]] const Edit& edit() const { return candidates[next].edit; }
    void look() {
        if (seeks()) touched = touched_by(edit());
    }
    void fails() {
        ++next;
        look();
    }
};

using Group = std::vector<Seeker*>;

// Runs, their devices and what stands at their ends, each beside the other.
class Nearness {
  public:
    explicit Nearness(const Plan& plan) {
        for (const Run& r : plan.runs) {
            join(r.id, r.from.owner);
            join(r.id, r.to.owner);
            for (const Device& d : r.devices) join(r.id, d.id);
        }
    }

    // Gives seekers the same part where what they touch is joined by anything but a battery, a source or the
    // chassis: there one could stand in for another.
    void part(const Plan& plan, const Group& group) const {
        std::set<Id> hubs;
        for (const Battery& b : plan.batteries) hubs.insert(b.id);
        for (const Source& s : plan.sources) hubs.insert(s.id);
        for (const Point& p : plan.points)
            if (p.kind == PointKind::chassis || p.kind == PointKind::ground) hubs.insert(p.id);
        std::size_t parts = 0;
        for (Seeker* s : group) s->part = 0;
        for (Seeker* s : group) {
            if (s->part) continue;
            s->part = ++parts;
            std::set<Id> seen = hubs;
            std::vector<Id> ring;
            const auto reach = [&](const Seeker& other) {
                for (const auto& [id, run] : other.touched.ids)
                    if (seen.insert(id).second) ring.push_back(id);
            };
            for (reach(*s); !ring.empty(); ring = around(ring, seen))
                for (Seeker* other : group)
                    if (!other->part && std::any_of(ring.begin(), ring.end(), [&](const Id& id) {
                            return other->touched.ids.contains(id);
                        }))
                        other->part = parts;
        }
    }

    // Those of a group that touch something as near as any of them to one of these.
    [[nodiscard]] Group nearest(const Group& group, const std::vector<Id>& from) const {
        std::vector<Id> ring = from;
        std::set<Id> seen(from.begin(), from.end());
        while (!ring.empty()) {
            Group found;
            for (Seeker* s : group)
                if (std::any_of(ring.begin(), ring.end(),
                                [&](const Id& id) { return s->touched.ids.contains(id); }))
                    found.push_back(s);
            if (!found.empty()) return found;
            ring = around(ring, seen);
        }
        return {};
    }

  private:
    void join(const Id& a, const Id& b) {
        beside_[a].push_back(b);
        beside_[b].push_back(a);
    }
    [[nodiscard]] std::vector<Id> around(const std::vector<Id>& ring, std::set<Id>& seen) const {
        std::vector<Id> out;
        for (const Id& id : ring)
            if (const auto found = beside_.find(id); found != beside_.end())
                for (const Id& next : found->second)
                    if (seen.insert(next).second) out.push_back(next);
        return out;
    }

    std::unordered_map<Id, std::vector<Id>> beside_;
};

std::vector<char> told_unguarded(const Plan& plan, const std::vector<Finding>& findings) {
    std::set<Id> told;
    for (const Finding& f : findings)
        if (f.kind == FindingKind::guards_not) told.insert(f.id);
    std::vector<char> out;
    for (const Run& r : plan.runs) out.push_back(told.contains(r.id));
    return out;
}

class Together {
  public:
    Together(const Plan& plan, const std::vector<Finding>& before, const Inspection& of,
             const std::atomic<bool>* cancel)
        : plan_(plan),
          before_(before),
          shorts_(of.shorts ? of.shorts
                            : std::make_shared<const KnownShorts>(known_shorts(plan, of.solutions))),
          demand_(demand_of(plan, of.solutions)),
          unguarded_(told_unguarded(plan, before)),
          cancel_(cancel),
          near_(plan) {}

    void close(Group seekers) {
        while (!seekers.empty() && !cancelled()) {
            Group apart = that_touch_different_things(seekers);
            Group passed = seen_apart(judge(std::move(apart)));
            wholly_ = true;  // what is offered has passed with every short asked anew
            passed = judge(std::move(passed));
            wholly_ = false;
            if (cancelled()) return;
            for (Seeker* s : passed) s->finding->mend = std::move(s->candidates[s->next]);
            std::erase_if(seekers, [](const Seeker* s) { return s->finding->mend || !s->seeks(); });
        }
    }

  private:
    [[nodiscard]] bool cancelled() const { return cancel_ && *cancel_; }

    static Group that_touch_different_things(const Group& seekers) {
        Group out;
        Touched all;
        for (Seeker* s : seekers) {
            if (s->touched.whole ? !out.empty() : all.meets(s->touched)) continue;
            out.push_back(s);
            all.ids.insert(s->touched.ids.begin(), s->touched.ids.end());
            if (s->touched.whole) break;
        }
        return out;
    }

    // Those that pass. The others have gone on to their next candidate.
    Group judge(Group group) {
        Group suspects;
        while (group.size() > 1 && !cancelled()) {
            const auto after = with(group);
            if (!after) return joined(halves(std::move(group)), alone(std::move(suspects)));
            if (!refused(group, *after, suspects)) break;
        }
        if (group.size() == 1) suspects.push_back(group.back()), group.clear();
        return joined(std::move(group), alone(std::move(suspects)));
    }

    static Group joined(Group a, const Group& b) {
        a.insert(a.end(), b.begin(), b.end());
        return a;
    }

    // Each by itself.
    Group alone(Group group) {
        std::vector<Group> each;
        for (Seeker* s : group) each.push_back({s});
        const std::vector<char> passes = pass(each);
        if (cancelled()) return {};
        Group passed;
        for (std::size_t k = 0; k < group.size(); ++k)
            if (passes[k])
                passed.push_back(group[k]);
            else
                group[k]->fails();
        return passed;
    }

    // Takes those out of the group whose finding is told all the same: they fail; and those to whom something
    // new is nearest: they are to be asked alone. False: there are none, and all pass.
    bool refused(Group& group, const std::vector<Finding>& after, Group& suspects) const {
        const auto fresh = harm_of_mend(before_, after);
        std::set<Seeker*> out;
        for (Seeker* s : group)
            if (!cleared(*s->finding, after)) out.insert(s);
        const std::set<Seeker*> failed = out;
        for (const Finding* f : fresh)
            for (Seeker* s : near_.nearest(group, {f->id, f->other})) out.insert(s);
        if (out.empty() && !fresh.empty()) out.insert(group.back());  // it tells itself without one of them
        for (Seeker* s : out)
            if (failed.contains(s))
                s->fails();
            else
                suspects.push_back(s);
        std::erase_if(group, [&](Seeker* s) { return out.contains(s); });
        return !out.empty();
    }

    // Together they are no plan: whose doing it is tells itself in the halves.
    Group halves(Group group) {
        const auto middle = group.begin() + static_cast<std::ptrdiff_t>(group.size() / 2);
        Group second(middle, group.end());
        group.erase(middle, group.end());
        Group passed = judge(std::move(group));
        return joined(std::move(passed), judge(std::move(second)));
    }

    // A few are asked one by one. Of many, each twice among a few of its part of the plan, other ones each
    // time: by the two digits of its number there; and every second part by itself.
    [[nodiscard]] std::vector<Group> sides_of(const Group& passed) const {
        constexpr std::size_t kFew = 24;
        near_.part(plan_, passed);
        std::map<std::size_t, std::size_t> in_part;
        std::vector<std::size_t> number;
        std::size_t most = 0;
        for (const Seeker* s : passed) most = std::max(most, number.emplace_back(in_part[s->part]++) + 1);
        const auto digits = static_cast<std::size_t>(std::ceil(std::sqrt(static_cast<double>(most))));
        const bool few = passed.size() <= std::max(kFew, 2 * digits);
        std::vector<Group> sides(few ? passed.size() : 2 * digits + 2);
        for (std::size_t k = 0; k < passed.size(); ++k) {
            if (few) {
                sides[k].push_back(passed[k]);
                continue;
            }
            sides[number[k] % digits].push_back(passed[k]);
            sides[digits + number[k] / digits].push_back(passed[k]);
            sides[2 * digits + (passed[k]->part & 1U)].push_back(passed[k]);
        }
        std::erase_if(sides, [](const Group& side) { return side.empty(); });
        return sides;
    }

    Group seen_apart(Group passed) {
        if (passed.size() < 2) return passed;
        const std::vector<Group> sides = sides_of(passed);
        const std::vector<char> passes = pass(sides);
        std::set<Seeker*> lost;
        for (std::size_t k = 0; k < sides.size() && !cancelled(); ++k) {
            if (passes[k]) continue;
            if (sides[k].size() == 1) {  // it was asked by itself
                if (lost.insert(sides[k].front()).second) sides[k].front()->fails();
                continue;
            }
            Group asked = sides[k];
            std::erase_if(asked, [&](Seeker* s) { return lost.contains(s); });
            const Group still = judge(asked);
            for (Seeker* s : asked)
                if (std::find(still.begin(), still.end(), s) == still.end()) lost.insert(s);
        }
        std::erase_if(passed, [&](Seeker* s) { return lost.contains(s); });
        return passed;
    }

    // Which groups pass as they are.
    [[nodiscard]] std::vector<char> pass(const std::vector<Group>& groups) const {
        std::vector<char> passes(groups.size(), 0);
        at_once(
            groups.size(),
            [&](std::size_t k) {
                const auto after = with(groups[k]);
                passes[k] = after && harm_of_mend(before_, *after).empty() &&
                            std::all_of(groups[k].begin(), groups[k].end(),
                                        [&](const Seeker* s) { return cleared(*s->finding, *after); });
            },
            cancel_);
        return passes;
    }

    // What is told of the plan with all of them; nothing where it is no plan any more.
    [[nodiscard]] std::optional<std::vector<Finding>> with(const Group& group) const {
        Plan changed = plan_;
        Batch all;
        for (const Seeker* s : group) all.edits.push_back(s->edit());
        if (!apply(changed, all)) return std::nullopt;
        if (wholly_ || !keeps_the_circuit(plan_, all)) return inspect(changed, false).findings;
        NearPlan near{*shorts_, demand_, std::vector<char>(plan_.runs.size(), 0), unguarded_};
        for (std::size_t k = 0; k < plan_.runs.size(); ++k)
            near.changed[k] = !(plan_.runs[k] == changed.runs[k]);
        return findings_near(changed, near);
    }

    const Plan& plan_;
    const std::vector<Finding>& before_;
    const std::shared_ptr<const KnownShorts> shorts_;
    const std::vector<RunDemand> demand_;
    const std::vector<char> unguarded_;
    const std::atomic<bool>* cancel_;
    Nearness near_;
    bool wholly_ = false;  // every short anew
};

}  // namespace

void close_together(const Plan& plan, Inspection& inspection, const std::atomic<bool>* cancel) {
    const std::vector<Finding> before = inspection.findings;
    std::vector<Seeker> seekers;
    for (Finding& f : inspection.findings) {
        f.mend.reset();
        if (!f.candidates.empty()) seekers.push_back({&f, std::move(f.candidates), 0, {}, 0});
        f.candidates.clear();
    }
    Group all;
    for (Seeker& s : seekers) {
        s.look();
        all.push_back(&s);
    }
    Together(plan, before, inspection, cancel).close(std::move(all));
    inspection.shorts.reset();
}

}  // namespace yr
