// rail work, rail power, rail symptoms, rail quote: what is done in what order, first power, what a break
// looks like, what it all costs; the diagram as a drawing.
#include <fmt/format.h>

#include <memory>

#include "commands.h"
#include "io/diagram_svg.h"
#include "watch.h"
#include "words/sentences.h"
#include "words/work_words.h"

namespace yr::cli {
namespace {

struct WorkAsk {
    std::string plan, variant, change;
    int vehicles = 1;
    double lamp_W = 0;
    bool json = false, orders = false;
};

int run_work(const WorkAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const WorkOrder order = work_order(*plan);
    if (!ask.json) {
        std::string at;
        for (const WorkStep& s : order.steps) {
            if (const std::string where = words::where(*plan, s); where != at)
                fmt::print("{}{}\n", at.empty() ? "" : "\n", at = where);
            fmt::print("  [{}] {} ({}){}{}\n", s.done() ? "x" : " ", words::sentence(*plan, s),
                       words::minutes_text(s.minutes), s.put_off ? words::translated(", put off") : "",
                       s.waits ? words::translated(", waits for what is put off") : "");
            for (const Fixing& f : s.fixings) fmt::print("        {}\n", words::fixing(*plan, f));
            for (const WorkCaution c : s.cautions) fmt::print("        ! {}\n", words::work_caution(c));
            if (const std::string remark = words::remark(*plan, s); !remark.empty())
                fmt::print("        {}\n", remark);
        }
        fmt::print("\n{}\n\n{}\n", words::sentence(order), words::caution());
        return 0;
    }
    Json out = {{"plan", plan->vehicle.name},
                {"visits", order.visits},
                {"fewest", order.fewest},
                {"minutes", order.minutes},
                {"minutes_left", order.minutes_left}};
    out["steps"] = Json::array();
    for (const WorkStep& s : order.steps) {
        Json fixings = Json::array();
        for (const Fixing& f : s.fixings)
            fixings.push_back({{"at", f.at.text()},
                               {"thread_mm", f.thread_mm},
                               {"spanner_mm", f.spanner_mm ? Json(*f.spanner_mm) : Json(nullptr)},
                               {"least_Nm", f.torque ? Json(f.torque->least_Nm) : Json(nullptr)},
                               {"most_Nm", f.torque ? Json(f.torque->most_Nm) : Json(nullptr)},
                               {"own_torque", f.own_torque},
                               {"lugs", f.lugs}});
        Json cautions = Json::array();
        for (const WorkCaution c : s.cautions) cautions.push_back(words::work_caution(c));
        out["steps"].push_back({{"key", s.key},
                                {"what", words::sentence(*plan, s)},
                                {"where", words::where(*plan, s)},
                                {"place", s.place},
                                {"minutes", s.minutes},
                                {"own_minutes", s.own_minutes},
                                {"members", s.members},
                                {"done", s.done()},
                                {"put_off", s.put_off},
                                {"waits", s.waits},
                                {"after", s.after},
                                {"fixings", fixings},
                                {"cautions", cautions}});
    }
    print(out);
    return 0;
}

int run_power(const WorkAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const auto rounds = first_power(*plan, {ask.lamp_W, nullptr});
    if (ask.json) {
        Json out = {{"plan", plan->vehicle.name}};
        out["rounds"] = Json::array();
        for (const PowerRound& r : rounds) {
            Json steps = Json::array();
            for (const PowerStep& s : r.steps)
                steps.push_back({{"fuse", s.fuse},
                                 {"run", s.run},
                                 {"loads", s.loads},
                                 {"what", words::sentence(*plan, s)},
                                 {"lamp_V", s.lamp_V},
                                 {"lamp_A", s.lamp_A},
                                 {"shorted_V", s.shorted_V},
                                 {"told_apart", s.told_apart},
                                 {"solved", s.solved}});
            out["rounds"].push_back(
                {{"battery", r.battery}, {"main", r.main}, {"run", r.run}, {"steps", steps}});
        }
        print(out);
        return 0;
    }
    for (const std::string& line : words::before_first_power(*plan)) fmt::print("{}\n", line);
    for (const PowerRound& r : rounds) {
        fmt::print("\n{}: {}\n", words::capital(name_of(*plan, r.battery)), name_of(*plan, r.run));
        int n = 0;
        for (const PowerStep& s : r.steps) fmt::print("  {:2}  {}\n", ++n, words::sentence(*plan, s));
    }
    fmt::print("\n{}\n", words::caution());
    return 0;
}

int run_symptoms(const WorkAsk& ask) {
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const auto all = symptoms(*plan, watch().cancel());
    if (!ask.json) {
        for (const Symptom& s : all)
            fmt::print("{}  ({})\n", words::sentence(*plan, s), name_of(*plan, s.tells));
        return 0;
    }
    Json out = {{"plan", plan->vehicle.name}};
    out["symptoms"] = Json::array();
    for (const Symptom& s : all) {
        Json where = Json::array();
        for (const Break& b : s.where) where.push_back({{"id", b.id}, {"what", words::name_of(*plan, b)}});
        out["symptoms"].push_back({{"dead", s.dead},
                                   {"alive", s.alive},
                                   {"states", s.states},
                                   {"what", words::sentence(*plan, s)},
                                   {"where", where}});
    }
    print(out);
    return 0;
}

int run_change(const WorkAsk& ask) {
    const auto from = load_shown(ask.plan, ask.variant), to = load_shown(ask.plan, ask.change);
    if (!from) return refuse(from.error());
    if (!to) return refuse(to.error());
    const ChangeOrder order = change_order(*from, *to);
    const auto named = [&](const ChangeLine& c) {
        return words::sentence(c.run.empty() || find(to->runs, std::string_view(c.run)) ? *to : *from, c);
    };
    if (ask.json) {
        Json out = {{"plan", from->vehicle.name}, {"minutes", order.minutes}, {"price", order.price}};
        out["lines"] = Json::array();
        for (const ChangeLine& c : order.lines)
            out["lines"].push_back({{"what", named(c)},
                                    {"run", c.run},
                                    {"part", c.part},
                                    {"quantity", c.quantity},
                                    {"price", c.price ? Json(*c.price) : Json(nullptr)},
                                    {"done", c.marks}});
        print(out);
        return 0;
    }
    if (order.lines.empty()) tell("Nothing changes.\n");
    for (const ChangeLine& c : order.lines) fmt::print("{}\n", named(c));
    if (order.minutes > 0) tell("{0} more work.\n", words::minutes_text(order.minutes));
    return 0;
}

constexpr int kMoneyDigits = 9;

int run_quote(const WorkAsk& ask) {
    if (!ask.change.empty()) return run_change(ask);
    const auto plan = load_shown(ask.plan, ask.variant);
    if (!plan) return refuse(plan.error());
    const Quote q = quote(*plan, {ask.vehicles, true, true});
    if (!ask.json && ask.orders) {
        for (const OrderList& list : order_lists(q)) {
            fmt::print("{}\n", words::sentence(list));
            print_sheet(words::order_sheet(list), kMoneyDigits);
        }
        return 0;
    }
    if (!ask.json) {
        print_sheet(words::quote_sheet(q), kMoneyDigits);
        return 0;
    }
    Json out = {{"plan", plan->vehicle.name}, {"parts", q.parts},          {"consumables", q.consumables},
                {"margin", q.margin},         {"travel", q.travel},        {"least_h", q.least_h},
                {"most_h", q.most_h},         {"least", q.least},          {"most", q.most},
                {"unpriced", q.unpriced},     {"rate_known", q.rate_known}};
    out["lines"] = Json::array();
    for (const QuoteLine& l : q.lines)
        out["lines"].push_back({{"key", l.key},
                                {"what", l.what},
                                {"quantity", l.quantity},
                                {"packs", l.packs},
                                {"pack", l.pack},
                                {"price", l.price ? Json(*l.price) : Json(nullptr)},
                                {"supplier", l.supplier},
                                {"dated", l.dated},
                                {"brought", l.brought},
                                {"bought", l.bought}});
    out["orders"] = Json::array();
    for (const OrderList& list : order_lists(q)) {
        Json keys = Json::array();
        for (const QuoteLine& l : list.lines) keys.push_back(l.key);
        out["orders"].push_back({{"supplier", list.supplier},
                                 {"price", list.price},
                                 {"unpriced", list.unpriced},
                                 {"lines", keys}});
    }
    print(out);
    return 0;
}

}  // namespace

int export_diagram(const std::string& plan_path, const std::string& variant, const std::string& out,
                   int sheet, bool force) {
    const auto plan = load_shown(plan_path, variant);
    if (!plan) return refuse(plan.error());
    const auto diagram = diagram_of(*plan, {60, watch().cancel()});
    if (!diagram) return refuse(diagram.error());
    const int sheets = static_cast<int>(diagram->sheets.size());
    if (sheet < 1 || sheet > sheets)
        return refuse({ErrorCode::out_of_range,
                       "--sheet",
                       std::to_string(sheet),
                       {Want::between, "1", std::to_string(sheets)}});
    return write_out(out, diagram_svg(*diagram, static_cast<std::size_t>(sheet - 1)), force);
}

void add_work(CLI::App& app, Action& action) {
    auto o = std::make_shared<WorkAsk>();
    const auto common = [o](CLI::App* c) {
        c->add_option("PLAN", o->plan, words::translated("plan file"))->required();
        add_variant_option(*c, o->variant);
        add_seconds_option(*c);
        c->add_flag("--json", o->json, words::translated("JSON"));
    };
    CLI::App* c = app.add_subcommand("work", words::translated("The steps of the work, in order by place"));
    common(c);
    c->callback([o, &action] { action = [o] { return run_work(*o); }; });
    c = app.add_subcommand("power", words::translated("First power: what a lamp shows, circuit by circuit"));
    common(c);
    c->add_option("--lamp", o->lamp_W, words::translated("watts of the lamp; 21 if left out"))
        ->check(CLI::Range(1, 200));
    c->callback([o, &action] { action = [o] { return run_power(*o); }; });
    c = app.add_subcommand("symptoms",
                           words::translated("What is dead when a fuse, ground, plug or cable is out"));
    common(c);
    c->callback([o, &action] { action = [o] { return run_symptoms(*o); }; });
    c = app.add_subcommand("quote",
                           words::translated("What it costs; or what a change costs from where one stands"));
    common(c);
    c->add_option("--vehicles", o->vehicles, words::translated("so many vehicles alike"))
        ->check(CLI::Range(1, 1000));
    c->add_flag("--orders", o->orders, words::translated("what is to be ordered, supplier by supplier"));
    c->add_option("--change", o->change, words::translated("the option that it shall become"));
    c->callback([o, &action] { action = [o] { return run_quote(*o); }; });
}

}  // namespace yr::cli
