// What a typed line was understood as, part by part, and what would help most next.
#pragma once

#include <string>
#include <vector>

#include "notes/next.h"
#include "notes/notes.h"
#include "notes/statement.h"
#include "words/format.h"

namespace yr::words {

[[nodiscard]] std::string name_of(StatementKind kind);

// What a new load brings beside itself: a cable of its own from a battery, a main block.
[[nodiscard]] std::vector<std::string> laid_beside(const Plan& plan, const Statement& statement);

// Places and switches that the line brings, and what it keeps as its thing's note.
[[nodiscard]] std::vector<std::string> comes_with(const Statement& s);

// "alternator", "rated 150 A", "at idle speed 70 A", "charge cable 4 AWG 1.2 m fuse 175 A": what comes first
// is what kind of thing it is. Of a load nothing but its kind: the type line says its parts itself.
[[nodiscard]] std::vector<std::string> understood(const Plan& plan, const Statement& statement,
                                                  const Style& style);

// What a page got that it does not say: states for what no state of its own lets run, switches for what some
// of its states leave out. A sentence each.
[[nodiscard]] std::vector<std::string> added_to_page(const Notes& notes);

// One sentence, and the line that would do it (empty where it is done by hand).
[[nodiscard]] std::string sentence(const NextStep& step, const Plan& plan);

}  // namespace yr::words
