#include "notes/plain_circuit.h"

#include <utility>

#include "units/pattern.h"
#include "units/text.h"

namespace yr {

namespace {

// "body controller, 8 channels 15 A each", "8-channel control box, 15 A per channel": a box of that name.
// What is of the sun, of a motor or of sound has channels, too, and is none.
std::string with_box_of_channels(const std::string& line) {
    static const std::string name =
        R"(((?:(?!solar|mppt|pwm|charge|motor|amp|sound|audio)[a-z-]+\s+){0,3}(?:box|controller|module|pdm|control unit)))";
    static const std::string rating =
        R"((\d+(?:\.\d+)?\s*A)\b(?:\s*(?:each|per channel|a channel|max(?:imum)?))*\s*\)?(.*)$)";
    static const Pattern channels_behind(
        R"(^\s*(?!box\b))" + name +
        R"(\s*[,:(-]?\s*(?:with\s+|has\s+)?(\d{1,2})[ -](?:channels?|outputs?)\s*[,:]?\s*(?:of\s+|at\s+|@\s*|x\s+)?)" +
        rating);
    static const Pattern channels_before(R"(^\s*(?:an?\s+)?(\d{1,2})[ -](?:channels?|outputs?|ch)\s+)" +
                                         name + R"(\s*[,:(-]?\s*(?:with\s+|of\s+)?)" + rating);
    Found m;
    const auto boxed = [&](const std::string& called, const std::string& count) {
        const std::string rest(trim(m[4]));
        const bool apart = !rest.empty() && rest.front() != ',';
        return "box \"" + called + "\" " + count + " channels " + m[3] + (apart ? ", " : "") + rest;
    };
    if (channels_behind.is_all_of(line, m)) return boxed(m[1], m[2]);
    if (channels_before.is_all_of(line, m)) return boxed(m[2], m[1]);
    return line;
}

}  // namespace

std::string with_plain_circuit(std::string line) {
    line = with_box_of_channels(line);
    static const Phrase plainer[] =
        {
            // starters: what turns the engine, not what its battery or relay is called
            {Pattern(
                 R"x(^\s*(?:an?\s+)?\(?(\d+(?:\.\d+)?\s*(?:k?W|A))(?:mps?|atts?)?\)?\s+(?:engine\s+)?starter(?:\s+motor)?\b(?!\s*(?:batter|batt|solenoid|relay|cable|bank|lead|feed|button|switch|fuse)))x"),
             "starter $1"},
            {Pattern(
                 R"(^\s*(?:the\s+)?engine\s+starter(?:\s+motor)?\s*[:,-]?\s*(?=\d+(?:\.\d+)?\s*(?:k?W|A)\b(?!h)))"),
             "starter "},
            // blocks of fuses; how many stand in them is counted by what hangs there
            {Pattern(R"(^\s*(?:an?\s+)?\d{1,2}\s+fuse\s+(box|block|panel|board)\b)"), "fuse $1"},
            {Pattern(R"(\bfuse-?box\b)"), "fuse box"},
            {Pattern(R"(\bfuse-?(block|panel|board)\b)"), "fuse $1"},
            {Pattern(
                 R"(^\s*(?:an?\s+)?(?:\d{1,2}|four|six|eight|ten|twelve)[ -]?(?:ways?|circuits?|positions?|gang|slots?|fuses?)\s+(?:blade\s+)?(fuse\s+(?:box|block|panel)|distribution\s+(?:block|panel|box)|(?:block|panel)\b))"),
             "$1"},
            {Pattern(
                 R"x(^(\s*(?:[a-z][a-z ]*?\s+)?(?:fuse\s+(?:box|block|panel)|distribution\s+(?:block|panel|box)))\s*[:,-]?\s*\(?\s*(?:with\s+|for\s+)?(?:\d{1,2}|four|six|eight|ten|twelve)[ -]?(?:ways?|circuits?|positions?|gang|slots?|fuses)(?:\s+fused?)?\b(?:\s*\))?)x"),
             "$1"},
            // what comes off a battery comes from it
            {Pattern(
                 R"x((?:(?<=\d[AW])|(?<=\d [AW])|(?<=\dkW)|(?<=\d kW)|(?<=,)|(?<=fed)|(?<=direct)|(?<=straight)|(?<=powered)|(?<=panel)|(?<=inverter))\s+off\s+(?:of\s+)?(?:the\s+)?(?=(?:[a-z]+\s+){0,2}(?:batter(?:y|ies)|bank)\b))x"),
             " from "},
            // a motor that turns both ways, what a contactor switches: somebody's hand does it
            {Pattern(
                 R"x((?<=[AWVsm2)])\s*,\s*reversing\s*,\s*(?:(?:via|with|by|through|on)\s+)?(?:an?\s+|(?:two|2|a pair of|twin|reversing)\s+)*(?:relays?|contactors?|solenoids?)\s*(?=,|\d|$))x"),
             ", on own switch, "},
            {Pattern(
                 R"x((\d\s*[AW])\s*,?\s+(?:via|with|by|through|on)\s+(?:an?\s+|its\s+own\s+|(?:two|2|a pair of|twin|reversing)\s+)*(?:contactors?|solenoids?|relays)(?!\s+(?:with|w/|on|from|at)\b)\s*(?=,|$))x"),
             "$1, on own switch"},
            {Pattern(R"x((?:(?<=\dm)|(?<=\d m)|(?<=\dft)|(?<=\d ft))\s+switched\s*(?=,|$))x"), ", switched"},
            {Pattern(R"(,\s*own\s+(?=(?:\d/0|\d{1,2}\s*(?:AWG|mm|m\b|ft\b))))"), ", "},
            {Pattern(
                 R"(\s+for\s+(?:the\s+)?(?:all\s+)?(?:12|24)\s*V\s+(?:things|stuff|loads|items|circuits|side|gear|kit|accessories|equipment)\s*$)"),
             ""},
            // what its engine gives
            {Pattern(
                 R"(^\s*(?:\d+\s*hp\s+)?engine\b[^,:\d]*(?:\d+(?:\.\d+)?\s*(?:hp|cc|kW)\b)?[^,:\d]*[,:]\s*(?:with\s+)?(?:an?\s+)?(?=(?:stator|alternator|dynamo)\b[^,]*\d\s*A\b))"),
             ""},
            {Pattern(
                 R"(^\s*(stator|alternator|dynamo)\s+(?:charges?|charging|gives|output)\s+(?:at\s+)?(?=\d))"),
             "$1 "},
            {Pattern(R"(^\s*alternator\s+1\s*:\s*)"), "alternator "},
            {Pattern(R"(^\s*alternator\s+2\s*:\s*)"), "second alternator "},
            // what parts the battery from the rest
            {Pattern(
                 R"(^\s*(?:an?\s+)?(\d+\s*A)(?:mps?)?\s+((?:(?:main|battery|master)\s+)*(?:isolator|isolation|disconnect|master|kill|battery|cut-?off)(?:\s+switch)?)\s*$)"),
             "battery isolator $1"},
            {Pattern(
                 R"x(^\s*(?:an?\s+|the\s+)?(?:(?:main|master)\s+battery|battery\s+main|(?:battery\s+|main\s+)?isolation)\s+switch\s*[,:-]?\s*\(?(\d+\s*A)?\)?\s*$)x"),
             "battery isolator $1"},
            {Pattern(
                 R"(^\s*(?:an?\s+|the\s+)?((?:(?:main|battery|master)\s+)*(?:isolator|disconnect|kill|cut-?off)(?:\s+switch)?)\s+(?:in|on|at)\s+(?:the\s+)?(?:battery\s+)?(?:positive|\+)(?:\s+(?:cable|lead|side|feed|post|terminal))?\s*$)"),
             "battery isolator"},
            {Pattern(
                 R"(^\s*(starter|inverter|winch|alternator)\b([^,]*),\s*battery\s+to\s+(?:\1|it)\s*,?\s*(?=\d))"),
             "$1$2, "},
            {Pattern(R"(,\s*(?:with|using|on)\s+(?=\d+(?:\.\d+)?\s*mm(?:2|\xC2\xB2)))"), ", "},
            {Pattern(R"(\bon\s+(?:its|their)\s+switch\b)"), "on own switch"},
            // two a side are four
            {Pattern(
                 R"(\s*,?\s*\b(?:1|one)\s+(?:per|each|on\s+each|on\s+either|either)\s+side\b\s*,?\s*(?=\d))"),
             " 2x "},
            {Pattern(
                 R"(\s*,?\s*\b(?:2|two)\s+(?:per|each|a|on\s+each|on\s+either|either)\s+side\b\s*,?\s*(?=\d))"),
             " 4x "},
            {Pattern(
                 R"(\s*,?\s*\b(?:3|three)\s+(?:per|each|a|on\s+each|on\s+either|either)\s+side\b\s*,?\s*(?=\d))"),
             " 6x "},
            {Pattern(
                 R"(\s*,?\s*\b(?:4|four)\s+(?:per|each|a|on\s+each|on\s+either|either)\s+side\b\s*,?\s*(?=\d))"),
             " 8x "},
            {Pattern(R"(\b(\d+(?:\.\d+)?)\s*(?:h|hrs?|hours?)\s*/\s*(?:evening|night|day)\b)"), "$1 h a day"},
            {Pattern(
                 R"((\d\s*A)\s+(?:charge|charging)\s+(?:when|while)\s+(?:on|plugged\s+in(?:to)?)\s+(?:shore(?:\s+power)?|mains|hook-?up)?)"),
             "$1 charger"},
            {Pattern(
                 R"((\balternator\b[^,]*?\d\s*A)\s*,?\s*(?:with\s+)?(?:an?\s+)?idle\s+output\s*(?:of|:)?\s*(?=\d))"),
             "$1, idle "},
            {Pattern(
                 R"(^(\s*(?:.*?\brelay|vsr)\b.*?)\s+between\s+(?:the\s+)?(?:start(?:er)?|engine|vehicle|main)\s+and\s+(?:the\s+)?(?:house|leisure|domestic|service|aux(?:iliary)?|second)\s*$)"),
             "$1"},
            // "On scene (engine idling): …", "on scene, engine idling: …": that is how the state stands
            {Pattern(
                 R"x(^\s*([a-z][a-z -]{1,30}?)\s*\(\s*((?:engine|motor|key|ignition|parked|driving|idling|towed|under\s?way|cruising)\b[^()\d]*)\)\s*:\s*(?=\S))x"),
             "$1: $2, "},
            {Pattern(R"(^\s*([a-z][a-z -]{1,30}?)\s*,\s*((?:engine|motor|key)\s+[a-z]+)\s*:\s*(?=[a-z]))"),
             "$1: $2, "},
            // what an outboard's coils give
            {Pattern(
                 R"(^\s*(?:an?\s+)?(?:\d+\s*hp\s+)?(?:outboard|inboard|engine|motor)(?:\s+\d+\s*hp)?\s*(?:,|:|-|with|has|gives)?\s*(?:an?\s+)?(\d+(?:\.\d+)?\s*A)\s+(?:charging(?:\s+(?:output|coil|system))?|charge(?:\s+(?:coil|output))?|output)\s*$)"),
             "alternator $1"},
            {Pattern(
                 R"((\d+(?:\.\d+)?)\s*A\s+(?:when|on|while)\s+transmit(?:ting)?\s*[,/;]?\s*(?:and\s+)?(\d+(?:\.\d+)?)\s*A?\s+(?:(?:when|on|while|in)\s+)?receiv(?:e|ing)\b)"),
             "$1 A tx, $2 A rx"},
            {Pattern(
                 R"((\d+(?:\.\d+)?\s*(?:s|sec|secs|seconds?|min|mins|minutes?))\s+(?:per|each|a)\s+(?:opening|lift|use|cycle|go|time|door)\s*,?\s*(\d+)\s*(?:x|times)\s+(?:a|per)\s+day\b)"),
             "$1 $2 times a day"},
            // a bank of batteries
            {Pattern(
                 R"(^\s*(\d\s*x\s*(?:\d+\s*V\s*,?\s*)?\d+\s*Ah)\s+((?:starter|starting|engine|service|house|leisure|aux(?:iliary)?)\s+batter(?:y|ies))\b)"),
             "$2 $1"},
            {Pattern(R"(^\s*(?:an?\s+|the\s+)?(12|24|36|48)\s*V\s+battery\s+bank\b)"), "battery $1 V"},
            {Pattern(R"(^\s*(?:an?\s+)?(\d+\s*Ah)\s+(12|24|36|48)\s*V\s+battery\s+bank\b)"),
             "battery $2 V $1"},
            {Pattern(R"(^\s*(?:an?\s+)?(\d+\s*Ah)\s+battery\s+bank\s*,?\s*(12|24|36|48)\s*V\b)"),
             "battery $2 V $1"},
            {Pattern(R"(\b(in\s+series)\s+(?:for|to\s+(?:make|give)|giving|making|=)\s+(?:24|36|48)\s*V\b)"),
             "$1"},
            {Pattern(R"(^\s*(\d)\s*nos?\.?\s+(?=\d+\s*(?:V|Ah)\b))"), "$1x "},
            {Pattern(R"(\bbattery\s+with\s+(?=\d))"), "battery, "},
            // a relay on the switch that the line names is no other one
            {Pattern(R"(\s*,\s*(?:via\s+)?(?:an?\s+)?relay(?=\s*,(?:[^,]*,)*\s*on\s+(?:the\s+)?switch\b))"),
             ""},
            {Pattern(
                 R"((\bon\s+(?:the\s+)?switch\s+[^,]+(?:,[^,]*)*?),\s*(?:via\s+)?(?:an?\s+)?relay(?=\s*(?:,|$)))"),
             "$1"},
            // a switch by its name
            {Pattern(
                 R"x((?:(?<=\d[AW])|(?<=\d\s[AW]))\s*[,(-]\s*(?:on\s+|via\s+|with\s+)?(?:the\s+|an?\s+)?(?:auto(?:matic)?\s+)?(door|hatch|lid|brake|foot|pressure|float)\s+switch(?:ed)?\s*\)?(?:\s*,?\s*always(?:\s+(?:on|live|powered))?\b)?(?=\s*(?:,|$)))x"),
             ", on switch $1"},
            {Pattern(
                 R"((?:(?<=\d[AWVsmh%])|(?<=\d\s[AWVsmh%])|(?<=min)|(?<=mins)|(?<=hours)|(?<=average)|(?<=each)|(?<=duty)|(?<=peak))\s*[,-]?\s+(?:only\s+)?(?:when|while|if)\s+(?:the\s+)?(?!ignition|ign|key|engine|main|master|battery|limit|float|own|on\b)([a-z]+(?:\s(?!switch)[a-z]+)?)\s+switch\s+(?:is\s+)?(?:on|closed|pressed|made)(?=\s*(?:,|$)))"),
             ", on switch $1"},
            {Pattern(
                 R"((?:(?<=\d[AWVsmh%])|(?<=\d\s[AWVsmh%])|(?<=min)|(?<=mins)|(?<=hours)|(?<=average)|(?<=each)|(?<=duty)|(?<=peak))\s*[,-]?\s+(?:(?:switched|controlled|operated|worked|fed|driven)\s+)?(?:on|off|via|by|with|from|through|at)\s+(?:the\s+)?(?!ignition|ign|key|engine|main|master|battery|auto|limit|pressure|float|door|hatch|lid|brake|foot|light|its|an?\s|own|dash|toggle|rocker|hand|manual|cab|in-cab|panel|momentary|push|pull|stalk|column|the\b|switch)([a-z]+(?:\s(?!switch)[a-z]+)?)\s+switch(?=\s*(?:,|$)))"),
             ", on switch $1"},
            {Pattern(
                 R"x((?:(?<=\d[AWVsmh%])|(?<=\d\s[AWVsmh%])|(?<=min)|(?<=mins)|(?<=hours)|(?<=average)|(?<=each)|(?<=duty)|(?<=peak))\s*(?:,|\(|\s-)\s*(?:the\s+)?(?!on\b|ignition|ign|key|engine|main|master|battery|auto|limit|pressure|float|door|hatch|lid|brake|foot|light|its|an?\s|own|dash|toggle|rocker|hand|manual|cab|in-cab|panel|momentary|push|pull|stalk|column|reversing|up|in|open|both|all|no|with|without|incl|each|per|via|by|off|from)([a-z]+(?:\s(?!switch)[a-z]+)?)\s+switch\s*\)?(?=\s*(?:,|$)))x"),
             ", on switch $1"},
            {Pattern(R"(,\s*switch\s*:\s*(?=[a-z]))"), ", on switch "},
        };
    return put_plainly(std::move(line), plainer);
}

}  // namespace yr
