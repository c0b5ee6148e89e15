#include "notes/load_names.h"

#include "units/pattern.h"

namespace yr {

bool names_no_load(const std::string& name, double amps, double watts) {
    static const Pattern supplies(
        R"((?:^|\s)(?:inverters?|converter|dropper|vsr|shunt|bus ?bars?)$|\bpanels? (?:into|to|via)\b|\b(?:shore|mains|hook-?up) (?:battery )?charger$|^(?:solar )?panels?$|^shore-?line$|\b(?:slave|supply|charge|charging|link) (?:cable|lead|line)\b|^shore(?: power)?$|\bconverter \d|(?:^|\s)alt$|\bbattery (?:engine|starter)\b|\bhook-?\s?up$|\bdc-?dc$|\bsplit[ -]charge$|\banderson from\b|^solar (?:input|panel)s?$|^charg(?:es?|ing|ed) (?:from|by|via|through|off|over)\b|\bsplit by\b|(?:tow(?:ed|ing)?|trailer|caravan|battery) charg(?:e|ing)$|\bon-?board charger$|\bbank charger$|^(?:\d+ ?v )?(?:(?:tow )?(?:vehicle|car|truck)|chassis|van|coach|engine|electrics|system)$|^cables?$|^(?:mppt|pwm)$|^solar(?: (?:\d+|strings?|arrays?|panels?|inputs?))*$|^inverter charger$)");
    static const Pattern half_a_sentence(
        R"(^(?:of|to|from|via|with|for|and|or|by|between|i|we|there|this|these|(?:isolated|connected|fed) (?:by|with|via|to|from))\b|(?:^|\s)(?:with|via|by|from|between)$|\baverages?$|^trips?\b.*\d|^all (?:of it |loads )?(?:fed|supplied|powered|on|from)\b|^(?:rx|tx|average|avg|peaks?|max|min|start(?:s|ing|-?up)?|(?:at|on) start(?:-?up)?)$)");
    // what charges, unless it is a part of it that draws; what opens and closes
    static const Pattern gives(
        R"(\b(?:alternators?|stator|dynamo|(?<!x-ray |xray |ozone |smoke |fog |steam |foam |bubble |signal |oxygen |nitrogen |hydrogen )generator|solar (?:panels?|blanket|array))\b)");
    static const Pattern draws(
        R"(\b(?:lights?|lamp|warning|field|excit\w*|sens\w*|relay|regulator|fan|heater|coil|indicator|buzzer|alarm|gauge|signal|start|starter|fuel|glow)\b)");
    static const Pattern opens(
        R"((?:\b(?:battery|main|master|isolator|kill|cut-?off)\b.*\b(?:switch|disconnect|isolator|solenoid|contactor)|^(?:isolator|disconnect|contactor|solenoid|cut-?off|circuit breaker))$)");
    static const Pattern engine(R"(\boutboards?\b)"),
        charges(R"(\bcharges\b|^each (?:engine|outboard|motor)\b)");
    static const Pattern joins(
        R"((?:split[ -]charge|sensing|isolat(?:or|ing)|charg(?:e|ing)|combiner) relay$)");
    static const Pattern shares_out(R"(\b(?:panel|board|fuse ?box|fuse ?block|distribution)$)");
    static const Pattern state(
        R"(^(?!.*\b(?:lights?|lamps?|heaters?|fans?|pumps?|radios?|sockets?|alarms?|cameras?)\b[^:]*:)(?:parked|driving|idling|overnight|stopped|camping|night|lunch|working|towed|travell?ing|under ?way|cruising|sailing|anchored|at (?:the )?(?:depot|home|night|anchor))\b[^:]*:)");
    static const Pattern manages(R"(\bBMS\b)");
    // "isolator switch for each bank", "start battery to starter motor": no loads, whatever amps they say
    static const Pattern parts(
        R"((?:^|\s)isolators?(?: switch(?:es)?)?$|^(?:battery|load|deep discharge) protect(?:or|ion)?s?$|^low[ -]volt(?:age|s)? (?:disconnect|cut-?\s?(?:off|out))s?$|^lvd$|^(?:(?:battery|main|master) )*(?:isolat(?:or|ion|ing)|disconnect)s?(?: switch(?:es)?)?\b(?!.*\b(?:lights?|lamps?|leds?|alarm|buzzer|coil|motor|remote)\b))"),
        cable(
            R"(^(?:[a-z]+ ){0,2}(?:batter(?:y|ies)|bank|alternator|starter|inverter)(?: (?:positive|negative|pos|neg|post|terminal|[+-]))? to (?:the )?(?:[a-z]+ ){0,2}(?:batter(?:y|ies)|bank|starter|starter motor|alternator|inverter|solenoid|frame|chassis|body|block|panel|board|fuse ?box|bus ?bar|engine)$)");
    if (parts.is_in(name) || cable.is_in(name)) return true;
    // a display panel takes less, and what manages a battery as well
    constexpr double kOfAPanel_A = 40, kOfABattery_A = 20, kOfAnEngine_W = 2000;
    if ((gives.is_in(name) && !draws.is_in(name)) || opens.is_in(name) || half_a_sentence.is_in(name))
        return true;
    static const Pattern charger(R"(^(?:battery |smart )?chargers?$)");  // it gives so many
    static const Pattern inverters(
        R"(^inverters?\b(?!.*\b(?:fans?|coolers?|lights?|remotes?|panel|display|relay)\b))");
    constexpr double kOfAnInverter_W = 150;
    if (inverters.is_in(name) && watts >= kOfAnInverter_W) return true;
    constexpr double kOfAPhone_A = 5;
    if (charger.is_all_of(name) && amps > kOfAPhone_A) return true;
    const bool supply = supplies.is_in(name) && (watts <= 0 || watts >= 100);
    return supply || joins.is_in(name) || charges.is_in(name) || state.is_in(name) ||
           (engine.is_in(name) && watts > kOfAnEngine_W) || (manages.is_in(name) && amps >= kOfABattery_A) ||
           (shares_out.is_in(name) && amps >= kOfAPanel_A);
}

std::string ends_no_name(const std::string& name) {
    static const Pattern end(R"((?:^|\s)(of|same|runs?|with|by|via|to|for|from|the|and|at)$)"),
        sign(R"((?:^|\s)([=<>@*])(?=\s|$)|(?:^|\s)((?:24|36|48)\s*/\s*(?:12|24)\s*v?)(?=\s|$))"),
        heading(R"([a-z0-9](:)\s*[a-z0-9])"), outside(R"(^([+&/])(?=\s)|(?<=\s)([+&/])$)");
    // "camp lights 4 strips": how many of them; "bay 2 lights" are those of the second
    static const Pattern counted(R"(\s(\d{1,2}) [a-z]{3,}s$)"),
        numbered(
            R"((?:^|\s)(?:bay|zone|area|room|cab|deck|level|row|stage|circuit|bank|phase|group|line|channel|switch|box|unit|number|no|side|door|class|type|mark|tier|floor|pod|set)$)");
    Found m;
    if (counted.is_in(name, m) && !m.before().empty() && !numbered.is_in(m.before())) return m[1];
    if (end.is_in(name, m) || heading.is_in(name, m)) return m[1];
    if (sign.is_in(name, m) || outside.is_in(name, m)) return m[m.has(1) && !m[1].empty() ? 1 : 2];
    return {};
}

}  // namespace yr
