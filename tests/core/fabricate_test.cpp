// Ends, numbers, parts and cuts.
#include <gtest/gtest.h>

#include <cmath>
#include <random>
#include <set>

#include "fabricate/cut_plan.h"
#include "fabricate/faces.h"
#include "fabricate/harness.h"
#include "fabricate/parts.h"
#include "io/csv_table.h"
#include "notes/notes.h"
#include "plan/plan_json.h"
#include "support/findings.h"
#include "support/run_program.h"
#include "support/sweep.h"
#include "support/vehicles.h"
#include "words/build_words.h"

namespace yr::test {
namespace {

std::vector<CutPiece> pieces_of(const std::vector<double>& metres) {
    std::vector<CutPiece> all;
    for (const double m : metres) all.push_back({"p" + std::to_string(all.size()), m, 0});
    return all;
}

// Every way of putting pieces on rolls, as a reference: the fewest that are bought.
int by_trying_all(const std::vector<int>& pieces, std::vector<int> hand, int sold) {
    int best = static_cast<int>(pieces.size()) + 1;
    std::vector<int> bins = hand;
    const std::size_t at_hand = hand.size();
    const std::function<void(std::size_t)> go = [&](std::size_t k) {
        if (static_cast<int>(bins.size() - at_hand) >= best) return;
        if (k == pieces.size()) {
            best = static_cast<int>(bins.size() - at_hand);
            return;
        }
        for (std::size_t b = 0; b < bins.size(); ++b)
            if (bins[b] >= pieces[k]) bins[b] -= pieces[k], go(k + 1), bins[b] += pieces[k];
        if (sold >= pieces[k]) bins.push_back(sold - pieces[k]), go(k + 1), bins.pop_back();
    };
    go(0);
    return best;
}

void expect_whole(const Cutting& c, const std::vector<CutPiece>& pieces) {
    std::set<std::size_t> seen(c.too_long.begin(), c.too_long.end());
    for (const CutRoll& r : c.rolls) {
        EXPECT_GE(r.rest_m(pieces), -1e-9) << "no roll is cut longer than it is";
        for (const std::size_t k : r.pieces) EXPECT_TRUE(seen.insert(k).second) << "each piece once";
    }
    EXPECT_EQ(seen.size(), pieces.size()) << "and none is forgotten";
}

TEST(Cutting, IsTheLeastByTryingAll) {
    std::mt19937 random(5);
    int with_hand = 0;
    for (int seed = 0; seed < 300; ++seed) {
        std::vector<double> metres;
        std::vector<int> cm;
        const int n = 2 + static_cast<int>(random() % 7);
        for (int k = 0; k < n; ++k) {
            cm.push_back(20 + static_cast<int>(random() % 480));
            metres.push_back(cm.back() / 100.0);
        }
        std::vector<double> hand;
        std::vector<int> hand_cm;
        for (unsigned k = 0; k < random() % 3; ++k) {
            hand_cm.push_back(100 + static_cast<int>(random() % 600));
            hand.push_back(hand_cm.back() / 100.0);
        }
        with_hand += !hand.empty();
        const auto pieces = pieces_of(metres);
        const Cutting c = cut(pieces, hand, 10);
        expect_whole(c, pieces);
        EXPECT_TRUE(c.proved) << seed;
        EXPECT_EQ(c.bought, by_trying_all(cm, hand_cm, 1000)) << seed;
    }
    EXPECT_GT(with_hand, 100);
}

// Bin packing's textbook case (Martello and Toth 1990, chapter 8, from memory): capacity 100 and items 99,
// 94, 79, 64, 50, 46, 43, 37, 32, 19, 18, 7, 6, 3: the bound L2 is 7 and so is the least.
TEST(Cutting, ATextbookCase) {
    const Cutting c =
        cut(pieces_of({.99, .94, .79, .64, .50, .46, .43, .37, .32, .19, .18, .07, .06, .03}), {}, 1);
    EXPECT_EQ(c.bought, 7);
    EXPECT_TRUE(c.proved);
}

TEST(Cutting, WhatDoesNotFitIsSaid) {
    const auto pieces = pieces_of({12, 3});
    Cutting c = cut(pieces, {}, 10);
    EXPECT_EQ(c.too_long, std::vector<std::size_t>{0});
    EXPECT_EQ(c.bought, 1);
    expect_whole(c, pieces);
    // 40 cm short: the roll at hand no longer does
    EXPECT_EQ(cut(pieces_of({4, 3, 3}), {10}, 25).bought, 0);
    EXPECT_EQ(cut(pieces_of({4, 3, 3}), {9.6}, 25).bought, 1);
    EXPECT_EQ(cut({}, {10}, 25).rolls.size(), 0u);
    const Cutting none = cut(pieces_of({2}), {}, 0);
    EXPECT_EQ(none.too_long.size(), 1u) << "nothing is sold and nothing at hand";
}

TEST(Cutting, FiftyPiecesAreQuick) {
    std::mt19937 random(9);
    std::vector<double> metres;
    for (int k = 0; k < 60; ++k) metres.push_back(0.3 + static_cast<double>(random() % 500) / 100);
    const auto pieces = pieces_of(metres);
    const Cutting c = cut(pieces, {}, 25);
    expect_whole(c, pieces);
    EXPECT_GE(c.bought, c.at_least);
    EXPECT_LE(c.bought, c.at_least + 1);
}

// A plan of one's own, counted by hand: a battery, a block 1 m away by 6 AWG with a fuse, two lamps.
Plan counted() {
    Plan plan = empty_plan("counted");
    plan.runs.clear();
    Point block;
    block.id = "block", block.name = "fuse block", block.kind = PointKind::bus, block.feeds_loads = true,
    block.stud_mm = 6;
    plan.points.push_back(block);
    plan.batteries[0].stud_mm = 8;
    const auto cable = [&](const char* id, const Terminal& a, const Terminal& b, int awg,
                           double m) -> yr::Run& {
        yr::Run r;
        r.id = r.name = id, r.from = a, r.to = b, r.size = WireSize::awg(awg), r.length_m = m;
        plan.runs.push_back(r);
        return plan.runs.back();
    };
    yr::Run& feed = cable("feed", pos_of(plan.batteries[0].id), "block", 6, 1);
    Device fuse;
    fuse.id = fuse.name = "main", fuse.kind = DeviceKind::fuse, fuse.fuse = FuseType::bolt,
    fuse.rating_A = 60;
    feed.devices.push_back(fuse);
    for (const char* name : {"left", "right"}) {
        Load l;
        l.id = l.name = name, l.draw = {DrawKind::power, 20};
        plan.loads.push_back(l);
        yr::Run& there = cable((std::string(name) + " feed").c_str(), "block", pos_of(name), 16, 2.5);
        Device small = fuse;
        small.id = small.name = std::string(name) + " fuse", small.fuse = FuseType::blade, small.rating_A = 5;
        there.devices.push_back(small);
        cable((std::string(name) + " return").c_str(), neg_of(name), neg_of(plan.batteries[0].id), 16, 3);
    }
    return plan;
}

TEST(Parts, CountedByHand) {
    const Plan plan = counted();
    std::map<std::string, double> by;
    for (const Part& p : parts_of(plan)) {
        EXPECT_EQ(by.count(p.key), 0u);
        by[p.what] += p.quantity;
    }
    EXPECT_EQ(by["6 AWG copper red"], 1);
    EXPECT_EQ(by["16 AWG copper blue"], 5);
    EXPECT_EQ(by["16 AWG copper black"], 6);
    EXPECT_EQ(by["ring 6 AWG M8"], 1) << "at the battery's post";
    EXPECT_EQ(by["ring 6 AWG M6"], 1) << "at the block's bolt";
    EXPECT_EQ(by["blade 6.3 mm, 16 AWG"], 2 + 4) << "at the block twice, at each lamp's two ends";
    EXPECT_EQ(by["ring 16 AWG M8"], 2) << "returns at the battery";
    EXPECT_EQ(by["wrap-around label"], 10);
    double fuses = 0, spares = 0, holders = 0;
    for (const Part& p : parts_of(plan)) {
        if (p.kind == BuyKind::fuse) fuses += p.quantity;
        if (p.kind == BuyKind::spare) spares += p.quantity;
        if (p.kind == BuyKind::holder) holders += p.quantity;
    }
    EXPECT_EQ(fuses, 3);
    EXPECT_EQ(spares, 2) << "one of each rating";
    EXPECT_EQ(holders, 3);
    for (const Part& p : parts_of(plan, {3, true, true}))
        if (p.what == "16 AWG copper blue") EXPECT_EQ(p.quantity, 15) << "three vehicles alike";
}

TEST(Ends, AreAsSaidElseAsUsual) {
    Plan plan = counted();
    CableEnd e = end_of(plan, plan.runs[0], true);
    EXPECT_EQ(e.kind, EndKind::ring);
    EXPECT_TRUE(e.chosen);
    EXPECT_EQ(e.bolt_mm, 8);
    plan.runs[0].end_from = {EndKind::ring, 45, true, true};
    e = end_of(plan, plan.runs[0], true);
    EXPECT_FALSE(e.chosen);
    EXPECT_EQ(e.angle_deg, 45);
    EXPECT_GT(e.shrink_mm, conductor(WireSize::awg(6))->outer_diameter_mm) << "it goes over the lug";
    // boot and shrink go on before the lug; two crimps on thick copper, the first at the front edge
    const auto steps = steps_of(e, conductor(WireSize::awg(0))->area_mm2);
    const auto at = [&](EndStep s) { return std::find(steps.begin(), steps.end(), s) - steps.begin(); };
    EXPECT_LT(at(EndStep::slide_boot), at(EndStep::crimp_front));
    EXPECT_LT(at(EndStep::slide_shrink), at(EndStep::crimp_front));
    EXPECT_LT(at(EndStep::crimp_front), at(EndStep::crimp_back));
    EXPECT_LT(at(EndStep::pull), at(EndStep::warm));
    // the hole is one that such lugs have, over the bolt
    plan.batteries[0].stud_mm = 9;
    EXPECT_EQ(end_of(plan, plan.runs[0], true).bolt_mm, 10) << "no lug of 9 mm is made, none is drilled out";
    plan.runs[0].lug_from_mm = 12;
    EXPECT_EQ(end_of(plan, plan.runs[0], true).bolt_mm, 12) << "what is said wins";
}

// Of every vehicle: numbers are of one cable each, all cables are in the table, the cut pieces are just
// those, and the parts hold just their metres.
TEST(Fabricate, PartsCutsAndWiresAgreeOnEveryVehicle) {
    for (unsigned seed = 0; seed < sweep(40U, 300U); ++seed) {
        SCOPED_TRACE(seed);
        const Plan plan = seed < 3 ? *load_plan(demo_path(kDemos[seed])) : vehicle(seed).plan;
        const auto wires = wire_table(plan);
        std::set<std::string> numbers;
        double metres = 0;
        std::size_t pieces = 0;
        for (const WireRow& w : wires) {
            EXPECT_TRUE(numbers.insert(w.number).second) << w.number;
            metres += w.length_m * w.pieces, pieces += static_cast<std::size_t>(w.pieces);
            EXPECT_FALSE(words::end_text(w.from).empty());
            EXPECT_FALSE(words::label_text(plan, w, true).empty());
        }
        double cable = 0, cut_m = 0;
        for (const Part& p : parts_of(plan)) {
            if (p.kind == BuyKind::cable) cable += p.quantity;
            EXPECT_GT(p.quantity, 0) << p.what;
        }
        std::size_t cut_pieces = 0;
        for (const SizeCutting& c : cut_plan(plan)) {
            cut_pieces += c.pieces.size();
            for (const CutPiece& p : c.pieces) cut_m += p.length_m;
            EXPECT_FALSE(words::sentence(c).empty());
        }
        EXPECT_NEAR(cable, metres, 1e-6);
        EXPECT_NEAR(cut_m, metres, 1e-6);
        EXPECT_EQ(cut_pieces, pieces);
    }
}

// Laid flat, a loom keeps its lengths: each way as long as in the vehicle, each cable on every way that it
// takes, each thing with a breakout as long as its cable leaves the ways.
TEST(Harness, IsTrueToLength) {
    const Plan plan = *load_plan(demo_path(kDemos[0]));
    const Routes routes = route_all(plan);
    const auto looms = flat_looms(plan, routes);
    ASSERT_FALSE(looms.empty());
    std::map<Id, double> drawn;
    std::map<std::size_t, double> along;  // of each cable
    for (const FlatLoom& l : looms)
        for (const FlatSegment& s : l.segments) {
            if (s.way.empty()) {
                EXPECT_FALSE(s.thing.empty());
                EXPECT_GE(s.length_m(), 0.15 - 1e-9) << "its slack at least";
                continue;
            }
            EXPECT_EQ(drawn.count(s.way), 0u) << "each way once";
            drawn[s.way] = s.length_m();
            for (const std::size_t k : s.runs) along[k] += s.length_m();
        }
    for (std::size_t w = 0; w < plan.ways.size(); ++w) {
        if (routes.ways[w].runs.empty()) continue;
        const Waypoint *a = find(plan.waypoints, plan.ways[w].from),
                       *b = find(plan.waypoints, plan.ways[w].to);
        const double length = distance_m(*a->at.spot(), *b->at.spot());
        if (drawn.contains(plan.ways[w].id))
            EXPECT_NEAR(drawn[plan.ways[w].id], length, 1e-9) << plan.ways[w].name;
    }
    for (const auto& [k, metres] : along) EXPECT_GE(metres + 1e-9, routes.by_run[k]->way_m * 0.1);
    EXPECT_GT(drawn.size(), 5u);
}

TEST(Sheets, AreReadBack) {
    const Plan plan = counted();
    const Sheet wires = words::wires_sheet(plan, wire_table(plan));
    const auto rows = split_csv(sheets_csv({wires}));
    ASSERT_EQ(rows.size(), wires.rows.size() + 1);
    EXPECT_EQ(rows[0], wires.heads);
    EXPECT_EQ(rows[1][1], "feed");
    const TempFolder folder;
    const std::string file = folder.file("build.xlsx");
    ASSERT_TRUE(write_xlsx(file, {words::parts_sheet(plan, parts_of(plan)), wires}, false));
    EXPECT_FALSE(write_xlsx(file, {wires}, false)) << "nothing is written over unasked";
    const std::string bytes = read_text(file);
    EXPECT_EQ(bytes.substr(0, 2), "PK") << "a zip of parts, as Office Open XML is";
    const Ran ran =
        run("python3 -c \"import zipfile,sys; z=zipfile.ZipFile(sys.argv[1]); "
            "print(z.read('xl/sharedStrings.xml').decode())\" " +
            file);
    EXPECT_NE(ran.out.find("left return"), std::string::npos) << "read back by another program";
}

// The two halves of a connector meet face to face: what is left in one is right in the other.
TEST(Faces, HalvesAreMirroredAndNoPinIsLostOnAnyVehicle) {
    for (unsigned seed = 1; seed <= sweep(12U, 200U); ++seed) {
        Plan plan = random_plan(seed);
        Connector c;
        c.id = "connector-of-test", c.name = "bulkhead plug";
        std::mt19937 random(seed);
        const int count = 1 + static_cast<int>(random() % 24);
        if (seed % 3) c.rows = 1 + random() % 4;
        if (seed % 2) c.pins = count;
        plan.connectors.push_back(c);
        for (yr::Run& r : plan.runs)
            if (random() % 2) r.pins.push_back({c.id, 1 + static_cast<int>(random() % 24), {}});
        for (const ConnectorFace& face : connector_faces(plan)) {
            std::set<std::pair<int, int>> places, mirror;
            std::size_t held = 0, asked = 0;
            for (const FacePin& pin : face.pins) {
                EXPECT_TRUE(places.insert({pin.row, pin.column}).second) << "two pins in one place";
                EXPECT_TRUE(mirror.insert({pin.row, face.mirrored(pin.column)}).second);
                EXPECT_LT(pin.row, face.rows);
                EXPECT_LT(pin.column, face.columns);
                held += pin.runs.size();
            }
            for (const yr::Run& r : plan.runs)
                for (const PinUse& use : r.pins) asked += use.connector == face.connector;
            EXPECT_EQ(held, asked) << seed;
        }
        const auto faces = connector_faces(plan);
        const bool used = std::any_of(plan.runs.begin(), plan.runs.end(), [&](const yr::Run& r) {
            return std::any_of(r.pins.begin(), r.pins.end(),
                               [&](const PinUse& u) { return u.connector == c.id; });
        });
        EXPECT_EQ(used || c.pins.has_value(),
                  std::any_of(faces.begin(), faces.end(),
                              [&](const ConnectorFace& f) { return f.connector == c.id; }));
    }
}

TEST(Faces, SixPinsInTwoRowsAreCountedFromTheTopLeft) {
    Plan plan = truck();
    Connector c;
    c.id = "plug", c.name = "rear plug", c.pins = 6;
    plan.connectors.push_back(c);
    plan.runs[2].pins.push_back({"plug", 5, {}});
    const auto faces = connector_faces(plan);
    ASSERT_EQ(faces.size(), 1u);
    EXPECT_EQ(faces[0].rows, 2);
    EXPECT_EQ(faces[0].pins[4].row, 1);
    EXPECT_EQ(faces[0].pins[4].column, 1);
    EXPECT_EQ(faces[0].pins[4].runs, std::vector<std::size_t>{2});
    EXPECT_EQ(faces[0].mirrored(0), 2);
    EXPECT_TRUE(faces[0].pins[0].runs.empty());
}

}  // namespace
}  // namespace yr::test
