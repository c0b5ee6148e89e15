#include "words/sentences.h"

namespace yr::words {

namespace {

// What each name says, as the end of "it takes …". Those with values are worded below.
struct WantText {
    Want what;
    const char* text;
};
constexpr WantText kWants[] = {
    {Want::a_battery_of_this_plan, later("a battery of this plan")},
    {Want::a_part_and_its_price,
     later("a part as the list of parts names it and its price: 2 AWG copper red 6.40")},
    {Want::money_an_hour, later("money an hour: 85 an hour")},
    {Want::a_thread_and_newton_metres, later("a thread and newton metres: M8 12 Nm")},
    {Want::what_is_crimped_on_it,
     later("ring, blade, ferrule, pin, splice or bare, M8, 45° or 90°, boot, doubled")},
    {Want::a_cable_between_them, later("two ends that a cable joins")},
    {Want::a_kind_of_thing, later("what kind of thing it is")},
    {Want::a_fuse_said_with_its_cable,
     later("the cable that it is in, such as: bus main from battery, fuse 100 A")},
    {Want::a_name_for_it, later("a name for it")},
    {Want::ah_or_cranking_amps, later("its Ah or its cranking amps")},
    {Want::amps, later("its amps, such as 30 A")},
    {Want::key_and_value, later("a field and its value, such as duty 0.3")},
    {Want::rail_volts, later("12, 24 or 48 V")},
    {Want::volts, later("its volts, such as 12.6 V")},
    {Want::watts, later("its watts, such as 200 W")},
    {Want::what_to_change, later("what is to change, such as 4x 20 W")},
    {Want::a_connector_of_this_plan, later("a connector of this plan")},
    {Want::a_jacket_of_this_plan, later("a cable of several cores of this plan")},
    {Want::a_pin_that_this_connector_has, later("a pin that this connector has")},
    {Want::a_share_from_0_to_1, later("a share from 0 to 1")},
    {Want::a_socket_of_the_tables, later("a socket of the tables, such as iso_11446")},
    {Want::a_box_bus_bar_stud_or_battery_of_this_plan, later("a box, bus bar, stud or battery of this plan")},
    {Want::a_box_only_a_box_has_channels, later("a box: only a box has channels")},
    {Want::a_box_with_channels, later("a box with channels")},
    {Want::a_cable_that_ends_on_it, later("a cable that ends on it")},
    {Want::a_cable_whose_size_may_change_all_are,
     later("a cable whose size may change: all are pinned, made already or of given resistance")},
    {Want::a_cable_with_a_size, later("a cable with a size")},
    {Want::a_channel_of_the_box_at_its_beginning, later("a channel of the box at its beginning")},
    {Want::a_channel_of_this_box, later("a channel of this box")},
    {Want::a_channel_that_no_other_run_hangs_on, later("a channel that no other run hangs on")},
    {Want::a_chassis_part_of_this_plan, later("a chassis part of this plan")},
    {Want::a_draw_in_w_a_or_ohm, later("a draw in W, A or ohm")},
    {Want::a_feed_of_the_accessories_volts, later("a feed of the accessories' volts")},
    {Want::a_feed_of_this_plan, later("a feed of this plan")},
    {Want::a_feed_that_loads_can_hang_on, later("a feed that loads can hang on")},
    {Want::a_fuse_of_this_plan, later("a fuse of this plan")},
    {Want::a_group_of_this_box, later("a group of this box")},
    {Want::a_length_up_to_200_m, later("a length up to 200 m")},
    {Want::a_load_of_this_plan, later("a load of this plan")},
    {Want::a_load_or_inverter_of_this_plan, later("a load or inverter of this plan")},
    {Want::a_load_with_a_feed_and_a_return, later("a load with a feed and a return")},
    {Want::a_load_with_a_feed_of_its_own, later("a load with a feed of its own")},
    {Want::an_outline, later("car, pickup, van, truck, tractor, all_terrain, buggy, trailer or cart")},
    {Want::a_time_and_volts_or_amps, later("a column of times and one of volts or amps")},
    {Want::a_number, later("a number")},
    {Want::a_roll_long_enough, later("a roll that is long enough")},
    {Want::a_plan_without_ways, later("a plan that has no ways yet")},
    {Want::a_thing_that_stands_somewhere, later("a thing that can stand somewhere")},
    {Want::all_three_or_none, later("all three of x_m, y_m and z_m, or none")},
    {Want::where_it_stands, later("where it stands: x_m, y_m and z_m")},
    {Want::a_waypoint_of_this_plan, later("a waypoint of this plan")},
    {Want::twelve_months_or_none, later("twelve months, or none")},
    {Want::no_more_than_the_hottest, later("no more than the hottest hour")},
    {Want::a_day_of_this_plan, later("a day of this plan")},
    {Want::a_part_of_a_day, later("parts such as driving 2 h, 3x hoisting 20 min within, overnight 12 h")},
    {Want::a_name_and_lines, later("a name and at least one line")},
    {Want::a_name_and_a_draw_above_0, later("a name and a draw above 0")},
    {Want::a_name_for_the_load, later("a name for the load")},
    {Want::a_name_numbers_and_words_as_the_shipped,
     later("a name, numbers and words as the shipped library has them")},
    {Want::a_name_of_its_own, later("a name of its own")},
    {Want::a_number_that_can_be_held, later("a number of usual size")},
    {Want::a_number_of_its_own_from_1, later("a number of its own from 1")},
    {Want::a_place_of_this_plan, later("a place of this plan")},
    {Want::a_plan_with_a_battery, later("a plan with a battery")},
    {Want::a_plan_with_a_chassis_part, later("a plan with a chassis part")},
    {Want::a_plan_with_two_batteries, later("a plan with two batteries")},
    {Want::a_rail_of_these_volts,
     later("a rail of such volts (a line like “converter 12 V 20 A” makes one)")},
    {Want::a_point_of_the_survey, later("a point of the survey")},
    {Want::a_run_of_this_plan, later("a run of this plan")},
    {Want::a_size_of_the_tables, later("a size of the tables")},
    {Want::a_size_such_as_10_awg_1_0_sae_8_or_25_mm2, later("a size such as 10 AWG, 1/0, SAE 8 or 25 mm2")},
    {Want::a_state_of_this_plan, later("a state of this plan")},
    {Want::a_state_that_can_be_solved, later("a state that can be solved")},
    {Want::a_table_of_readings, later("a table of readings")},
    {Want::a_terminal_of_this_plan, later("a terminal of this plan")},
    {Want::a_terminal_of_this_vehicle, later("a terminal of this vehicle")},
    {Want::a_variant_of_this_plan, later("a variant of this plan")},
    {Want::a_whole_number, later("a whole number")},
    {Want::an_efficiency_from_0_to_1, later("an efficiency from 0 to 1")},
    {Want::an_id_of_its_own, later("an id of its own")},
    {Want::an_id_without_a_point, later("an id without a point")},
    {Want::an_inverter_of_this_plan, later("an inverter of this plan")},
    {Want::another_circuit_than_its_own, later("another circuit than its own")},
    {Want::another_end_than_its_beginning, later("another end than its beginning")},
    {Want::at_least_one_channel, later("at least one channel")},
    {Want::at_least_one_state, later("at least one state")},
    {Want::either_closed_or_opened, later("one of the two")},
    {Want::from_1_or_more, later("1 or more")},
    {Want::from_1_to_8_cables_side_by_side, later("1 to 8 cables side by side")},
    {Want::from_41_to_300_c, later("41 to 300 C")},
    {Want::from_60_to_250_c, later("-60 to 250 C")},
    {Want::how_it_behaves, later("how it behaves")},
    {Want::json, later("JSON")},
    {Want::key_engine_and_switches_since_it_runs_on,
     later("key, engine and switches, since it runs on mains")},
    {Want::key_engine_and_switches_volts_circuits_and,
     later("key, engine and switches: volts, circuits and delays belong to the whole condition")},
    {Want::key_off_accessory_running_or_after, later("key off, accessory, running or after")},
    {Want::mass_money_or_sizes, later("mass, money or sizes")},
    {Want::more_than_0, later("more than 0")},
    {Want::more_than_0_a, later("more than 0 A")},
    {Want::more_than_0_and_at_most_600_s, later("more than 0 and at most 600 s")},
    {Want::more_than_0_and_no_more_than_the_draw, later("more than 0 and no more than the draw")},
    {Want::more_than_0_m, later("more than 0 m")},
    {Want::no_more_cells_than_the_heading_has,
     later("no more cells than the heading has; a decimal comma needs quotes here")},
    {Want::no_more_than_length_m, later("no more than length_m")},
    {Want::no_more_than_the_run_s_length, later("no more than the run's length")},
    {Want::nothing_only_a_ground_point_is_bonded, later("nothing: only a ground point is bonded")},
    {Want::one_load_and_it_has_one_already, later("one load, and it has one already")},
    {Want::open_or_engine, later("open or engine")},
    {Want::point_key_drawn_at_and_volts, later("point, key, drawn at and volts")},
    {Want::rising_rpm, later("rising rpm")},
    {Want::rising_shares, later("rising shares")},
    {Want::shares_of_1_in_all, later("shares of 1 in all")},
    {Want::something_that_is_in_the_plan, later("something that is in the plan")},
    {Want::the_name_of_a_point, later("the name of a point")},
    {Want::the_name_of_one_of_the_plan_s_states, later("the name of one of the plan's states")},
    {Want::the_name_of_one_of_the_plan_s_variants_or,
     later("the name of one of the plan's variants, or none")},
    {Want::two_different_ends, later("two different ends")},
    {Want::two_loads_that_change_places, later("two loads that change places")},
    {Want::volts_from_100_to_100, later("volts from -100 to 100")},
    {Want::volts_up_to_60_v, later("volts up to 60 V")},
    {Want::watts_amps_or_ohms, later("watts, amps or ohms")},
    {Want::watts_since_it_runs_on_mains, later("watts, since it runs on mains")},
    {Want::your_rail_library, "your-rail-library"},
    {Want::your_rail_plan, "your-rail-plan"},
};

}  // namespace

std::string wanted_text(const Wanted& w) {
    for (const WantText& row : kWants)
        if (row.what == w.what) return translated(row.text);
    if (w.what == Want::a_quantity_in) return translated(w.value.c_str());
    if (w.what == Want::less_than) return say("less than {0}", w.value);
    if (w.what == Want::something_that_runs_in) return say("something that runs in {0}", w.value);
    if (w.what == Want::between) return say("{0} to {1}", w.value, w.most);
    if (w.what == Want::either_of) return say("{0} or as {1}", w.value, w.most);
    if (w.what == Want::more_than_to) return say("more than {0}, to {1}", w.value, w.most);
    return w.value;  // as said
}

std::string printable(std::string text) {
    constexpr std::size_t most = 300;
    if (text.size() > most) {
        std::size_t cut = most;
        while (cut > 0 && (static_cast<unsigned char>(text[cut]) & 0xC0) == 0x80)
            --cut;  // not inside a letter
        text = text.substr(0, cut) + "\xE2\x80\xA6";
    }
    for (char& c : text)
        if (static_cast<unsigned char>(c) < 0x20 || c == 0x7f) c = '?';
    return text;
}

std::string sentence(const Error& original) {
    Error e = original;
    e.place = printable(std::move(e.place));
    e.given = printable(std::move(e.given));
    std::string where = e.place.empty() ? "" : e.place + ": ";
    const std::string wanted = printable(wanted_text(e.wanted));
    const std::string given =
        e.given.empty() ? translated("nothing") : "\xE2\x80\x9C" + e.given + "\xE2\x80\x9D";
    switch (e.code) {
        case ErrorCode::empty:
            return say("{0}nothing stands here; {1} is needed.", where, wanted);
        case ErrorCode::not_a_number:
            return say("{0}{1} holds no number; {2} is needed.", where, given, wanted);
        case ErrorCode::unknown_unit:
            return say("{0}the unit {1} is not known; {2} is needed.", where, given, wanted);
        case ErrorCode::wrong_dimension:
            return say("{0}{1} is of another kind; {2} is needed.", where, given, wanted);
        case ErrorCode::out_of_range:
            return say("{0}{1} cannot be; it takes {2}.", where, given, wanted);
        case ErrorCode::unknown_size:
            return say("{0}no table holds the size {1}; it takes {2}.", where, given, wanted);
        case ErrorCode::unknown_name:
            return say("{0}{1} is not known here; it takes {2}.", where, given, wanted);
        case ErrorCode::bad_json:
            return say("{0}the file breaks off or is damaged here: this is not JSON.", where);
        case ErrorCode::not_a_plan:
            return say("{0}this is not a Your Rail plan; its {1} is not what a plan has.", where,
                       e.place.empty() ? translated("content") : translated("format mark"));
        case ErrorCode::newer_version:
            return say("{0}the plan was written by a later version ({1}); this program reads up to {2}.",
                       where, e.given, wanted);
        case ErrorCode::schema:
            return say("{0}{1} does not fit the plan format: {2}", where,
                       e.given.empty() ? translated("this") : given, wanted);
        case ErrorCode::duplicate_id:
            return say("{0}the id {1} is used twice; each thing takes one of its own.", where, given);
        case ErrorCode::missing_reference:
            if (e.given.empty()) return say("{0}there is none in this plan; it takes {1}.", where, wanted);
            return say("{0}{1} is not in this plan; it takes {2}.", where, given, wanted);
        case ErrorCode::unreadable_file:
            return e.given.empty() ? say("{0} cannot be opened or read.", e.place)
                                   : say("{0} cannot be opened or read ({1}).", e.place, e.given);
        case ErrorCode::unwritable_file:
            return e.given.empty()
                       ? say("{0} cannot be written; nothing there was changed.", e.place)
                       : say("{0} cannot be written ({1}); nothing there was changed.", e.place, e.given);
        case ErrorCode::file_exists:
            return say("{0} exists already and was left as it is.", e.place);
        case ErrorCode::not_a_file:
            return say("{0} is a folder or a device, not a file.", e.place);
        case ErrorCode::too_large:
            return say("{0}this is too long; it takes {1} at most.", where, wanted);
        case ErrorCode::too_deep:
            return say("{0}this is nested too deep; a plan needs no more than {1} levels.", where, wanted);
        case ErrorCode::doubled_key:
            return say("{0}the field {1} stands here twice; which of the two counts?", where, given);
        case ErrorCode::control_character:
            return say("{0}a letter stands here that cannot be printed, such as a line break in a name.",
                       where);
        case ErrorCode::two_readings:
            return say("{0}{1} can be read as {2}: write it so that only one is possible.", where, given,
                       wanted);
        case ErrorCode::not_utf8:
            return say("{0} is not text in UTF-8; save it so and try again.", e.place);
    }
    return where;
}

}  // namespace yr::words
