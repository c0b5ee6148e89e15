// Blocks, switches, straps, feeds and places, each said in many ways: read alike, or told.
#include <gtest/gtest.h>

#include "plan/condition.h"
#include "plan/rail_volts.h"
#include "support/typed_page.h"

namespace yr::test {
namespace {

// Lines that say the same, and what is not what they said; empty: all is.
struct Alike {
    std::vector<std::string> lines;
    std::string (*wrong)(const Plan&);
};

void look(const Plan& before, const std::vector<Alike>& all, int right_of_ten) {
    ReadLines lines;
    for (const Alike& alike : all)
        for (const std::string& line : alike.lines) {
            const auto plan = lines.read(before, line);
            if (plan) EXPECT_EQ(alike.wrong(*plan), "") << line;
        }
    EXPECT_GE(lines.right, right_of_ten * (lines.right + lines.told) / 10);
}

const Point* only_box(const Plan& plan) {
    const Point* box = nullptr;
    for (const Point& p : plan.points)
        if (p.kind == PointKind::box || p.kind == PointKind::bus) {
            if (box) return nullptr;
            box = &p;
        }
    return box;
}

std::string a_block(const Plan& plan) {
    if (!plan.loads.empty()) return "a load \"" + plan.loads.front().name + "\"";
    const Point* box = only_box(plan);
    if (!box) return "no block";
    return box->feeds_loads ? std::string() : std::string("feeds nothing");
}

TEST(Paraphrases, OfAFuseBlockAreReadAlikeOrTold) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\n");
    look(van,
         {{{"fuse block 6 way",
            "6-way fuse block",
            "6 way blade fuse box",
            "fuse panel, 6 circuits",
            "6 circuit fuse panel",
            "fuse box (6 way)",
            "fuse box with 6 ways",
            "6 position fuse block",
            "fuse block 6 ways",
            "blade fuse box 6-way",
            "fuse block: 6 circuits",
            "six way fuse box",
            "6 gang fuse box",
            "aux fuse box 6 way",
            "fuse block for 6 circuits",
            "a 6 way fuse box",
            "6-way fusebox",
            "fusebox 6 way",
            "fuse board 6 way",
            "fuse box, 6 fuses",
            "6 fuse box",
            "12V fuse block 6 way",
            "distribution block, 6 way fused",
            "6 circuit blade fuse block",
            "fuse block - 6 way",
            "6way fuse block",
            "fuse block (6 circuits)",
            "fuse panel 6 positions"},
           a_block}},
         8);
}

std::string disconnect_300(const Plan& plan) {
    if (!plan.loads.empty()) return "a load \"" + plan.loads.front().name + "\"";
    for (const yr::Run& r : plan.runs)
        for (const Device& d : r.devices)
            if (d.kind == DeviceKind::switching && r.from == pos_of(plan.batteries.front().id)) return {};
    return "no switch in a battery's cable";
}

std::string eight_channels(const Plan& plan) {
    if (!plan.loads.empty()) return "a load \"" + plan.loads.front().name + "\"";
    const auto box = std::find_if(plan.points.begin(), plan.points.end(),
                                  [](const Point& p) { return !p.channels.empty(); });
    if (box == plan.points.end()) return "no channels";
    if (box->channels.size() != 8) return std::to_string(box->channels.size()) + " channels";
    return box->channels.back().rating_A == 15.0 ? std::string() : std::string("of another rating");
}

TEST(Paraphrases, OfABoxOfChannelsAreReadAlikeOrTold) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\n");
    look(van,
         {{{"box 8 channels 15 A", "control box, 8 channels 15 A each",
            "8-channel control box, 15 A per channel", "body controller box, 8 channels 15A each",
            "8 channel power module 15A each", "relay box 8 channels of 15 A",
            "control box (8 channels, 15A each)", "switching module: 8 outputs at 15 A",
            "an 8-channel controller, 15 A each", "power distribution module 8 channels @ 15A",
            "8 output control unit 15 A max", "relay module with 8 channels 15A"},
           eight_channels}},
         8);
    static const Plan boxed =
        typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\nrelay box 8 channels 15 A\n");
    look(boxed,
         {{{"lamp 5 A, channel 3", "ch3 lamp 5A", "ch 3: lamp 5 A", "channel 3 - lamp 5A",
            "Channel 3: lamp, 5 A", "output 3 lamp 5 A", "ch.3 lamp 5A", "CH3 = lamp 5A",
            "lamp 5 A, from relay box channel 3"},
           [](const Plan& p) {
               if (p.loads.size() != 1) return std::to_string(p.loads.size()) + " loads";
               if (p.loads.front().name != "lamp") return "called " + p.loads.front().name;
               const Point& box = *std::find_if(p.points.begin(), p.points.end(),
                                                [](const Point& x) { return !x.channels.empty(); });
               const bool there = std::any_of(p.runs.begin(), p.runs.end(), [&](const yr::Run& r) {
                   return r.from == Terminal(box.id) && r.channel == 3;
               });
               return there ? std::string() : std::string("not on channel 3");
           }}},
         8);
}

TEST(Paraphrases, OfAMasterSwitchAreReadAlikeOrTold) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\nfuse block\n");
    look(van,
         {{{"battery isolator",
            "battery master switch",
            "isolator switch",
            "battery disconnect",
            "master switch",
            "main battery switch",
            "battery kill switch",
            "isolation switch",
            "battery isolator 300A",
            "battery master switch 300A",
            "300A isolator switch",
            "battery disconnect 300 A",
            "master switch (300A)",
            "main battery switch 300A",
            "300 amp battery kill switch",
            "battery cut-off switch",
            "battery cutoff switch 300A",
            "main isolator",
            "master disconnect",
            "battery isolator switch in the positive",
            "battery main switch",
            "isolator on the battery positive",
            "kill switch on battery",
            "battery isolator, 300 A",
            "a battery isolator"},
           disconnect_300}},
         8);
}

std::string starter_of_1400_W(const Plan& plan) {
    if (plan.loads.size() != 1) return std::to_string(plan.loads.size()) + " loads";
    const Load& l = plan.loads.front();
    return l.starter && l.live_when.key == Key::crank ? std::string() : std::string("no starter");
}

TEST(Paraphrases, OfAStarterAreReadAlikeOrTold) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\n");
    look(van,
         {{{"starter 1.4 kW",
            "starter motor 1.4kW",
            "1.4 kW starter",
            "starter: 1.4kW",
            "starter 1400 W",
            "starter motor - 1.4 kW",
            "starter draws 150 A",
            "starter motor 150A",
            "starter 150 A cranking",
            "150A starter",
            "starter motor, 150 A",
            "starter (1.4 kW)",
            "engine starter 1.4kW",
            "starter motor (150A)",
            "1.4kW starter motor",
            "a 1.4 kW starter",
            "starter 1.4kW, 35 mm2, 1.5 m",
            "starter motor draws 150A cranking",
            "starter 1.4 kW, 1.5 m of 35 mm2",
            "starter motor 1.4 kW 1.5 m 35mm2"},
           starter_of_1400_W}},
         8);
}

std::string grounded(const Plan& plan) {
    if (!plan.loads.empty()) return "a load \"" + plan.loads.front().name + "\"";
    for (const yr::Run& r : plan.runs)
        if (r.size == WireSize::metric(35) && r.length_m == 0.5) return {};
    return "no strap of 35 mm2 and 0.5 m";
}

TEST(Paraphrases, OfAGroundStrapAreReadAlikeOrTold) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\n");
    look(van,
         {{{"battery negative to chassis 0.5 m 35 mm2", "battery earth strap 35 mm2 0.5 m",
            "chassis ground strap 35mm2, 0.5 m", "battery to chassis 0.5m 35mm2", "earth strap 0.5m 35mm2",
            "ground strap: 35 mm2, 0.5 m", "battery ground 35 mm2 0.5 m", "earth cable 0.5 m 35 mm2",
            "negative cable 35mm2 0.5m to chassis", "battery negative cable 0.5 m of 35 mm2",
            "battery - to chassis: 0.5 m, 35 mm2", "battery negative to body 0.5 m, 35 mm2",
            "main earth 35 mm2, 0.5 m", "battery earth lead 35 mm2 0.5 m",
            "negative battery cable 0.5 m, 35 mm2", "ground cable battery to chassis 35 mm2 0.5m"},
           grounded}},
         6);
}

std::string fed_by_16(const Plan& plan) {
    if (!plan.loads.empty()) return "a load \"" + plan.loads.front().name + "\"";
    const Point* box = only_box(plan);
    if (!box) return "another block";
    for (const yr::Run& r : plan.runs)
        if (r.to == box->id && r.size == WireSize::metric(16) && r.length_m == 2) return {};
    return "not fed by 2 m of 16 mm2";
}

TEST(Paraphrases, OfAMainFeedAreReadAlikeOrTold) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\nfuse block\n");
    look(van,
         {{{"battery to fuse block 2 m 16 mm2", "battery to fuse block: 2 m of 16 mm2",
            "fuse block feed 16 mm2 2 m", "feed to fuse block 16mm2, 2 m", "main feed 16 mm2 2 m",
            "fuse block fed by 16 mm2, 2 m", "main cable 2 m 16 mm2",
            "cable from battery to fuse block 2m 16mm2", "battery -> fuse block 2 m 16 mm2",
            "battery positive to fuse block 2 m, 16 mm2", "16 mm2 from battery to fuse block, 2 m",
            "2 m of 16 mm2 from battery to fuse block", "fuse block supply cable 16 mm2 2 m",
            "fuse block: fed with 2 m of 16 mm2", "battery + to fuse block 16mm2 2m",
            "feed from battery to fuse block, 16 mm2, 2 m"},
           fed_by_16}},
         6);
}

// Between whatever two things: length, size and the fuse on the way.
TEST(Paraphrases, OfCablesBetweenThingsAreReadAlikeOrTold) {
    static const Plan van = typed_page(
        "van 12 V\nbattery 95 Ah\nalternator 120 A\nstarter 1.4 kW\ninverter 2000 W\nfridge 5 A\n");
    const auto cable = [](const Plan& p, const char* name, double length_m, const WireSize& size,
                          double fuse_A) {
        const yr::Run& r = of_name(p.runs, name);
        if (r.length_m != length_m) return "length " + std::to_string(r.length_m.value_or(0));
        if (r.size != size) return std::string("another size");
        for (const Device& d : r.devices)
            if (fuse_A > 0 && d.kind == DeviceKind::fuse && d.rating_A != fuse_A)
                return "fuse " + std::to_string(d.rating_A);
        return p.points.size() == van.points.size() && p.loads.size() == van.loads.size()
                   ? std::string()
                   : std::string("another thing");
    };
    ReadLines lines;
    const auto look_at = [&](const char* line, const char* name, double length_m, const WireSize& size,
                             double fuse_A = 0) {
        if (const auto plan = lines.read(van, line))
            EXPECT_EQ(cable(*plan, name, length_m, size, fuse_A), "") << line;
    };
    for (const char* line :
         {"alternator to battery 16 mm2 3 m", "alternator cable 16mm2, 3 m",
          "alternator charge cable: 3 m of 16 mm2", "battery to alternator 3 m 16mm2",
          "cable from alternator to battery 3m 16 mm2", "alternator -> battery: 16 mm2, 3 m"})
        look_at(line, "charge cable", 3, WireSize::metric(16));
    for (const char* line :
         {"battery to inverter 1.2 m 70 mm2 250 A fuse", "inverter cable 70mm2 1.2m, 250A fuse",
          "inverter cables: 1.2 m of 70 mm2, fuse 250 A",
          "battery to inverter: 70 mm2, 1.2 m, fused at 250 A",
          "battery positive to inverter 1.2 m, 70 mm2, 250A mega fuse"})
        look_at(line, "inverter feed", 1.2, WireSize::metric(70), 250);
    for (const char* line : {"battery to starter 1.5 m 1/0 AWG", "starter cable 1/0 AWG 1.5 m",
                             "starter motor cable: 1.5m, 1/0 AWG", "starter lead 1.5 m of 1/0 AWG"})
        look_at(line, "starter cable", 1.5, WireSize::awg(0));
    look_at("cables: battery to inverter 1.2 m 70 mm2; alternator to battery 3 m 16 mm2", "charge cable", 3,
            WireSize::metric(16));
    look_at("wiring: starter cable 1.5 m 1/0 AWG; battery to fridge 4 m 4 mm2", "starter cable", 1.5,
            WireSize::awg(0));
    EXPECT_GE(lines.right, 14);
}

std::string on_its_switch(const Plan& plan) {
    if (plan.loads.size() != 1) return std::to_string(plan.loads.size()) + " loads";
    const Load& l = plan.loads.front();
    if (l.draw.value != 5 || l.count != 1) return std::to_string(l.draw.value);
    if (l.live_when.switches.size() != 1) return "no switch";
    return l.live_when.switches.front().find("beam") != std::string::npos
               ? std::string()
               : "a switch " + l.live_when.switches.front();
}

TEST(Paraphrases, OfANamedSwitchAreReadAlikeOrTold) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\n");
    look(
        van,
        {{{"dump valve 5 A on beam", "dump valve 5 A, on switch \"beam\"", "dump valve 5A on the beam switch",
           "dump valve 5 A, beam switch", "dump valve 5 A, switched by the beam switch",
           "dump valve 5A (beam switch)", "dump valve 5 A when beam is on", "dump valve 5A with beam switch",
           "dump valve 5 A off the beam switch", "dump valve: 5 A, switch beam",
           "dump valve 5A, switch: beam", "dump valve 5 A via beam switch",
           "dump valve 5A, controlled by beam switch", "dump valve - 5A - beam switch",
           "dump valve 5A, only when the beam switch is on", "dump valve 5 A, on switch beam"},
          on_its_switch}},
        8);
}

std::string bank_24(const Plan& plan) {
    if (!plan.loads.empty()) return "a load \"" + plan.loads.front().name + "\"";
    if (plan.batteries.size() != 1) return std::to_string(plan.batteries.size()) + " batteries";
    const Battery& b = plan.batteries.front();
    if (b.capacity_Ah != 180) return std::to_string(b.capacity_Ah.value_or(0)) + " Ah";
    return std::abs(battery_V(plan, b) - 24) < 1 ? std::string()
                                                 : "of " + std::to_string(battery_V(plan, b)) + " V";
}

TEST(Paraphrases, OfABankInSeriesAreReadAlikeOrTold) {
    static const Plan truck = typed_page("truck 24 V\nalternator 100 A\n");
    look(truck,
         {{{"batteries 2x 12 V 180 Ah in series", "2x 12V 180Ah in series",
            "two 12V 180 Ah batteries in series", "battery 24 V 180 Ah", "24V battery bank 180 Ah",
            "2 x 180Ah 12V batteries in series", "2x 180 Ah batteries in series for 24V",
            "batteries: 2 x 12V 180Ah (series)", "batteries 2 x 180 Ah (24 V)", "2 x 12 V 180 Ah series",
            "2no 180Ah 12V in series", "pair of 12V 180Ah batteries in series", "180Ah 24V battery bank",
            "24 V 180 Ah (2x 12 V in series)", "battery bank 24V: 2 x 12V 180Ah in series",
            "starter batteries 2x12V 180Ah in series", "2 12V 180Ah batteries in series",
            "180 Ah battery bank, 24 V"},
           bank_24}},
         8);
}

// The state that a page's last line adds, by what is on in it.
TEST(Paraphrases, OfAListedStateAreReadAlikeOrTold) {
    const std::string page =
        "van 12 V\nbattery 95 Ah\nalternator 120 A\nfridge 5 A\nlamp 2 A\nradio 3 A\nheater 4 A on switch "
        "heater\n";
    int right = 0, told = 0;
    const auto look_at = [&](const std::string& line) {
        const Notes notes = read_notes(page + line, &shipped_library());
        if (notes.bad() > 0) {
            ++told;
            return;
        }
        ++right;
        const auto state =
            std::find_if(notes.plan.states.begin(), notes.plan.states.end(),
                         [&](const State& s) { return s.id == notes.lines.back().statement.about; });
        ASSERT_NE(state, notes.plan.states.end()) << line;
        EXPECT_EQ(state->key, Key::off) << line;
        const auto on = [&](const char* name) {
            return holds(of_name(notes.plan.loads, name).live_when, *state);
        };
        EXPECT_TRUE(on("fridge") && on("lamp")) << line;
        EXPECT_FALSE(on("heater")) << line;
        EXPECT_FALSE(on("radio")) << line << ": a list says all that is on while it stands";
    };
    for (const char* line :
         {"overnight: fridge, lamp", "overnight: fridge and lamp on", "parked overnight: fridge + lamp",
          "at night: fridge & lamp", "night - fridge, lamp", "camping: fridge, lamp",
          "when parked: fridge and lamp", "while parked, fridge and lamp are on",
          "Parked (engine off): fridge, lamp", "overnight state: fridge, lamp", "parked: fridge, lamp on",
          "camp: engine off, fridge, lamp", "parked: key off, fridge, lamp", "night 22-6: fridge, lamp",
          "overnight (22:00-6:00): fridge, lamp"})
        look_at(line);
    for (const char* line :
         {"parked: only fridge and lamp on", "overnight: just fridge and lamp", "night: only fridge, lamp",
          "parked: fridge and lamp only", "overnight: only the fridge and the lamp are left on"})
        look_at(line);
    EXPECT_GE(right, 4 * told);
    for (const char* line :
         {"night 22-6: fridge, lamp", "camp (22:30 to 6:30): fridge and lamp", "evening 14-22: lamp"}) {
        const auto plan = with_line(typed_page(page), line);
        ASSERT_TRUE(plan) << line;
        EXPECT_EQ(plan->states.back().lasts_s, 8 * 3600.0) << line;
    }
    const Notes night = read_notes(page + "night: only fridge", &shipped_library());
    EXPECT_EQ(night.bad(), 0);
    EXPECT_FALSE(holds(of_name(night.plan.loads, "lamp").live_when, night.plan.states.back()));
}

const Point& block_of(const Plan& plan, const std::string& load) {
    static const Point none{};
    const Point* p = find(plan.points, supply_run(plan, of_name(plan.loads, load).id)->from.owner);
    return p ? *p : none;
}

TEST(Blocks, OfAPageAreOneHoweverManyLinesSpeakOfThem) {
    const std::string head = "van 12 V\nbattery 95 Ah\nalternator 120 A\n";
    for (const std::string& lines :
         {std::string("battery isolator 300A\nfuse panel 10 circuits\n"),
          std::string("battery isolator\nbattery to fuse panel - 3 m of 25 mm2, 150A MIDI fuse\nfuse panel "
                      "10 circuits\n"),
          std::string("fuse panel 10 circuits\nbattery to fuse panel 3 m 25 mm2\n"),
          std::string("battery to fuse panel: 3 m, 25 mm2\nfuse panel, 10 way\n")}) {
        const Plan plan = typed_page(head + lines + "lamp 5 A\nfan 3 A\n");
        const auto blocks = std::count_if(plan.points.begin(), plan.points.end(),
                                          [](const Point& p) { return p.feeds_loads; });
        EXPECT_EQ(blocks, 1) << lines;
        EXPECT_EQ(block_of(plan, "lamp").name, "fuse panel") << lines;
        if (lines.find("25 mm2") == std::string::npos) continue;
        const yr::Run& feed = of_name(plan.runs, "fuse panel feed");
        EXPECT_EQ(feed.length_m, 3) << lines;
        EXPECT_EQ(feed.size, WireSize::metric(25)) << lines;
    }
}

TEST(Blocks, OfOneNameInTwoPlacesAreTwo) {
    const Plan plan = typed_page(
        "van 12 V\nbattery 95 Ah\nalternator 120 A\nfuse block in the cab\nfuse block in the rear\nfuse "
        "block in the rear\n");
    EXPECT_EQ(
        std::count_if(plan.points.begin(), plan.points.end(), [](const Point& p) { return p.feeds_loads; }),
        2);
}

TEST(Blocks, AreNotMadeOfACableThatIsNotUnderstood) {
    const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\nfuse block\n");
    for (const char* line : {"battery to fuse block 2 m 16 mm2 25 mm2", "battery to fuse block 2 m 16 mmm2"})
        EXPECT_FALSE(with_line(van, line)) << line;
    EXPECT_TRUE(with_line(van, "battery to fuse block 2 m 16 mm2"));
}

TEST(Blocks, HoldWhatStandsBelowTheirName) {
    const Plan plan = typed_page(
        "van 12 V\nbattery 95 Ah\naux battery 125 Ah, dc-dc 40 A\nalternator 120 A\nbattery isolator on the "
        "aux battery\n"
        "rear fuse box 8 way\naux battery to rear fuse box 1.5 m of 25 mm2, 100A fuse\n\n"
        "Rear fuse box:\n- lamp 5 A\n- beacons 2x 30W on the beacon switch\n\ncamera 6 W\n");
    EXPECT_EQ(block_of(plan, "lamp").name, "rear fuse box");
    EXPECT_EQ(block_of(plan, "beacons").name, "rear fuse box");
    EXPECT_EQ(of_name(plan.loads, "beacons").live_when.switches, std::vector<std::string>{"beacon"});
    EXPECT_EQ(of_name(plan.runs, "rear fuse box feed").size, WireSize::metric(25));
}

TEST(Blocks, ASwitchThatFloatsIsNoRemark) {
    const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\n");
    for (const char* line : {"bilge pump 4 A, float switch", "bilge pump 4A, float switch, always live",
                             "bilge pump 4 A (float switch)", "bilge pump 4 A, on float switch"}) {
        const auto plan = with_line(van, line);
        ASSERT_TRUE(plan) << line;
        EXPECT_EQ(plan->loads.front().live_when.switches, std::vector<std::string>{"float"}) << line;
    }
}

TEST(Turns, AreOfTheLoadAndNotOfItsBattery) {
    const auto plan = with_line(typed_page("boat 48 V\nbattery 300 Ah\n"),
                                "bow thruster 250A, own 12V battery 110Ah, 2 minutes at a time");
    ASSERT_TRUE(plan);
    const Load& thruster = of_name(plan->loads, "bow thruster");
    EXPECT_EQ(thruster.on_s, 120);
    EXPECT_FALSE(thruster.live_when.switches.empty()) << "nobody leaves it on";
    EXPECT_EQ(of_name(plan->batteries, "bow thruster battery").nominal_V, 12);
    const auto windlass = with_line(typed_page("boat 12 V\nbattery 300 Ah\n"), "anchor windlass 90 A");
    ASSERT_TRUE(windlass);
    EXPECT_FALSE(windlass->loads.front().live_when.switches.empty());
}

TEST(Breakers, OfAPanelAreNoLoads) {
    const Plan plan = typed_page(
        "boat 12 V\nbattery 100 Ah\n6-way switch panel with breakers: nav lights 10A, horn 15A\nnav lights "
        "1.5 A\n"
        "horn 4 A\n");
    ASSERT_EQ(plan.loads.size(), 2U);
    const auto& devices = supply_run(plan, of_name(plan.loads, "horn").id)->devices;
    EXPECT_TRUE(
        std::any_of(devices.begin(), devices.end(), [](const Device& d) { return d.rating_A == 15.0; }));
}

TEST(Paraphrases, OfAStateAtWorkAreReadAlikeOrTold) {
    const std::string page =
        "van 12 V\nbattery 95 Ah\nalternator 120 A\nfridge 5 A\nlamp 2 A on switch lamp\nsiren 3 A\n";
    int right = 0, told = 0;
    for (const char* line :
         {"On scene (engine idling): everything but siren", "On scene: engine idling, everything but siren",
          "on scene, engine idling: everything except siren", "on scene: engine idling, all but siren",
          "On scene (idling): everything but the siren", "on scene: engine idling, fridge, lamp, siren off",
          "On scene: idling, everything apart from siren"}) {
        const Notes notes = read_notes(page + line, &shipped_library());
        if (notes.bad() > 0) {
            ++told;
            continue;
        }
        ++right;
        const State* state = find(notes.plan.states, notes.lines.back().statement.about);
        ASSERT_TRUE(state) << line;
        EXPECT_EQ(state->role, StateRole::idling) << line;
        const auto on = [&](const char* name) {
            return holds(of_name(notes.plan.loads, name).live_when, *state);
        };
        EXPECT_TRUE(on("fridge") && on("lamp") && !on("siren")) << line;
    }
    EXPECT_GE(right, 4 * told);
}

TEST(Paraphrases, OfTwoASideAreFour) {
    static const Plan van = typed_page("van 12 V\nbattery 95 Ah\nalternator 120 A\n");
    for (const char* line : {"scene lights 2 per side 12 A each", "scene lights, two each side, 12A each",
                             "scene lights 2 a side 12 A", "scene lights 2 on each side 12A"}) {
        const auto plan = with_line(van, line);
        if (!plan) continue;
        EXPECT_EQ(plan->loads.front().count, 4) << line;
        EXPECT_EQ(plan->loads.front().draw.value, 12) << line;
    }
}

}  // namespace
}  // namespace yr::test
