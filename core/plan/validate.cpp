#include "plan/validate.h"

#include <unordered_set>

namespace yr {
namespace {

class Checker {
  public:
    explicit Checker(const Plan& plan) : plan_(plan) {}

    std::vector<Error> run() {
        collect();
        for (const Point& p : plan_.points) check_point(p);
        for (const Source& s : plan_.sources) check_source(s);
        for (const Battery& b : plan_.batteries) check_place("batteries, " + b.name, b.place);
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
        collect_ids("runs", plan_.runs);
        collect_ids("loads", plan_.loads);
        collect_ids("states", plan_.states);
        for (const Run& r : plan_.runs) collect_ids(("runs, " + r.name).c_str(), r.devices);
        for (const Place& p : plan_.places) places_.insert(p.id);
        for (const Point& p : plan_.points) {
            terminals_.insert(p.id);
            if (p.kind == PointKind::chassis) chassis_.insert(p.id);
        }
        for (const Battery& b : plan_.batteries) terminals_.insert({b.id + ".pos", b.id + ".neg"});
        for (const Load& l : plan_.loads) terminals_.insert({l.id + ".pos", l.id + ".neg"});
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
    }

    void check_source(const Source& s) {
        const std::string where = "sources, " + s.name;
        check_place(where, s.place);
        check_terminal(where + ", return_at", s.return_at);
        for (std::size_t k = 1; k < s.curve.size(); ++k)
            if (s.curve[k].first <= s.curve[k - 1].first)
                add(ErrorCode::out_of_range, where + ", curve", std::to_string(s.curve[k].first),
                    "rising rpm");
    }

    void check_run(const Run& r) {
        const std::string where = "runs, " + r.name;
        check_terminal(where + ", from", r.from);
        check_terminal(where + ", to", r.to);
        if (r.from == r.to)
            add(ErrorCode::out_of_range, where + ", to", r.to, "another end than its beginning");
        for (const Id& p : r.places) check_place(where, p);
        if (r.size && !conductor(*r.size, r.material))
            add(ErrorCode::unknown_size, where + ", size", name_of(*r.size), "a size of the tables");
        for (const Device& d : r.devices) {
            if (d.kind == DeviceKind::fuse && !(d.rating_A > 0))
                add(ErrorCode::out_of_range, where + ", " + d.name + ", rating_A", std::to_string(d.rating_A),
                    "more than 0 A");
            if (d.at_m && r.length_m && *d.at_m > *r.length_m + 1e-9)
                add(ErrorCode::out_of_range, where + ", " + d.name + ", at_m", std::to_string(*d.at_m),
                    "no more than the run's length");
        }
    }

    void check_load(const Load& l) {
        const std::string where = "loads, " + l.name;
        check_place(where, l.place);
        if (!(l.draw.value > 0))
            add(ErrorCode::out_of_range, where + ", draw", std::to_string(l.draw.value), "more than 0");
        if (l.count < 1)
            add(ErrorCode::out_of_range, where + ", count", std::to_string(l.count), "1 or more");
    }

    const Plan& plan_;
    std::vector<Error> errors_;
    std::unordered_set<std::string> ids_, terminals_, places_, chassis_;
};

}  // namespace

std::vector<Error> validate(const Plan& plan) {
    return Checker(plan).run();
}

}  // namespace yr
