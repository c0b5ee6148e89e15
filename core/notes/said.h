// What a line about one thing says, part by part, whatever the thing: name, quantities with the word that
// gives them their meaning, cable, fuse, ends, place, when. No word is dropped: what no part takes is kept.
#pragma once

#include <map>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "plan/plan.h"
#include "typing/typed_line.h"
#include "units/quantity.h"

namespace yr {

// Which words mean something on a line of this kind.
struct Vocabulary {
    std::set<std::string, std::less<>> labels;  // before or behind a quantity: "idle 70 A", "6 W standby"
    std::set<std::string, std::less<>> flags;   // alone: "modified", "sealed", "agm"
    bool numbers = false;                       // bare numbers count: ratings of channels
    bool negative = false;  // its ends are on the negative side where a name leaves it open
    bool switches = false;  // "scene on, pump off" says how they stand
};

struct Said {
    std::string name;
    std::map<std::string, Quantity> labelled;
    std::vector<Quantity> plain;  // in order
    std::optional<double> length_m;
    std::optional<WireSize> size;
    std::optional<double> fuse_A;
    bool breaker = false, both_ends = false;
    std::optional<double> bolt_mm;  // "M8"
    Id place;
    std::optional<Terminal> from, to;
    std::optional<Terminal>
        on;                   // "on leisure battery", "near the second battery": it charges it or draws on it
    std::vector<Id> between;  // "between A and B"
    std::optional<Condition> when;
    std::vector<Id> switched_off;  // of a state: loads that are off in it and had no switch so far
    std::vector<Id> switched_on;   // of a state: loads that it names as on
    std::set<std::string> flags;
    std::vector<double> numbers;
    std::vector<std::string> not_understood;
    std::string missing_end;  // "from" or "to" what the plan does not have
    std::optional<TypedLine::Doubt> doubt;

    [[nodiscard]] bool has(std::string_view flag) const { return flags.contains(std::string(flag)); }
    // The first quantity of that dimension without a label.
    [[nodiscard]] std::optional<double> plain_of(Dimension dimension) const;
    [[nodiscard]] std::optional<double> labelled_as(std::string_view label, Dimension dimension) const;
};

// `text`: the line behind the word that says the kind. Never fails.
[[nodiscard]] Said read_said(const Plan& plan, std::string_view text, const Vocabulary& vocabulary);

// The terminal of what is called so: "battery", "battery -", "second battery", "engine block", "rear bus".
// Empty: nothing in the plan is.
[[nodiscard]] std::optional<Terminal> terminal_called(const Plan& plan, std::string_view name, bool negative);

}  // namespace yr
