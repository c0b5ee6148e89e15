#include "diagram/draw_graph.h"

#include <algorithm>
#include <cmath>

#include "diagram/channels.h"

namespace yr {
namespace {

constexpr double kNode_mm = 28, kPort_mm = 10, kTrack_mm = 2.5, kSymbol_mm = 9;
constexpr double kDevice_mm = 10, kLabel_mm = 32, kGround_mm = 34, kLead_mm = 2, kGroundLine_mm = 3.6;
constexpr double kGroundLead_mm = 30;  // its cable and, under it, where that ends
constexpr double kStretch = 1.25;      // of what dot packs as tight as it goes

class Drawer {
  public:
    Drawer(const Plan& plan, const std::vector<DrawNode>& nodes, const std::vector<DrawEdge>& edges,
           const PlacedGraph& placed)
        : plan_(plan), nodes_(nodes), edges_(edges), placed_(placed) {}

    DrawnGraph run() {
        ports();
        channels();
        columns();
        for (std::size_t k = 0; k < nodes_.size(); ++k) node(k);
        for (std::size_t e = 0; e < edges_.size(); ++e) edge(e);
        out_.high_mm = placed_.high_mm * kStretch + 2 * kPort_mm;
        return std::move(out_);
    }

  private:
    double y_of(std::size_t n) const {
        return kPort_mm +
               (n < nodes_.size() ? placed_.nodes[n] : placed_.bends[n - nodes_.size()]).y_mm * kStretch;
    }
    int rank_of(std::size_t n) const {
        return (n < nodes_.size() ? placed_.nodes[n] : placed_.bends[n - nodes_.size()]).rank;
    }

    struct Gap {
        std::vector<std::size_t> steps;
        int tracks = 0;
        double parts_mm = 10, middle = 0, parts_at = 0, tracks_at = 0;
    };
    struct Step {  // of an edge, between two ranks next to each other; `left` stands in the lower rank
        std::size_t edge, left, right;
        double left_y = 0, right_y = 0;
    };

    // Where each line leaves its box: spread over its height in the order of where they go.
    void ports() {
        for (std::size_t e = 0; e < edges_.size(); ++e) {
            const auto& way = placed_.ways[e];
            for (std::size_t k = 0; k + 1 < way.size(); ++k) {
                const bool forward = rank_of(way[k]) <= rank_of(way[k + 1]);
                steps_.push_back({e, forward ? way[k] : way[k + 1], forward ? way[k + 1] : way[k]});
                by_edge_[e].push_back(steps_.size() - 1);
            }
        }
        const std::size_t all = nodes_.size() + placed_.bends.size();
        std::vector<std::vector<std::size_t>> leaving(all), coming(all);
        for (std::size_t s = 0; s < steps_.size(); ++s)
            leaving[steps_[s].left].push_back(s), coming[steps_[s].right].push_back(s);
        for (std::size_t n = 0; n < all; ++n) {
            spread(leaving[n], n, true);
            spread(coming[n], n, false);
        }
    }
    void spread(std::vector<std::size_t>& steps, std::size_t n, bool leaves) {
        std::stable_sort(steps.begin(), steps.end(), [&](std::size_t a, std::size_t b) {
            return y_of(leaves ? steps_[a].right : steps_[a].left) <
                   y_of(leaves ? steps_[b].right : steps_[b].left);
        });
        const double first = y_of(n) - (static_cast<double>(steps.size()) - 1) / 2 * kPort_mm;
        for (std::size_t k = 0; k < steps.size(); ++k) {
            const double y = n < nodes_.size() ? first + static_cast<double>(k) * kPort_mm : y_of(n);
            (leaves ? steps_[steps[k]].left_y : steps_[steps[k]].right_y) = y;
        }
    }

    void channels() {
        gaps_.resize(static_cast<std::size_t>(std::max(placed_.ranks, 1)));
        for (std::size_t s = 0; s < steps_.size(); ++s)
            gaps_[static_cast<std::size_t>(rank_of(steps_[s].left))].steps.push_back(s);
        track_.assign(steps_.size(), -1);
        for (Gap& g : gaps_) {
            std::vector<ChannelLine> lines;
            for (const std::size_t s : g.steps)
                lines.push_back({steps_[s].left_y, steps_[s].right_y, steps_[s].edge});
            const ChannelTracks routed = route_channel(lines);
            g.tracks = routed.tracks;
            out_.crossings += routed.crossings;
            for (std::size_t k = 0; k < g.steps.size(); ++k) track_[g.steps[k]] = routed.track[k];
            for (std::size_t n = 0; n < nodes_.size(); ++n)  // lines turn behind the grounds of this rank
                if (&gaps_[static_cast<std::size_t>(rank_of(n))] == &g && !nodes_[n].to_ground.empty() &&
                    !leads_on(n))
                    g.parts_mm = std::max(g.parts_mm, kGround_mm);
            for (const std::size_t s : g.steps) {
                const DrawEdge& e = edges_[steps_[s].edge];
                const std::size_t first = by_edge_[steps_[s].edge].front();
                if (s != first || !e.run) continue;
                const double parts = static_cast<double>(e.run->devices.size() + e.run->pins.size());
                g.parts_mm = std::max(g.parts_mm, std::max(parts * kDevice_mm, kLabel_mm));
            }
        }
    }

    void columns() {
        double x = kNode_mm / 2 + 4;
        for (Gap& g : gaps_) {
            g.middle = x;
            g.parts_at = x + kNode_mm / 2 + kLead_mm;
            g.tracks_at = g.parts_at + g.parts_mm + kTrack_mm;
            x = g.tracks_at + g.tracks * kTrack_mm + kLead_mm + kNode_mm / 2;
        }
        out_.wide_mm = gaps_.back().middle + kNode_mm / 2 + 4;
        for (std::size_t k = 0; k < nodes_.size(); ++k) {
            const double middle = gaps_[static_cast<std::size_t>(rank_of(k))].middle;
            out_.at.emplace_back(middle, y_of(k));
            if (!nodes_[k].to_ground.empty() && !leads_on(k))
                out_.wide_mm = std::max(out_.wide_mm, middle + kNode_mm / 2 + kGround_mm);
        }
    }

    // Inside a box: on two lines where it is long, and smaller where that is not enough.
    void boxed_name(const std::string& name, double x, double y) {
        const auto high = [](const std::string& text) {
            return std::clamp(
                (kNode_mm - 2) / (0.56 * static_cast<double>(std::max<std::size_t>(text.size(), 1))), 1.6,
                2.8);
        };
        std::size_t cut = std::string::npos;
        if (high(name) < 2.7)
            for (std::size_t k = 0; k < name.size(); ++k)
                if (name[k] == ' ' && (cut == std::string::npos ||
                                       std::max(k, name.size() - k) < std::max(cut, name.size() - cut)))
                    cut = k;
        if (cut == std::string::npos) {
            out_.strokes.text(x, y, name, high(name), Anchor::middle, true);
            return;
        }
        const std::string first = name.substr(0, cut), second = name.substr(cut + 1);
        out_.strokes.text(x, y - 1.6, first, high(first), Anchor::middle, true);
        out_.strokes.text(x, y + 1.6, second, high(second), Anchor::middle, true);
    }
    // Over a symbol: smaller where it is long, on two lines where that is not enough, clear of the lines that
    // turn beside it.
    void name_above(const std::string& name, double x, double y) {
        const auto high = [](std::size_t letters) {
            return (kNode_mm + 3) / (0.6 * static_cast<double>(std::max<std::size_t>(letters, 1)));
        };
        if (high(name.size()) >= 2.1) {
            out_.strokes.text(x, y, name, std::min(2.8, high(name.size())), Anchor::middle, true);
            return;
        }
        std::size_t cut = name.rfind(' ', name.size() / 2);
        if (const std::size_t behind = name.find(' ', name.size() / 2);
            cut == std::string::npos || (behind != std::string::npos && behind < name.size() - cut))
            cut = behind;
        if (cut == std::string::npos) cut = name.size();
        const double size = std::clamp(high(std::max(cut, name.size() - cut)), 1.8, 2.8);
        out_.strokes.text(x, y - (cut < name.size() ? size * 1.15 : 0), name.substr(0, cut), size,
                          Anchor::middle, true);
        if (cut < name.size()) out_.strokes.text(x, y, name.substr(cut + 1), size, Anchor::middle, true);
    }
    bool leads_on(std::size_t k) const {
        return std::any_of(steps_.begin(), steps_.end(), [&](const Step& s) { return s.left == k; });
    }
    bool is_block(const DrawNode& n) const {
        return n.symbol == Symbol::unit || n.symbol == Symbol::load || n.symbol == Symbol::bar;
    }

    void node(std::size_t k) {
        const DrawNode& n = nodes_[k];
        Strokes& s = out_.strokes;
        const auto [x, y] = out_.at[k];
        std::size_t in = 0, out = 0;
        for (const Step& step : steps_) in += step.right == k, out += step.left == k;
        const double half = std::max({5.0, kPort_mm * static_cast<double>(std::max(in, out)) / 2});
        s.belongs_to(n.id);
        if (n.symbol == Symbol::bar) {
            s.line(x, y - half, x, y + half, 1.4);
            s.line(x - kNode_mm / 2, y, x, y);
            for (const Step& step : steps_)
                if (step.left == k) s.line(x, step.left_y, x + kNode_mm / 2, step.left_y);
            for (const Step& step : steps_)
                if (step.right == k) s.line(x - kNode_mm / 2, step.right_y, x, step.right_y);
            name_above(n.name, x, y - half - 1.4);
            s.text(x, y + half + 2.8, n.below, 2.3, Anchor::middle);
        } else if (is_block(n)) {
            s.box(x - kNode_mm / 2, y - half, x + kNode_mm / 2, y + half);
            boxed_name(n.name, x, y + (n.below.empty() ? 1 : -0.4));
            s.text(x, y + 3, n.below, 2.3, Anchor::middle);
        } else {
            const double size = n.symbol == Symbol::junction ? 2 : kSymbol_mm;
            draw(s, n.symbol, x, y, size, n.mirrored);
            const double r = n.symbol == Symbol::junction ? 1 : size / 2;
            if (in > 0) s.line(x - kNode_mm / 2, y, x - r, y);
            if (out > 0 || !n.to_ground.empty()) s.line(x + r, y, x + kNode_mm / 2, y);
            for (const Step& step : steps_) {  // several lines meet before the symbol
                if (step.left == k && std::abs(step.left_y - y) > 0.01)
                    s.line(x + kNode_mm / 2, y, x + kNode_mm / 2, step.left_y);
                if (step.right == k && std::abs(step.right_y - y) > 0.01)
                    s.line(x - kNode_mm / 2, y, x - kNode_mm / 2, step.right_y);
            }
            name_above(n.name, x, y - r - 1.2);
            s.text(x, y + r + 2.8, n.below, 2.3, Anchor::middle);
        }
        const double foot = is_block(n) ? half : n.symbol == Symbol::junction ? 1 : kSymbol_mm / 2;
        double below = y + foot + (n.below.empty() || is_block(n) ? 3 : 5.4);
        if (leads_on(k)) {
            double lowest = y + foot + (n.below.empty() ? 1 : 3.4);
            for (const Step& step : steps_)  // clear of its own lines
                if (step.left == k && !n.to_ground.empty()) lowest = std::max(lowest, step.left_y + 4.5);
            below = grounds_below(n, x, lowest);
        } else {
            grounds(n, x, y);
        }
        out_.below.push_back(below);
    }

    // Under a thing whose right side leads on: a ground with its cables listed; says where the next line
    // goes.
    double grounds_below(const DrawNode& n, double x, double top) {
        Strokes& s = out_.strokes;
        if (n.to_ground.empty()) return top + 2;
        s.belongs_to(n.ground_ids.front());
        draw_ground(s, x - 9, top, {}, n.ground_frame.front());
        s.text(x - 12.5, top + 1.2, "31", 1.9, Anchor::right);
        for (std::size_t g = 0; g < n.to_ground.size(); ++g) {
            s.belongs_to(n.ground_ids[g]);
            s.text(x - 6, top + 2.2 + static_cast<double>(g) * kGroundLine_mm * 0.75,
                   n.to_ground[g] + " to " + n.ground_names[g], 2);
        }
        return top + 4.6 + static_cast<double>(n.to_ground.size()) * kGroundLine_mm * 0.75;
    }

    void grounds(const DrawNode& n, double x, double y) {
        Strokes& s = out_.strokes;
        double at = x + kNode_mm / 2;
        const std::size_t many = n.to_ground.size();
        for (std::size_t g = 0; g < many; ++g) {
            const double level = y + (static_cast<double>(g) - (static_cast<double>(many) - 1) / 2) * 6;
            s.belongs_to(n.ground_ids[g]);
            if (std::abs(level - y) > 0.01) s.line(at, y, at, level);
            s.line(at, level, at + kGroundLead_mm, level);
            s.text(at + 5, level - 0.9, n.to_ground[g], 2.2);
            s.text(at + 5, level + 2.4, n.ground_names[g], 2.2);
            draw_ground(s, at + kGroundLead_mm, level, {}, n.ground_frame[g]);
            const std::string number = terminal_number(plan_, neg_of(n.id));
            s.text(at + 0.8, level - 0.9, number.empty() ? "31" : number, 1.8);
        }
    }

    void edge(std::size_t e) {
        Strokes& s = out_.strokes;
        const DrawEdge& edge = edges_[e];
        s.belongs_to(edge.run ? edge.run->id : edge.bond);
        for (const std::size_t k : by_edge_[e]) {
            const Step& step = steps_[k];
            const Gap& g = gaps_[static_cast<std::size_t>(rank_of(step.left))];
            const double begins = g.middle + (step.left < nodes_.size() ? kNode_mm / 2 : 0);
            const double ends = gaps_[static_cast<std::size_t>(rank_of(step.right))].middle -
                                (step.right < nodes_.size() ? kNode_mm / 2 : 0);
            const double wide = edge.wire && edge.wire->pieces > 0 && thick(*edge.run) ? 0.7 : 0.3;
            const bool first = k == by_edge_[e].front();
            if (track_[k] < 0) {
                level(edge, first, g, begins, ends, step.left_y, wide);
            } else {
                const double x = g.tracks_at + track_[k] * kTrack_mm;
                level(edge, first, g, begins, x, step.left_y, wide);
                s.line(x, step.left_y, x, step.right_y, wide);
                s.line(x, step.right_y, ends, step.right_y, wide);
            }
        }
        if (!by_edge_[e].empty()) along(edge, steps_[by_edge_[e].front()]);
    }

    // Open where a contact stands in it: its symbol brings its own leads.
    void level(const DrawEdge& edge, bool first, const Gap& g, double from, double to, double y,
               double wide) {
        double x = g.parts_at;
        if (first && edge.run)
            for (const Device& d : edge.run->devices) {
                if (d.kind != DeviceKind::fuse || is_breaker(d.fuse)) {
                    out_.strokes.line(from, y, x + 1, y, wide);
                    from = x + kDevice_mm - 1;
                }
                x += kDevice_mm;
            }
        out_.strokes.line(from, y, to, y, wide);
    }

    bool thick(const Run& run) const {
        if (!run.size) return false;
        const auto wire = conductor(*run.size, run.material);
        return wire && wire->area_mm2 > 10;
    }

    // Devices, pins, number, size and colour on its first level part.
    void along(const DrawEdge& edge, const Step& step) {
        Strokes& s = out_.strokes;
        const Gap& g = gaps_[static_cast<std::size_t>(rank_of(step.left))];
        double x = g.parts_at;
        s.belongs_to(edge.run ? edge.run->id : edge.bond);
        if (!edge.run) {
            s.text(x, step.left_y - 1, "bond", 2);
            return;
        }
        std::string label = edge.wire ? edge.wire->number : std::string();
        if (edge.run->size) label += (label.empty() ? "" : "  ") + name_of(*edge.run->size);
        if (edge.wire) label += " " + edge.wire->colour;
        if (edge.wire && edge.wire->pieces > 1) label += " x" + std::to_string(edge.wire->pieces);
        if (!edge.wire) label = edge.run->name;
        s.text(x, step.left_y - (edge.run->devices.empty() ? 1 : 2.6), label, 2.3);
        if (edge.run->devices.empty() && edge.wire) {
            char metres[32];
            std::snprintf(metres, sizeof metres, "%.2f m", edge.wire->length_m);
            s.text(x, step.left_y + 2.6, metres, 2.2);
        }
        for (const Device& d : edge.run->devices) {
            x += kDevice_mm / 2;
            draw_device(s, d, x, step.left_y);
            if (d.kind == DeviceKind::switching && !d.master && !d.closed_when.switches.empty()) {
                const std::string& name = d.closed_when.switches.front();
                const bool wide = name.size() > 8;  // beside the figure of the fuse before it
                s.text(wide ? x - 2.5 : x, step.left_y + (d.coil.empty() ? 3.4 : 5.4), name, 1.9,
                       wide ? Anchor::left : Anchor::middle);
            }
            x += kDevice_mm / 2;
        }
        s.belongs_to(edge.run->id);
        for (const PinUse& pin : edge.run->pins) {
            const Connector* c = find(plan_.connectors, std::string_view(pin.connector));
            draw_pin(s, x + kDevice_mm / 2, step.left_y,
                     (c ? c->name : pin.connector) + ":" + std::to_string(pin.pin));
            x += kDevice_mm;
        }
        const std::string number = terminal_number(plan_, edge.at_from);
        s.text(g.middle + kNode_mm / 2 - 0.6, step.left_y - 0.9, number, 1.8, Anchor::right);
        const Step& last = steps_[by_edge_.at(step.edge).back()];
        const std::size_t target = last.right;
        if (target < nodes_.size())
            s.text(out_.at[target].first - kNode_mm / 2 - 0.6, last.right_y - 0.9,
                   terminal_number(plan_, edge.at_to), 1.8, Anchor::right);
    }

    const Plan& plan_;
    const std::vector<DrawNode>& nodes_;
    const std::vector<DrawEdge>& edges_;
    const PlacedGraph& placed_;
    std::vector<Step> steps_;
    std::map<std::size_t, std::vector<std::size_t>> by_edge_;
    std::vector<Gap> gaps_;
    std::vector<int> track_;
    DrawnGraph out_;
};

}  // namespace

Result<DrawnGraph> draw_graph(const Plan& plan, const std::vector<DrawNode>& nodes,
                              const std::vector<DrawEdge>& edges, const ProgramLimits& limits) {
    std::vector<GraphNode> boxes;
    std::vector<GraphEdge> lines;
    std::vector<std::size_t> in(nodes.size()), out(nodes.size());
    for (const DrawEdge& e : edges) {
        lines.push_back({e.from, e.to});
        ++out[e.from], ++in[e.to];
    }
    for (std::size_t k = 0; k < nodes.size(); ++k) {
        GraphNode n;
        n.wide_mm = kNode_mm;
        const double ports = static_cast<double>(std::max({in[k], out[k], std::size_t{1}}));
        n.high_mm = std::max(13.0, kPort_mm * ports + 5);
        const auto grounds = static_cast<double>(nodes[k].to_ground.size());
        n.high_mm = std::max(n.high_mm, 6 * grounds + 5);
        if (out[k] > 0 && grounds > 0) n.high_mm = std::max(n.high_mm, 2 * (kGroundLine_mm * grounds + 7));
        boxes.push_back(n);
    }
    const auto placed = place_graph(boxes, lines, limits);
    if (!placed) return tl::unexpected(placed.error());
    return Drawer(plan, nodes, edges, *placed).run();
}

}  // namespace yr
