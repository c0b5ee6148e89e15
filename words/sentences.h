// The one place that words errors, findings and mends. Sentences a person would say in the workshop.
#pragma once

#include <string>

#include "inspect/findings.h"
#include "words/format.h"

namespace yr::words {

// One sentence that names the place: "runs, scene-light feed, size: no table holds the size 11.5 AWG."
[[nodiscard]] std::string sentence(const Error& error);
// What would have done, in the fewest words.
[[nodiscard]] std::string wanted_text(const Wanted& wanted);

// "Echo sounder loses 4.7 % where 3 % is allowed."
[[nodiscard]] std::string sentence(const Finding& finding, const Plan& plan, const Style& style = {});

// What the button says: "12 → 8 AWG". Empty where there is no mend.
// A thing's name; where another thing has the same name, with where it is: "relay (fan feed)", "lamp (cab)".
[[nodiscard]] std::string told_apart_name(const Plan& plan, const Id& id);

[[nodiscard]] std::string mend_label(const Finding& finding, const Plan& plan);
// Of what stops a plan or is outside its rule and has no mend of one place: what would help. Empty for all
// else.
[[nodiscard]] std::string would_help(const Finding& finding);

// The name of the undo step: "sounder feed to 8 AWG".
[[nodiscard]] std::string mend_name(const Finding& finding, const Plan& plan);

// The rule in a few words ("drop, critical") and its source in full.
struct Rule {
    std::string label;
    std::string source;
};
[[nodiscard]] Rule rule_of(const Finding& finding, const Plan& plan);

// ■ ▲ ○ ·
[[nodiscard]] const char* mark(Severity severity);
[[nodiscard]] const char* name_of(Severity severity);

// "key at accessory", "engine running", "always", "hoist on"; the plan names the circuits it waits for.
[[nodiscard]] std::string condition(const Condition& condition, const Plan* plan = nullptr);

// "bond of frame ground: 1 mΩ assumed".
[[nodiscard]] std::string assumption_text(const AssumptionUse& use, const std::string& name);
[[nodiscard]] std::string assumption_text(const AssumptionUse& use, const Plan& plan);

// What was typed or stands in a file, fit to be shown on one line: letters that cannot be printed become a
// mark, what is very long is cut.
[[nodiscard]] std::string printable(std::string text);

// "Scene lights" from "scene lights": names begin sentences.
[[nodiscard]] std::string capital(std::string text);

// A name for a terminal: "starter battery +", "cab box".
[[nodiscard]] std::string terminal(const Plan& plan, const Terminal& terminal);

// Said instead of anything else where a state has no answer.
[[nodiscard]] std::string no_answer(const State& state);

// The usual caution, for first start, About and print; lines of plain sentences.
[[nodiscard]] const char* caution();

}  // namespace yr::words
