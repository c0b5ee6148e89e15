#include "support/sizing_plan.h"

#include <random>

namespace yr::test {
namespace {

class SizingMaker {
  public:
    SizingMaker(std::uint32_t seed, const SizingShape& shape) : shape_(shape), random_(seed) {}

    Plan make() {
        plan_ = empty_plan("sized");
        plan_.points.clear();
        plan_.runs.clear();
        plan_.loads.clear();
        plan_.states.clear();
        Battery& b = plan_.batteries.front();
        b.R0_ohm = 0.004;
        b.charge = 0.9;
        point("bus", PointKind::bus);
        point("back", PointKind::bus);
        run("main", pos_of(b.id), "bus", pick(0.5, 2.5));
        run("home", "back", neg_of(b.id), pick(0.5, 2.5));
        if (shape_.mesh) run("second-home", "back", neg_of(b.id), pick(0.5, 2.5));
        if (shape_.mesh && pick(0, 1) < 0.5) run("second-main", pos_of(b.id), "bus", pick(0.5, 2.5));
        for (int k = 0; k < shape_.loads; ++k) add_load(k);
        add_state("rest", 25, {});
        add_state("work", 45, {"work"});
        return plan_;
    }

  private:
    double pick(double low, double high) { return std::uniform_real_distribution(low, high)(random_); }

    void point(const Id& id, PointKind kind) {
        Point p;
        p.id = p.name = id;
        p.kind = kind;
        p.most_mm2 = 8.5;
        plan_.points.push_back(p);
    }

    void run(const Id& id, const Terminal& from, const Terminal& to, double length_m) {
        Run r;
        r.id = r.name = id;
        r.from = from;
        r.to = to;
        r.length_m = length_m;
        r.size = WireSize::awg(10);
        plan_.runs.push_back(r);
    }

    void add_load(int k) {
        Load l;
        l.id = "load-" + std::to_string(k);
        l.name = l.id;
        const double kind = pick(0, 3);
        if (kind < 1)
            l.draw = {DrawKind::current, pick(2, 12)};
        else if (kind < 2)
            l.draw = {DrawKind::power, pick(25, 150)};
        else
            l.draw = {DrawKind::resistance, pick(1.0, 6.0)};
        l.drop_limit = pick(0.02, 0.07);
        if (pick(0, 1) < 0.5) l.live_when.switches = {"work"};
        plan_.loads.push_back(l);
        run("feed-" + std::to_string(k), "bus", pos_of(l.id), pick(1, 5));
        run("return-" + std::to_string(k), neg_of(l.id), "back", pick(1, 5));
    }

    void add_state(const Id& id, double ambient_C, std::vector<std::string> switches) {
        State s;
        s.id = s.name = id;
        s.key = Key::ignition;
        s.ambient_C = s.engine_bay_C = ambient_C;
        s.switches = std::move(switches);
        plan_.states.push_back(s);
    }

    SizingShape shape_;
    std::mt19937 random_;
    Plan plan_;
};

}  // namespace

Plan sizing_plan(std::uint32_t seed, const SizingShape& shape) {
    return SizingMaker(seed, shape).make();
}

}  // namespace yr::test
