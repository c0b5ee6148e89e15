// What copies, moves, destroys and compares a plan and its edits (units/compiled_once.h).
#include "plan/edit.h"

namespace yr {

YR_SPECIAL_MEMBERS_HERE(Variant)
bool operator==(const Variant& a, const Variant& b) = default;

YR_SPECIAL_MEMBERS_HERE(Plan)
bool operator==(const Plan& a, const Plan& b) = default;

YR_SPECIAL_MEMBERS_HERE(Edit)

}  // namespace yr

template class std::vector<yr::Place>;
template class std::vector<yr::Waypoint>;
template class std::vector<yr::Way>;
template class std::vector<yr::Point>;
template class std::vector<yr::Source>;
template class std::vector<yr::Battery>;
template class std::vector<yr::Inverter>;
template class std::vector<yr::Connector>;
template class std::vector<yr::Jacket>;
template class std::vector<yr::Condition>;
template class std::vector<yr::Device>;
template class std::vector<yr::Run>;
template class std::vector<yr::Load>;
template class std::vector<yr::State>;
template class std::vector<yr::Day>;
template class std::vector<yr::PanelSwitch>;
template class std::vector<yr::Accepted>;
template class std::vector<yr::Mark>;
template class std::vector<yr::Variant>;
