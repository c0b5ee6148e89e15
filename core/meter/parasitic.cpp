#include "meter/parasitic.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "catalog/shipped.h"
#include "meter/slopes.h"

namespace yr {
namespace {

const std::map<std::string, std::vector<std::pair<double, double>>>& cold_table() {
    static const auto all = [] {
        std::map<std::string, std::vector<std::pair<double, double>>> t;
        const auto file = shipped_table("faults.json");
        for (const char* kind : {"blade", "blade_large"})
            for (const auto& row : file.at("fuse_cold_mohm").at(kind)) t[kind].emplace_back(row[0], row[1]);
        return t;
    }();
    return all;
}

const Device* fuse_of(const Run& r) {
    for (const Device& d : r.devices)
        if (d.kind == DeviceKind::fuse) return &d;
    return nullptr;
}

}  // namespace

std::optional<double> cold_ohm(FuseType type, double rating_A) {
    const auto kind = cold_table().find(type == FuseType::blade         ? "blade"
                                        : type == FuseType::blade_large ? "blade_large"
                                                                        : "");
    if (kind == cold_table().end()) return std::nullopt;
    for (const auto& [rating, mohm] : kind->second)
        if (std::abs(rating - rating_A) < 0.01) return mohm / 1000;
    return std::nullopt;
}

std::vector<FuseCurrent> currents_by_fuse(const Plan& plan, const Id& state,
                                          const std::vector<std::pair<Id, double>>& volts_mV) {
    std::vector<FuseCurrent> out;
    Probing where;
    where.state = state;
    OperatingPointSolver solver;
    const Solution s = solve_for(plan, where, solver);
    for (std::size_t k = 0; k < plan.runs.size(); ++k)
        for (const Device& d : plan.runs[k].devices) {
            if (d.kind != DeviceKind::fuse) continue;
            FuseCurrent f;
            f.fuse = d.id, f.run = plan.runs[k].id;
            f.planned_A = s.point.settled ? std::abs(s.point.conductors[k].current_A) : 0;
            if (const auto ohm = cold_ohm(d.fuse, d.rating_A)) {
                f.known = true;
                f.least_seen_A = 1e-4 / *ohm;
                for (const auto& [fuse, mV] : volts_mV)
                    if (fuse == d.id) f.amps = mV / 1000 / *ohm;
            }
            out.push_back(f);
        }
    return out;
}

PullOrder pull_order(const Plan& plan, const Id& state) {
    // leaves: circuits of loads with a fuse that may draw in that state; each feed's fuse holds those behind
    // it
    std::map<Terminal, std::vector<const Run*>> at;
    for (const Run& r : plan.runs) at[r.from].push_back(&r), at[r.to].push_back(&r);
    struct Group {
        Id fuse;
        std::set<Id> leaves;
    };
    std::vector<Group> groups;
    std::set<Id> all;
    (void)state;
    for (const Run& r : plan.runs) {
        const Device* fuse = fuse_of(r);
        if (!fuse) continue;
        Group g{fuse->id, {}};
        std::set<Terminal> seen{r.from, r.to};
        std::vector<Terminal> next{r.to};
        for (std::size_t n = 0; n < next.size(); ++n) {
            if (const Load* l = find(plan.loads, std::string_view(next[n].owner));
                l && next[n].post == Post::pos)
                g.leaves.insert(l->id);
            if (next[n].post != Post::stud) continue;
            for (const Run* o : at[next[n]])
                if (o != &r && o->from == next[n] && seen.insert(o->to).second) next.push_back(o->to);
        }
        if (!g.leaves.empty()) groups.push_back(g), all.insert(g.leaves.begin(), g.leaves.end());
    }
    PullOrder out;
    std::set<Id> left = all;
    std::set<Id> pulled;
    double pulls = 0, expected = 0;
    while (left.size() > 1) {
        const Group* best = nullptr;
        std::size_t best_off = left.size() + 1;
        for (const Group& g : groups) {
            if (pulled.contains(g.fuse)) continue;
            std::size_t inside = 0;
            for (const Id& l : g.leaves) inside += left.contains(l);
            if (inside == 0 || inside == left.size()) continue;
            const std::size_t off =
                inside * 2 > left.size() ? inside * 2 - left.size() : left.size() - inside * 2;
            if (off < best_off) best_off = off, best = &g;
        }
        if (!best) break;
        out.fuses.push_back(best->fuse);
        pulled.insert(best->fuse);
        ++pulls;
        std::set<Id> inside;
        for (const Id& l : best->leaves)
            if (left.contains(l)) inside.insert(l);
        // the draw goes with it, or stays: the larger part is followed here, the other is told by the meter
        const bool follow_inside = inside.size() * 2 >= left.size();
        std::set<Id> rest;
        for (const Id& l : left)
            if (!inside.contains(l)) rest.insert(l);
        const std::set<Id>& leaves = follow_inside ? rest : inside;
        expected += static_cast<double>(leaves.size()) *
                    (pulls + std::log2(std::max<double>(1, static_cast<double>(leaves.size()))));
        left = follow_inside ? inside : rest;
    }
    expected += static_cast<double>(left.size()) * pulls;
    out.expected = all.empty() ? 0 : expected / static_cast<double>(all.size());
    return out;
}

}  // namespace yr
