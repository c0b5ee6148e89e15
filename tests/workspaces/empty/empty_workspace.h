// A workspace that the program does not ship: what the smallest one takes. This folder, its line in CMake and
// its line in the list are all of it; the window, the top line and the keys need no change.
#pragma once

#include "workspaces/workspace.h"

namespace yr::app {

class EmptyWorkspace : public Workspace {
    Q_OBJECT
  public:
    explicit EmptyWorkspace(Document* document);
    [[nodiscard]] Surroundings surroundings() const override {
        return {.states = false, .details = false, .findings = false};
    }
    void entered() override { ++entered_times; }
    int entered_times = 0;
};

}  // namespace yr::app
