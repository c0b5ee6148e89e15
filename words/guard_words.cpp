#include "words/guard_words.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"

namespace yr::words {
namespace {

struct Speech {
    const Finding& f;
    const Plan& plan;
    const Style& style;
    [[nodiscard]] std::string who() const { return capital(yr::name_of(plan, f.id)); }
    [[nodiscard]] std::string other() const { return yr::name_of(plan, f.other); }
    [[nodiscard]] std::string Other() const { return capital(other()); }
    [[nodiscard]] std::string state() const {
        const State* s = find(plan.states, f.state);
        return s ? s->name : std::string("any state");
    }
    [[nodiscard]] std::string A(double v) const { return quantity(v, Dimension::current, style); }
    [[nodiscard]] std::string V(double v) const { return quantity(v, Dimension::voltage, style); }
    [[nodiscard]] std::string C(double v) const { return quantity(v, Dimension::temperature, style); }
    [[nodiscard]] std::string mm2(double v) const { return quantity(v, Dimension::area, style); }
    [[nodiscard]] std::string pc(double v) const { return quantity(v, Dimension::fraction, style); }
    [[nodiscard]] std::string kind() const {
        const Device* d = find_device(plan, f.other);
        return d ? device_kind(d->fuse) : std::string("fuse");
    }
};

std::string mm(double v) {
    return number(v) + "\xE2\x80\x89mm";
}

std::string bolt(double v) {
    return "M" + number(v);
}

std::string short_sentence(const Speech& s) {
    const Finding& f = s.f;
    switch (f.kind) {
        case FindingKind::short_stays:
            return fmt::format(
                "A short at the far end of {} draws only {}: {} is not sure to open within the hour.",
                yr::name_of(s.plan, f.id), s.A(f.value), s.other());
        case FindingKind::short_hurts:
            return fmt::format("{} reaches {} in a short before {} is sure to open; it bears {}.", s.who(),
                               s.C(f.value), s.other(), s.C(f.limit));
        case FindingKind::short_upstream:
            return fmt::format(
                "A short of {} may open {} first, after {}: its own is sure to open only after {}.",
                yr::name_of(s.plan, f.id), s.other(), seconds(f.value, s.style),
                f.limit > 1e8 ? std::string("a day, if ever") : seconds(f.limit, s.style));
        case FindingKind::interrupt_short:
            return fmt::format("Behind {} a short is {}; a {} cuts off {} at most.", s.other(), s.A(f.value),
                               s.kind(), s.A(f.limit));
        case FindingKind::breaker_recloses:
            return fmt::format("{} closes by itself on to a short of {}, again and again.", s.Other(),
                               s.A(f.value));
        case FindingKind::management_first:
            return fmt::format(
                "In a short {} would give {}; its own management opens first, at {}: then all it feeds is "
                "dark.",
                yr::name_of(s.plan, f.id), s.A(f.value), s.A(f.limit));
        default:
            return {};
    }
}

std::string fuse_sentence(const Speech& s) {
    const Finding& f = s.f;
    switch (f.kind) {
        case FindingKind::start_opens_fuse:
            return fmt::format("{} may open at the start: {} where it holds {} for so long.", s.Other(),
                               s.A(f.value), s.A(f.limit));
        case FindingKind::fuse_loaded: {
            const Device* d = find_device(s.plan, f.other);
            return fmt::format("{} carries {} in {}, {} of its rating; for ever it bears {}.", s.Other(),
                               s.A(f.value), s.state(), s.pc(d ? f.value / d->rating_A : 0), s.A(f.limit));
        }
        case FindingKind::fuse_kind_hot:
            return fmt::format(
                "{} is a small glass cylinder: such a one overheats in steady use. It carries {}.", s.Other(),
                s.A(f.value));
        default:
            return {};
    }
}

std::string cable_sentence(const Speech& s) {
    const Finding& f = s.f;
    switch (f.kind) {
        case FindingKind::parallel_shares:
            return fmt::format("{} takes {} of what it shares with {}: they do not share equally.", s.who(),
                               s.pc(f.value), s.other());
        case FindingKind::parallel_left:
            return fmt::format("{} would carry {} if one beside it came off; it may carry {}.",
                               f.other == f.id ? "What is left of " + yr::name_of(s.plan, f.id) : s.who(),
                               s.A(f.value), s.A(f.limit));
        case FindingKind::aluminium_core:
            return fmt::format("{} is copper-clad aluminium: {} times the resistance of copper of that size.",
                               s.who(), number(f.value, 3, s.style.decimal_comma));
        case FindingKind::lug_misfit:
            if (f.value < f.limit)
                return fmt::format("{}: its {} lug does not go over the {} bolt of {}.", s.who(),
                                   bolt(f.value), bolt(f.limit), s.other());
            return fmt::format(
                "{}: its {} lug lies loose on the {} bolt of {}, with little metal under the nut.", s.who(),
                bolt(f.value), bolt(f.limit), s.other());
        case FindingKind::terminal_small:
            if (f.limit <= 0)
                return fmt::format("{}: no lug for {} is made for the bolt of {}.", s.who(), s.mm2(f.value),
                                   s.other());
            return fmt::format("{}: {} does not go into {}, which takes {}.", s.who(), s.mm2(f.value),
                               s.other(), s.mm2(f.limit));
        case FindingKind::bend_tight:
            return fmt::format("{} is bent to {}; this cable wants {} at least.", s.who(), mm(f.value),
                               mm(f.limit));
        case FindingKind::joint_drop:
            return fmt::format("A joint of {} loses {} in {}; a good one stays below {}.",
                               yr::name_of(s.plan, f.id), s.V(f.value), s.state(), s.V(f.limit));
        case FindingKind::cable_drop:
            return fmt::format("{} alone loses {} in {}; a main cable stays below {}.", s.who(), s.V(f.value),
                               s.state(), s.V(f.limit));
        case FindingKind::starter_drop:
            return fmt::format("The starter circuit loses {} while cranking, most in {}; {} is usual.",
                               s.V(f.value), yr::name_of(s.plan, f.id), s.V(f.limit));
        case FindingKind::strap_thin:
            return fmt::format("{} ({}) takes back what {} ({}) brings: the thick side gains nothing.",
                               s.who(), s.mm2(f.value), s.other(), s.mm2(f.limit));
        case FindingKind::range_over:
            return fmt::format("{} may lose up to {} within the plan's ranges, in {}; {} is allowed.",
                               s.who(), s.V(f.value), s.state(), s.V(f.limit));
        case FindingKind::duty_hot:
            return fmt::format("{} reaches {} at the end of a turn of {}, over the {} of its insulation.",
                               s.who(), s.C(f.value), s.other(), s.C(f.limit));
        default:
            return {};
    }
}

const char* kShortRule = "circuit theory; opening by ISO 8820 bands (from memory)";

}  // namespace

std::string guard_sentence(const Finding& f, const Plan& plan, const Style& style) {
    const Speech s{f, plan, style};
    for (const auto& text : {short_sentence(s), fuse_sentence(s), cable_sentence(s)})
        if (!text.empty()) return text;
    return {};
}

Rule guard_rule(const Finding& f, const Plan& plan) {
    switch (f.kind) {
        case FindingKind::short_stays:
        case FindingKind::short_upstream:
            return {"short", kShortRule};
        case FindingKind::short_hurts:
            return {"short heat",
                    "IEC 60364-5-54: 160 C after a short up to 105 C insulations (from memory)"};
        case FindingKind::interrupt_short:
            return {"interrupting", "interrupting capacity by kind of fuse, common practice"};
        case FindingKind::breaker_recloses:
            return {"SAE J553", "SAE J553: type I closes again by itself (from memory)"};
        case FindingKind::management_first:
            return {"management", "the battery's own limit, as the plan states it"};
        case FindingKind::start_opens_fuse:
            return {"inrush", "opening by ISO 8820 bands, earliest (from memory)"};
        case FindingKind::fuse_loaded:
        case FindingKind::fuse_kind_hot: {
            const Device* d = find_device(plan, f.other);
            const double share = d ? fuse_kind(d->fuse).continuous_share : 0.8;
            return {number(share * 100) + " % rule", "continuous load against rating, common practice"};
        }
        case FindingKind::parallel_shares:
        case FindingKind::parallel_left:
            return {"side by side", "Kirchhoff's laws; n \xE2\x88\x92 1 looked at, common practice"};
        case FindingKind::aluminium_core:
            return {"material", "62 % IACS for copper-clad aluminium, common practice"};
        case FindingKind::lug_misfit:
        case FindingKind::terminal_small:
            return {"lug", "lugs after DIN 46234 and 46235 (from memory)"};
        case FindingKind::bend_tight:
            return {"bend", assumption("bend_diameters").source};
        case FindingKind::joint_drop:
            return {"service limit", assumption("joint_service_V").source};
        case FindingKind::cable_drop:
            return {"service limit", assumption("cable_service_V").source};
        case FindingKind::starter_drop:
            return {"service limit", assumption("starter_service_V").source};
        case FindingKind::strap_thin:
            return {"return", "common practice, no source"};
        case FindingKind::range_over:
            return {"ranges", "worst corner of the stated ranges; drop limit as for the plan itself"};
        case FindingKind::duty_hot:
            return {"heat in time",
                    "heat balance in time, IEC 60853-2 for the insulation's share (from memory)"};
        default:
            return {};
    }
}

std::vector<std::string> guard_reasons(const Finding& f, const Plan& plan, const Style& style) {
    const Speech s{f, plan, style};
    switch (f.kind) {
        case FindingKind::short_stays:
            return {fmt::format("Short current = open volts / (battery + cables + joints + fuses), weakest: "
                                "battery aged to "
                                "{} times its resistance, copper at its insulation's limit, other loads on.",
                                number(assumption("short_aged_R0").value)),
                    fmt::format(
                        "{} in {}. A fuse promises to open from 135 % of its rating; below that it may carry "
                        "the current for ever.",
                        s.A(f.value), s.state())};
        case FindingKind::short_hurts:
            return {
                "The conductor's heat in time: I\xC2\xB2R into copper and insulation, less what leaves, from "
                "its "
                "working temperature until the latest opening of the fuse's band."};
        case FindingKind::short_upstream:
            return {fmt::format(
                "Earliest opening further up {}, latest opening of the near one {}: they overlap.",
                seconds(f.value, style), f.limit > 1e8 ? "not promised" : seconds(f.limit, style))};
        case FindingKind::interrupt_short:
            return {"Short current strongest: new, warm, full battery, cold copper, no other load."};
        case FindingKind::fuse_loaded:
            return {fmt::format("{} / {} = {}", s.A(f.value), s.A(f.limit),
                                number(f.limit > 0 ? f.value / f.limit : 0))};
        case FindingKind::start_opens_fuse:
            return {
                "The start falls from its peak to the running current as an exponential; each instant uses "
                "dt / "
                "earliest opening time at that current; 1 in all opens it."};
        case FindingKind::duty_hot:
            return {"The cable is followed turn by turn until turns repeat; no root-mean-square shortcut."};
        default:
            return {};
    }
}

const char* name_of(Limit limit) {
    switch (limit) {
        case Limit::none:
            return "nothing: it is the thinnest";
        case Limit::ampacity:
            return "ampacity";
        case Limit::drop:
            return "drop";
        case Limit::fuse:
            return "fuse";
        case Limit::temperature:
            return "temperature";
        case Limit::short_circuit:
            return "short circuit";
        case Limit::terminals:
            return "terminals";
        case Limit::bend:
            return "bend";
        case Limit::sturdy:
            return "strength";
        case Limit::pair:
            return "its supply's copper";
    }
    return "";
}

std::string device_kind(FuseType type) {
    switch (type) {
        case FuseType::blade:
            return "blade fuse";
        case FuseType::blade_large:
            return "large blade fuse";
        case FuseType::bolt:
            return "bolt-down fuse";
        case FuseType::strip:
            return "strip fuse";
        case FuseType::stud:
            return "stud fuse";
        case FuseType::high:
            return "high-interrupt fuse";
        case FuseType::glass:
            return "glass fuse";
        case FuseType::breaker_1:
            return "type I breaker";
        case FuseType::breaker_2:
            return "type II breaker";
        case FuseType::breaker_3:
            return "type III breaker";
    }
    return "fuse";
}

std::string seconds(double s, const Style& style) {
    const bool comma = style.decimal_comma;
    if (s < 1) return number(s * 1000, 2, comma) + "\xE2\x80\x89ms";
    if (s < 120) return number(s, 3, comma) + "\xE2\x80\x89s";
    if (s > 1e8) return "never";
    return duration_h(s / 3600);
}

std::string opens_text(const std::optional<double>& s, const Style& style) {
    return s ? seconds(*s, style) : "not sure to open";
}

std::string cost_text(double cost, SizingGoal goal, const Style& style) {
    if (goal == SizingGoal::mass) return number(cost, 3, style.decimal_comma) + "\xE2\x80\x89kg";
    if (goal == SizingGoal::money) return number(cost, 4, style.decimal_comma);
    return number(std::round(cost)) + (std::round(cost) == 1 ? " size" : " sizes");
}

std::string sentence(const SizingBlocker& b, const Plan& plan, const Style& style) {
    const std::string who = capital(yr::name_of(plan, b.id));
    const State* state = find(plan.states, b.state);
    const std::string in = state ? " in " + state->name : std::string();
    if (b.limit == Limit::drop)
        return fmt::format("{} loses {} where {} is allowed{}, with every cable at its thickest.", who,
                           quantity(b.value, Dimension::voltage, style),
                           quantity(b.allowed, Dimension::voltage, style), in);
    return fmt::format("{}: no size of the table passes; {} stands against the thickest.", who,
                       name_of(b.limit));
}

std::string sentence(const SizingResult& r, const SizingAsk& ask, const Plan& plan, const Style& style) {
    const auto cost = [&](double c) { return cost_text(c, ask.goal, style); };
    const char* goal = ask.goal == SizingGoal::mass    ? "Least copper"
                       : ask.goal == SizingGoal::money ? "Least money"
                                                       : "Fewest sizes";
    const double before = ask.goal == SizingGoal::mass    ? r.before.mass_kg
                          : ask.goal == SizingGoal::money ? r.before.money
                                                          : r.before.sizes;
    switch (r.status) {
        case SizingStatus::least:
            return fmt::format("{}, proved: {}; the plan has {} now.", goal, cost(r.cost), cost(before));
        case SizingStatus::best_found:
            return fmt::format(
                "Best found: {}, at most {} above the least possible ({}); the plan has {} now.",
                cost(r.cost), quantity(r.gap(), Dimension::fraction, style), cost(r.bound), cost(before));
        case SizingStatus::impossible:
            return r.blockers.empty() ? std::string("No choice of sizes keeps every limit at once.")
                                      : sentence(r.blockers.front(), plan, style);
        case SizingStatus::stopped:
            return "Stopped before a choice was found that keeps every limit.";
    }
    return {};
}

std::string binds_text(const SizedRun& run, const Plan& plan) {
    std::string text = name_of(run.binds);
    if (!run.load.empty()) text += " of " + yr::name_of(plan, run.load);
    if (const State* s = find(plan.states, run.state)) text += " in " + s->name;
    return text;
}

std::string place_text(const ShortPlace& place, const Plan& plan) {
    if (!place.device.empty()) return "behind " + yr::name_of(plan, place.device);
    return "far end of " + plan.runs[place.run].name;
}

Severity severity_of(const ShortRow& row) {
    if (row.near.empty() || !row.clears() || row.hurts())
        return row.ohm > 0 || !row.hurts() ? Severity::check : Severity::stop;
    if (!row.near_interrupts) return row.near_A > 1.5 * row.interrupts_A ? Severity::fix : Severity::check;
    return row.first_up.empty() ? Severity::note : Severity::check;
}

std::string sentence(const ShortRow& row, const FaultStudy& study, const Plan& plan, const Style& style) {
    const auto A = [&](double v) { return quantity(v, Dimension::current, style); };
    std::string text = fmt::format("{} to {}: ", A(row.least_A), A(row.most_A));
    if (row.slowest.devices.empty() && !row.clears()) {
        text += row.near.empty() ? "nothing stands in its way"
                                 : yr::name_of(plan, row.near) + " is not sure to open";
    } else {
        std::string names;
        for (const Id& d : row.slowest.devices)
            names += (names.empty() ? "" : ", then ") + yr::name_of(plan, d);
        text += fmt::format("{} {} {} to {}", names, row.slowest.devices.size() > 1 ? "open in" : "opens in",
                            seconds(row.fastest_s, style), opens_text(row.slowest.seconds, style));
    }
    if (row.hottest)
        text += fmt::format("; {} reaches {} of {}", plan.runs[row.hottest->run].name,
                            quantity(row.hottest->reached_C, Dimension::temperature, style),
                            quantity(row.hottest->allowed_C, Dimension::temperature, style));
    if (!row.near_interrupts) text += fmt::format("; over the {} it cuts off", A(row.interrupts_A));
    if (!row.first_up.empty()) text += fmt::format("; {} may open first", yr::name_of(plan, row.first_up));
    if (!row.management.empty())
        text += fmt::format("; {} cuts itself off first", yr::name_of(plan, row.management));
    (void)study;
    return text + ".";
}

std::string sentence(const StartStudy& study, const Plan& plan, const Style& style) {
    const auto V = [&](double v) { return quantity(v, Dimension::voltage, style); };
    std::string text = fmt::format("The bus dips from {} to {}", V(study.before_V), V(study.least_bus_V));
    double least = 1e9;
    std::size_t worst = study.loads.size();
    for (std::size_t k = 0; k < study.loads.size(); ++k) {
        if (study.load_V[k].empty()) continue;
        const double low = *std::min_element(study.load_V[k].begin(), study.load_V[k].end());
        if (low < least && find(plan.loads, study.loads[k])->critical) least = low, worst = k;
    }
    if (worst < study.loads.size())
        text += fmt::format("; {} sees {}", yr::name_of(plan, study.loads[worst]), V(least));
    if (!study.fuses.empty() && study.fuses.front().used > 0.005)
        text +=
            study.fuses.front().used >= 1
                ? fmt::format("; {} may open", yr::name_of(plan, study.fuses.front().device))
                : fmt::format("; {} uses {} of what opens it", yr::name_of(plan, study.fuses.front().device),
                              quantity(study.fuses.front().used, Dimension::fraction, style));
    for (const StartEvent& e : study.events)
        text += fmt::format("; {} lets go after {}", yr::name_of(plan, e.device), seconds(e.t_s, style));
    return text + (study.finished ? "." : "; the study broke off here.");
}

}  // namespace yr::words
