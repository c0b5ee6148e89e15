// rail test, rail locate, rail practise: readings that prove a vehicle, where a fault is, the trainer in a
// terminal.
#include <fmt/chrono.h>
#include <fmt/format.h>

#include <ctime>

#include <iostream>
#include <memory>

#include "commands.h"
#include "files/text_file.h"
#include "meter/as_built.h"
#include "units/text.h"
#include "watch.h"
#include "words/meter_words.h"
#include "words/sentences.h"

namespace yr::cli {
namespace {

struct MeterAsk {
    std::string plan, variant, readings, level = "open_circuit";
    std::vector<std::string> complaints;
    std::uint32_t seed = 1;
    bool json = false, built = false, keep = false;
    std::string by;
};

// The plan as it stands, or as this vehicle was built where that is asked for.
Result<Plan> load_asked(const MeterAsk& ask) {
    auto plan = load_shown(ask.plan, ask.variant);
    if (!plan || !ask.built) return plan;
    auto built = as_built_of(ask.plan, vehicle_of(*plan));
    if (!built) return tl::unexpected(built.error());
    if (!*built) return fail(ErrorCode::missing_reference, "--built", vehicle_of(*plan));
    return std::move((*built)->plan);
}

Json where_json(const Probing& w) {
    const char* kinds[] = {"volts", "amps", "ohms"};
    return {{"kind", kinds[static_cast<std::size_t>(w.kind)]},
            {"red", w.red.empty() ? Json(nullptr) : Json(w.red.text())},
            {"black", w.black.empty() ? Json(nullptr) : Json(w.black.text())},
            {"run", w.run},
            {"state", w.state},
            {"unplugged", w.unplugged}};
}

int run_test(const MeterAsk& ask) {
    const auto plan = load_asked(ask);
    if (!plan) return refuse(plan.error());
    const ProvePlan prove = test_points(*plan);
    if (!ask.json) {
        const char* phase = nullptr;
        int n = 0;
        for (const TestPoint& t : prove.points) {
            if (words::name_of(t.phase) != phase) {
                fmt::print("{}{}\n", phase ? "\n" : "", words::name_of(t.phase));
                phase = words::name_of(t.phase);
            }
            fmt::print("{:3}  {}  {}\n", ++n, words::sentence(*plan, t.where), words::band_text(t));
        }
        if (prove.fewest)
            tell("\nUnder load: the fewest readings that see every joint and cable that can be seen.\n");
        std::string names;
        for (const Id& id : prove.unseen) names += (names.empty() ? "" : ", ") + name_of(*plan, id);
        if (!names.empty()) tell("Not seen by any of them, no state loads them enough: {0}.\n", names);
        fmt::print("\n{}\n", words::caution());
        return 0;
    }
    Json out = {{"plan", plan->vehicle.name}, {"fewest", prove.fewest}, {"unseen", prove.unseen}};
    out["points"] = Json::array();
    for (const TestPoint& t : prove.points)
        out["points"].push_back({{"phase", words::name_of(t.phase)},
                                 {"where", where_json(t.where)},
                                 {"what", words::sentence(*plan, t.where)},
                                 {"thing", t.thing},
                                 {"expected", t.expected.value},
                                 {"low", t.low},
                                 {"high", t.high},
                                 {"sees", t.sees}});
    print(out);
    return 0;
}

// What the record says of how this vehicle was built; --keep adds a copy of the plan as it stands.
int run_built(const MeterAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    if (ask.keep) {
        Record line;
        line.by = ask.by;
        line.when = fmt::format("{:%Y-%m-%dT%H:%M:%S}", fmt::localtime(std::time(nullptr)));
        const auto kept = keep_as_built(*plan, ask.plan, std::move(line));
        if (!kept) return refuse(kept.error());
    }
    const auto book = read_records(records_path(ask.plan));
    if (!book) return refuse(book.error());
    const auto built = as_built_of(ask.plan, vehicle_of(*plan));
    if (!built) return refuse(built.error());
    Json out = {{"vehicle", vehicle_of(*plan)}, {"lines", Json::array()}};
    out["copy"] = *built ? Json((*built)->path) : Json(nullptr);
    out["unchanged"] = *built ? Json((*built)->plan == *plan) : Json(nullptr);
    std::vector<Record> lines = records_of(*book, *plan);
    std::erase_if(lines, [](const Record& r) { return r.kind != RecordKind::as_built; });
    for (const Record& r : lines)
        out["lines"].push_back({{"when", r.when}, {"by", r.by}, {"about", r.about}, {"note", r.note}});
    if (ask.json) {
        print(out);
        return 0;
    }
    for (const auto& row : words::record_sheet(*plan, lines).rows)
        fmt::print("{}  {}  {}\n", std::get<std::string>(row[0]), std::get<std::string>(row[2]),
                   std::get<std::string>(row[6]));
    if (!*built)
        tell("No copy of {0} as it was built is kept: --keep keeps one.\n", vehicle_of(*plan));
    else if ((*built)->plan == *plan)
        tell("The plan is still as {0} was built.\n", vehicle_of(*plan));
    else
        tell("The plan has changed since {0} was built; `rail test --built` goes by what was built.\n",
             vehicle_of(*plan));
    return 0;
}

Json suspect_json(const Plan& plan, const Suspect& s) {
    return {{"what", words::sentence(plan, s.fault)},
            {"kind", std::string(name_of(s.fault.kind))},
            {"thing", s.fault.thing},
            {"second", s.second ? Json(words::sentence(plan, *s.second)) : Json(nullptr)},
            {"probability", s.probability},
            {"strength_low", s.strength_low},
            {"strength_high", s.strength_high},
            {"would_read", s.would_read},
            {"off_by", s.off_by}};
}

int run_locate(const MeterAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    LocateAsk question;
    question.stop = watch().cancel();
    if (!ask.readings.empty()) {
        const auto text = read_text_file(ask.readings);
        if (!text) return refuse(text.error());
        const auto readings = words::read_readings(*plan, *text);
        if (!readings) return refuse(readings.error());
        question.readings = *readings;
    }
    for (const std::string& c : ask.complaints) {
        const auto complaint = words::read_complaint(*plan, c);
        if (!complaint) return refuse(complaint.error());
        question.complaints.push_back(*complaint);
    }
    Locator locator(*plan);
    const Location now = locator.locate(question);
    NextAsk next_ask;
    next_ask.readings = question.readings, next_ask.complaints = question.complaints;
    next_ask.stop = question.stop;
    const auto next = next_reading(locator, *plan, now, next_ask);
    if (ask.json) {
        Json out = {{"plan", plan->vehicle.name},
                    {"looked", now.looked},
                    {"explained", now.explained},
                    {"pairs", now.pairs}};
        out["suspects"] = Json::array();
        for (std::size_t k = 0; k < std::min<std::size_t>(20, now.suspects.size()); ++k)
            out["suspects"].push_back(suspect_json(*plan, now.suspects[k]));
        out["next"] = next ? Json{{"where", where_json(next->where)},
                                  {"what", words::sentence(*plan, *next)},
                                  {"minutes", next->minutes}}
                           : Json(nullptr);
        print(out);
        return 0;
    }
    for (std::size_t k = 0; k < std::min<std::size_t>(8, now.suspects.size()); ++k) {
        const Suspect& s = now.suspects[k];
        if (s.probability < 0.005) break;
        const std::string strength = words::strength_text(s);
        fmt::print("{:>5}  {}{}{}\n", words::quantity(s.probability, Dimension::fraction),
                   words::sentence(*plan, s.fault),
                   s.second ? words::translated(" and ") + words::sentence(*plan, *s.second) : "",
                   strength.empty() ? "" : ", " + strength);
    }
    if (!now.explained) tell("No single fault explains all of it.\n");
    if (next)
        tell("Next, {0}: {1}\n", words::number(next->minutes, 2) + " min", words::sentence(*plan, *next));
    else
        tell("No further reading would change what is to be done.\n");
    return 0;
}

std::optional<PracticeLevel> level_of(const std::string& text) {
    const char* names[] = {"open_circuit", "bad_ground", "wrong_size", "two_at_once", "with_heat"};
    for (std::size_t k = 0; k < kPracticeLevels; ++k)
        if (text == names[k]) return static_cast<PracticeLevel>(k);
    return std::nullopt;
}

// "volts hoist + / bed ground / Hoisting", "amps main cable / Idling", "mend bed ground", "give up".
int practise_by_hand(const Plan& plan, HiddenFault& hidden) {
    PracticeScore score;
    std::string line;
    tell("Type: volts RED / BLACK / STATE, amps CABLE / STATE, mend THING, give up.\n");
    while (std::getline(std::cin, line)) {
        const std::string text(trim(line));
        if (text == "give up") break;
        if (text.starts_with("mend ")) {
            const std::string thing = to_lower(std::string(trim(text.substr(5))));
            Id id;
            for (const Fault& f : faults_of(plan))
                if (to_lower(name_of(plan, f.thing)) == thing || f.thing == thing) id = f.thing;
            if (id.empty()) {
                tell("There is nothing of that name.\n");
                continue;
            }
            if (hidden.is_it(id)) {
                tell("That was it: {0}. {1} readings, {2} min.\n", words::sentence(plan, hidden.fault()),
                     score.readings, words::number(score.minutes, 3));
                return 0;
            }
            ++score.wrong_repairs;
            tell("It was not that.\n");
            continue;
        }
        Probing where;
        std::vector<std::string> parts;
        const bool amps = text.starts_with("amps ");
        if (!amps && !text.starts_with("volts ")) {
            tell("Type: volts RED / BLACK / STATE, amps CABLE / STATE, mend THING, give up.\n");
            continue;
        }
        for (const std::string_view part : split(std::string_view(text).substr(amps ? 5 : 6), '/'))
            parts.emplace_back(trim(part));
        const State* state = parts.empty() ? nullptr : find_state(plan, parts.back());
        if (!state || parts.size() != (amps ? 2U : 3U)) {
            tell("Name a state of the plan last.\n");
            continue;
        }
        where.state = state->id;
        if (amps) {
            where.kind = ReadKind::amps;
            for (const Run& r : plan.runs)
                if (to_lower(r.name) == to_lower(parts[0])) where.run = r.id;
        } else {
            const auto red = words::terminal_named(plan, parts[0], "red"),
                       black = words::terminal_named(plan, parts[1], "black");
            if (!red || !black) {
                fmt::print("{}\n", words::sentence(red ? black.error() : red.error()));
                continue;
            }
            where.red = *red, where.black = *black;
        }
        const auto value = hidden.read(where);
        if (!value) {
            tell("Nothing can be read there.\n");
            continue;
        }
        ++score.readings, score.minutes += reading_minutes(amps ? "amps" : "volts");
        fmt::print("{}\n", words::value_text(where.kind, *value));
    }
    tell("It was: {0}.\n", words::sentence(plan, hidden.fault()));
    return 1;
}

int run_practise(const MeterAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const auto level = level_of(ask.level);
    HiddenFault hidden(*plan, ask.seed, *level);
    if (!hidden.there()) {
        tell_error("This plan has no fault of that level that anybody would notice.\n");
        return 1;
    }
    if (!ask.json) {
        for (const Complaint& c : hidden.complaints()) fmt::print("{}\n", words::sentence(*plan, c));
        return practise_by_hand(*plan, hidden);
    }
    Json out = {
        {"plan", plan->vehicle.name}, {"seed", ask.seed}, {"fault", words::sentence(*plan, hidden.fault())}};
    out["complaints"] = Json::array(), out["best_path"] = Json::array();
    for (const Complaint& c : hidden.complaints()) out["complaints"].push_back(words::sentence(*plan, c));
    for (const PathStep& s : best_path(*plan, hidden, 12, watch().cancel()))
        out["best_path"].push_back({{"where", where_json(s.where)},
                                    {"what", words::sentence(*plan, s.where)},
                                    {"value", s.value},
                                    {"minutes", s.minutes},
                                    {"likeliest", s.likeliest},
                                    {"probability", s.probability}});
    print(out);
    return 0;
}

}  // namespace

void add_meter(CLI::App& app, Action& action) {
    auto o = std::make_shared<MeterAsk>();
    const auto common = [o](CLI::App* c) {
        c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
        add_variant_option(*c, o->variant);
        add_seconds_option(*c);
        c->add_flag("--json", o->json, words::translated("JSON"));
    };
    CLI::App* c = app.add_subcommand(
        "test", words::translated("The readings that prove a finished vehicle, with their bands"));
    common(c);
    c->add_flag("--built", o->built,
                words::translated("as this vehicle was built, by the copy that was kept"));
    c->callback([o, &action] { action = [o] { return run_test(*o); }; });
    c = app.add_subcommand("built", words::translated("How this vehicle was built, by its record"));
    common(c);
    c->add_flag("--keep", o->keep, words::translated("keep a copy of the plan as this vehicle was built"));
    c->add_option("--by", o->by, words::translated("who says so"));
    c->callback([o, &action] { action = [o] { return run_built(*o); }; });
    c = app.add_subcommand(
        "locate", words::translated("Where a fault is, from readings and complaints; and what to read next"));
    common(c);
    c->add_option("--readings", o->readings,
                  words::translated("CSV: red, black, run, state, volts or amps or ohms"));
    c->add_option("--complaint", o->complaints,
                  words::translated("such as \"davit hoist weak Hoisting\"; may be repeated"));
    c->callback([o, &action] { action = [o] { return run_locate(*o); }; });
    c = app.add_subcommand("practise", words::translated("A hidden fault to be found"));
    common(c);
    c->add_option("--seed", o->seed, words::translated("which fault"));
    c->add_option("--level", o->level,
                  words::translated("open_circuit, bad_ground, wrong_size, two_at_once, with_heat"))
        ->check(CLI::IsMember({"open_circuit", "bad_ground", "wrong_size", "two_at_once", "with_heat"}));
    c->callback([o, &action] { action = [o] { return run_practise(*o); }; });
}

}  // namespace yr::cli
