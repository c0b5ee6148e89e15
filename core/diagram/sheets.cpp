#include "diagram/sheets.h"

#include <algorithm>
#include <map>
#include <set>

#include "diagram/fold.h"
#include "size/run_limits.h"

namespace yr {
namespace {

constexpr std::size_t kOwnSheet = 4;   // a feed with more loads gets a sheet of its own ...
constexpr std::size_t kMostRows = 16;  // ... or several
constexpr std::size_t kOneSheet = 14;  // loads of a plan that is drawn on one sheet with its supply

struct Gathered {
    GraphPage page;
    std::map<Id, std::size_t> index;
};

class Maker {
  public:
    Maker(const Plan& plan, const ProgramLimits& limits)
        : plan_(plan), limits_(limits), wires_(wire_table(plan)) {
        for (const WireRow& w : wires_) wire_of_[plan.runs[w.run].id] = &w;
        rank_from_batteries();
    }

    Result<Diagram> run() {
        gather_feeds();
        sheets_.push_back({{"Supply", {}, {}}, {}});
        spine(sheets_.front());
        for (const Id& feed : own_) feed_sheets(feed);
        sheets_.push_back({{"Grounds", {}, {}}, {}});
        grounds(sheets_.back());
        std::vector<GraphPage> pages;
        for (Gathered& s : sheets_)
            if (!s.page.nodes.empty()) pages.push_back(std::move(s.page));
        return folded(plan_, std::move(pages), limits_);
    }

  private:
    // Steps from the batteries and sources along the supply: which way a cable is drawn.
    void rank_from_batteries() {
        std::vector<Terminal> next;
        const auto begin = [&](const Terminal& t) { far_.emplace(t, 0), next.push_back(t); };
        for (const Source& s : plan_.sources)
            if (s.kind != SourceKind::converter) begin(out_of(s.id));
        for (const Battery& b : plan_.batteries) begin(pos_of(b.id));
        for (std::size_t n = 0; n < next.size(); ++n) {
            const int at = far_[next[n]];
            for (const Run& r : plan_.runs) {
                if (r.from != next[n] && r.to != next[n]) continue;
                const Terminal& other = r.from == next[n] ? r.to : r.from;
                if (feeds(r) && far_.emplace(other, at + 1).second) next.push_back(other);
            }
            if (next[n].post == Post::in && far_.emplace(out_of(next[n].owner), at + 1).second)
                next.push_back(out_of(next[n].owner));
        }
    }
    bool feeds(const Run& r) const { return supply_.is_supply(r) || load_fed(r) != nullptr; }
    const Load* load_fed(const Run& r) const {
        for (const Terminal* t : {&r.to, &r.from})
            if (t->post == Post::pos)
                if (const Load* l = find(plan_.loads, std::string_view(t->owner))) return l;
        return nullptr;
    }
    Id feed_of(const Run& r) const {
        return load_fed(r) && r.to.owner == load_fed(r)->id ? r.from.owner : r.to.owner;
    }

    void gather_feeds() {
        std::size_t all = 0;
        std::map<Id, std::size_t> count;
        std::vector<Id> order;
        for (const Run& r : plan_.runs)
            if (load_fed(r)) {
                ++all;
                if (count[feed_of(r)]++ == 0) order.push_back(feed_of(r));
            }
        if (all <= kOneSheet) return;
        for (const Id& feed : order)
            if (count[feed] > kOwnSheet) own_.push_back(feed);
    }

    std::size_t node(Gathered& s, const Id& id) {
        const auto known = s.index.find(id);
        if (known != s.index.end()) return known->second;
        DrawNode n;
        n.id = id, n.symbol = symbol_of(plan_, id), n.name = yr::name_of(plan_, id);
        if (const Battery* b = find(plan_.batteries, std::string_view(id)); b && b->capacity_Ah)
            n.below = short_number(*b->capacity_Ah) + " Ah";
        if (const Source* x = find(plan_.sources, std::string_view(id)); x && x->rated_A)
            n.below = short_number(*x->rated_A) + " A";
        if (const Inverter* x = find(plan_.inverters, std::string_view(id)); x && x->continuous_W)
            n.below = short_number(*x->continuous_W) + " W";
        returns(n, id);
        s.page.nodes.push_back(std::move(n));
        return s.index[id] = s.page.nodes.size() - 1;
    }
    static std::string short_number(double v) {
        char text[32];
        std::snprintf(text, sizeof text, "%g", v);
        return text;
    }

    // The cables back, each ending on a ground symbol. What hangs on the battery's own post or on a bar says
    // so.
    void returns(DrawNode& n, const Id& id) const {
        if (find(plan_.points, std::string_view(id))) return;
        for (const Run& r : plan_.runs) {
            const bool starts = r.from == neg_of(id), stops = r.to == neg_of(id);
            if (!starts && !stops) continue;
            const Terminal& other = starts ? r.to : r.from;
            if (find(plan_.batteries, std::string_view(id)) &&
                find(plan_.loads, std::string_view(other.owner)))
                continue;  // drawn at the load
            const auto wire = wire_of_.find(r.id);
            std::string label = wire != wire_of_.end() ? wire->second->number : std::string();
            if (r.size) label += "  " + name_of(*r.size);
            n.to_ground.push_back(label);
            n.ground_ids.push_back(r.id);
            n.ground_names.push_back(yr::name_of(plan_, other.owner));
            const Point* p = find(plan_.points, other);
            n.ground_frame.push_back(p && (p->kind == PointKind::ground || p->kind == PointKind::chassis));
        }
        if (const Source* s = find(plan_.sources, std::string_view(id)); s && !s->return_at.empty()) {
            n.to_ground.emplace_back("on its own body");
            n.ground_ids.push_back(s->id);
            n.ground_names.push_back(yr::name_of(plan_, s->return_at.owner));
            n.ground_frame.push_back(find(plan_.points, s->return_at) != nullptr);
        }
    }

    void edge(Gathered& s, const Run& r) {
        const auto distance = [&](const Terminal& t) {
            const auto found = far_.find(t);
            return found == far_.end() ? 1000 : found->second;
        };
        // out of a source, into a converter, else away from the batteries
        const bool forward = r.from.post == Post::out  ? true
                             : r.to.post == Post::out  ? false
                             : r.to.post == Post::in   ? true
                             : r.from.post == Post::in ? false
                                                       : distance(r.from) <= distance(r.to);
        const Terminal &a = forward ? r.from : r.to, &b = forward ? r.to : r.from;
        DrawEdge e;
        e.from = node(s, a.owner), e.to = node(s, b.owner), e.run = &r, e.at_from = a, e.at_to = b;
        const auto wire = wire_of_.find(r.id);
        e.wire = wire == wire_of_.end() ? nullptr : wire->second;
        if (e.from != e.to) s.page.edges.push_back(std::move(e));
    }

    bool on_own(const Id& feed) const { return std::find(own_.begin(), own_.end(), feed) != own_.end(); }

    void spine(Gathered& s) {
        for (const Battery& b : plan_.batteries) node(s, b.id);
        for (const Source& x : plan_.sources) node(s, x.id);
        for (const Run& r : plan_.runs)
            if (feeds(r) && !(load_fed(r) && on_own(feed_of(r)))) edge(s, r);
    }

    void feed_sheets(const Id& feed) {
        std::vector<const Run*> runs;
        for (const Run& r : plan_.runs)
            if (load_fed(r) && feed_of(r) == feed) runs.push_back(&r);
        const std::size_t parts = (runs.size() + kMostRows - 1) / kMostRows;
        for (std::size_t part = 0; part < parts; ++part) {
            Gathered s;
            s.page.title = yr::name_of(plan_, feed);
            if (parts > 1)
                s.page.title += " (" + std::to_string(part + 1) + " of " + std::to_string(parts) + ")";
            node(s, feed);
            for (std::size_t k = part * runs.size() / parts; k < (part + 1) * runs.size() / parts; ++k)
                edge(s, *runs[k]);
            sheets_.push_back(std::move(s));
        }
    }

    // What leads back to the batteries, loads counted at where they end.
    void grounds(Gathered& s) {
        std::map<Id, int> loads;
        const auto is_load = [&](const Terminal& t) { return find(plan_.loads, std::string_view(t.owner)); };
        for (const Run& r : plan_.runs) {
            if (feeds(r)) continue;
            if (is_load(r.from) || is_load(r.to)) {
                ++loads[is_load(r.from) ? r.to.owner : r.from.owner];
                continue;
            }
            DrawEdge e;
            e.run = &r, e.at_from = r.to, e.at_to = r.from;
            const auto wire = wire_of_.find(r.id);
            e.wire = wire == wire_of_.end() ? nullptr : wire->second;
            // drawn from the battery outwards
            const bool from_battery = find(plan_.batteries, std::string_view(r.from.owner)) != nullptr;
            if (from_battery) std::swap(e.at_from, e.at_to);
            e.from = bare(s, e.at_from.owner), e.to = bare(s, e.at_to.owner);
            if (e.from != e.to) s.page.edges.push_back(e);
        }
        for (const Point& p : plan_.points) {
            if (p.kind != PointKind::ground || p.bonded_to.empty()) continue;
            DrawEdge e;
            e.bond = p.id, e.from = bare(s, p.id), e.to = bare(s, p.bonded_to);
            if (e.from != e.to) s.page.edges.push_back(e);
        }
        for (DrawNode& n : s.page.nodes)
            if (loads[n.id] > 0)
                n.below =
                    std::to_string(loads[n.id]) + (loads[n.id] == 1 ? " load ends here" : " loads end here");
    }
    std::size_t bare(Gathered& s, const Id& id) {
        const std::size_t k = node(s, id);
        s.page.nodes[k].mirrored = s.page.nodes[k].symbol == Symbol::battery;
        s.page.nodes[k].to_ground.clear(), s.page.nodes[k].ground_ids.clear();
        s.page.nodes[k].ground_names.clear(), s.page.nodes[k].ground_frame.clear();
        return k;
    }

    const Plan& plan_;
    ProgramLimits limits_;
    std::vector<WireRow> wires_;
    std::map<Id, const WireRow*> wire_of_;
    SupplySide supply_{plan_};
    std::map<Terminal, int> far_;
    std::vector<Id> own_;
    std::vector<Gathered> sheets_;
};

}  // namespace

Result<Diagram> diagram_of(const Plan& plan, const ProgramLimits& limits) {
    return Maker(plan, limits).run();
}

}  // namespace yr
