#include "notes/distances.h"

#include <algorithm>

#include "notes/said.h"
#include "typing/line_words.h"
#include "units/pattern.h"
#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

template <class T>
std::vector<Id> all_of(const std::vector<T>& things) {
    std::vector<Id> ids;
    ids.reserve(things.size());
    for (const T& t : things) ids.push_back(t.id);
    return ids;
}

// What is meant by such words: one thing of that name, or every one of its kind ("the inverter" of a plan
// with two, of which one hangs on that battery).
std::vector<Id> meant_by(const Plan& plan, const std::string& words) {
    static const Pattern board(
        R"(^(?:(?:main|fuse|distribution|dc|power|switch)\s+)*(?:panel|board|fuse ?board|fuse ?box|fuse ?block|fuses|block|distribution|bus ?bars?|consumer unit)$)"),
        battery(R"(^(?:batter(?:y|ies)|batts?|bank)$)"), inverter(R"(^inverter(?:/charger)?$)"),
        starter(R"(^(?:engine|starter(?: (?:motor|solenoid))?|solenoid)$)"),
        charger(R"(^(?:dc-?dc|b2b|(?:dc-?dc )?charger|converter)$)"),
        metal(R"(^(?:vehicle |truck |van |car )?(?:chassis|body|bodywork|frame|metalwork)$)");
    if (battery.is_in(words)) return all_of(plan.batteries);
    if (inverter.is_in(words)) return all_of(plan.inverters);
    if (charger.is_in(words)) return all_of(plan.sources);
    std::vector<Id> ids;
    if (board.is_in(words)) {
        for (const Point& p : plan.points)
            if (p.feeds_loads) ids.push_back(p.id), ids.push_back(p.return_at.owner);
        return ids;
    }
    if (metal.is_in(words)) {
        for (const Point& p : plan.points)
            if (p.kind == PointKind::chassis || p.kind == PointKind::ground) ids.push_back(p.id);
        return ids;
    }
    if (starter.is_in(words)) {
        for (const Load& l : plan.loads)
            if (l.starter) ids.push_back(l.id);
        if (!ids.empty()) return ids;
    }
    for (const Battery& b : plan.batteries)  // "domestic": the domestic bank
        for (const char* noun : {" battery", " batteries", " bank"})
            if (to_lower(b.name) == words + noun) return {b.id};
    const auto at = terminal_called(plan, words, false);
    return at ? std::vector<Id>{at->owner} : ids;
}

bool holds_one(const std::vector<Id>& ids, const Id& id) {
    return !id.empty() && std::find(ids.begin(), ids.end(), id) != ids.end();
}

// Of one distance; empty: nothing joins them.
std::vector<std::string> of_cables(const Plan& plan, const std::string& one, const std::string& other,
                                   const std::string& length) {
    const auto far = parse_quantity(length);
    if (!far || far->dimension != Dimension::length) return {};
    std::vector<std::string> lines;
    for (const Run* r : cables_between(plan, one, other))
        lines.push_back("set \"" + r->name + "\" length_m " + shown(far->value));
    return lines;
}

}  // namespace

std::vector<const Run*> cables_between(const Plan& plan, std::string_view one, std::string_view other) {
    const std::vector<Id> a = meant_by(plan, to_lower(one)), b = meant_by(plan, to_lower(other));
    std::vector<const Run*> runs;
    for (const Run& r : plan.runs)
        if (!r.body_metal && ((holds_one(a, r.from.owner) && holds_one(b, r.to.owner)) ||
                              (holds_one(b, r.from.owner) && holds_one(a, r.to.owner))))
            runs.push_back(&r);
    return runs;
}

std::vector<std::string> distances_said(const Plan& plan, std::string_view line) {
    static const Pattern lead(
        R"(^\s*(?:the\s+)?(?:distances?|lengths?|(?:cable )?(?:runs?|lengths?))\b\s*(?:from|of|between|:)?\s*)");
    static const std::string name = R"((?:the\s+)?([a-z][a-z -]*?))",
                             far = R"((\d+(?:\.\d+)?\s*(?:m|cm|ft)))";
    static const Pattern to("^\\s*(?:from\\s+)?" + name + R"(\s+(?:to|and|->)\s+)" + name +
                            R"(\s*(?::|=|,|is|about|are)?\s*)" + far +
                            R"((?:\s+(?:of\s+)?(?:cable|apart|away|run|each way))*\s*$)"),
        away("^\\s*" + name + R"(\s+(?:(?:is|are|sits?|stands?)\s+)?(?:about\s+)?)" + far +
             R"(\s+(?:away\s+)?from\s+)" + name + R"(\s*$)"),
        is_cable(R"(^\s*(?:cable|strap|ground|bus|stud|way|stand)\b)");
    if (is_cable.is_in(line) || line.find('"') != std::string_view::npos) return {};
    std::vector<std::string> lines;
    for (const std::string& part : comma_parts(lead.replaced(std::string(line), ""))) {
        Found m;
        std::vector<std::string> more;
        if (to.is_all_of(part, m))
            more = of_cables(plan, m[1], m[2], m[3]);
        else if (away.is_all_of(part, m))
            more = of_cables(plan, m[1], m[3], m[2]);
        if (more.empty()) more.emplace_back(trim(part));  // told as what it is
        lines.insert(lines.end(), more.begin(), more.end());
    }
    const bool any =
        std::any_of(lines.begin(), lines.end(), [](const std::string& l) { return l.starts_with("set \""); });
    return any ? lines : std::vector<std::string>{};
}

}  // namespace yr
