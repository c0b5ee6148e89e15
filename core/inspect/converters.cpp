// Converters that are asked for more than they give: told of the converter, not of the load that happened to
// go dark first.
#include <algorithm>

#include "inspect/rules.h"
#include "plan/variant.h"
#include "size/run_limits.h"
#include "solve/results.h"
#include "units/at.h"

namespace yr {
namespace {

// As converters are sold; common practice, no source.
constexpr double kRatings_A[] = {5, 10, 15, 20, 25, 30, 40, 50, 60, 70, 80, 100, 120, 150, 200};
constexpr int kMostThicker = 3;

double wanted_A(const LoadElement& load, double rail_V) {
    switch (load.kind) {
        case DrawKind::current:
            return load.value;
        case DrawKind::power:
            return load.value / rail_V;
        case DrawKind::resistance:
            return rail_V / load.value;
    }
    return 0;
}

// The converter with another rating; its cables so many sizes thicker, the fuses of its input in proportion.
Plan with_rating(const Plan& plan, const Source& source, double rating_A, bool fuses, int thicker) {
    Plan larger = plan;
    const double times = rating_A / source.rated_A.value_or(rating_A);
    for (Source& s : larger.sources)
        if (s.id == source.id) s.rated_A = rating_A;
    for (Run& run : larger.runs) {
        const bool in = run.from == in_of(source.id) || run.to == in_of(source.id);
        if (!in && run.from != out_of(source.id) && run.to != out_of(source.id)) continue;
        for (int k = 0; k < thicker && run.size; ++k) run.size = step_size(*run.size, 1);
        for (Device& d : run.devices) {
            if (!fuses || d.kind != DeviceKind::fuse) continue;
            const auto& ratings = fuse_kind(d.fuse).ratings_A;
            const auto next = std::lower_bound(ratings.begin(), ratings.end(), d.rating_A * times - 1e-9);
            if (next != ratings.end()) d.rating_A = *next;
        }
    }
    return larger;
}

std::vector<Mend> larger_converters(const Plan& plan, const Source& source, double asked_A) {
    std::vector<Mend> mends;
    const auto rating = std::find_if(std::begin(kRatings_A), std::end(kRatings_A), [&](double r) {
        return r >= asked_A && r > source.rated_A.value_or(0);
    });
    if (rating == std::end(kRatings_A)) return mends;
    for (int thicker = -1; thicker <= kMostThicker; ++thicker) {  // first the converter alone
        Mend m;
        m.kind = MendKind::larger_converter, m.target = source.id;
        m.from_A = source.rated_A.value_or(0), m.to_A = *rating;
        m.edit = edit_between(plan, with_rating(plan, source, *rating, thicker >= 0, std::max(thicker, 0)));
        mends.push_back(std::move(m));
    }
    return mends;
}

}  // namespace

std::vector<OverAsked> over_asked(const Case& c, std::size_t s) {
    constexpr double kMore = 1e-6;
    std::vector<OverAsked> all;
    const Network& net = c.solutions[s].network;
    const auto converts = [](const SourceElement& e) { return e.works && e.in != kNoNode; };
    if (std::none_of(net.sources.begin(), net.sources.end(), converts)) return all;
    const auto groups = conductor_groups(net);
    const auto group = [&](NodeIndex n) { return n == kNoNode ? -1 : groups[at(n)]; };
    for (std::size_t k = 0; k < net.sources.size(); ++k) {
        const SourceElement& e = net.sources[k];
        if (!converts(e) || k >= c.plan.sources.size() || c.solutions[s].point.sources[k].input_dead)
            continue;
        const int rail = group(e.out);
        const bool alone =
            std::none_of(net.batteries.begin(), net.batteries.end(),
                         [&](const BatteryElement& b) { return group(b.pos) == rail; }) &&
            std::count_if(net.sources.begin(), net.sources.end(), [&](const SourceElement& other) {
                return other.works && group(other.out) == rail;
            }) == 1;
        if (!alone) continue;
        OverAsked asked{k, 0, e.limit_A, {}};
        for (std::size_t l = 0; l < net.loads.size(); ++l) {
            if (!net.loads[l].wanted || group(net.loads[l].pos) != rail) continue;
            asked.asked_A += wanted_A(net.loads[l], e.set_V);
            asked.loads.push_back(l);
        }
        if (asked.asked_A > e.limit_A * (1 + kMore)) all.push_back(std::move(asked));
    }
    return all;
}

bool explains(const std::vector<OverAsked>& over, std::size_t load) {
    return std::any_of(over.begin(), over.end(), [&](const OverAsked& o) {
        return std::find(o.loads.begin(), o.loads.end(), load) != o.loads.end();
    });
}

void inspect_converters(const Case& c, std::vector<Finding>& out) {
    const std::size_t from = out.size();
    for (std::size_t s = 0; s < c.solutions.size(); ++s) {
        if (c.plan.states[s].key == Key::crank || !c.solutions[s].point.settled) continue;
        for (const OverAsked& o : over_asked(c, s))
            keep_worst(out, from,
                       make_finding(FindingKind::converter_over, Severity::fix, c.plan.sources[o.source].id,
                                    {}, c.plan.states[s].id, o.asked_A, o.gives_A));
    }
    for (std::size_t n = from; n < out.size() && c.with_mends; ++n)
        out[n].candidates =
            larger_converters(c.plan, *find(c.plan.sources, std::string_view(out[n].id)), out[n].value);
}

}  // namespace yr
