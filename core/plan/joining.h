// How cables are joined on their way: connectors with numbered pins, jackets of several cores, what metal a
// bolt stands in. And what may be said of anything. Part of the plan (plan.h).
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "plan/terminal.h"

namespace yr {

// Said of a thing by whoever planned or looked at it; photo: path of a picture, beside the plan's file.
struct Remarks {
    std::string note{}, photo{}, caution{};
    friend bool operator==(const Remarks&, const Remarks&) = default;
};

// What a chassis part or bus is made of: copper lugs on aluminium want a paste, on stainless a bigger bolt.
enum class Metal { unknown, steel, aluminium, stainless, copper };

// A pin that a run passes.
struct PinUse {
    Id connector;
    int pin = 1;
    std::optional<double> at_m{};  // along the run; empty: at its end
    friend bool operator==(const PinUse&, const PinUse&) = default;
};

// Two halves with numbered pins that runs pass through.
struct Connector {
    Id id;
    std::string name;
    Id place;
    std::string socket;                   // of data/catalog/joining.json, or empty
    std::optional<double> pins{};         // how many it has
    std::optional<double> contact_mm{};   // width of its contacts
    std::optional<double> pin_A{};        // what one of them carries; empty: by its width, or by the socket
    std::optional<double> contact_ohm{};  // of a pair of contacts
    bool sealed = false;
    std::optional<double> limit_C{};  // hottest that its contacts may get
    std::string mates_with;           // the other half, as it is ordered
    Remarks remarks{};
    std::optional<double> rows{};  // in which its pins stand
    friend bool operator==(const Connector&, const Connector&) = default;
};

// Several cores in one jacket: laid, cut and cooled together. Its cores are the runs that name it.
struct Jacket {
    Id id;
    std::string name;
    std::optional<double> cores{};     // how many it has
    std::optional<double> outer_mm{};  // diameter
    Remarks remarks{};
    friend bool operator==(const Jacket&, const Jacket&) = default;
};

}  // namespace yr
