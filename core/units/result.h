// Errors as values. A function that can fail returns Result<T>; on failure the caller's state is unchanged.
// No error holds a finished sentence: words/ turns it into one, so that it can be said in any language.
#pragma once

#include <string>
#include <tl/expected.hpp>
#include <utility>

namespace yr {

enum class ErrorCode {
    empty,              // nothing where a value is needed
    not_a_number,       // no number could be read
    unknown_unit,       // a number followed by a unit nobody knows
    wrong_dimension,    // a known unit of another kind, such as metres where amps are asked for
    out_of_range,       // a value that cannot be, such as a negative length
    unknown_size,       // a wire size that no table holds
    unknown_name,       // a word from a fixed list was expected
    bad_json,           // the text is not JSON
    not_a_plan,         // JSON, but not a plan of ours
    newer_version,      // a plan written by a later version of the program
    schema,             // JSON that breaks the published schema
    duplicate_id,       // two things with one id
    missing_reference,  // a thing names another that does not exist
    unreadable_file,    // the file could not be opened or read
    unwritable_file,    // the file could not be written
    file_exists,        // something is there and may not be written over
    not_a_file,         // a folder, a device, a pipe
    too_large,          // a file or text beyond what any vehicle needs
    too_deep,           // lists in lists in lists
    doubled_key,        // a field that stands twice
    control_character,  // a letter that cannot be printed
    two_readings,       // a number that may be read as thousands or as a decimal
    not_utf8            // UTF-16, or no text
};

// What would do instead. One name each; words/errors.cpp says them. Those with a value beside them come
// first.
enum class Want {
    nothing,
    as_said,                 // the value itself: a bound, a version, the schema's own words
    a_quantity_in,           // the value is a Dimension's word
    less_than,               // another field
    something_that_runs_in,  // a state
    between,                 // the value, to `most`
    either_of,               // the value or `most`
    more_than_to,            // more than the value, to `most`
    a_battery_of_this_plan,
    a_cable_between_them,
    a_kind_of_thing,
    a_fuse_said_with_its_cable,
    a_name_for_it,
    a_part_and_its_price,
    money_an_hour,
    a_thread_and_newton_metres,
    what_is_crimped_on_it,
    ah_or_cranking_amps,
    amps,
    key_and_value,
    rail_volts,
    volts,
    watts,
    what_to_change,
    a_connector_of_this_plan,
    a_jacket_of_this_plan,
    a_pin_that_this_connector_has,
    a_share_from_0_to_1,
    a_socket_of_the_tables,
    a_box_bus_bar_stud_or_battery_of_this_plan,
    a_box_only_a_box_has_channels,
    a_box_with_channels,
    a_cable_that_ends_on_it,
    a_cable_whose_size_may_change_all_are,
    a_cable_with_a_size,
    a_channel_of_the_box_at_its_beginning,
    a_channel_of_this_box,
    a_channel_that_no_other_run_hangs_on,
    a_chassis_part_of_this_plan,
    a_draw_in_w_a_or_ohm,
    a_feed_of_the_accessories_volts,
    a_feed_of_this_plan,
    a_feed_that_loads_can_hang_on,
    a_fuse_of_this_plan,
    a_group_of_this_box,
    a_length_up_to_200_m,
    a_load_of_this_plan,
    a_load_or_inverter_of_this_plan,
    a_load_with_a_feed_and_a_return,
    a_load_with_a_feed_of_its_own,
    a_name_and_a_draw_above_0,
    a_name_and_lines,
    twelve_months_or_none,
    all_three_or_none,
    a_time_and_volts_or_amps,
    a_number,
    a_roll_long_enough,
    a_plan_without_ways,
    an_outline,
    a_thing_that_stands_somewhere,
    where_it_stands,
    a_waypoint_of_this_plan,
    no_more_than_the_hottest,
    a_day_of_this_plan,
    a_part_of_a_day,

    a_name_for_the_load,
    a_name_numbers_and_words_as_the_shipped,
    a_name_of_its_own,
    a_number_of_its_own_from_1,
    a_number_that_can_be_held,
    a_place_of_this_plan,
    a_plan_with_a_battery,
    a_plan_with_a_chassis_part,
    a_plan_with_two_batteries,
    a_rail_of_these_volts,
    a_point_of_the_survey,
    a_run_of_this_plan,
    a_size_of_the_tables,
    a_size_such_as_10_awg_1_0_sae_8_or_25_mm2,
    a_state_of_this_plan,
    a_state_that_can_be_solved,
    a_table_of_readings,
    a_terminal_of_this_plan,
    a_terminal_of_this_vehicle,
    a_variant_of_this_plan,
    a_whole_number,
    an_efficiency_from_0_to_1,
    an_id_of_its_own,
    an_id_without_a_point,
    an_inverter_of_this_plan,
    another_circuit_than_its_own,
    another_end_than_its_beginning,
    at_least_one_channel,
    at_least_one_state,
    either_closed_or_opened,
    from_1_or_more,
    from_1_to_8_cables_side_by_side,
    from_41_to_300_c,
    from_60_to_250_c,
    how_it_behaves,
    json,
    key_engine_and_switches_since_it_runs_on,
    key_engine_and_switches_volts_circuits_and,
    key_off_accessory_running_or_after,
    mass_money_or_sizes,
    more_than_0,
    more_than_0_a,
    more_than_0_and_at_most_600_s,
    more_than_0_and_no_more_than_the_draw,
    more_than_0_m,
    no_more_cells_than_the_heading_has,
    no_more_than_length_m,
    no_more_than_the_run_s_length,
    nothing_only_a_ground_point_is_bonded,
    one_load_and_it_has_one_already,
    open_or_engine,
    point_key_drawn_at_and_volts,
    rising_rpm,
    rising_shares,
    shares_of_1_in_all,
    something_that_is_in_the_plan,
    the_name_of_a_point,
    the_name_of_one_of_the_plan_s_states,
    the_name_of_one_of_the_plan_s_variants_or,
    two_different_ends,
    two_loads_that_change_places,
    volts_from_100_to_100,
    volts_up_to_60_v,
    watts_amps_or_ohms,
    watts_since_it_runs_on_mains,
    your_rail_library,
    your_rail_plan,
};

inline constexpr int kWants = static_cast<int>(Want::your_rail_plan) + 1;

struct Wanted {
    Want what = Want::nothing;
    std::string value{}, most{};
    Wanted() = default;
    // NOLINTNEXTLINE(google-explicit-constructor): most say all with their name
    Wanted(Want w, std::string v = {}, std::string m = {})
        : what(w), value(std::move(v)), most(std::move(m)) {}
};

struct Error {
    ErrorCode code{};
    std::string place;  // where: a field, a line, an argument
    std::string given;  // what stood there
    Wanted wanted;      // what was expected
};

template <class T>
using Result = tl::expected<T, Error>;

[[nodiscard]] inline tl::unexpected<Error> fail(ErrorCode code, std::string place = {},
                                                std::string given = {}, Wanted wanted = {}) {
    return tl::unexpected<Error>(Error{code, std::move(place), std::move(given), std::move(wanted)});
}

}  // namespace yr
