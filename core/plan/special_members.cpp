// What copies, moves, destroys and compares a plan and its edits (units/compiled_once.h).
#include "plan/edit.h"

namespace yr {

YR_SPECIAL_MEMBERS_HERE(Variant)
bool operator==(const Variant& a, const Variant& b) = default;

YR_SPECIAL_MEMBERS_HERE(Plan)
bool operator==(const Plan& a, const Plan& b) = default;

YR_SPECIAL_MEMBERS_HERE(Edit)

}  // namespace yr

YR_VECTOR_HERE(yr::Place)
YR_VECTOR_HERE(yr::Waypoint)
YR_VECTOR_HERE(yr::Way)
YR_VECTOR_HERE(yr::Point)
YR_VECTOR_HERE(yr::Source)
YR_VECTOR_HERE(yr::Battery)
YR_VECTOR_HERE(yr::Inverter)
YR_VECTOR_HERE(yr::Connector)
YR_VECTOR_HERE(yr::Jacket)
YR_VECTOR_HERE(yr::Condition)
YR_VECTOR_HERE(yr::Device)
YR_VECTOR_HERE(yr::Run)
YR_VECTOR_HERE(yr::Load)
YR_VECTOR_HERE(yr::State)
YR_VECTOR_HERE(yr::Day)
YR_VECTOR_HERE(yr::PanelSwitch)
YR_VECTOR_HERE(yr::Accepted)
YR_VECTOR_HERE(yr::Mark)
YR_VECTOR_HERE(yr::Variant)
