#include "plan/validate.h"

#include <algorithm>
#include <cstdio>
#include <map>
#include <unordered_set>

#include "plan/variant.h"

namespace yr {
namespace {

// As a person would write it: "12.8", not "12.800000".
std::string shown(double value) {
    char text[32];
    std::snprintf(text, sizeof text, "%.6g", value);
    return text;
}

class Checker {
  public:
    explicit Checker(const Plan& plan) : plan_(plan) {}

    std::vector<Error> run() {
        collect();
        for (const Stock& s : plan_.policy.stock)
            if (!conductor(s.size))
                add(ErrorCode::unknown_size, "policy, stock", name_of(s.size), "a size of the tables");
        for (const Point& p : plan_.points) check_point(p);
        for (const Source& s : plan_.sources) check_source(s);
        for (const Battery& b : plan_.batteries) check_place("batteries, " + b.name, b.place);
        for (const Inverter& i : plan_.inverters) check_inverter(i);
        check_windings();
        check_survey();
        check_variants();
        for (const Run& r : plan_.runs) check_run(r);
        for (const Load& l : plan_.loads) check_load(l);
        if (plan_.states.empty()) add(ErrorCode::empty, "states", {}, "at least one state");
        return std::move(errors_);
    }

  private:
    void add(ErrorCode code, std::string place, std::string given, std::string wanted) {
        errors_.push_back({code, std::move(place), std::move(given), std::move(wanted)});
    }

    template <class T>
    void collect_ids(const char* list, const std::vector<T>& things) {
        for (const T& t : things) {
            if (!ids_.insert(t.id).second)
                add(ErrorCode::duplicate_id, std::string(list) + ", " + t.name, t.id, "an id of its own");
            if (t.id.find('.') != std::string::npos || t.id.empty())
                add(ErrorCode::unknown_name, std::string(list) + ", " + t.name + ", id", t.id,
                    "an id without a point");
        }
    }

    void collect() {
        collect_ids("places", plan_.places);
        collect_ids("points", plan_.points);
        collect_ids("sources", plan_.sources);
        collect_ids("batteries", plan_.batteries);
        collect_ids("inverters", plan_.inverters);
        collect_ids("variants", plan_.variants);
        collect_ids("survey points", plan_.survey.points);
        collect_ids("runs", plan_.runs);
        collect_ids("loads", plan_.loads);
        collect_ids("states", plan_.states);
        collect_ids("panel", plan_.panel);
        for (const Run& r : plan_.runs)
            for (const Device& d : r.devices)
                if (d.kind == DeviceKind::fuse) fuses_.insert(d.id);
        for (const Run& r : plan_.runs) collect_ids(("runs, " + r.name).c_str(), r.devices);
        for (const Place& p : plan_.places) places_.insert(p.id);
        for (const Point& p : plan_.points) {
            terminals_.insert(p.id);
            if (p.kind == PointKind::chassis) chassis_.insert(p.id);
        }
        for (const Battery& b : plan_.batteries) terminals_.insert({b.id + ".pos", b.id + ".neg"});
        for (const Inverter& i : plan_.inverters) terminals_.insert({i.id + ".pos", i.id + ".neg"});
        for (const Load& l : plan_.loads)
            if (l.inverter.empty()) terminals_.insert({l.id + ".pos", l.id + ".neg"});
        for (const Source& s : plan_.sources) {
            terminals_.insert(s.id + ".out");
            if (s.kind == SourceKind::converter) terminals_.insert(s.id + ".in");
        }
    }

    void check_place(const std::string& where, const Id& place) {
        if (!place.empty() && !places_.contains(place))
            add(ErrorCode::missing_reference, where + ", place", place, "a place of this plan");
    }

    void check_terminal(const std::string& where, const Terminal& t) {
        if (!terminals_.contains(t)) add(ErrorCode::missing_reference, where, t, "a terminal of this plan");
    }

    void check_point(const Point& p) {
        const std::string where = "points, " + p.name;
        check_place(where, p.place);
        if (p.kind == PointKind::ground && !chassis_.contains(p.bonded_to))
            add(ErrorCode::missing_reference, where + ", bonded_to", p.bonded_to,
                "a chassis part of this plan");
        if (p.kind != PointKind::ground && !p.bonded_to.empty())
            add(ErrorCode::unknown_name, where + ", bonded_to", p.bonded_to,
                "nothing: only a ground point is bonded");
        if (!p.return_at.empty()) check_terminal(where + ", return_at", p.return_at);
        check_box(p, where);
    }

    void check_box(const Point& p, const std::string& where) {
        if (p.kind != PointKind::box && !p.channels.empty())
            add(ErrorCode::unknown_name, where + ", channels", {}, "a box: only a box has channels");
        std::unordered_set<int> numbers;
        std::unordered_set<std::string> groups;
        for (const ChannelGroup& g : p.groups) {
            if (!groups.insert(g.name).second)
                add(ErrorCode::duplicate_id, where + ", groups", g.name, "a name of its own");
            if (!(g.limit_A > 0))
                add(ErrorCode::out_of_range, where + ", group " + g.name + ", limit_A", shown(g.limit_A),
                    "more than 0 A");
        }
        for (const Channel& c : p.channels) {
            const std::string channel = where + ", channel " + std::to_string(c.number);
            if (c.number < 1 || !numbers.insert(c.number).second)
                add(ErrorCode::duplicate_id, channel, std::to_string(c.number), "a number of its own from 1");
            if (!c.group.empty() && !groups.contains(c.group))
                add(ErrorCode::missing_reference, channel + ", group", c.group, "a group of this box");
        }
    }

    // Loads that a condition waits for; alternatives are about key, engine and switches only.
    void check_condition(const std::string& where, const Condition& c) {
        for (const Id& id : c.circuits)
            if (!find(plan_.loads, id))
                add(ErrorCode::missing_reference, where + ", circuits", id, "a load of this plan");
        for (const Condition& any : c.any_of)
            if (!any.circuits.empty() || any.charging_above_V || any.delay_s || !any.any_of.empty())
                add(ErrorCode::unknown_name, where + ", any_of", {},
                    "key, engine and switches: volts, circuits and delays belong to the whole condition");
    }

    void check_source(const Source& s) {
        const std::string where = "sources, " + s.name;
        check_condition(where + ", works_when", s.works_when);
        check_place(where, s.place);
        check_terminal(where + ", return_at", s.return_at);
        for (std::size_t k = 1; k < s.curve.size(); ++k)
            if (s.curve[k].first <= s.curve[k - 1].first)
                add(ErrorCode::out_of_range, where + ", curve", shown(s.curve[k].first), "rising rpm");
        if (!s.charges.empty() && !find(plan_.batteries, s.charges))
            add(ErrorCode::missing_reference, where + ", charges", s.charges, "a battery of this plan");
        check_thresholds(where, "enable_off_V", s.enable_off_V, "enable_on_V", s.enable_on_V);
    }

    // The lower of two thresholds must stand below the upper: between them lies the memory.
    void check_thresholds(const std::string& where, const char* low_name, const std::optional<double>& low,
                          const char* high_name, const std::optional<double>& high) {
        if (low && high && *low >= *high)
            add(ErrorCode::out_of_range, where + ", " + low_name, shown(*low),
                std::string("less than ") + high_name);
    }

    void check_rising(const std::string& where, const std::vector<std::pair<double, double>>& curve) {
        for (std::size_t k = 1; k < curve.size(); ++k)
            if (curve[k].first <= curve[k - 1].first)
                add(ErrorCode::out_of_range, where, shown(curve[k].first), "rising shares");
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
                    "an efficiency from 0 to 1");
    }

    // The shares of regulators on one winding are of one current.
    void check_windings() {
        std::map<std::string, double> sums;
        for (const Source& s : plan_.sources)
            if (!s.winding.empty()) sums[s.winding] += s.share.value_or(0);
        for (const auto& [winding, sum] : sums)
            if (sum > 1 + 1e-9)
                add(ErrorCode::out_of_range, "sources, winding " + winding + ", share", shown(sum),
                    "shares of 1 in all");
    }

    void check_survey() {
        for (const SurveyReading& r : plan_.survey.readings)
            for (const Id* id : {&r.point, &r.drawn_at})
                if (!(id == &r.drawn_at && id->empty()) && !find(plan_.survey.points, *id))
                    add(ErrorCode::missing_reference, "survey, readings", *id, "a point of the survey");
    }

    void check_variants() {
        if (!plan_.active.empty() && !find(plan_.variants, plan_.active))
            add(ErrorCode::missing_reference, "active", plan_.active, "a variant of this plan");
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
            add(ErrorCode::out_of_range, where + ", to", r.to, "another end than its beginning");
        for (const Id& p : r.places) check_place(where, p);
        if (r.length_least_m && *r.length_least_m > r.length_m.value_or(1e9) + 1e-9)
            add(ErrorCode::out_of_range, where + ", length_least_m", shown(*r.length_least_m),
                "no more than length_m");
        if (r.size && !conductor(*r.size, r.material))
            add(ErrorCode::unknown_size, where + ", size", name_of(*r.size), "a size of the tables");
        for (const Device& d : r.devices) {
            if (d.kind == DeviceKind::fuse && !(d.rating_A > 0))
                add(ErrorCode::out_of_range, where + ", " + d.name + ", rating_A", shown(d.rating_A),
                    "more than 0 A");
            if (d.at_m && r.length_m && *d.at_m > *r.length_m + 1e-9)
                add(ErrorCode::out_of_range, where + ", " + d.name + ", at_m", shown(*d.at_m),
                    "no more than the run's length");
            check_thresholds(where + ", " + d.name, "open_V", d.open_V, "close_V", d.close_V);
            if (!d.coil.empty() && !find(plan_.loads, d.coil))
                add(ErrorCode::missing_reference, where + ", " + d.name + ", coil", d.coil,
                    "a load of this plan");
            if (!d.grounds_without.empty() && !find(plan_.loads, d.grounds_without))
                add(ErrorCode::missing_reference, where + ", " + d.name + ", grounds_without",
                    d.grounds_without, "a load of this plan");
            check_condition(where + ", " + d.name + ", closed_when", d.closed_when);
        }
        if (r.channel != 0 && !channel_of(plan_, r))
            add(ErrorCode::missing_reference, where + ", channel", std::to_string(r.channel),
                "a channel of the box at its beginning");
        if (r.channel > 0 && !used_channels_.insert(r.from + " " + std::to_string(r.channel)).second)
            add(ErrorCode::duplicate_id, where + ", channel", std::to_string(r.channel),
                "a channel that no other run hangs on");
        if (!r.tap_of.empty() && !fuses_.contains(r.tap_of))
            add(ErrorCode::missing_reference, where + ", tap_of", r.tap_of, "a fuse of this plan");
    }

    void check_load(const Load& l) {
        const std::string where = "loads, " + l.name;
        check_condition(where + ", live_when", l.live_when);
        if (!l.inverter.empty() && (l.live_when.charging_above_V || !l.live_when.circuits.empty()))
            add(ErrorCode::out_of_range, where + ", live_when", {},
                "key, engine and switches, since it runs on mains");
        if (std::find(l.live_when.circuits.begin(), l.live_when.circuits.end(), l.id) !=
            l.live_when.circuits.end())
            add(ErrorCode::out_of_range, where + ", live_when", l.id, "another circuit than its own");
        check_place(where, l.place);
        if (!(l.draw.value > 0))
            add(ErrorCode::out_of_range, where + ", draw", shown(l.draw.value), "more than 0");
        if (l.draw_least && !(*l.draw_least > 0 && *l.draw_least <= l.draw.value))
            add(ErrorCode::out_of_range, where + ", draw_least", shown(*l.draw_least),
                "more than 0 and no more than the draw");
        if (l.count < 1) add(ErrorCode::out_of_range, where + ", count", shown(l.count), "1 or more");
        if (!l.inverter.empty() && !find(plan_.inverters, l.inverter))
            add(ErrorCode::missing_reference, where + ", inverter", l.inverter, "an inverter of this plan");
        if (!l.inverter.empty() && l.draw.kind != DrawKind::power)
            add(ErrorCode::out_of_range, where + ", draw", shown(l.draw.value),
                "watts, since it runs on mains");
        check_thresholds(where, "least_V", l.least_V, "most_V", l.most_V);
        check_rising(where + ", line_curve", l.line_curve);
    }

    const Plan& plan_;
    std::vector<Error> errors_;
    std::unordered_set<std::string> ids_, terminals_, places_, chassis_, fuses_, used_channels_;
};

}  // namespace

std::vector<Error> validate(const Plan& plan) {
    return Checker(plan).run();
}

}  // namespace yr
