#include "inspect/checked_sizing.h"

#include <algorithm>
#include <set>

#include "size/run_check.h"
#include "solve/load_paths.h"

namespace yr {
namespace {

bool holds_device(const Run& run, const std::string& id) {
    return find(run.devices, id) != nullptr;
}

// Changed runs that a finding is about: named by it, holding its device, ending on its thing, on its load's
// way.
std::set<Id> concerned(const Plan& plan, const Inspection& found, const Finding& f,
                       const std::set<Id>& changed) {
    std::set<Id> out;
    for (const Id& id : changed) {
        const Run& run = *find(plan.runs, id);
        if (id == f.id || id == f.other || id == f.biggest_run || holds_device(run, f.other) ||
            holds_device(run, f.id) || run.from.owner == f.id || run.to.owner == f.id)
            out.insert(id);
    }
    const Load* load = find(plan.loads, f.id);
    const Run* told = find(plan.runs, f.id);
    const bool upstream = !load && told && out.empty();  // it is about what others let through to its load
    if (upstream) load = find(plan.loads, told->to.owner);
    for (std::size_t s = 0; load && s < plan.states.size() && (out.empty() || !upstream); ++s) {
        if (upstream
                ? found.solutions[s].point.loads[static_cast<std::size_t>(load - plan.loads.data())].status !=
                      LoadStatus::on
                : plan.states[s].id != f.state)
            continue;
        for (const int c : path_of_load(found.solutions[s], static_cast<int>(load - plan.loads.data())))
            if (const int run = found.solutions[s].network.conductors[static_cast<std::size_t>(c)].run;
                run >= 0 && changed.contains(plan.runs[static_cast<std::size_t>(run)].id))
                out.insert(plan.runs[static_cast<std::size_t>(run)].id);
    }
    if (!out.empty()) return out;
    for (const Id& named : {f.id, f.other, f.biggest_run}) {  // those that share an end with what is named
        const Run* at = find(plan.runs, named);
        for (const Id& id : changed) {
            const Run& run = *find(plan.runs, id);
            if (at && (run.from == at->from || run.from == at->to || run.to == at->from || run.to == at->to))
                out.insert(id);
        }
    }
    return out.empty() ? changed : out;
}

void count_again(const Plan& plan, const SizingAsk& ask, SizingResult& r) {
    r.after = {};
    std::set<std::string> sizes;
    for (const SizedRun& s : r.runs) {
        const Run& run = *find(plan.runs, s.run);
        r.after.mass_kg += run_mass_kg(run, s.to);
        r.after.money += run_money(plan, run, s.to);
        sizes.insert(name_of(s.to));
    }
    r.after.sizes = static_cast<int>(sizes.size());
    r.cost = ask.goal == SizingGoal::mass    ? r.after.mass_kg
             : ask.goal == SizingGoal::money ? r.after.money
                                             : r.after.sizes;
    r.status = SizingStatus::best_found;
    r.bound = std::min(r.bound, r.cost);
}

void keep(SizingResult& r, const std::set<Id>& runs) {
    for (SizedRun& s : r.runs)
        if (runs.contains(s.run)) s.to = s.from, s.fuse_to_A = s.fuse_from_A;
    auto& edits = std::get<Batch>(r.edit).edits;
    std::erase_if(edits, [&](const auto& e) {
        const auto* put = std::get_if<Put<Run>>(&e);
        return put && runs.contains(put->thing.id);
    });
}

std::set<Id> changed_runs(const SizingResult& r) {
    std::set<Id> out;
    if (const auto* batch = std::get_if<Batch>(&r.edit))
        for (const auto& e : batch->edits)
            if (const auto* put = std::get_if<Put<Run>>(&e)) out.insert(put->thing.id);
    return out;
}

}  // namespace

CheckedSizing checked(const Plan& plan, const SizingAsk& ask, SizingResult sizing) {
    CheckedSizing out{std::move(sizing), {}, {}};
    SizingResult& r = out.sizing;
    if (r.status != SizingStatus::least && r.status != SizingStatus::best_found) return out;
    const Inspection before = inspect(plan, false);
    for (std::set<Id> changed = changed_runs(r); !changed.empty(); changed = changed_runs(r)) {
        if (ask.cancel && *ask.cancel) {
            r.status = SizingStatus::stopped;
            return out;
        }
        Plan sized = plan;
        if (!yr::apply(sized, r.edit)) break;
        const Inspection after = inspect(sized, false);
        const auto worse = new_or_worse(before.findings, after.findings);
        if (worse.empty()) break;
        std::set<Id> back;
        for (const Finding* f : worse) back.merge(concerned(sized, after, *f, changed));
        out.against.push_back(*worse.front());
        out.kept.insert(out.kept.end(), back.begin(), back.end());
        keep(r, back);
        count_again(plan, ask, r);
    }
    return out;
}

Result<CheckedSizing> size_checked(const Plan& plan, const SizingAsk& ask) {
    auto sized = size_plan(plan, ask);
    if (!sized) return tl::unexpected(sized.error());
    return checked(plan, ask, std::move(*sized));
}

}  // namespace yr
