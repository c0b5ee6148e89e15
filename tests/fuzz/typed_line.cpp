// What is typed: nothing in it breaks the line, and a load that came of it is typed again as itself.
#include "typing/typed_line.h"

#include "control/circuit.h"
#include "fuzz/fuzz.h"
#include "plan/edit.h"
#include "plan/plan_json.h"
#include "plan/validate.h"

namespace {

const yr::Plan& plan() {
    static const yr::Plan demo = *yr::load_plan(YR_FUZZ_PLAN);
    return demo;
}

}  // namespace

YR_FUZZ(text) {
    const yr::TypedLine line = yr::read_line(plan(), text, &yr::shipped_library());
    const auto circuit = yr::make_circuit(plan(), line);
    if (!circuit) return;
    yr::Plan changed = plan();
    const auto applied = yr::apply(changed, circuit->edit);
    if (!applied) return;
    yr::fuzz::require(yr::validate(changed).empty());
    const yr::Load& load = *yr::find(changed.loads, circuit->load);
    const yr::TypedLine again = yr::read_line(changed, yr::typed_text(changed, load));
    yr::fuzz::require(again.draw && again.draw->kind == load.draw.kind);
}
