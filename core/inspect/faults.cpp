// Rules about shorts: does the right fuse open, in time, may it cut what flows, and nothing else?
#include <algorithm>
#include <map>

#include "guard/fault_study.h"
#include "inspect/fuse_mends.h"

namespace yr {
namespace {

constexpr int kEverySize = 18;
constexpr double kFarOver = 2;  // the strongest case is rare; so far over a fuse is no judgement any more

const Run* run_of(const Plan& plan, const Id& device) {
    for (const Run& r : plan.runs)
        if (find(r.devices, device)) return &r;
    return nullptr;
}

// A finding about a short, asked again of its own place with one thing changed: cheap beside an inspection of
// the plan, which the few that help here still have to pass.
class Trials {
  public:
    Trials(const Case& c, const FaultStudy& study) : c_(c), study_(study) {}

    // The short that a finding tells of.
    [[nodiscard]] const ShortRow* row_of(const Finding& f) const {
        const bool hurts = f.kind == FindingKind::short_hurts;
        for (const ShortRow& r : study_.rows) {
            if (c_.plan.states[r.state].id != f.state) continue;
            if (hurts ? r.hottest && r.hottest->reached_C == f.value && r.near == f.other &&
                            c_.plan.runs[r.hottest->run].id == f.id
                      : r.stays_A == f.value && r.stays == f.other &&
                            c_.plan.runs[study_.places[r.place].run].id == f.id)
                return &r;
        }
        return nullptr;
    }

    [[nodiscard]] bool helps(const ShortRow& asked, const Finding& f, std::size_t run, const Mend& m) {
        const Id fuse = m.kind == MendKind::fuse_rating ? m.target : Id();
        const Solution& solution = c_.solutions[asked.state];
        const auto row = short_at(c_.plan, base(asked.state), solution, study_.places[asked.place], asked.ohm,
                                  {run, m.to, fuse, m.to_A});
        if (!row || !row->settled) return true;  // nothing is known of it here
        constexpr double kSpare_K = 5;           // what just bears it here burns when a few loads are off
        const bool burns = row->hottest && c_.plan.runs[row->hottest->run].id == f.id &&
                           row->hottest->reached_C > row->hottest->allowed_C - kSpare_K;
        return f.kind == FindingKind::short_hurts ? !burns : row->clears() && !burns;
    }

  private:
    const FaultBase& base(std::size_t state) {
        const auto known = bases_.find(state);
        if (known != bases_.end()) return known->second;
        return bases_.emplace(state, fault_base(c_.plan, state, c_.solutions[state])).first->second;
    }

    const Case& c_;
    const FaultStudy& study_;
    std::map<std::size_t, FaultBase> bases_;
};

// A smaller fuse that still carries all that is asked of it, or a thicker cable for the short.
std::vector<Mend> for_short(const Case& c, const Finding& f, Trials& trials) {
    constexpr std::size_t kFuses = 4, kCables = 4;
    std::vector<Mend> out;
    const ShortRow* asked = trials.row_of(f);
    const auto take = [&](std::vector<Mend> from, std::size_t run, std::size_t most) {
        std::size_t taken = 0;
        for (Mend& m : from) {
            if (taken == most) return;
            if (asked && !trials.helps(*asked, f, run, m)) continue;
            out.push_back(std::move(m)), ++taken;
        }
    };
    const auto index = [&](const Run* run) { return static_cast<std::size_t>(run - c.plan.runs.data()); };
    if (const Run* holder = run_of(c.plan, f.other))
        take(other_ratings(c, index(holder), f.other, 0, find(holder->devices, f.other)->rating_A),
             index(holder), kFuses);
    if (const Run* shorted = find(c.plan.runs, f.id))
        take(thicker(c, index(shorted), 0, kEverySize), index(shorted), kCables);
    return out;
}

// The same rating in a kind that may cut so much.
std::optional<Mend> stronger_fuse(const Plan& plan, const Id& fuse_id, double amps) {
    const Run* holder = run_of(plan, fuse_id);
    if (is_breaker(find(holder->devices, fuse_id)->fuse)) return std::nullopt;  // it stays what it is
    for (const FuseType type : {FuseType::strip, FuseType::stud, FuseType::high}) {
        const FuseKind& kind = fuse_kind(type);
        Run changed = *holder;
        for (Device& d : changed.devices) {
            if (d.id != fuse_id || kind.interrupting_A < amps) continue;
            if (std::find(kind.ratings_A.begin(), kind.ratings_A.end(), d.rating_A) == kind.ratings_A.end())
                continue;
            d.fuse = type;
            return Mend{
                MendKind::fuse_type, Put<Run>{changed, {}}, fuse_id, {}, {}, d.rating_A, d.rating_A, {}};
        }
    }
    return std::nullopt;
}

// A cable that is as hot without the short: a steady overload, told as what it is and blamed on no fuse.
bool hot_before(const Case& c, const ShortRow& row) {
    constexpr double kSame_K = 5;
    const double before_C = c.solutions[row.state].point.conductors[row.hottest->run].temperature_C;
    return before_C > row.hottest->allowed_C && row.hottest->reached_C < before_C + kSame_K;
}

// Each cable that shorts overheat is told once, by the worst of them.
void once_a_cable(std::vector<Finding>& out, std::size_t from) {
    const auto first = out.begin() + static_cast<std::ptrdiff_t>(from);
    std::vector<Finding> kept;
    for (auto f = first; f != out.end(); ++f) {
        const auto worse = [&](const Finding& o) {
            return o.kind == f->kind && o.id == f->id &&
                   (o.value > f->value || (o.value == f->value && &o < &*f));
        };
        if (f->kind != FindingKind::short_hurts || std::none_of(first, out.end(), worse)) kept.push_back(*f);
    }
    out.erase(first, out.end());
    out.insert(out.end(), kept.begin(), kept.end());
}

bool told(const std::vector<Finding>& out, FindingKind kind, const std::string& other) {
    return std::any_of(out.begin(), out.end(),
                       [&](const Finding& f) { return f.kind == kind && f.other == other; });
}

// Breakers that close again by themselves, with the run that each stands in.
std::map<Id, Id> that_reclose(const Plan& plan) {
    std::map<Id, Id> out;
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices)
            if (d.fuse == FuseType::breaker_1) out.emplace(d.id, r.id);
    return out;
}

void judge(const Case& c, const FaultStudy& study, const ShortRow& row, const std::map<Id, Id>& recloses,
           std::vector<Finding>& out, std::size_t from) {
    const ShortPlace& place = study.places[row.place];
    const Run& run = c.plan.runs[place.run];
    const Id& state = c.plan.states[row.state].id;
    if (!row.settled) {
        keep_worst(out, from, make_finding(FindingKind::short_unsolved, Severity::check, run.id, {}, state));
        return;
    }
    if (row.near.empty()) return;  // told as a missing fuse
    // What still flows comes out of the very post that is shorted: no fuse of a cable stands before it.
    const bool bare_post = !row.clears() && row.stays.empty();
    // A run that is told to have no fuse of its own is not told again by what a larger one further up lets
    // by.
    const bool bare =
        std::none_of(run.devices.begin(), run.devices.end(),
                     [](const Device& d) { return d.kind == DeviceKind::fuse; }) &&
        std::any_of(out.begin(), out.end(), [&](const Finding& f) {
            return f.kind == FindingKind::fuse_missing && f.severity == Severity::stop && f.id == run.id;
        });
    const bool own_stay = bare && !row.clears();
    if (place.device.empty() && !bare_post && !own_stay) {
        if (!row.clears())
            keep_worst(out, from,
                       make_finding(FindingKind::short_stays, row.hurts() ? Severity::stop : Severity::check,
                                    run.id, row.stays, state, row.stays_A, 0),
                       Worse::lower);
        else if (row.hurts() && !hot_before(c, row))
            keep_worst(
                out, from,
                make_finding(FindingKind::short_hurts, Severity::stop, c.plan.runs[row.hottest->run].id,
                             row.near, state, row.hottest->reached_C, row.hottest->allowed_C));
        if (!row.first_up.empty())
            keep_worst(out, from,
                       make_finding(FindingKind::short_upstream, Severity::check, run.id, row.first_up, state,
                                    row.first_up_s, row.near_s),
                       Worse::lower);
        if (const auto breaker = recloses.find(row.near); breaker != recloses.end())
            keep_worst(out, from,
                       make_finding(FindingKind::breaker_recloses, Severity::check, breaker->second, row.near,
                                    {}, row.most_A));
    } else if (!place.device.empty() && !row.near_interrupts &&
               !told(out, FindingKind::interrupt_low, row.near)) {
        keep_worst(out, from,
                   make_finding(FindingKind::interrupt_short,
                                row.near_A > kFarOver * row.interrupts_A ? Severity::fix : Severity::check,
                                run.id, row.near, {}, row.near_A, row.interrupts_A));
    }
    if (!row.management.empty())
        keep_worst(out, from,
                   make_finding(FindingKind::management_first, Severity::note, row.management, {}, {},
                                row.management_A, *find(c.plan.batteries, row.management)->cuts_at_A));
}

}  // namespace

KnownShorts study_shorts(const Case& c) {
    if (c.with_mends) return known_shorts(c.plan, c.solutions);
    return {{},
            {},
            c.near ? study_bolted(c.plan, c.solutions, &c.near->shorts, c.near->changed)
                   : study_bolted(c.plan, c.solutions)};
}

void inspect_faults(const Case& c, const FaultStudy& study, std::vector<Finding>& out) {
    const std::size_t from = out.size();
    const std::map<Id, Id> recloses = that_reclose(c.plan);
    for (const ShortRow& row : study.rows) judge(c, study, row, recloses, out, from);
    once_a_cable(out, from);
    if (!c.with_mends) return;
    Trials trials(c, study);
    for (std::size_t n = from; n < out.size(); ++n) {
        Finding& f = out[n];
        if (!c.wants_mend(f)) continue;
        if (f.kind == FindingKind::short_stays || f.kind == FindingKind::short_hurts)
            f.candidates = for_short(c, f, trials);
        if (f.kind == FindingKind::interrupt_short) f.mend = stronger_fuse(c.plan, f.other, f.value);
    }
}

}  // namespace yr
