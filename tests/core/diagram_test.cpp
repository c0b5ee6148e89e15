// The circuit diagram: radial plans without a crossing, every cable, fuse and ground on some sheet, drawings
// that a reader of SVG takes.
#include <gtest/gtest.h>

#include <algorithm>
#include <random>
#include <set>

#include "diagram/bands.h"
#include "diagram/channels.h"
#include "diagram/sheets.h"
#include "diagram/symbols.h"
#include "fabricate/wires.h"
#include "io/diagram_svg.h"
#include "plan/plan_json.h"
#include "routes/lay.h"
#include "support/random_plan.h"
#include "support/run_program.h"
#include "support/vehicles.h"

namespace yr::test {
namespace {

TEST(Channels, LinesThatFanOutOfOneBoxNeverCross) {
    std::mt19937 random(8);
    for (int n = 0; n < 500; ++n) {
        // boxes on the left one below another, each with its own targets one below another on the right
        std::vector<ChannelLine> lines;
        double left = 0, right = static_cast<double>(random() % 40);
        const std::size_t boxes = 1 + random() % 3;
        for (std::size_t b = 0; b < boxes; ++b) {
            left += 20;
            for (std::size_t k = 0, many = 1 + random() % 5; k < many; ++k) {
                left += 10, right += 8 + static_cast<double>(random() % 30);
                lines.push_back({left, right, lines.size()});
            }
        }
        const ChannelTracks t = route_channel(lines);
        EXPECT_EQ(t.crossings, 0) << "case " << n;
        // lines on one track keep clear of each other
        for (std::size_t a = 0; a < lines.size(); ++a)
            for (std::size_t b = a + 1; b < lines.size(); ++b)
                if (t.track[a] >= 0 && t.track[a] == t.track[b]) {
                    EXPECT_TRUE(std::max(lines[a].left_y, lines[a].right_y) <
                                    std::min(lines[b].left_y, lines[b].right_y) ||
                                std::max(lines[b].left_y, lines[b].right_y) <
                                    std::min(lines[a].left_y, lines[a].right_y));
                }
    }
}

TEST(Channels, CrossOnlyWhereTheOrderOfTheirEndsDiffers) {
    std::mt19937 random(9);
    for (int n = 0; n < 300; ++n) {
        std::vector<ChannelLine> lines;
        std::vector<double> rights;
        const std::size_t many = 2 + random() % 6;
        for (std::size_t k = 0; k < many; ++k) rights.push_back(static_cast<double>(10 * k) + 3);
        std::shuffle(rights.begin(), rights.end(), random);
        for (std::size_t k = 0; k < many; ++k) lines.push_back({static_cast<double>(10 * k), rights[k], k});
        int inversions = 0;
        for (std::size_t a = 0; a < many; ++a)
            for (std::size_t b = a + 1; b < many; ++b) inversions += rights[a] > rights[b];
        EXPECT_GE(route_channel(lines).crossings, inversions) << "what must cross does";
        EXPECT_LE(route_channel(lines).crossings, 2 * inversions);
    }
}

Plan on_its_ways(Plan plan) {
    lay(plan);
    return plan;
}

void expect_whole(const Plan& plan) {
    const auto diagram = diagram_of(plan);
    ASSERT_TRUE(diagram) << "dot is not there";
    std::set<Id> drawn;
    std::string text;
    for (const DiagramSheet& s : diagram->sheets) {
        EXPECT_EQ(s.crossings, 0) << plan.vehicle.name << ", " << s.title;
        for (const Stroke& k : s.strokes) {
            drawn.insert(k.id);
            if (k.kind == StrokeKind::text) text += k.text + "\n";
            EXPECT_TRUE(k.x >= 0 && k.x <= 420) << k.text;
            EXPECT_TRUE(k.y >= 0 && k.y <= 297) << k.text;
        }
    }
    for (const WireRow& w : wire_table(plan)) {
        const yr::Run& r = plan.runs[w.run];
        EXPECT_TRUE(drawn.contains(r.id)) << r.name;
        EXPECT_NE(text.find(w.number), std::string::npos) << w.number;
        for (const Device& d : r.devices) EXPECT_TRUE(drawn.contains(d.id)) << d.id;
    }
    for (const Load& l : plan.loads)
        if (l.inverter.empty()) {
            EXPECT_TRUE(drawn.contains(l.id)) << l.name;
        }
}

TEST(DiagramOfAPlan, ShowsEveryCableFuseAndLoadAndDoesNotCross) {
    for (const auto& name : kDemos) {
        Plan p = *load_plan(demo_path(name));
        lay(p);
        const auto diagram = diagram_of(p);
        ASSERT_TRUE(diagram);
        std::set<Id> drawn;
        for (const DiagramSheet& s : diagram->sheets)
            for (const Stroke& k : s.strokes) drawn.insert(k.id);
        for (const WireRow& w : wire_table(p))
            EXPECT_TRUE(drawn.contains(p.runs[w.run].id)) << p.runs[w.run].name;
    }
    for (unsigned seed = 1; seed <= 10; ++seed) {
        TestVehicle v = vehicle(seed);
        if (v.has_second) continue;  // two batteries make a mesh
        expect_whole(v.plan);
    }
}

// Whole vehicles, most of them with a long line from alternator to the second battery's loads.
TEST(DiagramOfAPlan, IsFoldedWhereItWouldBeTooSmallToRead) {
    std::vector<Plan> plans;
    for (const auto& name : kDemos) plans.push_back(on_its_ways(*load_plan(demo_path(name))));
    for (unsigned seed = 1; seed <= sweep(12U, 120U); ++seed) plans.push_back(vehicle(seed).plan);
    std::size_t folded = 0;
    for (const Plan& p : plans) {
        const auto diagram = diagram_of(p);
        ASSERT_TRUE(diagram);
        for (const DiagramSheet& s : diagram->sheets) {
            for (const Stroke& k : s.strokes) {
                if (k.kind != StrokeKind::text) continue;
                EXPECT_GE(k.wide, 1.6) << p.vehicle.name << ", " << s.title << ": " << k.text;
                folded += k.text.starts_with("see ") && k.text.find('/') == std::string::npos;
            }
        }
    }
    EXPECT_GT(folded, 0u) << "something goes on in a second band of its sheet";
}

TEST(Bands, ACutLeavesBothSmallerAndLosesNothing) {
    // 0-1-2-3-4-5 in a row, with 6 and 7 behind 2
    const std::vector<GraphEdge> edges = {{0, 1}, {1, 2}, {2, 3}, {3, 4}, {4, 5}, {2, 6}, {2, 7}};
    const auto wide = cut_in_two(8, edges, Measure::ranks);
    ASSERT_TRUE(wide);
    EXPECT_EQ(wide->at, 3u) << "four ranks, then three";
    EXPECT_EQ(wide->beyond, (std::vector<char>{0, 0, 0, 1, 1, 0, 0}));
    const std::vector<GraphEdge> tall = {{0, 1}, {1, 2}, {1, 3}, {1, 4}, {0, 5}, {5, 6}, {5, 7}, {0, 8}};
    const auto high = cut_in_two(9, tall, Measure::ends);
    ASSERT_TRUE(high);
    EXPECT_EQ(high->at, 1u) << "three ends on one side, three and the cut one on the other";
    EXPECT_FALSE(cut_in_two(2, {{0, 1}}, Measure::ranks)) << "nothing to cut";
    EXPECT_FALSE(cut_in_two(3, {{0, 1}, {1, 0}}, Measure::ranks)) << "a ring";
}

TEST(DiagramOfAPlan, IsADrawingThatOthersRead) {
    Plan p = *load_plan(demo_path(kDemos[0]));
    lay(p);
    const auto diagram = diagram_of(p);
    ASSERT_TRUE(diagram);
    EXPECT_GE(diagram->sheets.size(), 4u) << "the truck's boxes have sheets of their own";
    const TempFolder folder;
    for (std::size_t k = 0; k < diagram->sheets.size(); ++k) {
        const std::string file = folder.file("sheet.svg");
        write_text(file, diagram_svg(*diagram, k));
        const Ran ran = run("xmllint --noout " + file);
        EXPECT_EQ(ran.code, 0) << ran.err;
    }
    bool refers = false;
    for (const Stroke& s : diagram->sheets[0].strokes) refers = refers || s.text.starts_with("see ");
    EXPECT_TRUE(refers) << "sheets say where they go on";
}

TEST(Symbols, TerminalNumbersOfDin72552FromMemory) {
    const Plan p = *load_plan(demo_path(kDemos[0]));
    EXPECT_EQ(terminal_number(p, Terminal("battery-1", Post::pos)), "30");
    EXPECT_EQ(terminal_number(p, Terminal("battery-1", Post::neg)), "31");
    EXPECT_EQ(terminal_number(p, Terminal("alternator", Post::out)), "B+");
    EXPECT_EQ(terminal_number(p, Terminal("load-2", Post::pos)), "15") << "ignition";
    EXPECT_EQ(terminal_number(p, Terminal("load-7", Post::pos)), "75") << "accessory";
    EXPECT_EQ(terminal_number(p, Terminal("load-12", Post::pos)), "86") << "a coil";
    EXPECT_EQ(terminal_number(p, Terminal("load-12", Post::neg)), "85");
}

}  // namespace
}  // namespace yr::test
