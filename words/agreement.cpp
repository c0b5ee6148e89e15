#include "words/agreement.h"

#include <algorithm>
#include <cctype>

#include "units/pattern.h"
#include "units/text.h"

namespace yr::words {
namespace {

// The verb of one as that of several: "carries" "carry", "does" "do", "takes" "take".
std::string for_several(const std::string& verb) {
    static const std::pair<const char*, const char*> kOdd[] = {
        {"is", "are"},   {"has", "have"}, {"does", "do"}, {"goes", "go"},
        {"was", "were"}, {"lies", "lie"}, {"dies", "die"}};
    static const Pattern hissing(R"((?:ch|sh|ss|x)es$)");
    for (const auto& [one, several] : kOdd)
        if (verb == one) return several;
    if (hissing.is_in(verb)) return verb.substr(0, verb.size() - 2);
    if (verb.ends_with("ies")) return verb.substr(0, verb.size() - 3) + "y";
    return verb.ends_with("s") && !verb.ends_with("ss") ? verb.substr(0, verb.size() - 1) : verb;
}

}  // namespace

bool names_several(const std::string& name) {
    // "work lights left (cab)", "camp lights 2": what is counted stands before its side, its place, its
    // number
    static const Pattern beside(R"(\s*(?:\([^()]*\)|\b(?:left|right|front|rear|inside|outside)|\d+)\s*$)");
    std::string bare = name;
    for (Found m; beside.is_in(bare, m) && !m.before().empty();) {
        std::string before(m.before());
        bare = std::move(before);
    }
    if (bare.size() < 3 || bare.back() != 's') return false;
    const auto letter = static_cast<unsigned char>(bare[bare.size() - 2]);
    if (std::isupper(letter)) return true;  // "PCs"
    static const char* const kOfOne[] = {"ss", "us", "is", " gas", "lens", "series", "mains"};
    return std::isalpha(letter) && std::none_of(std::begin(kOfOne), std::end(kOfOne),
                                                [&](const char* end) { return bare.ends_with(end); });
}

std::string said_of_several(const std::string& sentence, const std::string& name) {
    if (!sentence.starts_with(name + " ")) return sentence;
    static const Pattern verb(R"(^ ([a-z]+)\b)"), it_verb(R"(\bit ([a-z]+s)\b)"),
        for_it(R"(\b(for|of|on|to) it\b)"), its(R"(\bits\b)");
    Found m;
    std::string rest = sentence.substr(name.size());
    if (!verb.is_in(rest, m)) return sentence;
    std::string behind = m.behind();
    behind = its.replaced(for_it.replaced(behind, "$1 them"), "their");
    std::string said = name + " " + for_several(m[1]);
    for (Found v; it_verb.is_in(behind, v);) {
        said += v.before() + "they " + for_several(v[1]);
        std::string more(v.behind());
        behind = std::move(more);
    }
    return said + behind;
}

}  // namespace yr::words
