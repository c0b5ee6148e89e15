// What is typed: nothing in it breaks the line, and a load that came of it is typed again as itself.
#include "typing/typed_line.h"

#include <functional>

#include "control/circuit.h"
#include "fuzz/fuzz.h"
#include "notes/notes.h"
#include "plan/edit.h"
#include "plan/validate.h"

namespace {

// A few of each, so that a line may name what is there and its cables are sized in a moment.
const yr::Plan& plan() {
    static const yr::Plan few = yr::read_notes(R"(alternator 90 A
battery 100 Ah
inverter 500 W
box "cab box" 4 channels 30 30 20 20 A
second battery AGM 90 Ah
horn 5 A on horn
cabin lamp 10 W always
laptop 60 W on the inverter)")
                                    .plan;
    return few;
}

// Whatever kind of thing it is: what is whole the plan takes.
void as_statement(std::string_view text) {
    static const yr::Plan bare = yr::blank_vehicle();
    const yr::Statement s = yr::read_statement(bare, text, &yr::shipped_library());
    if (!s.whole()) return;
    yr::Plan changed = bare;
    yr::fuzz::require(yr::apply(changed, *s.edit).has_value());
    yr::fuzz::require(yr::validate(changed).empty());
}

// Its circuit, whose cable is sized on the whole plan: a hundred times the work of reading the line.
void as_circuit(const yr::TypedLine& line) {
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

}  // namespace

// Every line is read; of those that are whole one in 256 is made a circuit, the same ones in each run.
YR_FUZZ(text) {
    const yr::TypedLine line = yr::read_line(plan(), text, &yr::shipped_library());
    if (std::hash<std::string>()(text) % 256 != 0) return;
    as_statement(text);
    as_circuit(line);
}
