#include "words/statement_words.h"

#include <algorithm>

#include "plan/plan_fields.h"
#include "plan/rail_volts.h"
#include "words/build_words.h"
#include "words/control_words.h"
#include "words/meter_words.h"
#include "words/sentences.h"
#include "words/work_words.h"

namespace yr::words {
namespace {

// The numbers of a thing that have a row in its form.
struct Describer {
    static constexpr bool every_field = false;
    std::vector<std::string>& parts;
    const Style& style;
    void operator()(const Field& field, const std::optional<double>& value) const {
        if (!value || !*field.label) return;
        std::string label = translated(field.label);
        if (!label.empty() && label[0] >= 'A' && label[0] <= 'Z' &&
            !(label.size() > 1 && label[1] >= 'A' && label[1] <= 'Z'))
            label[0] = static_cast<char>(label[0] - 'A' + 'a');
        parts.push_back(label + " " + quantity(*value, field.dimension, style));
    }
    template <class T>
    void operator()(const Field&, const T&) const {}
};

std::string cable_text(const Run& run, const Style& style) {
    std::string text = run.name;
    if (run.body_metal) return text;
    if (run.size) text += " " + short_size(*run.size);
    if (run.length_m) text += " " + quantity(*run.length_m, Dimension::length, style);
    for (const Device& d : run.devices)
        text +=
            d.kind == DeviceKind::fuse
                ? (is_breaker(d.fuse) ? say(", breaker {0}", quantity(d.rating_A, Dimension::current, style))
                                      : say(", fuse {0}", quantity(d.rating_A, Dimension::current, style)))
                : ", " + d.name;
    return text;
}

class StatementTeller {
  public:
    StatementTeller(const Plan& before, const Plan& after, const Id& about, const Style& style)
        : before_(before), after_(after), about_(about), style_(style) {}

    std::vector<std::string> parts() {
        each_list(after_, [&](const auto& things) {
            for (const auto& x : things)
                if (x.id == about_) tell(x);
        });
        for (const Run& r : after_.runs) {
            const Run* known = find(before_.runs, r.id);
            if (r.id != about_ && (!known || !(*known == r))) parts_.push_back(cable_text(r, style_));
        }
        return std::move(parts_);
    }

  private:
    template <class T>
    void tell(const T& x) {
        parts_.push_back(x.name);
        fields(Describer{parts_, style_}, x);
        more(x);
        if constexpr (requires { x.place; })
            if (!x.place.empty()) parts_.push_back(yr::name_of(after_, x.place));
    }
    template <class T>
    void more(const T&) {}
    void more(const Battery& b) {
        if (b.nominal_V) parts_.push_back(quantity(*b.nominal_V, Dimension::voltage, style_));
        parts_.push_back(b.chemistry == Chemistry::flooded ? translated("flooded lead")
                         : b.chemistry == Chemistry::agm   ? translated("AGM lead")
                         : b.chemistry == Chemistry::gel   ? translated("gel lead")
                                                           : translated("LiFePO4"));
    }
    void more(const Point& p) {
        if (!p.channels.empty())
            parts_.push_back(say_n("{0} channel", "{0} channels", static_cast<long>(p.channels.size())));
        if (!p.bonded_to.empty()) parts_.push_back(say("on {0}", yr::name_of(after_, p.bonded_to)));
    }
    void more(const Run& r) { parts_.push_back(cable_text(r, style_).substr(r.name.size())); }
    void more(const State& s) {
        parts_.push_back(s.key == Key::off         ? translated("key off")
                         : s.key == Key::accessory ? translated("key at accessory")
                         : s.key == Key::crank     ? translated("cranking")
                                                   : translated("key at ignition"));
        if (s.rpm > 0) parts_.push_back(quantity(s.rpm, Dimension::speed, style_));
        parts_.push_back(quantity(s.ambient_C, Dimension::temperature, style_));
        for (const std::string& name : s.switches) parts_.push_back(name + translated(" on"));
    }
    void more(const Day& d) {
        for (const DayPart& part : d.parts) {
            std::string text = part.times > 1 ? std::to_string(part.times) + " × " : std::string();
            text += yr::name_of(after_, part.state) + " " + duration_h(part.length_s / 3600);
            parts_.push_back(part.within ? text + translated(" within") : text);
        }
    }
    void more(const Inverter& i) {
        if (i.waveform == Waveform::modified) parts_.push_back(translated("modified sine"));
    }
    const Plan &before_, &after_;
    const Id& about_;
    const Style& style_;
    std::vector<std::string> parts_;
};

}  // namespace

std::string name_of(StatementKind kind) {
    using K = StatementKind;
    switch (kind) {
        case K::nothing:
            return {};
        case K::vehicle:
            return translated("vehicle");
        case K::place:
            return translated("place");
        case K::battery:
            return translated("battery");
        case K::alternator:
            return translated("alternator");
        case K::stator:
            return translated("stator");
        case K::starter:
            return translated("starter");
        case K::winch:
            return translated("winch");
        case K::converter:
            return translated("converter");
        case K::charger:
            return translated("charger");
        case K::solar:
            return translated("solar panel");
        case K::inverter:
            return translated("inverter");
        case K::box:
            return translated("control box");
        case K::bus:
            return translated("bus bar");
        case K::stud:
            return translated("stud");
        case K::ground:
            return translated("ground point");
        case K::chassis:
            return translated("part of the chassis");
        case K::strap:
            return translated("strap");
        case K::cable:
            return translated("cable");
        case K::master:
            return translated("master disconnect");
        case K::relay:
            return translated("relay");
        case K::connector:
            return translated("connector");
        case K::jacket:
            return translated("cable of several cores");
        case K::state:
            return translated("state");
        case K::day:
            return translated("day");
        case K::stand:
            return translated("where it stands");
        case K::waypoint:
            return translated("waypoint");
        case K::way:
            return translated("way");
        case K::outline:
            return translated("outline");
        case K::joiner:
            return translated("what joins two batteries");
        case K::shop:
            return translated("shop");
        case K::end:
            return translated("end of a cable");
        case K::reading:
            return translated("reading");
        case K::load:
            return translated("load");
        case K::change:
            return translated("change");
        case K::set:
            return translated("set");
        case K::remove:
            return translated("take out");
        case K::block:
            return translated("set of lines");
    }
    return {};
}

namespace {

// What is asked for and done otherwise now.
std::vector<std::string> policy_changes(const Policy& before, const Policy& after) {
    std::vector<std::string> parts;
    for (const Price& p : after.prices) {
        if (std::find(before.prices.begin(), before.prices.end(), p) != before.prices.end()) continue;
        parts.push_back(p.each ? say("{0}: {1} each", p.part, number(*p.each, 9)) : p.part);
        if (p.pack != 1) parts.push_back(say("sold by {0}", number(p.pack)));
        if (!p.supplier.empty()) parts.push_back(say("from {0}", p.supplier));
        if (!p.dated.empty()) parts.push_back(p.dated);
        if (p.brought) parts.push_back(translated("the customer brings it"));
    }
    if (after.rate_h && after.rate_h != before.rate_h)
        parts.push_back(say("{0} an hour", number(*after.rate_h, 9)));
    for (const TaskTime& t : after.tasks)
        if (std::find(before.tasks.begin(), before.tasks.end(), t) == before.tasks.end())
            parts.push_back(say("{0}: {1} min", task_name(t.task), number(t.minutes)));
    for (const FaultWeight& w : after.faults)
        if (std::find(before.faults.begin(), before.faults.end(), w) == before.faults.end())
            if (const auto kind = fault_kind_named(w.fault))
                parts.push_back(say("{0}: {1} times as likely as one of weight 1", fault_kind_text(*kind),
                                    number(w.weight)));
    for (const Torque& t : after.torques)
        if (std::find(before.torques.begin(), before.torques.end(), t) == before.torques.end())
            parts.push_back(say("M{0}: {1} Nm", number(t.thread_mm), number(t.torque_Nm)));
    return parts;
}

// The battery that a new load hangs on by a cable of its own.
const Battery* own_battery(const Plan& plan, const Statement& s) {
    const auto* edits = s.edit ? std::get_if<Batch>(&*s.edit) : nullptr;
    if (!edits) return nullptr;
    for (const Edit& e : edits->edits)
        if (const auto* put = std::get_if<Put<Run>>(&e); put && put->thing.to == pos_of(s.about))
            return find(plan.batteries, put->thing.from.owner);
    return nullptr;
}

}  // namespace

std::vector<std::string> laid_beside(const Plan& plan, const Statement& s) {
    std::vector<std::string> parts;
    if (const Battery* from = s.kind == StatementKind::load ? own_battery(plan, s) : nullptr)
        parts.push_back(say("by its own cable from {0}", from->name));
    if (!s.block.empty())
        parts.push_back(std::any_of(plan.points.begin(), plan.points.end(),
                                    [&](const Point& p) {
                                        return p.feeds_loads && suits_plain_loads(plan, Terminal(p.id));
                                    })
                            ? translated("with another block beside the battery: the one before is full")
                            : translated("with a main block beside the battery: nothing feeds loads yet"));
    return parts;
}

std::vector<std::string> comes_with(const Statement& s) {
    std::vector<std::string> parts;
    for (const std::string& name : s.new_places) parts.push_back(say("new place {0}", name));
    for (const std::string& name : s.new_switches) parts.push_back(say("new switch {0}", name));
    if (!s.note.empty()) parts.push_back(say("note “{0}”", s.note));
    return parts;
}

std::vector<std::string> understood(const Plan& plan, const Statement& s, const Style& style) {
    std::vector<std::string> parts;
    if (s.kind == StatementKind::nothing) return parts;
    parts.push_back(name_of(s.kind));
    if (s.kind == StatementKind::load) return parts;
    if (s.kind == StatementKind::remove) {
        if (!s.about.empty()) parts.push_back(yr::name_of(plan, s.about));
        return parts;
    }
    if (s.kind == StatementKind::block)
        for (const std::string& line : s.lines) parts.push_back(line);
    if (!s.edit || s.kind == StatementKind::block) return parts;
    Plan after = plan;
    if (!yr::apply(after, *s.edit)) return parts;
    if (s.kind == StatementKind::shop)
        for (std::string& part : policy_changes(plan.policy, after.policy)) parts.push_back(std::move(part));
    if (const Run* run =
            s.kind == StatementKind::end ? find(after.runs, std::string_view(s.about)) : nullptr) {
        for (const bool from : {true, false})
            parts.push_back(say("{0}: {1}", terminal(after, from ? run->from : run->to),
                                end_text(end_of(after, *run, from))));
        return parts;
    }
    for (std::string& part : StatementTeller(plan, after, s.about, style).parts())
        parts.push_back(std::move(part));
    for (std::string& part : laid_beside(plan, s)) parts.push_back(std::move(part));
    for (std::string& part : comes_with(s)) parts.push_back(std::move(part));
    return parts;
}

std::string sentence(const NextStep& step, const Plan& plan) {
    const std::string name = yr::name_of(plan, step.about);
    switch (step.kind) {
        case NextKind::battery_unknown:
            return say("Nothing is known of {0}: type it, such as {1}.", name, step.line);
        case NextKind::nothing_charges:
            return say("Nothing charges {0}: type an alternator or a charger, such as {1}.", name, step.line);
        case NextKind::no_load:
            return say("Nothing draws yet: type what is fitted, such as {0}.", step.line);
        case NextKind::no_starter:
            return say("The engine has no starter yet: type it, such as {0}.", step.line);
        case NextKind::lengths_assumed:
            return say_n("{0} length is assumed: give it in the cable's details.",
                         "{0} lengths are assumed: give them in the cables' details.", step.count);
        case NextKind::metal_joined_to_nothing:
            return say("{0} is joined to nothing: type a strap, such as {1}.", name, step.line);
        case NextKind::dead_load:
            return say("{0} gets no volts where it should run: look at its feed.", name);
        case NextKind::stop:
            return say_n("{0} finding stops this plan: look at it first.",
                         "{0} findings stop this plan: look at them first.", step.count);
        case NextKind::never_on:
            return say_n("{1} runs in no state: type one in which it does, such as {2}.",
                         "{0} loads run in no state, {1} among them: type one in which they do, such as {2}.",
                         step.count, name, step.line);
        case NextKind::measure_first:
            if (step.others == 0)
                return say_n("Measure the length of {1} before you order: {0} size hangs on it.",
                             "Measure the length of {1} before you order: {0} sizes hang on it.", step.count,
                             name);
            return say_n("Measure the length of {1} first; {0} other assumed length changes nothing.",
                         "Measure the length of {1} first; {0} other assumed lengths change nothing.",
                         step.others, name);
        case NextKind::no_parked_state:
            return say("No state says how it stands parked: type one, such as {0}.", step.line);
    }
    return {};
}

static std::string listed_in_quotes(const std::vector<std::string>& names) {
    std::string listed;
    for (const std::string& name : names) listed += (listed.empty() ? "" : ", ") + say("“{0}”", name);
    return listed;
}

std::vector<std::string> added_to_page(const Notes& notes) {
    std::vector<std::string> sentences;
    const auto& states = notes.added_states;
    if (!states.empty())
        sentences.push_back(say_n("A state was added for what no other lets run: {1}.",
                                  "{0} states were added for what no other lets run: {1}.",
                                  static_cast<long>(states.size()), listed_in_quotes(states)));
    const auto& switched = notes.given_switches;
    if (!switched.empty())
        sentences.push_back(say_n("A switch was given to what some of the states leave out: {1}.",
                                  "{0} switches were given to what some of the states leave out: {1}.",
                                  static_cast<long>(switched.size()), listed_in_quotes(switched)));
    return sentences;
}

}  // namespace yr::words
