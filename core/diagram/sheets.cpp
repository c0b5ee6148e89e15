#include "diagram/sheets.h"

#include <algorithm>
#include <map>
#include <set>

#include "diagram/draw_graph.h"
#include "size/run_limits.h"

namespace yr {
namespace {

constexpr double kWide_mm = 420, kHigh_mm = 297, kFrame_mm = 10, kZone_mm = 5, kTitle_mm = 14;
constexpr double kLargest = 1.5;  // a small circuit is drawn larger
constexpr int kColumns = 8, kRows = 6;
constexpr std::size_t kOwnSheet = 4;   // a feed with more loads gets a sheet of its own ...
constexpr std::size_t kMostRows = 16;  // ... or several
constexpr std::size_t kOneSheet = 14;  // loads of a plan that is drawn on one sheet with its supply

struct Sheet {
    std::string title;
    std::vector<DrawNode> nodes;
    std::vector<DrawEdge> edges;
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
        sheets_.push_back({"Supply", {}, {}, {}});
        spine(sheets_.front());
        for (const Id& feed : own_) feed_sheets(feed);
        sheets_.push_back({"Grounds", {}, {}, {}});
        grounds(sheets_.back());
        return draw_all();
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

    std::size_t node(Sheet& s, const Id& id) {
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
        s.nodes.push_back(std::move(n));
        return s.index[id] = s.nodes.size() - 1;
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

    void edge(Sheet& s, const Run& r) {
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
        if (e.from != e.to) s.edges.push_back(std::move(e));
    }

    bool on_own(const Id& feed) const { return std::find(own_.begin(), own_.end(), feed) != own_.end(); }

    void spine(Sheet& s) {
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
            Sheet s;
            s.title = yr::name_of(plan_, feed);
            if (parts > 1) s.title += " (" + std::to_string(part + 1) + " of " + std::to_string(parts) + ")";
            node(s, feed);
            for (std::size_t k = part * runs.size() / parts; k < (part + 1) * runs.size() / parts; ++k)
                edge(s, *runs[k]);
            sheets_.push_back(std::move(s));
        }
    }

    // What leads back to the batteries, loads counted at where they end.
    void grounds(Sheet& s) {
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
            if (e.from != e.to) s.edges.push_back(e);
        }
        for (const Point& p : plan_.points) {
            if (p.kind != PointKind::ground || p.bonded_to.empty()) continue;
            DrawEdge e;
            e.bond = p.id, e.from = bare(s, p.id), e.to = bare(s, p.bonded_to);
            if (e.from != e.to) s.edges.push_back(e);
        }
        for (DrawNode& n : s.nodes)
            if (loads[n.id] > 0)
                n.below =
                    std::to_string(loads[n.id]) + (loads[n.id] == 1 ? " load ends here" : " loads end here");
    }
    std::size_t bare(Sheet& s, const Id& id) {
        const std::size_t k = node(s, id);
        s.nodes[k].mirrored = s.nodes[k].symbol == Symbol::battery;
        s.nodes[k].to_ground.clear(), s.nodes[k].ground_ids.clear();
        s.nodes[k].ground_names.clear(), s.nodes[k].ground_frame.clear();
        return k;
    }

    Result<Diagram> draw_all() {
        Diagram out;
        std::vector<DrawnGraph> drawn;
        for (const Sheet& s : sheets_) {
            auto graph = draw_graph(plan_, s.nodes, s.edges, limits_);
            if (!graph) return tl::unexpected(graph.error());
            drawn.push_back(std::move(*graph));
        }
        // where each thing stands on each sheet, then what goes on where
        std::map<Id, std::vector<std::pair<std::size_t, std::string>>> where;
        std::vector<double> scales;
        for (std::size_t k = 0; k < sheets_.size(); ++k) {
            const double room_x = kWide_mm - 2 * (kFrame_mm + kZone_mm) - 4;
            const double room_y = kHigh_mm - 2 * (kFrame_mm + kZone_mm) - kTitle_mm - 8;
            const double scale = std::min({kLargest, room_x / std::max(drawn[k].wide_mm, 1.0),
                                           room_y / std::max(drawn[k].high_mm, 1.0)});
            scales.push_back(scale);
            for (std::size_t n = 0; n < sheets_[k].nodes.size(); ++n) {
                const auto [x, y] = drawn[k].at[n];
                where[sheets_[k].nodes[n].id].emplace_back(k, zone(left() + x * scale, top() + y * scale));
            }
        }
        for (std::size_t k = 0; k < sheets_.size(); ++k)
            out.sheets.push_back(finish(k, drawn[k], scales[k], where));
        return out;
    }

    static double left() { return kFrame_mm + kZone_mm + 2; }
    static double top() { return kFrame_mm + kZone_mm + 4; }
    static std::string zone(double x, double y) {
        const double wide = (kWide_mm - 2 * kFrame_mm) / kColumns, high = (kHigh_mm - 2 * kFrame_mm) / kRows;
        const int column = std::clamp(static_cast<int>((x - kFrame_mm) / wide), 0, kColumns - 1);
        const int row = std::clamp(static_cast<int>((y - kFrame_mm) / high), 0, kRows - 1);
        return std::string(1, static_cast<char>('A' + row)) + std::to_string(column + 1);
    }

    DiagramSheet finish(std::size_t k, DrawnGraph& graph, double scale,
                        const std::map<Id, std::vector<std::pair<std::size_t, std::string>>>& where) {
        DiagramSheet sheet;
        sheet.title = sheets_[k].title, sheet.scale = scale, sheet.crossings = graph.crossings;
        // go on: what stands on another sheet too
        for (std::size_t n = 0; n < sheets_[k].nodes.size(); ++n) {
            std::string on;
            for (const auto& [other, zone] : where.at(sheets_[k].nodes[n].id))
                if (other != k) on += (on.empty() ? "see " : ", ") + std::to_string(other + 1) + "/" + zone;
            if (on.empty()) continue;
            graph.strokes.belongs_to(sheets_[k].nodes[n].id);
            graph.strokes.text(graph.at[n].first, graph.below[n], on, 2.1, Anchor::middle);
        }
        for (Stroke s : graph.strokes.take()) {
            s.x = left() + s.x * scale, s.y = top() + s.y * scale;
            if (s.kind == StrokeKind::circle)
                s.x2 *= scale;
            else
                s.x2 = left() + s.x2 * scale, s.y2 = top() + s.y2 * scale;
            s.wide *= scale;
            sheet.strokes.push_back(std::move(s));
        }
        frame(sheet, k);
        return sheet;
    }

    void frame(DiagramSheet& sheet, std::size_t k) const {
        Strokes s;
        s.box(kFrame_mm, kFrame_mm, kWide_mm - kFrame_mm, kHigh_mm - kFrame_mm, 0.5);
        s.box(kFrame_mm + kZone_mm, kFrame_mm + kZone_mm, kWide_mm - kFrame_mm - kZone_mm,
              kHigh_mm - kFrame_mm - kZone_mm, 0.25);
        const double wide = (kWide_mm - 2 * kFrame_mm) / kColumns, high = (kHigh_mm - 2 * kFrame_mm) / kRows;
        for (int c = 0; c < kColumns; ++c) {
            const double x = kFrame_mm + (c + 0.5) * wide;
            s.text(x, kFrame_mm + 3.8, std::to_string(c + 1), 2.8, Anchor::middle);
            s.text(x, kHigh_mm - kFrame_mm - 1.4, std::to_string(c + 1), 2.8, Anchor::middle);
            if (c > 0)
                s.line(kFrame_mm + c * wide, kFrame_mm, kFrame_mm + c * wide, kFrame_mm + kZone_mm, 0.25);
        }
        for (int r = 0; r < kRows; ++r) {
            const double y = kFrame_mm + (r + 0.5) * high;
            const std::string letter(1, static_cast<char>('A' + r));
            s.text(kFrame_mm + 2.5, y, letter, 2.8, Anchor::middle);
            s.text(kWide_mm - kFrame_mm - 2.5, y, letter, 2.8, Anchor::middle);
        }
        const double base = kHigh_mm - kFrame_mm - kZone_mm;
        s.line(kFrame_mm + kZone_mm, base - kTitle_mm, kWide_mm - kFrame_mm - kZone_mm, base - kTitle_mm,
               0.25);
        s.text(kFrame_mm + kZone_mm + 3, base - 8, plan_.vehicle.name, 3.6, Anchor::left, true);
        s.text(kFrame_mm + kZone_mm + 3, base - 3, plan_.vehicle.kind, 2.6);
        s.text(kWide_mm / 2, base - 5.5, sheet.title, 4, Anchor::middle, true);
        s.text(kWide_mm - kFrame_mm - kZone_mm - 3, base - 5.5,
               "sheet " + std::to_string(k + 1) + " of " + std::to_string(sheets_.size()), 3.2,
               Anchor::right);
        for (Stroke& stroke : s.take()) sheet.strokes.push_back(std::move(stroke));
    }

    const Plan& plan_;
    ProgramLimits limits_;
    std::vector<WireRow> wires_;
    std::map<Id, const WireRow*> wire_of_;
    SupplySide supply_{plan_};
    std::map<Terminal, int> far_;
    std::vector<Id> own_;
    std::vector<Sheet> sheets_;
};

}  // namespace

Result<Diagram> diagram_of(const Plan& plan, const ProgramLimits& limits) {
    return Maker(plan, limits).run();
}

}  // namespace yr
