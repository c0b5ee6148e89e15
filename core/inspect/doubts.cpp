#include "inspect/doubts.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "catalog/assumptions.h"
#include "solve/settle.h"

namespace yr {
namespace {

// How far what was assumed may be off, low and high; common practice, no source.
constexpr double kLength[] = {0.5, 1.8}, kBond[] = {0.3, 5.0}, kDraw[] = {0.75, 1.3}, kOhm[] = {0.6, 1.8};
constexpr double kRegulated_V = 0.4, kAir_K = 12;
constexpr std::size_t kPairsOf = 5;

Edit edit_of(const Plan& plan, const Doubt& d, double value) {
    switch (d.kind) {
        case DoubtKind::length: {
            Run r = *find(plan.runs, std::string_view(d.thing));
            r.length_m = value;
            return Put<Run>{r, {}};
        }
        case DoubtKind::bond: {
            Point p = *find(plan.points, std::string_view(d.thing));
            p.bond_ohm = value;
            return Put<Point>{p, {}};
        }
        case DoubtKind::draw: {
            Load l = *find(plan.loads, std::string_view(d.thing));
            l.draw.value = value;
            return Put<Load>{l, {}};
        }
        case DoubtKind::battery_ohm: {
            Battery b = *find(plan.batteries, std::string_view(d.thing));
            b.R0_ohm = value;
            return Put<Battery>{b, {}};
        }
        case DoubtKind::regulated: {
            Source s = *find(plan.sources, std::string_view(d.thing));
            s.regulated_V = value;
            return Put<Source>{s, {}};
        }
        case DoubtKind::air: {
            Batch all;
            for (State s : plan.states) {
                s.ambient_C += value, s.engine_bay_C += value;
                all.edits.emplace_back(Put<State>{s, {}});
            }
            return all;
        }
    }
    return Batch{};
}

// Sizes and stops of one version of the plan.
struct Outcome {
    std::vector<Finding> findings;
    std::map<Id, std::pair<WireSize, double>> sized;
    double kg = 0;
    bool sizes = false;
    bool fails = false;  // no sizes keep the limits
};

class Study {
  public:
    Study(const Plan& plan, const DoubtAsk& ask) : plan_(plan), ask_(ask) {}

    Doubts run() {
        Doubts out;
        std::vector<Doubt> all = taken_for_granted(plan_);
        const Outcome base = outcome(plan_);
        double done = 0;
        for (Doubt& d : all) {
            for (const bool high : {false, true}) {
                if (stopped(done / static_cast<double>(2 * all.size())))
                    return out.whole = false, finish(out, all);
                ++done;
                Plan p = plan_;
                if (!yr::apply(p, edit_of(plan_, d, high ? d.high : d.low))) continue;
                const Outcome o = outcome(p, &base);
                compare(base, o, high, d);
                if (!base.sizes) continue;
                (high ? d.high_fails : d.low_fails) = o.fails;
                if (o.sizes) (high ? d.high_kg : d.low_kg) = o.kg - base.kg;
            }
        }
        if (ask_.pairs) pairs(base, all);
        return finish(out, all);
    }

  private:
    bool stopped(double share) const {
        return (ask_.cancel && *ask_.cancel) || (ask_.watch && !ask_.watch(share));
    }

    // `ordered`: the plan sized as it is assumed; what was ordered may have to be thicker, never thinner. A
    // plan sized from nothing at that end may trade one cable for another, which says nothing of what was
    // ordered.
    Outcome outcome(const Plan& p, const Outcome* ordered = nullptr) const {
        Outcome o;
        o.findings = inspect(p, false, ask_.cancel).findings;
        if (!ask_.sizes) return o;
        SizingAsk ask;
        ask.most_s = 5, ask.cancel = ask_.cancel, ask.as_now = true;
        if (ordered)
            for (const auto& [id, size] : ordered->sized) {
                const Run& run = *find(p.runs, std::string_view(id));
                if (const auto wire = conductor(size.first, run.material))
                    ask.thicker_than_mm2[id] = wire->area_mm2 * run.parallel * (1 - 1e-6);
            }
        const auto sized = size_plan(p, ask);
        if (!sized || (sized->status != SizingStatus::least && sized->status != SizingStatus::best_found)) {
            o.fails = sized && sized->status == SizingStatus::impossible;
            return o;
        }
        o.sizes = true, o.kg = sized->after.mass_kg;
        for (const SizedRun& s : sized->runs) o.sized.emplace(s.run, std::pair(s.to, s.fuse_to_A));
        return o;
    }

    void compare(const Outcome& base, const Outcome& now, bool high, Doubt& d) const {
        for (const Finding* f : new_or_worse(base.findings, now.findings)) {
            // only what was not a stop or fix before: the same one a little worse flips nothing
            const bool known = std::any_of(base.findings.begin(), base.findings.end(), [&](const Finding& b) {
                return same_place(b, *f) && b.severity <= f->severity;
            });
            if (known) continue;
            DoubtFlip flip;
            flip.finding = *f, flip.high = high;
            d.flips.push_back(std::move(flip));
        }
        if (!base.sizes || !now.sizes) return;
        for (const auto& [run, size] : now.sized) {
            const auto before = base.sized.find(run);
            if (before == base.sized.end()) continue;
            // thicker or a larger fuse: what was ordered would not do
            const Run& r = *find(plan_.runs, std::string_view(run));
            const auto a = conductor(before->second.first, r.material), b = conductor(size.first, r.material);
            if (!a || !b ||
                (b->area_mm2 <= a->area_mm2 + 1e-9 && size.second <= before->second.second + 1e-9))
                continue;
            DoubtFlip flip;
            flip.run = run, flip.size_from = before->second.first, flip.size_to = size.first;
            flip.fuse_from_A = before->second.second, flip.fuse_to_A = size.second, flip.high = high;
            d.flips.push_back(std::move(flip));
        }
    }

    // Two that do nothing alone, both at the end that takes more copper.
    void pairs(const Outcome& base, std::vector<Doubt>& all) const {
        std::vector<std::size_t> quiet;
        for (std::size_t k = 0; k < all.size(); ++k)
            if (!all[k].matters()) quiet.push_back(k);
        std::stable_sort(quiet.begin(), quiet.end(), [&](std::size_t a, std::size_t b) {
            return std::max(all[a].low_kg, all[a].high_kg) > std::max(all[b].low_kg, all[b].high_kg);
        });
        quiet.resize(std::min(quiet.size(), kPairsOf));
        for (std::size_t i = 0; i < quiet.size(); ++i)
            for (std::size_t j = i + 1; j < quiet.size() && !stopped(1); ++j) {
                const Doubt a = all[quiet[i]], b = all[quiet[j]];
                Plan p = plan_;
                const auto worse = [](const Doubt& d) { return d.high_kg >= d.low_kg ? d.high : d.low; };
                if (!yr::apply(p, edit_of(p, a, worse(a))) || !yr::apply(p, edit_of(p, b, worse(b))))
                    continue;
                Doubt both = a;
                both.with = b.thing;
                compare(base, outcome(p, &base), a.high_kg >= a.low_kg, both);
                if (!both.flips.empty()) all.push_back(std::move(both));
            }
    }

    static Doubts finish(Doubts& out, std::vector<Doubt>& all) {
        for (Doubt& d : all) {
            if (!d.matters())
                ++out.others;
            else
                out.matter.push_back(std::move(d));
        }
        std::stable_sort(out.matter.begin(), out.matter.end(),
                         [](const Doubt& a, const Doubt& b) { return a.flips.size() > b.flips.size(); });
        return std::move(out);
    }

    const Plan& plan_;
    const DoubtAsk& ask_;
};

}  // namespace

std::vector<Doubt> taken_for_granted(const Plan& plan) {
    std::vector<Doubt> all;
    const auto add = [&](DoubtKind kind, const Id& thing, double assumed, double low, double high) {
        Doubt d;
        d.kind = kind, d.thing = thing, d.assumed = assumed, d.low = low, d.high = high;
        all.push_back(std::move(d));
    };
    for (const Run& r : plan.runs)
        if (!length_of(r) && !r.resistance_ohm && !r.body_metal) {
            const double m = length_or_assumed_m(r);
            add(DoubtKind::length, r.id, m, m * kLength[0], m * kLength[1]);
        }
    for (const Point& p : plan.points)
        if (p.kind == PointKind::ground && !p.bonded_to.empty() && !p.bond_ohm) {
            const double ohm = assumption("bond_mohm").value / 1000;
            add(DoubtKind::bond, p.id, ohm, ohm * kBond[0], ohm * kBond[1]);
        }
    for (const Load& l : plan.loads)
        if (l.typical && !l.later && l.draw.value > 0)
            add(DoubtKind::draw, l.id, l.draw.value, l.draw.value * kDraw[0], l.draw.value * kDraw[1]);
    if (!plan.states.empty()) {
        const Network n = compile(plan, plan.states.front());
        for (std::size_t k = 0; k < plan.batteries.size(); ++k)
            if (!plan.batteries[k].R0_ohm) {
                const double ohm =
                    n.batteries[k].full_warm_ohm > 0 ? n.batteries[k].full_warm_ohm : n.batteries[k].R0_ohm;
                add(DoubtKind::battery_ohm, plan.batteries[k].id, ohm, ohm * kOhm[0], ohm * kOhm[1]);
            }
    }
    for (const Source& s : plan.sources)
        if (!s.regulated_V && s.kind != SourceKind::solar) {
            const double scale = plan.vehicle.nominal_V / 12, V = assumption("regulated_V").value * scale;
            add(DoubtKind::regulated, s.id, V, V - kRegulated_V * scale, V + kRegulated_V * scale);
        }
    if (!plan.policy.air_K && !plan.states.empty()) add(DoubtKind::air, {}, 0, -kAir_K, kAir_K);
    return all;
}

Doubts doubts_of(const Plan& plan, const DoubtAsk& ask) {
    return Study(plan, ask).run();
}

}  // namespace yr
