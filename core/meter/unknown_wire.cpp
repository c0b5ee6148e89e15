#include "meter/unknown_wire.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "meter/slopes.h"
#include "solve/settle.h"

namespace yr {
namespace {

constexpr double kJustAfter_s = 1;
// A rail is known to this share at its far end: what charges, sags and warms it moves it so far.
constexpr double kSameRail = 0.25;
constexpr double kDead = 0.25, kLive = 0.5;
// What charging lifts a rail to against its nominal volts, at most.
constexpr double kCharged = 1.3;

enum class Volts { dead, neither, live };

Volts seen(double volts_V, double rail_V) {
    const double share = volts_V / rail_V;
    return share < kDead ? Volts::dead : share < kLive ? Volts::neither : Volts::live;
}

// Nominal volts of what showed these at most: a wire of a higher rail is judged by that one's.
double rail_of(double most_V, double nominal_V) {
    return std::max(nominal_V, most_V / kCharged);
}

bool fits(Volts read, double read_V, Volts planned, double planned_V) {
    if (read == Volts::neither || planned == Volts::neither) return true;  // says nothing
    return read == planned &&
           (read == Volts::dead || std::abs(read_V - planned_V) < kSameRail * std::max(read_V, planned_V));
}

// Disconnects and switches by how many runs name them, most first.
std::vector<Id> disconnects(const Plan& plan) {
    std::vector<Id> ids;
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices)
            if (d.kind == DeviceKind::switching &&
                (d.master || (d.coil.empty() && d.closed_when == Condition{})))
                ids.push_back(d.id);
    if (ids.size() > kWireOpens) ids.resize(kWireOpens);
    return ids;
}

std::vector<std::string> switches(const Plan& plan) {
    std::map<std::string, int> uses;
    const auto use = [&](const Condition& c) {
        for (const std::string& name : switches_of(c)) ++uses[name];
    };
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices) use(d.closed_when);
    for (const std::string& name : master_switches(plan)) uses.erase(name);
    std::vector<std::pair<std::string, int>> all(uses.begin(), uses.end());
    std::stable_sort(all.begin(), all.end(),
                     [](const auto& a, const auto& b) { return a.second > b.second; });
    if (all.size() > kWireSwitches) all.resize(kWireSwitches);
    std::vector<std::string> names;
    names.reserve(all.size());
    for (auto& [name, n] : all) names.push_back(name);
    return names;
}

State state_of(const Plan& plan, const WireTry& t) {
    std::vector<std::string> on = master_switches(plan);
    if (!t.switched.empty()) on.push_back(t.switched);
    State s = state_at(plan, t.key, on);
    if (t.just_after) {
        s.role = StateRole::passing;
        s.left = Key::ignition;
        s.lasts_s = kJustAfter_s;
    }
    return s;
}

// The disconnect as it is when somebody opens it, whatever its condition says.
void open(Plan& plan, const Id& device) {
    for (Run& r : plan.runs)
        for (Device& d : r.devices)
            if (d.id == device)
                d.closed_when.switches = {"\x01opened"}, d.rests_closed = false, d.latching = false;
}

std::vector<const Run*> supplies(const Plan& plan) {
    const SupplySide side(plan);
    std::vector<const Run*> runs;
    for (const Run& r : plan.runs) {
        const Load* load = find(plan.loads, r.to.owner);
        if (side.is_supply(r) && !(load && (load->starter || load->later))) runs.push_back(&r);
    }
    return runs;
}

class Solving {
  public:
    explicit Solving(const Plan& plan) : plan_(plan), runs_(supplies(plan)) {}

    // Volts at the far end of each supply cable; empty where it does not settle.
    std::vector<double> volts(const WireTry& t) {
        const State s = state_of(plan_, t);
        Plan opened;
        const Plan* plan = &plan_;
        if (!t.opened.empty()) {
            opened = plan_;
            open(opened, t.opened);
            plan = &opened;
        }
        const Solution x = solve(*plan, s, solver_);
        std::vector<double> all;
        if (!x.point.settled) return all;
        for (const Run* r : runs_)
            all.push_back(value_at(x, *plan, {ReadKind::volts, r->to, {}, {}, s.id, {}}).value_or(0));
        return all;
    }
    const std::vector<const Run*>& runs() const { return runs_; }

  private:
    const Plan& plan_;
    std::vector<const Run*> runs_;
    OperatingPointSolver solver_;
};

std::vector<WireTry> possible(const Plan& plan) {
    std::vector<WireTry> tries{{KeyPosition::off, false, {}, {}}};
    for (const KeyPosition k : positions_of(plan)) {
        if (k == KeyPosition::off) continue;
        tries.push_back({k, false, {}, {}});
        if (k == KeyPosition::ignition) tries.push_back({KeyPosition::off, true, {}, {}});
    }
    for (const Id& id : disconnects(plan)) {
        tries.push_back({KeyPosition::off, false, id, {}});
        tries.push_back({KeyPosition::ignition, false, id, {}});
    }
    for (const std::string& name : switches(plan)) tries.push_back({KeyPosition::ignition, false, {}, name});
    return tries;
}

std::optional<std::size_t> index_of(const WireBook& book, const WireTry& t) {
    const auto at = std::find(book.tries.begin(), book.tries.end(), t);
    if (at == book.tries.end()) return std::nullopt;
    return static_cast<std::size_t>(at - book.tries.begin());
}

class Judge {
  public:
    Judge(const Plan& plan, const WireBook& book, const std::vector<std::optional<double>>& read)
        : book_(book), read_(read) {
        read_.resize(book.tries.size());
        double most_V = 0;
        for (const auto& v : read_)
            if (v) most_V = std::max(most_V, *v);
        rail_V_ = rail_of(most_V, plan.vehicle.nominal_V);
        for (const WireChoice& w : book.wires) {
            const double own_V =
                w.volts_V.empty() ? 0 : *std::max_element(w.volts_V.begin(), w.volts_V.end());
            wire_rail_V_.push_back(rail_of(own_V, plan.vehicle.nominal_V));
        }
    }

    WireVerdict verdict() {
        for (std::size_t k = 0; k < read_.size(); ++k)
            if (read_[k] && seen(*read_[k], rail_V_) == Volts::neither) v_.neither.push_back(k);
        v_.kind = kind();
        for (std::size_t w = 0; w < book_.wires.size(); ++w) {
            bool all = true;
            for (std::size_t k = 0; k < read_.size(); ++k)
                all = all && (!read_[k] || fits(seen(*read_[k], rail_V_), *read_[k], planned(w, k),
                                                book_.wires[w].volts_V[k]));
            if (all) v_.fits.push_back(w);
        }
        choose_next();
        return std::move(v_);
    }

  private:
    Volts planned(std::size_t wire, std::size_t attempt) const {
        return seen(book_.wires[wire].volts_V[attempt], wire_rail_V_[wire]);
    }
    std::optional<bool> live(const WireTry& t) const {
        const auto k = index_of(book_, t);
        if (!k || !read_[*k] || seen(*read_[*k], rail_V_) == Volts::neither) return std::nullopt;
        return seen(*read_[*k], rail_V_) == Volts::live;
    }

    WireKind kind() {
        const auto at = [&](KeyPosition k) { return live({k, false, {}, {}}); };
        const auto off = at(KeyPosition::off), after = live({KeyPosition::off, true, {}, {}});
        find_behind();
        if (off == true) return WireKind::constant;
        if (off == false && after == true) return WireKind::timed;
        WireKind found = WireKind::not_known;
        const std::pair<KeyPosition, WireKind> steps[] = {{KeyPosition::accessory, WireKind::accessory},
                                                          {KeyPosition::ignition, WireKind::ignition},
                                                          {KeyPosition::running, WireKind::running},
                                                          {KeyPosition::cranking, WireKind::cranking}};
        bool below = off == false;  // dead in every position before
        for (const auto& [key, kind] : steps) {
            const auto now = at(key);
            if (now == true && below) found = kind;
            if (now == true) break;
            if (index_of(book_, {key, false, {}, {}})) below = below && now == false;
        }
        if (found != WireKind::not_known) {
            v_.perhaps_timed = !after && index_of(book_, {KeyPosition::off, true, {}, {}});
            return found;
        }
        for (std::size_t k = 0; k < book_.tries.size(); ++k) {
            const WireTry& t = book_.tries[k];
            if (!t.switched.empty() && live(t) == true && at(t.key) == false) {
                v_.by = t.switched;
                return WireKind::by_switch;
            }
        }
        return below && off == false ? WireKind::dead : WireKind::not_known;
    }

    void find_behind() {
        for (const WireTry& t : book_.tries)
            if (!t.opened.empty() && live(t) == false && live({t.key, false, {}, {}}) == true) {
                v_.behind = t.opened;
                return;
            }
    }

    std::size_t worst_of(std::size_t attempt) const {
        std::size_t live = 0, dead = 0;
        for (const std::size_t w : v_.fits) {
            const Volts s = planned(w, attempt);
            live += s != Volts::dead, dead += s != Volts::live;
        }
        return std::max(live, dead);
    }

    // What leaves fewest at worst; the cheaper one where two are level.
    void choose_next() {
        v_.leaves = v_.fits.size();
        for (std::size_t k = 0; k < book_.tries.size(); ++k) {
            if (read_[k]) continue;
            if (const std::size_t worst = worst_of(k); worst < v_.leaves) v_.leaves = worst, v_.next = k;
        }
        if (!read_.empty() && !read_[0])
            v_.next = 0, v_.leaves = worst_of(0);  // all else is judged against it
    }

    const WireBook& book_;
    std::vector<std::optional<double>> read_;
    double rail_V_ = 0;
    std::vector<double> wire_rail_V_;
    WireVerdict v_;
};

}  // namespace

WireBook wire_book(const Plan& plan) {
    WireBook book;
    Solving solving(plan);
    for (const Run* r : solving.runs()) book.wires.push_back({r->id, {}});
    for (const WireTry& t : possible(plan)) {
        const std::vector<double> volts = solving.volts(t);
        if (volts.size() != book.wires.size()) continue;
        book.tries.push_back(t);
        for (std::size_t w = 0; w < volts.size(); ++w) book.wires[w].volts_V.push_back(volts[w]);
    }
    return book;
}

WireVerdict judge_wire(const Plan& plan, const WireBook& book,
                       const std::vector<std::optional<double>>& read) {
    return Judge(plan, book, read).verdict();
}

}  // namespace yr
