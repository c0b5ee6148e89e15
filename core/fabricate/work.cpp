#include "fabricate/work.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <utility>

#include "catalog/conductors.h"
#include "fabricate/visits.h"
#include "plan/lists.h"
#include "plan/names.h"
#include "routes/lay.h"
#include "routes/routes.h"
#include "routes/where.h"

namespace yr {
namespace {

constexpr double kLongCable_m = 3;  // from there on someone at the far end helps; common practice
constexpr double kNearHazard_m = 0.4;
constexpr double kThick_mm2 = 8;

// The steps before they are put in order: first in the order in which a person would list them.
std::optional<WorkCaution> caution_of(Hazard hazard) {
    switch (hazard) {
        case Hazard::airbag:
            return WorkCaution::airbag;
        case Hazard::fuel_line:
        case Hazard::brake_line:
            return WorkCaution::fuel;
        case Hazard::exhaust:
            return WorkCaution::exhaust;
        case Hazard::moving:
        case Hazard::steering:
        case Hazard::seat_slide:
        case Hazard::wheel_travel:
            return WorkCaution::moving;
        case Hazard::high_voltage:
            return WorkCaution::high_voltage;
        case Hazard::jack_point:
        case Hazard::none:
            break;
    }
    return std::nullopt;
}

class Steps {
  public:
    explicit Steps(const Plan& plan) : plan_(plan), wires_(wire_table(plan)), routes_(route_all(plan)) {
        for (const Mark& m : plan.marks) marks_.insert({m.name, m.about});
    }

    std::vector<WorkStep> run() {
        for (const WireRow& w : wires_) note_ends(w);
        make();
        bench_tests();
        isolate();
        open();
        drill();
        mount();
        ground();
        lay();
        connect();
        finish();
        for (WorkStep& s : steps_) settle(s);
        return std::move(steps_);
    }

  private:
    WorkStep& add(Task task, std::string key, Id about, Id place) {
        index_[key] = steps_.size();
        WorkStep& s = steps_.emplace_back();
        s.task = task, s.key = std::move(key), s.about = std::move(about), s.place = std::move(place);
        return s;
    }
    void after(WorkStep& s, const std::string& key) const {
        const auto found = index_.find(key);
        if (found != index_.end() && steps_[found->second].key != s.key) s.after.push_back(found->second);
    }
    void after_all(WorkStep& s, std::initializer_list<Task> tasks) const {
        for (std::size_t k = 0; k + 1 < steps_.size(); ++k)
            if (std::find(tasks.begin(), tasks.end(), steps_[k].task) != tasks.end()) s.after.push_back(k);
    }

    Id place_of(const Id& thing) const {
        Id place;
        each_list(plan_, [&](const auto& things) {
            using Thing = typename std::remove_cvref_t<decltype(things)>::value_type;
            if constexpr (requires(const Thing& t) { t.at.spot(), t.place; })
                for (const Thing& t : things)
                    if (t.id == thing) place = t.place;
        });
        return place;
    }

    // Minutes of a kind of work: one's own, else the typical.
    double minutes(const char* task, WorkStep& s) const {
        for (const TaskTime& t : plan_.policy.tasks)
            if (t.task == task) return s.own_minutes = true, t.minutes;
        return typical_minutes(task);
    }

    void note_ends(const WireRow& w) {
        const Run& run = plan_.runs[w.run];
        places_.insert(place_of(run.from.owner));
        places_.insert(place_of(run.to.owner));
    }

    void make() {
        for (const WireRow& w : wires_) {
            const Run& run = plan_.runs[w.run];
            const WireSize size = run.size.value_or(WireSize::awg(14));
            const std::string key = "make " + name_of(size) + " " + std::string(enum_name(run.material));
            const bool known = index_.contains(key);
            WorkStep& s = known ? steps_[index_[key]] : add(Task::make, key, {}, {});
            const auto wire = conductor(size, run.material);
            s.area_mm2 = wire ? wire->area_mm2 : 2;
            s.size = name_of(size);
            s.members.push_back(run.id);
            s.numbers.push_back(w.number);
            s.metres += w.length_m * w.pieces;
            s.minutes += w.pieces * minutes(s.area_mm2 >= kThick_mm2 ? "make_thick" : "make_thin", s);
            if (!known) s.cautions.push_back(WorkCaution::slide_first);
        }
    }

    void bench_tests() {
        for (const Point& p : plan_.points) {
            if (p.kind != PointKind::box) continue;
            WorkStep& s = add(Task::bench_test, "bench_test " + p.id, p.id, {});
            s.members = {p.id};
            s.minutes = minutes("bench_test", s);
        }
    }

    void isolate() {
        for (const Battery& b : plan_.batteries) {
            WorkStep& s = add(Task::isolate, "isolate " + b.id, b.id, b.place);
            s.members = {b.id};
            s.minutes = minutes("isolate", s);
            s.cautions = {WorkCaution::negative_first};
        }
    }

    void open() {
        for (const Place& p : plan_.places) {
            if (!places_.contains(p.id)) continue;
            WorkStep& s = add(Task::open, "open " + p.id, p.id, p.id);
            s.members = {p.id};
            s.minutes = minutes("open", s);
            s.cautions = {WorkCaution::keep_parts};
            after_all(s, {Task::isolate});
        }
    }

    // What lies near a spot or in a place, as cautions.
    void hazards(WorkStep& s, const std::optional<Spot>& at) const {
        const auto near = [&](const Place& p) {
            if (p.id == s.place) return true;
            const auto room = room_of(p);
            return at && room && room->holds(*at, kNearHazard_m);
        };
        std::set<WorkCaution> told;  // each once, in the order of their kinds
        for (const Place& p : plan_.places)
            if (const auto caution = caution_of(p.hazard); caution && near(p)) told.insert(*caution);
        s.cautions.insert(s.cautions.end(), told.begin(), told.end());
    }

    void drill() {
        for (std::size_t n = 0; n < plan_.waypoints.size(); ++n) {
            const Waypoint& w = plan_.waypoints[n];
            if (w.kind == PassageKind::bend || routes_.passages[n].runs.empty()) continue;
            const auto at = w.at.spot();
            WorkStep& s = add(Task::drill, "drill " + w.id, w.id, at ? place_at(plan_, *at) : Id());
            s.members = {w.id};
            s.minutes = minutes("drill", s);
            s.cautions = {WorkCaution::look_behind};
            hazards(s, at);
            after(s, "open " + s.place);
            after_all(s, {Task::isolate});
        }
    }

    template <class Thing>
    void mount_one(const Thing& t, const char* task, std::vector<WorkCaution> cautions = {}) {
        WorkStep& s = add(Task::mount, "mount " + t.id, t.id, t.place);
        s.members = {t.id};
        s.minutes = minutes(task, s);
        s.cautions = std::move(cautions);
        hazards(s, t.at.spot());
        after(s, "open " + s.place);
        after(s, "bench_test " + t.id);
        after_all(s, {Task::isolate});
    }

    void mount() {
        for (const Battery& b : plan_.batteries) mount_one(b, "mount_battery", {WorkCaution::heavy});
        for (const Point& p : plan_.points)
            if (p.kind == PointKind::box || p.kind == PointKind::bus || p.kind == PointKind::stud)
                mount_one(p, p.kind == PointKind::box ? "mount_box" : "mount_bus");
        for (const Source& s : plan_.sources)
            if (s.kind != SourceKind::alternator && s.kind != SourceKind::stator)
                mount_one(s, "mount_source");
        for (const Inverter& i : plan_.inverters) mount_one(i, "mount_inverter", {WorkCaution::precharge});
        for (const Load& l : plan_.loads)
            if (!l.starter && !l.later && l.inverter.empty()) mount_one(l, "mount_load");
    }

    void ground() {
        for (const Point& p : plan_.points) {
            if (p.kind != PointKind::ground) continue;
            WorkStep& s = add(Task::ground, "ground " + p.id, p.id, p.place);
            s.members = {p.id};
            s.minutes = minutes("ground", s);
            s.cautions = {WorkCaution::bare_metal};
            if (plan_.vehicle.chassis == Chassis::aluminium)
                s.cautions.push_back(WorkCaution::aluminium_ground);
            if (const auto f = fixing_of(plan_, p.id)) s.fixings = {*f};
            after(s, "open " + s.place);
            after_all(s, {Task::isolate});
        }
    }

    void lay() {
        for (const WireRow& w : wires_) {
            const Run& run = plan_.runs[w.run];
            const Id from = place_of(run.from.owner), to = place_of(run.to.owner);
            const Id &low = std::min(from, to), &high = std::max(from, to);
            std::string key = "lay ";
            key += low;
            key += " ";
            key += high;
            const bool known = index_.contains(key);
            WorkStep& s = known ? steps_[index_[key]] : add(Task::lay, key, high, high);
            s.other = low;
            s.members.push_back(run.id);
            s.numbers.push_back(w.number);
            s.metres += w.length_m;
            s.minutes += minutes("lay_cable", s) + w.length_m * minutes("lay_metre", s);
            const auto caution = [&](WorkCaution c) {
                if (std::find(s.cautions.begin(), s.cautions.end(), c) == s.cautions.end())
                    s.cautions.push_back(c);
            };
            if (w.length_m >= kLongCable_m && low != high) caution(WorkCaution::second_person);
            if (!known) {
                after(s, "open " + low), after(s, "open " + high);
                after_all(s, {Task::isolate});
            }
            after(s, "make " + name_of(run.size.value_or(WireSize::awg(14))) + " " +
                         std::string(enum_name(run.material)));
            if (const auto& route = routes_.by_run[w.run]) {
                for (const std::size_t n : route->path.waypoints) after(s, "drill " + plan_.waypoints[n].id);
                for (const Id& p : places_along(plan_, *route))
                    if (const Place* place = find(plan_.places, std::string_view(p));
                        place && place->hazard == Hazard::exhaust)
                        caution(WorkCaution::exhaust);
            }
        }
    }

    // The ends at each thing. A battery comes last of them; its negatives wait for the first power.
    void connect() {
        std::map<Id, std::vector<std::pair<const WireRow*, bool>>> ends;
        std::vector<Id> things;
        for (const WireRow& w : wires_)
            for (const bool at_from : {true, false}) {
                const Run& run = plan_.runs[w.run];
                const Terminal& at = at_from ? run.from : run.to;
                if (at.post == Post::neg && find(plan_.batteries, std::string_view(at.owner))) continue;
                if (!ends.contains(at.owner)) things.push_back(at.owner);
                ends[at.owner].emplace_back(&w, at_from);
            }
        std::stable_partition(things.begin(), things.end(),
                              [&](const Id& t) { return !find(plan_.batteries, std::string_view(t)); });
        for (const Id& thing : things) connect_at(thing, ends[thing]);
    }

    void connect_at(const Id& thing, const std::vector<std::pair<const WireRow*, bool>>& ends) {
        WorkStep& s = add(Task::connect, "connect " + thing, thing, place_of(thing));
        for (const auto& [w, at_from] : ends) {
            const Run& run = plan_.runs[w->run];
            s.members.push_back(run.id + (at_from ? ".from" : ".to"));
            s.numbers.push_back(w->number);
            s.minutes += w->pieces * minutes("connect_end", s);
            const Id a = place_of(run.from.owner), b = place_of(run.to.owner);
            after(s, "lay " + std::min(a, b) + " " + std::max(a, b));
            fasten(s, at_from ? run.from : run.to, w->pieces);
        }
        s.cautions.push_back(WorkCaution::fuses_out);
        if (std::any_of(s.fixings.begin(), s.fixings.end(), [](const Fixing& f) { return f.lugs > 2; }))
            s.cautions.push_back(WorkCaution::most_lugs);
        after(s, "mount " + thing);
        after(s, "ground " + thing);
        after(s, "open " + s.place);
        after_all(s, {Task::isolate});
        if (find(plan_.batteries, std::string_view(thing)))
            for (std::size_t k = 0; k + 1 < steps_.size(); ++k)
                if (steps_[k].task == Task::connect &&
                    !find(plan_.batteries, std::string_view(steps_[k].about)))
                    s.after.push_back(k);
    }

    void fasten(WorkStep& s, const Terminal& at, int lugs) const {
        for (Fixing& f : s.fixings)
            if (f.at == at) {
                f.lugs += lugs;
                return;
            }
        if (auto f = fixing_of(plan_, at)) {
            f->lugs = lugs;
            s.fixings.push_back(*f);
        }
    }

    void finish() {
        const auto last = [&](Task task, const char* key, double time, std::initializer_list<Task> before) {
            WorkStep& s = add(task, key, {}, {});
            s.members = {key};
            s.minutes = time;
            after_all(s, before);
            return steps_.size() - 1;
        };
        WorkStep none;
        last(Task::last_look, "last_look", minutes("last_look", none),
             {Task::make, Task::bench_test, Task::drill, Task::mount, Task::ground, Task::lay, Task::connect,
              Task::open, Task::isolate});
        int circuits = 0;
        for (const Run& r : plan_.runs)
            for (const Device& d : r.devices) circuits += d.kind == DeviceKind::fuse;
        const std::size_t power =
            last(Task::first_power, "first_power",
                 minutes("first_power", none) + circuits * minutes("first_power_circuit", none),
                 {Task::last_look});
        steps_[power].cautions = {WorkCaution::negative_first, WorkCaution::precharge};
        last(Task::readings, "readings",
             minutes("reading", none) * 2 * static_cast<double>(plan_.loads.size()), {Task::first_power});
        for (const Place& p : plan_.places) {
            if (!index_.contains("open " + p.id)) continue;
            WorkStep& s = add(Task::close, "close " + p.id, p.id, p.id);
            s.members = {"close " + p.id};
            s.minutes = minutes("close", s);
            after(s, "readings");
        }
        last(Task::hand_over, "hand_over", minutes("hand_over", none), {Task::close, Task::readings});
    }

    void settle(WorkStep& s) {
        std::sort(s.after.begin(), s.after.end());
        s.after.erase(std::unique(s.after.begin(), s.after.end()), s.after.end());
        for (const std::string& m : s.members)
            if (marks_.contains({mark_of(s.task), m})) s.made.push_back(m);
        s.put_off = marks_.contains({"put off", s.key});
    }

    const Plan& plan_;
    std::vector<WireRow> wires_;
    Routes routes_;
    std::set<std::pair<std::string, std::string>> marks_;
    std::set<Id> places_;
    std::vector<WorkStep> steps_;
    std::map<std::string, std::size_t, std::less<>> index_;
};

bool is_closing(Task t) {
    return t == Task::last_look || t == Task::first_power || t == Task::readings || t == Task::close ||
           t == Task::hand_over;
}

// What a group of steps comes to in order: those of the bench first, then places.
class Sequence {
  public:
    explicit Sequence(std::vector<WorkStep> steps) : steps_(std::move(steps)) {}

    WorkOrder run(const Plan& plan) {
        const std::size_t n = steps_.size();
        std::vector<char> later(n, 0), first(n, 0);
        for (std::size_t k = 0; k < n; ++k) {
            later[k] = steps_[k].put_off && !steps_[k].done();
            for (const std::size_t a : steps_[k].after)
                if (later[a] && !is_closing(steps_[k].task))
                    later[k] = 1, steps_[k].waits = !steps_[k].put_off;
        }
        for (const Mark& m : plan.marks)
            if (m.name == "first")
                for (std::size_t k = 0; k < n; ++k)
                    if (steps_[k].key == m.about) before(k, first);
        std::vector<int> phase(n);
        for (std::size_t k = 0; k < n; ++k) {
            const bool bench = steps_[k].task == Task::make || steps_[k].task == Task::bench_test;
            phase[k] = is_closing(steps_[k].task) ? 4 : later[k] ? 3 : first[k] ? 0 : bench ? 1 : 2;
        }
        for (const Mark& m : plan.marks)
            if (m.name == "before") put_before(m.about, m.note, phase);
        for (int now = 0; now < 4; ++now) part([&](std::size_t k) { return phase[k] == now; });
        close();
        return write();
    }

  private:
    void before(std::size_t k, std::vector<char>& first) const {
        if (first[k]) return;
        first[k] = 1;
        for (const std::size_t a : steps_[k].after) before(a, first);
    }

    std::optional<std::size_t> step(const std::string& key) const {
        for (std::size_t k = 0; k < steps_.size(); ++k)
            if (steps_[k].key == key) return k;
        return std::nullopt;
    }
    bool comes_after(std::size_t later, std::size_t earlier) const {
        std::vector<char> seen(steps_.size(), 0);
        std::vector<std::size_t> open{later};
        while (!open.empty()) {
            const std::size_t k = open.back();
            open.pop_back();
            if (k == earlier) return true;
            if (std::exchange(seen[k], 1)) continue;
            open.insert(open.end(), steps_[k].after.begin(), steps_[k].after.end());
        }
        return false;
    }
    void pull(std::size_t k, int to, std::vector<int>& phase) const {
        if (phase[k] <= to) return;
        phase[k] = to;
        for (const std::size_t a : steps_[k].after) pull(a, to, phase);
    }
    // As somebody put it by hand; what a rule of order forbids is let be.
    void put_before(const std::string& one, const std::string& other, std::vector<int>& phase) {
        const auto earlier = step(one), later = step(other);
        constexpr int kWaits = 3;
        if (!earlier || !later || phase[*earlier] >= kWaits || phase[*later] >= kWaits ||
            comes_after(*earlier, *later))
            return;
        steps_[*later].after.push_back(*earlier);
        pull(*earlier, phase[*later], phase);
    }

    template <class In>
    void part(const In& in) {
        std::vector<std::size_t> members;
        std::map<std::size_t, std::size_t> local;
        for (std::size_t k = 0; k < steps_.size(); ++k)
            if (in(k)) local[k] = members.size(), members.push_back(k);
        if (members.empty()) return;
        std::map<Id, std::size_t> places;
        std::vector<VisitStep> steps;
        for (const std::size_t k : members) {
            VisitStep s;
            s.place = places.emplace(steps_[k].place, places.size()).first->second;
            for (const std::size_t a : steps_[k].after)
                if (local.contains(a)) s.after.push_back(local[a]);
            steps.push_back(std::move(s));
        }
        const Visits v = fewest_visits(steps);
        for (const std::size_t k : v.order) order_.push_back(members[k]);
        fewest_ = fewest_ && v.fewest;
    }

    // Last look, power and readings; then covers on, the last taken off first; then hand-over.
    void close() {
        std::vector<std::size_t> closers, opened;
        for (const std::size_t k : order_)
            if (steps_[k].task == Task::open) opened.push_back(k);
        std::reverse(opened.begin(), opened.end());
        for (const Task t : {Task::last_look, Task::first_power, Task::readings})
            for (std::size_t k = 0; k < steps_.size(); ++k)
                if (steps_[k].task == t) order_.push_back(k);
        for (const std::size_t o : opened)
            for (std::size_t k = 0; k < steps_.size(); ++k)
                if (steps_[k].task == Task::close && steps_[k].about == steps_[o].about) order_.push_back(k);
        for (std::size_t k = 0; k < steps_.size(); ++k)
            if (steps_[k].task == Task::hand_over) order_.push_back(k);
    }

    WorkOrder write() {
        WorkOrder out;
        std::vector<std::size_t> place(steps_.size());
        for (std::size_t k = 0; k < order_.size(); ++k) place[order_[k]] = k;
        for (const std::size_t k : order_) {
            WorkStep s = steps_[k];
            for (std::size_t& a : s.after) a = place[a];
            const double share = s.members.empty() ? 1
                                                   : 1 - static_cast<double>(s.made.size()) /
                                                             static_cast<double>(s.members.size());
            out.minutes += s.minutes;
            out.minutes_left += s.minutes * share;
            out.steps.push_back(std::move(s));
        }
        Id at;
        for (const WorkStep& s : out.steps)
            if (!is_closing(s.task) && !s.place.empty() && s.place != at) at = s.place, ++out.visits;
        out.fewest = fewest_;
        return out;
    }

    std::vector<WorkStep> steps_;
    std::vector<std::size_t> order_;
    bool fewest_ = true;
};

}  // namespace

const char* mark_of(Task task) {
    switch (task) {
        case Task::make:
            return "made";
        case Task::drill:
            return "drilled";
        case Task::mount:
            return "mounted";
        case Task::ground:
            return "grounded";
        case Task::lay:
            return "laid";
        case Task::connect:
            return "connected";
        case Task::bench_test:
            return "tested";
        case Task::isolate:
            return "isolated";
        case Task::open:
            return "opened";
        case Task::last_look:
        case Task::first_power:
        case Task::readings:
        case Task::close:
        case Task::hand_over:
            return "done";
    }
    return "done";
}

std::optional<Fixing> fixing_of(const Plan& plan, const Terminal& at) {
    Fixing f;
    f.at = at;
    Seat seat = Seat::stud;
    if (const Point* p = find(plan.points, std::string_view(at.owner))) {
        f.thread_mm = p->stud_mm.value_or(0);
        if (p->kind == PointKind::ground || p->kind == PointKind::chassis) seat = Seat::ground;
    } else if (const Battery* b = find(plan.batteries, std::string_view(at.owner))) {
        f.thread_mm = b->stud_mm.value_or(0);
        seat = Seat::post;
    } else if (const Source* s = find(plan.sources, std::string_view(at.owner))) {
        f.thread_mm = s->stud_mm.value_or(0);
    }
    if (f.thread_mm <= 0)
        for (const Run& r : plan.runs)
            for (const bool at_from : {true, false})
                if ((at_from ? r.from : r.to) == at && is_cut(r)) {
                    const CableEnd e = end_of(plan, r, at_from);
                    if (e.kind == EndKind::ring) f.thread_mm = std::max(f.thread_mm, e.bolt_mm);
                }
    if (f.thread_mm <= 0) return std::nullopt;
    f.spanner_mm = spanner_mm(f.thread_mm);
    f.torque = typical_torque(seat, f.thread_mm);
    for (const Torque& own : plan.policy.torques)
        if (std::abs(own.thread_mm - f.thread_mm) < 0.01)
            f.torque = {own.torque_Nm, own.torque_Nm}, f.own_torque = true;
    return f;
}

WorkOrder work_order(const Plan& plan) {
    return Sequence(Steps(plan).run()).run(plan);
}

}  // namespace yr
