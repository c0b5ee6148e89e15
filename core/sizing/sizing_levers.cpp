// A design solved as the real circuit: which limits it breaks, and which cables move a breach. Part of
// SizingModel.
#include <algorithm>
#include <cmath>

#include "units/at.h"

#include "sizing/sizing_model.h"

namespace yr {
void SizingModel::find_paths() {
    for (std::size_t f = 0; f < runs_.size(); ++f) {
        std::vector<std::vector<double>> amps;
        for (const Element& e : elements_[f]) {
            std::vector<double> by_state;
            for (std::size_t k = 0; k < states().size(); ++k) {
                CableSurroundings cable = e.cable;
                cable.ambient_C = air_C_[f][k];
                const Run& run = plan_.runs[runs_[f].run];
                by_state.push_back(run.parallel * current_for_temperature_A(cable, run.insulation_C));
            }
            amps.push_back(std::move(by_state));
        }
        heat_A_.push_back(std::move(amps));
    }
    for (std::size_t k = 0; k < states().size(); ++k) {
        std::vector<std::vector<char>> by_load(plan_.loads.size(), std::vector<char>(runs_.size(), 0));
        for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
            if (least_point_[k].loads[l].status != LoadStatus::on || !plan_.loads[l].inverter.empty())
                continue;
            for (const int c : path_of_load(least_[k], least_point_[k], static_cast<int>(l)))
                if (const int run = least_[k].conductors[at(c)].run; run >= 0 && free_of_[at(run)] >= 0)
                    by_load[l][at(free_of_[at(run)])] = 1;
        }
        on_path_.push_back(std::move(by_load));
    }
}

// The end at which this run keeps the currents of the loads behind it least: thick for constant power, thin
// for resistances. -1: they are constant currents; -2: both kinds hang there. `among`: only these loads
// count.
int SizingModel::end_for(std::size_t k, std::size_t f, const std::vector<char>* among) const {
    bool power = false, resistance = false;
    for (std::size_t l = 0; l < plan_.loads.size(); ++l) {
        if (!on_path_[k][l][f] || (among && !(*among)[l])) continue;
        const DrawKind kind = circuit_.network(k).loads[l].kind;
        power = power || kind == DrawKind::power;
        resistance = resistance || kind == DrawKind::resistance;
    }
    // what feeds an inverter, a box's own draw or a converter is on no load's path: constant power
    bool any = false;
    for (std::size_t l = 0; l < plan_.loads.size(); ++l) any = any || on_path_[k][l][f];
    if (!any) power = true;
    if (power && resistance) return -2;
    if (!power && !resistance) return -1;
    return power ? static_cast<int>(runs_[f].choices.size()) - 1 : 0;
}

std::vector<SizingModel::Lever> SizingModel::levers(const Breach& b, const Design& design) {
    std::vector<Lever> out;
    const auto thick = [&](std::size_t f) { return static_cast<int>(runs_[f].choices.size()) - 1; };
    std::vector<char> behind(plan_.loads.size(), 0);  // loads whose current passes the run in question
    const int own = b.limit == Limit::drop || b.limit == Limit::none ? -1 : free_of_[b.run];
    if (own >= 0)
        for (std::size_t l = 0; l < plan_.loads.size(); ++l) behind[l] = on_path_[b.k][l][at(own)];
    const double now = b.limit == Limit::none ? 0 : excess(b, design);
    for (std::size_t f = 0; f < runs_.size(); ++f) {
        const ConductorElement& c = circuit_.network(b.k).conductors[runs_[f].run];
        if (!c.closed) continue;
        if (b.limit ==
            Limit::none) {  // the supply breaks down: only thicker ones can help, perhaps several at once
            if (design[f] != thick(f)) out.push_back({f, thick(f), false});
            continue;
        }
        bool far = false;
        int end = -2;
        if (static_cast<int>(f) == own ||
            (b.limit == Limit::drop && bridge_[b.k][runs_[f].run] && on_path_[b.k][b.load][f])) {
            end = thick(f);
        } else if (bridge_[b.k][runs_[f].run]) {
            far = true;
            if (own >= 0)
                for (std::size_t l = 0; l < behind.size() && far; ++l)
                    far = !(behind[l] && on_path_[b.k][l][f]);
            end = end_for(b.k, f, far ? nullptr : &behind);
        }
        if (end == -2) {  // in a loop, or of two minds: both ends are looked at
            Design trial = design;
            double best = now - 1e-7;
            for (const int candidate : {0, thick(f)}) {
                if (candidate == design[f]) continue;
                trial[f] = candidate;
                const double there = excess(b, trial);
                if (there < best) best = there, end = candidate;
            }
        }
        if (end >= 0 && end != design[f]) out.push_back({f, end, far});
    }
    // far ones first: they are the first to be found beside the point
    std::stable_sort(out.begin(), out.end(), [](const Lever& a, const Lever& c) { return a.far > c.far; });
    return out;
}

double SizingModel::value_of(const Breach& b, const OperatingPoint& point) const {
    if (b.limit == Limit::none) return point.settled ? 0 : 2;
    if (!point.settled) return 2 * b.allowed;
    if (b.limit == Limit::drop) {
        const LoadResult& r = point.loads[b.load];
        return r.status == LoadStatus::on ? r.drop_V : 3 * b.allowed;
    }
    return std::abs(point.conductors[b.run].current_A);
}

void SizingModel::check_state(std::size_t k, const OperatingPoint& point, const Design& design,
                              std::vector<Breach>& out) const {
    const auto add = [&](Breach b) {
        b.k = k;
        b.value = value_of(b, point);
        if (b.value > b.allowed * (1 + kTiny)) out.push_back(b);
    };
    if (!point.settled) {
        out.push_back({Limit::none, 0, 0, k, 2, 1});
        return;
    }
    for (std::size_t l = 0; l < plan_.loads.size(); ++l)
        if (checked(k, l)) add({Limit::drop, l, 0, k, 0, limits_V_[l]});
    if (plan_.states[states()[k]].key == Key::crank) return;
    for (std::size_t f = 0; f < runs_.size(); ++f) {
        const std::size_t run = runs_[f].run;
        if (turns_[f][k] || std::abs(point.conductors[run].current_A) < 1e-3) continue;
        const SizeChoice& c = runs_[f].choices[at(design[f])];
        add({Limit::ampacity, 0, run, k, 0, amp_A_[f][at(design[f])][k]});
        add({Limit::temperature, 0, run, k, 0, heat_A_[f][at(design[f])][k]});
        if (runs_[f].fuse_device < 0) continue;
        const Device& fuse = plan_.runs[run].devices[at(runs_[f].fuse_device)];
        // a rating that stands in the plan may stay; one chosen anew carries its share
        const double share = c.fuse_A == fuse.rating_A ? 1e3 : fuse_kind(fuse.fuse).continuous_share;
        add({Limit::fuse, 0, run, k, 0, share * c.fuse_A});
    }
}

std::vector<Breach> SizingModel::breaches(const Design& design) {
    put(design);
    std::vector<Breach> out;
    for (std::size_t k = 0; k < states().size(); ++k) {
        std::vector<Breach> here;
        check_state(k, circuit_.solve(k), design, here);
        std::sort(here.begin(), here.end(),
                  [](const Breach& a, const Breach& b) { return a.excess() > b.excess(); });
        out.insert(out.end(), here.begin(), here.end());
    }
    return out;
}

double SizingModel::excess(const Breach& breach, const Design& design) {
    put(design);
    Breach b = breach;
    b.value = value_of(b, circuit_.solve(b.k));
    const int f = free_of_[b.run];
    if (b.limit == Limit::temperature && f >= 0) b.allowed = heat_A_[at(f)][at(design[at(f)])][b.k];
    if (b.limit == Limit::ampacity && f >= 0) b.allowed = amp_A_[at(f)][at(design[at(f)])][b.k];
    if (b.limit == Limit::fuse && f >= 0) {
        const FreeRun& free = runs_[at(f)];
        const Device& fuse = plan_.runs[b.run].devices[at(free.fuse_device)];
        const double rating = free.choices[at(design[at(f)])].fuse_A;
        b.allowed = (rating == fuse.rating_A ? 1e3 : fuse_kind(fuse.fuse).continuous_share) * rating;
    }
    return b.excess() - kTiny;
}

}  // namespace yr
