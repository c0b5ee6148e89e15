#include "inspect/checked_channels.h"

#include <algorithm>
#include <set>

#include "inspect/close_together.h"

namespace yr {
namespace {

constexpr int kMostGivings = 40;  // of giving out anew; each refuses one place at least
constexpr int kMostMends = 24;    // fuses and cables changed with one answer

// Runs, devices, feeds and the load itself that a move touches.
bool concerns(const Plan& given, const PlacedLoad& p, const Finding& f) {
    const Run* run = supply_run(given, p.load);
    const auto is = [&](const Id& id) {
        return !id.empty() &&
               (id == p.load || (run && (id == run->id || find(run->devices, std::string_view(id)))));
    };
    return is(f.id) || is(f.other) || is(f.biggest_run);
}

bool on_its_way(const Plan& given, const PlacedLoad& p, const Finding& f) {
    if (f.id == p.feed || f.other == p.feed) return true;
    return std::any_of(given.runs.begin(), given.runs.end(), [&](const Run& r) {
        const bool told = r.id == f.id || find(r.devices, std::string_view(f.id)) ||
                          find(r.devices, std::string_view(f.other));
        return told && (r.to.owner == p.feed || r.from.owner == p.feed);
    });
}

// Which of the moves are to be taken back: those that a finding is about, else the largest of those to where
// it is, else all.
std::set<std::pair<Id, Id>> to_blame(const Plan& given, const Assignment& a,
                                     const std::vector<const Finding*>& worse) {
    std::set<std::pair<Id, Id>> named, all;
    const PlacedLoad* near = nullptr;
    for (const PlacedLoad& p : a.placed) {
        if (!p.moved) continue;
        all.insert({p.load, p.feed});
        for (const Finding* f : worse) {
            if (concerns(given, p, *f)) named.insert({p.load, p.feed});
            if (on_its_way(given, p, *f) && (!near || p.amps > near->amps)) near = &p;
        }
    }
    if (!named.empty()) return named;
    return near ? std::set<std::pair<Id, Id>>{{near->load, near->feed}} : all;
}

bool is_fuse_or_cable(const Mend& m) {
    return m.kind == MendKind::fuse_rating || m.kind == MendKind::fuse_type || m.kind == MendKind::size ||
           m.kind == MendKind::two_sizes || m.kind == MendKind::side_by_side;
}

// The moves with the fuses and cables that they need: mends of what they would make worse, kept where less is
// worse with them.
class Fitted {
  public:
    Fitted(const Plan& plan, const std::vector<Finding>& before, const Edit& edit)
        : before_(before), given_(plan) {
        if (!yr::apply(given_, edit)) return;
        batch_.edits.push_back(edit);
        look(inspect(given_, false));
    }

    void mend(CheckedChannels& out, const std::atomic<bool>* cancel) {
        for (int k = 0; k < kMostMends && !worse_.empty() && !(cancel && *cancel); ++k) {
            Inspection asked = inspect_with_candidates(given_, &worse_);
            const auto worse = new_or_worse(before_, asked.findings);
            const std::set<const Finding*> wanted(worse.begin(), worse.end());
            for (Finding& f : asked.findings) {
                if (!wanted.contains(&f)) f.candidates.clear();
                std::erase_if(f.candidates, [](const Mend& m) { return !is_fuse_or_cable(m); });
            }
            if (!mend_all(asked, out, cancel) && !mend_one(asked, out)) return;
        }
    }

    [[nodiscard]] const std::vector<const Finding*>& worse() const { return worse_; }
    [[nodiscard]] const Plan& given() const { return given_; }
    [[nodiscard]] const Batch& batch() const { return batch_; }

  private:
    void look(Inspection found) {
        found_ = std::move(found);
        worse_ = new_or_worse(before_, found_.findings);
    }

    // Kept where less is worse with it.
    bool keep(const Edit& edit, const std::vector<Finding>& mended, CheckedChannels& out) {
        Plan better = given_;
        if (!yr::apply(better, edit)) return false;
        Inspection after = inspect(better, false);
        if (new_or_worse(before_, after.findings).size() >= worse_.size()) return false;
        out.mended.insert(out.mended.end(), mended.begin(), mended.end());
        batch_.edits.push_back(edit);
        given_ = std::move(better);
        look(std::move(after));
        return true;
    }

    bool mend_one(const Inspection& asked, CheckedChannels& out) {
        for (const Finding& f : asked.findings)
            for (const Mend& m : f.candidates) {
                Finding mended = f;
                mended.mend = m;
                if (keep(m.edit, {mended}, out)) return true;
            }
        return false;
    }

    // Those that close, all at once.
    bool mend_all(Inspection asked, CheckedChannels& out, const std::atomic<bool>* cancel) {
        close_together(given_, asked, cancel);
        Batch all;
        std::vector<Finding> mended;
        for (const Finding& f : asked.findings)
            if (f.mend) all.edits.push_back(f.mend->edit), mended.push_back(f);
        return !mended.empty() && keep(all, mended, out);
    }

    const std::vector<Finding>& before_;
    Plan given_;
    Batch batch_;
    Inspection found_;
    std::vector<const Finding*> worse_;
};

}  // namespace

CheckedChannels assign_checked(const Plan& plan, const AssignAsk& ask) {
    CheckedChannels out;
    AssignAsk now = ask;
    std::vector<Finding> before;
    for (int round = 0; round < kMostGivings; ++round) {
        out.assignment = assign_loads(plan, now);
        Assignment& a = out.assignment;
        const bool moves =
            std::any_of(a.placed.begin(), a.placed.end(), [](const auto& p) { return p.moved; });
        if (!a.feasible && a.known && !out.refused.empty()) break;  // impossible only beside what was refused
        if (!a.known || !a.feasible || !moves) return out;
        if (before.empty()) before = inspect(plan, false).findings;
        out.mended.clear();
        Fitted fitted(plan, before, a.edit);
        fitted.mend(out, ask.cancel);
        if (ask.cancel && *ask.cancel) break;
        if (fitted.worse().empty()) {
            a.edit = fitted.batch();
            return out;
        }
        out.against.push_back(*fitted.worse().front());
        for (const auto& place : to_blame(fitted.given(), a, fitted.worse())) {
            now.refused.insert(place);
            out.refused.push_back(place);
        }
    }
    if (!(ask.cancel && *ask.cancel)) {  // nothing that was tried is as good as leaving all where it is
        for (const PlacedLoad& p : out.assignment.placed)
            for (const Point& feed : plan.points) now.refused.insert({p.load, feed.id});
        out.assignment = assign_loads(plan, now);
        out.assignment.known = out.assignment.feasible;
        out.mended.clear();
        return out;
    }
    out.assignment.known = false;
    return out;
}

}  // namespace yr
