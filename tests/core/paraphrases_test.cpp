// One thing said in many ways is one thing: every way of counting, of saying when and for how long, beside
// every other. What is not understood is told; what is taken in silence is what was said.
#include <gtest/gtest.h>

#include <random>

#include "plan/condition.h"
#include "plan/rail_volts.h"
#include "support/sweep.h"
#include "support/typed_page.h"

namespace yr::test {
namespace {

struct Way {
    const char* text;
    double value = 0;
};

constexpr const char* kNames[] = {"camp lamp",    "rear work lights",      "camera",
                                  "heated seats", "coolant heater (rear)", "stage 2 pump"};
// Four of 30 W.
constexpr Way kCounts[] = {{"4x 30 W"},    {"4 x 30W"},      {"4 off 30W"},    {"4 @ 30 W"},
                           {"30W x 4"},    {"4x30W each"},   {"(4) 30W each"}, {"4 of 30W each"},
                           {"4 no. 30 W"}, {"4 pcs 30W"},    {"30 watts x 4"}, {"- 4 x 30 W"},
                           {": 4x 30W"},   {"4 nos 30 W ea"}};
constexpr Way kWhen[] = {{"", 0},
                         {", on ignition", 1},
                         {", with ignition", 1},
                         {" (ignition)", 1},
                         {" - ign only", 1},
                         {", always on", 2},
                         {", 24/7", 2},
                         {", constant", 2},
                         {", ignition switched", 1},
                         {", ign", 1},
                         {" on key", 1}};
// As a share of the time; 0: none is said.
constexpr Way kShare[] = {{"", 0},
                          {", 50% duty", 0.5},
                          {", duty 50 %", 0.5},
                          {", half the time", 0.5},
                          {", 12 h a day", 0.5},
                          {", 12 hrs/day", 0.5},
                          {", 12 hours per day", 0.5},
                          {", 50% of the time", 0.5},
                          {", cycling 50%", 0.5},
                          {", runs 50% of the time", 0.5},
                          {" (50% duty)", 0.5},
                          {", 50% on", 0.5},
                          {", 12h/day", 0.5},
                          {" - 12 hours a day", 0.5}};
constexpr Way kLength[] = {
    {"", 0},         {", 4 m", 4}, {", 4m away", 4},  {", 4 m of cable", 4}, {", cable 4 m", 4},
    {", 4m run", 4}, {" (4m)", 4}, {", 4 metres", 4}, {", run 4m", 4}};
constexpr Way kFuse[] = {{"", 0},
                         {", fuse 25 A", 25},
                         {", 25A fuse", 25},
                         {" (25A fuse)", 25},
                         {", fused 25A", 25},
                         {", fused at 25 A", 25},
                         {" w/ 25A fuse", 25}};

struct Ways {
    Way count, when, share, length, fuse;
};

double fuse_A(const Plan& plan, const Load& load) {
    for (const Device& d : supply_run(plan, load.id)->devices)
        if (d.kind == DeviceKind::fuse) return d.rating_A;
    return 0;
}

// What of it is not what was said; empty: all is.
std::string wrong(const Plan& plan, const Ways& said) {
    if (plan.loads.size() != 1) return std::to_string(plan.loads.size()) + " loads";
    const Load& l = plan.loads.front();
    if (l.count != 4 || l.draw.kind != DrawKind::power || l.draw.value != 30)
        return std::to_string(l.count) + "x " + std::to_string(l.draw.value) + " of \"" + l.name + "\"";
    if (said.when.value == 1 && l.live_when.key != Key::ignition) return "not on ignition";
    if (said.when.value == 2 && !(l.live_when == Condition{})) return "not always";
    if (!l.live_when.switches.empty()) return "a switch " + l.live_when.switches.front();
    if (std::abs(l.duty.value_or(0) - said.share.value) > 0.01)
        return "duty " + std::to_string(l.duty.value_or(0));
    if (l.on_s) return "a turn of " + std::to_string(*l.on_s);
    if (said.length.value > 0 && supply_run(plan, l.id)->length_m != said.length.value)
        return "another length";
    if (said.fuse.value > 0 && fuse_A(plan, l) != said.fuse.value)
        return "fuse " + std::to_string(fuse_A(plan, l));
    return {};
}

struct Seen {
    ReadLines lines;
};

void look(const std::string& name, const Ways& said, ReadLines& lines) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\n");
    const std::string line = name + (said.count.text[0] == ':' ? "" : " ") + said.count.text +
                             said.when.text + said.share.text + said.length.text + said.fuse.text;
    const auto read = lines.read(van, line);
    if (!read) return;
    const Plan& plan = *read;
    const std::string what = wrong(plan, said);
    EXPECT_EQ(what, "") << line;
}

TEST(Paraphrases, AreReadAlikeOrTold) {
    ReadLines lines;
    std::mt19937 random(3);
    const auto any = [&](const auto& ways) { return ways[random() % std::size(ways)]; };
    for (int k = 0; k < sweep(1500, 30000); ++k)
        look(any(kNames), {any(kCounts), any(kWhen), any(kShare), any(kLength), any(kFuse)}, lines);
    EXPECT_GT(lines.right, 9 * lines.told);
}

// All that may be said of a load, in any order.
TEST(Paraphrases, InAnyOrderAreReadAlikeOrTold) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\n");
    constexpr const char* kSizes[] = {"6 mm2", "6mm2", "6 mm\xC2\xB2", "6mm\xC2\xB2 cable"};
    constexpr const char* kMetres[] = {"4 m", "4m", "4 m of cable", "cable 4 m", "4 metres"};
    constexpr const char* kFuses[] = {"fuse 25 A", "25A fuse", "fused 25A", "fused at 25 A"};
    constexpr const char* kKeys[] = {"on ignition", "with ignition", "ignition only", "ign"};
    constexpr const char* kShares[] = {"50% duty", "duty 50 %", "half the time", "12 h a day", "cycling 50%"};
    std::mt19937 random(5);
    const auto any = [&](const auto& ways) { return std::string(ways[random() % std::size(ways)]); };
    ReadLines lines;
    for (int k = 0; k < sweep(1000, 20000); ++k) {
        struct Piece {
            std::string text;
            bool (*holds)(const Plan&, const Load&);
        };
        std::vector<Piece> pieces{
            {any(kMetres), [](const Plan& p, const Load& l) { return supply_run(p, l.id)->length_m == 4; }},
            {any(kSizes),
             [](const Plan& p, const Load& l) { return supply_run(p, l.id)->size == WireSize::metric(6); }},
            {any(kFuses), [](const Plan& p, const Load& l) { return std::abs(fuse_A(p, l) - 25) < 1e-9; }},
            {any(kKeys), [](const Plan&, const Load& l) { return l.live_when.key == Key::ignition; }},
            {any(kShares),
             [](const Plan&, const Load& l) { return std::abs(l.duty.value_or(0) - 0.5) < 0.01; }}};
        std::shuffle(pieces.begin(), pieces.end(), random);
        pieces.resize(1 + random() % pieces.size());
        std::string line = any(kNames) + (random() % 2 ? " 3x 4 A" : " 12 W");
        const bool watts = line.back() == 'W';
        for (const Piece& piece : pieces) line += ", " + piece.text;
        const auto read = lines.read(van, line);
        if (!read) continue;
        const Plan& plan = *read;
        ASSERT_EQ(plan.loads.size(), 1u) << line;
        const Load& l = plan.loads.front();
        EXPECT_EQ(l.count, watts ? 1 : 3) << line;
        EXPECT_EQ(l.draw.value, watts ? 12 : 4) << line;
        for (const Piece& piece : pieces) EXPECT_TRUE(piece.holds(plan, l)) << line << ": " << piece.text;
    }
    EXPECT_GT(lines.right, 9 * lines.told);
}

// A motor of 12 A: what it draws at first, how long at once, who switches it.
constexpr const char* kMotors[] = {"spray pump", "hose reel motor", "lift (rear)", "tank 2 pump",
                                   "dump valve actuator"};
constexpr Way kDraws[] = {{"12 A"},    {"12A"},        {"- 12 A"}, {": 12A"},
                          {"12 amps"}, {"draws 12 A"}, {"12.0 A"}, {"at 12A"}};
constexpr Way kStarts[] = {{"", 0},
                           {", 30A start", 30},
                           {", start 30 A", 30},
                           {" (30A start)", 30},
                           {", inrush 30A", 30},
                           {", 30 A at start", 30},
                           {", peak 30A", 30},
                           {", surge 30 A", 30},
                           {", 30A peak", 30},
                           {", starts at 30A", 30},
                           {" (peak 30A)", 30},
                           {", 30 A on startup", 30},
                           {", startup 30A", 30}};
constexpr Way kTurns[] = {{"", 0},
                          {", for 5 min", 300},
                          {", 5 min at a time", 300},
                          {", 5 mins max", 300},
                          {", runs 5 minutes", 300},
                          {", on for 5 min", 300},
                          {" (5 min)", 300},
                          {", 5 minutes at once", 300},
                          {", used 5 mins at a time", 300},
                          {" for 5 minutes", 300},
                          {", up to 5 min", 300},
                          {", 300 s", 300},
                          {", 300 secs at a time", 300}};
constexpr Way kHands[] = {{"", 0},
                          {", on its own switch", 1},
                          {", dash switch", 1},
                          {", rocker switch", 1},
                          {", own switch", 1},
                          {" on own switch", 1},
                          {", on a switch", 1},
                          {", toggle switch", 1},
                          {", switched on dash", 1}};

std::string wrong_motor(const Plan& plan, const Way& start, const Way& turn, const Way& hand) {
    if (plan.loads.size() != 1) return std::to_string(plan.loads.size()) + " loads";
    const Load& l = plan.loads.front();
    if (l.count != 1 || l.draw.kind != DrawKind::current || l.draw.value != 12)
        return std::to_string(l.count) + "x " + std::to_string(l.draw.value) + " of \"" + l.name + "\"";
    if (l.inrush_A.value_or(0) != start.value) return "start " + std::to_string(l.inrush_A.value_or(0));
    if (l.on_s.value_or(0) != turn.value) return "turn " + std::to_string(l.on_s.value_or(0));
    if (l.duty) return "duty " + std::to_string(*l.duty);
    if ((hand.value > 0 || turn.value > 0) && l.live_when.switches.empty()) return "no switch";
    return {};
}

TEST(Paraphrases, OfAMotorAreReadAlikeOrTold) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\n");
    std::mt19937 random(4);
    const auto any = [&](const auto& ways) { return ways[random() % std::size(ways)]; };
    ReadLines lines;
    for (int k = 0; k < sweep(1000, 20000); ++k) {
        const Way draw = any(kDraws), start = any(kStarts), turn = any(kTurns), hand = any(kHands);
        // so long the start may be meant to last
        if (start.value > 0 && (turn.text[0] == ' ' || std::string_view(turn.text) == ", 300 s")) continue;
        const std::string line = any(kMotors) + std::string(draw.text[0] == ':' ? "" : " ") + draw.text +
                                 start.text + turn.text + hand.text;
        const auto read = lines.read(van, line);
        if (!read) continue;
        const Plan& plan = *read;
        const std::string what = wrong_motor(plan, start, turn, hand);
        EXPECT_EQ(what, "") << line;
    }
    EXPECT_GT(lines.right, 9 * lines.told);
}

// When it runs, by the key and the engine.
TEST(Paraphrases, OfWhenAreReadAlikeOrTold) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\n");
    struct Whens {
        std::vector<std::string> ways;
        bool (*holds)(const Condition&);
    };
    const Whens kWhens[] = {
        {{" while engine running", " when engine running", ", engine on", ", with engine running",
          ", engine running only", ", only with the engine running", ", when the engine is on",
          " (engine running)", ", engine run only", ", on with engine", " with the engine",
          ", only when engine is running", ", engine running", " (only with engine running)",
          ", with engine on", ", while the engine runs", ", if engine running"},
         [](const Condition& c) { return c.engine == Engine::running; }},
        {{" on accessory", ", acc", ", with accessory", " (acc)", ", accessory only", ", key at accessory",
          " on acc", ", in accessory position", ", accessory", " (accessory)", ", acc live",
          " on the accessory", ", on ACC", ", acc feed"},
         [](const Condition& c) { return c.key == Key::accessory; }},
        {{", always", ", always on", ", constant", ", 24/7", ", permanent", ", permanently live",
          ", unswitched", ", constant live", ", all the time", " (always on)", ", always live",
          ", on all the time", ", continuously", ", runs all the time", ", permanently on", ", constantly on",
          ", battery live"},
         [](const Condition& c) { return c == Condition{}; }},
        {{", when parked", ", parked only", ", engine off only", ", with the engine off",
          ", only when parked", " when engine stopped", ", engine off", " (parked)", " (engine off)",
          " (only when engine stopped)", ", while parked", ", engine stopped", ", only with engine off",
          ", when engine off"},
         [](const Condition& c) { return c.engine == Engine::stopped; }},
        {{" on ignition", ", with ignition", ", ignition only", " (ign)", ", ign", ", key on",
          ", with key on", ", ignition live", ", ignition switched", ", on with ignition",
          ", switched with ignition", ", only with ignition on", ", with the key", ", when ignition on",
          ", ign feed", ", IGN switched", " on key", ", via ignition", ", comes on with ignition"},
         [](const Condition& c) { return c.key == Key::ignition; }}};
    ReadLines lines;
    for (const char* thing : {"gauge cluster 5 A", "tank heater 60 W", "rear camera 4x 3 W", "fan (roof) 5A"})
        for (const Whens& when : kWhens)
            for (const std::string& way : when.ways) {
                const std::string line = thing + way;
                const auto plan = lines.read(van, line);
                if (!plan) continue;
                ASSERT_EQ(plan->loads.size(), 1u) << line;
                EXPECT_TRUE(when.holds(plan->loads.front().live_when)) << line;
                EXPECT_EQ(plan->loads.front().count, std::string_view(thing).starts_with("rear") ? 4 : 1)
                    << line;
                EXPECT_FALSE(plan->loads.front().duty) << line;
            }
    EXPECT_GT(lines.right, 9 * lines.told);
}

}  // namespace
}  // namespace yr::test
