// Rules about control boxes: each channel within its rating and peak, groups within what they share, the main
// above what can be on together, and constant loads on boxes that forget.
#include <algorithm>

#include "control/assign.h"
#include "control/boxes.h"
#include "control/place_on.h"
#include "inspect/rules.h"

namespace yr {
namespace {

double group_limit_A(const Point& box, const std::string& group) {
    for (const ChannelGroup& g : box.groups)
        if (g.name == group) return g.limit_A;
    return 1e9;
}

// A free channel of the same box on which nothing is over: not in this group, strong enough.
std::optional<Mend> to_another_channel(const Plan& plan, const Point& box, const ChannelUse& use,
                                       const std::string& not_group) {
    for (const int number : free_channels(plan, box))
        for (const Channel& c : box.channels) {
            if (c.number != number || channel_rating_A(c) < use.amps || channel_peak_A(c) < use.start_A)
                continue;
            if (!not_group.empty() && c.group == not_group) continue;
            std::vector<const Load*> there{use.load};
            for (const ChannelUse& other : channel_uses(plan, box))
                if (other.load && other.load != use.load && other.channel->group == c.group)
                    there.push_back(other.load);
            if (!c.group.empty() && together_A(plan, there) > group_limit_A(box, c.group)) continue;
            const auto edit = place_on(plan, use.load->id, box.id, number, false);
            if (!edit) continue;
            Mend mend;
            mend.kind = MendKind::move_channel;
            mend.edit = *edit;
            mend.target = use.load->id;
            mend.to_point = box.id;
            mend.channel = number;
            return mend;
        }
    return std::nullopt;
}

void channels(const Case& c, const Point& box, const std::vector<ChannelUse>& uses,
              std::vector<Finding>& out) {
    for (const ChannelUse& use : uses) {
        if (use.at.empty()) continue;
        const double rating = channel_rating_A(*use.channel), peak = channel_peak_A(*use.channel);
        Finding f;
        if (use.amps > rating * (1 + 1e-9))
            f = make_finding(FindingKind::channel_over, Severity::stop, use.at, box.id, {}, use.amps, rating);
        else if (use.start_A > peak * (1 + 1e-9))
            f = make_finding(FindingKind::channel_start, Severity::fix, use.at, box.id, {}, use.start_A,
                             peak);
        else
            continue;
        if (c.with_mends && use.load) f.mend = to_another_channel(c.plan, box, use, {});
        out.push_back(std::move(f));
    }
}

void groups(const Case& c, const Point& box, const std::vector<ChannelUse>& uses, std::vector<Finding>& out) {
    for (const ChannelGroup& group : box.groups) {
        std::vector<const Load*> loads;
        for (const ChannelUse& use : uses)
            if (use.load && use.channel->group == group.name) loads.push_back(use.load);
        const double sum = together_A(c.plan, loads);
        if (sum <= group.limit_A * (1 + 1e-9)) continue;
        Finding f =
            make_finding(FindingKind::group_over, Severity::fix, box.id, group.name, {}, sum, group.limit_A);
        if (c.with_mends) {  // the smallest one whose leaving is enough
            std::vector<const ChannelUse*> by_amps;
            for (const ChannelUse& use : uses)
                if (use.load && use.channel->group == group.name) by_amps.push_back(&use);
            std::sort(by_amps.begin(), by_amps.end(),
                      [](const ChannelUse* a, const ChannelUse* b) { return a->amps < b->amps; });
            for (const ChannelUse* use : by_amps) {
                std::vector<const Load*> rest = loads;
                std::erase(rest, use->load);
                if (together_A(c.plan, rest) > group.limit_A) continue;
                if ((f.mend = to_another_channel(c.plan, box, *use, group.name))) break;
            }
        }
        out.push_back(std::move(f));
    }
}

// Everything that hangs on the box, channels and stud alike.
void mains(const Case& c, const Point& box, std::vector<Finding>& out) {
    const double sum = together_A(c.plan, loads_on(c.plan, box.id));
    double limit = box.main_A.value_or(1e9);
    Id fuse;
    // the fuse of a source that only adds to what the battery feeds (a panel's charger) is no main
    const auto comes_from_source = [&](const Run& r) { return find(c.plan.sources, owner_of(r.from)); };
    const bool by_battery = std::any_of(c.plan.runs.begin(), c.plan.runs.end(), [&](const Run& r) {
        return r.to == box.id && !comes_from_source(r);
    });
    for (const Run& r : c.plan.runs)
        if (r.to == box.id && !(by_battery && comes_from_source(r)))
            for (const Device& d : r.devices)
                if (d.kind == DeviceKind::fuse && d.rating_A < limit) limit = d.rating_A, fuse = d.id;
    if (sum > limit * (1 + 1e-9))
        out.push_back(make_finding(FindingKind::box_main_over, Severity::fix, box.id, fuse, {}, sum, limit));
}

void memory(const Point& box, const std::vector<ChannelUse>& uses, std::vector<Finding>& out) {
    if (box.remembers) return;
    for (const ChannelUse& use : uses)
        if (use.load && use.load->live_when == Condition{})
            out.push_back(make_finding(FindingKind::forgets, Severity::check, use.load->id, box.id, {}));
}

}  // namespace

void inspect_boxes(const Case& c, std::vector<Finding>& out) {
    for (const Point& box : c.plan.points) {
        if (box.kind != PointKind::box) continue;
        const auto uses = channel_uses(c.plan, box);
        channels(c, box, uses, out);
        groups(c, box, uses, out);
        mains(c, box, out);
        memory(box, uses, out);
    }
}

}  // namespace yr
