#include "inspect/findings.h"

#include <algorithm>
#include <iterator>

#include "inspect/rules.h"
#include "units/at_once.h"

namespace yr {

void keep_worst(std::vector<Finding>& out, std::size_t from, Finding finding, Worse worse) {
    const auto excess = [](const Finding& f) { return f.limit > 0 ? f.value / f.limit : f.value; };
    for (std::size_t k = from; k < out.size(); ++k) {
        if (!same_place(out[k], finding)) continue;
        const bool replaces =
            worse == Worse::higher ? excess(finding) > excess(out[k]) : excess(finding) < excess(out[k]);
        if (replaces) out[k] = std::move(finding);
        return;
    }
    out.push_back(std::move(finding));
}

namespace {

// What no size and no fuse changes is not asked again near a plan that was looked at.
void before_shorts(const Case& c, std::vector<Finding>& f) {
    const bool of_the_circuit = !c.near;
    if (of_the_circuit) inspect_polarity(c, f), inspect_state_names(c, f);
    inspect_protection(c, f);
    inspect_cables(c, f);
    if (of_the_circuit) inspect_never_run(c, f);
    inspect_fitting(c, f);
    inspect_joining(c, f);
    inspect_switching(c, f);
    inspect_supply(c, f);
    inspect_converters(c, f);
    inspect_batteries(c, f);
}

void after_shorts(const Case& c, std::vector<Finding>& f) {
    inspect_mains(c, f);
    inspect_starting(c, f);
    inspect_boxes(c, f);
    if (!c.near) inspect_control(c, f);
}

// Shorts, drops and the rest at once; they stand in one order whoever is done first.
std::shared_ptr<const KnownShorts> apply_rules(const Case& c, std::vector<Finding>& f) {
    const auto shorts = std::make_shared<KnownShorts>();
    std::vector<Finding> drops, after;
    const std::vector<std::function<void()>> work{[&] { *shorts = study_shorts(c); },
                                                  [&] { before_shorts(c, f), after_shorts(c, after); },
                                                  [&] { inspect_drops(c, drops); }};
    at_once(work.size(), [&](std::size_t k) { work[k](); });
    inspect_faults(c, shorts->study, f);
    for (auto* part : {&after, &drops})
        f.insert(f.end(), std::make_move_iterator(part->begin()), std::make_move_iterator(part->end()));
    return c.with_mends ? shorts : nullptr;
}

// The plan with those of its states alone that have an answer: no rule may conclude anything from another.
struct Answered {
    Plan plan;
    std::vector<Solution> solutions;
    std::vector<StateBands> bands;
    std::vector<Id> without;
};

Answered answered_of(const Plan& plan, const Inspection& all) {
    Answered a;
    for (std::size_t s = 0; s < plan.states.size(); ++s)
        if (!all.solutions[s].point.settled) a.without.push_back(plan.states[s].id);
    if (a.without.empty()) return a;
    a.plan = plan;
    a.plan.states.clear();
    for (std::size_t s = 0; s < plan.states.size(); ++s) {
        if (!all.solutions[s].point.settled) continue;
        a.plan.states.push_back(plan.states[s]);
        a.solutions.push_back(all.solutions[s]);
        if (!all.bands.empty()) a.bands.push_back(all.bands[s]);
    }
    return a;
}

}  // namespace

namespace {

// Who fuses by 150 % of the load knows that a slow overload may pass: a fuse above its cable is then
// something to look at, as long as every short of that cable is cleared in time and it carries all that is
// asked of it.
void school_decides(const Plan& plan, std::vector<Finding>& findings) {
    if (plan.policy.fuse_school == FuseSchool::wire) return;
    const auto burns = [&](const Id& run) {
        return std::any_of(findings.begin(), findings.end(), [&](const Finding& f) {
            return f.id == run &&
                   (f.kind == FindingKind::short_hurts || f.kind == FindingKind::short_stays ||
                    f.kind == FindingKind::short_unsolved || f.kind == FindingKind::cable_over_ampacity ||
                    f.kind == FindingKind::demand_over || f.kind == FindingKind::duty_hot);
        });
    };
    for (Finding& f : findings)
        if (f.kind == FindingKind::fuse_above_cable && !burns(f.id)) f.severity = Severity::check;
}

struct Around {
    const NearPlan* near = nullptr;
    const std::vector<const Finding*>* only = nullptr;
};

Case case_of(const Plan& plan, const std::vector<Solution>& solutions, bool with_mends,
             const std::vector<StateBands>& bands, const Around& around) {
    return {plan, solutions, with_mends, bands, around.near, around.only};
}

Inspection inspect_rules(const Plan& plan, bool with_mends, const Around& around = {}) {
    Inspection result;
    result.solutions = solve_all(plan);
    if (has_ranges(plan))
        for (std::size_t k = 0; k < plan.states.size(); ++k) result.bands.push_back(bands_of(plan, k));
    auto& f = result.findings;
    const Answered answered = answered_of(plan, result);
    for (const Id& state : answered.without)
        f.push_back(make_finding(FindingKind::no_answer, Severity::stop, {}, {}, state));
    if (answered.without.empty())
        result.shorts = apply_rules(case_of(plan, result.solutions, with_mends, result.bands, around), f);
    else
        (void)apply_rules(case_of(answered.plan, answered.solutions, with_mends, answered.bands, around), f);
    school_decides(plan, f);
    std::stable_sort(f.begin(), f.end(),
                     [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
    for (Finding& finding : f)  // what a rule found first is its first candidate
        if (finding.mend) {
            finding.candidates.insert(finding.candidates.begin(), std::move(*finding.mend));
            finding.mend.reset();
        }
    return result;
}

}  // namespace

Inspection inspect_with_candidates(const Plan& plan, const std::vector<const Finding*>* only) {
    return inspect_rules(plan, true, {nullptr, only});
}

std::vector<Finding> findings_near(const Plan& plan, const NearPlan& near) {
    return inspect_rules(plan, false, {&near, nullptr}).findings;
}

Inspection inspect(const Plan& plan, bool with_mends, const std::atomic<bool>* cancel) {
    Inspection result = inspect_rules(plan, with_mends);
    if (with_mends) close_mends(plan, result, cancel);
    return result;
}

}  // namespace yr

template class std::vector<yr::Mend>;
template class std::vector<yr::Finding>;
