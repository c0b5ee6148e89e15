#include "diagram/fold.h"

#include <algorithm>

#include "diagram/bands.h"
#include "diagram/frame.h"

namespace yr {
namespace {

constexpr double kLargest = 1.5;    // a small circuit is drawn larger
constexpr double kReadable = 0.95;  // drawn smaller than this it is folded: letters of 2 mm (ISO 3098, from
                                    // memory: 1.8 mm is the least)
constexpr double kLeft_mm = kFrame_mm + kZone_mm + 2, kTop_mm = kFrame_mm + kZone_mm + 4;
constexpr double kRoomWide_mm = kSheetWide_mm - 2 * (kFrame_mm + kZone_mm) - 4;
constexpr double kRoomHigh_mm = kSheetHigh_mm - 2 * (kFrame_mm + kZone_mm) - kTitle_mm - 8;

struct Band {
    GraphPage graph;
    DrawnGraph drawn;
};
struct Sheet {
    std::string title;
    std::vector<Band> bands;
    [[nodiscard]] double scale() const {
        double high = 0, most = kLargest;
        for (const Band& b : bands) {
            high += b.drawn.high_mm;
            most = std::min(most, kRoomWide_mm / std::max(b.drawn.wide_mm, 1.0));
        }
        return std::min(most, kRoomHigh_mm / std::max(high, 1.0));
    }
};
struct Place {
    std::size_t sheet, band;
    std::string zone;
};

class Folder {
  public:
    Folder(const Plan& plan, const ProgramLimits& limits) : plan_(plan), limits_(limits) {}

    Result<Diagram> run(std::vector<GraphPage> pages) {
        for (GraphPage& page : pages) {
            const std::string title = page.title;
            bands_.clear();
            if (const auto drawn = draw(std::move(page)); !drawn) return tl::unexpected(drawn.error());
            stack(title);
        }
        places();
        Diagram out;
        for (std::size_t k = 0; k < sheets_.size(); ++k) out.sheets.push_back(finish(k));
        return out;
    }

  private:
    Result<bool> draw(GraphPage page) {
        auto drawn = draw_graph(plan_, page.nodes, page.edges, limits_);
        if (!drawn) return tl::unexpected(drawn.error());
        const bool wide = kRoomWide_mm / std::max(drawn->wide_mm, 1.0) < kReadable;
        const bool high = kRoomHigh_mm / std::max(drawn->high_mm, 1.0) < kReadable;
        if (wide || high)
            if (auto halves = cut(page, wide ? Measure::ranks : Measure::ends)) {
                for (GraphPage* half : {&halves->first, &halves->second})
                    if (auto done = draw(std::move(*half)); !done) return done;
                return true;
            }
        bands_.push_back({std::move(page), std::move(*drawn)});
        return true;
    }

    static std::optional<std::pair<GraphPage, GraphPage>> cut(const GraphPage& page, Measure by) {
        std::vector<GraphEdge> edges;
        for (const DrawEdge& e : page.edges) edges.push_back({e.from, e.to});
        const auto at = cut_in_two(page.nodes.size(), edges, by);
        if (!at) return std::nullopt;
        std::vector<char> second(page.nodes.size(), 0), first(page.nodes.size(), 1);
        for (std::size_t e = 0; e < edges.size(); ++e)
            if (at->beyond[e]) second[edges[e].from] = second[edges[e].to] = 1, first[edges[e].to] = 0;
        first[at->at] = 1;
        for (std::size_t e = 0; e < edges.size(); ++e)
            if (!at->beyond[e]) first[edges[e].from] = first[edges[e].to] = 1;
        std::pair<GraphPage, GraphPage> halves = {part(page, first, at->beyond, 0),
                                                  part(page, second, at->beyond, 1)};
        // its ways back are drawn where it stands first
        for (DrawNode& n : halves.second.nodes)
            if (first[index_of(page, n.id)])
                n.to_ground.clear(), n.ground_ids.clear(), n.ground_names.clear(), n.ground_frame.clear();
        return halves;
    }
    static std::size_t index_of(const GraphPage& page, const Id& id) {
        return static_cast<std::size_t>(std::find_if(page.nodes.begin(), page.nodes.end(),
                                                     [&](const DrawNode& n) { return n.id == id; }) -
                                        page.nodes.begin());
    }
    static GraphPage part(const GraphPage& page, const std::vector<char>& nodes,
                          const std::vector<char>& beyond, char wanted) {
        GraphPage out{page.title, {}, {}};
        std::vector<std::size_t> now(page.nodes.size(), 0);
        for (std::size_t n = 0; n < page.nodes.size(); ++n)
            if (nodes[n]) now[n] = out.nodes.size(), out.nodes.push_back(page.nodes[n]);
        for (std::size_t e = 0; e < page.edges.size(); ++e)
            if (beyond[e] == wanted) {
                out.edges.push_back(page.edges[e]);
                out.edges.back().from = now[page.edges[e].from], out.edges.back().to = now[page.edges[e].to];
            }
        return out;
    }

    // Bands one below another as long as they stay readable.
    void stack(const std::string& title) {
        const std::size_t begin = sheets_.size();
        for (Band& b : bands_) {
            Sheet alone{title, {}};
            alone.bands.push_back(std::move(b));
            if (sheets_.size() > begin) {
                Sheet& last = sheets_.back();
                const double least = std::min({kReadable, alone.scale(), last.scale()});
                last.bands.push_back(std::move(alone.bands.back()));
                if (last.scale() >= least) continue;
                alone.bands.back() = std::move(last.bands.back());
                last.bands.pop_back();
            }
            sheets_.push_back(std::move(alone));
        }
        const std::size_t parts = sheets_.size() - begin;
        for (std::size_t k = 0; parts > 1 && k < parts; ++k)
            sheets_[begin + k].title += " (" + std::to_string(k + 1) + " of " + std::to_string(parts) + ")";
    }

    void places() {
        for (std::size_t k = 0; k < sheets_.size(); ++k) {
            const double scale = sheets_[k].scale();
            double top = kTop_mm;
            for (std::size_t b = 0; b < sheets_[k].bands.size(); ++b) {
                const Band& band = sheets_[k].bands[b];
                for (std::size_t n = 0; n < band.graph.nodes.size(); ++n) {
                    const auto [x, y] = band.drawn.at[n];
                    where_[band.graph.nodes[n].id].push_back(
                        {k, b, zone_at(kLeft_mm + x * scale, top + y * scale)});
                }
                top += band.drawn.high_mm * scale;
            }
        }
    }

    // What stands elsewhere too: on another sheet as 3/B4, on the same one as B4.
    std::string goes_on(const Id& id, std::size_t sheet, std::size_t band) const {
        std::string on;
        for (const Place& p : where_.at(id)) {
            if (p.sheet == sheet && p.band == band) continue;
            on += on.empty() ? "see " : ", ";
            if (p.sheet != sheet) on += std::to_string(p.sheet + 1) + "/";
            on += p.zone;
        }
        return on;
    }

    DiagramSheet finish(std::size_t k) {
        DiagramSheet sheet;
        sheet.title = sheets_[k].title, sheet.scale = sheets_[k].scale();
        double top = kTop_mm;
        for (std::size_t b = 0; b < sheets_[k].bands.size(); ++b) {
            Band& band = sheets_[k].bands[b];
            for (std::size_t n = 0; n < band.graph.nodes.size(); ++n) {
                const Id& id = band.graph.nodes[n].id;
                const std::string on = goes_on(id, k, b);
                if (on.empty()) continue;
                band.drawn.strokes.belongs_to(id);
                band.drawn.strokes.text(band.drawn.at[n].first, band.drawn.below[n], on, 2.1, Anchor::middle);
            }
            for (const Stroke& s : band.drawn.strokes.take())
                sheet.strokes.push_back(scaled(s, sheet.scale, top));
            sheet.crossings += band.drawn.crossings;
            top += band.drawn.high_mm * sheet.scale;
        }
        Strokes frame;
        draw_frame(frame, {plan_.vehicle.name, plan_.vehicle.kind, sheet.title, k + 1, sheets_.size()});
        for (Stroke& stroke : frame.take()) sheet.strokes.push_back(std::move(stroke));
        return sheet;
    }
    static Stroke scaled(Stroke s, double scale, double top) {
        s.x = kLeft_mm + s.x * scale, s.y = top + s.y * scale;
        if (s.kind == StrokeKind::circle)
            s.x2 *= scale;
        else
            s.x2 = kLeft_mm + s.x2 * scale, s.y2 = top + s.y2 * scale;
        s.wide *= scale;
        return s;
    }

    const Plan& plan_;
    ProgramLimits limits_;
    std::vector<Band> bands_;  // of the page at hand
    std::vector<Sheet> sheets_;
    std::map<Id, std::vector<Place>> where_;
};

}  // namespace

Result<Diagram> folded(const Plan& plan, std::vector<GraphPage> pages, const ProgramLimits& limits) {
    return Folder(plan, limits).run(std::move(pages));
}

}  // namespace yr
