// The person's own accessories and boxes beside the shipped ones, kept in a file of their own.
#pragma once

#include <QString>

#include "plan/library.h"

namespace yr::app {

// Shipped and own entries; read anew after each keeping. A damaged file of one's own counts as empty and is
// left alone: library_problem() says so.
[[nodiscard]] const Library& library();
[[nodiscard]] QString library_problem();

// Keeps an entry, in place of an own one of the same name. Returns the sentence of what went wrong, or
// nothing.
[[nodiscard]] QString keep_load(const Load& load);
[[nodiscard]] QString keep_box(const Point& box);
[[nodiscard]] QString keep_set(const SetEntry& set);
[[nodiscard]] QString forget_set(const std::string& name);

[[nodiscard]] QString own_library_path();

}  // namespace yr::app
