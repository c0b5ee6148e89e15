// What is wrong or worth a look, as data: place, number, rule, severity and the smallest change that clears
// it. Sentences are made in words/. One file per family of rules: supply, cables, fuses, liveness.
#pragma once

#include <atomic>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "plan/edit.h"
#include "size/ranges.h"
#include "size/run_ladder.h"

namespace yr {

enum class Severity { stop, fix, check, note };  // hazard; outside the rule; judgement; for information

enum class FindingKind {
    drop_over_limit,         // id load; value, limit V
    no_operating_point,      // id load; value: share of its power that can be served
    load_dead,               // id load: wanted in this state, nothing feeds it
    constant_on_key_rail,    // id load, other: the run that opens with the key
    cable_over_ampacity,     // id run; value A, limit A
    cable_over_temperature,  // id run; value C, limit C
    fuse_above_cable,        // id run, other: device; value A, limit A
    fuse_volts,              // id run, other: device; value: the rail, limit: what the fuse is made for, V
    fuse_missing,     // id run, other: terminal of the end; value: what the feed there could carry, A (0:
                      // unfused)
    fuse_far,         // id run, other: device; value, limit m
    supply_short,     // id battery; value A it gives while the engine runs; hours until half
    battery_drains,   // id battery; value A with the engine off; hours until half
    source_at_limit,  // id source; value A
    converter_dead,   // id source: wanted, its input is dead
    return_thinner,   // id return run, other: supply run; value, limit mm2
    ground_thin,      // id run between a battery and metal; other: the largest fuse that a short to the metal
                      // would come back from; value: its rating, A, limit: copper of the run, mm2
    never_runs,       // id load, the heaviest of those that no state lets run; value: how many they are
    rests_on_assumption,  // id thing; value: how many
    no_charge_left,       // id battery; other: source at its limit; value A it takes, limit A it would
    never_charged,        // id battery
    charged_too_high,     // id battery; value, limit V
    charged_too_cold,     // id battery; value C
    battery_cranks,       // id battery that is not for cranking; value A it gives the starter
    shares_unequally,     // id, other: batteries joined, or regulators of one winding; value, limit: shares
    will_not_crank,       // id battery; value, limit V at its posts while cranking
    cranks_for,         // id battery; hours until it no longer cranks; limit: the charge at which it does not
    volts_outside,      // id load; value V, limit V: its own window
    inverter_over,      // id inverter; value, limit VA
    inverter_surge,     // id inverter; value, limit VA
    converter_surge,    // id source; value A, limit A
    modified_sine,      // id load; other: inverter
    stays_charged,      // id source; value s
    interrupt_low,      // id run; other: fuse; value: the battery's short-circuit A, limit: what the fuse
                        // interrupts
    start_up,           // id run; other: fuse that would see it; value A, limit A; everything starts at once
    chatters,           // id device
    stands_as_it_came,  // id device; both positions are settled
    alive_with_master_open,  // id device; other: first thing alive; value: how many
    relay_defeated,          // id device; other: source whose least volts are below closing; value, limit V
    channel_over,            // id load; other: box; value, limit A
    channel_start,           // id load; other: box; value: its start, limit: what the channel stands, A
    group_over,              // id box; other: group; value: what can be on together, limit A
    box_main_over,           // id box; other: its feed's fuse, or empty: its own main; value, limit A
    forgets,          // id load that must be constant; other: box whose channels stay off after a power loss
    tap_over,         // id run that taps; other: fuse; value: both together, limit A
    contact_over,     // id device; value, limit A
    coil_kick,        // id coil; other: control unit on the same feed
    load_alive,       // id load; other: run: runs in this state though nothing asks for it
    key_on_constant,  // id feed that is always live; other: first load; value: how many have but their own
                      // switch to follow the key
    signal_missing,   // id load; value: seconds after its supply
    signal_early,     // id load, other its signal; value, limit: seconds after its supply
    shares_ground,    // id sensitive load; other: heavy load on the same return, or the metal; value A of it
    parked_draw,  // id what draws; other: battery; value its A, limit: of all, A; hours: it alone, to half
    short_stays,  // id run; other: device on the way of what stays, or a run of that way without one; value:
                  // A that stay of a short at its far end when all that is sure to open has opened
    short_hurts,  // id run; other: device; value C reached before it opens, limit C
    short_upstream,    // id run; other: device further up that may open first; value: its earliest s, limit:
                       // latest s of the near one
    interrupt_short,   // id run; other: fuse; value: A of a short behind it, limit: what it interrupts
    start_opens_fuse,  // id run; other: fuse; value: A at start, limit: what it holds for so long, A
    fuse_loaded,       // id run; other: fuse; value A, limit: what it carries for ever, A
    fuse_kind_hot,     // id run; other: fuse of a kind that runs hot in steady use; value A, limit A
    breaker_recloses,  // id run; other: breaker that closes on to a short again and again; value A
    parallel_shares,   // id, other: runs side by side; value: share of the one that carries more, limit: fair
                       // share
    parallel_left,     // id run; other: its twin; value A if that one is gone, limit A
    aluminium_core,    // id run; value: its resistance against copper's
    lug_misfit,        // id run; other: terminal; value: hole, limit: bolt, mm
    terminal_small,    // id run; other: terminal; value, limit mm2
    bend_tight,        // id run; value: bend on its way, limit: least radius, mm
    joint_drop,        // id run; value: V lost in its joints, limit V
    cable_drop,        // id run; value, limit V: service limit of one cable
    starter_drop,      // id run of the starter circuit; value: V lost both ways, limit V
    strap_thin,        // id strap; other: the feed it returns; value, limit mm2
    duty_hot,          // id run; value C at the end of its longest turn, limit C
    management_first,  // id battery; value: A of a short, limit: A at which its own management opens
    management_opens,  // id battery; other: inverter that may ask it at its rating, or empty; value: A asked
                       // of it, limit: A at which its own management opens
    range_over,        // id load; value: V lost at most within the plan's ranges, limit V
    no_answer,         // state alone: the circuit was not solved there, nothing is concluded from it
    wrong_way_round,   // id battery, other: the battery or source that it is joined to against its poles;
                       // value A
    volts_fight,       // id, other: battery or source, joined, made for other volts; value V, limit V
    volts_foreign,     // id load that states no most volts; value V, limit: the plan's nominal V
    fed_backwards,     // id load whose feed comes in at its negative end; value V
    short_unsolved,    // id run: a short at its far end has no answer
    state_names_nothing,  // other: what the state closes, opens or pulls and the plan does not have
    demand_over,  // id run; other: source, battery or inverter for which, or empty: all behind it together;
                  // value A that it may have to carry, limit: what it stands
    fuse_above_channel,  // id run; other: fuse; value A, limit: what its channel is made for, A
    converter_starved,  // id source: no volts exist at which it gets its power; value A it would have to give
    converter_over,     // id converter that alone feeds its rail; value: A asked of it, limit: A it gives
    cutoff_deep,        // id cut-off or inverter, other: battery; value: V at which it opens, limit V
    turn_opens_fuse,  // id run; other: fuse; state; value: A for `hours` at a stretch, limit: what it is sure
                      // to hold for so long, A
    guards_not,  // id run; other: fuse; value: C that the cable reaches before it is sure to open, limit C
    idle_elsewhere,  // id alternator; state; value: A it gives there cold, limit: A stated at idle
    pin_over,        // id run; other: connector; value A through each of its pins, limit A
    pins_beside,  // id run, other: connector; value: pin that always has volts, limit: the ground beside it
    pin_twice,    // id run, other: connector; value: the pin, limit: how many are in it
    jacket_differs,    // id jacket; value: longest core, limit: shortest, m
    jacket_full,       // id jacket; value: cores that are used, limit: that it has
    lugs_many,         // id point or battery, other: terminal; value, limit: lugs on one bolt
    terminals_near,    // id; value, limit: mm between its bare terminals
    round_sensor,      // id run, other: sensor that it goes round
    trigger_unsteady,  // id coil or box, other: device that gives it pulses
    metals_meet,       // id ground point, other: the aluminium or stainless that it stands on
    // of a day (days.h): `day` and `at_s` say when
    day_no_start,  // id battery; value: on which day in a row, from 1
    day_dark,      // id load; value: s without supply on that day, limit: on which day in a row
    day_sinks,     // id battery; value: share of its charge lost a day, limit: days until it is empty
    day_trips,     // id cut-off, inverter or box; value: times a day
    day_bulk,      // id charger; other: battery; value: s that it works a day without getting to float
    day_half,      // id battery of lead; value: its highest charge on a day that repeats, limit
    day_float,     // id charger; other: battery of lithium; value: s a day that it is held full
    store_low,     // id portable store; value: its charge in the end, 0..1
    // of where things stand and cables lie (places.h)
    way_length,   // id run; value: m along its way, limit: what is said
    way_barred,   // id run, other: place that cables keep clear of; value: m of it there
    way_missing,  // id run whose ends stand somewhere and no way joins them
    way_bundle,   // id run whose length is said, other: way; value: A it stands in its bundle there, limit: A
                  // that it must
    way_flexes,   // id run, other: way that flexes
    way_hot,  // id run, other: place so short that ampacity does not count it; value: its copper there, C (or
              // the air, if hotter), limit: what its insulation bears
    passage_full,  // id waypoint; value: share of its bore, limit
    passage_edge,  // id waypoint whose edge is bare; value: cables through it
    passage_open,  // id waypoint, other: the wet place; value: cables through it
    stands_badly   // id thing, other: the place in which it stands
};
inline constexpr std::size_t kFindingKinds = static_cast<std::size_t>(FindingKind::stands_badly) + 1;

enum class MendKind {
    none,
    size,
    two_sizes,
    fuse_rating,
    fuse_type,
    add_fuse,
    move_fuse,
    move_load,
    waveform,
    move_channel,      // target load, to_point box, channel
    suppress,          // target device
    add_signal,        // target load
    later_signal,      // target load or device that delays; from_A, to_A: s after the supply
    own_return,        // target run
    lug,               // from_A, to_A: hole before and after, mm
    stagger,           // starts one after another
    second_pin,        // target run, to_point connector, channel: the pin that it takes as well
    more_capacity,     // target battery; from_A, to_A: Ah
    more_sun,          // target panel; from_A, to_A: W
    more_engine,       // target state; to_A: s more of it a day
    less_draw,         // target load; from_A, to_A: share of the time
    typed_length,      // target run; from_A, to_A: m
    bore,              // target waypoint; from_A, to_A: mm
    guard_edge,        // target waypoint
    seal,              // target waypoint
    behind_master,     // target master device, to_point the bus bar behind it; from_A, to_A: its contacts as
                       // said and larger ones, where those are needed; to_A 0: as said
    insulation,        // target run; from_A, to_A: C that it bears
    larger_converter,  // target converter; from_A, to_A: A that it gives
    side_by_side       // target run; from_A, to_A: how many cables
};

// The smallest change found that clears the finding; verified by solving the changed plan.
struct Mend {
    MendKind kind = MendKind::none;
    Edit edit;
    Id target;                         // run, device or load that it changes
    std::optional<WireSize> from, to;  // size
    double from_A = 0, to_A = 0;       // fuse
    Id to_point;                       // move_load, move_channel
    int channel = 0;                   // move_channel
};

struct Finding {
    FindingKind kind{};
    Severity severity = Severity::note;
    Id id;
    std::string other;
    Id state;  // the worst state; empty where the state plays no part
    double value = 0, limit = 0;
    std::optional<double> hours;
    Id biggest_run;  // drop: the run that loses most of it
    double biggest_V = 0;
    std::optional<Mend> mend;         // closed: proved to clear this and to make nothing else a stop or fix
    std::vector<Mend> candidates{};   // changes that may do, not proved yet, the likeliest first
    std::optional<double> average{};  // of `value` by the loads' duty, where that differs: `hours` rests on
                                      // it; below 0: it is charged
    std::optional<double> peak_hours{};  // on `value` itself, where `average` differs
    bool lasts = false;                  // on average it never gets there
    Id ends{};                           // a cut-off that ends the discharge before; empty: none
    Id day{};                            // the day that it is about; empty: none
    double at_s = -1;   // when, from the beginning of the first of such days; below 0: always
    Id parts{};         // what opens on the way down and leaves the battery alone; empty: nothing
    double then_A = 0;  // what it gives from then on, on average; `hours` rest on the whole way
    friend bool same_place(const Finding& a, const Finding& b) {
        return a.kind == b.kind && a.id == b.id && a.other == b.other;
    }
};

struct KnownShorts;  // guard/fault_study.h

struct Inspection {
    std::vector<Finding> findings;    // most severe first, then by how far over
    std::vector<Solution> solutions;  // by state, in the plan's order; one without an answer is told as such
    std::vector<StateBands> bands;    // by state, where the plan states ranges; else empty
    // What was asked of shorts on the way to candidates, for those who prove them; empty where none were
    // sought.
    std::shared_ptr<const KnownShorts> shorts{};
};

// All rules over all states. `with_mends` also searches the smallest changes and proves each on the whole
// plan, which takes an inspection a candidate; `cancel` leaves those that are not proved out.
[[nodiscard]] Inspection inspect(const Plan& plan, bool with_mends = true,
                                 const std::atomic<bool>* cancel = nullptr);

// The two halves of that: candidates are searched, then proved. `only`: whose candidates are wanted; what is
// quickly found is there for others as well.
[[nodiscard]] Inspection inspect_with_candidates(const Plan& plan,
                                                 const std::vector<const Finding*>* only = nullptr);
// One by one where that takes a second at most, else together (close_together.h).
void close_mends(const Plan& plan, Inspection& inspection, const std::atomic<bool>* cancel = nullptr);

// Of one finding: `before` holds all of the plan as it is.
void close_mend(const Plan& plan, const std::vector<Finding>& before, Finding& finding,
                const std::atomic<bool>* cancel = nullptr);

// The stops and fixes of `after` that `before` did not have, or has worse.
[[nodiscard]] std::vector<const Finding*> new_or_worse(const std::vector<Finding>& before,
                                                       const std::vector<Finding>& after);

// What no mend may bring: those, and a fuse that in some heat lets its cable burn, or burn hotter, though
// that is only something to check.
[[nodiscard]] std::vector<const Finding*> harm_of_mend(const std::vector<Finding>& before,
                                                       const std::vector<Finding>& after);

// The stops and fixes that an edit would bring, or make graver. Empty also where it cannot be applied.
[[nodiscard]] std::vector<Finding> made_worse(const Plan& plan, const Edit& edit);

// Whether what was asked is told no more, or as less grave in other states only.
[[nodiscard]] bool cleared(const Finding& asked, const std::vector<Finding>& after);

// Whether an edit clears the finding and does no harm. `findings`: of the plan as it is.
[[nodiscard]] bool closes(const Plan& plan, const std::vector<Finding>& findings, const Finding& asked,
                          const Edit& edit);

}  // namespace yr

// compiled once, in findings.cpp
extern template class std::vector<yr::Mend>;
extern template class std::vector<yr::Finding>;
