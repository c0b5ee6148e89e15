// One sheet of the circuit diagram as SVG 1.1 (W3C), in millimetres; black on white.
#pragma once

#include <string>

#include "diagram/sheets.h"

namespace yr {

[[nodiscard]] std::string diagram_svg(const Diagram& diagram, std::size_t sheet);

}  // namespace yr
