#include "notes/plain_supplies.h"

#include <string_view>
#include <utility>

#include "units/pattern.h"
#include "units/text.h"

namespace yr {

namespace {

// One box that makes mains and charges from them, in whatever order its two figures stand: "3 kW
// inverter-charger, 70 A charge", "combi 2000 W / 70 A". What else is said of it (its volts, a place, a
// cable) is said of the inverter.
std::string one_box_of_both(const std::string& line) {
    static const Pattern both(
        R"(\b(?:combi\s+)?inverter\s*(?:[/&+-]|\band\b|\bwith\b)?\s*(?:an?\s+)?(?:(?=\d+\s*A\s+charger)|charger\b|combi\b)|\bcombi(?:\s+inverter)?\b)");
    static const Pattern leads(
        R"(^\s*(?:(?:an?|the|hybrid|pure sine|inverter)\s+|\d+(?:\.\d+)?\s*(?:k?W|k?VA|A)\s*[/,]?\s*|(?:12|24|36|48)\s*V\s+)*$)");
    static const Pattern follows(
        R"(^\s*$|^\s*[\d:,;(/=+-]|^\s*(?:with|charg(?:es?|ing|er)|at|of|from|rated|pure sine)\b)");
    static const Pattern watts(R"(\b(\d+(?:\.\d+)?\s*k?)(?:W|VA)(?:atts?)?\b)");
    static const Pattern amps(
        R"((?<!fuse )(?<!breaker )\b(\d+(?:\.\d+)?\s*A)(?:mps?)?\b(?!\s*(?:fuse|breaker|mains|supply|hook)))");
    static const Pattern pair(R"(\b(\d{3,4})\s*/\s*(\d{2,3})\b(?!\s*(?:[AWV]|k?VA)))");
    static const Pattern idle(
        R"(^(?:(?:inverter|charg(?:es?|ing|er)|from|at|up|to|with|its|an?|and|on|the|mains|shore|shore power|hook-?up|built[ -]in|pure|sine|wave|combi|of|rated|output|for|battery|batteries)\b\s*)*$)");
    Found m;
    if (!both.is_in(line, m) || !leads.is_all_of(m.before()) || !follows.is_in(m.behind())) return line;
    std::string rest = m.before() + " , " + m.behind();
    std::string power, charge;
    if (pair.is_in(rest, m)) {
        power = m[1] + " W", charge = m[2] + " A";
        static const Pattern again(R"(\([^()]*\d\s*k?W[^()]*\))");  // "(2000 W inverter, 70 A charger)"
        rest = again.replaced(m.before() + " , " + m.behind(), "");
    }
    if (power.empty() && watts.is_in(rest, m)) {
        power = m[1] + "W";
        rest = m.before() + " , " + m.behind();
    }
    if (charge.empty() && amps.is_in(rest, m)) {
        charge = m[1];
        rest = m.before() + " , " + m.behind();
    }
    if (power.empty() || watts.is_in(rest) || amps.is_in(rest))
        return line;  // of a pair too many, who knows which
    std::string out =
        charge.empty() ? "inverter " + power : "inverter/charger " + power + ", " + charge + " charger";
    static const Pattern bracket(R"([()/;:=+-]\s|\s[()/;:=+-]|[()])");
    rest = bracket.replaced(rest, ", ");
    for (const std::string_view piece : split(rest, ','))
        if (const std::string_view said = trim(piece); !said.empty() && !idle.is_all_of(std::string(said)))
            out += ", " + std::string(said);
    return out;
}

// Who says what charges with its figures the other way round.
std::string charged_in_our_words(std::string line) {
    static const Phrase plainer[] = {
        {Pattern(
             R"(^\s*(?:mppt|pwm)\s+(?:(?:solar\s+)?controller\s+)?(\d+\s*A)\s*[,:+]?\s*(?:with\s+|for\s+)?((?:\d{1,2}\s*x\s*)?\d+(?:\.\d+)?\s*W)(?:atts?)?(?:\s+(?:of\s+)?(?:solar|panels?))*(?:\s*,?\s*(?:12|24|36|48)\s*V)?\s*$)"),
         "solar $2, controller $1"},
        {Pattern(
             R"(^\s*((?:\d{1,2}\s*x\s*)?\d+(?:\.\d+)?\s*W)(?:atts?)?\s+(?:solar\s+)?panels?\s*[,+]\s*(?:with\s+)?(?:an?\s+)?(?:mppt|pwm)\s+(?:controller\s+)?(\d+\s*A)\s*$)"),
         "solar $1, controller $2"},
        {Pattern(
             R"(^\s*(?:the\s+)?(?:charg(?:e|ing)|alternator|flywheel|lighting)\s+coils?\s*[,:]?\s*(?=\d+(?:\.\d+)?\s*A\b))"),
         "stator "},
        {Pattern(
             R"(^(\s*(?:[a-z]+\s+){0,2}battery\b.*\d\s*Ah\b.*?)\s*,\s*(?:via\s+|with\s+|by\s+|on\s+)?(?:an?\s+)?(?:vsr|split[ -]charge(?:\s+relay)?)\s*$)"),
         "$1, sensing relay"},
        {Pattern(R"((\s(?:from|off)\s+(?:the\s+)?[a-z]+)\s+always\s*$)"), "$1, always"},
        {Pattern(
             R"(^\s*(?:the\s+)?(?:old\s+)?(?:dynamo|generator)\s+replaced\s+(?:by|with)\s+(?:an?\s+)?(?=\d))"),
         ""},
        {Pattern(R"(,\s*(?:on\s+)?(?:when|while|with)\s+(?:the\s+)?key\s+(?:is\s+)?on(?=\s*(?:,|$)))"),
         ", on ignition"},
        {Pattern(
             R"(^\s*all\s+(?:of\s+it\s+)?(?:fed|supplied|run|powered)\s+(?:from|by|off|via)\s+(?:an?\s+|the\s+)?(?:new\s+)?(fuse\s?(?:box|block|board|panel)|panel)\b(?:\s+(?:by|near|beside|next\s+to)\s+(?:the\s+)?battery)?\s*,\s*(.*\d\s*A)\s*$)"),
         "battery to $1 $2 fuse"},
        {Pattern(R"((\d\s*W)\s+(?:through|into)\s+(?=(?:an?\s+|its\s+)?(?:mppt|pwm)\b))"), "$1, "},
        {Pattern(R"((\bcharger\s+\d+(?:\.\d+)?\s*A)\s+(?:at|@)\s*(?=(?:12|24|36|48)\s*V\b))"), "$1 "},
        {Pattern(R"(^\s*(24|36|48)\s*V\s+charger\s*[,:]?\s*(\d+\s*A)\s*$)"), "charger shore $2 $1 V"},
        {Pattern(
             R"(^\s*battery\s+(?:selector\s+)?switch\s*[:,]?\s*\(?\s*(?:off\s*[-/]\s*)?1\s*[-/]\s*2\s*[-/]\s*b(?:oth)?(?:\s*[-/]\s*off)?\s*\)?)"),
         "joiner switch "},
        {Pattern(R"(^\s*on-?\s?board\s+(?:battery\s+)?charger\s*[,:]?\s*(?=\d+\s*A\b))"), "shore charger "},
        {Pattern(
             R"(^\s*([2-8])\s*x\s*(6|12)\s*V\s*,?\s*(\d+\s*Ah)\s+((?:[a-z]+\s+)?(?:start(?:er|ing)?|engine|cranking|house|leisure|service))\s+(?:batteries|batts)\b)"),
         "$4 batteries $1x $2V $3"},
        {Pattern(
             R"(^\s*(?:12|24|48)\s*V?\s*(?:[-/]|to)\s*(?:12|24|48)\s*V?\s+(?=(?:dc-?dc|b2b)\b.*\b(?:start|starter|engine|vehicle)\b.*\bto\b))"),
         ""},
        {Pattern(
             R"(^\s*(?:12|24|48)\s*V\s+(?=(?:dc-?dc|b2b)\b.*\b(?:start|starter|engine|vehicle)\b.*\bto\b))"),
         ""}};
    return put_plainly(std::move(line), plainer);
}

}  // namespace

std::string with_plain_supplies(std::string line) {
    line = charged_in_our_words(one_box_of_both(line));
    static const Phrase plainer[] = {
        // from what stands most narrowly to what may stand anywhere
        {Pattern(
             R"((?<=[a-z] )(\d{1,2})\s+(?:strips?|bars|pods|spots|heads|bulbs|tubes|units|downlights|lamps|fittings|lights)\s+(?=\d+(?:\.\d+)?\s*[AW]\b))"),
         "$1x "},
        {Pattern(R"(\b\d+(?:\.\d+)?\s*W\s+(?:tx|transmit)\s*\(\s*(\d+(?:\.\d+)?\s*A)\s*\))"), "$1 tx"},
        {Pattern(
             R"(^\s*(?:equipment|loads|kit|gear|things|stuff|items|appliances)\s*\(\s*(?:ac|mains|(?:230|240|220|120|115|110)\s*V(?:\s*ac)?)\s*\)\s*:\s*)"),
         "mains: "},
        {Pattern(
             R"(^\s*(?:equipment|loads|kit|gear|things|stuff|items|appliances)\s*\(\s*(?:dc|12\s*V(?:\s*dc)?)\s*\)\s*:\s*)"),
         "loads: "},
        {Pattern(
             R"(^\s*split[ -]charge\s*:\s*(?:an?\s+)?(\d+\s*A)\s+(?:relay|solenoid)\b(?:\s*,?\s*(?:ignition|ign)[ -](?:operated|controlled|fed|switched|driven))?)"),
         "split charge relay $1"},
        {Pattern(R"(\b(?:[3-8]|three|four)[ -]stage\s+(?=(?:smart\s+)?(?:battery\s+)?charger\b))"), ""},
        {Pattern(
             R"(^\s*(\d+\s*A)\s+(?:dc-?dc|b2b)(?:\s+charger)?\s+(?:in)?to\s+(?:an?\s+|the\s+)?(?:2nd|second|aux(?:iliary)?|leisure|house)\s+batt\w*\s+(.*\d\s*Ah\b.*)$)"),
         "second battery $2, dc-dc $1"},
        {Pattern(
             R"(^\s*(\d+(?:\.\d+)?\s*W)\s+(?:of\s+)?solar(?:\s+panels?)?\s*,?\s*(?:on\s+(?:the\s+)?roof\s*)?,?\s*(?:thru|through|via|into)\s+(?:the\s+)?(?:dc-?dc|b2b)\b.*$)"),
         "solar $1"},
        {Pattern(R"(\balways\s+(?:powered|live|on)\b)"), "always"},
        {Pattern(R"(^\s*(\d+(?:\.\d+)?\s*k?W)\s+(12|24|36|48)\s*V\s+inverter\b)"), "inverter $1 $2 V"},
        {Pattern(R"(\s+via\s+(?:an?\s+)?relay(?=\s+(?:w/|with|on)\s))"), ""},
        {Pattern(R"(\s*,?\s*\ball\s+(?:on\s+)?(?:230|240|220|120|115|110)\s*V(?:\s*ac)?\s*$)"),
         ", all on inverter"},
        {Pattern(R"(\s*,?\s*\bon\s+for\s+(?:(?:max(?:imum)?|up to|about|at most)\s+)*(?=\d+\s*(?:s|min|h)))"),
         ", for "},
        {Pattern(R"(\s+-\s+(?:on\s+)?(?:the\s+)?inverter\b)"), " on inverter"},
        {Pattern(
             R"(^\s*(?:shore|mains|hook-?up|EHU)(?: power)?\s*:\s*(?:an?\s+)?(\d+\s*A)\s+(?:battery\s+)?charger\b)"),
         "shore charger $1"},
        {Pattern(R"(^(\s*solar\b.*\d\s*W)\s*\+\s*(?=\d+\s*A\b))"), "$1, "},
        {Pattern(R"(\b\d+(?:\.\d+)?\s*W\s+rms\s*,?\s*(\d+(?:\.\d+)?\s*A)\s+peaks?\b(?!\s*,?\s*\d))"), "$1"},
        {Pattern(
             R"((\d+(?:\.\d+)?\s*Ah)((?:\s+(?:agm|gel|flooded|lead|lithium|lifepo4|lfp))?)\s*x\s*([2-8])\b)"),
         "$3x $1$2"},
        {Pattern(R"(^\s*(12|24|36|48)\s*V\s+(?:(?:shore|mains|battery)\s+)+charger\s+(\d+\s*A)\b)"),
         "charger shore $2 $1 V"},
        {Pattern(
             R"(^(.*\d\s*k?W\b.*?)\s+(?:through|via)\s+(?:an?\s+|the\s+)?(?:(?:12|24|36|48)\s*V\s+)?(\d+(?:\.\d+)?\s*k?W)\s+inverter\s*$)"),
         "$1 through inverter $2"},
        {Pattern(
             R"(^(\s*(?:dc-?dc|b2b|split[ -]charge(?: relay)?|vsr)\b.*?)\s*,?\s+(?:from\s+)?(engine|starter|start|vehicle)\s+to\s+(house|leisure|aux|service)\s*$)"),
         "$1 from $2 battery to $3 battery"},
        {Pattern(
             R"((\d+(?:\.\d+)?\s*A)\s+(?:max(?:imum)?\s+)?fuse\s*,\s*(?:on\s+)?average\s+(\d+(?:\.\d+)?\s*A)\b)"),
         "$2, fuse $1"},
        {Pattern(
             R"(\b\d+(?:\.\d+)?\s*W\s*\(?\s*tx\s+(\d+(?:\.\d+)?\s*A)(?:\s+each)?\s*[,/]\s*rx\s+(\d+(?:\.\d+)?\s*A)(?:\s+each)?\s*\)?)"),
         "$1 tx, $2 rx"},
        {Pattern(
             R"(\b\d+(?:\.\d+)?\s*[AW]\s*/\s*(\d+(?:\.\d+)?\s*[AW])\s*\(?\s*lo(?:w)?\s*/\s*hi(?:gh)?\s*\)?)"),
         "$1"},
        {Pattern(R"(\bthermostat\s+(\d+\s*%))"), "duty $1"},
        {Pattern(R"(\s*,?\s*\b(?:all|over)\s*night\s*\(\s*(\d+(?:\.\d+)?\s*h)(?:ours?|rs?)?\s*\))"),
         ", $1 a day"},
        {Pattern(R"(\(\s*own\s+(\d+\s*A)\s+(breaker|fuse)\s*\))"), ", $1 $2"},
        {Pattern(R"(^\s*shore(?:\s+power)?\s+(\d+\s*A)\s+(?:converter\s*/?\s*)?charger\b)"),
         "shore charger $1"},
        {Pattern(R"(\b(?:BCI\s+)?group\s+\d{2}[a-z]?\b)"), ""},
        {Pattern(R"(\brelocated\s+(?:to|in)\s+(?:the\s+)?)"), "in the "},
        {Pattern(
             R"(^\s*[a-z][a-z ]*?\s+(?:on\s+)?(12|24)\s*V\s*:\s*(?:dc-?dc\s+)?converter\s+(?:24|36|48)\s*V?\s*(?:/|to)\s*(?:12|24)\s*V?\s+(\d+\s*A)\b)"),
         "converter $1 V $2"},
        {Pattern(
             R"((\d\s*k?W\s+(?:(?:110|115|120|220|230|240)\s*V|(?:on|via|from|off|through)\s+(?:the\s+)?inverter))\s+(\d+(?:\.\d+)?\s*(?:min|s|h)[a-z]*)\s*$)"),
         "$1, for $2"},
        {Pattern(R"(^\s*(\d{1,2})\s+([a-z][a-z ]*?)\s*@\s*(\d+(?:\.\d+)?\s*[AW])\b)"), "$2 $1x $3"},
        {Pattern(R"((\d+(?:\.\d+)?)\s*(?:h|hrs?|hours?)\s+(?:a|per|each|every)\s+(?:night|evening)\b)"),
         "$1 h a day"},
        {Pattern(
             R"(^\s*(?:dc-?dc|converter)\s+(?:24|36|48)\s*V?\s*(?:-|/|to)\s*(12|24)\s*V?\s+(\d+(?:\.\d+)?\s*A)\b)"),
         "converter $1 V $2"},
        {Pattern(
             R"(^\s*(?:twin|two|2\s*x?)\s+(?:\d+\s*hp\s+)?(?:outboards?|engines?|diesels?|inboards?)\s*(?:,|with|each with)?\s*(?:an?\s+|each\s+)*(\d+\s*A)\s+alternators?(?:\s+each)?\s*$)"),
         "alternators 2x $1"},
        {Pattern(R"(\b(?:3|three|single|1)[ -]phase\b)"), ""},
        {Pattern(R"(\(\s*(\d{1,2})\s*x?\s*\)\s*(?=\d+(?:\.\d+)?\s*[AW]\b))"), " $1x "},
        {Pattern(R"(\s+-\s+(?:on\s+)?(?:the\s+)?(ign|ignition|acc|accessory)(?:\s+only)?(?=\s*(?:,|$)))"),
         " on $1"},
        {Pattern(R"(\s*,?\s*\brun\s+(?:of\s+)?(?=\d+(?:\.\d+)?\s*(?:m|ft)\b\s*(?:,|$|\()))"), ", "},
        {Pattern(R"(,\s*(?:ign|ignition|key)[ -](?:switched|controlled|fed|live|only)\b)"), " on ignition"},
        {Pattern(R"((?<![\d.])(\d{1,2}\s*%)\s+on(?=\s*(?:,|$|\()))"), "duty $1"},
        {Pattern(R"(,\s*cable\s+(?=\d+(?:\.\d+)?\s*(?:m|ft)\b))"), ", "},
        {Pattern(
             R"((\d\s*[AW]\b)\s*[,(/]\s*(?:start[ -]?up|starts?|starting|in-?rush|peaks?|surges?)(?:\s+(?:at|with|to|of|current|draw))*\s*:?\s*(\d+(?:\.\d+)?\s*A)\b\s*\)?(?!\s*(?:run|avg|average|normal|typ|cont|hold|steady|then|for)))"),
         "$1, start $2"},
        {Pattern(
             R"(\s*[,(]\s*(\d+(?:\.\d+)?\s*A)\s+(?:(?:at|on|when|to)\s+)?(?:start(?:ing|[ -]?up)?|in-?rush|peaks?|surge)\b\s*\)?(?!\s*for\b)(?!\s*[,/;]?\s*\d+(?:\.\d+)?\s*[AW]\b))"),
         ", start $1"},
        {Pattern(
             R"((?<=[a-z0-9)%])\s*[,-]?\s+(?:on\s+|by\s+|via\s+)?(?:an?\s+|its\s+|the\s+)?(?:own\s+)?(?:dash|toggle|rocker|momentary|push[ -]?button|hand|manual|cab|in-cab|panel|own)\s+switch(?=\s*(?:,|$)))"),
         ", on own switch"},
        {Pattern(R"(,\s*(?:on\s+a\s+switch|switched\s+(?:on|from)\s+(?:the\s+)?dash)(?=\s*(?:,|$)))"),
         ", on own switch"},
        {Pattern(R"((\d\s*(?:s|secs?|seconds?|min|mins|minutes?|h|hours?))\s+at\s+once\b)"), "$1 at a time"},
        {Pattern(
             R"(^\s*(?:an?\s+)?(\d+(?:\.\d+)?\s*W)(?:atts?)?\s+(?:of\s+)?solar\b(?!\s+(?:panels?\s+)?(?:via|with|w/|through|into)\b)(?:\s+(?:panels?|power))?)"),
         "solar $1"},
        {Pattern(R"(^\s*((?:\d{1,2}\s*x\s*)?\d+(?:\.\d+)?\s*W)(?:atts?)?\s+(?:solar\s+)?panels?\s*$)"),
         "solar $1"},
        {Pattern(
             R"(^\s*(\d{1,2}\s*x\s*\d+(?:\.\d+)?\s*W)(?:atts?)?\s+(?:of\s+)?solar\b(?:\s+(?:panels?|array|power))?)"),
         "solar $1"},
        {Pattern(R"(^\s*solar\s+(\d+(?:\.\d+)?\s*W)\s*x\s*(\d{1,2})\b)"), "solar $2x $1"},
        {Pattern(R"(\b(on|via|from|off|through)\s+(?:the\s+)?(?:inverter\s*[/-]\s*charger|combi)\b)"),
         "$1 inverter"},
        {Pattern(
             R"(^(\s*solar\b.*\d\s*W\b[^,+]*?)\s*(?:[,+]|\s)\s*(?:with\s+|via\s+|on\s+)?(?:an?\s+|its\s+)?(?:mppt|pwm)\s+(?:controller\s+)?(?:(?:12|24|36|48)\s*V\s+)?(\d+\s*A)\b)"),
         "$1, controller $2"},
        {Pattern(R"(^\s*alt\s*:\s*(?=\d))"), "alternator "},
        {Pattern(R"(\balternator\s+(?:output|rating|size)\s*:?\s*(?=\d))"), "alternator "},
        {Pattern(R"(^\s*(?:230|240|220|120|115|110)\s*V(?:\s*ac)?\s+inverter\b)"), "inverter"},
        {Pattern(
             R"(^\s*(?:an?\s+)?(?:smart\s+)?(?:battery\s+)?charger\s+(\d+\s*A)(?:mps?)?\s*\(\s*(?:mains|shore(?: power)?|hook-?up|(?:230|240|220|120|115|110)\s*V(?:\s*ac)?)\s*\))"),
         "shore charger $1"},
        {Pattern(
             R"(^\s*(?:an?\s+)?(\d+\s*A)(?:mps?)?\s+(?:smart\s+)?(?:battery\s+)?charger\s*\(\s*(?:mains|shore(?: power)?|hook-?up|(?:230|240|220|120|115|110)\s*V(?:\s*ac)?)\s*\))"),
         "shore charger $1"},
        {Pattern(
             R"(^\s*(?:an?\s+)?(\d+\s*A)(?:mps?)?\s+(?:mains|shore(?: power)?|hook-?up|(?:230|240|220|120|115|110)\s*V(?:\s*ac)?)\s+(?:smart\s+)?(?:battery\s+)?charger\b)"),
         "shore charger $1"},
        {Pattern(
             R"(^\s*(?:an?\s+)?(?:smart\s+)?(?:battery\s+)?charger\s+(\d+\s*A)\s+(?:from|on|off|via)\s+(?:the\s+)?(?:mains|shore(?: power)?|hook-?up|(?:230|240|220|120|115|110)\s*V(?:\s*ac)?)\s*$)"),
         "shore charger $1"},
        {Pattern(
             R"(^\s*(?:smart\s+)?(?:mains|shore(?: power)?|hook-?up|(?:230|240|220|120|115|110)\s*V(?:\s*ac)?)\s+(?:smart\s+)?(?:battery\s+)?charger\s+(?=\d))"),
         "shore charger "},
        {Pattern(R"(^\s*(\d+\s*A)\s+b2b\s+charger\b)"), "dc-dc charger $1"},
        {Pattern(R"(^\s*dc-?dc\s+charger\s*:\s*(?=\d))"), "dc-dc charger "},
        {Pattern(R"((\d\s*k?W)\s*,?\s*(?:@|at)\s*(?:230|240|220|120|115|110)\s*V(?:\s*ac)?\b)"),
         "$1 on inverter"},
        {Pattern(R"((\d\s*k?W)\s*,\s*inverter\s*$)"), "$1 on inverter"},
        {Pattern(
             R"(\b(?:off|(?:powered|fed|supplied)\s+(?:by|from)|run(?:s|ning)?\s+(?:off|from|on))\s+(?:the\s+)?inverter\b)"),
         "on inverter"},
        {Pattern(
             R"(^\s*(?:(?:the\s+)?batteries\s+(?:are\s+)?(?:joined|linked|connected)\s+(?:by|with|via)\s+|split\s+by\s+|(?:[a-z]+\s+)?battery\s+charged\s+(?:via|by|through)\s+)(?:an?\s+)?(?=\d+\s*A\s+(?:vsr|split|voltage|charging|combiner|sensing)\b))"),
         ""},
        {Pattern(R"(\b(?:smart|automatic|auto)\s+(?=(?:split[ -]charge|charging relay|vsr|combiner)\b))"),
         ""},
        {Pattern(R"(\bvoltage[ -]sens(?:ing|itive)\s+(?:split[ -]charge\s+)?relay\b)"), "VSR"},
        {Pattern(R"(\bsplit[ -]charging\s+relay\b)"), "split charge relay"},
        {Pattern(R"(^\s*(vsr|split[ -]charge relay)\s*[:,-]\s*(?=\d+\s*A\b))"), "$1 "},
        {Pattern(R"((\d(?:\.\d+)?)\s*(?:mm\s*sq\b\.?|sq\.?\s*mm\b|sqmm\b|mm\^2|square\s+mm\b))"), "$1 mm2"},
        {Pattern(R"((\d\s*m)\s*(?:x|in|(?:run\s+)?of|@)\s*(\d+(?:\.\d+)?\s*mm(?:2|\xC2\xB2)))"), "$1, $2"},
        {Pattern(R"((mm(?:2|\xC2\xB2))\s*x\s*(\d+(?:\.\d+)?\s*m)\b)"), "$1, $2"},
        {Pattern(
             R"((mm(?:2|\xC2\xB2))\s+(?:twin|single|tinned|flex|wire|cable(?=\s*(?:,|$)))(?:\s+(?:core|cable|wire))?\b)"),
         "$1"},
        {Pattern(R"(\s+with\s+(?=\d+(?:\.\d+)?\s*m\b\s*,))"), ", "},
        {Pattern(
             R"(^\s*(?:an?\s+)?(\d+\s*A)\s+(?:24|36|48)\s*V?\s*(?:-|/|to)\s*(12|24)\s*V?\s+(?:dropper|reducer|(?:dc-?dc\s+)?converter|dc-?dc)\b)"),
         "converter $2 V $1"},
        {Pattern(
             R"x(^\s*(?:an?\s+)?(?:24|36|48)\s*V?(?:olts?)?\s*(?:-|/|to)\s*(12|24)\s*V?(?:olts?)?\s+(?:(?:dc[ -]?dc\s+)?(?:voltage\s+)?(?:converter|dropper|reducer)|dc[ -]?dc)\s*:?,?\s*\(?\s*(\d+(?:\.\d+)?\s*A)(?:mps?)?(?:\s*\))?(?!\s*(?:feeding|feeds|:|->)))x"),
         "converter $1 V $2"},
        {Pattern(
             R"x(^\s*(?:an?\s+)?(?:24|36|48)\s*V?(?:olts?)?\s*(?:-|/|to)\s*(12|24)\s*V?(?:olts?)?\s+\(?\s*(\d+(?:\.\d+)?\s*A)(?:mps?)?(?:\s*\))?\s+(?:(?:dc[ -]?dc\s+)?(?:voltage\s+)?(?:converter|dropper|reducer)|dc[ -]?dc)\b)x"),
         "converter $1 V $2"},
        {Pattern(
             R"x(^\s*(?:an?\s+)?(?:(?:dc[ -]?dc\s+)?(?:voltage\s+)?(?:converter|dropper|reducer)|dc[ -]?dc)\s*:?\s*\(?\s*(?:24|36|48)\s*V?(?:olts?)?\s*(?:-|/|to)\s*(12|24)\s*V?(?:olts?)?\s*\)?\s*,?\s*\(?\s*(\d+(?:\.\d+)?\s*A)(?:mps?)?(?:\s*\))?(?!\s*(?:feeding|feeds|:|->)))x"),
         "converter $1 V $2"},
        {Pattern(
             R"x(^\s*(?:an?\s+)?\(?\s*(\d+(?:\.\d+)?\s*A)(?:mps?)?(?:\s*\))?\s+(?:(?:dc[ -]?dc\s+)?(?:voltage\s+)?(?:converter|dropper|reducer)|dc[ -]?dc)\s+\(?\s*(?:24|36|48)\s*V?(?:olts?)?\s*(?:-|/|to)\s*(12|24)\s*V?(?:olts?)?\s*\)?\s*$)x"),
         "converter $2 V $1"},
        {Pattern(
             R"x(^\s*(?:an?\s+)?(12|24)\s*V\s+\(?\s*(\d+(?:\.\d+)?\s*A)(?:mps?)?(?:\s*\))?\s+(?:(?:dc[ -]?dc\s+)?(?:voltage\s+)?(?:converter|dropper|reducer)|dc[ -]?dc)\b)x"),
         "converter $1 V $2"},
        {Pattern(
             R"x(^\s*(?:an?\s+)?(12|24)\s*V\s+(?:converter|dropper|reducer)\s*,?\s*\(?\s*(\d+(?:\.\d+)?\s*A)(?:mps?)?(?:\s*\))?(?!\s*(?:feeding|feeds|:|->)))x"),
         "converter $1 V $2"},
        {Pattern(
             R"x((?<=[a-z0-9)])\s*,?\s*\(?\s*(?:on|from|via|off)\s+(?:the\s+)?(?:12\s*V\s+)?(?:converter|dropper)\b\s*\)?(?=\s*(?:,|$)))x"),
         " from converter"},
        {Pattern(
             R"x(^(?!.*\b(?:alternator|alt|charger|inverter|converter|solar|battery|batteries|stator|starter)\b)(.*\d\s*[AW])\s*,?\s*(?:@|at)\s*(12|24|36|48)\s*V\b)x"),
         "$1, $2 V"},
        {Pattern(
             R"x(^(?!.*\b(?:alternator|alt|charger|inverter|converter|solar|battery|batteries|stator|starter)\b)(.*\d\s*[AW])\s*,?\s+(?:on|from|off|via)\s+(?:the\s+)?(12|24|36|48)\s*V(?:olts?)?(?:\s+(?:side|supply|rail|bus|system))?(?=\s*(?:,|$)))x"),
         "$1, $2 V"},
        // when: by the engine, by the key, always
        {Pattern(
             R"(,\s*(?:only\s+)?(?:(?:if|when|while|with)\s+)?(?:the\s+)?engine\s+(?:is\s+)?(?:runs?|running|on)(?:\s+only)?(?=\s*(?:,|$)))"),
         ", while engine running"},
        {Pattern(
             R"(,\s*(?:only\s+)?(?:(?:if|when|while|with)\s+)?(?:the\s+)?engine\s+(?:is\s+)?(?:off|stopped)(?:\s+only)?(?=\s*(?:,|$)))"),
         ", when engine stopped"},
        {Pattern(R"(,\s*parked\s+only(?=\s*(?:,|$)))"), ", when parked"},
        {Pattern(
             R"(,\s*(?:key\s+(?:at|on|in)\s+|in\s+|on\s+|with\s+)?(?:the\s+)?acc(?:essory)?(?:\s+(?:only|live|feed|position|switched))?(?=\s*(?:,|$)))"),
         ", on accessory"},
        {Pattern(
             R"(,\s*(?:(?:only|comes\s+on|switched|on)\s+)*(?:(?:with|via|by|from|on)\s+)?(?:the\s+)?ign(?:ition)?(?:\s+(?:only|live|feed|fed|switched|on))*(?=\s*(?:,|$)))"),
         ", on ignition"},
        {Pattern(
             R"(,\s*(?:(?:on|runs?)\s+)?(?:unswitched|constant(?:ly)?(?:\s+(?:live|on))?|permanent(?:ly)?(?:\s+(?:live|on))?|battery\s+live|all\s+the\s+time|continuous(?:ly)?)(?=\s*(?:,|$)))"),
         ", always"}};
    return put_plainly(std::move(line), plainer);
}

}  // namespace yr
