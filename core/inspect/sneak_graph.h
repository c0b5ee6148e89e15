// The plan as nets joined by edges that switches, fuses and coils gate; volts across one load under a partial
// decision. For sneak.cpp.
#pragma once

#include <array>
#include <optional>

#include "inspect/sneak.h"

namespace yr {

// yes, no, or not decided yet
enum class Tri : char { no, yes, open };

// Something that is decided in a search: a driver's switch, a fuse being in, or a device that follows from
// volts across a load or converter input.
struct SneakVariable {
    enum class Kind { switched, fuse, follows } kind{};
    std::string name;       // of the switch
    Id device;              // fuse, or what follows
    int load = -1;          // follows: index in Plan::loads, or
    int converter = -1;     // index in Plan::sources, its input
    bool inverted = false;  // closed while the volts are low
    double high_V = 0;      // from here it is surely pulled ...
    double low_V = 0;       // ... below this surely let go
};

// A condition at one key position: which switches must be on or off.
struct Literals {
    bool possible = true;                   // key and engine allow it
    std::vector<std::pair<int, bool>> all;  // variable, on
    std::vector<Literals> any;              // one of these, where there are any
};

struct Gate {
    Literals condition;
    int fuse = -1;               // variable
    int follows = -1;            // variable, and with the condition
    int or_follows = -1;         // variable, or the condition
    std::vector<int> circuits;   // variables, and with the condition
    bool open_for_good = false;  // by volts at this key position
    bool inverted = false;       // closed while all of that does not hold
};

struct SneakEdge {
    int a = -1, b = -1;    // nets
    int run = -1;          // index in Plan::runs; -1: a bond
    bool one_way = false;  // a diode in it, a -> b
    std::vector<Gate> gates;
};

struct SneakLoadEdge {
    int pos = -1, neg = -1;
    double ohm = 0;
    bool in_graph = false;   // false: on mains
    Gate wanted;             // by live_when
    bool own_switch = true;  // it draws only while wanted
};

struct SneakRail {
    int net = -1;
    double volts = 0;
    int follows = -1;  // variable: a converter that may be without input
};

using Decisions = std::vector<Tri>;  // by variable

class SneakGraph {
  public:
    SneakGraph(const Plan& plan, KeyPosition position);

    [[nodiscard]] const std::vector<SneakVariable>& variables() const { return variables_; }
    // Volts across a load, or the variable to decide next.
    struct Volts {
        std::optional<double> volts;
        int ask = -1;
    };
    [[nodiscard]] Volts volts_of_load(int load, const Decisions& d);
    [[nodiscard]] Volts volts_of_input(int converter, const Decisions& d);

    // Whether the load is asked for, volts and other circuits counted in; where that is open, what to decide.
    [[nodiscard]] Tri wanted(int load, const Decisions& d, int* undecided) const;

    [[nodiscard]] State state_of(const Decisions& d) const;

  private:
    [[nodiscard]] int switch_variable(const std::string& name) const;
    [[nodiscard]] Literals literals_of(const Condition& c) const;
    [[nodiscard]] Tri state_of_literals(const Literals& l, const Decisions& d, int* undecided) const;
    int net(const Terminal& terminal);
    void add_switches();
    void add_edges(const Solution& usual);
    void add_loads(const Solution& usual);
    void add_rails();
    Gate gate_of(const Condition& c, const Id& id, const Solution& usual);
    int follow(const Id& device, int load, int converter, bool inverted, double high_V, double low_V);
    [[nodiscard]] bool charging(const Condition& c, const Solution& usual) const;

    [[nodiscard]] Tri state_of_gate(const Gate& g, const Decisions& d, int* undecided) const;
    [[nodiscard]] Tri state_of_edge(const SneakEdge& e, const Decisions& d, int* undecided) const;
    [[nodiscard]] Volts volts_between(int pos, int neg, int itself, const Decisions& d);
    void spread_rails(const Decisions& d);
    [[nodiscard]] double solve_region(int pos, int neg, const Decisions& d) const;

    const Plan& plan_;
    KeyPosition position_;
    std::vector<Terminal> nets_;
    std::vector<SneakVariable> variables_;
    std::vector<SneakEdge> edges_;
    std::vector<SneakLoadEdge> loads_;  // as the plan's
    std::vector<SneakRail> rails_;
    std::vector<std::pair<int, int>> inputs_;  // by source: input and return net; -1 where it is no converter
    std::vector<int> ground_nets_;
    std::vector<std::vector<int>> edges_at_, loads_at_;  // by net
    // scratch of the look that is going on
    std::vector<double> fixed_V_;  // by net; NaN: floats
    std::vector<Tri> edge_now_;
    std::vector<int> edge_ask_;
    std::vector<char> seen_;
    std::vector<int> region_;
};

}  // namespace yr
