// The only list of workspaces: their order here is that of the words in the top line.
#pragma once

#include "workspaces/workspace.h"

namespace yr::app {

[[nodiscard]] std::vector<WorkspaceKind> all_workspaces();

}  // namespace yr::app
