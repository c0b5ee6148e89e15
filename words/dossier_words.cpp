#include "words/dossier_words.h"

#include <algorithm>
#include <cmath>

#include "control/boxes.h"
#include "fabricate/cut_plan.h"
#include "plan/lists.h"
#include "words/accepted.h"
#include "words/build_words.h"
#include "words/format.h"
#include "words/meter_words.h"
#include "words/say.h"
#include "words/sentences.h"
#include "words/work_words.h"

namespace yr::words {
namespace {

std::string volts(double v) {
    return quantity(v, Dimension::voltage);
}
std::string amps(double v) {
    return quantity(v, Dimension::current);
}

std::string place_or(const Plan& plan, const Id& place) {
    return place.empty() ? std::string(translated("place not said")) : yr::name_of(plan, place);
}

// Where a cable begins.
Id place_at_run(const Plan& plan, const Run& run) {
    Id place;
    each_list(plan, [&](const auto& things) {
        using Thing = typename std::remove_cvref_t<decltype(things)>::value_type;
        if constexpr (requires(const Thing& t) { t.at.spot(), t.place; })
            for (const Thing& t : things)
                if (t.id == run.from.owner) place = t.place;
    });
    return place;
}

DossierSection from_sheet(Sheet sheet, std::vector<double> widths = {}) {
    DossierSection s;
    s.title = sheet.name;
    s.widths = std::move(widths);
    s.table = std::move(sheet);
    return s;
}

DossierSection job(const DossierAsk& ask) {
    const Vehicle& v = ask.plan.vehicle;
    DossierSection s;
    s.title = v.name;
    s.table.heads = {translated("the job"), ""};
    const auto row = [&](const char* what, const std::string& text) {
        if (!text.empty()) s.table.rows.push_back({std::string(what), text});
    };
    row(translated("Vehicle"), v.kind);
    row(translated("Customer"), v.customer);
    row(translated("Registration"), v.registration);
    row(translated("Date of the job"), v.job_date);
    row(translated("Volts"), quantity(v.nominal_V, Dimension::voltage));
    row(translated("Printed"), ask.date);
    row(translated("Fingerprint of the plan"), ask.fingerprint);
    s.widths = {1, 3};
    std::string all = caution();
    std::size_t at = 0;
    while (at < all.size()) {
        const std::size_t end = std::min(all.find('\n', at), all.size());
        s.after.push_back(all.substr(at, end - at));
        at = end + 1;
    }
    return s;
}

DossierSection balance(const DossierAsk& ask) {
    DossierSection s;
    s.own_page = false;
    s.title = translated("Balance by state");
    s.table.heads = {translated("state"),      translated("sources give"), translated("batteries give"),
                     translated("loads take"), translated("lowest load"),  translated("its volts")};
    s.widths = {2, 1.4, 1.8, 1.2, 2, 1};
    for (std::size_t k = 0; k < ask.solutions.size(); ++k) {
        const Solution& x = ask.solutions[k];
        if (!x.point.settled) {
            s.table.rows.push_back({ask.plan.states[k].name, no_answer(ask.plan.states[k])});
            continue;
        }
        double sources = 0, loads = 0, lowest = 1e9;
        std::string batteries, who;
        for (const SourceResult& r : x.point.sources) sources += r.current_A;
        for (std::size_t b = 0; b < x.point.batteries.size(); ++b)
            batteries += (b ? ", " : "") + amps(x.point.batteries[b].current_A);
        for (std::size_t l = 0; l < ask.plan.loads.size(); ++l) {
            const LoadResult& r = x.point.loads[l];
            if (r.status != LoadStatus::on || !ask.plan.loads[l].inverter.empty()) continue;
            loads += r.current_A;
            if (r.voltage_V < lowest) lowest = r.voltage_V, who = ask.plan.loads[l].name;
        }
        s.table.rows.push_back({ask.plan.states[k].name, amps(sources), batteries, amps(loads), who,
                                who.empty() ? std::string() : volts(lowest)});
    }
    s.after = {
        translated("Solved with Kirchhoff's laws; lengths, joints and draws as the plan says or assumes. A "
                   "battery below 0 A is charged.")};
    return s;
}

DossierSection findings_of(const DossierAsk& ask) {
    DossierSection s;
    s.title = translated("Findings");
    s.table.heads = {"", translated("finding"), translated("accepted by"), translated("because")};
    s.widths = {0.3, 5, 1.3, 2};
    for (const Finding& f : ask.findings) {
        const Accepted* a = accepted(f, ask.plan);
        if (!a && f.severity == Severity::note) continue;
        s.table.rows.push_back({std::string(mark(f.severity)), sentence(f, ask.plan),
                                a ? a->who + (a->when.empty() ? "" : ", " + a->when) : std::string(),
                                a ? a->reason : std::string()});
    }
    if (s.table.rows.empty()) s.lines = {translated("Nothing is to be told.")};
    return s;
}

DossierSection power(const Plan& plan) {
    DossierSection s;
    s.title = translated("First power");
    s.lines = before_first_power(plan);
    s.table.heads = {translated("done"), translated("step"), translated("read")};
    s.widths = {0.5, 6, 1};
    for (const PowerRound& r : first_power(plan)) {
        s.table.rows.push_back({std::string(),
                                capital(yr::name_of(plan, r.battery)) + ": " + yr::name_of(plan, r.run),
                                std::string()});
        for (const PowerStep& p : r.steps)
            s.table.rows.push_back({std::string("☐"), sentence(plan, p), std::string("........")});
    }
    return s;
}

DossierSection order(const Plan& plan) {
    const WorkOrder o = work_order(plan);
    DossierSection s;
    s.title = translated("Order of work");
    s.lines = {sentence(o),
               translated("Minutes and torques are typical and marked so; the maker's value comes first.")};
    s.table.heads = {"", translated("step"), translated("min"), translated("fastening and caution")};
    s.widths = {0.4, 4, 0.6, 5};
    std::string at;
    for (const WorkStep& w : o.steps) {
        if (const std::string here = where(plan, w); here != at)
            s.table.rows.push_back({std::string(), at = here, std::string(), std::string()});
        std::string more;
        for (const Fixing& f : w.fixings) more += (more.empty() ? "" : "; ") + fixing(plan, f);
        for (const WorkCaution c : w.cautions) more += (more.empty() ? "" : " ") + work_caution(c);
        if (const std::string r = remark(plan, w); !r.empty()) more += (more.empty() ? "" : " ") + r;
        s.table.rows.push_back(
            {std::string(w.done() ? "☑" : "☐"), sentence(plan, w), std::round(w.minutes), more});
    }
    return s;
}

DossierSection hand_over(const DossierAsk& ask) {
    DossierSection s;
    s.title = translated("Hand-over");
    s.lines = {translated("Seen and explained together at the vehicle:")};
    s.table.heads = {"", translated("what"), translated("remark")};
    s.widths = {0.3, 4, 3};
    for (const char* what :
         {translated("Where the master is and what it leaves alive"),
          translated("Where the main fuses are, and spares"), translated("What each switch does"),
          translated("At how many volts to stop, and what to do then"),
          translated("Jump posts; towing and storage; before welding"),
          translated("Driver's page and symptom card in the glove box"),
          translated("Readings taken and within their bands")})
        s.table.rows.push_back(
            {std::string("☐"), std::string(what), std::string("................................")});
    s.after = {
        say("Plan {0}, fingerprint {1}.", ask.plan.vehicle.name, ask.fingerprint),
        translated("Built by, date, signature: ........................................................"),
        translated("Second pair of eyes, date, signature: ............................................"),
        translated("Handed over to, date, signature: .................................................")};
    return s;
}

}  // namespace

DossierSection fuse_map(const Plan& plan, const Point& box) {
    DossierSection s;
    s.title = say("{0}: what is behind which fuse", capital(box.name));
    s.table.heads = {translated("channel"), translated("fuse"), translated("what"), translated("when")};
    s.widths = {0.7, 0.8, 3, 3};
    for (const ChannelUse& u : channel_uses(plan, box)) {
        std::string fuse;
        if (u.run)
            for (const Device& d : u.run->devices)
                if (d.kind == DeviceKind::fuse) fuse = amps(d.rating_A);
        s.table.rows.push_back({std::to_string(u.channel->number), fuse,
                                u.at.empty() ? std::string(translated("free")) : yr::name_of(plan, u.at),
                                u.load ? condition(u.load->live_when, &plan) : std::string()});
    }
    return s;
}

DossierSection drivers_page(const Plan& plan) {
    DossierSection s;
    s.title = translated("For the driver");
    s.table.heads = {translated("switch"), translated("what it works")};
    s.widths = {1, 4};
    for (const std::string& name : plan_switches(plan)) {
        std::string label = name, does;
        for (const PanelSwitch& p : plan.panel)
            if (p.name == name && !p.label.empty()) label = p.label;
        for (const Load& l : plan.loads) {
            const auto on = switches_of(l.live_when);
            if (std::find(on.begin(), on.end(), name) != on.end())
                does += (does.empty() ? "" : ", ") + l.name;
        }
        for (const Run& r : plan.runs)
            for (const Device& d : r.devices) {
                const auto on = switches_of(d.closed_when);
                if (d.master && std::find(on.begin(), on.end(), name) != on.end())
                    does += (does.empty() ? "" : "; ") +
                            say("the master: makes everything behind {0} dead", r.name);
            }
        s.table.rows.push_back({capital(label), does});
    }
    for (const Battery& b : plan.batteries) {
        std::string text = say("{0}: {1}", capital(b.name), place_or(plan, b.place));
        if (!b.remarks.caution.empty()) text += ". " + b.remarks.caution;
        s.after.push_back(text);
    }
    for (const Run& r : plan.runs)
        for (const Device& d : r.devices)
            if (d.master)
                s.after.push_back(say("Master: {0}, in {1}.", d.name.empty() ? r.name : d.name,
                                      place_or(plan, place_at_run(plan, r))));
    s.after.emplace_back(
        translated("Jump start: plus to the starter battery's plus, minus to bare engine metal, never to a "
                   "lithium battery."));
    s.after.emplace_back(
        translated("Stored for weeks: master off, lithium batteries at half charge, lead batteries full."));
    s.after.emplace_back(translated("Towed with wheels down: key and master as the vehicle's book says."));
    s.after.emplace_back(
        translated("Before welding: master off, negatives off all batteries, control units unplugged."));
    s.after.emplace_back(
        translated("A fuse that blows twice is not replaced by a larger one: call who built it."));
    return s;
}

DossierSection symptom_card(const Plan& plan) {
    DossierSection s;
    s.title = translated("When something is dead");
    s.table.heads = {translated("what is dead, and where to look"), translated("shows in")};
    s.widths = {5, 1.2};
    for (const Symptom& x : symptoms(plan))
        s.table.rows.push_back({sentence(plan, x), yr::name_of(plan, x.tells)});
    s.after = {translated("Solved with each fuse, ground, plug and cable out, one at a time.")};
    return s;
}

std::vector<DossierSection> dossier(const DossierAsk& ask) {
    const Plan& plan = ask.plan;
    std::vector<DossierSection> all{job(ask), balance(ask)};
    all.push_back(from_sheet(wires_sheet(plan, wire_table(plan)),
                             {0.7, 1.8, 1.7, 1.7, 0.9, 0.7, 0.8, 0.6, 2, 2, 1.6, 0.7}));
    all.push_back(from_sheet(parts_sheet(plan, parts_of(plan)), {1, 2, 0.8, 0.6, 0.7, 4, 0.8}));
    all.push_back(from_sheet(cuts_sheet(plan, cut_plan(plan))));
    for (const Point& p : plan.points)
        if (!p.channels.empty()) all.push_back(fuse_map(plan, p));
    all.push_back(findings_of(ask));
    all.push_back(order(plan));
    all.push_back(power(plan));
    all.push_back(from_sheet(test_sheet(plan, test_points(plan)), {0.6, 2.6, 4, 1.4, 1}));
    if (!ask.records.empty()) all.push_back(from_sheet(record_sheet(plan, ask.records)));
    all.push_back(drivers_page(plan));
    all.push_back(symptom_card(plan));
    all.push_back(hand_over(ask));
    return all;
}

}  // namespace yr::words
