#include "window/workspaces.h"

#include "workspaces/build/build_page.h"
#include "workspaces/control/control_page.h"
#include "workspaces/day/day_page.h"
#include "workspaces/guard/guard_page.h"
#include "workspaces/meter/meter_page.h"
#include "workspaces/place/place_page.h"
#include "workspaces/rail/rail_page.h"
#include "workspaces/runs/runs_page.h"
#include "workspaces/survey/survey_page.h"

namespace yr::app {
namespace {

template <class Page>
WorkspaceKind kind() {
    return {[](Document* document) { return new Page(document); }};
}

}  // namespace

std::vector<WorkspaceKind> all_workspaces() {
    return {
        kind<SurveyPage>(),   //
        kind<RailPage>(),     //
        kind<DayPage>(),      //
        kind<ControlPage>(),  //
        kind<RunsPage>(),     //
        kind<GuardPage>(),    //
        kind<PlacePage>(),    //
        kind<BuildPage>(),    //
        kind<MeterPage>(),    //
    };
}

}  // namespace yr::app
