#include "notes/feeds_said.h"

#include <algorithm>
#include <optional>

#include "catalog/fuses.h"
#include "notes/distances.h"
#include "notes/said.h"
#include "size/run_limits.h"
#include "units/pattern.h"
#include "units/quantity.h"
#include "units/text.h"
#include "units/wire_size.h"

namespace yr {
namespace {

constexpr const char* kBareBlock = "main block";

// Of a cable what a line says of it.
struct Pieces {
    std::optional<double> length_m, fuse_A;
    std::optional<WireSize> size;
    bool breaker = false, class_T = false;
    int parallel = 0;  // 0: not said
};

std::optional<WireSize> size_said(const Found& m) {
    if (m.has(3)) {
        const auto mm2 = parse_value(m[3], Dimension::number);
        return mm2 ? std::optional(WireSize::metric(*mm2)) : std::nullopt;
    }
    const auto size = parse_wire_size(m.has(4) ? m[4] : m[5]);
    return size ? std::optional(*size) : std::nullopt;
}

// Nothing where a word says anything else.
std::optional<Pieces> feed_pieces(std::string rest) {
    static const Pattern between(
        R"(^(?:[\s,;:()=+-]|(?:of|and|in|x|@|with|using|via|by|size|length|long|cables?|wires?|run|each\s+way|protected\s+by|is|about)\b)+)"),
        piece(
            R"x(^(?:(\d+(?:\.\d+)?)\s*A(?:mps?)?\s+(?:[a-z]+\s+)?(?:fuse|breaker)\b|(?:fuse[ds]?(?:\s+at)?|breaker)\s*:?\s*(\d+(?:\.\d+)?)\s*A\b|(\d+(?:\.\d+)?)\s*(?:mm\s?(?:2|\xC2\xB2|\^2|sq\b\.?)|sq\.?\s?mm\b)|((?:\d/0|\d{1,2})\s*(?:AWG|ga|gauge)\b|\d/0(?![\d/]))|((?:AWG|#)\s*(?:\d/0|\d{1,2}))(?!\d)|(\d+(?:\.\d+)?\s*(?:m|cm|ft|metres?|meters?|feet)\b))(?:\s+(?:fuse|breaker)\b)?)x");
    Pieces said;
    for (Found m; !trim(rest).empty();) {
        if (between.is_in(rest, m)) {
            rest = m.behind();
            continue;
        }
        // "2x 120 mm2"; "500 A class T"
        static const Pattern side_by_side(
            R"(^(?:([2-4])\s*x\s*|(?:twin|double|two)\s+)(?=\d+(?:\.\d+)?\s*(?:mm|sq)|\d/0|\d{1,2}\s*(?:AWG|ga)))"),
            slow(R"(^(\d+)\s*A\s+class\s+T(?:\s+fuse)?\b)");
        if (side_by_side.is_in(rest, m)) {
            said.parallel = m.has(1) && !m[1].empty() ? std::stoi(m[1]) : 2;
            rest = m.behind();
            continue;
        }
        if (slow.is_in(rest, m)) {
            said.class_T = true;
            rest = m[1] + " A fuse" + m.behind();
            continue;
        }
        if (!piece.is_in(rest, m)) return std::nullopt;
        if (m.has(1) || m.has(2)) {
            const auto amps = parse_value(m[m.has(1) ? 1 : 2], Dimension::number);
            if (!amps || said.fuse_A) return std::nullopt;
            said.fuse_A = *amps;
            static const Pattern breaker(R"(\bbreaker\b)");
            said.breaker = breaker.is_in(m[0]);
        } else if (m.has(6)) {
            const auto far = parse_quantity(m[6]);
            if (!far || far->dimension != Dimension::length || said.length_m) return std::nullopt;
            said.length_m = far->value;
        } else {
            if (said.size) return std::nullopt;
            said.size = size_said(m);
            if (!said.size) return std::nullopt;
        }
        rest = m.behind();
    }
    return said;
}

constexpr const char* kBoard =
    R"((?:(?:main|aux(?:iliary)?|blade|distribution|dc|12\s*V|24\s*V)\s+)*(?:fuse\s?(?:box|block|panel|board)|distribution\s+(?:block|panel|board|box)|bus\s?bars?|(?:main|dc|switch)\s+(?:panel|board)))";

// In which words the two ends may be said, as "A to B: rest".
std::string in_one_form(std::string line) {
    static const std::string board = kBoard;
    static const Phrase forms[] = {
        {Pattern(
             R"(^\s*(?:the\s+)?(starter|alternator|inverter|charger|dc-dc|solar)\s+(?:motor\s+)?(?:charge\s+|supply\s+|positive\s+)?(?:cables?|leads?|wires?|feed)\s*[:,-]?\s*(?=[\d#]))"),
         "battery to $1: "},
        {Pattern(
             R"(^\s*(?:the\s+)?(?:(?:main|battery|positive|supply|power|red)\s+)*(?:cables?|feed|lead|wire)\s+(?:run(?:ning)?\s+)?from\s+(?=[a-z][^,]*\sto\s))"),
         ""},
        {Pattern(
             R"(^\s*(\d[^,]*?(?:,\s*\d[^,]*?)?(?:mm\s?(?:2|\xC2\xB2)|AWG|gauge|\d\s*m|ft)(?:\s+cables?)?)\s*,?\s+from\s+(?:the\s+)?([a-z][a-z +-]*?)\s+to\s+(?:the\s+)?([a-z][a-z -]*?)\s*(?:,\s*(.*))?$)"),
         "$2 to $3: $1, $4"},
        {Pattern("^\\s*(?:the\\s+)?(?:(?:main|supply|power|positive)\\s+)*(?:feed|supply|cable|wire|lead)\\s+"
                 "to\\s+(?:the\\s+)?(" +
                 board + R"()\s*[:,-]?\s*(?=[\d#]))"),
         "battery to $1: "},
        {Pattern(
             "^\\s*(?:the\\s+)?(" + board +
             R"()\s*[:,-]?\s*(?:is\s+)?(?:(?:main\s+)?(?:feed|supply)(?:\s+(?:cable|wire|lead))?\s*[:,-]?|(?:fed|supplied|connected)\s+(?:from\s+(?:the\s+)?battery\s+)?(?:by|with|via|through|using|in)|(?:fed|supplied)\s*,)\s*(?=[\d#]))"),
         "battery to $1: "},
        {Pattern(
             R"(^\s*(?:the\s+)?(?:main|battery)\s+(?:(?:positive|supply|power)\s+)?(?:feed|cable|lead|wire)s?\s*[:,-]?\s*(?=[\d#]))"),
         "battery to fuse block: "},
        {Pattern(
             R"(^\s*(?:the\s+)?(?:(?:main|battery|chassis|body)\s+)*(?:(?:earth|ground|grounding)\s+(?:strap|cable|lead|braid|wire)|negative\s+(?:battery\s+)?(?:cable|lead|strap))\s*(?:,?\s*(?:from\s+)?(?:the\s+)?battery(?:\s+negative)?\s+to\s+(?:the\s+)?(?:chassis|body|frame)|to\s+(?:the\s+)?(?:chassis|body|frame))?\s*[:,-]?\s*(?=[\d#]))"),
         "battery to chassis: "},
        {Pattern(
             R"(^\s*(?:the\s+)?(?:main|battery|chassis|body)\s+(?:earth|ground|negative)\s*[:,-]?\s*(?=[\d#]))"),
         "battery to chassis: "},
        {Pattern(R"(^(\s*battery to chassis: .*?)\s*,?\s*to\s+(?:the\s+)?(?:chassis|body|frame)\s*$)"), "$1"},
        // "ground batteries to frame 2/0 3 ft"
        {Pattern(
             R"(^\s*(?:earth|ground)\s+(?:the\s+)?batter(?:y|ies)\s+to\s+(?:the\s+)?(?:chassis|body|frame)\s*[:,-]?\s*(?=[\d#]))"),
         "battery to chassis: "},
        // "main fuse 80 A at battery, 16 mm2 3 m to dash panel", "150 A breaker at battery then 2 AWG 18 ft
        // to …"
        {Pattern(
             R"(^\s*(?:main\s+)?(?:(?:fuse|(breaker))\s+(\d+\s*A)|(\d+\s*A)\s+(?:main\s+)?(?:fuse|(breaker)))\s*,?\s+(?:at|by|near|on)\s+(?:the\s+)?batter(?:y|ies)\s*,?\s*(?:and\s+)?(?:then\s+)?(?:an?\s+)?([\d#][^,]*?(?:,\s*[\d#][^,]*?)?)\s*,?\s+to\s+(?:the\s+)?([a-z][a-z -]*?)\s*$)"),
         "battery to $6: $5, $2$3 $1$4 fuse"},
        // "main breaker 100 A to DC panel 4 AWG 12 ft"
        {Pattern(
             R"(^\s*(?:main\s+)?(?:(?:fuse|(breaker))\s+(\d+\s*A)|(\d+\s*A)\s+(?:main\s+)?(?:fuse|(breaker)))\s+to\s+(?:the\s+)?([a-z][a-z ]*?(?:panel|board|box|block))\s*[:,]?\s*(?=[\d#])([^:]*)$)"),
         "battery to $5: $6, $2$3 $1$4 fuse"},
    };
    return put_plainly(std::move(line), forms);
}

// Where the cable that is said stands less than the fuse that was chosen for another: the largest that it
// stands.
std::optional<double> within_its_cable(const Plan& plan, Run cable, const Pieces& said, const Device& fuse) {
    if (!said.size) return std::nullopt;
    cable.size = said.size, cable.parallel = std::max(1, said.parallel);
    const double stands_A = least_ampacity_A(plan, cable).value_or(0);
    if (fuse.rating_A <= stands_A) return std::nullopt;
    const auto& ratings = fuse_kind(fuse.fuse).ratings_A;
    const auto above = std::upper_bound(ratings.begin(), ratings.end(), stands_A);
    return above == ratings.begin() ? std::nullopt : std::optional(*std::prev(above));
}

bool at_post(const Run& r, Post post) {
    return r.from.post == post || r.to.post == post;
}

// "dash panel" is a bus of that name; what its own words make of a fuse block they make.
std::string named_board(const std::string& name) {
    static const Pattern known(
        R"(^(?:fuse\s?(?:box|block|panel)|distribution block|(?:positive )?bus ?bar)$)");
    return known.is_all_of(name) ? name : "bus \"" + name + "\"";
}

// "house" of "house to helm panel": the battery of that name or habit. Empty: none is, or the first alone.
std::string battery_called(const Plan& plan, const std::string& words) {
    static const Pattern any(R"(^(?:batter(?:y|ies)|bank)$)");
    if (any.is_all_of(words)) return {};
    for (const std::string& name : {words, words + " battery"})
        if (const auto at = terminal_called(plan, name, false))
            if (const Battery* b = find(plan.batteries, at->owner)) return b->name;
    return {};
}

// The cable of the block that a switch brought and on which nothing hangs yet: it is the one that gets a
// name.
const Run* feed_of_bare_block(const Plan& plan, const std::string& battery) {
    const Run* feed = nullptr;
    for (const Run& r : plan.runs) {
        const Point *from = find(plan.points, r.from), *to = find(plan.points, r.to);
        if (from && from->name == kBareBlock) return nullptr;
        const Battery* at = find(plan.batteries, r.from.owner);
        if (to && to->name == kBareBlock && at && (battery.empty() || at->name == battery)) feed = &r;
    }
    return feed;
}

// Of one cable, or of those between two things.
std::vector<std::string> feed_said(const Plan& plan, std::string_view line) {
    static const Pattern ends(
        R"(^\s*(?:from\s+)?(?:the\s+)?([a-z][a-z -]*?)\s*(?:(\+(?:ve)?|\b(?:positive|pos)\b)|(-(?:ve)?(?=\s+(?:to|->))|\b(?:negative|neg)\b))?(?:\s+(?:post|terminal))?\s*(?:\bto\b|->)\s*(?:the\s+)?([a-z][a-z0-9 -]*?)(?:\s*[:,=(-]|\s+(?:is|are)\b)?\s*(?=[\d#]|AWG\b|fused?\s+(?:\d|at\b))(.*)$)"),
        is_board("^(?:" + std::string(kBoard) +
                 R"(|(?:[a-z]+\s+){0,2}(?:panel|board|fuse ?box|fuse ?block))$)"),
        is_battery(R"(^batter(?:y|ies)$)");
    Found m;
    if (!ends.is_all_of(in_one_form(std::string(line)), m)) return {};
    const auto said = feed_pieces(m[5]);
    if (!said || (!said->size && !said->fuse_A)) return {};
    std::vector<const Run*> cables = cables_between(plan, m[1], m[4]);
    const auto leave = [&](Post post) {
        if (std::any_of(cables.begin(), cables.end(), [&](const Run* r) { return at_post(*r, post); }))
            std::erase_if(cables, [&](const Run* r) { return !at_post(*r, post); });
    };
    if (m.has(2)) leave(Post::pos);
    if (m.has(3)) leave(Post::neg);
    const bool feeds =
        std::any_of(plan.points.begin(), plan.points.end(), [](const Point& p) { return p.feeds_loads; });
    const std::string battery = battery_called(plan, m[1]);
    const bool there = terminal_called(plan, m[4], false).has_value();
    const Run* bare = cables.empty() && !there && is_board.is_all_of(m[4]) &&
                              (is_battery.is_all_of(m[1]) || !battery.empty())
                          ? feed_of_bare_block(plan, battery)
                          : nullptr;
    if (bare) cables.push_back(bare);
    if (cables.empty() && is_board.is_all_of(m[4]) && !there &&
        (is_battery.is_all_of(m[1]) || !battery.empty()) && (!feeds || named_board(m[4]) != m[4]))
        return {named_board(m[4]) + (battery.empty() ? std::string() : ", from \"" + battery + "\"") +
                (said->fuse_A ? (said->breaker ? ", breaker " : ", fuse ") + shown(*said->fuse_A) + " A"
                              : std::string()) +
                (said->length_m ? ", " + shown(*said->length_m) + " m" : std::string()) +
                (said->size ? ", " + name_of(*said->size) : std::string())};
    std::vector<std::string> lines;
    bool fused = false;
    for (const Run* r : cables) {
        const std::string set = "set \"" + r->name + "\" ";
        if (said->length_m) lines.push_back(set + "length_m " + shown(*said->length_m));
        if (said->size) lines.push_back(set + "size \"" + name_of(*said->size) + "\"");
        if (said->size || said->parallel)  // what was laid twice for want of a thicker one is one as said
            lines.push_back(set + "parallel " + shown(std::max(1, said->parallel)));
        for (const Device& d : r->devices) {
            if (d.kind != DeviceKind::fuse) continue;
            const auto rating = said->fuse_A ? said->fuse_A : within_its_cable(plan, *r, *said, d);
            if (rating) lines.push_back("set \"" + d.name + "\" rating_A " + shown(*rating));
            if (said->breaker) lines.push_back("set \"" + d.name + "\" fuse breaker_3");
            if (said->class_T) lines.push_back("set \"" + d.name + "\" fuse high");
            fused = true;
        }
    }
    if (bare) {
        lines.push_back("set \"" + bare->name + "\" name \"" + m[4] + " feed\"");
        lines.push_back("set \"" + std::string(kBareBlock) + "\" name \"" + m[4] + "\"");
    }
    return said->fuse_A && !fused ? std::vector<std::string>{} : lines;
}

}  // namespace

std::vector<std::string> feeds_said(const Plan& plan, std::string_view line) {
    static const Pattern lead(
        R"(^\s*(?:the\s+|existing\s+|main\s+)*(?:cables?|wiring|cable\s+runs?)\s*(?:fitted|are|so far)?\s*:\s*)");
    if (line.find('"') != std::string_view::npos) return {};
    std::vector<std::string> lines;
    bool any = false;
    const std::string text = lead.replaced(line, "");
    for (const std::string_view part : split(text, ';')) {
        std::vector<std::string> more = feed_said(plan, part);
        any = any || !more.empty();
        if (more.empty()) more.emplace_back(trim(part));  // told as what it is
        lines.insert(lines.end(), more.begin(), more.end());
    }
    return any ? lines : std::vector<std::string>{};
}

}  // namespace yr
