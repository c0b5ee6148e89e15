// rail wire, rail plug, rail health: an unlabelled wire, coded end plugs, a battery over the years.
#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "meter/as_built.h"
#include "units/quantity.h"
#include "units/text.h"
#include "words/sentences.h"
#include "words/wire_words.h"

namespace yr::cli {
namespace {

struct WireAsk {
    std::string plan, variant, battery, plug;
    std::vector<std::string> reads;
    double cold_C = -10;
    bool json = false;
};

// "3=12.1": at try or pin 3 (from 1) that was read.
Result<std::vector<std::optional<double>>> reads_of(const WireAsk& ask, std::size_t count,
                                                    Dimension dimension) {
    std::vector<std::optional<double>> read(count);
    for (const std::string& text : ask.reads) {
        const auto at = text.find('=');
        const auto number = parse_value(text.substr(0, at), Dimension::number);
        if (at == std::string::npos || !number || *number < 1 || *number > static_cast<double>(count))
            return fail(ErrorCode::out_of_range, "--read", text,
                        Wanted(Want::between, "1=" + std::string(words::translated("value")),
                               std::to_string(count) + "=" + words::translated("value")));
        const auto value = parse_reading(text.substr(at + 1), dimension);
        if (!value)
            return fail(value.error().code, "--read " + text, text.substr(at + 1), value.error().wanted);
        read[static_cast<std::size_t>(*number) - 1] = *value;
    }
    return read;
}

int run_wire(const WireAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const WireBook book = wire_book(*plan);
    const auto read = reads_of(ask, book.tries.size(), Dimension::voltage);
    if (!read) return refuse(read.error());
    const WireVerdict v = judge_wire(*plan, book, *read);
    if (ask.json) {
        Json out = {
            {"plan", plan->vehicle.name}, {"verdict", words::sentence(*plan, v)}, {"behind", v.behind}};
        out["tries"] = Json::array(), out["fits"] = Json::array();
        for (std::size_t k = 0; k < book.tries.size(); ++k)
            out["tries"].push_back({{"what", words::sentence(*plan, book.tries[k])},
                                    {"read_V", (*read)[k] ? Json(*(*read)[k]) : Json(nullptr)}});
        for (const std::size_t w : v.fits) out["fits"].push_back(book.wires[w].run);
        out["next"] = v.next ? Json(*v.next + 1) : Json(nullptr);
        out["leaves"] = v.leaves;
        print(out);
        return 0;
    }
    for (std::size_t k = 0; k < book.tries.size(); ++k)
        fmt::print("{:3}  {}{}\n", k + 1, words::sentence(*plan, book.tries[k]),
                   (*read)[k] ? ": " + words::quantity(*(*read)[k], Dimension::voltage) : "");
    fmt::print("\n{}\n", words::sentence(*plan, v));
    if (!ask.reads.empty()) {
        tell("It can be:\n");
        for (std::size_t k = 0; k < std::min<std::size_t>(12, v.fits.size()); ++k)
            fmt::print("  {}\n", words::wire_text(*plan, book.wires[v.fits[k]].run));
        if (v.fits.size() > 12) tell("  and {0} more\n", v.fits.size() - 12);
        if (v.fits.empty()) tell("  no cable of the plan\n");
    }
    if (const std::string next = words::next_sentence(*plan, book, v); !next.empty())
        tell("Next, {0}\n", next);
    return 0;
}

int run_plug(const WireAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const Instrument meter = instrument_of(*plan);
    const std::size_t most = most_pins(meter);
    const std::vector<EndPlug> plugs = end_plugs(*plan, flat_looms(*plan, route_all(*plan)));
    Json out = Json::array();
    bool found = false;
    for (const EndPlug& plug : plugs) {
        if (!ask.plug.empty() && to_lower(plug.name) != to_lower(ask.plug)) continue;
        found = true;
        const auto read = reads_of(ask, plug.runs.size(), Dimension::resistance);
        if (!read) return refuse(read.error());
        for (std::size_t first = 0; first < plug.runs.size(); first += most) {
            const CodedPlug code = coded_plug(std::min(most, plug.runs.size() - first), meter);
            const Sheet sheet = words::plug_sheet(
                *plan, plug, code, first, {read->begin() + static_cast<std::ptrdiff_t>(first), read->end()});
            if (ask.json) {
                Json pins = Json::array();
                for (std::size_t k = 0; k < code.ohm.size(); ++k)
                    pins.push_back({{"pin", plug.pins[first + k]},
                                    {"run", plug.runs[first + k]},
                                    {"resistor_ohm", code.ohm[k]},
                                    {"is", std::get<std::string>(sheet.rows[k].back())}});
                out.push_back({{"plug", plug.name}, {"proved", code.proved}, {"pins", pins}});
                continue;
            }
            fmt::print("{}\n", sheet.name);
            for (const auto& row : sheet.rows) {
                std::string line;
                for (const SheetCell& c : row) line += "  " + std::get<std::string>(c);
                fmt::print("{}\n", line);
            }
        }
    }
    if (!found && !ask.plug.empty()) {
        std::string names;
        for (const EndPlug& plug : plugs) names += (names.empty() ? "" : ", ") + plug.name;
        return refuse(Error{ErrorCode::missing_reference, "--plug", ask.plug, Wanted(Want::as_said, names)});
    }
    if (ask.json)
        print(out);
    else if (!found)
        tell("No connector and no loom of two cables or more: Place lays cables along ways.\n");
    return 0;
}

int run_health(const WireAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const auto book = read_records(records_path(ask.plan));
    if (!book) return refuse(book.error());
    Json out = Json::array();
    bool found = false;
    for (const Battery& b : plan->batteries) {
        if (!ask.battery.empty() && to_lower(b.name) != to_lower(ask.battery) && b.id != ask.battery)
            continue;
        found = true;
        const auto days = health_days(*plan, b.id, records_of(*book, *plan), ask.cold_C);
        const auto ahead = outlook(days);
        if (ask.json) {
            Json list = Json::array();
            const auto or_null = [](const std::optional<double>& v) { return v ? Json(*v) : Json(nullptr); };
            for (const HealthDay& d : days)
                list.push_back({{"date", d.date},
                                {"rested_V", or_null(d.rested_V)},
                                {"charge", or_null(d.charge)},
                                {"crank_V", or_null(d.crank_V)},
                                {"at_C", or_null(d.at_C)},
                                {"ohm", or_null(d.ohm)},
                                {"cold_V", d.cold ? Json(d.cold->post_V) : Json(nullptr)},
                                {"least_V", d.cold ? Json(d.cold->least_V) : Json(nullptr)}});
            out.push_back({{"battery", b.id},
                           {"days", list},
                           {"change_V_a_year", ahead ? Json(ahead->trend.a_year) : Json(nullptr)},
                           {"reaches", ahead && ahead->reaches ? Json(*ahead->reaches) : Json(nullptr)}});
            continue;
        }
        fmt::print("{}\n", words::capital(name_of(*plan, b.id)));
        for (const HealthDay& d : days) fmt::print("  {}  {}\n", d.date, words::sentence(d, ask.cold_C));
        if (days.empty()) tell("  The record has no reading across its posts.\n");
        if (ahead)
            fmt::print("  {}\n", words::sentence(*ahead, ask.cold_C));
        else if (!days.empty())
            tell("  A trend wants three cranking readings, the first and last half a year apart.\n");
    }
    if (!found && !ask.battery.empty())
        return refuse(
            Error{ErrorCode::missing_reference, "--battery", ask.battery, Want::a_battery_of_this_plan});
    if (ask.json) print(out);
    return 0;
}

}  // namespace

void add_wire(CLI::App& app, Action& action) {
    auto o = std::make_shared<WireAsk>();
    const auto common = [o](CLI::App* c) {
        c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
        add_variant_option(*c, o->variant);
        c->add_flag("--json", o->json, words::translated("JSON"));
    };
    CLI::App* c = app.add_subcommand(
        "wire",
        words::translated("An unlabelled wire: constant, switched or timed, and which cable it can be"));
    common(c);
    c->add_option("--read", o->reads,
                  words::translated("volts at a try, by its number: 1=0; may be repeated"));
    c->callback([o, &action] { action = [o] { return run_wire(*o); }; });
    c = app.add_subcommand(
        "plug", words::translated("End plugs with a resistor a pin, by which a meter proves a whole loom"));
    common(c);
    c->add_option("--plug", o->plug, words::translated("connector or loom"));
    c->add_option("--read", o->reads,
                  words::translated("ohms at a pin, by its row: 3=1.2 k; may be repeated"));
    c->callback([o, &action] { action = [o] { return run_plug(*o); }; });
    c = app.add_subcommand(
        "health", words::translated("A battery by the record's readings: cold cranking, how it ages"));
    common(c);
    c->add_option("--battery", o->battery, words::translated("battery"));
    c->add_option("--cold", o->cold_C, words::translated("coldest morning, C"))
        ->check(CLI::Range(-50.0, 30.0));
    c->callback([o, &action] { action = [o] { return run_health(*o); }; });
}

}  // namespace yr::cli
