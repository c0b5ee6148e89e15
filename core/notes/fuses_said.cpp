#include "notes/fuses_said.h"

#include <algorithm>

#include "typing/line_words.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

bool has_word(const std::string& name, const std::string& word) {
    const auto words = split(name, ' ');
    return std::any_of(words.begin(), words.end(), [&](std::string_view w) {
        return w == word || w == word + "s" || std::string(w) + "s" == word;
    });
}

// The one load of that name, else the one in whose name all these words stand; nullptr: there is none, or
// more than one.
const Load* load_meant(const Plan& plan, std::string_view words) {
    const std::string low = to_lower(trim(words));
    std::vector<const Load*> called, near;
    for (const Load& l : plan.loads) {
        std::string name = to_lower(l.name);
        std::replace(name.begin(), name.end(), '/', ' ');
        const auto said = split(low, ' ');
        if (name == low)
            called.push_back(&l);
        else if (std::all_of(said.begin(), said.end(),
                             [&](std::string_view w) { return has_word(name, std::string(w)); }))
            near.push_back(&l);
    }
    const auto& meant = called.empty() ? near : called;
    return meant.size() == 1 && !low.empty() ? meant.front() : nullptr;
}

const Device* own_fuse(const Plan& plan, const Load& load) {
    const Run* run = supply_run(plan, load.id);
    if (!run) return nullptr;
    const auto fuse = std::find_if(run->devices.begin(), run->devices.end(),
                                   [](const Device& d) { return d.kind == DeviceKind::fuse; });
    return fuse == run->devices.end() ? nullptr : &*fuse;
}

}  // namespace

std::vector<std::string> fuses_said(const Plan& plan, std::string_view line) {
    static const Pattern headed(
        R"(^\s*(?:the\s+)?(?:(?:\d+[ -]way\s+)?(?:[a-z]+\s+){0,2}(?:panel|board|box)\s+(?:with|of)\s+)?(?:circuit\s+)?(?:fuses?|breakers?)(?:\s+(?:sizes?|ratings?|list|fitted))?\s*[:-]\s*(\S.*)$)"),
        behind(R"(^\s*(?:and\s+)?(?:the\s+)?([a-z][a-z0-9/ -]*?)\s*[:=-]?\s*(\d+(?:\.\d+)?)\s*A?\s*$)"),
        before(
            R"(^\s*(?:and\s+)?(\d+(?:\.\d+)?)\s*A?\s+(?:for|on|to|in)\s+(?:the\s+)?([a-z][a-z0-9/ -]*?)\s*$)");
    Found m;
    if (line.find('"') != std::string_view::npos || !headed.is_all_of(std::string(line), m)) return {};
    std::vector<std::string> lines;
    for (const std::string& part : comma_parts(m[1])) {
        Found f;
        const bool first = behind.is_all_of(part, f);
        const Load* load = first || before.is_all_of(part, f) ? load_meant(plan, f[first ? 1 : 2]) : nullptr;
        const Device* fuse = load ? own_fuse(plan, *load) : nullptr;
        lines.push_back(fuse ? "set \"" + fuse->name + "\" rating_A " + f[first ? 2 : 1]
                             : "fuse " + std::string(trim(part)));
    }
    const bool any =
        std::any_of(lines.begin(), lines.end(), [](const std::string& l) { return l.starts_with("set \""); });
    return any ? lines : std::vector<std::string>{};
}

}  // namespace yr
