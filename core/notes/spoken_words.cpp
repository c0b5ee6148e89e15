#include "notes/spoken_words.h"

#include <utility>

#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

// Batteries and what parts them from the rest.
std::string plain_batteries(std::string line) {
    static const Phrase plainer[] = {
        {Pattern(
             R"(^\s*(?:diesel|petrol|gas(?:oline)?)(?:\s+engine)?\s*[,:]\s*(?=(?:an?\s+)?(?:\d+\s*A\s+)?alternator\b))"),
         ""},
        // each engine of two with a battery of its own
        {Pattern(
             R"(^\s*(?:outboard|engine|motor)\s+(port|stbd|starboard|left|right)\s*,?\s*(?:\d+\s*hp\s*,?\s*)?(?:charg(?:es|ing)|with|alternator)\s+(?:an?\s+)?(\d+\s*A)(?:\s+(?:alternator|charging))?\s*,?\s+(?:with|and|on)\s+(?:its\s+)?battery(?:\s+\1)?\s+(\d+\s*Ah\b.*)$)"),
         "$1 battery $3, alone; $1 alternator $2 to $1 battery"},
        {Pattern(
             R"(^\s*(vsr|split[ -]charge(?:\s+relay)?)\s+between\s+(?:the\s+)?(port|stbd|starboard|left|right|house|leisure|domestic|engine|start|service)\s+and\s+(?:the\s+)?(port|stbd|starboard|left|right|house|leisure|domestic|engine|start|service)(?:\s+batter(?:y|ies))?\s*$)"),
         "joiner sensing relay between $2 battery and $3 battery"},
        {Pattern(R"(\b(\d{2,4})\s*A\s*(?:\(\s*)?CCA\b\s*\)?)"), "$1 CCA"},
        {Pattern(
             R"((^|,)\s*(?:(?:an?|the)\s+)?(?:single|one|1\s*x)\s+(?=\d+(?:\.\d+)?\s*Ah\b|(?:[a-z]+\s+){0,2}battery\s*,?\s*\d))"),
         "$1 "},
        {Pattern(
             R"(^\s*(?:main\s+)?(?:isolator|battery\s+switch|master(?:\s+switch)?|disconnect(?:\s+switch)?)\s+(?:for\s+|of\s+|on\s+)?(?:the\s+)?(domestic|house|leisure|engine|start|starter|service)s?(?:\s+(?:battery|bank|side))?\s*[,:]?\s*(\d+\s*A)\s*$)"),
         "$1 battery isolator $2"},
        {Pattern(
             R"(^\s*(?:an?\s+|the\s+)?(?:emergency[ -]stop|e-?stop|kill\s+switch)(?:\s+(?:button|switch))?\s+(?:opens|drops|cuts|trips|kills|operates|works)\s+(?:an?\s+|the\s+)?(?=battery\s+(?:disconnect|isolator|contactor|master)\b))"),
         ""},
        {Pattern(
             R"(\b((?:dc-?dc|b2b)\b[^,]*?\d\s*A)\s+between\s+(?:the\s+)?(?:two|both|them|batteries|2)(?:\s+batteries)?\b)"),
         "$1"},
        {Pattern(
             R"(^(.*\bbattery\b.*\d\s*Ah\b[^,]*?)\s*,?\s+(?:in\s+)?parallel(?:ed|led)?\s+(?:through|via|by|with|over)\s+(?:an?\s+)?(?:isolator|battery|manual|hand|rotary|link)\s+switch\b)"),
         "$1, switch"},
        {Pattern(
             R"((^|,)\s*(\d+(?:\.\d+)?\s*Ah\s+(?:(?:agm|gel|flooded|lead(?:[ -]acid)?|lithium|lifepo4|lfp)\s+)?)(starter|start|engine|cranking|house|leisure|domestic|service)\s+battery\b)"),
         "$1 $3 battery $2"},
        {Pattern(R"(\balternator\b([^,]*?\d\s*A)\s+for\s+(?:the\s+)?(domestic|house|leisure|service)s?\s*$)"),
         "alternator$1 to $2 battery"},
    };
    return put_plainly(std::move(line), plainer);
}

// What a thing draws at first, and what it stands.
std::string plain_loads(std::string line) {
    static const Phrase plainer[] = {
        {Pattern(
             R"(^(\s*(?:[a-z]+\s+)?winch\b.*?\d\s*A)\s+(?:at\s+)?(?:peak|stall|max(?:imum)?|full\s+load)\b)"),
         "$1"},
        {Pattern(
             R"((\d+(?:\.\d+)?\s*[AW])\s+(?:when\s+|while\s+)?running\s*[,;/]?\s*(?:and\s+|but\s+)?(\d+(?:\.\d+)?\s*[AW])\s+(?:(?:at|for|to|on|during|when)\s+)?(?:glow(?:ing|\s+plug)?|ignition|start(?:ing|[ -]?up)?|lighting|peak)\b)"),
         "$1, start $2"},
        {Pattern(
             R"(^\s*(?:tow(?:ing)?\s+)?(?:vehicle|car|truck|van|tug)\s+charge\s+line\b.*?(\d+\s*A)\s+(?:dc-?dc|b2b)(?:\s+charger)?(?:\s+(?:on|in)\s+(?:the\s+)?(?:trailer|caravan|camper))?\s*,\s*(\d+\s*A)\s*$)"),
         "charger \"charge line\" $1, fuse $2"},
        {Pattern(
             R"(^\s*(?:tow(?:ing)?\s+)?(?:vehicle|car|truck|van|tug)\s+charge\s+line\b.*?(\d+\s*A)\s+(?:dc-?dc|b2b)(?:\s+charger)?(?:\s+(?:on|in)\s+(?:the\s+)?(?:trailer|caravan|camper))?\s*$)"),
         "charger \"charge line\" $1"},
        {Pattern(
             R"(^\s*(?:dc-?dc|b2b)(?:\s+charger)?\s+(\d+\s*A)\s*,?\s*(?:charg(?:ed|ing)\s+)?(?:from|off|fed\s+(?:by|from))\s+(?:the\s+)?tow(?:ing)?\s+(?:vehicle|car|truck|van|rig)\s*$)"),
         "charger \"charge line\" $1"},
        {Pattern(
             R"((\d+(?:\.\d+)?\s*[AW])\s+(?:(?:at|on|for)\s+)?start(?:ing|[ -]?up)?\s*,?\s*then\s+(\d+(?:\.\d+)?\s*[AW])\b)"),
         "$2, start $1"},
        {Pattern(R"((?<=[AWs%])\s*,?\s+on\s+(?:an?\s+|its\s+)?timer\b)"), ""},
        // on several parts of the body: its name says so
        {Pattern(
             R"(^([a-z][a-z -]*?)\s+((?:\d{1,2}\s*x\s*)?\d+(?:\.\d+)?\s*[AW](?:\s+each)?)\s+on\s+(?:the\s+)?((?:boom|cab|roof|mast|front|rear|back|sides|grille|deck|left|right|bumper|arm)\s+and\s+(?:the\s+)?(?:boom|cab|roof|mast|front|rear|back|sides|grille|deck|left|right|bumper|arm))\s*$)"),
         "$1 $3 $2"},
        {Pattern(R"((\d+(?:\.\d+)?\s*A)(?:\s+rx)?\s*/\s*(\d+(?:\.\d+)?\s*A)\s+tx\b)"), "$2 tx, $1 rx"},
        {Pattern(R"(\b(?:\d+(?:\.\d+)?\s*W\s+)?tx\s+(\d+(?:\.\d+)?\s*A)\s*[,/;]?\s*rx\s+(\d*\.?\d+\s*A)\b)"),
         "$1 tx, $2 rx"},
        {Pattern(
             R"(^([^"]*\d\s*[AW]\b[^"]*?),\s*(?:with\s+|by\s+|via\s+)?(?:an?\s+)?(relay)\s*,\s*(on\s+[^"]*)$)"),
         "$1, $3, $2"},
        {Pattern(R"((?<=[a-z])\s*@\s*(?=\d+(?:\.\d+)?\s*(?:[AW]|amps?|watts?)\b))"), " "},
        {Pattern(R"(\bcycl(?:es|ing)\s+(?:at\s+|about\s+|around\s+)?(\d+)\s*(?:%|percent|per\s*cent))"),
         "duty $1 %"},
        {Pattern(
             R"(\b(?:(?:must|may|can|should)\s*(?:never|not|n't)|never\s+to)\s+(?:drop\s+out|lose\s+(?:its\s+)?power|go\s+off|go\s+down|fail|stop|be\s+interrupted)\b)"),
         ", critical"},
        {Pattern(
             R"(\b(?:needs|wants|requires)\s+(?:at\s+least|min(?:imum)?|no\s+less\s+than|over|above)\s+(?=\d+(?:\.\d+)?\s*V\b))"),
         "needs "},
        {Pattern(
             R"(\b(?:for|in|only|with)?\s*\bshort\s+bursts?\s*(?:of|,)?\s*(\d+(?:\.\d+)?\s*(?:s|sec|seconds)\b))"),
         ", $1 at a time"},
        {Pattern(
             R"((?<=[AW])\s*,?\s+(?:(?:and|also)\s+)?(?:(?:at|by)\s+night\s+too|night\s+too|day\s+and\s+night|night\s+and\s+day|round\s+the\s+clock|24/7)\s*$)"),
         ", always"},
    };
    return put_plainly(std::move(line), plainer);
}

// What charges, from what, and by what it goes down to 12 V.
std::string plain_chargers(std::string line) {
    static const Phrase plainer[] = {
        {Pattern(R"(\bDC\s*[/ ]\s*DC\b)"), "dc-dc"},
        {Pattern(
             R"(^\s*engine\b[^,\d]*(?:\d+(?:\.\d+)?\s*(?:L|cc|hp|kW|litres?|liters?)\b)?[^,\d]*\bwith\s+(?:an?\s+)?(?=\d+\s*A\s+alternator\b))"),
         ""},
        {Pattern(
             R"(^\s*generator\b[^,:>\d]*(?:\d+(?:\.\d+)?\s*k?W\s*)?(?:w/|with|and|,)\s*(?:an?\s+)?(\d+\s*A)\s+(?:converter[ /-]?)?charger\s*$)"),
         "shore charger $1"},
        {Pattern(R"(^\s*electric(?:al)?\s+(?=hook-?\s?up\b))"), ""},
        {Pattern(
             R"(^(\s*(?:[a-z]+\s+){0,2}(?:battery|bank))\s+12\s*V\s+([2-8]\s*x\s*\d+\s*Ah\b(?!.*\bseries\b)[^,]*))"),
         "$1 12 V $2 in parallel"},
        {Pattern(
             R"(^\s*(?:12\s*V\s+)?(leisure|house|living|service|domestic)\s+(?:battery\s+)?([2-8]\s*x\s*\d+\s*Ah\b.*?)\s*,?\s+charged\s+(?:by|from|via|with)\s+(?:an?\s+)?(?:24\s*V?\s*(?:-|/|to)\s*12\s*V?\s+)?(?:dc-?dc\s+)?charger\s+(\d+\s*A)\s*$)"),
         "$1 battery 12 V $2 in parallel, dc-dc $3"},
        {Pattern(
             R"(^\s*(?:12\s*V\s+)?(leisure|house|living|service|domestic)\s+(?:battery\s+)?(\d+\s*Ah\b[^:]*?)\s*,?\s+charged\s+(?:by|from|via|with)\s+(?:an?\s+)?(?:24\s*V?\s*(?:-|/|to)\s*12\s*V?\s+)?(?:dc-?dc\s+)?charger\s+(\d+\s*A)\s*$)"),
         "$1 battery 12 V $2, dc-dc $3"},
        {Pattern(
             R"(^\s*step[ -]?down\s+(?:converter\s+)?(?:24|36|48)\s*V?\s*(?:-|/|to|->)\s*(12|24)\s*V?\s*,?\s*(\d+\s*A)\s*$)"),
         "converter $1 V $2"},
        {Pattern(
             R"((\d\s*Ah\b[^,]*,)\s*(\d+\s*A)\s+(dc-dc|dcdc|b2b)\b(?:\s+charger)?\s*,?\s*(?:fed\s+(?:by|with|via|through)\s+)?)"),
         "$1 $3 $2, "},
        {Pattern(
             R"(\s*,?\s*\bwith\s+(?:an?\s+)?(\d+\s*A)\s+(?:[a-z]+\s+)?fuses?\s+(?:at\s+)?(?:each|both)\s+ends?\b)"),
         ", fuse $1 both ends"},
        {Pattern(
             R"(^\s*(?:drive\s+|main\s+|propulsion\s+)?motor\s+\d+(?:\.\d+)?\s*k?W(?:\s+max(?:imum)?)?\s*,\s*(?:motor\s+)?controller\s+(?=\d+\s*A\b))"),
         "motor controller "},
    };
    return put_plainly(std::move(line), plainer);
}

// Counts, ratings and measures of other things than its draw.
std::string plain_measures(std::string line) {
    static const Phrase plainer[] = {
        {Pattern(R"(\b(\d{2,4})\s+(?:cold\s+)?cranking\s+(?:amps?|A)\b)"), "$1 CCA"},
        {Pattern(R"(\b(\d{1,2})\s+times\s+(?=\d+(?:\.\d+)?\s*(?:[AW]|amps?|watts?)\b))"), "$1x "},
        {Pattern(R"(^([a-z][a-z -]*?)\s+pair\s*,?\s+(?:of\s+)?(?=\d+(?:\.\d+)?\s*[AW]\b))"), "$1 2x "},
        {Pattern(R"((?<=[AW])\s*,?\s+\d+(?:\.\d+)?\s*(?:psi|gph|gpm|lpm|l/min|l/h)\b)"), ""},
        {Pattern(R"(\b\d+(?:\.\d+)?\s*(?:psi|gph|gpm|lpm|l/min|l/h)\s*,?\s+(?=\d+(?:\.\d+)?\s*[AW]\b))"), ""},
        {Pattern(R"(\b(\d+(?:\.\d+)?\s*W)(?:atts)?\s+rms\s*,?\s*(\d+\s*A)(?:mps)?\s+max(?:imum)?\s+fuse\b)"),
         "$1, fuse $2"},
        {Pattern(R"(^\s*winch\s+for\s+(?:the\s+)?([a-z]+)\b)"), "winch \"$1 winch\""},
    };
    return put_plainly(std::move(line), plainer);
}

// Below which volts it stops: of an inverter or a block where it cuts off, of a load what it needs; what
// charges or joins says it by words of its own.
std::string plain_least_volts(const std::string& line) {
    static const std::string stops =
        R"(\s*,?\s*\b(?:low[ -]volt(?:age|s)?\s+)?(?:alarms?|cuts?[ -]?(?:out|off)|shuts?\s+(?:down|off)|drops\s+out|stops|opens|resets?|reboots?)\s+(?:at|below|under)\s+(\d+(?:\.\d+)?)\s*V\b)";
    static const Pattern other(
        R"(\d\s*Ah\b|\b(?:alternator|charger|charge|relay|vsr|dc-?dc|b2b|joiner|solar|stator)\b)"),
        parts(
            R"(^\s*(?:an?\s+|the\s+)?(?:(?:[a-z]+\s+)?inverter|(?:[a-z]+\s+){0,2}(?:fuse\s+)?(?:box|block|panel)|bus)\b)"),
        at_volts(stops);
    if (other.is_in(line)) return line;
    return at_volts.replaced(line, parts.is_in(line) ? ", cutoff $1 V" : ", needs $1 V");
}

}  // namespace

std::string with_spoken_words(std::string line) {
    return plain_loads(plain_least_volts(plain_batteries(plain_chargers(plain_measures(std::move(line))))));
}

}  // namespace yr
