#include "railchart/rail_scene.h"

#include "plan/supply_runs.h"
#include "railchart/shelf.h"

#include "plan/rail_volts.h"
#include "solve/results.h"
#include "widgets/tokens.h"
#include "words/sentences.h"

#include <QFontMetricsF>
#include <algorithm>
#include <cmath>
#include <queue>
#include <string_view>
#include <unordered_map>

namespace yr::app {
namespace {

constexpr double kLeft = 66, kRight = 18, kTop = 8, kStrip = 28, kUnderStrip = 18, kBottom = 30;
constexpr double kMostPxPerV = 700;
constexpr double kBoxBar = 5;
constexpr double kHandle_px = 20, kNarrow_px = 36;
constexpr int kNoWords = 3;
constexpr double kOwnRoom_px = 66;  // from here a load may carry its own name

std::size_t at_(int k) {
    return static_cast<std::size_t>(k);
}

class SceneBuilder {
  public:
    SceneBuilder(const ShownCircuit& d, const Inspector* inspector, const QSizeF& size,
                 const SceneWindow& window, const SceneScale& scale)
        : scale_(scale),
          d_(d),
          inspector_(inspector),
          plan_(d.plan()),
          supply_(plan_),
          sol_(d.solution()),
          layout_(d.layout()),
          size_(size),
          window_(window) {
        for (std::size_t k = 0; k < plan_.loads.size(); ++k) index_of_.emplace(plan_.loads[k].id, k);
    }

    RailScene build() {
        if (layout_.width_A <= 0) {
            scene_.note =
                plan_.loads.empty()
                    ? say("Nothing draws yet. Type what is fitted on the line at the left, such as: work "
                          "light "
                          "2x 35 W on ignition, 4 m")
                    : say("Nothing draws current in this state: no load is on with its key and switches.");
            return scene_;
        }
        left_ = window_.whole() ? 0 : window_.left_A;
        right_ = window_.whole() ? layout_.width_A : window_.right_A;
        measure();
        add_sources();
        add_conductors();
        add_boxes();
        add_loads();
        place_names();
        add_ticks();
        return std::move(scene_);
    }

  private:
    std::optional<Severity> severity_of(const Id& id, const Id& state = {}) const {
        return inspector_ ? inspector_->severity_of(id, state) : std::nullopt;
    }
    const std::vector<StateBands>& bands_at_hand() const {
        static const std::vector<StateBands> none;
        return inspector_ && inspector_->current() ? inspector_->inspection().bands : none;
    }
    QString A(double v) const { return q(words::quantity(v, Dimension::current, d_.style())); }
    QString V(double v) const { return q(words::quantity(v, Dimension::voltage, d_.style())); }
    bool seen(double l, double r) const { return r > left_ + 1e-9 && l < right_ - 1e-9; }
    double x(double amps) const {
        return scene_.plot.left() + (std::clamp(amps, left_, right_) - left_) * scene_.px_per_A;
    }

    double spare_A() const {  // what running sources could still give
        double spare = 0;
        for (const SourceResult& s : sol_.point.sources)
            if (s.mode == DeviceMode::regulating || s.mode == DeviceMode::blocking)
                spare += s.limit_A - s.current_A;
        return spare;
    }

    void measure() {
        const double width = std::max(100.0, size_.width() - kLeft - kRight);
        const double amps = right_ - left_;
        const double spare = window_.whole() ? spare_A() : 0;
        // headroom keeps the scale of amps where there is room for it, and never takes more than a sixth
        headroom_px_ = spare > 0 ? std::min(width / 6, width * spare / (amps + spare)) : 0;
        scene_.px_per_A = (width - headroom_px_) / amps;
        if (scale_.px_per_A > 0) scene_.px_per_A = std::min(scene_.px_per_A, scale_.px_per_A);
        const double top = kTop + kStrip + kUnderStrip;
        scene_.plot =
            QRectF(kLeft, top, amps * scene_.px_per_A, std::max(120.0, size_.height() - top - kBottom));
        double supply = 0, ret = 0;
        for (const ChartPiece& p : layout_.pieces) {
            if (!seen(p.left_A, p.right_A)) continue;
            if (p.side == ChartSide::supply) supply = std::max(supply, p.lost_bottom_V);
            if (p.side == ChartSide::ret) ret = std::max(ret, p.lost_top_V);
        }
        const double gap = std::max(150.0, 0.36 * scene_.plot.height());
        scene_.px_per_V =
            std::min(kMostPxPerV, std::max(20.0, scene_.plot.height() - gap) / std::max(supply + ret, 1e-3));
        if (scale_.px_per_V > 0) scene_.px_per_V = std::min(scene_.px_per_V, scale_.px_per_V);
    }

    SceneItem source_item(const ChartSource& s) const {
        SceneItem i;
        i.kind = SceneKind::source;
        i.left_A = s.left_A, i.right_A = s.right_A;
        i.rect = QRectF(QPointF(x(s.left_A), kTop), QPointF(x(s.right_A), kTop + kStrip));
        const double amps = s.right_A - s.left_A;
        if (s.battery) {
            i.id = plan_.batteries[at_(s.index)].id;
            i.shortfall = d_.state().rpm > 0;
            i.label = q(plan_.batteries[at_(s.index)].name) + say(" gives ") + A(amps) +
                      QStringLiteral("   ") + V(s.top_V);
            i.share = say("battery gives ") + A(amps);
            const BatteryElement& b = sol_.network.batteries[at_(s.index)];
            if (b.charge > 0.5) {
                const QString half =
                    say(", half in ") +
                    q(words::duration_h(hours_for_share(
                        b.charge - 0.5, b.capacity_Ah,
                        average_battery_A(sol_.network, sol_.point, at_(s.index)), b.peukert)));
                i.label += half;
                i.share_long = say("battery ") + A(amps) + half;
            }
            i.detail = A(amps);
        } else {
            const SourceResult& r = sol_.point.sources[at_(s.index)];
            i.id = plan_.sources[at_(s.index)].id;
            i.label =
                q(plan_.sources[at_(s.index)].name) + QStringLiteral("  ") + A(amps) +
                (r.mode == DeviceMode::limited ? say(", all it can give") : say(" of ") + A(r.limit_A)) +
                QStringLiteral("   ") + V(s.top_V);
            i.share = q(plan_.sources[at_(s.index)].name) + QStringLiteral("  ") + A(amps);
            i.detail = A(amps);
        }
        i.severity = severity_of(i.id, d_.state().id);
        return i;
    }

    void add_sources() {
        for (const ChartSource& s : layout_.sources)
            if (seen(s.left_A, s.right_A)) scene_.items.push_back(source_item(s));
        if (headroom_px_ <= 0) return;
        SceneItem spare;
        spare.kind = SceneKind::headroom;
        spare.rect = QRectF(scene_.plot.right(), kTop, headroom_px_, kStrip);
        spare.label = A(spare_A()) + say(" to spare");
        for (std::size_t k = 0; k < plan_.sources.size() && spare.id.empty(); ++k)
            if (sol_.point.sources[k].limit_A > sol_.point.sources[k].current_A + 1e-6)
                spare.id = plan_.sources[k].id;
        scene_.items.push_back(spare);
    }

    double y_of(const ChartPiece& p, double lost) const {
        return p.side == ChartSide::supply ? scene_.plot.top() + lost * scene_.px_per_V
                                           : scene_.plot.bottom() - lost * scene_.px_per_V;
    }

    void add_conductors() {
        std::vector<int> count(sol_.network.conductors.size(), 0);
        scene_.items.reserve(scene_.items.size() + layout_.pieces.size());
        for (const ChartPiece& p : layout_.pieces) {
            if (p.ref.thing != ChartThing::conductor) continue;
            const int piece = count[at_(p.ref.index)]++;
            if (!seen(p.left_A, p.right_A)) continue;
            const ConductorElement& c = sol_.network.conductors[at_(p.ref.index)];
            const ConductorResult& r = sol_.point.conductors[at_(p.ref.index)];
            SceneItem i;
            i.kind = SceneKind::conductor;
            i.ref = p.ref;
            i.id = c.run >= 0 ? plan_.runs[at_(c.run)].id : plan_.points[at_(c.ground_point)].id;
            i.side = p.side, i.depth = p.depth, i.pieces = p.pieces, i.piece = piece;
            i.left_A = p.left_A, i.right_A = p.right_A;
            i.rect = QRectF(QPointF(x(p.left_A), y_of(p, p.lost_top_V)),
                            QPointF(x(p.right_A), y_of(p, p.lost_bottom_V)));
            if (i.rect.height() >= kWordsHigh_px && i.rect.width() >= kWordsWide_px)
                i.label = cable_label(d_, i), i.detail = cable_detail(d_, i);
            add_bands(i, c, r);
            i.severity = severity_of(i.id);
            scene_.items.push_back(std::move(i));
        }
    }

    // A box lies across the tops of the runs that it feeds, as one bar for each stretch they stand together
    // in.
    void add_boxes() {
        for (const Point& box : plan_.points) {
            if (box.channels.empty()) continue;
            std::vector<QRectF> stretches;
            double amps = 0;
            for (const SceneItem& i : scene_.items) {
                const Run* run = i.kind == SceneKind::conductor && i.side == ChartSide::supply
                                     ? yr::find(plan_.runs, i.id)
                                     : nullptr;
                if (!run || run->from != box.id || sol_.point.conductors[at_(i.ref.index)].current_A < 0)
                    continue;
                amps += i.right_A - i.left_A;
                const QRectF bar(i.rect.left(), i.rect.top() - kBoxBar / 2, i.rect.width(), kBoxBar);
                const bool beside = !stretches.empty() &&
                                    std::abs(bar.left() - stretches.back().right()) <= 2 &&
                                    std::abs(bar.top() - stretches.back().top()) <= 2;
                if (beside)
                    stretches.back() = stretches.back().united(bar);
                else
                    stretches.push_back(bar);
            }
            const auto widest =
                std::max_element(stretches.begin(), stretches.end(),
                                 [](const QRectF& x, const QRectF& y) { return x.width() < y.width(); });
            for (const QRectF& bar : stretches) push_box(box, bar, &bar == &*widest ? amps : 0);
        }
    }

    // The widest stretch carries the words; `amps` is 0 for one that is only a part.
    void push_box(const Point& box, const QRectF& rect, double amps) {
        SceneBox b{box.id, rect, {}, false};
        const auto used = std::count_if(plan_.runs.begin(), plan_.runs.end(),
                                        [&](const Run& r) { return r.from == box.id && r.channel > 0; });
        const auto free = static_cast<long>(box.channels.size()) - used;
        if (amps > 0) {
            b.label = q(words::capital(box.name));
            b.over = box.main_A && amps > *box.main_A;
            b.label += QStringLiteral("  ") + A(amps) +
                       (box.main_A ? say(" of ") + A(*box.main_A) : QString()) +
                       (free > 0 ? say(", %1 of %2 channels free").arg(free).arg(box.channels.size())
                                 : say(", every channel used"));
        }
        scene_.boxes.push_back(b);
    }

    // The parts of a run stand in the order in which the current passes them, from the piece's upper edge
    // down.
    static void add_bands(SceneItem& i, const ConductorElement& c, const ConductorResult& r) {
        const double total = std::max(std::abs(r.drop_V), 1e-12);
        const bool forward = r.current_A >= 0;
        double y = i.rect.top();
        for (std::size_t n = 0; n < c.parts.size(); ++n) {
            const std::size_t k = forward ? n : c.parts.size() - 1 - n;
            const double ohm = c.parts[k].kind == PartKind::cable ? r.cable_ohm : c.parts[k].fixed_ohm;
            const double volts = std::abs(r.current_A) * ohm + c.parts[k].forward_V;
            const double h = i.rect.height() * std::min(1.0, volts / total);
            i.bands.push_back(
                {QRectF(i.rect.left(), y, i.rect.width(), h), c.parts[k].kind, static_cast<int>(k)});
            y += h;
        }
    }

    void add_loads() {
        std::vector<const ChartPiece*> pieces;
        for (const ChartPiece& p : layout_.pieces) {
            if (p.ref.thing == ChartThing::conductor || !seen(p.left_A, p.right_A)) continue;
            // what a box takes for itself is told by the box; it has a column only where one can see it
            const double wide = (p.right_A - p.left_A) * scene_.px_per_A;
            if (p.ref.thing != ChartThing::standby || wide >= kThinLoad_px) pieces.push_back(&p);
        }
        std::sort(pieces.begin(), pieces.end(),
                  [](const ChartPiece* a, const ChartPiece* b) { return a->left_A < b->left_A; });
        std::vector<SceneItem> loads;
        loads.reserve(pieces.size());
        for (const ChartPiece* p : pieces) {
            SceneItem& i = loads.emplace_back();
            i.kind = SceneKind::load;
            i.ref = p->ref;
            i.left_A = p->left_A, i.right_A = p->right_A, i.pieces = p->pieces;
            i.id = id_of(p->ref);
            if (p->ref.thing == ChartThing::load || p->ref.thing == ChartThing::inverter)
                i.severity = severity_of(i.id);
        }
        put_into_gaps(loads);
        gather(loads);
        for (SceneItem& i : scene_.items)  // those that were gathered need no words of their own
            if (i.kind == SceneKind::load) describe(i);
    }

    const Id& id_of(const ChartRef& ref) const {
        const std::size_t k = at_(ref.index);
        switch (ref.thing) {
            case ChartThing::load:
                return plan_.loads[k].id;
            case ChartThing::charging:
                return plan_.batteries[k].id;
            case ChartThing::converter:
                return plan_.sources[k].id;
            case ChartThing::inverter:
                return plan_.inverters[k].id;
            case ChartThing::standby:
                return plan_.points[at_(sol_.network.standby_points[k])].id;
            case ChartThing::conductor:
                break;
        }
        static const Id none;
        return none;
    }

    void describe(SceneItem& i) const {
        switch (i.ref.thing) {
            case ChartThing::load: {
                const Load& l = plan_.loads[at_(i.ref.index)];
                const LoadResult& r = sol_.point.loads[at_(i.ref.index)];
                const double limit = drop_limit_V(plan_, l), nominal = rail_V(plan_, l);
                i.label = q(l.name) + (l.count > 1 ? QStringLiteral(" ×%1").arg(l.count) : QString());
                i.detail = A(r.current_A) + QStringLiteral("   ") + V(r.voltage_V);
                i.used = r.supply_V > 0 && !l.starter ? r.drop_V / limit : -1;
                if (i.used >= 0)
                    i.share = of_.arg(q(words::number(100 * r.drop_V / nominal, 2)),
                                      q(words::quantity(limit / nominal, Dimension::fraction, d_.style())));
                const auto& bands = bands_at_hand();
                if (i.used >= 0 && !d_.shows_situation() && bands.size() == plan_.states.size()) {
                    const Band& band =
                        bands[static_cast<std::size_t>(d_.state_index())].drop_V[at_(i.ref.index)];
                    i.used_least = band.least / limit, i.used_most = band.most / limit;
                    i.share = QStringLiteral("%1 … ").arg(q(words::number(100 * band.least / nominal, 2))) +
                              of_.arg(q(words::number(100 * band.most / nominal, 2)),
                                      q(words::quantity(limit / nominal, Dimension::fraction, d_.style())));
                }
                break;
            }
            case ChartThing::charging:
                i.label = say("charges ") + q(plan_.batteries[at_(i.ref.index)].name);
                i.detail = A(-sol_.point.batteries[at_(i.ref.index)].current_A) + QStringLiteral("   ") +
                           V(sol_.point.batteries[at_(i.ref.index)].voltage_V);
                break;
            case ChartThing::converter: {
                const SourceElement& e = sol_.network.sources[at_(i.ref.index)];
                i.label = say("into ") + q(plan_.sources[at_(i.ref.index)].name);
                i.detail = A(sol_.point.sources[at_(i.ref.index)].input_A) + QStringLiteral("   ") +
                           V(sol_.point.node_V[at_(e.in)] - sol_.point.node_V[at_(e.neg)]);
                break;
            }
            case ChartThing::inverter: {
                const std::size_t k = at_(i.ref.index);
                const LoadResult& r = sol_.point.loads[sol_.network.plan_loads + k];
                i.label = q(plan_.inverters[k].name);
                for (const Load& l : plan_.loads)  // they have no place on the rail but this
                    if (l.inverter == i.id) i.members.push_back(l.id);
                i.detail = A(r.current_A) + QStringLiteral("   ") + V(r.voltage_V);
                const double ac_W = inverter_ac_W(plan_, plan_.inverters[k], d_.state());
                i.share = ac_W > 0 ? q(words::quantity(ac_W, Dimension::power, d_.style())) + say(" mains")
                                   : say("standing by");
                break;
            }
            case ChartThing::standby: {
                const Network& net = sol_.network;
                const LoadResult& r = sol_.point.loads[net.plan_loads + net.inverters + at_(i.ref.index)];
                const Point& box = plan_.points[at_(net.standby_points[at_(i.ref.index)])];
                i.label = q(box.name) + say(" itself");
                i.detail = A(r.current_A) + QStringLiteral("   ") + V(r.voltage_V);
                break;
            }
            case ChartThing::conductor:
                break;
        }
    }

    // Names stand level, each by its own place: where one is too narrow for its words, on rows in the free
    // room. Who finds none there keeps its words upright in its own place, which is then taken too.
    void place_names() {
        std::vector<QRectF> taken;
        std::vector<SceneItem*> named;
        for (const SceneItem& i : scene_.items)
            if (i.kind == SceneKind::conductor) taken.push_back(i.rect);
        for (const SceneBox& b : scene_.boxes) taken.push_back(b.rect.adjusted(0, 0, 0, 14));
        for (SceneItem& i : scene_.items) {
            if (i.kind != SceneKind::load && i.kind != SceneKind::gathered) continue;
            if (i.used >= 0) taken.push_back(QRectF(i.rect.left(), i.rect.bottom() - 18, i.rect.width(), 16));
            if (carries_its_name(i))
                taken.push_back(QRectF(i.rect.left(), i.rect.center().y() - 34, i.rect.width(), 64));
            else
                named.push_back(&i);
        }
        const QRectF room(scene_.plot.left(), scene_.plot.top() + 4, scene_.plot.width(),
                          scene_.plot.height() - 8);
        constexpr int most_rounds = 8;
        for (int round = 0; round < most_rounds; ++round) {
            std::vector<ShelfWish> wishes;
            wishes.reserve(named.size());
            for (const SceneItem* i : named) wishes.push_back(wish_of(*i));
            const auto places = shelve(wishes, room, taken);
            std::vector<SceneItem*> still;
            bool changed = false;
            for (std::size_t k = 0; k < named.size(); ++k) {
                if (places[k]) {
                    named[k]->shelf = *places[k];
                    still.push_back(named[k]);
                } else if (named[k]->brief < 2) {
                    named[k]->shelf = {};  // where it stood a round ago another may stand now
                    ++named[k]->brief;
                    still.push_back(named[k]);
                    changed = true;
                } else {
                    named[k]->shelf = {};
                    taken.push_back(named[k]->rect);
                    changed = true;
                }
            }
            named = still;
            if (!changed) break;
        }
        leave_out_what_overlaps();
    }

    // Where even upright words would lie over another's name, the place keeps its bar alone; resting there
    // tells it.
    void leave_out_what_overlaps() {
        for (SceneItem& i : scene_.items) {
            if ((i.kind != SceneKind::load && i.kind != SceneKind::gathered) || !i.shelf.isEmpty() ||
                carries_its_name(i))
                continue;
            for (const SceneItem& other : scene_.items)
                if (!other.shelf.isEmpty() && other.shelf.intersects(i.rect)) i.brief = kNoWords;
        }
    }

    bool carries_its_name(const SceneItem& i) const {
        return i.kind == SceneKind::load && i.rect.width() >= kOwnRoom_px &&
               bold_.horizontalAdvance(QStringLiteral("▲ ") + i.label) <= i.rect.width() - 4;
    }
    ShelfWish wish_of(const SceneItem& i) const {
        const QString name = QStringLiteral("▲ ") + shelf_name(i);
        if (i.kind == SceneKind::gathered)
            return {i.rect.center().x(), small_.horizontalAdvance(name) + 26, small_.height() + 6,
                    i.rect.top(), i.rect.bottom()};
        // figures keep their place while they change: room for their widest
        const QString under = shelf_words(i);
        const double rest = small_.horizontalAdvance(QString(under.size(), QLatin1Char('0'))) * 0.84;
        return {i.rect.center().x(), std::max(bold_.horizontalAdvance(name), rest) + 6,
                bold_.height() + small_.height() + 2, i.rect.top(), i.rect.bottom()};
    }

    // Between what feeds a load and what takes its current back: the deepest of either side over the middle
    // of its place. Loads come from left to right, so that a cable left behind never counts again.
    void put_into_gaps(std::vector<SceneItem>& loads) const {
        std::vector<const SceneItem*> cables;
        for (const SceneItem& i : scene_.items)
            if (i.kind == SceneKind::conductor) cables.push_back(&i);
        std::sort(cables.begin(), cables.end(),
                  [](const SceneItem* a, const SceneItem* b) { return a->left_A < b->left_A; });
        const auto mid_of = [](const SceneItem& i) { return (i.left_A + i.right_A) / 2; };
        std::vector<SceneItem*> order;
        order.reserve(loads.size());
        for (SceneItem& i : loads) order.push_back(&i);
        std::sort(order.begin(), order.end(),
                  [&](const SceneItem* a, const SceneItem* b) { return mid_of(*a) < mid_of(*b); });
        using Edge = std::pair<double, double>;  // how deep, and how far to the right
        std::priority_queue<Edge> supply, ret;
        auto next = cables.begin();
        const auto deepest = [](std::priority_queue<Edge>& edges, double mid) {
            while (!edges.empty() && edges.top().second < mid) edges.pop();
            return edges.empty() ? std::nullopt : std::optional(edges.top().first);
        };
        for (SceneItem* i : order) {
            const double mid = mid_of(*i);
            for (; next != cables.end() && (*next)->left_A <= mid; ++next)
                if ((*next)->side == ChartSide::supply)
                    supply.emplace((*next)->rect.bottom(), (*next)->right_A);
                else
                    ret.emplace(-(*next)->rect.top(), (*next)->right_A);
            const double top = std::max(scene_.plot.top(), deepest(supply, mid).value_or(scene_.plot.top()));
            const double bottom =
                std::min(scene_.plot.bottom(), -deepest(ret, mid).value_or(-scene_.plot.bottom()));
            i->rect = QRectF(QPointF(x(i->left_A), top), QPointF(x(i->right_A), std::max(bottom, top + 8)));
        }
    }

    // Two handles that would overlap become one.
    static void merge(SceneItem& into, const SceneItem& other) {
        into.right_A = std::max(into.right_A, other.right_A);
        into.rect = into.rect.united(other.rect);
        for (const Id& id : other.members)
            if (std::find(into.members.begin(), into.members.end(), id) == into.members.end())
                into.members.push_back(id);
        if (other.severity && (!into.severity || *other.severity < *into.severity))
            into.severity = other.severity;
        into.label = say("%1 small loads").arg(into.members.size());
    }

    // "Cab box: 5 loads, 3.2 A" where all hang on one feed.
    QString label_of(const SceneItem& g) const {
        if (g.members.size() == 1) return q(yr::name_of(plan_, g.id));
        Id feed;
        double amps = 0;
        for (const Id& id : g.members) {
            const Run* run = supply_.of(id);
            const auto load = index_of_.find(id);
            const Id its = run && load != index_of_.end() ? owner_of(run->from) : Id();
            if (its.empty() || (!feed.empty() && its != feed))
                return say("%1 small loads").arg(g.members.size());
            feed = its;
            amps += sol_.point.loads[load->second].current_A;
        }
        return say("%1: %2 loads, %3").arg(q(yr::name_of(plan_, feed))).arg(g.members.size()).arg(A(amps));
    }

    // The feed that a thin load hangs on: another feed has a handle of its own.
    Id feed_of_item(const SceneItem& i) const {
        const Run* run = supply_.of(i.id);
        return run ? owner_of(run->from) : Id();
    }

    // Neighbours too thin to carry their names share one handle.
    void gather(std::vector<SceneItem>& loads) {
        for (std::size_t k = 0; k < loads.size();) {
            std::size_t end = k;
            while (end < loads.size() && loads[end].rect.width() < kThinLoad_px &&
                   (end == k || feed_of_item(loads[end]) == feed_of_item(loads[k])) &&
                   (end == k || loads[end].rect.left() - loads[end - 1].rect.right() < 1.5))
                ++end;
            if (end == k) {
                scene_.items.push_back(std::move(loads[k++]));
                continue;
            }
            // a handle needs room for its words: it takes in narrow neighbours until it has that
            const auto width = [&] { return loads[end - 1].rect.right() - loads[k].rect.left(); };
            while (width() < kHandle_px && end < loads.size() && loads[end].rect.width() < kNarrow_px &&
                   loads[end].rect.left() - loads[end - 1].rect.right() < 1.5)
                ++end;
            while (width() < kHandle_px && !scene_.items.empty() &&
                   scene_.items.back().kind == SceneKind::load &&
                   scene_.items.back().rect.width() < kNarrow_px &&
                   loads[k].rect.left() - scene_.items.back().rect.right() < 1.5 && k > 0) {
                loads[--k] = std::move(scene_.items.back());
                scene_.items.pop_back();
            }
            SceneItem g;
            g.kind = SceneKind::gathered;
            g.id = loads[k].id;
            g.left_A = loads[k].left_A;
            g.right_A = loads[end - 1].right_A;
            double top = 0, bottom = 1e9;
            for (std::size_t n = k; n < end; ++n) {
                if (g.members.empty() || g.members.back() != loads[n].id) g.members.push_back(loads[n].id);
                top = std::max(top, loads[n].rect.top());
                bottom = std::min(bottom, loads[n].rect.bottom());
                if (loads[n].severity && (!g.severity || *loads[n].severity < *g.severity))
                    g.severity = loads[n].severity;
            }
            const double middle = (loads[k].rect.left() + loads[end - 1].rect.right()) / 2;
            const double half = std::max(7.0, (loads[end - 1].rect.right() - loads[k].rect.left()) / 2);
            g.rect = QRectF(QPointF(middle - half, top), QPointF(middle + half, std::max(bottom, top + 8)));
            g.label = label_of(g);
            if (!scene_.items.empty() && scene_.items.back().kind == SceneKind::gathered &&
                scene_.items.back().rect.right() > g.rect.left())
                merge(scene_.items.back(), g);
            else
                scene_.items.push_back(std::move(g));
            k = end;
        }
    }

    void add_ticks() {
        const double steps[] = {0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10};
        double step = 10;
        for (const double s : steps)
            if (s * scene_.px_per_V >= 34) {
                step = s;
                break;
            }
        double supply = 0, ret = 0, top_V = 0;
        double widest =
            0;  // the axis reads for the rail that carries most; the strip names every source's volts
        for (const ChartSource& s : layout_.sources)
            if (seen(s.left_A, s.right_A) && s.right_A - s.left_A > widest)
                widest = s.right_A - s.left_A, top_V = s.top_V + s.lost_top_V;
        for (const SceneItem& i : scene_.items) {
            if (i.kind != SceneKind::conductor) continue;
            if (i.side == ChartSide::supply)
                supply = std::max(supply, (i.rect.bottom() - scene_.plot.top()) / scene_.px_per_V);
            else
                ret = std::max(ret, (scene_.plot.bottom() - i.rect.top()) / scene_.px_per_V);
        }
        const auto text = [&](double v, const char* sign) {
            return QString::fromUtf8(sign) + q(words::number(v, 3, d_.style().decimal_comma));
        };
        scene_.ticks.push_back({scene_.plot.top(), V(top_V)});
        for (int k = 1; k * step <= supply + step * 0.3; ++k)
            scene_.ticks.push_back(
                {scene_.plot.top() + k * step * scene_.px_per_V, text(k * step, "\xE2\x88\x92")});
        for (int k = 1; k * step <= ret + step * 0.3; ++k)
            scene_.ticks.push_back({scene_.plot.bottom() - k * step * scene_.px_per_V, text(k * step, "+")});
        scene_.ticks.push_back({scene_.plot.bottom(), say("0 V")});
    }

    SceneScale scale_;
    const ShownCircuit& d_;
    const Inspector* inspector_;
    const Plan& plan_;
    const SupplyRuns supply_;
    const Solution& sol_;
    const RailLayout& layout_;
    QSizeF size_;
    SceneWindow window_;
    double left_ = 0, right_ = 1, headroom_px_ = 0;
    std::unordered_map<std::string_view, std::size_t> index_of_;  // of loads
    const QString of_ = say("%1 of %2");
    const QFontMetricsF bold_{type_font(Type::bold)}, small_{type_font(Type::small)};
    RailScene scene_;
};

}  // namespace

const SceneItem* RailScene::at(const QPointF& point) const {
    for (const SceneItem& i : items)
        if (i.shelf.contains(point)) return &i;
    for (auto i = items.rbegin(); i != items.rend(); ++i)
        if (i->rect.adjusted(0, -1, 0, 1).contains(point)) return &*i;
    return nullptr;
}

const SceneItem* RailScene::of(const Id& id) const {
    const SceneItem* best = nullptr;
    for (const SceneItem& i : items)
        if (i.id == id && (!best || i.rect.width() > best->rect.width())) best = &i;
    if (best) return best;
    for (const SceneItem& i : items)
        if (std::find(i.members.begin(), i.members.end(), id) != i.members.end()) return &i;
    return nullptr;
}

RailScene build_scene(const ShownCircuit& circuit, const Inspector* inspector, const QSizeF& size,
                      const SceneWindow& window, const SceneScale& scale) {
    return SceneBuilder(circuit, inspector, size, window, scale).build();
}

QString cable_label(const ShownCircuit& circuit, const SceneItem& cable) {
    const ConductorElement& c = circuit.solution().network.conductors[at_(cable.ref.index)];
    if (c.run < 0) return say("bond");
    const Run& run = circuit.plan().runs[at_(c.run)];
    return run.size && c.cable20_ohm > 0 ? q(words::short_size(*run.size)) : q(run.name);
}

QString cable_detail(const ShownCircuit& circuit, const SceneItem& cable) {
    const double drop_V = circuit.solution().point.conductors[at_(cable.ref.index)].drop_V;
    return q(words::quantity(std::abs(drop_V), Dimension::voltage, circuit.style()));
}

QString shelf_name(const SceneItem& i) {
    if (i.kind == SceneKind::gathered && i.brief > 0 && i.members.size() > 1)
        return i.brief == 1 ? say("%1 loads").arg(i.members.size()) : QString::number(i.members.size());
    return i.label;
}

QString shelf_words(const SceneItem& i) {
    if (i.brief >= 2) return {};
    if (i.brief == 1) return i.share.isEmpty() ? i.detail.section(QStringLiteral("   "), 0, 0) : i.share;
    return i.detail + (i.share.isEmpty() ? QString() : QStringLiteral("   ") + i.share);
}

}  // namespace yr::app
