// The rail chart as rectangles in pixels: what is drawn, where, and which thing of the plan each stands for.
// Made from a shown circuit's layout; no painting here, so that tests read it.
#pragma once

#include <QRectF>
#include <QString>
#include <vector>

#include "document/inspector.h"
#include "document/shown_circuit.h"

namespace yr::app {

enum class SceneKind {
    source,     // a stretch of the supply strip
    headroom,   // what a source could still give
    conductor,  // a piece of a run or bond
    load,       // the gap of a load, charging battery or converter input
    gathered    // loads too thin to label, under one handle
};

struct SceneBand {  // a fuse, joint, contact or the cable itself inside a piece
    QRectF rect;
    PartKind part{};
    int index = 0;  // in the conductor's parts
};

struct SceneItem {
    SceneKind kind{};
    Id id;  // of the plan's thing; of the first one for gathered loads
    ChartRef ref;
    QRectF rect;
    std::vector<SceneBand> bands;
    ChartSide side = ChartSide::gap;
    int depth = 0;
    int pieces = 1;  // of its branch in all
    int piece = 0;   // which of them
    double left_A = 0, right_A = 0;
    bool shortfall = false;  // a battery that gives while the engine runs
    // What fits is drawn: "scene lights", "15.1 A  11.9 V", "5.7 of 10 %". Of a cable none where no word has
    // room.
    QString label, detail, share;
    QString share_long;                      // the share with what follows from it, where there is room
    double used = -1;                        // share of the allowed drop; below 0: none
    double used_least = -1, used_most = -1;  // within the plan's ranges; below 0: it states none
    std::optional<Severity> severity;
    std::vector<Id> members;  // gathered
    int brief =
        0;  // on the shelf: 0 all its words, 1 without volts and amps, 2 its name alone; 3: no room for any
    QRectF shelf{};  // where its name stands level (shelf.h); empty: in its own rectangle
};

struct SceneBox {  // a control box as a slab across its channels
    Id id;
    QRectF rect;
    QString label;
    bool over = false;
};

struct SceneTick {
    double y = 0;
    QString text;
};

struct RailScene {
    QRectF plot;  // from the rail's top to the floor
    std::vector<SceneItem> items;
    std::vector<SceneBox> boxes;
    std::vector<SceneTick> ticks;
    double px_per_A = 1, px_per_V = 1;
    QString note;  // a sentence where there is nothing to draw
    [[nodiscard]] const SceneItem* at(const QPointF& point) const;
    [[nodiscard]] const SceneItem* of(const Id& id) const;
};

struct SceneWindow {  // the stretch of amps that is shown; empty shows all
    double left_A = 0, right_A = 0;
    [[nodiscard]] bool whole() const { return right_A <= left_A; }
};

// Largest pixels an amp and a volt may take, so that two charts stand on one scale; 0: as much as there is
// room for.
struct SceneScale {
    double px_per_A = 0, px_per_V = 0;
};

// `inspector` marks what has findings and hatches the plan's ranges; nullptr: neither is known of this
// circuit.
[[nodiscard]] RailScene build_scene(const ShownCircuit& circuit, const Inspector* inspector,
                                    const QSizeF& size, const SceneWindow& window,
                                    const SceneScale& scale = {});

// What stands on the shelf of a load, as briefly as its place there asks: the name, and the line under it.
[[nodiscard]] QString shelf_name(const SceneItem& item);
[[nodiscard]] QString shelf_words(const SceneItem& item);

// What a cable is called on the chart, and its drop: for cards and screen readers, whatever room it has.
[[nodiscard]] QString cable_label(const ShownCircuit& circuit, const SceneItem& cable);
[[nodiscard]] QString cable_detail(const ShownCircuit& circuit, const SceneItem& cable);

inline constexpr double kWordsHigh_px = 13, kWordsWide_px = 24;  // a cable smaller than this carries no word
inline constexpr double kThinLoad_px = 17;  // a load narrower than this cannot carry its name

}  // namespace yr::app
