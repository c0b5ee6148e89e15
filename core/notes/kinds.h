// What a line of each kind makes of the plan. For statement.cpp.
#pragma once

#include "notes/cables.h"
#include "notes/statement.h"

namespace yr {

using Made = Result<Id>;  // what was added or changed; edits are in the builder

// A line that leaves out what it cannot do without.
[[nodiscard]] inline auto missing(const char* what, Wanted wanted) {
    return fail(ErrorCode::empty, what, {}, std::move(wanted));
}

// The switch by which two batteries are joined by hand.
inline constexpr const char* kBatteriesJoined = "batteries joined";

[[nodiscard]] Made make_battery(PlanBuilder& b, const Said& said);
[[nodiscard]] Made make_alternator(PlanBuilder& b, const Said& said, bool stator);
[[nodiscard]] Made make_starter(PlanBuilder& b, const Said& said);
[[nodiscard]] Made make_winch(PlanBuilder& b, const Said& said);
[[nodiscard]] Made make_charger(PlanBuilder& b, const Said& said);
[[nodiscard]] Made make_solar(PlanBuilder& b, const Said& said);
[[nodiscard]] Made make_inverter(PlanBuilder& b, const Said& said);
[[nodiscard]] Made make_converter(PlanBuilder& b, const Said& said);

[[nodiscard]] Made make_joiner(PlanBuilder& b, const Said& said);

[[nodiscard]] Made make_box(PlanBuilder& b, const Said& said);
[[nodiscard]] Made make_point(PlanBuilder& b, const Said& said, PointKind kind);
[[nodiscard]] Made make_strap(PlanBuilder& b, const Said& said);
[[nodiscard]] Made make_cable(PlanBuilder& b, const Said& said);
[[nodiscard]] Made make_master(PlanBuilder& b, const Said& said);
[[nodiscard]] Made make_relay(PlanBuilder& b, const Said& said);
[[nodiscard]] Made make_connector(PlanBuilder& b, const Said& said);
[[nodiscard]] Made make_jacket(PlanBuilder& b, const Said& said);

[[nodiscard]] Made make_vehicle(PlanBuilder& b, const Said& said);
[[nodiscard]] Made make_place(PlanBuilder& b, const Said& said);
[[nodiscard]] Made make_state(PlanBuilder& b, const Said& said, std::string_view text);
[[nodiscard]] Made make_reading(PlanBuilder& b, const Said& said);

[[nodiscard]] Made make_day(PlanBuilder& b, std::string_view text, std::vector<std::string>& not_understood);

// "rear box: 2.1 back, 0.4 left, 0.3 up"; "firewall hole: grommet 28 mm, 0.5 back, 0.4 left, 0.8 up"; "left
// sill: dash to rear, flexes"; "van".
[[nodiscard]] Made make_stand(PlanBuilder& b, std::string_view text,
                              std::vector<std::string>& not_understood);
[[nodiscard]] Made make_waypoint(PlanBuilder& b, std::string_view text,
                                 std::vector<std::string>& not_understood);
[[nodiscard]] Made make_way(PlanBuilder& b, std::string_view text, std::vector<std::string>& not_understood);
[[nodiscard]] Statement read_outline(const Plan& plan, std::string_view text);

// `word`: price, rate, minutes or torque; the id is empty, since these are the plan's own.
[[nodiscard]] Made make_shop(PlanBuilder& b, std::string_view word, std::string_view text,
                             std::vector<std::string>& not_understood);
[[nodiscard]] Made make_end(PlanBuilder& b, std::string_view text, std::vector<std::string>& not_understood);

[[nodiscard]] const Vocabulary& vocabulary_of(StatementKind kind);

// The metal that a return ends on: engine block, or the first part of the chassis, or the first battery's
// post.
[[nodiscard]] Terminal metal_of(const Plan& plan, std::string_view part);

}  // namespace yr
