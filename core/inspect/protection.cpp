// Rules about fuses: there, near the source, and no larger than the cable.
#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "inspect/rules.h"
#include "size/fuse_size.h"

namespace yr {
namespace {

constexpr double kNearEnd_m = 0.15;  // where a mend puts a fuse: a hand's breadth from the terminal

// The largest inrush of a load that this run alone feeds.
std::optional<double> inrush_A(const Plan& plan, const Run& run) {
    const Load* load = find(plan.loads, owner_of(run.to));
    return load && load->inrush_A ? std::optional(*load->inrush_A * load->count) : std::nullopt;
}

std::optional<FuseChoice> fitting_fuse(const Case& c, std::size_t run_index, double cable_A) {
    FuseAsk ask{std::max(worst_current_A(c, run_index), 0.1), inrush_A(c.plan, c.plan.runs[run_index]),
                cable_A};
    const auto advice = choose_fuse(ask, FuseSchool::wire);
    return advice ? advice->chosen : std::nullopt;
}

// A link between two batteries carries whatever levels them out: its fuses guard the cable and hold all that
// it may carry, common practice.
std::optional<FuseChoice> link_fuse(double cable_A) {
    std::optional<FuseChoice> largest;
    for (const FuseChoice& f : standard_fuses())
        if (f.rating_A <= cable_A + 1e-9) largest = f;
    return largest;
}

bool feeds_starter(const Plan& plan, const Run& run) {
    for (const Terminal* t : {&run.from, &run.to})
        if (const Load* load = find(plan.loads, owner_of(*t)); load && load->starter) return true;
    return false;
}

void oversize(const Case& c, std::size_t k, double cable_A, std::vector<Finding>& out) {
    const Run& run = c.plan.runs[k];
    for (std::size_t d = 0; d < run.devices.size(); ++d) {
        const Device& fuse = run.devices[d];
        if (fuse.kind != DeviceKind::fuse || fuse.rating_A <= cable_A + 1e-9) continue;
        Finding f{FindingKind::fuse_above_cable,
                  Severity::stop,
                  run.id,
                  fuse.id,
                  {},
                  fuse.rating_A,
                  cable_A,
                  {},
                  {},
                  0,
                  {}};
        if (c.with_mends) {
            Run changed = run;
            if (const auto fit = fitting_fuse(c, k, cable_A)) {
                changed.devices[d].rating_A = fit->rating_A;
                changed.devices[d].fuse = fit->type;
                f.mend = Mend{MendKind::fuse_rating, Put<Run>{changed, {}}, fuse.id, {}, {},
                              fuse.rating_A,         fit->rating_A,         {}};
            } else if (run.size) {
                for (int step = 1; step <= 15 && !f.mend; ++step) {
                    changed.size = step_size(*run.size, step);
                    if (least_ampacity_A(c.plan, changed).value_or(0) >= fuse.rating_A)
                        f.mend = Mend{
                            MendKind::size, Put<Run>{changed, {}}, run.id, run.size, changed.size, 0, 0, {}};
                }
            }
        }
        out.push_back(std::move(f));
    }
}

void missing_or_far(const Case& c, std::size_t k, double cable_A, std::vector<Finding>& out) {
    const Run& run = c.plan.runs[k];
    const double length = run.length_m.value_or(assumption("run_length_m").value);
    const double allowed_m = fuse_distance_m(c.plan);
    for (const EndProtection& end : c.fed.of(run)) {
        if (end.upstream_A && *end.upstream_A <= cable_A + 1e-9) continue;
        const Terminal& terminal = end.at_from ? run.from : run.to;
        const double near_m = end.at_from ? std::min(kNearEnd_m, length) : std::max(0.0, length - kNearEnd_m);
        if (end.own && end.own_distance_m <= allowed_m + 1e-9) continue;
        // A fuse near the other end protects that end: where both ends are fed, each needs its own.
        const bool own_serves_this_end = end.own && end.own_distance_m <= length / 2 + 1e-9;
        if (own_serves_this_end || (end.own && c.fed.of(run).size() == 1)) {
            Finding f{FindingKind::fuse_far,
                      Severity::fix,
                      run.id,
                      end.own->id,
                      {},
                      end.own_distance_m,
                      allowed_m,
                      {},
                      {},
                      0,
                      {}};
            Run changed = run;
            for (Device& d : changed.devices)
                if (d.id == end.own->id) d.at_m = near_m;
            if (c.with_mends)
                f.mend = Mend{MendKind::move_fuse, Put<Run>{changed, {}}, end.own->id, {}, {}, 0, 0, {}};
            out.push_back(std::move(f));
            continue;
        }
        // The shorter a bare cable the better, but a short link from a post to its own fuse block is the
        // usual way.
        if (length <= allowed_m + 1e-9 && end.at_from && run.devices.empty()) continue;
        Finding f{FindingKind::fuse_missing,
                  Severity::stop,
                  run.id,
                  terminal.text(),
                  {},
                  end.upstream_A.value_or(0),
                  cable_A,
                  {},
                  {},
                  0,
                  {}};
        if (c.with_mends) {
            const auto fit = c.fed.of(run).size() > 1 ? link_fuse(cable_A) : fitting_fuse(c, k, cable_A);
            if (fit) {
                Run changed = run;
                Device fuse{new_id(c.plan, "fuse"),
                            run.name + " fuse",
                            DeviceKind::fuse,
                            near_m,
                            fit->type,
                            fit->rating_A,
                            {},
                            {}};
                if (end.at_from)
                    changed.devices.insert(changed.devices.begin(), fuse);
                else
                    changed.devices.push_back(fuse);
                f.mend =
                    Mend{MendKind::add_fuse, Put<Run>{changed, {}}, run.id, {}, {}, 0, fit->rating_A, {}};
            }
        }
        out.push_back(std::move(f));
    }
}

}  // namespace

void inspect_protection(const Case& c, std::vector<Finding>& out) {
    const SupplySide supply(c.plan);
    const auto negative = [&](const Run& r) {
        // the supply side may reach a negative post through a loop of cable only in a broken plan; skip body
        // metal
        return r.body_metal || r.resistance_ohm.has_value();
    };
    for (std::size_t k = 0; k < c.plan.runs.size(); ++k) {
        const Run& run = c.plan.runs[k];
        if (negative(run) || !supply.is_supply(run)) continue;
        const double cable_A = least_ampacity_A(c.plan, run).value_or(0);
        oversize(c, k, cable_A, out);
        if (!feeds_starter(c.plan, run)) missing_or_far(c, k, cable_A, out);
    }
}

}  // namespace yr
