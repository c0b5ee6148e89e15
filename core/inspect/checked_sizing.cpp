#include "inspect/checked_sizing.h"

#include <algorithm>
#include <set>

#include "plan/roles.h"
#include "routes/lay.h"
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
    CheckedSizing out;
    out.sizing = std::move(sizing);
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
        lay(sized);
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

namespace {

constexpr int kMostRounds = 12;  // of sizing anew; then what is refused stays as it is

double area_mm2(const Run& run, const WireSize& size) {
    const auto wire = conductor(size, run.material);
    return wire ? wire->area_mm2 * run.parallel : 0;
}

// Whom a finding tells to be thicker: the cable that it names, where that became thinner; its fuse's own
// cable and the others on its way only where that one has back what it had.
std::set<Id> to_thicken(const Plan& changed, const Inspection& found, const Finding& f, const SizingResult& r,
                        const std::set<Id>& runs) {
    for (const SizedRun& s : r.runs) {
        const Run* run = find(changed.runs, std::string_view(s.run));
        if (s.run == f.id && run && area_mm2(*run, s.to) < area_mm2(*run, s.from) - 1e-9) return {s.run};
    }
    return concerned(changed, found, f, runs);
}

// Asks that the runs which would make something worse be thicker than they were chosen. False: none of them
// became thinner, so thicker does not help.
bool tighten(const Plan& plan, const SizingResult& r, const std::set<Id>& back, SizingAsk& ask,
             CheckedSizing& out) {
    bool any = false;
    for (const SizedRun& s : r.runs) {
        const Run* run = find(plan.runs, std::string_view(s.run));
        if (!run || !back.contains(s.run) || area_mm2(*run, s.to) >= area_mm2(*run, s.from) - 1e-9) continue;
        ask.thicker_than_mm2[s.run] = area_mm2(*run, s.to);
        if (std::find(out.thickened.begin(), out.thickened.end(), s.run) == out.thickened.end())
            out.thickened.push_back(s.run);
        any = true;
    }
    return any;
}

}  // namespace

namespace {

// Without who watches it: that one may be gone when it is asked again.
SizingAsk unwatched(SizingAsk ask) {
    ask.watch = nullptr, ask.cancel = nullptr;
    return ask;
}

Result<CheckedSizing> size_until_it_passes(const Plan& plan, const SizingAsk& ask, SizingAsk& now) {
    CheckedSizing told;
    double bound = 0;
    std::optional<Inspection> before;
    for (int round = 0;; ++round) {
        auto sized = size_plan(plan, now);
        if (!sized) return tl::unexpected(sized.error());
        const bool good = sized->status == SizingStatus::least || sized->status == SizingStatus::best_found;
        if (round == 0) bound = sized->bound;
        if (!good &&
            round > 0) {  // so thick does not go: as the first answer, with what it may not change kept
            sized = size_plan(plan, ask);
            if (!sized) return tl::unexpected(sized.error());
            return checked(plan, ask, std::move(*sized));
        }
        Plan changed = plan;
        const std::set<Id> runs = changed_runs(*sized);
        if (!good || runs.empty() || round == kMostRounds || (ask.cancel && *ask.cancel) ||
            !yr::apply(changed, sized->edit)) {
            CheckedSizing out = checked(plan, ask, std::move(*sized));
            out.thickened = told.thickened;
            out.against.insert(out.against.begin(), told.against.begin(), told.against.end());
            return out;
        }
        if (!before) before = inspect(plan, false);
        lay(changed);  // what grew may no longer fit through its hole and go round
        const Inspection after = inspect(changed, false);
        const auto worse = new_or_worse(before->findings, after.findings);
        if (worse.empty()) {
            told.sizing = std::move(*sized);
            if (round >
                0) {  // least of those that every rule lets through, as far as was tried: not proved so
                told.sizing.status = SizingStatus::best_found;
                told.sizing.bound = std::min(bound, told.sizing.cost);
            }
            return told;
        }
        std::set<Id> back;
        for (const Finding* f : worse) back.merge(to_thicken(changed, after, *f, *sized, runs));
        told.against.push_back(*worse.front());
        if (!tighten(plan, *sized, back, now, told)) {
            CheckedSizing out = checked(plan, ask, std::move(*sized));
            out.thickened = told.thickened;
            return out;
        }
    }
}

// Asks for less where nothing keeps all: first that nobody is worse off than now, then without the cables
// that no size suits. False: there is nothing left to give up.
bool ask_for_less(const Plan& plan, const std::vector<SizingBlocker>& blockers, SizingAsk& ask) {
    if (!ask.as_now) {
        ask.as_now = true;
        return true;
    }
    if (ask.only.empty())
        for (const Run& r : plan.runs)
            if (size_is_open(plan, r)) ask.only.push_back(r.id);
    return std::erase_if(ask.only,
                         [&](const Id& id) {
                             return std::any_of(blockers.begin(), blockers.end(),
                                                [&](const SizingBlocker& b) { return b.id == id; });
                         }) > 0 &&
           !ask.only.empty();
}

Result<CheckedSizing> size_as_laid(const Plan& plan, const SizingAsk& ask) {
    constexpr int kMostGivenUp = 8;
    SizingAsk less = ask;
    std::optional<CheckedSizing> first;
    for (int round = 0; round <= kMostGivenUp; ++round) {
        SizingAsk now = less;
        auto sized = size_until_it_passes(plan, less, now);
        if (!sized) {
            if (first) break;
            return sized;
        }
        sized->asked = unwatched(std::move(now));
        if (!first) first = *sized;
        const bool found =
            sized->sizing.status == SizingStatus::least || sized->sizing.status == SizingStatus::best_found;
        if (found) {
            if (round > 0) sized->given_up = first->sizing.blockers;
            return sized;
        }
        if (sized->sizing.status != SizingStatus::impossible ||
            !ask_for_less(plan, sized->sizing.blockers, less))
            break;
    }
    return std::move(*first);
}

// Whether the ways that the answer leaves are those it was sized for; if not, the plan lies as it leaves it.
bool lies_the_same(Plan& plan, const SizingResult& answer) {
    Plan sized = plan;
    if (!yr::apply(sized, answer.edit)) return true;
    lay(sized);
    bool same = true;
    for (std::size_t k = 0; k < plan.runs.size(); ++k) {
        const auto &now = sized.runs[k].laid, &was = plan.runs[k].laid;
        const double off = std::abs(now.length_m.value_or(0) - was.length_m.value_or(0));
        same = same && off < 0.05 && now.bundle == was.bundle && now.places == was.places;
        plan.runs[k].laid = now;
    }
    return same;
}

}  // namespace

Result<CheckedSizing> size_checked(const Plan& plan, const SizingAsk& ask) {
    constexpr int kMostPasses = 4;
    Plan lies = plan;
    auto sized = size_as_laid(lies, ask);
    for (int pass = 1; pass < kMostPasses && sized; ++pass) {
        const SizingStatus status = sized->sizing.status;
        if (status != SizingStatus::least && status != SizingStatus::best_found) break;
        if (lies_the_same(lies, sized->sizing)) break;
        auto again = size_as_laid(lies, ask);
        const bool found = again && (again->sizing.status == SizingStatus::least ||
                                     again->sizing.status == SizingStatus::best_found);
        if (!found) break;  // stopped meanwhile: what there is was inspected on its own ways
        sized = std::move(again);
    }
    return sized;
}

}  // namespace yr
