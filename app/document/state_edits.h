// States copied, moved along their line, taken out: one step each, for the state bar and the details alike.
#pragma once

#include "document/document.h"

namespace yr::app {

// The copy stands behind it, is shown and chosen.
bool copy_state(Document* document, const Id& state);
// So many places along the line; false at its end.
bool move_state(Document* document, const Id& state, int by);
// A plan keeps one state at least: refused with a sentence.
bool take_out_state(Document* document, const Id& state);

}  // namespace yr::app
