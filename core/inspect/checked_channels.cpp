#include "inspect/checked_channels.h"

#include <algorithm>
#include <set>

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

// The moves with the fuses and cables that they need: each mend of something that they would make worse is
// tried, and kept where less is worse with it.
class Fitted {
  public:
    Fitted(const Plan& plan, const std::vector<Finding>& before, const Edit& edit)
        : before_(before), given_(plan) {
        if (!yr::apply(given_, edit)) return;
        batch_.edits.push_back(edit);
        look();
    }

    void mend(CheckedChannels& out, const std::atomic<bool>* cancel) {
        for (int k = 0; k < kMostMends && !worse_.empty() && !(cancel && *cancel); ++k)
            if (!mend_one(out)) return;
    }

    [[nodiscard]] const std::vector<const Finding*>& worse() const { return worse_; }
    [[nodiscard]] const Plan& given() const { return given_; }
    [[nodiscard]] const Batch& batch() const { return batch_; }

  private:
    void look() {
        found_ = inspect_with_candidates(given_);
        worse_ = new_or_worse(before_, found_.findings);
    }

    bool mend_one(CheckedChannels& out) {
        for (const Finding* f : worse_)
            for (const Mend& m : f->candidates) {
                if (m.kind != MendKind::fuse_rating && m.kind != MendKind::fuse_type &&
                    m.kind != MendKind::size && m.kind != MendKind::two_sizes)
                    continue;
                Plan better = given_;
                if (!yr::apply(better, m.edit)) continue;
                const Inspection after = inspect(better, false);
                if (new_or_worse(before_, after.findings).size() >= worse_.size()) continue;
                out.mended.push_back(*f);
                out.mended.back().mend = m;
                batch_.edits.push_back(m.edit);
                given_ = std::move(better);
                look();
                return true;
            }
        return false;
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
