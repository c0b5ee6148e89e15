// The words that each kind of line knows, and an example of each.
#include "catalog/sockets.h"
#include "notes/kinds.h"

namespace yr {
namespace {

using K = StatementKind;

Vocabulary connector_words() {
    Vocabulary v{{}, {"sealed", "pins", "at"}, true, false};
    for (const Socket& s : sockets()) v.flags.insert(s.key);
    return v;
}

}  // namespace

const Vocabulary& vocabulary_of(StatementKind kind) {
    static const Vocabulary battery{
        {"charge", "health", "dc-dc", "dcdc", "charger", "relay", "contactor", "switch", "bms"},
        {"agm",
         "gel",
         "lifepo4",
         "lithium",
         "lfp",
         "flooded",
         "wet",
         "lead",
         "en",
         "sae",
         "second",
         "another",
         "dc-dc",
         "dcdc",
         "charger",
         "sensing relay",
         "contactor",
         "isolator",
         "diode",
         "switch",
         "alone",
         "by",
         "front",
         "series",
         "in series",
         "parallel",
         "in parallel",
         "series/parallel",
         "series parallel",
         "lead acid",
         "deep cycle",
         "golf cart",
         "golf cart batteries",
         "batteries",
         "battery",
         "smart",
         "traction"},
        false,
        false};
    static const Vocabulary turned{
        {"idle", "regulator"}, {"rated", "smart", "second", "another"}, false, false};
    static const Vocabulary starter{{}, {"motor"}, false, false};
    static const Vocabulary winch{{"duty"}, {"for", "lb", "lbs", "kg"}, true, false};
    static const Vocabulary charger{
        {"float"}, {"shore", "mains", "dc-dc", "dcdc", "plug", "power", "at home", "smart"}, false, false};
    static const Vocabulary solar{{"float", "controller"}, {"panel", "panels"}, false, false};
    static const Vocabulary inverter{
        {"surge", "standby", "cutoff", "off"}, {"modified", "pure", "sine", "pure sine"}, false, false};
    static const Vocabulary converter{{}, {"48", "24", "to"}, false, false};
    static const Vocabulary box{{"main", "standby", "asleep", "cutoff"},
                                {"channels", "channel", "of", "solid-state", "relays", "forgets", "live"},
                                true,
                                false};
    static const Vocabulary bus{{"for", "cutoff"}, {"negative", "minus", "way", "ways"}, true, false};
    static const Vocabulary point{
        {}, {"aluminium", "steel", "stainless", "sealed", "apart", "metal"}, false, false};
    static const Vocabulary strap{{}, {}, false, true};
    static const Vocabulary cable{{}, {}, false, false};
    static const Vocabulary relay{{}, {"coil", "by"}, false, false};
    static const Vocabulary joiner{
        {}, {"sensing relay", "sensing", "relay", "contactor", "switch", "isolator", "diode"}, false, false};
    static const Vocabulary connector = connector_words();
    static const Vocabulary jacket{{}, {"of", "cores"}, true, false};
    static const Vocabulary vehicle{
        {}, {"aluminium", "steel", "no chassis", "chassis", "none", "no engine"}, false, false};
    static const Vocabulary place{{}, {"hot", "engine space"}, false, false};
    static const Vocabulary state{
        {"bay", "charge", "sun"},
        {"parked", "towed", "cranking", "idling", "driving", "working", "passing", "key", "key on", "key off",
         "key accessory", "key ignition", "engine", "engine off", "engine on", "engine running",
         "engine stopped", "off", "switches"},
        false,
        false,
        true};
    static const Vocabulary reading{{},
                                    {"key", "key off", "key on", "key accessory", "off", "accessory",
                                     "running", "engine running", "after"},
                                    false,
                                    false};
    static const Vocabulary none;
    switch (kind) {
        case K::battery:
            return battery;
        case K::alternator:
        case K::stator:
            return turned;
        case K::starter:
            return starter;
        case K::winch:
            return winch;
        case K::charger:
            return charger;
        case K::solar:
            return solar;
        case K::inverter:
            return inverter;
        case K::converter:
            return converter;
        case K::box:
            return box;
        case K::bus:
            return bus;
        case K::stud:
        case K::ground:
        case K::chassis:
            return point;
        case K::strap:
            return strap;
        case K::cable:
            return cable;
        case K::relay:
            return relay;
        case K::connector:
            return connector;
        case K::jacket:
            return jacket;
        case K::vehicle:
            return vehicle;
        case K::place:
            return place;
        case K::state:
            return state;
        case K::reading:
            return reading;
        case K::joiner:
            return joiner;
        case K::master:
        case K::nothing:
        case K::load:
        case K::change:
        case K::set:
        case K::remove:
        case K::block:
        case K::day:
        case K::stand:
        case K::waypoint:
        case K::way:
        case K::outline:
        case K::shop:
        case K::end:
            break;
    }
    return none;
}

const std::vector<StatementForm>& statement_forms() {
    static const std::vector<StatementForm> forms{
        {K::load, "scene light", "scene light 2x 90 W on ignition and scene, 4.5 m"},
        {K::battery, "battery", "battery AGM 95 Ah 850 A"},
        {K::battery, "second battery", "second battery LiFePO4 100 Ah, by dc-dc 30 A, 4 m"},
        {K::alternator, "alternator", "alternator 150 A, idle 70 A, 1.2 m"},
        {K::stator, "stator", "stator 20 A, regulator 22 A"},
        {K::starter, "starter", "starter 200 A, 1.2 m"},
        {K::winch, "winch", "winch 320 A, for 60 s, 2 m"},
        {K::charger, "charger", "charger 20 A shore"},
        {K::solar, "solar", "solar 200 W to second battery"},
        {K::converter, "converter", "converter 12 V 30 A"},
        {K::inverter, "inverter", "inverter 1000 W, standby 6 W, 1 m"},
        {K::box, "box", "box \"cab box\" 4 channels 30 30 20 20 A, main 80 A, 2.5 m"},
        {K::bus, "bus", "bus rear, fuse 100 A, 2.3 m"},
        {K::stud, "stud", "stud M8"},
        {K::ground, "ground", "ground rear M8 on body"},
        {K::chassis, "chassis", "chassis frame"},
        {K::strap, "strap", "strap battery - to body 2/0 0.6 m"},
        {K::cable, "cable", "cable feeder from battery to bus 2 AWG 1 m fuse 150 A"},
        {K::master, "master", "master between battery and bus"},
        {K::relay, "relay", "relay fan 40 A on ignition"},
        {K::connector, "connector", "connector rear plug 6 pins sealed"},
        {K::jacket, "cores", "cores trailer cable 7"},
        {K::place, "place", "place roof"},
        {K::day, "day",
         "day field day: key off 7 h, driving 1 h, idling 2 h, key off 14 h, coldest 2 C, hottest 14 C"},
        {K::outline, "outline", "outline van"},
        {K::stand, "stand", "stand battery: 0.4 forward, 0.5 left, 0.4 up"},
        {K::waypoint, "waypoint", "waypoint firewall hole: grommet 28 mm, 0.5 back, 0.4 left, 0.8 up"},
        {K::way, "way", "way sill: firewall hole to tail"},
        {K::state, "state", "state towed 8 h, key on, 20 C"},
        {K::reading, "reading", "reading battery 12.82 V key off"},
        {K::joiner, "joiner", "joiner sensing relay 140 A between battery and second battery"},
        {K::shop, "price", "price 2 AWG copper red 6.40 a metre, roll of 10, from Harbour Cable"},
        {K::shop, "rate", "rate 85 an hour"},
        {K::shop, "minutes", "minutes make thick 9"},
        {K::shop, "torque", "torque M8 12 Nm"},
        {K::shop, "likely", "likely ground 9"},
        {K::vehicle, "vehicle", "vehicle delivery van 12 V"},
    };
    return forms;
}

}  // namespace yr
