// Everything behind the master: what hangs on the battery's post beside it moves to a bus bar behind it.
#include <algorithm>

#include "catalog/conductors.h"
#include "catalog/fuses.h"
#include "inspect/rules.h"
#include "plan/edit.h"
#include "plan/variant.h"

namespace yr {
namespace {

constexpr double kToBar_m = 0.3, kMaster_m = 0.1;
// Of a main fuse; what one and two of the thickest cables stand.
constexpr double kLeastMain_A = 200, kOneCable_A = 300, kTwoCables_A = 450;
constexpr double kLargerMasters_A[] = {500, 600};  // that are to be had; common practice, no source

bool gives(const Plan& plan, const Terminal& end) {
    return std::any_of(plan.sources.begin(), plan.sources.end(),
                       [&](const Source& s) { return end == out_of(s.id); });
}

bool joins_batteries(const Plan& plan, const Run& r) {
    return find(plan.batteries, r.from.owner) && find(plan.batteries, r.to.owner);
}

double thickness_mm2(const Run& r) {
    if (!r.size) return 0;
    const auto wire = conductor(*r.size, r.material);
    return wire ? wire->area_mm2 : 0;
}

// A field wire through the master's second pole: with the master off no alternator feeds what is behind it.
void second_pole(Plan& plan, const Device& master) {
    for (Source& s : plan.sources) {
        if (s.kind != SourceKind::alternator && s.kind != SourceKind::stator) continue;
        for (const std::string& name : master.closed_when.switches)
            if (std::find(s.works_when.switches.begin(), s.works_when.switches.end(), name) ==
                s.works_when.switches.end())
                s.works_when.switches.push_back(name);
    }
}

}  // namespace

std::vector<Mend> behind_the_master(const Plan& plan, const Id& run_id, const Id& device) {
    const Run& run = *find(plan.runs, run_id);
    const Battery* battery = find(plan.batteries, run.from.owner);
    if (!battery || run.from.post != Post::pos) return {};
    const Terminal post = run.from;
    Plan p = plan;
    Point bar;
    bar.id = new_id(plan, "master-bus"), bar.name = name_of(plan, device) + " bus";
    bar.kind = PointKind::bus, bar.place = battery->place;
    p.points.push_back(bar);
    Run to_bar;
    to_bar.id = new_id(plan, "master-cable"), to_bar.name = name_of(plan, device) + " cable";
    to_bar.from = post, to_bar.to = bar.id, to_bar.length_m = kToBar_m, to_bar.material = run.material;
    to_bar.insulation_C = run.insulation_C;
    if (!battery->place.empty()) to_bar.places = {battery->place};
    const Run* thickest = &run;
    for (Run& r : p.runs) {
        const bool own = r.id == run_id;
        const bool beside = (r.from == post || r.to == post) && !gives(plan, r.from) && !gives(plan, r.to) &&
                            !joins_batteries(plan, r);
        if (!own && !beside) continue;
        (r.from == post ? r.from : r.to) = bar.id;
        const Run* before = find(plan.runs, r.id);
        if (thickness_mm2(*before) * before->parallel > thickness_mm2(*thickest) * thickest->parallel)
            thickest = before;
        if (!own) continue;
        const auto at =
            std::find_if(r.devices.begin(), r.devices.end(), [&](const Device& d) { return d.id == device; });
        Device master = *at;
        r.devices.erase(at);
        second_pole(p, master);
        master.at_m = kMaster_m;
        to_bar.devices.push_back(std::move(master));
    }
    const double said_A = to_bar.devices.empty() ? 0 : to_bar.devices.front().contact_A.value_or(0);
    std::vector<Mend> mends;
    const auto offer = [&](const WireSize& size, int parallel, double fuse_A, double contact_A) {
        Plan with = p;
        Run cable = to_bar;
        cable.size = size, cable.parallel = parallel;
        if (contact_A > 0) cable.devices.front().contact_A = contact_A;
        if (fuse_A > 0) {
            Device fuse;
            fuse.id = new_id(plan, "master-fuse"), fuse.name = to_bar.name + " fuse";
            fuse.fuse = FuseType::high, fuse.rating_A = fuse_A, fuse.at_m = kMaster_m / 2;
            cable.devices.insert(cable.devices.begin(), fuse);
        }
        with.runs.push_back(std::move(cable));
        mends.push_back({MendKind::behind_master,
                         edit_between(plan, with),
                         device,
                         {},
                         {},
                         said_A,
                         contact_A,
                         bar.id,
                         0});
    };
    const WireSize most = sizes_of(plan.policy.sizes).back();
    const auto offer_all = [&](double contact_A, double least_fuse_A) {
        if (thickest->size) offer(*thickest->size, thickest->parallel, 0, contact_A);
        for (const int parallel : {1, 2}) offer(most, parallel, 0, contact_A);
        // without a starter nothing but a fuse excuses a cable from the post
        for (const double rating : fuse_kind(FuseType::high).ratings_A)
            if (rating >= least_fuse_A)
                offer(most, rating > kTwoCables_A ? 3 : rating > kOneCable_A ? 2 : 1, rating, contact_A);
    };
    offer_all(0, kLeastMain_A);
    // what it switches then may be more than its contacts carry
    for (const double larger_A : kLargerMasters_A)
        if (said_A > 0 && said_A < larger_A) offer_all(larger_A, said_A);
    return mends;
}

}  // namespace yr
