// Advice is closed: what is offered clears its finding and makes no new stop or fix anywhere.
#include <algorithm>
#include <map>
#include <set>

#include "inspect/close_together.h"
#include "inspect/rules.h"
#include "units/at_once.h"

namespace yr {
namespace {

constexpr double kWorse = 1.02;  // of a finding that was there before

using Told = std::tuple<FindingKind, Id, std::string>;

// Of these `other` is whatever is worst there just now: the same cable burns, whichever fuse lets it.
bool told_by_the_worst(FindingKind kind) {
    return kind == FindingKind::short_hurts || kind == FindingKind::short_stays ||
           kind == FindingKind::demand_over || kind == FindingKind::alive_with_master_open;
}

Told place_of(const Finding& f) {
    return {f.kind, f.id, told_by_the_worst(f.kind) ? std::string() : f.other};
}

double excess(const Finding& f) {
    return f.limit > 0 ? f.value / f.limit : f.value;
}

struct Before {
    std::map<Told, const Finding*> findings;
    std::set<Id> unfused;  // runs whose shorts nothing stops
    explicit Before(const std::vector<Finding>& list) {
        for (const Finding& f : list) {
            const Finding*& known = findings[place_of(f)];
            if (!known || f.severity < known->severity ||
                (f.severity == known->severity && excess(f) > excess(*known)))
                known = &f;
            if (f.kind == FindingKind::fuse_missing && f.severity == Severity::stop) unfused.insert(f.id);
        }
    }
};

// Where nothing stood in a short's way, whatever a fuse further up leaves of it is less than was there.
bool was_open_to_shorts(const Before& before, const Finding& f) {
    const bool of_shorts = f.kind == FindingKind::short_stays || f.kind == FindingKind::short_hurts ||
                           f.kind == FindingKind::short_unsolved;
    return of_shorts && before.unfused.contains(f.id);
}

// Not there before, or graver; amps over their limit may not grow either, nor what another fuse lets burn.
bool is_new(const Before& before, const Finding& f) {
    if (f.severity > Severity::fix || was_open_to_shorts(before, f)) return false;
    const auto known = before.findings.find(place_of(f));
    if (known == before.findings.end() || known->second->severity > f.severity) return true;
    const bool may_not_grow = f.kind == FindingKind::cable_over_ampacity ||
                              (told_by_the_worst(f.kind) && f.other != known->second->other);
    return may_not_grow && excess(f) > excess(*known->second) * kWorse;
}

// An inspection for each candidate takes so much and no more: findings with candidates, times runs, times
// states. About a second (docs/performance.md).
constexpr std::size_t kOneByOne = 16'000;

bool can_be_asked_one_by_one(const Plan& plan, const std::vector<Finding>& findings) {
    const auto asked = static_cast<std::size_t>(std::count_if(
        findings.begin(), findings.end(), [](const Finding& f) { return !f.candidates.empty(); }));
    return asked * plan.runs.size() * std::max<std::size_t>(plan.states.size(), 1) <= kOneByOne;
}

}  // namespace

// Below this a mended thing may still be told as something to look at. What else a master leaves alive is the
// same finding still.
bool cleared(const Finding& asked, const std::vector<Finding>& after) {
    const bool whatever = asked.kind == FindingKind::alive_with_master_open;
    return std::none_of(after.begin(), after.end(), [&](const Finding& f) {
        const bool same = whatever ? f.kind == asked.kind && f.id == asked.id : same_place(f, asked);
        return same && (f.state == asked.state || f.severity <= asked.severity);
    });
}

std::vector<const Finding*> new_or_worse(const std::vector<Finding>& before,
                                         const std::vector<Finding>& after) {
    const Before known(before);
    std::vector<const Finding*> out;
    for (const Finding& f : after)
        if (is_new(known, f)) out.push_back(&f);
    return out;
}

std::vector<const Finding*> harm_of_mend(const std::vector<Finding>& before,
                                         const std::vector<Finding>& after) {
    std::vector<const Finding*> out = new_or_worse(before, after);
    const Before known(before);
    for (const Finding& f : after) {
        if (f.kind != FindingKind::guards_not) continue;  // a look at it, but a cable that may burn
        const auto was = known.findings.find(place_of(f));
        if (was == known.findings.end() || excess(f) > excess(*was->second) * kWorse) out.push_back(&f);
    }
    return out;
}

std::vector<Finding> made_worse(const Plan& plan, const Edit& edit) {
    Plan changed = plan;
    if (!apply(changed, edit)) return {};
    const Inspection before = inspect(plan, false), after = inspect(changed, false);
    std::vector<Finding> out;
    for (const Finding* f : new_or_worse(before.findings, after.findings)) out.push_back(*f);
    return out;
}

bool closes(const Plan& plan, const std::vector<Finding>& findings, const Finding& asked, const Edit& edit) {
    Plan changed = plan;
    if (!apply(changed, edit)) return false;
    const Inspection after = inspect(changed, false);
    return cleared(asked, after.findings) && harm_of_mend(findings, after.findings).empty();
}

void close_mend(const Plan& plan, const std::vector<Finding>& before, Finding& f,
                const std::atomic<bool>* cancel) {
    std::vector<Mend> candidates = std::move(f.candidates);
    f.candidates.clear();
    f.mend.reset();
    for (Mend& m : candidates) {
        if (cancel && *cancel) return;
        if (!closes(plan, before, f, m.edit)) continue;
        f.mend = std::move(m);
        return;
    }
}

void close_mends(const Plan& plan, Inspection& inspection, const std::atomic<bool>* cancel) {
    if (!can_be_asked_one_by_one(plan, inspection.findings)) return close_together(plan, inspection, cancel);
    const std::vector<Finding> before = inspection.findings;
    at_once(
        inspection.findings.size(),
        [&](std::size_t k) { close_mend(plan, before, inspection.findings[k], cancel); }, cancel);
}

}  // namespace yr
