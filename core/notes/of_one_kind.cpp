#include "notes/of_one_kind.h"

#include <cctype>

#include "typing/line_words.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

// "work lights: 4x 30 W LED rear, 2x 20 W sides": one kind of thing in several places.
std::vector<std::string> counted_by_side(const std::string& line) {
    static const Pattern headed(R"(^\s*([a-z][a-z -]*?)\s*[:,-]?\s+(\d{1,2}\s*x\s*\d.*)$)"),
        piece(
            R"(^\s*(?:and\s+)?(\d{1,2}\s*x\s*\d+(?:\.\d+)?\s*[AW])\s+(?:each\s+)?(?:led\s+)?(?:(?:on|at|in)\s+)?(?:the\s+)?((?:front|rear|left|right|sides?|roof|top|upper|lower|inside|outside|cab|boom|mast|deck|bumper|nearside|offside)(?:\s+[a-z]+)?)\s*$)");
    Found m;
    if (!headed.is_all_of(line, m)) return {};
    std::vector<std::string> lines;
    for (const std::string& part : comma_parts(m[2])) {
        Found p;
        if (!piece.is_all_of(part, p)) return {};
        std::string named = m[1];
        if (named.size() > 1 && std::islower(static_cast<unsigned char>(named[1])))
            named[0] = to_lower(named.substr(0, 1))[0];
        lines.push_back(p[2] + " " + named + " " + p[1]);
    }
    return lines.size() > 1 ? lines : std::vector<std::string>{};
}

// "work lights: 2 rear, 1 each side, all 18 W": as many at each.
std::vector<std::string> of_one_draw_by_side(const std::string& line) {
    static const Pattern headed(
        R"(^\s*([a-z][a-z -]*?)\s*:\s*(\d{1,2}\s+[a-z].*?)\s*,?\s+(?:(?:all|each|every one)\s+)?(?:of\s+)?(\d+(?:\.\d+)?\s*[AW])(?:\s+(?:each|ea))?\s*$)"),
        piece(
            R"(^\s*(?:and\s+)?(\d{1,2})\s+(?:(?:on|at|in|to)\s+)?(?:the\s+)?(each|front|rear|left|right|sides?|roof|top|cab|boom|mast|deck)(?:\s+(?:side|end))?\s*$)");
    Found m;
    if (!headed.is_all_of(line, m)) return {};
    std::vector<std::string> lines;
    for (const std::string& part : comma_parts(m[2])) {
        Found p;
        if (!piece.is_all_of(part, p)) return {};
        const bool both = to_lower(p[2]) == "each";
        lines.push_back((both ? "side" : p[2]) + " " + m[1] + " " +
                        std::to_string(std::stoi(p[1]) * (both ? 2 : 1)) + "x " + m[3]);
    }
    return lines.size() > 1 ? lines : std::vector<std::string>{};
}

// "camera system 24 W + 4 cameras 3 W each": each with a name of its own.
std::vector<std::string> added_up(const std::string& line) {
    static const Pattern plus(
        R"(^([a-z][a-z -]*?\s(?:\d{1,2}\s*x\s*)?\d+(?:\.\d+)?\s*[AW])\s*(?:\+|plus)\s*(\d{1,2}\s*x?\s+)?([a-z][a-z -]*?)\s+(\d+(?:\.\d+)?\s*[AW])(?:\s+(?:ea|each))?\s*((?:,|on\s|with\s).*)?$)"),
        digits(R"(^\s*(\d{1,2}))");
    Found m;
    if (!plus.is_all_of(line, m)) return {};
    Found count;
    const std::string many = m.has(2) && digits.is_in(m[2], count) ? count[1] + "x " : std::string(),
                      said = m.has(5) ? " " + m[5] : std::string();
    return {m[1] + said, m[3] + " " + many + m[4] + said};
}

// "lights 60 W head, 20 W tail": each with its word behind its figure.
std::vector<std::string> told_behind_figures(const std::string& line) {
    static const Pattern headed(R"(^\s*((?:12|24|48)\s*V\s+)?([a-z]+s)\s*:?\s+(\d.*)$)"),
        piece(
            R"(^\s*(?:and\s+)?(\d+(?:\.\d+)?\s*[AW])\s+(head|tail|front|rear|side|brake|stop|cab|left|right|inside|outside)\s*$)");
    Found m;
    if (!headed.is_all_of(line, m)) return {};
    std::vector<std::string> lines;
    for (const std::string& part : comma_parts(m[3])) {
        Found p;
        if (!piece.is_all_of(part, p)) return {};
        lines.push_back(p[2] + " " + m[2] + " " + p[1] +
                        (m[1].empty() ? "" : ", " + std::string(trim(m[1]))));
    }
    return lines.size() > 1 ? lines : std::vector<std::string>{};
}

}  // namespace

std::vector<std::string> each_on_its_own(const std::string& line) {
    static const Pattern each(
        R"(^\s*([a-z][a-z /-]*?)\s*[:,-]?\s*([2-6])\s*x\s*(\d+(?:\.\d+)?\s*[AW])\s*[,(]*\s*each\s+(?:(?:with|on|has|having)\s+)?(?:its\s+|an?\s+)?own\s+(?:(switch)\s*(?:and|&|\+|,)\s*)?(?:(\d+\s*A)\s+(breaker|fuse)|(breaker|fuse)\s+(\d+\s*A))\s*\)?(.*)$)");
    Found m;
    if (!each.is_all_of(line, m)) return {};
    std::string name(m[1]), rest(trim(m[9]));
    if (name.ends_with('s')) name.pop_back();
    if (!rest.empty() && rest.front() != ',') rest.insert(0, ", ");
    const bool kind_behind = m.has(5) && !m[5].empty();
    const std::string fuse = ", " + (kind_behind ? m[6] + " " + m[5] : m[7] + " " + m[8]),
                      own = m.has(4) && !m[4].empty() ? ", on own switch" : "";
    const std::string before = "\"" + name + " ", behind = "\" " + m[3] + own + fuse + rest;
    std::vector<std::string> lines;
    for (int k = 1; k <= std::stoi(m[2]); ++k) {
        lines.push_back(before);
        lines.back().append(std::to_string(k)).append(behind);
    }
    return lines;
}

std::vector<std::string> of_one_kind(const std::string& line) {
    if (auto lines = counted_by_side(line); !lines.empty()) return lines;
    if (auto lines = of_one_draw_by_side(line); !lines.empty()) return lines;
    if (auto lines = told_behind_figures(line); !lines.empty()) return lines;
    return added_up(line);
}

}  // namespace yr
