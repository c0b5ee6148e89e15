#include "inspect/two_boxes.h"

#include <algorithm>
#include <cmath>

#include "control/hang_on.h"
#include "control/place_on.h"
#include "inspect/checked_sizing.h"
#include "plan/roles.h"
#include "plan/variant.h"
#include "routes/furnish.h"
#include "routes/lay.h"
#include "routes/where.h"
#include "size/run_check.h"
#include "solve/settle.h"

namespace yr {
namespace {

constexpr std::size_t kLeastLoads = 4, kLeastMoved = 2;
constexpr double kTrunkShare = 0.7;  // loads are never all on: what a trunk carries of what hangs on it
constexpr double kSizing_s = 10;

struct Hung {
    Id load, run;
    Spot spot;
    double amps = 0;
};

// What stands somewhere and hangs on a channel of the box.
std::vector<Hung> hung_on(const Plan& plan, const Id& box) {
    std::vector<Hung> all;
    for (const Run& r : plan.runs) {
        const Load* load =
            r.from.owner == box && r.channel > 0 ? find(plan.loads, std::string_view(r.to.owner)) : nullptr;
        const auto spot = load ? spot_of(plan, load->id) : std::nullopt;
        if (!spot || load->later) continue;
        const double volts = plan.vehicle.nominal_V;
        const double amps = load->count * (load->draw.kind == DrawKind::current ? load->draw.value
                                           : load->draw.kind == DrawKind::power ? load->draw.value / volts
                                                                                : volts / load->draw.value);
        all.push_back({load->id, r.id, *spot, amps});
    }
    return all;
}

class Splitter {
  public:
    Splitter(const Plan& plan, const Id& box, const std::atomic<bool>* stop)
        : plan_(plan), box_(box), stop_(stop), net_(plan), hung_(hung_on(plan, box)) {}

    std::optional<BoxOptions> run() {
        const auto here = spot_of(plan_, box_);
        const Run* feed = feed_of(plan_, box_);
        if (hung_.size() < kLeastLoads || net_.empty() || !here || !feed) return std::nullopt;
        feed_ = feed;
        const auto supply = spot_of(plan_, feed->from.owner);
        const auto map = where_to_stand(plan_, box_, std::vector<RunWeight>(plan_.runs.size(), {1, 0}));
        if (!supply || !map) return std::nullopt;
        BoxOptions out;
        out.box = box_;
        take(out, BoxLayout::as_it_is, plan_, {}, {});
        if (stopped()) return out;
        if (const auto spot = best_second(*map, *here, *supply)) split(out, *spot, *here);
        if (stopped()) return out;
        if (const StandSpot* by = nearest(*map, *supply); by && distance_m(by->spot, *here) > 0.5)
            if (const auto moved = stand(plan_, box_, by->spot)) {
                Plan there = plan_;
                if (yr::apply(there, *moved)) take(out, BoxLayout::by_the_supply, there, {}, {});
            }
        return out;
    }

  private:
    bool stopped() const { return stop_ && *stop_; }

    double way_m(const Spot& a, const Spot& b) const {
        const auto path = net_.shortest(a, b);
        return path ? path->length_m() : distance_m(a, b) * 1.5;
    }

    static const StandSpot* nearest(const StandMap& map, const Spot& to) {
        const StandSpot* best = nullptr;
        for (const StandSpot& s : map.spots)
            if (s.allowed && (!best || distance_m(s.spot, to) < distance_m(best->spot, to))) best = &s;
        return best;
    }

    // Ampere metres that a second box there saves: branches shortened, a trunk of its own laid.
    double gain(const Spot& spot, const Spot& here, const Spot& supply, std::size_t& moved) const {
        double saved = 0, amps = 0;
        moved = 0;
        for (const Hung& h : hung_) {
            const double nearer = way_m(here, h.spot) - way_m(spot, h.spot);
            if (nearer <= 0) continue;
            saved += nearer * h.amps, amps += h.amps, ++moved;
        }
        const double trunk = way_m(supply, spot) - way_m(supply, here);  // besides that there is
        return saved - std::max(0.0, trunk) * kTrunkShare * amps;
    }

    // Where a second box saves most; what a trunk costs counts less than branches where it saves nothing, so
    // that the option is shown beside even then.
    std::optional<Spot> best_second(const StandMap& map, const Spot& here, const Spot& supply) const {
        std::optional<Spot> best;
        double most = -1e300;
        for (const StandSpot& s : map.spots) {
            if (!s.allowed || stopped() || distance_m(s.spot, here) < 0.5) continue;
            std::size_t moved = 0;
            const double g = gain(s.spot, here, supply, moved);
            if (moved < kLeastMoved || moved == hung_.size() || g <= most) continue;
            most = g, best = s.spot;
        }
        return best;
    }

    void split(BoxOptions& out, const Spot& spot, const Spot& here) {
        Plan there = plan_;
        const Point& old = *find(plan_.points, std::string_view(box_));
        Point second = old;
        second.id = new_id(there, "box");
        second.name = old.name + ", second";
        second.at = stand_at(spot);
        second.place = place_at(there, spot);
        second.channels.clear(), second.groups.clear(), second.main_A.reset();
        std::vector<std::pair<Id, int>> moves;
        for (const Hung& h : hung_) {
            if (way_m(here, h.spot) <= way_m(spot, h.spot)) continue;
            const Run& r = *find(plan_.runs, std::string_view(h.run));
            const auto channel = std::find_if(old.channels.begin(), old.channels.end(),
                                              [&](const Channel& c) { return c.number == r.channel; });
            if (channel == old.channels.end()) continue;
            Channel copy = *channel;
            copy.number = static_cast<int>(second.channels.size()) + 1;
            copy.group.clear();
            second.channels.push_back(copy);
            moves.emplace_back(h.load, copy.number);
        }
        if (moves.size() < kLeastMoved) return;
        there.points.push_back(second);
        Run trunk = *feed_;
        trunk.id = new_id(there, "run");
        trunk.name = second.name + " feed";
        trunk.to = second.id;
        trunk.length_m.reset(), trunk.length_least_m.reset(), trunk.via.clear(), trunk.number.clear();
        for (std::size_t k = 0; k < trunk.devices.size(); ++k)
            trunk.devices[k].id = trunk.id + "-device-" + std::to_string(k + 1);
        there.runs.push_back(trunk);
        std::vector<Id> moved;
        for (const auto& [load, channel] : moves) {
            const auto put = place_on(there, load, second.id, channel, false);
            if (!put || !yr::apply(there, *put)) return;
            moved.push_back(load);
        }
        take(out, BoxLayout::two_boxes, std::move(there), second.id, std::move(moved));
    }

    // Cables that end on the box or boxes as long as their ways and as thick as they need.
    void take(BoxOptions& out, BoxLayout layout, Plan there, const Id& second, std::vector<Id> moved) {
        std::vector<Id> follow;
        SizingAsk ask;
        ask.most_s = kSizing_s, ask.as_now = true, ask.cancel = stop_;
        for (const Run& r : there.runs) {
            const bool ends = r.from.owner == box_ || r.to.owner == box_ ||
                              (!second.empty() && (r.from.owner == second || r.to.owner == second));
            if (!ends || r.body_metal || r.resistance_ohm) continue;
            if (ends_of(there, r)) follow.push_back(r.id);
            if (size_is_open(there, r)) ask.only.push_back(r.id);
        }
        BoxOption o;
        o.layout = layout, o.second = second, o.moved = std::move(moved);
        if (!yr::apply(there, follow_way(there, follow))) return;
        lay(there);
        if (!ask.only.empty()) {
            if (const auto sized = size_checked(there, ask); sized &&
                                                             sized->sizing.status != SizingStatus::stopped &&
                                                             sized->sizing.status != SizingStatus::impossible)
                o.sized = yr::apply(there, sized->sizing.edit).has_value();
        } else {
            o.sized = true;
        }
        lay(there);
        o.kg = cables_kg(there);
        for (const Run& r : there.runs)
            if (r.size && !r.body_metal) o.money += run_money(there, r, *r.size);
        for (const Id& id : follow) o.metres += length_or_assumed_m(*find(there.runs, std::string_view(id)));
        for (const Solution& s : solve_all(there)) {
            if (!s.point.settled) continue;
            for (const Hung& h : hung_)
                for (std::size_t k = 0; k < there.loads.size(); ++k)
                    if (there.loads[k].id == h.load && s.point.loads[k].status == LoadStatus::on)
                        o.worst_drop_V = std::max(o.worst_drop_V, s.point.loads[k].drop_V);
        }
        o.edit = edit_between(plan_, there);
        o.plan = std::move(there);
        out.options.push_back(std::move(o));
    }

    const Plan& plan_;
    const Id& box_;
    const std::atomic<bool>* stop_;
    const WayNet net_;
    const std::vector<Hung> hung_;
    const Run* feed_ = nullptr;
};

}  // namespace

std::optional<BoxOptions> one_box_or_two(const Plan& plan, const Id& box, const std::atomic<bool>* stop) {
    const Point* p = find(plan.points, std::string_view(box));
    if (!p || p->kind != PointKind::box) return std::nullopt;
    return Splitter(plan, box, stop).run();
}

}  // namespace yr
