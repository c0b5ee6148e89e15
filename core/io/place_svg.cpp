#include "io/place_svg.h"

#include <fmt/format.h>

#include <algorithm>

#include "io/svg_text.h"
#include "plan/lists.h"
#include "routes/outline.h"
#include "routes/packing.h"

namespace yr {
namespace {

constexpr double kUnits_per_m = 100, kMargin = 40;

class Drawing {
  public:
    explicit Drawing(const Plan& plan) : shape_(shape_of(plan.vehicle)) {}

    double x(double x_m) const { return kMargin + (x_m - shape_.front_x()) * kUnits_per_m; }
    double y(double y_m) const { return kMargin + (shape_.wide_m / 2 - y_m) * kUnits_per_m; }
    double width() const { return 2 * kMargin + shape_.long_m * kUnits_per_m; }
    double height() const { return 2 * kMargin + shape_.wide_m * kUnits_per_m; }

    void box(double left, double top, double wide, double high, const char* style) {
        out_ += fmt::format("  <rect x=\"{:.1f}\" y=\"{:.1f}\" width=\"{:.1f}\" height=\"{:.1f}\" {}/>\n",
                            left, top, wide, high, style);
    }
    void text(double at_x, double at_y, const std::string& words, const char* anchor = "start") {
        out_ +=
            fmt::format("  <text x=\"{:.1f}\" y=\"{:.1f}\" font-size=\"11\" text-anchor=\"{}\">{}</text>\n",
                        at_x, at_y, anchor, svg_escaped(words));
    }
    void line(const Spot& a, const Spot& b, double wide, const char* style) {
        out_ += fmt::format(
            "  <line x1=\"{:.1f}\" y1=\"{:.1f}\" x2=\"{:.1f}\" y2=\"{:.1f}\" stroke-width=\"{:.1f}\" {}/>\n",
            x(a.x_m), y(a.y_m), x(b.x_m), y(b.y_m), wide, style);
    }
    void ring(const Spot& s, double r) {
        out_ += fmt::format(
            "  <circle cx=\"{:.1f}\" cy=\"{:.1f}\" r=\"{:.1f}\" fill=\"white\" stroke=\"black\"/>\n",
            x(s.x_m), y(s.y_m), r);
    }
    const OutlineShape& shape() const { return shape_; }
    std::string done() && { return std::move(out_); }

  private:
    OutlineShape shape_;
    std::string out_;
};

}  // namespace

std::string place_svg(const Plan& plan, const Routes& routes, const State& state) {
    Drawing d(plan);
    d.box(kMargin, kMargin, d.shape().long_m * kUnits_per_m, d.shape().wide_m * kUnits_per_m,
          "rx=\"30\" fill=\"none\" stroke=\"black\" stroke-width=\"2\"");
    for (const Place& p : plan.places) {
        const auto room = room_of(p);
        if (!room) continue;
        d.box(d.x(room->low.x_m), d.y(room->high.y_m), (room->high.x_m - room->low.x_m) * kUnits_per_m,
              (room->high.y_m - room->low.y_m) * kUnits_per_m,
              is_hazard(p) ? "fill=\"none\" stroke=\"black\" stroke-dasharray=\"2 3\""
                           : "fill=\"none\" stroke=\"gray\"");
        d.text(d.x(room->low.x_m) + 5, d.y(room->high.y_m) + 13,
               is_hazard(p) ? p.name : fmt::format("{} {:.0f} °C", p.name, air_at(plan, p.id, state)));
    }
    for (std::size_t k = 0; k < plan.ways.size(); ++k) {
        const Waypoint *a = find(plan.waypoints, plan.ways[k].from),
                       *b = find(plan.waypoints, plan.ways[k].to);
        if (!a || !b || !a->at.spot() || !b->at.spot()) continue;
        const auto& runs = routes.ways[k].runs;
        if (runs.empty())
            d.line(*a->at.spot(), *b->at.spot(), 0.7, "stroke=\"gray\" stroke-dasharray=\"4 4\"");
        else
            d.line(*a->at.spot(), *b->at.spot(),
                   std::max(1.5, bundle_by_factor(diameters_mm(plan, runs)) / 4),
                   "stroke=\"#333\" stroke-linecap=\"round\"");
    }
    for (const auto& route : routes.by_run)
        if (route)
            for (const Leg& leg : route->path.legs)
                if (!leg.way) d.line(leg.from, leg.to, 0.7, "stroke=\"#333\"");
    for (std::size_t n = 0; n < plan.waypoints.size(); ++n) {
        const Waypoint& w = plan.waypoints[n];
        if (w.kind == PassageKind::bend || !w.at.spot()) continue;
        d.ring(*w.at.spot(), 6);
        if (routes.passages[n].share > 0)
            d.text(d.x(w.at.spot()->x_m), d.y(w.at.spot()->y_m) + 18,
                   fmt::format("{}: {:.0f} % full", w.name, 100 * routes.passages[n].share), "middle");
    }
    each_list(plan, [&](const auto& things) {
        using Thing = typename std::remove_cvref_t<decltype(things)>::value_type;
        if constexpr (requires(const Thing& t) { t.at.spot(), t.place; })
            for (const Thing& t : things)
                if (const auto s = t.at.spot()) {
                    d.box(d.x(s->x_m) - 4, d.y(s->y_m) - 4, 8, 8, "fill=\"black\"");
                    d.text(d.x(s->x_m) + 7, d.y(s->y_m) + 4, t.name);
                }
    });
    const double wide = d.width(), high = d.height();
    return fmt::format(
               "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {0:.0f} {1:.0f}\" width=\"{0:.0f}\" "
               "height=\"{1:.0f}\" font-family=\"sans-serif\">\n  <title>{2}</title>\n"
               "  <rect width=\"{0:.0f}\" height=\"{1:.0f}\" fill=\"white\"/>\n",
               wide, high, svg_escaped(plan.vehicle.name)) +
           std::move(d).done() + "</svg>\n";
}

}  // namespace yr
