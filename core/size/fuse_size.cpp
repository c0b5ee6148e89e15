#include "size/fuse_size.h"

#include <algorithm>

namespace yr {
namespace {

constexpr double kContinuousShare = 0.8;  // continuous load at most 80 % of the fuse, common practice
constexpr double kTiny = 1e-9;

}  // namespace

Result<FuseAdvice> choose_fuse(const FuseAsk& ask, FuseSchool school) {
    if (!(ask.current_A > 0) || ask.current_A > 1e5)
        return fail(ErrorCode::out_of_range, "current", std::to_string(ask.current_A), Want::more_than_0_a);
    if (ask.inrush_A && !(*ask.inrush_A > 0))
        return fail(ErrorCode::out_of_range, "inrush", std::to_string(*ask.inrush_A), Want::more_than_0_a);
    FuseAdvice advice;
    switch (school) {
        case FuseSchool::load150:
            advice.needed_A = 1.5 * ask.current_A;
            break;
        case FuseSchool::inrush:
            advice.needed_A = std::max(ask.inrush_A.value_or(0), ask.current_A);
            break;
        case FuseSchool::wire:
            advice.needed_A = std::max(ask.current_A / kContinuousShare, ask.inrush_A.value_or(0));
            break;
    }
    for (const FuseChoice& fuse : standard_fuses(ask.rail_V)) {
        FuseRow row{fuse, false, true, false};
        row.carries = ask.current_A <= kContinuousShare * fuse.rating_A + kTiny;
        row.holds_inrush = !ask.inrush_A || fuse.rating_A > *ask.inrush_A + kTiny;
        row.protects_cable = fuse.rating_A <= ask.cable_A + kTiny;
        advice.rows.push_back(row);
        const bool enough = school == FuseSchool::load150 ? fuse.rating_A >= advice.needed_A - kTiny
                            : school == FuseSchool::inrush
                                ? fuse.rating_A > advice.needed_A + kTiny
                                : row.carries && row.holds_inrush && row.protects_cable;
        if (!advice.chosen && enough) {
            advice.chosen = fuse;
            advice.protects_cable = row.protects_cable;
            advice.carries = row.carries;
            advice.holds_inrush = row.holds_inrush;
        }
    }
    return advice;
}

}  // namespace yr
