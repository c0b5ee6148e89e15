#include <fmt/format.h>

#include <algorithm>

#include <memory>

#include "commands.h"
#include "plan/names.h"
#include "size/cable_size.h"
#include "size/fuse_size.h"
#include "size/plan_fuse.h"
#include "words/format.h"
#include "words/guard_words.h"
#include "words/sentences.h"

namespace yr::cli {
namespace {

using words::quantity;

const char* limit_word(Limit l) {
    return l == Limit::none ? words::translated("nothing: the thinnest size passes") : words::name_of(l);
}

struct SizeOptions {
    std::string current, length, nominal = "12V", drop = "3%", insulation = "105C", space = "open",
                                 ambient = "30C", sizes = "awg", table, on, duty = "10%", fuse,
                                 fuse_type = "blade";
    bool one_way = false, json = false;
    int bundle = 1, parallel = 1;
};

// Reads one argument into `out`; false (with the sentence printed) when it can't.
bool read(const char* argument, const std::string& text, Dimension dimension, double& out) {
    const auto v = parse_value(text, dimension);
    if (!v) return refuse(argument, v.error()), false;
    out = *v;
    return true;
}

template <class E>
bool read_name(const char* argument, const std::string& text, E& out) {
    if (const auto e = enum_named<E>(text)) return out = *e, true;
    std::string wanted;
    for (const auto& n : enum_names<E>()) wanted += (wanted.empty() ? "" : " or ") + std::string(n.name);
    return refuse({ErrorCode::unknown_name, argument, text, {Want::as_said, wanted}}), false;
}

std::vector<std::string> size_assumptions(const SizeAsk& ask, const SizeLadder& ladder, const SizeRow* row) {
    std::vector<std::string> lines;
    if (ask.engine_space && ladder.physics_ambient_C > ask.ambient_C)
        lines.push_back("an engine space without a stated temperature counts as 50 °C in the heat balance");
    if (row && row->ampacity.interpolated)
        lines.push_back("ampacity between the table's sizes, by copper area");
    if (row && row->ampacity.insulation_scaled)
        lines.push_back("insulation not in the table: scaled by the root of the temperature rise");
    if (ask.on_s)
        lines.push_back(
            "a current that comes and goes is judged by the cable's heat in time; the table's own verdict "
            "stands "
            "beside it");
    lines.push_back(std::string("copper, ") + (ask.on_s ? "intermittent" : "continuous") + " current, " +
                    (ask.parallel > 1 ? std::to_string(ask.parallel) + " pairs of cables that share equally"
                                      : words::translated("one pair of cables")));
    return lines;
}

Json row_json(const SizeRow& r, double length_m) {
    return {{"gauge", name_of(r.wire.size)},
            {"area_mm2", r.wire.area_mm2},
            {"resistance_ohm", resistance_ohm_per_m(r.wire, r.temperature_C) * length_m},
            {"ampacity_A", r.ampacity.allowed_A},
            {"ampacity_beyond_table", r.ampacity.beyond_table},
            {"temperature_C", r.temperature_C},
            {"drop_V", r.drop_V},
            {"rule_drop_V", r.rule_drop_V},
            {"ampacity_ok", r.carries},
            {"table_ok", r.table_carries},
            {"guard_C", r.guard_C > 0 ? Json(r.guard_C) : Json(nullptr)},
            {"guard_ok", r.withstands},
            {"drop_ok", r.drop_fits},
            {"passes", r.passes()}};
}

int run_size(const SizeOptions& o) {
    SizeAsk ask;
    double length = 0;
    if (!read("--current", o.current, Dimension::current, ask.current_A) ||
        !read("--length", o.length, Dimension::length, length) ||
        !read("--nominal", o.nominal, Dimension::voltage, ask.nominal_V) ||
        !read("--drop", o.drop, Dimension::fraction, ask.drop_share) ||
        !read("--insulation", o.insulation, Dimension::temperature, ask.insulation_C) ||
        !read("--ambient", o.ambient, Dimension::temperature, ask.ambient_C) ||
        !read_name("--sizes", o.sizes, ask.system))
        return 2;
    if (ask.ambient_C < -60 || ask.ambient_C > 250)
        return refuse({ErrorCode::out_of_range, "--ambient", o.ambient, Want::from_60_to_250_c});
    if (o.space != "open" && o.space != "engine")
        return refuse({ErrorCode::unknown_name, "--space", o.space, Want::open_or_engine});
    ask.table = ask.system == SizeSystem::metric ? AmpacityTable::iso : AmpacityTable::abyc;
    if (!o.table.empty() && !read_name("--table", o.table, ask.table)) return 2;
    ask.there_and_back_m = o.one_way ? 2 * length : length;
    ask.engine_space = o.space == "engine";
    ask.bundle = o.bundle;
    ask.parallel = o.parallel;
    double value = 0;
    if (!o.on.empty()) {
        if (!read("--on", o.on, Dimension::time, value)) return 2;
        ask.on_s = value;
    }
    if (!read("--duty", o.duty, Dimension::fraction, ask.duty)) return 2;
    if (!o.fuse.empty()) {
        if (!read("--fuse", o.fuse, Dimension::current, value)) return 2;
        if (!(value > 0)) return refuse({ErrorCode::out_of_range, "--fuse", o.fuse, Want::more_than_0_a});
        ask.fuse_A = value;
    }
    if (!read_name("--fuse-type", o.fuse_type, ask.fuse)) return 2;
    const auto ladder = size_cable(ask);
    if (!ladder) return refuse("--" + ladder.error().place, ladder.error());
    const SizeRow* row =
        ladder->chosen >= 0 ? &ladder->rows[static_cast<std::size_t>(ladder->chosen)] : nullptr;
    const auto assumed = size_assumptions(ask, *ladder, row);
    // what the rule's quick formula alone would take, without ampacity, heat and fuse
    const auto by_formula = std::find_if(ladder->rows.begin(), ladder->rows.end(), [&](const SizeRow& r) {
        return r.rule_drop_V <= ladder->drop_limit_V * (1 + 1e-9);
    });
    const bool formula_fits = by_formula != ladder->rows.end();
    if (o.json) {
        Json out;
        if (row)
            out = row_json(*row, ask.there_and_back_m);
        else
            out["gauge"] = nullptr;
        out["drop_limit_V"] = ladder->drop_limit_V;
        out["gauge_by_formula"] = formula_fits ? Json(name_of(by_formula->wire.size)) : Json(nullptr);
        if (row) out["drop_share"] = row->drop_V / ask.nominal_V;
        out["decides"] = ladder->decides == Limit::none ? "none" : limit_word(ladder->decides);
        out["current_A"] = ask.current_A;
        out["there_and_back_m"] = ask.there_and_back_m;
        out["candidates"] = Json::array();
        for (const SizeRow& r : ladder->rows) out["candidates"].push_back(row_json(r, ask.there_and_back_m));
        out["source"] =
            ladder->rows.front().ampacity.source +
            "; drop: IEC 60028 copper at the conductor's temperature, and the table's own quick formula";
        out["assumptions"] = assumptions_json(assumed);
        print(out);
        return row ? 0 : 1;
    }
    if (!row) {
        tell("No {0} size in the tables passes; decided by {1}.\n", o.sizes, limit_word(ladder->decides));
        return 1;
    }
    fmt::print("{}\n", name_of(row->wire.size));
    print_table({{"drop", quantity(row->drop_V, Dimension::voltage), "of",
                  quantity(ladder->drop_limit_V, Dimension::voltage)},
                 {"ampacity", quantity(row->ampacity.allowed_A, Dimension::current), "for",
                  quantity(ask.current_A, Dimension::current)},
                 {"table",
                  row->table_carries ? words::translated("carries it for ever")
                                     : words::translated("does not carry it for ever"),
                  "", ""},
                 {"conductor", quantity(row->temperature_C, Dimension::temperature), "of",
                  quantity(ask.insulation_C, Dimension::temperature)}});
    tell("  decided by {0}\n", limit_word(ladder->decides));
    if (formula_fits) tell("  the drop formula alone would take {0}\n", name_of(by_formula->wire.size));
    tell("  source: {0}\n", row->ampacity.source);
    for (const auto& a : assumed) tell("  assumed: {0}\n", a);
    return 0;
}

int run_cable(const std::string& size_text, const std::string& length_text, const std::string& temp_text,
              bool json) {
    const auto size = parse_wire_size(size_text);
    if (!size) return refuse("SIZE", size.error());
    const auto wire = conductor(*size);
    if (!wire) return refuse("SIZE", wire.error());
    double length = 1, temp = 20;
    if (!length_text.empty() && !read("--length", length_text, Dimension::length, length)) return 2;
    if (!temp_text.empty() && !read("--temp", temp_text, Dimension::temperature, temp)) return 2;
    if (!(length > 0)) return refuse({ErrorCode::out_of_range, "--length", length_text, Want::more_than_0_m});
    if (temp < -60 || temp > 250)
        return refuse({ErrorCode::out_of_range, "--temp", temp_text, Want::from_60_to_250_c});
    const double per_m = resistance_ohm_per_m(*wire, temp);
    AmpacityAsk ask;
    ask.size = *size;
    ask.table = size->system() == SizeSystem::metric ? AmpacityTable::iso : AmpacityTable::abyc;
    const auto amp = ampacity(ask);
    if (!amp) return refuse(amp.error());
    if (json) {
        print({{"gauge", name_of(*size)},
               {"area_mm2", wire->area_mm2},
               {"length_m", length},
               {"temperature_C", temp},
               {"resistance_ohm", per_m * length},
               {"resistance_ohm_per_m", per_m},
               {"mass_kg", wire->mass_kg_per_m * length},
               {"mass_kg_per_m", wire->mass_kg_per_m},
               {"ampacity_A", amp->allowed_A},
               {"ampacity_beyond_table", amp->beyond_table},
               {"outer_diameter_mm", wire->outer_diameter_mm},
               {"source", std::string(wire->source) + "; " + amp->source},
               {"assumptions",
                {"copper conductor",
                 "ampacity: 105 C insulation, 30 C air, outside engine spaces, not bundled"}}});
        return 0;
    }
    fmt::print("{}\n", name_of(*size));
    print_table(
        {{"area", quantity(wire->area_mm2, Dimension::area)},
         {"resistance at " + quantity(temp, Dimension::temperature),
          quantity(per_m * length, Dimension::resistance), "over " + quantity(length, Dimension::length)},
         {"copper", words::number(wire->mass_kg_per_m * length * 1000) + " g"},
         {"ampacity", quantity(amp->allowed_A, Dimension::current),
          amp->beyond_table ? words::translated("beyond the table; 105 C insulation, 30 C air")
                            : words::translated("105 C insulation, 30 C air")}});
    tell("  source: {0}; {1}\n", wire->source, amp->source);
    return 0;
}

struct FuseOptions {
    std::string current, inrush, wire, school = "wire", insulation = "105C", space = "open", ambient = "30C",
                                       cuts;
    int bundle = 1, parallel = 1;
    bool json = false;
};

// What `rail fuse` found, before it is printed.
struct FuseAnswer {
    WireSize size;
    AmpacityAsk asked;
    Ampacity amp;
    FuseAdvice advice;
    std::string risk;
    FuseGuard guard;
    std::vector<FuseType> kinds;  // that come in that rating and cut off the short
};

std::string fuse_risk(const FuseAdvice& a) {
    if (!a.chosen) return {};
    if (!a.protects_cable)
        return words::translated("larger than the cable carries: in a short the cable burns first");
    if (!a.carries) return words::translated("the load is more than 80 % of it: it may open in steady use");
    if (!a.holds_inrush) return words::translated("not above the inrush: it may open at the start");
    return {};
}

std::string fuse_source(const FuseAnswer& a) {
    return fuse_kind(a.advice.chosen ? a.advice.chosen->type : FuseType::blade).source +
           "; school: common practice; cable: " + a.amp.source;
}

// Whether the cable outlives a slow overload, and which kinds cut off the short.
void judge_guard(const FuseOptions& o, double current_A, double must_cut, FuseAnswer& a) {
    const double air = a.asked.engine_space ? std::max(a.asked.ambient_C, 50.0) : a.asked.ambient_C;
    const auto wire = conductor(a.size);
    const auto cable = surroundings_of(*wire, air, bundle_factor(o.bundle));
    const double start =
        std::min(conductor_temperature_C(cable, current_A / o.parallel, air), a.asked.insulation_C);
    a.guard = fuse_guard(cable, a.asked.insulation_C, start, o.parallel, a.advice.chosen->type,
                         a.advice.chosen->rating_A, a.asked.ambient_C);
    a.kinds = kinds_for(a.advice.chosen->rating_A, must_cut, 12);
    if (a.risk.empty() && !a.guard.guards) a.risk = "the cable is hurt before it is sure to open";
    if (a.risk.empty() && a.kinds.empty()) a.risk = "no kind of that rating cuts off such a short";
}

int print_fuse_json(const FuseOptions& o, const FuseAnswer& a) {
    Json out;
    out["fuse_A"] = a.advice.chosen ? Json(a.advice.chosen->rating_A) : Json(nullptr);
    out["type"] = a.advice.chosen ? Json(name_of(a.advice.chosen->type)) : Json(nullptr);
    out["school"] = o.school;
    out["gauge"] = name_of(a.size);
    out["ampacity_A"] = a.amp.allowed_A;
    out["needed_A"] = a.advice.needed_A;
    out["protects_cable"] = a.advice.protects_cable;
    out["holds_inrush"] = a.advice.holds_inrush;
    out["carries_continuous"] = a.advice.carries;
    out["guards_cable"] = a.guard.guards;
    out["cable_reaches_C"] = a.guard.reached_C;
    out["kinds"] = Json::array();
    for (const FuseType k : a.kinds) out["kinds"].push_back(name_of(k));
    out["risk"] = a.risk;
    out["source"] = fuse_source(a);
    out["assumptions"] = {"cable: " + o.insulation + " insulation, " + o.ambient + " air, " +
                          (a.asked.engine_space ? words::translated("in an engine space")
                                                : words::translated("outside engine spaces")) +
                          (o.bundle > 1 ? ", bundled" : words::translated(", not bundled"))};
    print(out);
    return a.advice.chosen ? 0 : 1;
}

int print_fuse_text(const FuseAnswer& a, double must_cut) {
    if (!a.advice.chosen) {
        tell(
            "No fuse is both: at least {0} for the load and at most {1} for {2}. A thicker cable is "
            "needed.\n",
            quantity(a.advice.needed_A, Dimension::current), quantity(a.amp.allowed_A, Dimension::current),
            name_of(a.size));
        return 1;
    }
    fmt::print("{} {}\n", quantity(a.advice.chosen->rating_A, Dimension::current),
               name_of(a.advice.chosen->type));
    tell("  asked for {0}, cable carries {1}\n", quantity(a.advice.needed_A, Dimension::current),
         quantity(a.amp.allowed_A, Dimension::current));
    std::string names;
    for (const FuseType k : a.kinds) names += (names.empty() ? "" : ", ") + words::device_kind(k);
    tell("  the cable reaches {0} at worst before it opens, of {1} after a short\n",
         quantity(a.guard.reached_C, Dimension::temperature),
         quantity(a.guard.limit_C, Dimension::temperature));
    if (must_cut > 0)
        tell("  cuts off {0}: {1}\n", quantity(must_cut, Dimension::current), names.empty() ? "none" : names);
    if (!a.risk.empty()) tell("  risk: {0}\n", a.risk);
    tell("  source: {0}\n", fuse_source(a));
    return 0;
}

int run_fuse(const FuseOptions& o) {
    FuseAsk ask;
    FuseSchool school{};
    double inrush = 0;
    if (!read("--current", o.current, Dimension::current, ask.current_A)) return 2;
    if (!o.inrush.empty() && !read("--inrush", o.inrush, Dimension::current, inrush)) return 2;
    if (!o.inrush.empty()) ask.inrush_A = inrush;
    if (!read_name("--school", o.school, school)) return 2;
    const auto size = parse_wire_size(o.wire);
    if (!size) return refuse("--wire", size.error());
    AmpacityAsk amp_ask;
    amp_ask.size = *size;
    if (!read("--insulation", o.insulation, Dimension::temperature, amp_ask.insulation_C) ||
        !read("--ambient", o.ambient, Dimension::temperature, amp_ask.ambient_C))
        return 2;
    if (amp_ask.ambient_C < -60 || amp_ask.ambient_C > 250)
        return refuse({ErrorCode::out_of_range, "--ambient", o.ambient, Want::from_60_to_250_c});
    if (o.space != "open" && o.space != "engine")
        return refuse({ErrorCode::unknown_name, "--space", o.space, Want::open_or_engine});
    if (o.parallel < 1 || o.parallel > 8)
        return refuse({ErrorCode::out_of_range, "--parallel", std::to_string(o.parallel),
                       Want::from_1_to_8_cables_side_by_side});
    amp_ask.engine_space = o.space == "engine";
    amp_ask.bundle = o.bundle;
    double must_cut = 0;
    if (!o.cuts.empty() && !read("--short", o.cuts, Dimension::current, must_cut)) return 2;
    if (must_cut < 0) return refuse({ErrorCode::out_of_range, "--short", o.cuts, Want::more_than_0_a});
    amp_ask.table = size->system() == SizeSystem::metric ? AmpacityTable::iso : AmpacityTable::abyc;
    const auto amp = ampacity(amp_ask);
    if (!amp) return refuse("--wire", amp.error());
    ask.cable_A = amp->allowed_A * o.parallel;
    const auto advice = choose_fuse(ask, school);
    if (!advice) return refuse("--" + advice.error().place, advice.error());
    FuseAnswer answer{*size, amp_ask, *amp, *advice, fuse_risk(*advice), {}, {}};
    if (advice->chosen) judge_guard(o, ask.current_A, must_cut, answer);
    return o.json ? print_fuse_json(o, answer) : print_fuse_text(answer, must_cut);
}

}  // namespace

void add_sizing(CLI::App& app, Action& action) {
    auto s = std::make_shared<SizeOptions>();
    CLI::App* c = app.add_subcommand(
        "size", words::translated("The thinnest cable that carries a current over a length"));
    c->add_option("--current", s->current, words::translated("such as 15A"))->required();
    c->add_option("--length", s->length, words::translated("there and back, such as 20ft"))->required();
    c->add_flag("--one-way", s->one_way, words::translated("the length is one way"));
    c->add_option("--nominal", s->nominal, words::translated("12V if left out"));
    c->add_option("--drop", s->drop, words::translated("3% if left out"));
    c->add_option("--insulation", s->insulation, words::translated("105C if left out"));
    c->add_option("--space", s->space, words::translated("open or engine"));
    c->add_option("--parallel", s->parallel, words::translated("cables side by side"));
    c->add_option("--on", s->on, words::translated("comes and goes: so long at a stretch, such as 90s"));
    c->add_option("--duty", s->duty, words::translated("share of the time, with --on; 10% if left out"));
    c->add_option("--fuse", s->fuse, words::translated("that guards it, such as 30A"));
    c->add_option("--fuse-type", s->fuse_type, words::translated("blade, bolt, strip, ..., breaker_3"));
    c->add_option("--bundle", s->bundle, words::translated("conductors lying together"));
    c->add_option("--ambient", s->ambient, words::translated("30C if left out"));
    c->add_option("--sizes", s->sizes, words::translated("awg, sae or metric"));
    c->add_option("--table", s->table, words::translated("abyc or iso; iso for metric sizes if left out"));
    c->add_flag("--json", s->json, words::translated("JSON"));
    c->callback([s, &action] { action = [s] { return run_size(*s); }; });

    struct CableOptions {
        std::string size, length, temp;
        bool json = false;
    };
    auto w = std::make_shared<CableOptions>();
    c = app.add_subcommand("cable", words::translated("Area, resistance, mass and ampacity of one size"));
    c->add_option("SIZE", w->size, words::translated("10, 1/0, \"SAE 8\", 25mm2"))->required();
    c->add_option("--length", w->length, words::translated("1 m if left out"));
    c->add_option("--temp", w->temp, words::translated("20C if left out"));
    c->add_flag("--json", w->json, words::translated("JSON"));
    c->callback([w, &action] { action = [w] { return run_cable(w->size, w->length, w->temp, w->json); }; });

    auto f = std::make_shared<FuseOptions>();
    c = app.add_subcommand("fuse",
                           words::translated("The fuse for a load on a cable, by one of three schools"));
    c->add_option("--current", f->current, words::translated("largest normal current, such as 8A"))
        ->required();
    c->add_option("--inrush", f->inrush, words::translated("measured at start, such as 30A"));
    c->add_option("--wire", f->wire, words::translated("size of the cable"))->required();
    c->add_option("--insulation", f->insulation, words::translated("105C if left out"));
    c->add_option("--space", f->space, words::translated("open or engine"));
    c->add_option("--ambient", f->ambient, words::translated("30C if left out"));
    c->add_option("--bundle", f->bundle, words::translated("conductors lying together"));
    c->add_option("--parallel", f->parallel, words::translated("cables side by side"));
    c->add_option("--short", f->cuts, words::translated("short that it must cut off, such as 1500A"));
    c->add_option("--school", f->school, words::translated("load150, inrush or wire"));
    c->add_flag("--json", f->json, words::translated("JSON"));
    c->callback([f, &action] { action = [f] { return run_fuse(*f); }; });
}

}  // namespace yr::cli
