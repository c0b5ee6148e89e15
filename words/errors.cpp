#include "words/sentences.h"

namespace yr::words {

// One place that words what an error wanted, as the end of "it takes ...".
std::string wanted_text(const Wanted& w) {
    switch (w.what) {
        case Want::nothing:
            return {};
        case Want::as_said:
            return w.value;
        case Want::a_quantity_in:
            return translated(w.value.c_str());
        case Want::less_than:
            return say("less than {0}", w.value);
        case Want::something_that_runs_in:
            return say("something that runs in {0}", w.value);
        case Want::between:
            return say("{0} to {1}", w.value, w.most);
        case Want::more_than_to:
            return say("more than {0}, to {1}", w.value, w.most);
        case Want::a_battery_of_this_plan:
            return translated("a battery of this plan");
        case Want::a_box_bus_bar_stud_or_battery_of_this_plan:
            return translated("a box, bus bar, stud or battery of this plan");
        case Want::a_box_only_a_box_has_channels:
            return translated("a box: only a box has channels");
        case Want::a_box_with_channels:
            return translated("a box with channels");
        case Want::a_cable_that_ends_on_it:
            return translated("a cable that ends on it");
        case Want::a_cable_whose_size_may_change_all_are:
            return translated("a cable whose size may change: all are pinned or of given resistance");
        case Want::a_cable_with_a_size:
            return translated("a cable with a size");
        case Want::a_channel_of_the_box_at_its_beginning:
            return translated("a channel of the box at its beginning");
        case Want::a_channel_of_this_box:
            return translated("a channel of this box");
        case Want::a_channel_that_no_other_run_hangs_on:
            return translated("a channel that no other run hangs on");
        case Want::a_chassis_part_of_this_plan:
            return translated("a chassis part of this plan");
        case Want::a_draw_in_w_a_or_ohm:
            return translated("a draw in W, A or ohm");
        case Want::a_feed_of_the_accessories_volts:
            return translated("a feed of the accessories' volts");
        case Want::a_feed_of_this_plan:
            return translated("a feed of this plan");
        case Want::a_feed_that_loads_can_hang_on:
            return translated("a feed that loads can hang on");
        case Want::a_fuse_of_this_plan:
            return translated("a fuse of this plan");
        case Want::a_group_of_this_box:
            return translated("a group of this box");
        case Want::a_length_up_to_200_m:
            return translated("a length up to 200 m");
        case Want::a_load_of_this_plan:
            return translated("a load of this plan");
        case Want::a_load_or_inverter_of_this_plan:
            return translated("a load or inverter of this plan");
        case Want::a_load_with_a_feed_and_a_return:
            return translated("a load with a feed and a return");
        case Want::a_load_with_a_feed_of_its_own:
            return translated("a load with a feed of its own");
        case Want::a_name_and_a_draw_above_0:
            return translated("a name and a draw above 0");
        case Want::a_name_for_the_load:
            return translated("a name for the load");
        case Want::a_name_numbers_and_words_as_the_shipped:
            return translated("a name, numbers and words as the shipped library has them");
        case Want::a_name_of_its_own:
            return translated("a name of its own");
        case Want::a_number_of_its_own_from_1:
            return translated("a number of its own from 1");
        case Want::a_place_of_this_plan:
            return translated("a place of this plan");
        case Want::a_plan_with_a_battery:
            return translated("a plan with a battery");
        case Want::a_plan_with_a_chassis_part:
            return translated("a plan with a chassis part");
        case Want::a_plan_with_two_batteries:
            return translated("a plan with two batteries");
        case Want::a_point_of_the_survey:
            return translated("a point of the survey");
        case Want::a_run_of_this_plan:
            return translated("a run of this plan");
        case Want::a_size_of_the_tables:
            return translated("a size of the tables");
        case Want::a_size_such_as_10_awg_1_0_sae_8_or_25_mm2:
            return translated("a size such as 10 AWG, 1/0, SAE 8 or 25 mm2");
        case Want::a_state_of_this_plan:
            return translated("a state of this plan");
        case Want::a_table_of_readings:
            return translated("a table of readings");
        case Want::a_terminal_of_this_plan:
            return translated("a terminal of this plan");
        case Want::a_terminal_of_this_vehicle:
            return translated("a terminal of this vehicle");
        case Want::a_variant_of_this_plan:
            return translated("a variant of this plan");
        case Want::a_whole_number:
            return translated("a whole number");
        case Want::an_efficiency_from_0_to_1:
            return translated("an efficiency from 0 to 1");
        case Want::an_id_of_its_own:
            return translated("an id of its own");
        case Want::an_id_without_a_point:
            return translated("an id without a point");
        case Want::an_inverter_of_this_plan:
            return translated("an inverter of this plan");
        case Want::another_circuit_than_its_own:
            return translated("another circuit than its own");
        case Want::another_end_than_its_beginning:
            return translated("another end than its beginning");
        case Want::at_least_one_channel:
            return translated("at least one channel");
        case Want::at_least_one_state:
            return translated("at least one state");
        case Want::from_1_or_more:
            return translated("1 or more");
        case Want::from_1_to_8_cables_side_by_side:
            return translated("1 to 8 cables side by side");
        case Want::from_41_to_300_c:
            return translated("41 to 300 C");
        case Want::from_60_to_250_c:
            return translated("-60 to 250 C");
        case Want::how_it_behaves:
            return translated("how it behaves");
        case Want::json:
            return translated("JSON");
        case Want::key_engine_and_switches_since_it_runs_on:
            return translated("key, engine and switches, since it runs on mains");
        case Want::key_engine_and_switches_volts_circuits_and:
            return translated(
                "key, engine and switches: volts, circuits and delays belong to the whole condition");
        case Want::key_off_accessory_running_or_after:
            return translated("key off, accessory, running or after");
        case Want::mass_money_or_sizes:
            return translated("mass, money or sizes");
        case Want::more_than_0:
            return translated("more than 0");
        case Want::more_than_0_a:
            return translated("more than 0 A");
        case Want::more_than_0_and_at_most_600_s:
            return translated("more than 0 and at most 600 s");
        case Want::more_than_0_and_no_more_than_the_draw:
            return translated("more than 0 and no more than the draw");
        case Want::more_than_0_m:
            return translated("more than 0 m");
        case Want::no_more_than_length_m:
            return translated("no more than length_m");
        case Want::no_more_than_the_run_s_length:
            return translated("no more than the run's length");
        case Want::nothing_only_a_ground_point_is_bonded:
            return translated("nothing: only a ground point is bonded");
        case Want::one_load_and_it_has_one_already:
            return translated("one load, and it has one already");
        case Want::open_or_engine:
            return translated("open or engine");
        case Want::point_key_drawn_at_and_volts:
            return translated("point, key, drawn at and volts");
        case Want::rising_rpm:
            return translated("rising rpm");
        case Want::rising_shares:
            return translated("rising shares");
        case Want::shares_of_1_in_all:
            return translated("shares of 1 in all");
        case Want::something_that_is_in_the_plan:
            return translated("something that is in the plan");
        case Want::the_name_of_a_point:
            return translated("the name of a point");
        case Want::the_name_of_one_of_the_plan_s_states:
            return translated("the name of one of the plan's states");
        case Want::the_name_of_one_of_the_plan_s_variants_or:
            return translated("the name of one of the plan's variants, or none");
        case Want::two_different_ends:
            return translated("two different ends");
        case Want::two_loads_that_change_places:
            return translated("two loads that change places");
        case Want::volts_from_100_to_100:
            return translated("volts from -100 to 100");
        case Want::volts_up_to_60_v:
            return translated("volts up to 60 V");
        case Want::watts_amps_or_ohms:
            return translated("watts, amps or ohms");
        case Want::watts_since_it_runs_on_mains:
            return translated("watts, since it runs on mains");
        case Want::your_rail_library:
            return translated("your-rail-library");
        case Want::your_rail_plan:
            return translated("your-rail-plan");
    }
    return {};
}

std::string sentence(const Error& e) {
    std::string where = e.place.empty() ? "" : e.place + ": ";
    const std::string wanted = wanted_text(e.wanted);
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
            return say("{0}{1} is not in this plan; it takes {2}.", where, given, wanted);
        case ErrorCode::unreadable_file:
            return say("{0} cannot be opened or read.", e.place);
        case ErrorCode::unwritable_file:
            return say("{0} cannot be written; the plan is still open and unsaved.", e.place);
    }
    return where;
}

}  // namespace yr::words
