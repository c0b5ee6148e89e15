#include "plan/validate.h"

#include <algorithm>
#include <cstdio>
#include <map>
#include <string_view>
#include <unordered_set>

#include "catalog/sockets.h"
#include "plan/ranges.h"
#include "plan/variant.h"
#include "units/text.h"

namespace yr {
namespace {

class Checker {
  public:
    explicit Checker(const Plan& plan) : plan_(plan) {}

    std::vector<Error> run() {
        collect();
        check_ranges(plan_, errors_);
        for (const Stock& s : plan_.policy.stock)
            if (!conductor(s.size))
                add(ErrorCode::unknown_size, "policy, stock", name_of(s.size), Want::a_size_of_the_tables);
        for (const Point& p : plan_.points) check_point(p);
        for (const Source& s : plan_.sources) check_source(s);
        for (const Battery& b : plan_.batteries) check_place("batteries, " + b.name, b.place);
        for (const Inverter& i : plan_.inverters) check_inverter(i);
        for (const Connector& c : plan_.connectors) check_connector(c);
        check_windings();
        check_survey();
        check_variants();
        for (const Run& r : plan_.runs) check_run(r);
        for (const Load& l : plan_.loads) check_load(l);
        for (const State& s : plan_.states)
            for (const Id& id : s.closed)
                if (std::find(s.opened.begin(), s.opened.end(), id) != s.opened.end())
                    add(ErrorCode::out_of_range, "states, " + s.name + ", closed and opened", id,
                        Want::either_closed_or_opened);
        for (const Day& d : plan_.days) check_day(d);
        check_geometry();
        if (plan_.states.empty()) add(ErrorCode::empty, "states", {}, Want::at_least_one_state);
        return std::move(errors_);
    }

  private:
    void add(ErrorCode code, std::string place, std::string given, Wanted wanted) {
        errors_.push_back({code, std::move(place), std::move(given), std::move(wanted)});
    }

    template <class T>
    void collect_ids(const char* list, const std::vector<T>& things) {
        for (const T& t : things) {
            if (!ids_.insert(t.id).second)
                add(ErrorCode::duplicate_id, std::string(list) + ", " + t.name, t.id, Want::an_id_of_its_own);
            if (t.id.find('.') != std::string::npos || t.id.empty())
                add(ErrorCode::unknown_name, std::string(list) + ", " + t.name + ", id", t.id,
                    Want::an_id_without_a_point);
        }
    }

    void collect() {
        ids_.reserve(3 * plan_.runs.size() + plan_.loads.size());
        terminals_.reserve(2 * plan_.loads.size() + plan_.points.size());
        collect_ids("places", plan_.places);
        collect_ids("waypoints", plan_.waypoints);
        collect_ids("ways", plan_.ways);
        collect_ids("points", plan_.points);
        collect_ids("sources", plan_.sources);
        collect_ids("batteries", plan_.batteries);
        collect_ids("inverters", plan_.inverters);
        collect_ids("connectors", plan_.connectors);
        collect_ids("jackets", plan_.jackets);
        collect_ids("variants", plan_.variants);
        collect_ids("survey points", plan_.survey.points);
        collect_ids("runs", plan_.runs);
        collect_ids("loads", plan_.loads);
        collect_ids("states", plan_.states);
        collect_ids("days", plan_.days);
        collect_ids("panel", plan_.panel);
        collect_ids("accepted", plan_.accepted);
        collect_ids("marks", plan_.marks);
        for (const Run& r : plan_.runs)
            for (const Device& d : r.devices)
                if (d.kind == DeviceKind::fuse) fuses_.insert(d.id);
        for (const Run& r : plan_.runs) collect_ids(("runs, " + r.name).c_str(), r.devices);
        for (const Place& p : plan_.places) places_.insert(p.id);
        for (const Point& p : plan_.points) {
            terminals_.insert(p.id);
            if (p.kind == PointKind::chassis) chassis_.insert(p.id);
        }
        for (const Battery& b : plan_.batteries) terminals_.insert({pos_of(b.id), neg_of(b.id)});
        for (const Inverter& i : plan_.inverters) terminals_.insert({pos_of(i.id), neg_of(i.id)});
        for (const Load& l : plan_.loads)
            if (l.inverter.empty()) terminals_.insert({pos_of(l.id), neg_of(l.id)});
        for (const Source& s : plan_.sources) {
            terminals_.insert(out_of(s.id));
            if (s.kind == SourceKind::converter) terminals_.insert(in_of(s.id));
        }
    }

    void check_place(const std::string& where, const Id& place) {
        if (!place.empty() && !places_.contains(place))
            add(ErrorCode::missing_reference, where + ", place", place, Want::a_place_of_this_plan);
    }

    void check_terminal(const std::string& where, const Terminal& t) {
        if (!terminals_.contains(t))
            add(ErrorCode::missing_reference, where, t.text(), Want::a_terminal_of_this_plan);
    }

    void check_point(const Point& p) {
        const std::string where = "points, " + p.name;
        check_place(where, p.place);
        if (p.kind == PointKind::ground && !chassis_.contains(p.bonded_to))
            add(ErrorCode::missing_reference, where + ", bonded_to", p.bonded_to,
                Want::a_chassis_part_of_this_plan);
        if (p.kind != PointKind::ground && !p.bonded_to.empty())
            add(ErrorCode::unknown_name, where + ", bonded_to", p.bonded_to,
                Want::nothing_only_a_ground_point_is_bonded);
        if (!p.return_at.empty()) check_terminal(where + ", return_at", p.return_at);
        check_condition(where + ", awake_when", p.awake_when);
        check_thresholds(where, "cutoff_V", p.cutoff_V, "recover_V", p.recover_V);
        check_box(p, where);
    }

    void check_box(const Point& p, const std::string& where) {
        if (p.kind != PointKind::box && !p.channels.empty())
            add(ErrorCode::unknown_name, where + ", channels", {}, Want::a_box_only_a_box_has_channels);
        std::unordered_set<int> numbers;
        std::unordered_set<std::string> groups;
        for (const ChannelGroup& g : p.groups) {
            if (!groups.insert(g.name).second)
                add(ErrorCode::duplicate_id, where + ", groups", g.name, Want::a_name_of_its_own);
            if (!(g.limit_A > 0))
                add(ErrorCode::out_of_range, where + ", group " + g.name + ", limit_A", shown(g.limit_A),
                    Want::more_than_0_a);
        }
        for (const Channel& c : p.channels) {
            const std::string channel = where + ", channel " + std::to_string(c.number);
            if (c.number < 1 || !numbers.insert(c.number).second)
                add(ErrorCode::duplicate_id, channel, std::to_string(c.number),
                    Want::a_number_of_its_own_from_1);
            if (!c.group.empty() && !groups.contains(c.group))
                add(ErrorCode::missing_reference, channel + ", group", c.group, Want::a_group_of_this_box);
        }
    }

    void check_connector(const Connector& c) {
        const std::string where = "connectors, " + c.name;
        check_place(where, c.place);
        if (!c.socket.empty() && !socket_named(c.socket))
            add(ErrorCode::unknown_name, where + ", socket", c.socket, Want::a_socket_of_the_tables);
    }

    void check_pins(const Run& r, const std::string& where) {
        for (const PinUse& use : r.pins) {
            const Connector* c = find(plan_.connectors, use.connector);
            if (!c) {
                add(ErrorCode::missing_reference, where + ", pins", use.connector,
                    Want::a_connector_of_this_plan);
            } else if (const auto most = pins_of(*c); most && use.pin > *most) {
                add(ErrorCode::out_of_range, where + ", pins", c->name + " " + std::to_string(use.pin),
                    Want::a_pin_that_this_connector_has);
            }
        }
        if (!r.jacket.empty() && !find(plan_.jackets, r.jacket))
            add(ErrorCode::missing_reference, where + ", jacket", r.jacket, Want::a_jacket_of_this_plan);
    }

    static std::optional<int> pins_of(const Connector& c) {
        if (c.pins) return static_cast<int>(*c.pins);
        const Socket* socket = c.socket.empty() ? nullptr : socket_named(c.socket);
        return socket ? std::optional(static_cast<int>(socket->pins.size())) : std::nullopt;
    }

    // Loads that a condition waits for; alternatives are about key, engine and switches only.
    void check_condition(const std::string& where, const Condition& c) {
        for (const Id& id : c.circuits)
            if (!find(plan_.loads, id))
                add(ErrorCode::missing_reference, where + ", circuits", id, Want::a_load_of_this_plan);
        for (const Condition& any : c.any_of)
            if (!any.circuits.empty() || any.charging_above_V || any.delay_s || any.holds_s || any.above_C ||
                any.below_C || !any.any_of.empty())
                add(ErrorCode::unknown_name, where + ", any_of", {},
                    Want::key_engine_and_switches_volts_circuits_and);
    }

    void check_source(const Source& s) {
        const std::string where = "sources, " + s.name;
        check_condition(where + ", works_when", s.works_when);
        check_place(where, s.place);
        check_terminal(where + ", return_at", s.return_at);
        for (std::size_t k = 1; k < s.curve.size(); ++k)
            if (s.curve[k].first <= s.curve[k - 1].first)
                add(ErrorCode::out_of_range, where + ", curve", shown(s.curve[k].first), Want::rising_rpm);
        if (!s.charges.empty() && !find(plan_.batteries, s.charges))
            add(ErrorCode::missing_reference, where + ", charges", s.charges, Want::a_battery_of_this_plan);
        check_thresholds(where, "enable_off_V", s.enable_off_V, "enable_on_V", s.enable_on_V);
    }

    // The lower of two thresholds must stand below the upper: between them lies the memory.
    void check_thresholds(const std::string& where, const char* low_name, const std::optional<double>& low,
                          const char* high_name, const std::optional<double>& high) {
        if (low && high && *low >= *high)
            add(ErrorCode::out_of_range, where + ", " + low_name, shown(*low), {Want::less_than, high_name});
    }

    void check_rising(const std::string& where, const std::vector<std::pair<double, double>>& curve) {
        for (std::size_t k = 1; k < curve.size(); ++k)
            if (curve[k].first <= curve[k - 1].first)
                add(ErrorCode::out_of_range, where, shown(curve[k].first), Want::rising_shares);
    }

    void check_inverter(const Inverter& i) {
        const std::string where = "inverters, " + i.name;
        check_condition(where + ", works_when", i.works_when);
        check_place(where, i.place);
        check_thresholds(where, "cutoff_V", i.cutoff_V, "recover_V", i.recover_V);
        check_rising(where + ", curve", i.curve);
        for (const auto& [share, efficiency] : i.curve)
            if (!(efficiency > 0 && efficiency <= 1))
                add(ErrorCode::out_of_range, where + ", curve", shown(efficiency),
                    Want::an_efficiency_from_0_to_1);
    }

    // The shares of regulators on one winding are of one current.
    void check_day(const Day& d) {
        const std::string where = "days, " + d.name;
        for (const DayPart& part : d.parts)
            if (!find(plan_.states, part.state))
                add(ErrorCode::missing_reference, where + ", parts", part.state, Want::a_state_of_this_plan);
        if (!d.months.empty() && d.months.size() != 12)
            add(ErrorCode::out_of_range, where + ", months", std::to_string(d.months.size()),
                Want::twelve_months_or_none);
        if (d.coldest_C && d.hottest_C && *d.coldest_C > *d.hottest_C)
            add(ErrorCode::out_of_range, where + ", coldest_C", std::to_string(*d.coldest_C),
                Want::no_more_than_the_hottest);
    }

    // A spot is said whole or not at all; ways join waypoints that stand somewhere.
    void check_geometry() {
        each_list(plan_, [&](const auto& things) {
            for (const auto& x : things)
                if constexpr (requires { x.at.spot(); }) {
                    const int said =
                        int(x.at.x_m.has_value()) + int(x.at.y_m.has_value()) + int(x.at.z_m.has_value());
                    if (said != 0 && said != 3)
                        add(ErrorCode::out_of_range, x.name + ", x_m, y_m, z_m", std::to_string(said),
                            Want::all_three_or_none);
                }
        });
        for (const Waypoint& w : plan_.waypoints)
            if (!w.at.spot())
                add(ErrorCode::empty, "waypoints, " + w.name + ", x_m", {}, Want::where_it_stands);
        for (const Way& w : plan_.ways) {
            const std::string where = "ways, " + w.name;
            check_place(where, w.place);
            for (const Id& end : {w.from, w.to})
                if (!find(plan_.waypoints, end))
                    add(ErrorCode::missing_reference, where, end, Want::a_waypoint_of_this_plan);
            for (const std::string_view layer : split(w.covering, ','))
                if (const std::string kind = to_lower(trim(layer));
                    !kind.empty() &&
                    std::find(std::begin(kCoverings), std::end(kCoverings), kind) == std::end(kCoverings)) {
                    std::string all;
                    for (const char* c : kCoverings) all += (all.empty() ? "" : ", ") + std::string(c);
                    add(ErrorCode::unknown_name, where + ", covering", kind, Wanted(Want::as_said, all));
                }
            if (w.from == w.to)
                add(ErrorCode::out_of_range, where + ", to", w.to, Want::another_end_than_its_beginning);
        }
    }

    void check_windings() {
        std::map<std::string, double> sums;
        for (const Source& s : plan_.sources)
            if (!s.winding.empty()) sums[s.winding] += s.share.value_or(0);
        for (const auto& [winding, sum] : sums)
            if (sum > 1 + 1e-9)
                add(ErrorCode::out_of_range, "sources, winding " + winding + ", share", shown(sum),
                    Want::shares_of_1_in_all);
    }

    void check_survey() {
        for (const SurveyReading& r : plan_.survey.readings)
            for (const Id* id : {&r.point, &r.drawn_at})
                if (!(id == &r.drawn_at && id->empty()) && !find(plan_.survey.points, *id))
                    add(ErrorCode::missing_reference, "survey, readings", *id, Want::a_point_of_the_survey);
    }

    void check_variants() {
        if (!plan_.active.empty() && !find(plan_.variants, plan_.active))
            add(ErrorCode::missing_reference, "active", plan_.active, Want::a_variant_of_this_plan);
        for (const Variant& v : plan_.variants) {
            auto errors = validate(with_variant(plan_, v.id));
            for (Error& e : errors) {
                e.place = "variants, " + v.name + ": " + e.place;
                errors_.push_back(std::move(e));
            }
        }
    }

    void check_run(const Run& r) {
        const std::string where = "runs, " + r.name;
        check_terminal(where + ", from", r.from);
        check_terminal(where + ", to", r.to);
        if (r.from == r.to)
            add(ErrorCode::out_of_range, where + ", to", r.to.text(), Want::another_end_than_its_beginning);
        for (const Id& p : r.places) check_place(where, p);
        for (const Id& w : r.via)
            if (!find(plan_.waypoints, w))
                add(ErrorCode::missing_reference, where + ", via", w, Want::a_waypoint_of_this_plan);
        if (r.length_least_m && *r.length_least_m > r.length_m.value_or(1e9) + 1e-9)
            add(ErrorCode::out_of_range, where + ", length_least_m", shown(*r.length_least_m),
                Want::no_more_than_length_m);
        if (r.size && !conductor(*r.size, r.material))
            add(ErrorCode::unknown_size, where + ", size", name_of(*r.size), Want::a_size_of_the_tables);
        for (const Device& d : r.devices) {
            if (d.kind == DeviceKind::fuse && !(d.rating_A > 0))
                add(ErrorCode::out_of_range, where + ", " + d.name + ", rating_A", shown(d.rating_A),
                    Want::more_than_0_a);
            if (d.at_m && r.length_m && *d.at_m > *r.length_m + 1e-9)
                add(ErrorCode::out_of_range, where + ", " + d.name + ", at_m", shown(*d.at_m),
                    Want::no_more_than_the_run_s_length);
            check_thresholds(where + ", " + d.name, "open_V", d.open_V, "close_V", d.close_V);
            if (!d.coil.empty() && !find(plan_.loads, d.coil))
                add(ErrorCode::missing_reference, where + ", " + d.name + ", coil", d.coil,
                    Want::a_load_of_this_plan);
            if (!d.grounds_without.empty() && !find(plan_.loads, d.grounds_without))
                add(ErrorCode::missing_reference, where + ", " + d.name + ", grounds_without",
                    d.grounds_without, Want::a_load_of_this_plan);
            check_condition(where + ", " + d.name + ", closed_when", d.closed_when);
            if (!d.measures.empty() && !find(plan_.batteries, d.measures))
                add(ErrorCode::missing_reference, where + ", " + d.name + ", measures", d.measures,
                    Want::a_battery_of_this_plan);
            check_rising(where + ", " + d.name + ", pulse_curve", d.pulse_curve);
            for (const auto& [warmth, share] : d.pulse_curve)
                if (!(share >= 0 && share <= 1))
                    add(ErrorCode::out_of_range, where + ", " + d.name + ", pulse_curve", shown(share),
                        Want::a_share_from_0_to_1);
        }
        check_pins(r, where);
        if (r.channel != 0 && !channel_of(plan_, r))
            add(ErrorCode::missing_reference, where + ", channel", std::to_string(r.channel),
                Want::a_channel_of_the_box_at_its_beginning);
        if (r.channel > 0 && !used_channels_.insert(r.from.text() + " " + std::to_string(r.channel)).second)
            add(ErrorCode::duplicate_id, where + ", channel", std::to_string(r.channel),
                Want::a_channel_that_no_other_run_hangs_on);
        if (!r.tap_of.empty() && !fuses_.contains(r.tap_of))
            add(ErrorCode::missing_reference, where + ", tap_of", r.tap_of, Want::a_fuse_of_this_plan);
    }

    void check_load(const Load& l) {
        const std::string where = "loads, " + l.name;
        check_condition(where + ", live_when", l.live_when);
        if (!l.inverter.empty() && (l.live_when.charging_above_V || !l.live_when.circuits.empty()))
            add(ErrorCode::out_of_range, where + ", live_when", {},
                Want::key_engine_and_switches_since_it_runs_on);
        if (std::find(l.live_when.circuits.begin(), l.live_when.circuits.end(), l.id) !=
            l.live_when.circuits.end())
            add(ErrorCode::out_of_range, where + ", live_when", l.id, Want::another_circuit_than_its_own);
        check_place(where, l.place);
        if (!(l.draw.value > 0))
            add(ErrorCode::out_of_range, where + ", draw", shown(l.draw.value), Want::more_than_0);
        if (l.draw_least && !(*l.draw_least > 0 && *l.draw_least <= l.draw.value))
            add(ErrorCode::out_of_range, where + ", draw_least", shown(*l.draw_least),
                Want::more_than_0_and_no_more_than_the_draw);
        if (l.count < 1)
            add(ErrorCode::out_of_range, where + ", count", shown(l.count), Want::from_1_or_more);
        if (!l.inverter.empty() && !find(plan_.inverters, l.inverter))
            add(ErrorCode::missing_reference, where + ", inverter", l.inverter,
                Want::an_inverter_of_this_plan);
        if (!l.inverter.empty() && l.draw.kind != DrawKind::power)
            add(ErrorCode::out_of_range, where + ", draw", shown(l.draw.value),
                Want::watts_since_it_runs_on_mains);
        check_thresholds(where, "least_V", l.least_V, "most_V", l.most_V);
        check_rising(where + ", line_curve", l.line_curve);
    }

    const Plan& plan_;
    std::vector<Error> errors_;
    std::unordered_set<std::string_view> ids_, places_, chassis_, fuses_;  // of the plan, which outlives them
    std::unordered_set<std::string> used_channels_;
    std::unordered_set<Terminal> terminals_;
};

}  // namespace

std::vector<Error> validate(const Plan& plan) {
    return Checker(plan).run();
}

}  // namespace yr
