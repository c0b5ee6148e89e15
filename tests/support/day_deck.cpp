#include "support/day_deck.h"

#include <cmath>
#include <functional>
#include <random>
#include <sstream>

#include "notes/notes.h"

namespace yr::test {
namespace {

std::string table_of(const std::function<double(double)>& f) {
    std::ostringstream text;
    text.precision(12);
    for (int k = 0; k <= 200; ++k) text << (k ? ", " : "") << k / 200.0 << ", " << f(k / 200.0);
    return text.str();
}

}  // namespace

Small small(unsigned seed) {
    std::mt19937 random(seed + 1);
    const auto pick = [&](double low, double high) {
        return low + (high - low) * static_cast<double>(random() % 1000) / 1000;
    };
    Small s;
    s.Ah = std::round(pick(40, 120));
    const bool lithium = seed % 3 == 2;
    const double hours = lithium ? 6 : pick(4, 8), amps = s.Ah * pick(0.3, 0.55) / hours;
    s.plan = read_notes(bare_vehicles().front().text + "lamp " + std::to_string(amps) + " A, 0.3 m\n").plan;
    Battery& b = s.plan.batteries.front();
    b.capacity_Ah = s.Ah, b.self_discharge = 0.0, b.charge = pick(0.75, 0.98);
    b.chemistry = lithium ? Chemistry::lifepo4 : seed % 3 == 1 ? Chemistry::agm : Chemistry::flooded;
    for (Load& l : s.plan.loads)
        if (!l.starter) l.draw = {DrawKind::current, amps}, l.least_V.reset();
    s.day.id = s.day.name = "d";
    for (const State& state : s.plan.states)
        if (state.rpm <= 0 && state.key == Key::off)
            s.day.parts = {{state.id, hours * 3600, 1, false, {}, {}}};
    for (State& state : s.plan.states)
        state.ambient_C = state.engine_bay_C = 20;  // one temperature: one table
    return s;
}

std::string day_deck(const Small& s, const DayRun& run, double amps, double hours, double threshold_V) {
    const Network net =
        compile(averaged(s.plan), state_at(s.plan, s.day, timeline(s.plan, s.day).front(), 0));
    const BatteryElement element = net.batteries.front();
    const CellModel& m = run.models.front();
    const auto at = [&](double head) {
        BatteryElement e = element;
        at_moment(e, std::clamp(head, 0.0, 1.0), 20);
        return e;
    };
    const double most1 = m.wells.c * m.wells.most_Ah, most2 = (1 - m.wells.c) * m.wells.most_Ah;
    const double ohm1 = m.rc1_ohm.value_or(m.rc1_share * element.full_warm_ohm),
                 ohm2 = m.rc2_ohm.value_or(m.rc2_share * element.full_warm_ohm);
    // flow between the wells: k' of the model is k / (c (1 - c))
    const double k = m.wells.k_per_h * m.wells.c * (1 - m.wells.c);
    std::ostringstream deck;
    deck.precision(12);
    deck << "a battery in time\n";
    deck << ".options reltol=1e-6\n";
    deck << "C1 q1 0 3600 IC=" << run.begin[0].available_Ah << "\nC2 q2 0 3600 IC=" << run.begin[0].bound_Ah
         << "\n";
    deck << "Rq1 q1 0 1e12\nRq2 q2 0 1e12\n";
    if (m.wells.c < 1) {
        deck << "B1 0 q1 I=" << -amps << "+" << k << "*(V(q2)/" << 1 - m.wells.c << "-V(q1)/" << m.wells.c
             << ")\n";
        deck << "B2 0 q2 I=" << -k << "*(V(q2)/" << 1 - m.wells.c << "-V(q1)/" << m.wells.c << ")\n";
    } else {
        deck << "B1 0 q1 I=" << -amps << "\n";
    }
    deck << "C3 r1 0 " << m.rc1_s << " IC=0\nR3 r1 0 1\nI3 0 r1 " << amps * ohm1 << "\n";
    deck << "C4 r2 0 " << m.rc2_s << " IC=0\nR4 r2 0 1\nI4 0 r2 " << amps * ohm2 << "\n";
    deck << "B5 p 0 V=pwl(V(q1)/" << most1 << ", " << table_of([&](double h) { return at(h).open_V; })
         << ")-V(r1)-V(r2)-" << amps << "*pwl(V(q1)/" << most1 << ", "
         << table_of([&](double h) { return at(h).R0_ohm; }) << ")\nR5 p 0 1e9\n";
    deck << ".tran 10 " << hours * 3600 << " 0 10 UIC\n.control\nrun\n";
    deck << "let charge = (V(q1)+V(q2))/" << most1 + most2 << "\n";
    deck << "meas tran last_charge FIND charge AT=" << hours * 3600 - 1 << "\n";
    deck << "meas tran last_volts FIND V(p) AT=" << hours * 3600 - 1 << "\n";
    deck << "meas tran crosses WHEN V(p)=" << threshold_V << " FALL=1\n.endc\n.end\n";
    return deck.str();
}

}  // namespace yr::test
