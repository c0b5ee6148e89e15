// Advice is closed: what is offered clears its finding and makes no new stop or fix anywhere.
#include <algorithm>
#include <map>

#include "inspect/rules.h"

namespace yr {
namespace {

constexpr double kWorse = 1.02;  // of a finding that was there before

using Told = std::tuple<FindingKind, Id, std::string>;

Told place_of(const Finding& f) {
    return {f.kind, f.id, f.other};
}

double excess(const Finding& f) {
    return f.limit > 0 ? f.value / f.limit : 0;
}

struct Before {
    std::map<Told, const Finding*> findings;
    explicit Before(const std::vector<Finding>& list) {
        for (const Finding& f : list) {
            const Finding*& known = findings[place_of(f)];
            if (!known || f.severity < known->severity) known = &f;
        }
    }
};

// Below this a mended thing may still be told as something to look at.
bool gone(const Finding& asked, const std::vector<Finding>& after) {
    return std::none_of(after.begin(), after.end(), [&](const Finding& f) {
        return same_place(f, asked) && (f.state == asked.state || f.severity <= asked.severity);
    });
}

// Not there before, or graver; amps over their limit may not grow either.
bool is_new(const Before& before, const Finding& f) {
    if (f.severity > Severity::fix) return false;
    const auto known = before.findings.find(place_of(f));
    if (known == before.findings.end() || known->second->severity > f.severity) return true;
    return f.kind == FindingKind::cable_over_ampacity && excess(f) > excess(*known->second) * kWorse;
}

}  // namespace

std::vector<const Finding*> new_or_worse(const std::vector<Finding>& before,
                                         const std::vector<Finding>& after) {
    const Before known(before);
    std::vector<const Finding*> out;
    for (const Finding& f : after)
        if (is_new(known, f)) out.push_back(&f);
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
    return gone(asked, after.findings) && new_or_worse(findings, after.findings).empty();
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
    const std::vector<Finding> before = inspection.findings;
    for (Finding& f : inspection.findings) {
        if (cancel && *cancel) return;
        close_mend(plan, before, f, cancel);
    }
}

}  // namespace yr
