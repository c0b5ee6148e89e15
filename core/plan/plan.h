// The plan: what a person says about one vehicle's supply. Plain values, cheap to copy, no behaviour.
//
// Conductors join *terminals* (terminal.h): a point itself; the pos and neg of a battery, inverter or load;
// the out of a source and, where it is a converter, its in (a source's negative is `return_at`). Anything
// unknown is an empty optional; what is taken instead is in data/catalog/assumptions.json and every result
// names it. Ids are stable and unique over the whole plan; names are free text.
#pragma once

#include <functional>
#include <optional>
#include <string>
#include <unordered_map>
#include <utility>
#include <vector>

#include "catalog/ampacity.h"
#include "catalog/batteries.h"
#include "catalog/conductors.h"
#include "catalog/fuses.h"
#include "plan/condition.h"
#include "plan/geometry.h"
#include "plan/joining.h"
#include "plan/terminal.h"
#include "units/compiled_once.h"
#include "units/wire_size.h"

namespace yr {

enum class Chassis { steel, aluminium, none };

struct Vehicle {
    std::string name;
    std::string kind;
    double nominal_V = 12;  // 12, 24 or 48; of the accessories
    Chassis chassis = Chassis::steel;
    Outline outline = Outline::none;
    std::optional<double> long_m{}, wide_m{}, high_m{};  // over all; empty: as such vehicles are
    std::optional<double> wheelbase_m{};
    std::optional<double> nose_m{};  // from the front axle forward to its end
    // A picture from above that lies under the plan: path beside the plan's file, metres a pixel, where its
    // left upper corner is (front left of the vehicle: the picture's up is the vehicle's front at the left).
    std::string picture{};
    std::optional<double> picture_m{}, picture_x_m{}, picture_y_m{};
    // Of the job, for printed pages alone.
    std::string customer{}, registration{}, job_date{};
    friend bool operator==(const Vehicle&, const Vehicle&) = default;
};

struct Place {
    Id id;
    std::string name;
    bool engine_space = false;  // its air is the state's engine-bay temperature
    Stand at{};                 // of its front left lower corner
    std::optional<double> long_m{}, wide_m{}, high_m{};
    std::optional<double> air_K{};  // its air is so much hotter than the state's
    std::optional<double> air_C{};  // or always this
    bool wet = false;               // water gets there
    Hazard hazard = Hazard::none;   // a place with two of them is two places
    bool people = false;            // where people sit
    bool cold_air = false;          // an outlet of cooled air: water condenses
    bool mounting = false;          // boxes, buses and the like may be screwed on there
    Remarks remarks{};
    friend bool operator==(const Place&, const Place&) = default;
};

// splice: several ends of cable joined for good, without a bolt
enum class PointKind { stud, bus, box, chassis, ground, splice };

// One output of a control box. What hangs on it is a run with this channel's number; the fitted fuse and the
// driver that switches it are devices of that run at its beginning.
struct Channel {
    int number = 1;                    // unique in its box, from 1
    std::string label;                 // what the panel says; empty: the load's name
    std::optional<double> rating_A{};  // what it may carry for ever
    std::optional<double> peak_A{};    // for a start of a second or so; empty: by the kind of output
    std::string group{};               // channels with the same word share that group's limit
    friend bool operator==(const Channel&, const Channel&) = default;
};

struct ChannelGroup {
    std::string name;
    double limit_A = 0;  // of its channels together, above 0
    friend bool operator==(const ChannelGroup&, const ChannelGroup&) = default;
};

enum class OutputKind { relay, solid_state };

struct Point {
    Id id;
    std::string name;
    PointKind kind = PointKind::stud;
    Id place;
    Id bonded_to;                           // ground: the chassis part under it
    std::optional<double> bond_ohm;         // ground: resistance of that bond
    Terminal return_at;                     // bus, box: where home-runs of its loads end
    bool feeds_loads = false;               // shown as a feed; loads may be hung on it
    std::vector<Channel> channels{};        // box
    std::vector<ChannelGroup> groups{};     // box: limits that channels share
    std::optional<double> main_A{};         // box: all channels together
    std::optional<double> standby_W{};      // box: its own draw while it has volts
    OutputKind output = OutputKind::relay;  // box
    bool remembers = true;                  // box: channels come back by themselves after a power loss
    std::optional<double> stud_mm{};        // thread of its bolts: 8 for M8
    std::optional<double> most_mm2{};       // thickest copper that its terminals take
    std::optional<double> most_lugs{};      // on one bolt
    Metal metal = Metal::unknown;
    std::optional<double> apart_mm{};   // its positive and negative terminals, bare metal to bare metal
    bool sealed = false;                // splice: against water
    std::optional<double> sleep_W{};    // box: its own draw while it sleeps
    Condition awake_when{};             // box: takes standby_W; else it sleeps
    std::optional<double> cutoff_V{};   // box: its channels open below, while it goes on drawing itself
    std::optional<double> recover_V{};  // box: and close again from
    std::optional<double> cutoff_s{};   // box: only after so long below
    Stand at{};
    Remarks remarks{};
    friend bool operator==(const Point&, const Point&) = default;
};

// alternator and stator are turned by the engine; a converter takes its amps from another rail; shore is a
// charger on mains, solar a panel with its controller
enum class SourceKind { alternator, stator, converter, shore, solar };

// Regulated behind a droop until its limit, then a current source; blocks reverse current.
struct Source {
    Id id;
    std::string name;
    SourceKind kind = SourceKind::alternator;
    Id place;
    Terminal return_at;             // where its negative is bolted: engine block, bus, battery post
    std::optional<double> rated_A;  // ISO 8854 at 6000 rpm of its shaft; a converter's limit
    std::optional<double> idle_A;   // at the low-speed point
    std::vector<std::pair<double, double>> curve;  // shaft rpm, A; empty: from rated and idle
    std::optional<double> pulley_ratio;
    std::optional<double> regulated_V;
    std::optional<double> droop_ohm;
    std::optional<double> efficiency;  // converter, 0..1
    std::optional<double> standby_W;   // converter
    Condition works_when;
    std::optional<double> least_V{};          // regulated by a control unit down to this
    std::string winding{};                    // stator: regulators with the same word hang on one winding
    std::optional<double> share{};            // stator: of its winding's output, 0..1
    std::optional<double> regulator_A{};      // stator: the most its regulator passes
    std::optional<double> panel_W{};          // solar, at 1000 W/m2
    Id charges{};                             // battery whose charge decides between absorption and float
    std::optional<double> float_V{};          // regulated once that battery is full; empty: no float stage
    std::optional<double> enable_on_V{};      // converter: input volts at which it starts ...
    std::optional<double> enable_off_V{};     // ... and below which it stops
    std::optional<double> surge_A{};          // converter: for a few seconds
    std::optional<double> stays_charged_s{};  // its lines hold a charge this long after switch-off
    std::optional<double> stud_mm{};          // thread of its output's bolt
    std::optional<double> price{};
    Stand at{};
    Remarks remarks{};
    friend bool operator==(const Source&, const Source&) = default;
};

enum class CrankingStandard { sae, en };  // SAE J537 (7.2 V at 30 s) or EN 50342-1 (7.5 V at 10 s), -18 C

struct Battery {
    Id id;
    std::string name;
    Chemistry chemistry = Chemistry::flooded;
    Id place;
    std::optional<double> nominal_V;    // empty: the vehicle's
    std::optional<double> capacity_Ah;  // at 20 h
    std::optional<double> cranking_A;   // by `cranking_standard`
    std::optional<double> R0_ohm;       // at 25 C
    std::optional<double> charge;       // 0..1
    CrankingStandard cranking_standard = CrankingStandard::sae;
    std::optional<double> reserve_min{};    // minutes at 25 A; gives the capacity where that is unknown
    std::optional<double> health{};         // 0..1: share of its capacity left; resistance grows by as much
    std::optional<double> peukert{};        // exponent; empty: by chemistry
    std::optional<double> charge_most_V{};  // highest charging volts it bears; empty: by chemistry
    std::optional<double> price{};
    std::optional<double> stud_mm{};    // thread of its posts' bolts
    std::optional<double> cuts_at_A{};  // its own management opens at once above this
    std::optional<double> apart_mm{};   // its posts, bare metal to bare metal
    // In time (day/cell.h); empty: by chemistry.
    std::optional<double> charge_efficiency{};            // share of what is put in that comes out again
    std::optional<double> self_discharge{};               // share of its charge lost in 30 days at rest
    std::optional<double> rc1_ohm{}, rc1_s{};             // what sags in seconds after the amps, and how fast
    std::optional<double> rc2_ohm{}, rc2_s{};             // what sags in minutes
    std::vector<std::pair<double, double>> cycle_life{};  // depth of a cycle 0..1, cycles until 80 % are left
    Stand at{};
    Remarks remarks{};
    friend bool operator==(const Battery&, const Battery&) = default;
};

enum class Waveform { pure, modified };

// Mains from the rail. What it takes follows from the AC loads behind it.
struct Inverter {
    Id id;
    std::string name;
    Id place;
    std::optional<double> continuous_W;
    std::optional<double> surge_W;
    Waveform waveform = Waveform::pure;
    std::optional<double> efficiency;  // near full load, 0..1
    std::vector<std::pair<double, double>>
        curve;  // share of continuous, efficiency; empty: standby and efficiency
    std::optional<double> standby_W;
    std::optional<double> cutoff_V, recover_V;  // stops below, starts again above; empty: never stops
    double mains_V = 230;
    Condition works_when;
    std::optional<double> price;
    std::optional<double> off_W{};     // still taken while it is switched off
    std::optional<double> apart_mm{};  // its terminals, bare metal to bare metal
    Stand at{};
    Remarks remarks{};
    friend bool operator==(const Inverter&, const Inverter&) = default;
};

enum class DrawKind { current, power, resistance };

struct Draw {
    DrawKind kind = DrawKind::power;
    double value = 0;  // A, W or ohm of one piece, above 0
    friend bool operator==(const Draw&, const Draw&) = default;
};

// Supply range of a control unit, ISO 16750-2 table for 12 V: A 6..16, B 8..16, C 9..16, D 10.5..16 V (from
// memory).
enum class SupplyCode { none, a, b, c, d };

// What the current does while a load starts: nothing; a motor coming up to speed (from inrush_A, over
// inrush_s); a lamp's filament warming; an input capacitor being charged.
enum class StartKind { step, motor, lamp, capacitor };

struct Load {
    Id id;
    std::string name;
    int count = 1;
    Draw draw;
    std::optional<double> inrush_A;  // of one piece
    Condition live_when;
    bool critical = false;             // held to the tighter drop limit
    std::optional<double> drop_limit;  // 0..1 of nominal; empty: by policy
    bool starter = false;              // its cable goes unfused, as is usual for cranking
    Id place;
    Id inverter{};                         // AC load behind that inverter; its draw is then AC watts
    std::optional<double> power_factor{};  // AC
    std::optional<double> start_W{};       // AC, of one piece, for a few seconds
    bool needs_pure_sine = false;          // motors, compressors, chargers
    std::optional<double> least_V{};       // lowest volts at its terminals at which it works
    std::optional<double> most_V{};
    SupplyCode supply_code = SupplyCode::none;
    std::vector<std::pair<double, double>>
        line_curve{};                    // winch or hoist: share of rated pull, amps of one piece
    std::optional<double> line_load{};   // its pull, share of rated
    std::optional<double> inrush_s{};    // how long its start lasts
    std::optional<double> duty{};        // 0..1: share of the time for which it runs
    std::optional<double> duty_per_K{};  // `duty` grows by that a kelvin of air above 25 C: a fridge
    std::optional<double> plate_V{};     // volts at which its plate states the draw
    bool own_switch = true;  // follows live_when by a switch of its own; false: it runs whenever it has volts
    std::string together{};  // loads with the same word go on one box ...
    std::string apart{};     // ... and these on a box each
    bool pinned = false;     // stays on the channel or feed where a person put it
    bool own_ground = false;                 // sensitive: wants a return that nothing heavy shares
    std::optional<double> signal_after_s{};  // wants its signal so long after its supply
    bool typical = false;                    // from the library: check the plate
    std::optional<double> draw_least{};      // draw is the most of a range; this is the least, same unit
    std::optional<double> on_s{};            // runs for no longer than this at a stretch; empty: for ever
    std::optional<StartKind> start{};        // empty: a motor where an inrush is given, else a step
    bool later = false;  // wanted, not fitted: room is kept for it, and nothing of it runs or is bought
    // a portable store: a battery of its own that is taken along, this load while it charges
    std::optional<double> store_Wh{};
    std::optional<double> store_efficiency{};  // of charging, 0..1
    std::optional<double> socket_W{};          // what its DC outlets give
    std::optional<double> mains_W{};           // what its mains outlet gives
    std::optional<double> mains_efficiency{};  // of that outlet's inverter, 0..1
    Stand at{};
    Remarks remarks{};
    friend bool operator==(const Load&, const Load&) = default;
};

// fuse; switching: follows the plan's conditions and, where it has one, its coil; sensing_relay: closes above
// and opens below a voltage, after a delay; cutoff: the same guarding a battery against being emptied; diode:
// one way only, from -> to, with its forward drop (a FET isolator has a small one); shunt: a sensor's
// resistance in the negative of the battery that it counts
enum class DeviceKind { fuse, switching, sensing_relay, cutoff, diode, shunt };

// What an output that drives something looks like: it stands; it pulses; it sends test pulses to see whether
// its lamp lives.
enum class Signal { steady, pulsed, monitored };

enum class Senses { from, to, either };

// What keeps a coil's kick from the wires beside it when it lets go.
enum class Suppression { unknown, none, diode, resistor };

// Something in line in a run.
struct Device {
    Id id;
    std::string name;
    DeviceKind kind = DeviceKind::fuse;
    std::optional<double> at_m;  // distance along the cable from the run's `from` end; empty: at that end
    FuseType fuse = FuseType::blade;
    double rating_A = 0;    // fuse
    Condition closed_when;  // switch, relay, contactor, disconnect; a breaker that is also the switch
    std::optional<double> resistance_ohm;
    std::optional<double> close_V{}, open_V{};       // sensing relay, cutoff
    std::optional<double> delay_s{};                 // before it acts
    Senses senses = Senses::from;                    // sensing relay
    std::optional<double> forward_V{};               // diode
    Id coil{};                                       // load that is its coil: closed only while that pulls
    bool master = false;                             // meant to make the vehicle dead
    std::optional<double> contact_A{};               // relay, contactor, switch: what its contacts carry
    Suppression suppression = Suppression::unknown;  // of its coil
    Id grounds_without{};       // control unit (a load) whose output closes this also while that unit has no
                                // supply
    bool rests_closed = false;  // the other contact: closed while its coil does not pull, its condition fails
    bool latching = false;      // stays where it was put without any power; the state says where
    std::optional<double> pulse_share{};                   // 0..1 of the time on: a flasher, a dimmer
    std::vector<std::pair<double, double>> pulse_curve{};  // by the air's warmth, C: a fan that ramps
    std::optional<double> pulse_s{};                       // one pulse and its pause
    Signal signal = Signal::steady;                        // of what it gives
    Id measures{};                                         // shunt: the battery that it counts
    friend bool operator==(const Device&, const Device&) = default;
};

// What is crimped on an end of a cable. by_choice: as its terminal and copper ask (fabricate/ends.h)
enum class EndKind { by_choice, ring, blade, ferrule, bare, pin, splice };

struct RunEnd {
    EndKind kind = EndKind::by_choice;
    std::optional<double> angle_deg{};  // of a lug: 0, 45, 90; empty: straight
    bool boot = false;                  // a cap over it
    bool doubled = false;               // shrink twice, where an edge is sharp
    friend bool operator==(const RunEnd&, const RunEnd&) = default;
};

// What follows from the ways that a run was laid along (routes/lay.h). Neither saved nor compared.
struct Laid {
    std::optional<double> length_m{};  // with slack
    int bundle = 1;                    // cables that lie with it where most do
    std::vector<Id> places{};          // passed through
    friend bool operator==(const Laid&, const Laid&) { return true; }
};

// A cable, strap or body metal from one terminal to another.
struct Run {
    Id id;
    std::string name;
    Terminal from;
    Terminal to;
    std::optional<double> length_m;  // one way
    std::optional<WireSize> size;
    Material material = Material::copper;
    double insulation_C = 105;
    int parallel = 1;
    int bundle = 1;
    std::vector<Id> places;                  // passed through
    std::optional<double> resistance_ohm;    // measured or given: then length and size only describe
    bool body_metal = false;                 // a joint of the body, not a cable
    std::vector<Device> devices;             // in order from `from` to `to`
    int channel = 0;                         // of the box at `from`; 0: on its stud
    Id tap_of{};                             // fuse whose position this run taps
    std::optional<double> length_least_m{};  // length_m is the most of a range; this is the least
    bool pinned = false;                     // its size stays when the plan is sized as a whole
    std::optional<double> lug_from_mm{}, lug_to_mm{};  // hole of the lug at that end: 8 for an M8 lug
    std::optional<double> bend_mm{};                   // radius of the tightest bend on its way
    std::vector<PinUse> pins{};  // of connectors that it passes; twice the same connector: side by side
    Id jacket{};                 // the cable of several cores that it is a core of
    std::vector<Id> via{};       // waypoints that it is held to pass, in order from `from`
    std::string number{};        // on its labels; empty: counted
    std::string colour{};        // of its insulation; empty: by the table
    RunEnd end_from{}, end_to{};
    Laid laid{};  // not part of what is said of it: where its length is open (routes.h)
    Remarks remarks{};
    friend bool operator==(const Run&, const Run&) = default;
};

enum class FuseSchool { load150, inrush, wire };
enum class LeadUnits { metric, inch };

// Cable at hand: free where money counts.
struct Stock {
    WireSize size = WireSize::awg(10);
    double length_m = 0;
    std::optional<double> price{};  // of the roll
    friend bool operator==(const Stock&, const Stock&) = default;
};

// What a shop asks for one line of the parts (fabricate/parts.h names it), its pack and where it comes from.
struct Price {
    std::string part;              // key of the line
    std::optional<double> each{};  // of one piece or metre; empty: not known
    double pack = 1;               // sold by so many pieces or metres
    std::string supplier{};
    std::string dated{};   // ISO 8601 date of the price
    bool brought = false;  // the customer brings it
    friend bool operator==(const Price&, const Price&) = default;
};

// One's own minutes for one piece of a kind of work (fabricate/work.h names them), in place of the typical.
struct TaskTime {
    std::string task;
    double minutes = 0;
    friend bool operator==(const TaskTime&, const TaskTime&) = default;
};

// One's own torque for a thread, or the maker's, in place of the typical.
struct Torque {
    double thread_mm = 8;
    double torque_Nm = 0;
    friend bool operator==(const Torque&, const Torque&) = default;
};

// How likely a kind of fault is against the others, in place of the typical (meter/faults.h names them).
struct FaultWeight {
    std::string fault;
    double weight = 1;
    friend bool operator==(const FaultWeight&, const FaultWeight&) = default;
};

// What a meter is good for: volts within `gain` of the reading and so many of its last digits.
struct MeterKind {
    std::string name{};
    std::optional<double> gain{};      // 0..1
    std::optional<double> digits{};    // of the last place
    std::optional<double> lead_ohm{};  // both leads together, in what it reads as ohms
    friend bool operator==(const MeterKind&, const MeterKind&) = default;
};

struct Policy {
    FuseSchool fuse_school = FuseSchool::wire;
    std::optional<double> drop_critical;  // 0..1
    std::optional<double> drop_other;
    AmpacityTable ampacity_table = AmpacityTable::abyc;
    bool bundle_derating = true;
    std::optional<double> fuse_distance_m;
    SizeSystem sizes = SizeSystem::awg;
    LeadUnits units = LeadUnits::metric;
    std::optional<double> copper_price_per_kg{};
    std::vector<Stock> stock{};
    std::vector<Stock> rolls{};            // that are sold; empty: as is usual
    std::optional<double> air_K{};         // air may be that much hotter or colder than a state says
    std::optional<double> joint_ageing{};  // joints and contacts may reach that many times their resistance
    std::optional<double> slack_m{};       // kept at each end of a run that is laid
    std::optional<double> slack_share{};   // and a share of its way
    std::optional<double> exhaust_m{};     // cables keep that far from what burns them
    std::optional<double> rate_h{};        // money asked for an hour of work
    std::optional<double> travel{};        // money, once
    std::optional<double> consumables{};   // share of the parts' price, for what is not counted
    std::optional<double> margin{};        // share on top of the parts' price
    std::optional<double> tax{};           // share on top of all
    std::vector<Price> prices{};
    std::vector<TaskTime> tasks{};
    std::vector<Torque> torques{};
    std::vector<FaultWeight> faults{};
    MeterKind meter{};
    friend bool operator==(const Policy&, const Policy&) = default;
};

// A switch on the panel, by the name that conditions use, and what its label says.
struct PanelSwitch {
    Id id;
    std::string name;
    std::string label;
    friend bool operator==(const PanelSwitch&, const PanelSwitch&) = default;
};

// A finding that somebody has looked at and takes as it is. It counts no longer, stays listed, and comes back
// when its number gets worse.
struct Accepted {
    Id id;
    std::string name;   // what was said when it was accepted
    std::string kind;   // of the finding, as in the files of `rail check`
    Id about;           // what it is about ...
    std::string other;  // ... and with what
    Id state;           // empty: in no state of its own
    double value = 0, limit = 0;
    std::string reason;
    std::string who;
    std::string when;  // ISO 8601 date
    friend bool operator==(const Accepted&, const Accepted&) = default;
};

// Something bought, made, done or put off: it leaves the list of what is to do, or moves in it.
struct Mark {
    Id id;
    std::string name;   // what was done: "bought", "made", "done", "put off", "first", "before"
    std::string about;  // a thing of the plan, or a line of the parts
    std::string who;
    std::string when;     // ISO 8601 date, or date and time
    std::string note{};   // what is worth knowing: "13 mm nut"; of "before" the step that comes later
    std::string photo{};  // path of a picture, beside the plan's file
    friend bool operator==(const Mark&, const Mark&) = default;
};

// A named other way to do it: what differs from the plan as it stands. Vehicle and policy are shared.
// A stretch of a day: a state for so long.
struct DayPart {
    Id state;
    double length_s = 3600;
    int times = 1;        // pieces of that length
    bool within = false;  // they interrupt the part before, evenly; else they follow it, one behind another
    std::optional<double> rpm, line_load;  // other than the state's
    friend bool operator==(const DayPart&, const DayPart&) = default;
};

// One month of a climate: means of the coldest and hottest hour of its days, sun as hours of full sun a day.
struct Month {
    double coldest_C = 0, hottest_C = 0, sun_h = 0;
    friend bool operator==(const Month&, const Month&) = default;
};

// A day that repeats: parts in order from `begins_h`, 24 h in all or whatever they last.
struct Day {
    Id id;
    std::string name;
    std::vector<DayPart> parts;
    double begins_h = 0;  // hour of the clock at which the first part begins
    std::optional<double> coldest_C,
        hottest_C;                // air at its coldest and hottest hour; empty: as each state says
    std::optional<double> sun_h;  // hours of full sun; empty: by the sky, or as each state says
    std::optional<double> latitude_deg, date,
        cloud;                  // clear sky of that day of the year, 0..1 of it taken by cloud
    std::vector<Month> months;  // twelve for a year; empty: every month as above
    Remarks remarks{};
    friend bool operator==(const Day&, const Day&) = default;
};

struct Variant {
    Id id;
    std::string name;
    std::vector<Place> places;  // put in place of those with the same id, or added
    std::vector<Waypoint> waypoints{};
    std::vector<Way> ways{};
    std::vector<Point> points;
    std::vector<Source> sources;
    std::vector<Battery> batteries;
    std::vector<Inverter> inverters;
    std::vector<Connector> connectors;
    std::vector<Jacket> jackets;
    std::vector<Run> runs;
    std::vector<Load> loads;
    std::vector<State> states;
    std::vector<Day> days{};
    std::vector<Id> removed;

    YR_SPECIAL_MEMBERS(Variant)
    friend bool operator==(const Variant&, const Variant&);
};

enum class SurveyKind { battery, outlet, alternator };
enum class SurveyKey { off, accessory, running, after };  // after: within a minute of switching off

// A place where a meter was held on a vehicle that somebody else has modified.
struct SurveyPoint {
    Id id;
    std::string name;
    SurveyKind kind = SurveyKind::outlet;
    Terminal terminal{};  // where it is on this plan, if it is known
    friend bool operator==(const SurveyPoint&, const SurveyPoint&) = default;
};

// Volts read there. `drawn_at`: a point at which a known heavy draw (headlamps, a heater) was on meanwhile.
struct SurveyReading {
    Id point;
    SurveyKey key = SurveyKey::off;
    Id drawn_at;
    double volts_V = 0;
    friend bool operator==(const SurveyReading&, const SurveyReading&) = default;
};

struct Survey {
    std::vector<SurveyPoint> points;
    std::vector<SurveyReading> readings;
    friend bool operator==(const Survey&, const Survey&) = default;
};

struct Plan {
    Vehicle vehicle;
    Policy policy;
    std::vector<Place> places;
    std::vector<Waypoint> waypoints{};
    std::vector<Way> ways{};
    std::vector<Point> points;
    std::vector<Source> sources;
    std::vector<Battery> batteries;
    std::vector<Inverter> inverters;
    std::vector<Connector> connectors;
    std::vector<Jacket> jackets;
    std::vector<Run> runs;
    std::vector<Load> loads;
    std::vector<State> states;
    std::vector<Day> days{};
    std::vector<PanelSwitch> panel;  // labels only: a switch exists by being named in a condition
    std::vector<Accepted> accepted;
    std::vector<Mark> marks{};
    std::vector<Variant> variants;
    Id active;  // the variant that is shown; empty: the plan as it stands
    Survey survey;

    YR_SPECIAL_MEMBERS(Plan)
    friend bool operator==(const Plan&, const Plan&);
};

template <class T>
[[nodiscard]] const T* find(const std::vector<T>& things, std::string_view id) {
    for (const T& t : things)
        if (t.id == id) return &t;
    return nullptr;
}

// The point that this terminal is; nullptr for a post.
[[nodiscard]] inline const Point* find(const std::vector<Point>& points, const Terminal& terminal) {
    return terminal.post == Post::stud ? find(points, std::string_view(terminal.owner)) : nullptr;
}

// The state of that id or name; nullptr when there is none.
[[nodiscard]] const State* find_state(const Plan& plan, std::string_view id_or_name);

// Calls use(id) for every id of the plan.
void each_id(const Plan& plan, const std::function<void(const Id&)>& use);

// "load-7": the first free id with that head over the whole plan.
[[nodiscard]] Id new_id(const Plan& plan, std::string_view head);

// Name of whatever has this id; the id itself where nothing has it. A terminal gives its owner's.
[[nodiscard]] std::string name_of(const Plan& plan, const Id& id);
[[nodiscard]] std::string name_of(const Plan& plan, const Terminal& terminal);

// The same for those who ask for the names of many: the plan is walked once.
class NameIndex {
  public:
    explicit NameIndex(const Plan& plan);
    [[nodiscard]] std::string of(const Id& id) const;

  private:
    std::unordered_map<Id, std::string> names_;
};

// Whose terminal it is; a point is its own.
[[nodiscard]] inline const Id& owner_of(const Terminal& terminal) {
    return terminal.owner;
}

// Every switch that the plan's conditions or states name, in order of first mention.
[[nodiscard]] std::vector<std::string> plan_switches(const Plan& plan);

// One way, as said or as it was laid; empty: not known, then "run_length_m" is assumed.
[[nodiscard]] inline std::optional<double> length_of(const Run& run) {
    return run.length_m ? run.length_m : run.laid.length_m;
}
[[nodiscard]] double length_or_assumed_m(const Run& run);

// Air there in that state; a place that is not known has the state's own.
[[nodiscard]] double air_at(const Plan& plan, const Id& place, const State& state);
// Places that it passes: as said, or as it was laid.
[[nodiscard]] inline const std::vector<Id>& places_of(const Run& run) {
    return run.places.empty() ? run.laid.places : run.places;
}

// How many cables lie bundled with this run, itself included: as it says, the cores of its jacket, or as it
// was laid.
[[nodiscard]] int bundle_of(const Plan& plan, const Run& run);

// The box channel that a run hangs on; nullptr where it hangs on none.
[[nodiscard]] const Channel* channel_of(const Plan& plan, const Run& run);

// A device of any run by its id; nullptr where there is none.
[[nodiscard]] const Device* find_device(const Plan& plan, const Id& id);

// The run that brings a load its supply; nullptr where there is none.
[[nodiscard]] const Run* supply_run(const Plan& plan, const Id& load);

// A plan with nothing in it but a battery, a ground and the built-in states.
[[nodiscard]] Plan empty_plan(std::string name);

[[nodiscard]] std::vector<State> built_in_states();

}  // namespace yr

// What copies, moves and destroys a plan is compiled once, in special_members.cpp.
YR_VECTOR_ELSEWHERE(yr::Place)
YR_VECTOR_ELSEWHERE(yr::Waypoint)
YR_VECTOR_ELSEWHERE(yr::Way)
YR_VECTOR_ELSEWHERE(yr::Point)
YR_VECTOR_ELSEWHERE(yr::Source)
YR_VECTOR_ELSEWHERE(yr::Battery)
YR_VECTOR_ELSEWHERE(yr::Inverter)
YR_VECTOR_ELSEWHERE(yr::Connector)
YR_VECTOR_ELSEWHERE(yr::Jacket)
YR_VECTOR_ELSEWHERE(yr::Condition)
YR_VECTOR_ELSEWHERE(yr::Device)
YR_VECTOR_ELSEWHERE(yr::Run)
YR_VECTOR_ELSEWHERE(yr::Load)
YR_VECTOR_ELSEWHERE(yr::State)
YR_VECTOR_ELSEWHERE(yr::Day)
YR_VECTOR_ELSEWHERE(yr::PanelSwitch)
YR_VECTOR_ELSEWHERE(yr::Accepted)
YR_VECTOR_ELSEWHERE(yr::Mark)
YR_VECTOR_ELSEWHERE(yr::Variant)
