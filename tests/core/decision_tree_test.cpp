// The next reading against the best decision tree that there is, found by trying all, on small vehicles where
// one load is dead: in the mean no more than 1.3 times as many readings.
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "meter/next_reading.h"
#include "meter/slopes.h"
#include "notes/notes.h"

namespace yr::test {
namespace {

struct Small {
    Plan plan;
    Complaint complaint;
};

Small small_vehicle(const std::string& page, const std::string& load, const std::string& state) {
    Small s{read_notes(page).plan, {}};
    for (const Load& l : s.plan.loads)
        if (l.name == load) s.complaint.load = l.id;
    for (const State& x : s.plan.states)
        if (x.name == state) s.complaint.state = x.id;
    s.complaint.seen = Seen::dead;
    return s;
}

// What could be it: faults under which the load is dead in that state, the likeliest dozen.
struct Problem {
    std::vector<std::size_t> faults;  // of the locator
    std::vector<Id> things;
    std::vector<double> share;
    std::vector<Probing> readings;
    std::vector<std::vector<double>> volts;  // by reading, by fault
};

Problem problem_of(Locator& locator, const Small& s, const Location& now) {
    Problem p;
    double sum = 0;
    for (const Suspect& x : now.suspects) {
        if (p.faults.size() == 12 || x.probability < 1e-3) break;
        for (std::size_t f = 0; f < locator.faults().size(); ++f) {
            const Fault& fault = locator.faults()[f];
            if (fault.kind != x.fault.kind || fault.thing != x.fault.thing || fault.other != x.fault.other ||
                fault.graded())
                continue;
            p.faults.push_back(f), p.things.push_back(fault.thing), p.share.push_back(x.probability);
            sum += x.probability;
        }
    }
    for (double& v : p.share) v /= sum;
    for (const Probing& where : places_to_probe(s.plan, s.complaint.state)) {
        if (where.kind != ReadKind::volts) continue;
        std::vector<double> row;
        for (const std::size_t f : p.faults)
            row.push_back(value_at(locator.solved(f, 0, where), s.plan, where).value_or(std::nan("")));
        p.readings.push_back(where), p.volts.push_back(row);
    }
    return p;
}

// Three outcomes: nothing, something between, the rail's volts.
int outcome(double volts) {
    return std::isnan(volts) ? 3 : std::abs(volts) < 1 ? 0 : std::abs(volts) > 9 ? 2 : 1;
}

// Least expected readings until all that is left is one thing to be mended, or nothing parts it.
class BestTree {
  public:
    explicit BestTree(const Problem& p) : p_(p) {}
    double readings(unsigned set) {
        if (const auto known = known_.find(set); known != known_.end()) return known->second;
        double best = 0;
        if (!one_thing(set)) {
            best = 1e9;
            for (const auto& row : p_.volts) {
                std::map<int, unsigned> parts;
                for (std::size_t f = 0; f < p_.faults.size(); ++f)
                    if (set & (1U << f)) parts[outcome(row[f])] |= 1U << f;
                if (parts.size() < 2) continue;
                double sum = share(set);
                for (const auto& [o, part] : parts) sum += readings(part);
                best = std::min(best, sum);
            }
            if (best > 1e8) best = 0;  // nothing parts it: a person stops
        }
        return known_[set] = best;
    }

  private:
    bool one_thing(unsigned set) const {
        const Id* only = nullptr;
        for (std::size_t f = 0; f < p_.faults.size(); ++f) {
            if (!(set & (1U << f))) continue;
            if (only && *only != p_.things[f]) return false;
            only = &p_.things[f];
        }
        return true;
    }
    double share(unsigned set) const {
        double sum = 0;
        for (std::size_t f = 0; f < p_.faults.size(); ++f)
            if (set & (1U << f)) sum += p_.share[f];
        return sum;
    }
    const Problem& p_;
    std::map<unsigned, double> known_;
};

TEST(NextReading, ComesNearTheBestDecisionTree) {
    const Small vehicles[] = {
        small_vehicle("battery AGM 95 Ah\nbus main, fuse 60 A, 1 m\nlamp 60 W on light, 4 m, from "
                      "main\nstate dark, light on\n",
                      "lamp", "dark"),
        small_vehicle(
            "battery AGM 95 Ah\npump 10 A on pump, 4 m\nradio 3 A on pump, 2 m\nstate pumping, pump on\n",
            "pump", "pumping"),
        small_vehicle("battery AGM 95 Ah\nbus rear, fuse 100 A, 3 m\nground \"rear ground\" on body\nwork "
                      "light 90 W on work, 2 m, from rear\nhorn 5 A on work, "
                      "2 m, from rear\nstate working, work on\n",
                      "work light", "working")};
    double ours = 0, least = 0;
    for (const Small& s : vehicles) {
        ASSERT_FALSE(s.complaint.load.empty());
        ASSERT_FALSE(s.complaint.state.empty());
        Locator locator(s.plan);
        const Location begin = locator.locate({{}, {s.complaint}, true, false, nullptr});
        const Problem p = problem_of(locator, s, begin);
        ASSERT_GE(p.faults.size(), 4U);
        BestTree tree(p);
        const double best = tree.readings((1U << p.faults.size()) - 1);
        ASSERT_GT(best, 1);
        double taken = 0;
        for (std::size_t f = 0; f < p.faults.size(); ++f) {
            NextAsk ask;
            ask.complaints = {s.complaint};
            ask.sure = 0.999;  // the tree goes on until one is left
            Location now = begin;
            for (int k = 0; k < 12; ++k) {
                const auto next = next_reading(locator, s.plan, now, ask);
                if (!next) break;
                const auto v = value_at(locator.solved(p.faults[f], 0, next->where), s.plan, next->where);
                ASSERT_TRUE(v);
                ask.readings.push_back({next->where, *v});
                ask.last = next->where;
                now = locator.locate({ask.readings, ask.complaints, true, false, nullptr});
            }
            taken += p.share[f] * static_cast<double>(ask.readings.size());
        }
        std::printf("%zu faults: %.2f readings, the best tree %.2f\n", p.faults.size(), taken, best);
        ours += taken, least += best;
    }
    EXPECT_LE(ours, 1.3 * least);
}

}  // namespace
}  // namespace yr::test
