#include "notes/everyday.h"

#include <algorithm>
#include <utility>

#include "notes/label_words.h"
#include "notes/plain_circuit.h"
#include "notes/plain_supplies.h"
#include "notes/spoken_words.h"
#include "notes/worked_figures.h"
#include "units/pattern.h"

namespace yr {

std::string with_plain_figures(std::string line) {
    line = with_inches(line);
    static const Pattern named_switch(R"x(\b(?:on|via|by|with)\s+(?:the\s+)?("[^"]+")\s+switch\b)x");
    line = named_switch.replaced(line, "on switch $1");
    if (std::count(line.begin(), line.end(), '"') > 1) return line;  // a name in quotes stays as it is
    static const Pattern ours(
        R"(^\s*(?:day|state|set|remove|price|rate|minutes|torque|likely|reading|stand|waypoint|way|outline|end)\s(?!(?:time\s+)?(?:leds?\s+)?(?:lights?|lamps?|spots?)\b))");
    if (ours.is_in(line)) return line;  // what is said of things has its own words
    line = with_plain_supplies(
        with_plain_circuit(with_worked_figures(with_label_words(with_spoken_words(std::move(line))))));
    static const std::string amount = R"((\d+(?:\.\d+)?\s*[AW]))";
    static const Phrase
        plainer[] = {// from what stands most narrowly to what may stand anywhere
                     {Pattern(R"(\s*!+(?=\s|$))"), ""},
                     {Pattern(R"(^\s*also\s+(?:an?\s+)?(?:1\s+(?=\d+\s*W\b))?)"), ""},
                     {Pattern(
                          R"(\b(?:makes|gives|puts out|delivers|produces|good for|but)\s+(?:(?:about|only|roughly|around|some)\s+)*(?=\d+\s*A\s+(?:at|on)\s+(?:hot\s+)?idle\b))"),
                      ""},
                     {Pattern(
                          R"(\b\d+(?:\.\d+)?\s*W\s*[,:]?\s+(?=\d+(?:\.\d+)?\s*A\s+(?:(?:on|in|when)\s+)?(?:tx|transmit)))"),
                      ""},
                     {Pattern(
                          R"((?<=[,;])\s*(?:transmits?|transmitting|keyed|sends|sending)\s+(?=(?:(?:about|roughly|around)\s+)?\d+\s*%))"),
                      " "},
                     {Pattern(
                          R"(^\s*((?:\d+\s*x\s*)?\d+(?:\.\d+)?\s*W)\s+(?:[a-z-]+\s+){0,2}panels?\s+(?:with|w/|via|on|into|through|and)\s*(?:an?\s+)?(\d+\s*A)\s+(?:mppt|pwm|reg(?:ulator)?|(?:charge\s+)?controller)\b)"),
                      "solar $1, controller $2"},
                     {Pattern(
                          R"(^\s*charg(?:ed|es|ing)\s+(?:it\s+)?(?:through|via|by|off|from|over)\b[^\d]*(?:\d+[ -]?(?:way|pin|core)\b[^\d]*)?\b(?:tow\w*|car|truck|van|tractor|vehicle)\b[^\d]*(\d+\s*A)\b.*$)"),
                      "charger \"charge line\" $1"},
                     {Pattern(
                          R"(^\s*charg(?:ed|es|ing)\s+(?:it\s+)?(?:through|via|by|off|from|over)\b[^\d]*\b(?:tow\w*|car|truck|van|tractor|vehicle)\b[^\d]*\d+[ -]?(?:way|pin|core)\b[^\d]*(\d+\s*A)\b.*$)"),
                      "charger \"charge line\" $1"},
                     {Pattern(
                          R"(\(\s*((?:from|on|via|off)\s+(?:the\s+)?same\s+(?:converter|dropper|reducer))\s*\))"),
                      "$1"},
                     {Pattern(
                          amount + R"(\s+(?:when\s+|while\s+)?(?:running|on)\s*[,;/]\s*(?:and\s+|but\s+)?)" +
                          amount +
                          R"(\s+(?:for|during|in)\s+(?:the\s+)?(?:first|initial)\s+(?:\w+\s+of\s+)?(\d+\s*(?:s|min)\w*))"),
                      "$1, start $2 for $3"},
                     {Pattern(
                          amount + R"(\s*[,;]\s*)" + amount +
                          R"(\s+(?:for\s+|during\s+)?(?:the\s+)?(?:first|initial)\s+(\d+\s*(?:s|min)\w*))"),
                      "$1, start $2 for $3"},
                     {Pattern(
                          amount +
                          R"(\s+(?:for|during|in)\s+(?:the\s+)?(?:first|initial)\s+(\d+\s*(?:s|min)\w*)\s*[,;]?\s*(?:and\s+)?then\s+)" +
                          amount),
                      "$3, start $1 for $2"},
                     {Pattern(R"((\d\s*(?:s|secs?|seconds?|min|mins|minutes?))\s+a\s+time\b)"),
                      "$1 at a time"},
                     {Pattern(R"(\bruns?\s+on\s+(?:gas|lpg|propane|diesel|petrol)\b\s*,?\s*)"), ""},
                     // the key and the engine switch it, and nobody's hand
                     {Pattern(
                          R"((?:(?<=[AWVs%)])\s*[-,]?\s*(?:(?:comes|works?|runs|goes)\s+)?|\s*[-,]?\s*(?:(?:comes|works?|runs|goes)\s+)?\bon\s+)with\s+(?:the\s+)?(?:ignition|ign|key)(?:\s+on)?\b)"),
                      " on ignition"},
                     {Pattern(
                          R"((?:(?<=[AWVs%)])\s*[-,]?\s*(?:(?:comes|works?|runs|goes)\s+)?|\s*[-,]?\s*(?:(?:comes|works?|runs|goes)\s+)?\bon\s+)with\s+(?:the\s+)?engine(?:\s+(?:on|running))?\b)"),
                      " while engine running"},
                     {Pattern(
                          R"((?<=[AWVs%)])\s*,?\s*(?:on\s+)?(?:an?\s+)?(?:hand|manual|pull|stalk|column)\s+switch(?:\s+\d+)?\b)"),
                      " on own switch"},
                     {Pattern(R"(\bsmart\s+(?=(?:battery\s+)?charger\b))"), ""},
                     {Pattern(
                          R"(^\s*(?:(?:110|115|120|220|230|240)\s*V\s+)?(?:mains\s+)?hook-?\s?up\b(?:\s+(?:at|in)\s+(?:the\s+)?[a-z]+)?(?:\s+\d+\s*A\b)?\s*[,:]?\s*(?:(?:with|to|and|feeds|feeding|via|->)\s+)?(?:an?\s+|the\s+)?(?:(\d+\s*A)\s+)?(?:battery\s+|mains\s+)?charger\b)"),
                      "shore charger $1"},
                     {Pattern(R"(^\s*engine\s*:\s*(?:diesel|petrol|gas(?:oline)?)\s*,\s*)"), ""},
                     {Pattern(R"(\b\d+(?:\.\d+)?\s*k?W\s*\(\s*(\d+(?:\.\d+)?\s*k?W)\s+input\s*\))"), "$1"},
                     {Pattern(
                          R"((?<=[AW])\s+(?:at|every|each|per)\s+night\s*,?\s*(\d+(?:\.\d+)?\s*h)(?:ours?|rs?)?\b)"),
                      ", $1 a day"},
                     // "bilge pump - float switch - 3.5 A"
                     {Pattern(
                          R"(^([a-z][^\d",]*?)\s*[-,]?\s+(?:(?:on|via|by|with)\s+)?(?:(?:an?|its|own)\s+)*float\s+switch(?:ed)?\b\s*[-,]?\s*(\d+(?:\.\d+)?\s*[AW])\b\s*-?)"),
                      "$1 $2 on switch float, "},
                     {Pattern(
                          R"(^\s*(\d+(?:\.\d+)?\s*k?W)\s+inverter\s+(?=(?:for|to run|to power|running|feeding|powering)\b))"),
                      "inverter $1 "},
                     {Pattern(
                          R"((\d\s*A)(?:\s+(?:max|peak|stall|full load))?\s*,?\s+\d+(?:\.\d+)?\s*A\s+(?:no[ -]load|unloaded|free(?: running)?)\b)"),
                      "$1"},
                     {Pattern(
                          R"(\b(split[ -]charge(?: relay)?|vsr)\s+between\s+(?:the\s+)?(?:two|both|them|batteries)\b)"),
                      "$1"},
                     {Pattern(
                          R"((\d+(?:\.\d+)?\s*[AW])\s+(?:ea\b\.?|each)\s*\(\s*(\d{1,2})\s*(?:x|off|no\.?)?\s*\))"),
                      "$2x $1"},
                     {Pattern(R"((?<=[AW])\s*,?\s*\b24\s*(?:h|hrs?|hours?)\b(?!\s*(?:a|per|/)\s*day))"),
                      ", always"},
                     {Pattern(R"(\bon\s+demand\b)"), ""},
                     {Pattern(
                          R"(^\s*(?:the\s+)?(?:tow(?:ing)?\s+)?(?:truck|car|van|vehicle|tug)\s+charges\s+(?:it\s+)?(?:via|through|by|with)\s+(?:an?\s+)?(\d+\s*A)\b.*$)"),
                      "charger \"charge line\" $1"},
                     {Pattern(
                          R"(^\s*generator\b[^,:>\d]*(?:\d+(?:\.\d+)?\s*k?W)?\s*(?:->|:|,|with|feeds|to|and)\s*(?:an?\s+)?(?:(\d+\s*A)\s+)?(?:battery\s+)?charger\b)"),
                      "shore charger $1"},
                     {Pattern(
                          R"(^\s*(?:\d+\s*hp\s+)?engine\s+(?:\d+\s*hp\s+)?(?:with|has|,|:)\s*(?:an?\s+)?(?=\d+\s*A\s+alternator\b))"),
                      ""},
                     {Pattern(R"(\b(\d{1,2})\s*(?:AWG\s+)?B\s*&\s*S\b)"), "$1 AWG"},
                     {Pattern(
                          R"(\b\d+(?:\.\d+)?\s*k?W\s*\(\s*(\d+(?:\.\d+)?\s*A)(?:\s*(?:at|@)?\s*\d+\s*V)?\s*\))"),
                      "$1"},
                     {Pattern(R"(\brunning\s+(?=\d+\s*%))"), "duty "},
                     {Pattern(
                          R"(^\s*charged\s+(?:by|from|via)\s+(?:the\s+)?(?=(?:solar|mppt|shore|mains|dc-?dc|b2b|alternator)\b))"),
                      ""},
                     {Pattern(R"(\b\d+(?:\.\d+)?\s*W\s+rms\s*,?\s+(?=\d+(?:\.\d+)?\s*A\b))"), ""},
                     {Pattern(
                          R"(^\s*outboards?\s+(?:\d+\s*hp\s*)?(?:with|has|[(,:])\s*(?:an?\s+)?(?=\d+\s*A\s+alternator\b|alternator\b))"),
                      ""},
                     {Pattern(
                          R"(^\s*(?:12|24)\s*V\s+(?:loads|things|items|stuff)\s+(?:from|on|via|off)\s+(?:an?\s+|the\s+)?(?=(?:24|36|48)\s*V?\s*(?:/|to|-)))"),
                      ""},
                     {Pattern(
                          R"((?<=[,:] )plus\s+(?=[a-z])|(?<=\dA )plus\s+(?=[a-z])|(?<=\d A )plus\s+(?=[a-z]))"),
                      "and "},
                     {Pattern(
                          R"((\d\s*A)\s+(?:at\s+)?(?:full|max(?:imum)?)\s+(?:load|pull)\b(?:\s*,?\s*(?:but\s+)?(?:mostly|usually|typically|normally)\s+\d+(?:\.\d+)?\s*A\b)?)"),
                      "$1"},
                     {Pattern(R"(\b\d+(?:\.\d+)?\s*W\s+(?=\d+(?:\.\d+)?\s*A\s*(?:tx|transmit)))"), ""},
                     {Pattern(R"((\d\s*A)\s+start\s+up\b)"), "$1 start"},
                     {Pattern(R"(\b(\d{1,2})\s+ea\b\.?\s+(?=\d))"), "$1x "},
                     {Pattern(R"(\s+(?:from\s+(?:the\s+)?factory|factory[ -]fitted|OEM)\b)"), ""},
                     {Pattern(R"(\bxmit\b)"), "tx"},
                     {Pattern(R"(^(\s*inverter\s+\d+(?:\.\d+)?\s*k?W)\s*\(([^()]*\d\s*k?W[^()]*)\)\s*$)"),
                      "$1: $2"},
                     {Pattern(R"(\(?\s*\b\d+(?:\.\d+)?\s*hp\b\s*\)?\s*,?\s*(?=\d+(?:\.\d+)?\s*A\b))"), " "},
                     // "heater 1-3 A": the most; a dash between spaces parts a name from its
                     // draw
                     {Pattern(
                          R"((?<=[a-z] )(?!(?:12|24|36|48)-)\d+(?:\.\d+)?(?:-|\xE2\x80\x93)(?=\d+(?:\.\d+)?\s*[AW]\b))"),
                      ""},
                     {Pattern(R"((?<=[a-z] \d)\s+-\s+(?=\d+(?:\.\d+)?\s*k?[AW]\b))"), ", "},
                     {Pattern(R"(^\s*2\s*x\s*(\d+\s*A)\s+alternators\b)"), "alternators 2x $1"},
                     {Pattern(
                          R"(^\s*((?:[1-8]\s*x\s*)\d+(?:\.\d+)?\s*Ah)\s+((?:starting|starter|start|engine|leisure|house|service)\s+batter(?:y|ies))\b)"),
                      "$2 $1"},
                     {Pattern(R"((?<=[a-z0-9)])\s+(\d{1,2})\s*pcs\b\.?\s*(?=\d))"), " $1x "},
                     {Pattern(R"(\s+\.\s+(?=\d))"), " "},
                     {Pattern(R"(\bengine\s+\d+(?:\.\d+)?\s*l(?:itres?|iters?)?\b\s*,?\s*)"), ""},
                     {Pattern(R"(\s+and\s+(?=runs?\s))"), ", "},
                     {Pattern(R"(^\s*there\s+(?:is|are|will be)\s+(?:an?\s+)?)"), ""},
                     {Pattern(R"(^\s*(?:i|we)\s+(?:have|had|got|'ve got)\s+(?:an?\s+)?)"), ""},
                     {Pattern(R"((\d\s*[AW])\s+on\s+start(?:ing|[ -]?up)?\s*,?\s*then\s+(?=\d))"),
                      "$1 start, then "},
                     {Pattern(R"(\binverter\s+is\s+for\b)"), "inverter for"},
                     {Pattern(R"(^\s*(?:12|24|36|48)\s*V\s+(?=alternator\b))"), ""},
                     {Pattern(R"((\d\s*k?W)\s+in(?:put)?(?=\s*(?:,|$)))"), "$1"},
                     {Pattern(R"((\d\s*A)\s+rcv\b)"), "$1 rx"},
                     {Pattern(R"(\b\d+(?:\.\d+)?\s*W\s+((?:[a-z]+\s+)?radio)\s+(?=\d+(?:\.\d+)?\s*A\b))"),
                      "$1 "},
                     {Pattern(R"((\d\s*A)\s+(?:net\s+)?at\s+cruise\b)"), "$1"},
                     {Pattern(
                          R"(^\s*(?:remove|take out|replace)\s+(?:the\s+)?(?:old|existing)\b[^,\d]*(?:\d+\s*Ah)?[^,\d]*,?\s+(?:and\s+)?(?:fit|with|by|install)\s+)"),
                      ""},
                     {Pattern(R"((\d+\s*A)\s+(?:mains|shore|230\s*V)\s+charger\b)"), "shore charger $1"},
                     // what is there already has its word: "CB same dropper 3 A", "phone 2 A
                     // on dropper"
                     {
                         Pattern(R"(\s*,?\s*\b(?:(?:(?:on|from|off|via|through)\s+(?:the\s+)?)?same\s+(?:dropper|reducer|step-?down|converter)|(?:on|from|off|via|through)\s+(?:the\s+)?(?:dropper|reducer|step-?down))(?=\s*(?:$|,|\d+(?:\.\d+)?\s*[AW]\b))(.*)$)"),
                         "$1 from converter"},
                     {Pattern(R"((\d)\s*amp\s*-?\s*hours?\b)"), "$1 Ah"},
                     {Pattern(R"((\d)\s*amps?\b)"), "$1 A"},
                     // "4 of 25 A each", "aux batteries 3 no. 120 Ah", "port & starboard 5 W
                     // each"
                     {Pattern(R"(\b(\d{1,2})\s+(?:of|nos?\.?)\s+(?=\d+(?:\.\d+)?\s*(?:k?[AW]|V|Ah)\b))"),
                      "$1x "},
                     {Pattern(R"(\b([a-z]+)\s+(?:&|and|\+)\s+([a-z]+)\s+(\d+(?:\.\d+)?\s*[AW])\s+each\b)"),
                      "$1 and $2 2x $3"},
                     {Pattern(R"(\b(?:is|are)\s+(?=\d))"), ""},
                     {Pattern(R"((?<=[a-z0-9)])\.\s*$)"), ""},
                     {Pattern(R"(^\s*(?:an?|the)\s+(?=[a-z]))"), ""},
                     {Pattern(
                          R"((?<=[a-z])(?<!kW)(?<!\dW)(?<!\d W)(?<!\dA)(?<!\d A)\s+(?:(?:which\s+|that\s+)?(?:draws?|takes?|uses?|pulls?|drawing|using|pulling)|at|of)\s+(?=\d+(?:\.\d+)?\s*k?[AW]\b))"),
                      " "},
                     {Pattern(
                          R"(^\s*(?:(?:i|we)\s+(?:want|need|plan|would like|am going|are going)\s+to\s+|going to\s+|to\s+)?(?:add|fit|install|put in|adding|fitting|installing)\s+(?:an?\s+)?(?=(?:second\s+)?\d|second\b))"),
                      ""},
                     {Pattern(R"(^\s*(?:an?\s+)?second\s+(?=\d+(?:\.\d+)?\s*Ah\b))"), "second battery "},
                     {Pattern(R"(\bdiversity\s+(?=\d))"), "duty "},
                     {Pattern(R"((?<=[a-z])\s*\.{2,}\s*|\s*\.{3,}\s*)"), " "},  // "light bar....18 A"
                     {Pattern(R"(^\s*(?:24|36|48)\s*V\s+(?=\d+\s*x\s*(?:2|6|8|12)\s*V\b))"), ""},
                     {Pattern(
                          R"(^\s*(?:24|36|48)\s*V?\s*(?:/|to|->|-)\s*(12|24)\s*V?\s+(?:dc-?dc|dcdc)(?:\s+converter)?\s+(?=\d+(?:\.\d+)?\s*A\b))"),
                      "converter $1 V "},
                     {Pattern(R"((\d\s*[AW])\s*x\s*(?=\d+\s*%))"), "$1 duty "},
                     {Pattern(R"((\b\d{1,2}\s*(?:@|x)\s*\d+(?:\.\d+)?\s*([AW]))\s*=\s*\d+(?:\.\d+)?\s*\2\b)"),
                      "$1"},
                     {Pattern(R"((\d)\s*(?:feet|foot)\b)"), "$1 ft"},
                     {Pattern(R"(^\s*(?:an?|the)\s+(?=\d))"), ""},
                     {Pattern(
                          R"(\s*,?\s*\b(?:with|w/)\s*(?:an?\s+)?(\d+\s*A)\s+BMS(?:\s+(?:inside|built in|inbuilt))?)"),
                      ", BMS $1"},
                     {Pattern(
                          R"(^\s*solar\s+(?:inputs?|panels?)?\s*(\d+(?:\.\d+)?\s*W)\s+(?:(?:folding|portable|flexible|rigid|roof)\s+)?(?:via|through|with|w/)\s*(?:an?\s+)?(?:reg(?:ulator)?|controller|mppt|pwm)\s+(\d+\s*A)\b)"),
                      "solar $1, controller $2"},
                     {Pattern(
                          R"((?<=[AW])\s*,?\s*\bovernight\s*\(?\s*(\d+(?:\.\d+)?\s*h)(?:ours?|rs?)?\b\s*\)?)"),
                      ", $1 a day"},
                     {Pattern(
                          R"(^\s*charger\s+(?:12|24|36|48)\s*V\s+(\d+(?:\.\d+)?\s*A)\s+from\s+(?:230|240|120|110)\s*V\s*$)"),
                      "charger shore $1"},
                     {Pattern(R"(\b1\s*x\s+(?=[48]D\b))"), ""},
                     {Pattern(R"(\b[48]D\s+(?=\d+\s*Ah\b))"), ""},
                     {Pattern(
                          R"(^\s*(?:engine|vehicle|chassis|base|truck|van|boat)\s*:\s*(?=(?:[a-z]+\s+)?batt[^,]*\d\s*Ah\b))"),
                      ""},
                     {Pattern(R"(\bconv\b\.?(?=\s*\d))"), "converter"},
                     {Pattern(
                          R"(^\s*((?:[1-8]\s*x\s*)?(?:(?:6|12|24)\s*V\s+)?\d+(?:\.\d+)?\s*Ah)\s+(leisure|house|starter|starting|start|aux|service|engine)\b(?!\s+batt))"),
                      "$2 battery $1"},
                     {Pattern(
                          R"((\d+\s*A)\s+(VSR|ACR|split[ -]charge relay|b2b|dc-?dc(?: charger)?)\b(?!\s*\d)(?:\s+(?:with|w/)\s*(?=\d))?)"),
                      "$2 $1, "},
                     {Pattern(
                          R"(\b\d+(?:\.\d+)?\s*[AW]\s+low(?:\s+beam)?\s*[/,]\s*(\d+(?:\.\d+)?\s*[AW])\s+high(?:\s+beam)?\b)"),
                      "$1"},
                     {Pattern(
                          R"(\b(?:runs?|on)\s+(?:(?:for\s+)?(?:about|roughly|around|some)\s+)?(?=(?:half|a third|a quarter) (?:of )?the time))"),
                      ""},
                     {Pattern(R"(\b(\d)\s*x\s*(\d+(?:\.\d+)?\s*A\s+run(?:ning)?)\s*,\s*\1\s*x\s*(?=\d))"),
                      "$1x $2, "},
                     {Pattern(
                          amount + R"(\s+run(?:ning)?\s*,\s*)" + amount +
                          R"(\s+(?:glow|start|peak)\w*\s+for\s+(\d+\s*(?:s|min))(?:ecs?|econds?|s|utes?)?\b)"),
                      "$1, start $2 for $3"},
                     {Pattern(
                          R"(\b\d+(?:\.\d+)?\s*hp\s+(?:diesel|petrol|gas|engine|outboards?|inboard|turbo|v8)\b\s*[,;]?\s*)"),
                      ""},
                     {Pattern(R"(\balt\b\.?\s*(?=\d+(?:\.\d+)?\s*A\b))"), "alternator "},
                     {Pattern(R"((\d\s*A)\s+alt\b\.?(?=\s*(?:,|$|&|and\b|\+)))"), "$1 alternator"},
                     // "windlass 80 A with its own 60 Ah AGM battery", "canopy: 120 Ah AGM"
                     {Pattern(
                          R"(\s*,?\s*\b(?:(?:with|has|on)\s+)?(?:its\s+)?own\s+(\d+(?:\.\d+)?\s*Ah)\s+((?:[a-z]+\s+)?)battery\b)"),
                      ", own $2battery $1"},
                     {Pattern(
                          R"(^\s*(?!day\b|daily\b|use\b|need\w*\b|total\b|capacity\b|batter|bank\b|consumption\b|charge\b)([a-z]+)\s*:\s*(?=(?:\d\s*x\s*)?\d+(?:\.\d+)?\s*Ah\b))"),
                      "$1 battery "},
                     {Pattern(R"(\bcycl(?:es|ing)\s+(?=\d+\s*%))"), "duty "},
                     {Pattern(R"(\bengine\s+(?:is|are)\s+(?=running|on|off))"), "engine "},
                     {Pattern(R"(^\s*(?:domestics?|services?|living area)\s*:\s*(?=[^,]*\d\s*Ah\b))"),
                      "leisure battery "},
                     {Pattern(R"(^\s*(?:shore-?line|shore power|shore lead|hook-?up lead)\s+\d+\s*A\s*$)"),
                      "# shore"},
                     {Pattern(
                          R"(\b\d+(?:\.\d+)?\s*k?W\s+(?:of\s+)?(?:heat(?:ing)?|thermal|output)\s*,?\s+(?=\d+(?:\.\d+)?\s*A\b))"),
                      ""},
                     {Pattern(R"((\d\s*k?W)\s+on\s+it\b)"), "$1 on inverter"},
                     {Pattern(R"(^\s*[a-z][a-z ]*?\s+(12|24)\s*V\s*:\s*((?:[a-z]+\s+)?battery)\b)"),
                      "$2 $1 V"},
                     {Pattern(
                          R"(^\s*(?:charg(?:e|ing|er)|(?:slave|charg(?:e|ing)|supply|jump|link)\s+(?:cable|lead|line))\s+from\s+(?:the\s+)?(?:truck|tow\w*|car|van|tractor)\b[^\d]*(?:\d+[ -]?pin\b[^\d]*)?(?:\d+\s*V\b[^\d]*)?(\d+\s*A)\b.*$)"),
                      "charger \"charge line\" $1"},
                     {Pattern(R"(^\s*(?:mains\s+)?hook-?\s?up\s+\d+\s*A\s*,?\s*charger\b)"), "shore charger"},
                     {Pattern(R"(\b(charger\b.*\d\s*A)\s+(?:in)?to\s+(?:the\s+)?(?=[a-z]+\s+battery\b))"),
                      "$1 to "},
                     {Pattern(R"(\bbatts\b\.?)"), "batteries"},
                     {Pattern(R"(\bbatt\b\.?(?=\s*\d))"), "battery"},
                     {Pattern(
                          R"(^(?!.*\bdraws\b)(?=.*\bheater\b)(?=.*\b(?:diesel|gas|petrol|lpg)\b)(.*?)\b\d+(?:\.\d+)?\s*kW\s*,?\s*(?=.*\d\s*A\b))"),
                      "$1"},
                     {Pattern(
                          R"(\b(?:dual|twin|two|pair of)\s+((?:[a-z]+\s+)?(?:batteries|alternators))\s*:?\s+2\s*x\s*(?=\d))"),
                      "$1 2x "},
                     {Pattern(R"(^\s*(?:dual|twin|pair of)\s+(?=(?:[a-z]+\s+)?batteries\b))"), "two "},
                     {Pattern(R"(\b2nd\s+batt(?:ery)?\b)"), "second battery"},
                     {Pattern(R"(^\s*(?:2nd|second)\s*:\s*(?=.*\d\s*Ah\b))"), "second battery "},
                     {Pattern(R"((\d\s*Ah\b.*?)\s*\(\s*\d\s*x\s*\d+\s*(?:Ah)?\s*\))"), "$1"},
                     // "8 pods 9 W each"
                     {Pattern(R"((?<=[a-z] )(\d{1,2})\s+([a-z]+s)\s+(\d+(?:\.\d+)?\s*[WA])\s+each\b)"),
                      "$2 $1x $3"},
                     {Pattern(R"(^\s*(12|24|36|48)\s*V\s+inverter\s+(\d+(?:\.\d+)?\s*k?W)\b)"),
                      "inverter $2 $1 V"},
                     {Pattern(R"(^\s*(?:chassis|vehicle|electrics|system)\s*:?\s*(12|24|48)\s*V\s*$)"),
                      "vehicle $1 V"},
                     {Pattern(
                          R"(^(?!.*\b(?:inverter|generator|shore|hook-?up)\b)(?!\s*(?:battery |mains )?charger\b)([^\d]*?)\s+(?:230|240|220|120|115|110)\s*V(?:\s*AC)?\s+(\d+(?:\.\d+)?\s*k?W)\b)"),
                      "$1 $2 on inverter"},
                     {Pattern(
                          R"(^\s*((?:\d+\s*x\s*)?\d+(?:\.\d+)?\s*W)\s+(?:[a-z-]+\s+){0,2}panels?\s+(?:into|to|via|through|on)\s+(?:the\s+)?(?:dc-?dc|mppt|controller|b2b)\b.*$)"),
                      "solar $1"},
                     {Pattern(
                          R"(^(\s*(?:dc-?dc|b2b)\b.*?\d\s*A)\s+(?:with|w/|and|\+)\s*(?:solar|mppt)(?:\s+(?:input|controller))?\b)"),
                      "$1"},
                     {Pattern(R"(\bEHU\b)"), "shore"},
                     {Pattern(
                          R"(^(\s*\d+(?:\.\d+)?\s*Ah)\s+((?:(?!agm|gel|lead|flooded|li)[a-z]+\s+)?(?:batt(?:ery|eries)?\b\.?|bank\b)))"),
                      "$2 $1"},
                     {Pattern(R"(\bwith\s+(?:an?\s+)?(\d+(?:\.\d+)?\s*A)\s+(fuse|breaker)\b)"), ", $2 $1"},
                     {Pattern(R"((\d)\s*watts?\b)"), "$1 W"},
                     {Pattern(
                          R"(\b(?:maybe|perhaps|say|typically|usually|probably|possibly|nominally)\s+(?=\d))"),
                      ""},
                     {Pattern(R"(\b(\d{1,2})\s+of\s+(?:them|these|those)\s*,?\s*(?=\d+(?:\.\d+)?\s*[AW]\b))"),
                      "$1x "},
                     {Pattern(
                          R"((\d+(?:\.\d+)?\s*[AW])\s*(?:x|\xC3\x97)\s+(\d{1,2})(?=\s*(?:,|$|\(|-\s|on\b|with\b)))"),
                      "$2x $1"},
                     // "2 A running, glow 10 A for 2 min": no word of the engine
                     {Pattern(
                          amount +
                          R"(\s+(?:when\s+|while\s+)?running\s*[,;/]\s*(?:and\s+)?(?:glow(?:s|ing)?|start(?:s|ing|up)?|peaks?|stall(?:s|ed)?)\s+(?:at\s+)?)" +
                          amount),
                      "$1, start $2"},
                     {Pattern(amount + R"(\s*[,(]?\s*(?:glow(?:s|ing)?|peaks?)\s+(?:at\s+)?)" + amount +
                              R"(\s+(?:for\s+)?(\d+\s*(?:s|min)\b)\)?)"),
                      "$1, start $2 for $3"},
                     {Pattern(
                          R"(\bstart\s+)" + amount +
                          R"(\s+(?:for\s+)?(\d+\s*(?:s|min)\b)s?\s+(?:at|on|when)\s+(?:start(?:ing|-?up)?|switch-?on)\b)"),
                      "start $1 for $2"},
                     {Pattern(
                          R"(\bdc\s*[-/]?\s*dc\s+(?:charger\s+)?(\d+\s*A)\s+(?:charger\s+)?(?=from\b|between\b))"),
                      "dc-dc charger $1 "},
                     {Pattern(
                          R"(^(\s*\d+(?:\.\d+)?\s*k?W)\s+(?:(?:pure|modified|true)\s*-?\s*sine(?:\s*-?\s*wave)?|psw|msw|low[ -]frequency)\s+(?=inverter\b))"),
                      "$1 "},
                     {Pattern(R"(^(\s*inverter\s+)(12|24|36|48)\s*V\s+(\d+(?:\.\d+)?\s*k?W)\b)"),
                      "$1$3 $2 V"},
                     {Pattern(
                          R"(^(?!\s*(?:charger|inverter|shore|hook|mains|battery charger)\b)(.*\d\s*k?W)\s*,?\s+(?:(?:off|on|from|via)\s+)?(?:the\s+)?mains\b)"),
                      "$1 on inverter"},
                     {Pattern(R"((\d)\s*(?:minutes?|mins)\b)"), "$1 min"},
                     {Pattern(R"((\d)\s*(?:seconds?|secs?)\b)"), "$1 s"},
                     {Pattern(R"(\b((?:a|per|each|every) day)\s+(?:in\s+)?(?:all|total)\b)"), "$1"},
                     {Pattern(R"((mm2|mm\xC2\xB2|\bAWG|/0|\d\s*(?:m|ft))\s+each\s+way\b)"), "$1"},
                     {Pattern(R"(\b(\d+\s*A)\s+fuses?\s+(?:at\s+)?(?:each|either|both)\s+ends?\b)"),
                      "fuse $1 both ends"}};
    line = put_plainly(std::move(line), plainer);
    // "inverter 2 kW - kettle 1500 W, laptop 90 W"
    static const Pattern lists(R"(^(\s*inverter\b.*?\d\s*k?W\b[^-:]*?)\s+-\s+(?=[a-z].*\d\s*W))");
    return lists.replaced(line, "$1: ");
}

std::string with_everyday_words(std::string line) {
    static const Phrase plainer[] = {
        {Pattern(R"(\bfuse[ds]?\s+(\d{1,3})(?=\s*(?:,|$)))"), "fuse $1 A"},
        {Pattern(R"(,?\s*\bcable\s+(?=from\b))"), ", "},
        {Pattern(R"(\s+(?:-|\xE2\x80\x93|\xE2\x80\x94)\s+)"), ", "},
        {Pattern(R"((\d\s*[WA])\s+each\s*(?=,))"), "$1"},
        {Pattern(R"((?<=[AW])\s+(?=(?:thermostat|pressure switch|limit switch)\b))"), ", "},
        {Pattern(R"(\s*,?\s*\b(?:for\s+)?(?:a\s+)?few\s+(?:secs?|seconds?)\b)"), ", for 5 s"},
        {Pattern(R"((\d\s*(?:min|s|h))\s+max(?:imum)?\b)"), "$1"},
        {Pattern(R"(^\s*\d{1,2}[ -]way\s+(?=(?:fuse|distribution|panel|board)))"), ""},
        {Pattern(R"(,?\s*\bfed\s+(?:with|by|via)\s+)"), ", "},
        {Pattern(R"(^\s*alternator\s+(\d{2,3})\s*$)"), "alternator $1 A"},
        {Pattern(R"((\d\s*A)\s+peak\s+(?=\d+(?:\.\d+)?\s*(?:m|ft)\b))"), "$1 "},
        {Pattern(R"((\d\s*(?:k?W|A))\s+(?:continuous(?:ly)?|constant(?:ly)?)\s+(?=while\b|when\b))"), "$1 "},
        // "freezer 12 V compressor 12 A": what stands between is its name
        {Pattern(
             R"(^(\s*(?!inverter\b|alternator\b|battery\b|converter\b|charger\b|solar\b)[a-z][a-z ]*?)\s+(12|24)\s*V\s+(?!on\b|from\b|via\b|at\b)([a-z]+)\s+(?=\d))"),
         "$1 $3 $2 V "},
        {Pattern(R"(\b(?:straight|direct(?:ly)?)\s+(?:off|from|to)\s+)"), "from "},
        {Pattern(R"(\b(?:joined|linked|coupled)\s+(?:by|with|via|through)\s+)"), "with "}};
    return put_plainly(std::move(line), plainer);
}

}  // namespace yr
