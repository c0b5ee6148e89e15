#include "words/guard_words.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "words/speech.h"

namespace yr::words {

const char* name_of(Limit limit) {
    switch (limit) {
        case Limit::none:
            return translated("nothing: it is the thinnest");
        case Limit::ampacity:
            return translated("ampacity");
        case Limit::drop:
            return translated("drop");
        case Limit::fuse:
            return translated("fuse");
        case Limit::temperature:
            return translated("temperature");
        case Limit::short_circuit:
            return translated("short circuit");
        case Limit::terminals:
            return translated("terminals");
        case Limit::bend:
            return translated("bend");
        case Limit::sturdy:
            return translated("strength");
        case Limit::pair:
            return translated("its supply's copper");
        case Limit::judged:
            return translated("what the whole plan's inspection asks");
    }
    return "";
}

std::string device_kind(FuseType type) {
    switch (type) {
        case FuseType::blade:
            return translated("blade fuse");
        case FuseType::blade_large:
            return translated("large blade fuse");
        case FuseType::bolt:
            return translated("bolt-down fuse");
        case FuseType::strip:
            return translated("strip fuse");
        case FuseType::stud:
            return translated("stud fuse");
        case FuseType::high:
            return translated("high-interrupt fuse");
        case FuseType::glass:
            return translated("glass fuse");
        case FuseType::breaker_1:
            return translated("type I breaker");
        case FuseType::breaker_2:
            return translated("type II breaker");
        case FuseType::breaker_3:
            return translated("type III breaker");
    }
    return translated("fuse");
}

std::string seconds(double s, const Style& style) {
    const bool comma = style.decimal_comma;
    if (s < 1) return number(s * 1000, 2, comma) + translated("\xE2\x80\x89ms");
    if (s < 120) return number(s, 3, comma) + translated("\xE2\x80\x89s");
    if (s > 1e8) return translated("never");
    return duration_h(s / 3600);
}

std::string opens_text(const std::optional<double>& s, const Style& style) {
    return s ? seconds(*s, style) : translated("not sure to open");
}

std::string cost_text(double cost, SizingGoal goal, const Style& style) {
    if (goal == SizingGoal::mass) return number(cost, 3, style.decimal_comma) + translated("\xE2\x80\x89kg");
    if (goal == SizingGoal::money) return number(cost, 4, style.decimal_comma);
    return number(std::round(cost)) + (std::round(cost) == 1 ? translated(" size") : translated(" sizes"));
}

std::string sentence(const SizingBlocker& b, const Plan& plan, const Style& style) {
    const std::string who = capital(yr::name_of(plan, b.id));
    const State* state = find(plan.states, b.state);
    const std::string in = state ? translated(" in ") + state->name : std::string();
    if (b.unserved) return say("The supply cannot serve {0}{1}, whatever the cables.", who, in);
    if (b.limit == Limit::drop)
        return say("{0} loses {1} where {2} is allowed{3}, with every cable at its thickest.", who,
                   quantity(b.value, Dimension::voltage, style),
                   quantity(b.allowed, Dimension::voltage, style), in);
    return say("{0}: no size of the table passes; {1} stands against the thickest.", who, name_of(b.limit));
}

namespace {

// "Tipping is left out: ..."
std::string left_out_text(const SizingResult& r, const Plan& plan) {
    std::string names;
    for (const Id& id : r.left_out) names += (names.empty() ? "" : ", ") + yr::name_of(plan, id);
    if (names.empty()) return {};
    return say(" {0} left out: there the supply cannot serve its loads, whatever the cables.",
               names + (r.left_out.size() > 1 ? translated(" are") : translated(" is")));
}

std::string outcome(const SizingResult& r, const SizingAsk& ask, const Plan& plan, const Style& style) {
    const auto cost = [&](double c) { return cost_text(c, ask.goal, style); };
    const char* goal = ask.goal == SizingGoal::mass    ? translated("Least copper")
                       : ask.goal == SizingGoal::money ? translated("Least money")
                                                       : translated("Fewest sizes");
    const double before = ask.goal == SizingGoal::mass    ? r.before.mass_kg
                          : ask.goal == SizingGoal::money ? r.before.money
                                                          : r.before.sizes;
    switch (r.status) {
        case SizingStatus::least:
            return say("{0}, proved: {1}; the plan has {2} now.", goal, cost(r.cost), cost(before));
        case SizingStatus::best_found:
            return say("Best found: {0}, at most {1} above the least possible ({2}); the plan has {3} now.",
                       cost(r.cost), quantity(r.gap(), Dimension::fraction, style), cost(r.bound),
                       cost(before));
        case SizingStatus::impossible:
            return r.blockers.empty()
                       ? std::string(translated("No choice of sizes keeps every limit at once."))
                       : sentence(r.blockers.front(), plan, style);
        case SizingStatus::stopped:
            return translated("Stopped before a choice was found that keeps every limit.");
    }
    return {};
}

}  // namespace

std::string sentence(const SizingResult& r, const SizingAsk& ask, const Plan& plan, const Style& style) {
    return outcome(r, ask, plan, style) + left_out_text(r, plan);
}

std::string given_up_text(const CheckedSizing& c, const Plan& plan, const Style& style) {
    if (c.given_up.empty()) return {};
    std::string text = sentence(c.given_up.front(), plan, style);
    if (c.given_up.size() > 1)
        text +=
            " " + say_n("{0} more like it.", "{0} more like it.", static_cast<long>(c.given_up.size() - 1));
    return text + translated(" That stays as it is; the rest is sized. ");
}

std::string kept_text(const CheckedSizing& c, const Plan& plan, const Style& style) {
    if (c.kept.empty() && !c.thickened.empty() && !c.against.empty())
        return " " +
               say_n("{0} cable is thicker than its own limits ask, since thinner would bring:",
                     "{0} cables are thicker than their own limits ask, since thinner would bring:",
                     static_cast<long>(c.thickened.size())) +
               " " + sentence(c.against.front(), plan, style);
    if (c.kept.empty()) return {};
    std::string text = " " + say_n("{0} cable stays as it is, since another size would bring:",
                                   "{0} cables stay as they are, since other sizes would bring:",
                                   static_cast<long>(c.kept.size()));
    return text + " " + sentence(c.against.front(), plan, style);
}

namespace {

std::string doubt_value(const Doubt& d, double v, const Plan& plan, const Style& style) {
    switch (d.kind) {
        case DoubtKind::length:
            return quantity(v, Dimension::length, style);
        case DoubtKind::bond:
        case DoubtKind::battery_ohm:
            return quantity(v, Dimension::resistance, style);
        case DoubtKind::regulated:
            return quantity(v, Dimension::voltage, style);
        case DoubtKind::air:
            return v < 0 ? say("{0} K colder", number(-v)) : say("{0} K hotter", number(v));
        case DoubtKind::draw: {
            const Load* l = find(plan.loads, std::string_view(d.thing));
            const DrawKind kind = l ? l->draw.kind : DrawKind::power;
            return quantity(v,
                            kind == DrawKind::power     ? Dimension::power
                            : kind == DrawKind::current ? Dimension::current
                                                        : Dimension::resistance,
                            style);
        }
    }
    return number(v);
}

std::string flip_text(const DoubtFlip& f, const Plan& plan, const Style& style) {
    if (f.finding) return sentence(*f.finding, plan, style);
    if (f.size_from == f.size_to)
        return say("{0} needs a fuse of {1} instead of {2}.", yr::name_of(plan, f.run),
                   quantity(f.fuse_to_A, Dimension::current, style),
                   quantity(f.fuse_from_A, Dimension::current, style));
    return say("{0} needs {1} instead of {2}.", yr::name_of(plan, f.run), short_size(f.size_to),
               short_size(f.size_from));
}

}  // namespace

std::string sentence(const Doubt& d, const Plan& plan, const Style& style) {
    const std::string thing = d.thing.empty() ? std::string() : yr::name_of(plan, d.thing);
    const std::string assumed = doubt_value(d, d.assumed, plan, style);
    std::string text;
    switch (d.kind) {
        case DoubtKind::length:
            text = say("Measure the length of {0}, {1} assumed", thing, assumed);
            break;
        case DoubtKind::bond:
            text = say("Measure the bond of {0}, {1} assumed", thing, assumed);
            break;
        case DoubtKind::draw:
            text = say("Read the plate of {0}, {1} is typical", thing, assumed);
            break;
        case DoubtKind::battery_ohm:
            text = say("Measure {0} under two loads, {1} assumed", thing, assumed);
            break;
        case DoubtKind::regulated:
            text = say("Measure at how many volts {0} charges, {1} assumed", thing, assumed);
            break;
        case DoubtKind::air:
            text = translated("Say how hot it gets where it is used");
            break;
    }
    if (d.with) text += say(", together with {0}", yr::name_of(plan, *d.with));
    if (!d.matters()) return text + ".";
    std::string fails;
    if (d.low_fails || d.high_fails)
        fails = say("at {0} no sizes keep all limits.",
                    doubt_value(d, d.high_fails ? d.high : d.low, plan, style));
    if (d.flips.empty()) return text + ": " + fails;
    const DoubtFlip& first = d.flips.front();
    text += say(": at {0} {1}", doubt_value(d, first.high ? d.high : d.low, plan, style),
                flip_text(first, plan, style));
    if (d.flips.size() > 1)
        text += " " + say_n("{0} more flips with it.", "{0} more flip with it.",
                            static_cast<long>(d.flips.size() - 1));
    const double most = std::max(std::abs(d.low_kg), std::abs(d.high_kg));
    if (most > 0.005) text += " " + say("It may take {0} kg of copper more.", number(most, 2));
    if (!fails.empty()) text += translated(" And ") + fails;
    return text;
}

std::string sentence(const Doubts& d) {
    std::string text = d.matter.empty()
                           ? std::string(translated(
                                 "Nothing that was taken for granted changes a size, a fuse or a verdict."))
                           : say_n("Measure {0} thing before you order.",
                                   "Measure these {0} before you order.", static_cast<long>(d.matter.size()));
    if (!d.matter.empty())
        text += " " + say_n("The other {0} changes nothing.", "The other {0} change nothing.",
                            static_cast<long>(d.others));
    if (!d.whole) text += translated(" It was stopped: not all were looked at.");
    return text;
}

namespace {

std::string price_of_size(const WireSize& size, const std::optional<double>& cost, double now,
                          SizingGoal goal, Limit refused, const Style& style) {
    if (!cost)
        return refused == Limit::none
                   ? say("{0}: no choice of the other sizes keeps every limit then.", short_size(size))
               : refused == Limit::judged
                   ? say("{0}: inspecting the whole plan refuses it.", short_size(size))
                   : say("{0}: its own limits do not let it be ({1}).", short_size(size), name_of(refused));
    const double more = *cost - now;
    if (std::abs(more) < 1e-9 * std::max(1.0, now))
        return say("{0}: costs the whole plan the same.", short_size(size));
    return more > 0
               ? say("{0}: the whole plan takes {1} more.", short_size(size), cost_text(more, goal, style))
               : say("{0}: the whole plan takes {1} less.", short_size(size), cost_text(-more, goal, style));
}

}  // namespace

std::string sentence(const NextSizes& next, double now, SizingGoal goal, const Plan& plan,
                     const Style& style) {
    std::string text = yr::name_of(plan, next.run) + ".";
    if (next.thinner)
        text += " " + say("One thinner, {0}",
                          price_of_size(*next.thinner, next.thinner_cost, now, goal, next.refused, style));
    if (next.thicker)
        text += " " + say("One thicker, {0}",
                          price_of_size(*next.thicker, next.thicker_cost, now, goal, Limit::none, style));
    if (!next.whole) text += translated(" It was stopped before both were known.");
    return text;
}

std::string binds_text(const SizedRun& run, const Plan& plan) {
    std::string text = name_of(run.binds);
    if (!run.load.empty()) text += translated(" of ") + yr::name_of(plan, run.load);
    if (const State* s = find(plan.states, run.state)) text += translated(" in ") + s->name;
    return text;
}

std::string place_text(const ShortPlace& place, const Plan& plan) {
    if (!place.device.empty()) return translated("behind ") + yr::name_of(plan, place.device);
    return translated("far end of ") + plan.runs[place.run].name;
}

Severity severity_of(const ShortRow& row) {
    if (row.near.empty() || !row.clears() || row.hurts())
        return row.ohm > 0 || !row.hurts() ? Severity::check : Severity::stop;
    if (!row.near_interrupts) return row.near_A > 1.5 * row.interrupts_A ? Severity::fix : Severity::check;
    return row.first_up.empty() ? Severity::note : Severity::check;
}

std::string sentence(const ShortRow& row, const Plan& plan, const Style& style) {
    const auto A = [&](double v) { return quantity(v, Dimension::current, style); };
    std::string text = say("{0} to {1}: ", A(row.least_A), A(row.most_A));
    if (row.slowest.devices.empty() && !row.clears()) {
        text += row.near.empty() ? translated("nothing stands in its way")
                                 : yr::name_of(plan, row.near) + translated(" is not sure to open");
    } else {
        std::string names;
        for (const Id& d : row.slowest.devices)
            names += (names.empty() ? "" : translated(", then ")) + yr::name_of(plan, d);
        const bool many = row.slowest.devices.size() > 1;
        text += row.slowest.seconds
                    ? say(many ? translated("{0} open in {1} to {2}") : translated("{0} opens in {1} to {2}"),
                          names, seconds(row.fastest_s, style), seconds(*row.slowest.seconds, style))
                    : say(many ? translated("{0} may open after {1} and are not sure to")
                               : translated("{0} may open after {1} and is not sure to"),
                          names, seconds(row.fastest_s, style));
    }
    if (row.hottest) {
        const Run& hot = plan.runs[row.hottest->run];
        text += melts_at_C(hot.material) <= row.hottest->reached_C
                    ? say("; {0} melts", hot.name)
                    : say("; {0} reaches {1} of {2}", hot.name,
                          told_apart(row.hottest->reached_C, row.hottest->allowed_C, Dimension::temperature,
                                     style)
                              .first,
                          quantity(row.hottest->allowed_C, Dimension::temperature, style));
    }
    if (!row.near_interrupts) text += say("; over the {0} it cuts off", A(row.interrupts_A));
    if (!row.first_up.empty()) text += say("; {0} may open first", yr::name_of(plan, row.first_up));
    if (!row.management.empty())
        text += say("; {0} cuts itself off first", yr::name_of(plan, row.management));
    return text + ".";
}

namespace {

std::string event_text(const StartEvent& e, const Plan& plan, const Style& style) {
    const std::string who = yr::name_of(plan, e.device), when = seconds(e.t_s, style),
                      volts = quantity(e.volts, Dimension::voltage, style);
    switch (e.kind) {
        case StartEventKind::lets_go:
            return say("; {0} lets go after {1}", who, when);
        case StartEventKind::cuts_off:
            return say("; {0} cuts off at {1} after {2}", who, volts, when);
        case StartEventKind::too_low:
            return say("; {0} falls to {1} after {2}, below what it needs", who, volts, when);
    }
    return {};
}

}  // namespace

std::string sentence(const StartStudy& study, const Plan& plan, const Style& style) {
    const auto V = [&](double v) { return quantity(v, Dimension::voltage, style); };
    std::string text = say("{0} dips from {1} to {2}", capital(yr::name_of(plan, study.bus)),
                           V(study.before_V), V(study.least_bus_V));
    double least = 1e9;
    std::size_t worst = study.loads.size();
    for (std::size_t k = 0; k < study.loads.size(); ++k) {
        if (study.load_V[k].empty()) continue;
        const double low = *std::min_element(study.load_V[k].begin(), study.load_V[k].end());
        if (low < least && find(plan.loads, study.loads[k])->critical) least = low, worst = k;
    }
    if (worst < study.loads.size())
        text += say("; {0} sees {1}", yr::name_of(plan, study.loads[worst]), V(least));
    if (!study.fuses.empty() && study.fuses.front().used > 0.005)
        text += study.fuses.front().used >= 1
                    ? say("; {0} may open", yr::name_of(plan, study.fuses.front().device))
                    : say("; {0} uses {1} of what opens it", yr::name_of(plan, study.fuses.front().device),
                          quantity(study.fuses.front().used, Dimension::fraction, style));
    for (const StartEvent& e : study.events) text += event_text(e, plan, style);
    return text + (study.finished ? "." : translated("; the study broke off here."));
}

}  // namespace yr::words
