// Lugs: which bolts a lug for so much copper is made for. data/catalog/terminals.json.
#pragma once

#include <vector>

namespace yr {

// Bolts (metric threads, mm) that lugs for this copper come with, ascending.
[[nodiscard]] const std::vector<double>& lug_bolts_mm(double area_mm2);

// Whether a lug with that hole may sit on that bolt: it goes over it, and is made for it or the next bolt up.
// A wider hole leaves too little metal under the nut (common practice).
[[nodiscard]] bool lug_fits(double hole_mm, double bolt_mm);

}  // namespace yr
