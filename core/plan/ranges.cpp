#include "plan/ranges.h"

#include <cmath>
#include <cstdio>

#include "plan/plan_fields.h"
#include "units/text.h"

namespace yr {
namespace {

Wanted wanted(const Field& field) {
    if (field.volts_of_rail) return {Want::as_said, "12, 24 or 48 V"};
    if (field.above) return {Want::more_than_to, shown(field.least), shown(field.most)};
    return {Want::between, shown(field.least), shown(field.most)};
}

// Walks all fields of one thing; the place is only put into words where something is wrong.
struct RangeVisitor {
    const std::function<std::string()>& place;
    std::vector<Error>& errors;

    void number(const Field& field, double value) const {
        if (field.takes(value)) return;
        errors.push_back({ErrorCode::out_of_range, place() + ", " + field.key, shown(value), wanted(field)});
    }
    void operator()(const Field& field, const double& value) const { number(field, value); }
    void operator()(const Field& field, const int& value) const { number(field, value); }
    void operator()(const Field& field, const std::optional<double>& value) const {
        if (value) number(field, *value);
    }
    template <HasFields T>
    void operator()(const Field& field, const T& part) const {
        inside(field.key, part);
    }
    template <HasFields T>
    void operator()(const Field& field, const std::vector<T>& parts) const {
        for (const T& part : parts) inside(field.key, part);
    }
    template <class T>
    void operator()(const Field&, const T&) const {}

    template <class T>
    void inside(const char* key, const T& part) const {
        const std::function<std::string()> within = [&] {
            if constexpr (requires { part.name; })
                return place() + ", " + part.name;
            else
                return place() + ", " + key;
        };
        fields(RangeVisitor{within, errors}, part);
    }
};

template <class T>
void check(const T& thing, const std::string& where, std::vector<Error>& errors) {
    const std::function<std::string()> place = [&] {
        if constexpr (requires { thing.id; })
            return where + ", " + thing.name;
        else
            return where;
    };
    fields(RangeVisitor{place, errors}, thing);
}

}  // namespace

void check_ranges(const Plan& plan, std::vector<Error>& errors) {
    check(plan.vehicle, "vehicle", errors);
    check(plan.policy, "policy", errors);
    each_list([&](const auto& list) {
        for (const auto& thing : plan.*list.in_plan) check(thing, list.key, errors);
    });
    check(plan.survey, "survey", errors);
}

}  // namespace yr
