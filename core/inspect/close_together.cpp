#include "inspect/close_together.h"

#include <algorithm>
#include <bit>
#include <optional>
#include <set>

#include "inspect/rules.h"
#include "units/at_once.h"

namespace yr {
namespace {

// What an edit puts, takes or sets; `whole` where that is no single thing of the plan.
struct Touched {
    std::set<Id> ids;  // things, and the devices of runs
    bool whole = false;

    [[nodiscard]] bool meets(const Touched& other) const {
        return whole || other.whole ||
               std::any_of(ids.begin(), ids.end(), [&](const Id& id) { return other.ids.contains(id); });
    }
};

struct Touching {
    Touched& out;
    void operator()(const Put<Run>& put) const {
        out.ids.insert(put.thing.id);
        for (const Device& d : put.thing.devices) out.ids.insert(d.id);
    }
    void operator()(const Batch& batch) const {
        for (const Edit& e : batch.edits) std::visit(*this, static_cast<const Edit::Kinds&>(e));
    }
    template <class T>
    void operator()(const T& edit) const {
        if constexpr (requires { out.ids.insert(edit.thing.id); })
            out.ids.insert(edit.thing.id);
        else if constexpr (requires { out.ids.insert(edit.id); })
            out.ids.insert(edit.id);
        else
            out.whole = true;
    }
};

Touched touched_by(const Edit& edit) {
    Touched out;
    std::visit(Touching{out}, static_cast<const Edit::Kinds&>(edit));
    return out;
}

// A finding on its way to a mend.
struct Seeker {
    Finding* finding = nullptr;
    std::vector<Mend> candidates;
    std::size_t next = 0;    // the candidate in question
    bool suspected = false;  // something new was told of what it touches
    Touched touched;

    [[nodiscard]] bool seeks() const { return next < candidates.size(); }
    void look() {
        suspected = false;
        if (seeks()) touched = touched_by(candidates[next].edit);
    }
    void fails() {
        ++next;
        look();
    }
    // Named beside others it may be innocent: it is asked once more, beside others.
    void is_named() {
        if (suspected)
            fails();
        else
            suspected = true;
    }
};

using Group = std::vector<Seeker*>;

class Together {
  public:
    Together(const Plan& plan, const std::vector<Finding>& before, const std::atomic<bool>* cancel)
        : plan_(plan), before_(before), cancel_(cancel) {}

    void close(Group seekers) {
        while (!seekers.empty() && !cancelled()) {
            Group apart = that_touch_different_things(seekers);
            Group passed = seen_apart(judge(std::move(apart)));
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

    // Those that pass together. The others have gone on to their next candidate, or are asked again.
    Group judge(Group group) {
        while (!group.empty() && !cancelled()) {
            const auto after = with(group);
            std::vector<const Finding*> fresh;
            std::size_t left = 0;
            if (after) {
                fresh = new_or_worse(before_, *after);
                left = std::erase_if(group, [&](Seeker* s) { return stays(*s, *after) || named(*s, fresh); });
            }
            if (left) continue;
            if (after && fresh.empty()) return group;
            if (group.size() == 1) {
                group.front()->fails();
                return {};
            }
            return halves(std::move(group));
        }
        return {};
    }

    // Nobody is named: whose doing it is tells itself in the halves.
    Group halves(Group group) {
        const auto middle = group.begin() + static_cast<std::ptrdiff_t>(group.size() / 2);
        Group second(middle, group.end());
        group.erase(middle, group.end());
        Group passed = judge(std::move(group));
        for (Seeker* s : judge(std::move(second))) passed.push_back(s);
        return passed;
    }

    static bool stays(Seeker& s, const std::vector<Finding>& after) {
        if (cleared(*s.finding, after)) return false;
        s.fails();
        return true;
    }

    static bool named(Seeker& s, const std::vector<const Finding*>& fresh) {
        const bool is = std::any_of(fresh.begin(), fresh.end(), [&](const Finding* f) {
            return s.touched.ids.contains(f->id) || s.touched.ids.contains(f->other);
        });
        if (is) s.is_named();
        return is;
    }

    // Any two of those that passed together stand on different sides of one of these splits: few are asked
    // one by one, many by the bits of their number.
    static std::vector<Group> sides_of(const Group& passed) {
        std::vector<Group> sides;
        const auto bits = static_cast<std::size_t>(std::bit_width(passed.size() - 1));
        const bool few = passed.size() <= 2 * bits;
        sides.resize(few ? passed.size() : 2 * bits);
        for (std::size_t k = 0; k < passed.size(); ++k) {
            if (few) sides[k].push_back(passed[k]);
            for (std::size_t bit = 0; !few && bit < bits; ++bit)
                sides[2 * bit + ((k >> bit) & 1U)].push_back(passed[k]);
        }
        return sides;
    }

    Group seen_apart(Group passed) {
        if (passed.size() < 2) return passed;
        const std::vector<Group> sides = sides_of(passed);
        const std::vector<char> passes = pass(sides);
        std::set<Seeker*> lost;
        for (std::size_t k = 0; k < sides.size() && !cancelled(); ++k) {
            if (passes[k]) continue;
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
                passes[k] = after && new_or_worse(before_, *after).empty() &&
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
        for (const Seeker* s : group) all.edits.push_back(s->candidates[s->next].edit);
        if (!apply(changed, all)) return std::nullopt;
        return inspect(changed, false).findings;
    }

    const Plan& plan_;
    const std::vector<Finding>& before_;
    const std::atomic<bool>* cancel_;
};

}  // namespace

void close_together(const Plan& plan, std::vector<Finding>& findings, const std::atomic<bool>* cancel) {
    const std::vector<Finding> before = findings;
    std::vector<Seeker> seekers;
    for (Finding& f : findings) {
        f.mend.reset();
        if (!f.candidates.empty()) seekers.push_back({&f, std::move(f.candidates), 0, false, {}});
        f.candidates.clear();
    }
    Group all;
    for (Seeker& s : seekers) {
        s.look();
        all.push_back(&s);
    }
    Together(plan, before, cancel).close(std::move(all));
}

}  // namespace yr
