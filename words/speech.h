// What sentences about one finding are put together from. For the files of this folder.
#pragma once

#include <string>

#include "plan/rail_volts.h"
#include "plan/roles.h"
#include "words/guard_words.h"
#include "words/sentences.h"

namespace yr::words {

struct Speech {
    const Finding& f;
    const Plan& plan;
    Style style;

    [[nodiscard]] std::string it() const { return told_apart_name(plan, f.id); }
    [[nodiscard]] std::string who() const { return capital(it()); }
    [[nodiscard]] std::string other() const { return told_apart_name(plan, f.other); }
    [[nodiscard]] std::string state() const {
        const State* s = find(plan.states, f.state);
        return s ? s->name : std::string(translated("no state"));
    }
    [[nodiscard]] std::string A(double v) const { return quantity(v, Dimension::current, style); }
    [[nodiscard]] std::string V(double v) const { return quantity(v, Dimension::voltage, style); }
    [[nodiscard]] std::string C(double v) const { return quantity(v, Dimension::temperature, style); }
    // The finding's value and its limit, told apart.
    [[nodiscard]] std::string value_in(Dimension d) const {
        return told_apart(f.value, f.limit, d, style).first;
    }
    [[nodiscard]] bool melts(double conductor_C) const {
        const Run* run = find(plan.runs, f.id);
        return conductor_C >= melts_at_C(run ? run->material : Material::copper);
    }
    [[nodiscard]] std::string mm2(double v) const { return quantity(v, Dimension::area, style); }
    [[nodiscard]] std::string pc(double v) const { return quantity(v, Dimension::fraction, style); }
    [[nodiscard]] std::string mm(double v) const { return number(v) + translated("\xE2\x80\x89mm"); }
    [[nodiscard]] std::string bolt(double v) const { return "M" + number(v); }
    // " (3 A on average)" where hours rest on an average.
    [[nodiscard]] std::string on_average() const {
        if (!f.average) return {};
        return *f.average > 0 ? say(" ({0} on average)", A(*f.average))
                              : std::string(translated(" (charged on average)"));
    }
    // What becomes of a battery, amps and hours on one basis: "half empty in 55 min with all of it on, in 2 h
    // at 12 A on average", "below half already", "it lasts". `reached`: what it comes to.
    [[nodiscard]] std::string hours_to(const std::string& reached, const char* already) const;
    // The hours until the battery is half empty, and from which charge: else amps and hours seem to disagree.
    [[nodiscard]] std::string hours_to_half() const;
    [[nodiscard]] std::string half_empty(const Id& of_battery) const;  // from which charge
    // Volts as a share of those of the rail of what the finding is about.
    [[nodiscard]] double nominal_V() const {
        const Load* load = find(plan.loads, f.id);
        return load ? rail_V(plan, *load) : plan.vehicle.nominal_V;
    }
    [[nodiscard]] std::string share(double volts) const { return pc(volts / nominal_V()); }
    [[nodiscard]] bool parked() const {
        const State* s = find(plan.states, f.state);
        return s && stands(*s);
    }
    // What `other` is where it is a fuse or breaker.
    [[nodiscard]] std::string kind_of_fuse() const {
        const Device* d = find_device(plan, f.other);
        return d ? device_kind(d->fuse) : std::string(translated("fuse"));
    }
    [[nodiscard]] std::string VA(double v) const {
        return number(v, 4, style.decimal_comma) + translated("\xE2\x80\x89VA");
    }
};

}  // namespace yr::words
