#include "notes/label_words.h"

#include <utility>

#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

// What a thing draws beside what it may draw, sends or says at rest.
std::string plain_draw(std::string line) {
    static const Phrase plainer[] = {
        {Pattern(R"((?<![\d.])\.(\d+)\s*(?=[AW]\b))"), "0.$1 "},
        // what it sends is not what it draws
        {Pattern(R"(\b\d+(?:\.\d+)?\s*k?W\s+transducer\s*,?\s+(?=\d+(?:\.\d+)?\s*A\b))"), ""},
        {Pattern(
             R"((\d+(?:\.\d+)?\s*[AW])\s+(?:on|active|transmitting|operating)\s*[,/;]\s*(?:and\s+)?(?=\d+(?:\.\d+)?\s*[AW]\s+stand-?\s?by\b))"),
         "$1, "},
        {Pattern(R"((\d\s*[AW])\s*,\s*\d+(?:\.\d+)?\s*[AW]\s+stand-?\s?by\b)"), "$1"},
        {Pattern(R"((\d+(?:\.\d+)?)\s*A\s+tx\s*[,/]?\s*(\d+(?:\.\d+)?)\s+rx\b)"), "$1 A tx, $2 A rx"},
        {Pattern(R"((\d+(?:\.\d+)?\s*([AW]))\s+(?:avg|average)\s+(?=\d+(?:\.\d+)?\s*\2\s+(?:peak|max)))"),
         "$1 avg, "},
        {Pattern(
             R"((\d+(?:\.\d+)?\s*A)\s+cont(?:inuous|\.)?\s*[,/]?\s*(\d+(?:\.\d+)?\s*A)\s+(?:peak|max)\b\s*,?\s*)"),
         "$1, start $2, "},
        {Pattern(R"((?<=[a-z])\s+@\s+(?=[a-z])|(?<=\d[AW])\s+@\s+(?=[a-z])|(?<=\d [AW])\s+@\s+(?=[a-z]))"),
         " at "},
        {Pattern(
             R"((\d\s*(?:s|secs?|seconds?|min|mins|minutes?)\s+(?:per|each|a)\s+(?:opening|lift|use|cycle|go|time|door))\s*,?\s*(\d+)\s*(?:lifts|openings|uses|cycles|goes|doors)\s+(?:a|per)\s+day\b)"),
         "$1, $2 times a day"},
        {Pattern(R"(\bfloat\s+switches\b)"), "float switch"},
        {Pattern(R"(\s*,?\s*\beach\s+(?:with\s+)?(?:its\s+|an?\s+)?own\s+switch\b)"), ", on own switch"},
    };
    return put_plainly(std::move(line), plainer);
}

// Batteries, what charges them, what parts them from the rest.
std::string plain_supply(std::string line) {
    static const Phrase plainer[] = {
        {Pattern(
             R"(\b\d{1,2}\s*x?\s+((?:lifepo4|lfp|lithium|li-?ion)\s+)?cells\s*(?:of\s+)?(?=\d+(?:\.\d+)?\s*Ah\b))"),
         "$1"},
        {Pattern(
             R"(^\s*(house|leisure|engine|starter|start|aux|service|domestic|second)\s+(?:battery\s+)?isolator(?:\s+switch)?\s*[,:]?\s*(\d+\s*A)?\s*$)"),
         "$1 battery isolator $2"},
        {Pattern(R"(\bwired\s+(?:in\s+)?(?=parallel\b|series\b))"), "in "},
        {Pattern(
             R"(\(?\s*\b[2-4]\s+(?:in\s+)?series\s*[,/x&]?\s*(?:and\s+|by\s+)?[2-4]\s+(?:in\s+)?parallel\b\s*\)?)"),
         " series/parallel "},
        {Pattern(R"(\b(?:2|two)\s*x?\s*(\d+\s*A)\s+fuses\b)"), "fuse $1 both ends"},
        {Pattern(R"((\d+\s*A)\s+class\s+T\s+fuse\b)"), "fuse $1 class T"},
        {Pattern(
             R"(^\s*hook-?\s?up\s*(?:(?:110|115|120|220|230|240)\s*V)?\s*[,:]?\s*(?:with\s+)?(?:an?\s+)?(\d+\s*A)\s+charger\s+(?:for|to|on)\s+(?:the\s+)?([a-z]+)\s+(?:batter(?:y|ies)|bank)\s*$)"),
         "shore charger $1 to $2 battery"},
        {Pattern(
             R"(^\s*hook-?\s?up\s*(?:(?:110|115|120|220|230|240)\s*V)?\s*[,:]?\s*(?:with\s+)?(?:an?\s+)?(\d+\s*A)\s+charger\b)"),
         "shore charger $1"},
        {Pattern(
             R"(^\s*converter\s*/\s*charger\s*,?\s*(?:(?:110|115|120|220|230|240)\s*V(?:\s*AC)?\s*,?\s*)?(\d+\s*A)\b)"),
         "shore charger $1"},
        {Pattern(
             R"(^\s*(?:24|36|48)\s*V?\s*/\s*(12|24)\s*V?\s+(?:buck|step-?down|reducer|dropper)(?:\s+converter)?\s+(?=\d))"),
         "converter $1 V "},
        {Pattern(
             R"(^(\s*solar\b[^,]*\d\s*W)\s*,?\s*(?:with\s+)?(?:charge|solar)\s+controller\s+(\d+\s*A)\b)"),
         "$1, controller $2"},
        {Pattern(
             R"(^\s*(?:engine|starter|vehicle)\s+(battery\s+(?:master|main|kill|isolator)\s+switch)\b(?:\s+(?:in|at|on|by)\s+(?:the\s+)?[a-z ]+)?\s*$)"),
         "$1"},
    };
    return put_plainly(std::move(line), plainer);
}

}  // namespace

std::string with_label_words(const std::string& line) {
    static const Pattern nothing(R"(^\s*(?:12|24|36|48)\s*V\s+[a-z]+\s*[:-]\s*(?:no|none|n/a)\s*$)");
    if (nothing.is_all_of(line)) return "# " + line;
    // what a box or an inverter takes at rest is kept of it
    static const Pattern rests(R"(\b(?:inverter|box|channels?|controller|module)\b.*\bstand-?\s?by\b)");
    return plain_supply(rests.is_in(line) ? line : plain_draw(line));
}

}  // namespace yr
