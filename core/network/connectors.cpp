#include "network/connectors.h"

#include <algorithm>
#include <cmath>

#include "catalog/assumptions.h"
#include "catalog/sockets.h"
#include "network/assumed.h"

namespace yr {
namespace {

constexpr double kManyLoaded = 0.8;  // of its rating where more than half of the pins are loaded
constexpr double kRatedAt_C = 25;

}  // namespace

std::optional<int> pin_count(const Connector& c) {
    if (c.pins) return static_cast<int>(std::lround(*c.pins));
    if (const Socket* socket = socket_named(c.socket)) return static_cast<int>(socket->pins.size());
    return std::nullopt;
}

std::optional<double> pin_rating_A(const Connector& c, int pin) {
    if (c.pin_A) return c.pin_A;
    if (const Socket* socket = socket_named(c.socket))
        for (const SocketPin& p : socket->pins)
            if (p.pin == pin) return p.amps;
    if (c.contact_mm) return contact_size(*c.contact_mm).amps;
    return std::nullopt;
}

std::optional<double> pin_allowed_A(const Plan& plan, const Connector& c, int pin, const State& state) {
    const auto rated = pin_rating_A(c, pin);
    if (!rated) return std::nullopt;
    const double air_C = air_at(plan, c.place, state);
    const double limit_C = c.limit_C.value_or(assumption("contact_limit_C").value);
    const double warm =
        std::sqrt(std::clamp((limit_C - air_C) / (limit_C - kRatedAt_C), 0.0, 1.0));  // heat goes with I^2
    int loaded = 0;
    for (const Run& r : plan.runs)
        for (const PinUse& use : r.pins) loaded += use.connector == c.id;
    const auto count = pin_count(c);
    const bool many = count && loaded * 2 > *count && loaded > 2;
    return *rated * warm * (many ? kManyLoaded : 1);
}

double contact_ohm(const Connector& c, std::vector<AssumptionUse>& uses) {
    if (c.contact_ohm) return *c.contact_ohm;
    if (c.contact_mm) return contact_size(*c.contact_mm).mohm * 1e-3;
    return or_assumed({}, "pin_mohm", c.id, uses) * 1e-3;
}

std::vector<Passing> passings_of(const Plan& plan, const Run& run) {
    std::vector<Passing> all;
    for (const PinUse& use : run.pins) {
        const Connector* c = find(plan.connectors, use.connector);
        if (!c) continue;
        const auto known =
            std::find_if(all.begin(), all.end(), [&](const Passing& p) { return p.connector == c; });
        if (known == all.end())
            all.push_back({c, {use.pin}, use.at_m});
        else
            known->pins.push_back(use.pin);
    }
    return all;
}

}  // namespace yr
