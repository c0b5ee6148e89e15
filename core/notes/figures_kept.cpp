#include "notes/figures_kept.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <set>
#include <type_traits>
#include <utility>

#include "plan/plan_fields.h"
#include "units/pattern.h"
#include "units/quantity.h"
#include "units/text.h"

namespace yr {
namespace {

constexpr std::array kRails_V = {12.0, 14.0, 24.0, 28.0, 36.0, 48.0, 56.0};  // and what charges them
constexpr double kRounded = 0.025;                                           // amps of watts are whole ones

struct Numbers {
    std::vector<double>& all;

    void operator()(const Field&, const double& x) const { all.push_back(x); }
    void operator()(const Field&, const std::optional<double>& x) const {
        if (x) all.push_back(*x);
    }
    template <HasFields T>
    void operator()(const Field&, const T& part) const {
        fields(*this, part);
    }
    template <HasFields T>
    void operator()(const Field&, const std::vector<T>& parts) const {
        for (const T& part : parts) fields(*this, part);
    }
    template <class T>
    void operator()(const Field&, const T&) const {}
};

// What gives or takes current and what carries it; of states and days the figures are no amps.
template <class T>
constexpr bool kOfTheCircuit =
    std::is_same_v<T, Source> || std::is_same_v<T, Battery> || std::is_same_v<T, Inverter> ||
    std::is_same_v<T, Load> || std::is_same_v<T, Run> || std::is_same_v<T, Point>;

// The figures of all that an edit puts there.
void collect(const Edit& edit, std::vector<double>& brought) {
    std::visit(
        [&]<class E>(const E& e) {
            if constexpr (std::is_same_v<E, Batch>) {
                for (const Edit& part : e.edits) collect(part, brought);
            } else if constexpr (requires { e.thing; }) {
                using T = std::remove_cvref_t<decltype(e.thing)>;
                if constexpr (kOfTheCircuit<T>) fields(Numbers{brought}, e.thing);
            }
        },
        static_cast<const Edit::Kinds&>(edit));
}

// Said beside a draw, and none of its own.
bool beside_a_draw(const std::string& before, const std::string& behind, bool watts) {
    static const Pattern ahead(
        R"(\b(?:avg|average|mean|rx|idle|total|hook-?\s?up|shore-?line|shore|mains|generator|heat|output|low|about|mostly|usually|typically|normally)\s*(?:power|of|is|at|:|=|lead|inlet)?\s*$|=\s*$)"),
        after(
            R"(^\s*(?:(?:when|on|at|while|in|is|the)\s+)*(?:/\s*\d+(?:\.\d+)?\s*A\s+tx|avg|average|mean|rx|receiv\w*|tx|transmit\w*|stand-?by|idl\w+|heat\w*|thermal|out(?:put)?|rf|rms|pep|no[ -]load|unloaded|free|listen\w*|low|draws?|transducer|start(?:s|ing)?|total|shore|mains|hook-?up|peak|\(?\s*\d+(?:\.\d+)?\s*k?W\s+input)\b)"),
        amps_follow(R"(^\s*(?:[a-z]+\s+){0,2}[,;:(]?\s*(?:(?:rated|draws?|at|=|is)\s+)?\d+(?:\.\d+)?\s*A\b)");
    return ahead.is_in(before) || after.is_in(behind) || (watts && amps_follow.is_in(behind));
}

bool is_among(const std::vector<double>& numbers, double wanted, double within = 1e-6) {
    return std::any_of(numbers.begin(), numbers.end(),
                       [&](double x) { return std::abs(x - wanted) <= within * std::abs(wanted); });
}

bool is_brought(const std::vector<double>& brought, double value, const std::set<int>& counts, bool watts) {
    if (std::any_of(counts.begin(), counts.end(), [&](int n) { return is_among(brought, value * n); }))
        return true;
    return watts && std::any_of(kRails_V.begin(), kRails_V.end(),
                                [&](double rail) { return is_among(brought, value / rail, kRounded); });
}

// How many of something the line may say: one, every small whole number or word for one that stands in it,
// what divides it (four of 6 V in strings of two are two side by side), and two of them together (two strings
// of three).
std::set<int> counts_in(const std::string& line) {
    static const Pattern number(
        R"((?<![\d.,/])\b(?:([2-9]|1[0-2])(?![\d.,])|(two|twin|dual|pair|three|four|five|six)\b))");
    static const std::pair<const char*, int> kNumbers[] = {{"two", 2},  {"twin", 2},  {"dual", 2},
                                                           {"pair", 2}, {"three", 3}, {"four", 4},
                                                           {"five", 5}, {"six", 6}};
    std::set<int> said{1};
    std::string rest = line;
    for (Found m; number.is_in(rest, m);) {
        if (m.has(1) && !m[1].empty())
            said.insert(static_cast<int>(parse_value(m[1], Dimension::number).value_or(1)));
        for (const auto& [word, count] : kNumbers)
            if (m.has(2) && to_lower(m[2]) == word) said.insert(count);
        std::string behind(m.behind());
        rest = std::move(behind);
    }
    std::set<int> counts = said;
    for (const int n : said) {
        for (int strings = 2; strings < n; ++strings)
            if (n % strings == 0) counts.insert(strings);
        for (const int other : said) counts.insert(n * other);
    }
    return counts;
}

// "6 A + 4 A" as what they make together.
std::string with_sums(std::string line) {
    static const Pattern sum(R"(\b(\d+(?:\.\d+)?)\s*([AW])\s*\+\s*(\d+(?:\.\d+)?)\s*\2\b)");
    for (Found m; sum.is_in(line, m);)
        line = m.before() +
               shown(parse_value(m[1], Dimension::number).value_or(0) +
                     parse_value(m[3], Dimension::number).value_or(0)) +
               " " + m[2] + m.behind();
    return line;
}

// A starter's amps become its resistance, those of a bus its cable.
bool changes_figures(const Edit& edit) {
    if (const auto* batch = std::get_if<Batch>(&edit))
        return std::any_of(batch->edits.begin(), batch->edits.end(), changes_figures);
    if (const auto* load = std::get_if<Put<Load>>(&edit)) return load->thing.starter;
    return false;
}

}  // namespace

std::vector<std::string> figures_lost(std::string_view line, const Edit& edit) {
    static const Pattern amount(R"((?<![\d.,])(\d+(?:\.\d+)?)\s*(kW|W|A|Ah|m|ft)\b(?!/))"),
        by_metre(R"(W\s*(?:/|per)\s*m)"), there_and_back(R"(\b(?:there and back|round trip|out and back)\b)"),
        fuses(R"(^\s*(?:the\s+)?fuses?\b[^\d]*[:-])");  // one that is there already changes nothing
    if (changes_figures(edit) || fuses.is_in(line)) return {};
    std::vector<double> brought;
    collect(edit, brought);
    std::vector<std::string> lost;
    const std::set<int> counts = counts_in(std::string(line));
    std::string before, rest = with_sums(std::string(line));
    for (Found m; amount.is_in(rest, m);) {
        const std::string unit = to_lower(m[2]);
        std::string behind(m.behind());
        const bool watts = unit.ends_with('w'), far = unit == "m" || unit == "ft";
        const auto said = parse_quantity(m[0]);
        const double whole = said && !(far && by_metre.is_in(line)) ? said->value : 0;
        const double value = far && there_and_back.is_in(line) ? whole / 2 : whole;
        before += m.before();
        if (value > 0 && !is_brought(brought, value, counts, watts) && !beside_a_draw(before, behind, watts))
            lost.push_back(m[0]);
        before += m[0];
        rest = std::move(behind);
    }
    return lost;
}

}  // namespace yr
