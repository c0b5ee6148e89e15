// A plan's file: whatever it says, it is refused with a sentence or is a plan that is written and read as
// itself.
#include "plan/plan_json.h"
#include "fuzz/fuzz.h"
#include "plan/validate.h"
#include "words/sentences.h"

YR_FUZZ(text) {
    const auto plan = yr::plan_from_json_text(text);
    if (!plan) {
        yr::fuzz::require(!yr::words::sentence(plan.error()).empty());
        return;
    }
    const auto again = yr::plan_from_json_text(yr::to_json_text(*plan));
    yr::fuzz::require(again && *again == *plan);
}
