// Typing: every kind of thing from one line, whole vehicles from a page, and any plan written as lines and
// read back.
#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>
#include <iostream>
#include <random>

#include "inspect/findings.h"
#include "notes/notes.h"
#include "notes/plan_text.h"
#include "plan/library.h"
#include "plan/variant.h"
#include "support/findings.h"
#include "support/folders.h"
#include "support/lines.h"
#include "support/run_program.h"
#include "support/sweep.h"
#include "support/vehicles.h"
#include "units/text.h"

namespace yr::test {
namespace {

void expect_same(const Plan& plan, const std::string& what) {
    const auto back = plan_from_text(lines_of(plan_text(plan)));
    ASSERT_TRUE(back) << what << ": " << words::sentence(back.error());
    EXPECT_EQ(text_without_ids(*back), text_without_ids(plan)) << what;
    EXPECT_EQ(plan_text(*back), plan_text(plan)) << what;
}

TEST(PlanText, IsReadBackToTheSamePlan) {
    for (const char* demo : kDemos) expect_same(*load_plan(demo_path(demo)), demo);
    for (unsigned seed = 0; seed < sweep(24U, 300U); ++seed)
        expect_same(vehicle(seed).plan, "vehicle " + std::to_string(seed));
    RandomShape shape;
    shape.devices = true;
    for (std::uint32_t seed = 1; seed <= 10; ++seed)
        expect_same(random_plan(seed, shape), "random " + std::to_string(seed));
}

TEST(PlanText, TellsThingsOfOneNameApart) {
    Plan plan = empty_plan("van");
    Load lamp;
    lamp.id = "a", lamp.name = "lamp, \"left\"", lamp.draw = {DrawKind::current, 2};
    Load other = lamp;
    other.id = "b", other.draw.value = 3;
    plan.loads = {lamp, other};
    for (const char* id : {"a", "b"}) {
        yr::Run r;
        r.id = std::string("run-") + id, r.name = "feed", r.from = "point-bus", r.to = pos_of(id);
        plan.runs.push_back(r);
    }
    expect_same(plan, "names");
    const std::string text = plan_text(plan);
    EXPECT_NE(text.find("#2.pos"), std::string::npos) << text;
}

TEST(PlanText, WhatIsWrongIsNamedWithItsLine) {
    const auto error_of = [](std::vector<std::string> lines) {
        const auto plan = plan_from_text(lines);
        return plan ? std::string("none") : words::sentence(plan.error());
    };
    const std::string state = "state \"Parked\": key off";
    EXPECT_EQ(error_of({"vehicle \"van\": nominal_V 12", state}), "none");
    EXPECT_NE(error_of({state, "load \"lamp\": draw {kind current value 5}"}).find("line 2"),
              std::string::npos);
    EXPECT_NE(error_of({state, "run \"x\": from \"nothing\".pos, to \"y\""}).find("nothing"),
              std::string::npos);
    EXPECT_NE(error_of({state, "load \"lamp\": draw {kind current, value 5}, colour red"}).find("colour"),
              std::string::npos);
}

// Random and mutated lines: an answer always, and no word of a line is lost without being said.
TEST(PlanText, SurvivesDamage) {
    const std::string text = plan_text(truck());
    std::mt19937 random(3);
    for (int k = 0; k < sweep(60, 2000); ++k) {
        std::string damaged = text;
        for (int n = 0; n < 3; ++n) {
            const std::size_t at = random() % damaged.size();
            if (random() % 2)
                damaged.erase(at, 1 + random() % 8);
            else
                damaged.insert(at, 1, static_cast<char>(32 + random() % 95));
        }
        (void)plan_from_text(lines_of(damaged));
    }
}

struct Typed {
    Plan plan;
    Statement statement;
};

Typed typed(const Plan& on, const std::string& line) {
    Typed t{on, read_statement(on, line, &shipped_library())};
    if (t.statement.whole()) {
        EXPECT_TRUE(yr::apply(t.plan, *t.statement.edit)) << line;
    }
    return t;
}

Plan bare(const std::string& key) {
    for (const BareVehicle& b : bare_vehicles())
        if (b.key == key) return read_notes(b.text).plan;
    ADD_FAILURE() << key;
    return {};
}

TEST(Statements, AnAlternatorIsNoLoad) {
    const Typed t =
        typed(blank_vehicle(), "alternator 150 A, idle 70 A, 14.4 V, cable 4 AWG 1.2 m fuse 175 A");
    EXPECT_EQ(t.statement.kind, StatementKind::alternator);
    EXPECT_TRUE(t.statement.not_understood.empty());
    ASSERT_EQ(t.plan.sources.size(), 1U);
    EXPECT_EQ(t.plan.sources[0].rated_A, 150);
    EXPECT_EQ(t.plan.sources[0].idle_A, 70);
    EXPECT_EQ(t.plan.sources[0].regulated_V, 14.4);
    const yr::Run& cable = t.plan.runs.back();
    EXPECT_EQ(cable.size, WireSize::awg(4));
    EXPECT_EQ(cable.length_m, 1.2);
    ASSERT_EQ(cable.devices.size(), 1U);
    EXPECT_EQ(cable.devices[0].rating_A, 175);
    EXPECT_TRUE(t.plan.loads.empty());
}

TEST(Statements, EveryFormOfTheMenuIsUnderstood) {
    Plan plan = typed(bare("van"), "second battery AGM 90 Ah, by contactor, 4 m").plan;
    plan = typed(plan, "bus main, fuse 100 A, 1 m").plan;
    plan = typed(plan, "fan 20 A, 2 m, from main").plan;
    for (const char* name : {"firewall hole", "tail"})  // what "way" joins
        plan = typed(plan, (std::string("waypoint ") + name + ": 0.5 back, 0.4 left").c_str()).plan;
    plan.batteries[0].name = "battery";  // whose place "stand" says
    for (const StatementForm& form : statement_forms()) {
        const Typed t = typed(plan, form.example);
        EXPECT_EQ(t.statement.kind, form.kind) << form.example;
        EXPECT_TRUE(t.statement.whole())
            << form.example << ": " << (t.statement.error ? words::sentence(*t.statement.error) : "");
        EXPECT_TRUE(t.statement.not_understood.empty())
            << form.example << ": " << t.statement.not_understood.front();
    }
}

TEST(Statements, OfLoadsThatBeginWithTheirWordsAreLoads) {
    const Plan plan = bare("van");
    for (const char* line : {"box fan 5 W", "ground lights 10 W", "battery heater 60 W", "bus bar lamp 4 W",
                             "inverter fan 5 A", "solar fan 3 A", "starter heater 50 W extra"})
        EXPECT_EQ(kind_of_line(plan, line), StatementKind::load) << line;
    EXPECT_EQ(kind_of_line(plan, "inverter \"big one\" 1500 W"), StatementKind::inverter);
    EXPECT_EQ(kind_of_line(plan, "  # a remark"), StatementKind::nothing);
}

TEST(Statements, ChangesSetsAndRemoves) {
    Plan plan = typed(bare("van"), "rear light 2x 20 W, 4 m").plan;
    plan = typed(plan, "rear light: 4x 20 W").plan;
    ASSERT_EQ(plan.loads.back().count, 4);
    EXPECT_EQ(plan.loads.back().name, "rear light");
    plan = typed(plan, "rear light: 6 m").plan;
    EXPECT_EQ(supply_run(plan, plan.loads.back().id)->length_m, 6);
    EXPECT_EQ(plan.loads.back().count, 4) << "what is not said stays";
    plan = typed(plan, "set rear light duty 0.3").plan;
    EXPECT_EQ(plan.loads.back().duty, 0.3);
    EXPECT_TRUE(typed(plan, "set rear light duty 3").statement.error) << "a share is at most 1";
    EXPECT_TRUE(typed(plan, "set nothing duty 1").statement.error);
    const Typed gone = typed(plan, "remove rear light");
    EXPECT_EQ(gone.plan.loads.size(), plan.loads.size() - 1);
    EXPECT_TRUE(typed(plan, "remove nothing").statement.error);
}

TEST(Statements, WhatIsMissingIsSaid) {
    for (const char* line : {"alternator", "battery AGM", "second battery", "solar", "inverter", "box \"b\"",
                             "strap nowhere", "master between a and b", "state", "charger 20 A dc-dc",
                             "bus from nothing", "relay unknown 20 A"}) {
        Plan plan = blank_vehicle();
        plan.batteries[0].capacity_Ah = 60;
        const Typed t = typed(plan, line);
        EXPECT_FALSE(t.statement.whole()) << line;
        const bool said = t.statement.error && !words::sentence(*t.statement.error).empty();
        EXPECT_TRUE(said || !t.statement.not_understood.empty()) << line;
    }
}

TEST(Statements, NoWordIsLost) {
    const Typed t = typed(blank_vehicle(), "alternator 150 A, purple, idle 70 A");
    EXPECT_TRUE(t.statement.not_understood.empty());
    EXPECT_EQ(t.statement.note, "purple") << "it changes nothing of the circuit: kept, and told";
    EXPECT_EQ(t.plan.sources.front().remarks.note, "purple");
    const Typed slip = typed(blank_vehicle(), "alternator 150 A, inverterr, idle 70 A");
    EXPECT_EQ(slip.statement.not_understood, std::vector<std::string>{"inverterr"}) << "a slip is no remark";
    EXPECT_TRUE(slip.statement.whole()) << "and it stops nothing";
    const Typed doubt = typed(blank_vehicle(), "inverter 1,500 W");
    ASSERT_TRUE(doubt.statement.doubt);
    EXPECT_FALSE(doubt.statement.whole()) << "asked, not guessed";
}

std::vector<const Finding*> serious(const Inspection& i) {
    std::vector<const Finding*> all;
    for (const Finding& f : i.findings)
        if (f.severity <= Severity::fix) all.push_back(&f);
    return all;
}

TEST(BareVehicles, AreWholeAndRight) {
    EXPECT_GE(bare_vehicles().size(), 10U);
    for (const BareVehicle& b : bare_vehicles()) {
        const Notes notes = read_notes(b.text);
        for (const NoteLine& l : notes.lines)
            EXPECT_FALSE(l.bad()) << b.key << ": " << l.text << ": "
                                  << (l.statement.error ? words::sentence(*l.statement.error)
                                      : l.statement.not_understood.empty()
                                          ? ""
                                          : l.statement.not_understood.front());
        ASSERT_TRUE(validate(notes.plan).empty()) << b.key;
        const Inspection i = inspect(notes.plan, false);
        for (const Finding* f : serious(i)) ADD_FAILURE() << b.key << ": " << words::sentence(*f, notes.plan);
    }
}

// Twelve vehicles typed as their owners would, unlike the demos: each to no stop and no fix in under 40
// lines.
TEST(TypedVehicles, ComeOutRight) {
    int vehicles = 0;
    for (const auto& file :
         std::filesystem::directory_iterator(test::source_dir() + "/tests/data/vehicles")) {
        if (file.path().extension() != ".notes") continue;
        ++vehicles;
        const std::string name = file.path().stem(), text = read_text(file.path());
        const Notes notes = read_notes(text, &shipped_library());
        EXPECT_LT(notes.lines.size(), 41U) << name;
        for (const NoteLine& l : notes.lines)
            EXPECT_FALSE(l.bad()) << name << ": " << l.text << ": "
                                  << (l.statement.error ? words::sentence(*l.statement.error)
                                      : l.statement.not_understood.empty()
                                          ? ""
                                          : l.statement.not_understood.front());
        const Inspection i = inspect(notes.plan, false);
        for (const Finding* f : serious(i)) ADD_FAILURE() << name << ": " << words::sentence(*f, notes.plan);
        for (const Finding& f : i.findings)  // what was chosen for a line guards what was chosen for it
            EXPECT_NE(f.kind, FindingKind::guards_not) << name << ": " << words::sentence(f, notes.plan);
        expect_same(notes.plan, name);
    }
    EXPECT_EQ(vehicles, 12);
}

// What people write who know no grammar of ours.
TEST(PlainWords, AreTakenForWhatTheyMean) {
    const Plan bare_van = bare("van");
    Plan plan = typed(empty_plan("v"), "engine battery 75 Ah flooded 680 A").plan;
    ASSERT_EQ(plan.batteries.size(), 1U);
    EXPECT_EQ(plan.batteries[0].name, "engine battery");
    EXPECT_EQ(plan.batteries[0].cranking_A, 680);
    EXPECT_TRUE(plan.loads.empty()) << "680 A are no draw";
    plan = typed(plan, "house battery 2x 100 Ah agm").plan;
    ASSERT_EQ(plan.batteries.size(), 2U);
    EXPECT_EQ(plan.batteries[1].name, "house battery");
    EXPECT_EQ(plan.batteries[1].capacity_Ah, 200);
    const std::size_t runs = plan.runs.size();
    plan = typed(plan, "dc-dc charger 30 A from engine battery to house battery, 3 m").plan;
    ASSERT_EQ(plan.sources.size(), 1U);
    EXPECT_EQ(plan.sources[0].kind, SourceKind::converter);
    EXPECT_EQ(plan.sources[0].charges, plan.batteries[1].id);
    EXPECT_EQ(plan.runs.size(), runs + 1) << "its two cables in place of the link";
    plan = typed(plan, "mains charger 25 A").plan;
    EXPECT_EQ(plan.sources.back().kind, SourceKind::shore);
    plan = typed(plan, "solar 2x 160 W").plan;
    EXPECT_EQ(plan.sources.back().panel_W, 320);

    const Plan two = typed(empty_plan("v"), "2x AGM 100 Ah").plan;
    EXPECT_EQ(two.batteries[0].capacity_Ah, 200);
    EXPECT_EQ(two.batteries[0].chemistry, Chemistry::agm);

    const auto load = [&](const char* line) { return typed(bare_van, line).plan.loads.back(); };
    for (const char* line :
         {"bilge pump 8 A when starting, 4 A running, 5 m", "bilge pump 4 A running, 8 A starting, 5 m",
          "bilge pump 4 A, stall 8 A, 5 m", "bilge pump 8 A start, 4 A run, 5 m"}) {
        const Load pump = load(line);
        EXPECT_EQ(pump.draw.value, 4) << line;
        EXPECT_EQ(pump.inrush_A, 8) << line;
        EXPECT_EQ(pump.live_when.engine, Engine::any) << line << ": it does not wait for the engine";
    }
    const Load radio = load("two-way radio 15 A transmit, 1 A receive, 2 m");
    EXPECT_EQ(radio.draw.value, 15);
    ASSERT_TRUE(radio.duty);
    EXPECT_NEAR(*radio.duty * 15, 1 + 0.1 * 14, 0.15) << "a tenth of the time sending";
    EXPECT_EQ(radio.inrush_A, std::nullopt);

    EXPECT_EQ(load("diesel heater 120 W glow, 25 W running").draw.value, 25);
    EXPECT_TRUE(typed(bare_van, "floodlights 8x 50 W led, 9 m").statement.not_understood.empty());

    // two of half the rail's volts are one of the rail's
    for (const char* line : {"battery 2x 12 V 180 Ah in series", "battery 2x 12 V 180 Ah", "2x AGM 180 Ah"}) {
        const Plan truck_24 = typed(typed(empty_plan("v"), "vehicle saw mill 24 V").plan, line).plan;
        EXPECT_EQ(truck_24.batteries[0].capacity_Ah, 180) << line;
        EXPECT_EQ(truck_24.batteries[0].nominal_V.value_or(24), 24) << line;
    }
    const Plan beside =
        typed(typed(empty_plan("v"), "vehicle saw mill 24 V").plan, "battery 2x 24 V 100 Ah in parallel")
            .plan;
    EXPECT_EQ(beside.batteries[0].capacity_Ah, 200);
    EXPECT_EQ(typed(typed(empty_plan("v"), "vehicle saw mill 24 V").plan, "battery 180 Ah")
                  .plan.batteries[0]
                  .nominal_V,
              std::nullopt);

    const Plan mill =
        typed(typed(bare_van, "bus main, fuse 100 A, 1 m").plan, "e-stop disconnect between battery and main")
            .plan;
    bool master = false;
    for (const yr::Run& r : mill.runs)
        for (const Device& d : r.devices) master = master || (d.master && d.name == "e-stop disconnect");
    EXPECT_TRUE(master);
    const Typed camping = typed(bare_van, "state camping, fridge, heater");
    EXPECT_EQ(camping.plan.states.back().name, "camping");
    EXPECT_EQ(camping.statement.not_understood.size(), 2U) << "told, not made part of the name";

    // what joins two batteries is no load of 140 A
    for (const auto& [line, kind] :
         {std::pair{"vsr 140 A between engine battery and house battery", DeviceKind::sensing_relay},
          std::pair{"battery isolator 120 A between engine battery and house battery", DeviceKind::diode}}) {
        const Plan joined = typed(typed(typed(empty_plan("v"), "engine battery 75 Ah flooded").plan,
                                        "house battery 100 Ah agm")
                                      .plan,
                                  line)
                                .plan;
        EXPECT_TRUE(joined.loads.empty()) << line;
        int joiners = 0;
        for (const yr::Run& r : joined.runs)
            for (const Device& d : r.devices) joiners += d.kind == kind;
        EXPECT_EQ(joiners, 1) << line;
    }
    // a slip behind it makes no load of it either; an isolator before a bus is a switch, not diodes
    const Plan two_24 = typed(typed(typed(empty_plan("v"), "lorry 24 V").plan, "battery AGM 180 Ah").plan,
                              "second battery lithium 24 V 200 Ah")
                            .plan;
    const Typed slip = typed(two_24, "vsr 100 A betwen battery and second battery");
    EXPECT_TRUE(slip.plan.loads.empty());
    EXPECT_FALSE(slip.statement.not_understood.empty());
    const Typed cut =
        typed(typed(bare_van, "bus main, fuse 100 A, 1 m").plan, "battery isolator between battery and main");
    EXPECT_EQ(cut.statement.kind, StatementKind::master);
    // a charger between batteries holds its own rail's volts
    const Plan charged = typed(two_24, "battery to battery charger 25 A from battery to second battery").plan;
    ASSERT_EQ(charged.sources.size(), 1U);
    EXPECT_NEAR(charged.sources[0].regulated_V.value_or(28.4), 28.4, 0.1);
    for (const Finding& f : inspect(charged, false).findings)
        EXPECT_NE(f.severity, Severity::stop) << words::sentence(f, charged);
    EXPECT_EQ(typed(typed(empty_plan("v"), "cart 48 V").plan, "battery 48 V 100 Ah").plan.vehicle.nominal_V,
              48);
    const Plan cart_48 = typed(typed(typed(empty_plan("v"), "cart 48 V").plan, "8x 6 V 225 Ah flooded").plan,
                               "dc converter 48 V to 12 V 30 A")
                             .plan;
    EXPECT_EQ(cart_48.batteries[0].capacity_Ah, 225);
    EXPECT_EQ(cart_48.batteries[0].nominal_V.value_or(48), 48);
    ASSERT_EQ(cart_48.sources.size(), 1U);
    EXPECT_EQ(cart_48.sources[0].kind, SourceKind::converter);

    EXPECT_NE(kind_of_line(bare_van, "led strip 12 V"), StatementKind::vehicle)
        << "only a page's first line is its title";
    const Statement endless =
        read_statement(bare_van, std::string(200000, 'a') + " in " + std::string(200000, 'b'));
    EXPECT_FALSE(endless.whole());
    const Plan heavy = typed(typed(typed(typed(empty_plan("v"), "lorry 24 V").plan, "battery 180 Ah").plan,
                                   "second battery 100 Ah")
                                 .plan,
                             "vsr between battery and second battery")
                           .plan;
    for (const yr::Run& r : heavy.runs)
        for (const Device& d : r.devices)
            if (d.kind == DeviceKind::sensing_relay) EXPECT_NEAR(*d.close_V, 26.6, 1e-9) << "of its own rail";

    // a place that the plan does not know is new, and told; a slip of one that it knows is not
    const Typed locker = typed(bare_van, "fridge 60 W in front locker, 3 m");
    EXPECT_TRUE(locker.statement.not_understood.empty());
    EXPECT_EQ(locker.statement.new_places, std::vector<std::string>{"front locker"});
    EXPECT_EQ(name_of(locker.plan, locker.plan.loads.back().place), "front locker");
    EXPECT_TRUE(typed(locker.plan, "lamp 5 W in front locker").statement.new_places.empty())
        << "now it knows it";
    EXPECT_TRUE(typed(bare_van, "fridge 60 W in engin bay, 3 m").statement.new_places.empty());
    const Plan boot = typed(typed(empty_plan("v"), "battery AGM 90 Ah in boot").plan, "alternator 90 A").plan;
    EXPECT_EQ(boot.places.back().name, "boot");
    EXPECT_NE(boot.sources[0].place, boot.batteries[0].place) << "it sits on the engine";
    EXPECT_GT(*boot.runs.back().length_m, 3) << "and its cable goes to the rear";
    EXPECT_EQ(typed(bare_van, "lamp 5 W behind seats").plan.places.back().name, "behind seats");

    // names of states hold any words
    const Typed call = typed(bare_van, "state driving to call, engine running");
    EXPECT_EQ(call.plan.states.back().name, "driving to call");
    EXPECT_GT(call.plan.states.back().rpm, 0);
    // a trailer has no engine
    const Plan trailer = typed(empty_plan("v"), "vehicle street food trailer").plan;
    for (const State& s : trailer.states) EXPECT_LE(s.rpm, 0) << s.name;
    // what is meant as a load stays one
    for (const char* line :
         {"battery heater 60 W", "jump starter 12 W 10 Ah", "transmitter 5 A", "starting aid 20 W"})
        EXPECT_EQ(kind_of_line(bare_van, line), StatementKind::load) << line;
}

// A word that means nothing, put anywhere into any line: it is in the plan afterwards (a name, a new switch),
// or said not to be understood, or the line says why it does not go.
TEST(Statements, LoseNoWordWhereverItStands) {
    const Plan plan = bare("van");
    std::vector<std::string> lines;
    for (const StatementForm& form : statement_forms()) lines.emplace_back(form.example);
    for (const BareVehicle& b : bare_vehicles())
        for (const std::string_view line : split(b.text, '\n'))
            if (!line.empty()) lines.emplace_back(line);
    std::mt19937 random(5);
    int tried = 0, kept = 0;
    for (int k = 0; k < sweep(3000, 30000); ++k) {
        std::string line = lines[random() % lines.size()];
        std::vector<std::size_t> gaps{line.size()};
        for (std::size_t at = line.find(' '); at != std::string::npos; at = line.find(' ', at + 1))
            gaps.push_back(at);
        const std::string before = line;
        const bool comma = random() % 2;
        line.insert(gaps[random() % gaps.size()], comma ? ", zqxvk," : " zqxvk");
        const Statement s = read_statement(plan, line, &shipped_library());
        bool said = std::any_of(s.not_understood.begin(), s.not_understood.end(),
                                [](const std::string& w) { return w.find("zqxvk") != std::string::npos; });
        Plan after = plan;
        if (s.whole()) {
            ASSERT_TRUE(yr::apply(after, *s.edit)) << line;
            const bool in_plan = plan_text(after).find("zqxvk") != std::string::npos;
            kept += in_plan;
            said = said || in_plan;
        } else {
            said = said || s.error || s.doubt;
        }
        EXPECT_TRUE(said) << line;
        ++tried;
    }
    EXPECT_GT(kept, tried / 20) << "names take words";
    EXPECT_LT(kept, tried) << "and not all";
}

// An answer always.
TEST(Statements, SurviveRandomLines) {
    const char* words_[] = {
        "alternator", "battery", "150 A",  "from",  "box",   "12 V",   "on",      "ignition", ",",
        "2x",         "fuse",    "both",   "ends",  "5 m",   "10 AWG", "\"a b\"", "between",  "and",
        "state",      "key",     "set",    "light", ":",     "1,500",  "second",  "by",       "dc-dc",
        "channels",   "30",      "remove", "bus",   "strap", "-",      "to",      "body",     "#"};
    const Plan plan = bare("car");
    std::mt19937 random(11);
    for (int k = 0; k < sweep(400, 20000); ++k) {
        std::string line;
        const int count = 1 + static_cast<int>(random() % 9);
        for (int n = 0; n < count; ++n)
            line += std::string(words_[random() % std::size(words_)]) + (random() % 4 ? " " : "");
        const Statement s = read_statement(plan, line, &shipped_library());
        Plan trial = plan;
        if (s.whole()) EXPECT_TRUE(yr::apply(trial, *s.edit)) << line;
    }
}

}  // namespace
}  // namespace yr::test
