#include "notes/reading.h"

#include <algorithm>
#include <utility>

#include "notes/asides.h"
#include "notes/changes.h"
#include "notes/distances.h"
#include "notes/feeds_said.h"
#include "notes/figures_kept.h"
#include "notes/fuses_said.h"
#include "notes/loose_words.h"
#include "notes/of_one_kind.h"
#include "notes/plain_words.h"
#include "notes/plan_text.h"
#include "notes/several.h"
#include "notes/shorthand.h"
#include "notes/state_words.h"
#include "plan/variant.h"
#include "units/pattern.h"
#include "units/text.h"

namespace yr {
namespace {

using K = StatementKind;

// What stands in brackets is a note to the thing; of a line that makes none it is not understood.
void keep_remark(const Plan& plan, const std::string& remark, Statement& s) {
    if (remark.empty() || s.kind == K::nothing) return;
    Plan after = plan;
    if (s.edit && yr::apply(after, *s.edit))
        if (const auto noted = with_field(after, s.about, "note", "\"" + remark + "\"")) {
            s.edit = edit_between(plan, *noted);
            s.note += (s.note.empty() ? "" : ", ") + remark;
            return;
        }
    s.not_understood.push_back("(" + remark + ")");
}

// In plainer words, where that leaves less that is not understood; a remark leaves nothing.
void try_spelled_out(const Plan& plan, const std::string& words, const Library* library, Statement& s) {
    auto spelled = spelled_out(words);
    if (spelled.empty()) return;
    Statement plain = spelled.size() == 1 ? read_statement(plan, spelled.front(), library)
                                          : read_lines(plan, std::move(spelled), library);
    const bool remark = plain.kind == K::nothing && !plain.error;
    if (remark ||
        (plain.edit && !plain.error && (s.error || plain.not_understood.size() < s.not_understood.size())))
        s = std::move(plain);
}

bool is_of_a_thing(K kind) {
    return kind == K::load || kind == K::battery || kind == K::alternator || kind == K::stator ||
           kind == K::starter || kind == K::winch || kind == K::converter || kind == K::charger ||
           kind == K::solar || kind == K::inverter || kind == K::box || kind == K::bus || kind == K::joiner;
}

// Words that change nothing of the circuit become the thing's note.
void keep_what_is_beside(const Plan& plan, const std::string& words, Statement& s) {
    if (!is_of_a_thing(s.kind) || !s.whole() || s.error || s.not_understood.empty() ||
        !only_beside(plan, s.not_understood, words))
        return;
    std::string said;
    for (const std::string& word : std::exchange(s.not_understood, {}))
        said += (said.empty() ? "" : " ") + word;
    keep_remark(plan, said, s);
}

// So does where it stands.
void set_aside(const Plan& plan, const std::string& words, const Library* library, Statement& s) {
    if (!is_of_a_thing(s.kind) && s.kind != K::block) return;
    if (const auto [rest, where] = without_whereabouts(plan, words); !where.empty()) {
        Statement plain = read_placed(plan, in_our_words(plan, rest), library);
        if (plain.error || !plain.not_understood.empty()) try_spelled_out(plan, rest, library, plain);
        if (plain.edit && (!s.edit || plain.not_understood.size() < s.not_understood.size())) {
            s = std::move(plain);
            keep_remark(plan, where, s);
        }
    }
    keep_what_is_beside(plan, words, s);
}

// Of a line that is not understood: several things, other words for it, or one thing and words beside it.
void read_otherwise(const Plan& plan, const std::string& words, const Library* library, Statement& s) {
    const auto open = [](const Statement& x) { return x.error || !x.not_understood.empty(); };
    if (auto parts = parts_of_line(plan, words); !parts.empty()) {
        Statement all = read_lines(plan, std::move(parts), library);
        if (all.edit && (s.error || all.not_understood.size() < s.not_understood.size())) s = std::move(all);
    }
    if (open(s)) try_spelled_out(plan, words, library, s);
    if (open(s)) set_aside(plan, words, library, s);
}

}  // namespace

namespace {

Statement read_worded(const Plan& plan, std::string_view line, const Library* library) {
    if (auto each = each_on_its_own(std::string(line)); !each.empty())
        return read_lines(plan, std::move(each), library);
    auto [words, remark] = without_remark(without_layout(std::string(line)));
    static const Pattern of_12_V(R"(^\s*12\s*V\s+(?=(?:fuse|distribution|bus)\b))");
    if (plan.vehicle.nominal_V == 12) words = of_12_V.replaced(words, "");
    if (auto feeds = feeds_said(plan, words); !feeds.empty())
        return read_lines(plan, std::move(feeds), library);
    if (auto lengths = distances_said(plan, words); !lengths.empty())
        return read_lines(plan, std::move(lengths), library);
    if (auto fuses = fuses_said(plan, words); !fuses.empty())
        return read_lines(plan, std::move(fuses), library);
    if (auto state = state_with_new_things(plan, words); !state.empty())
        return read_lines(plan, std::move(state), library);
    if (auto each = sentences_that_say_things(words); !each.empty()) {
        Statement all = read_lines(plan, std::move(each), library);
        if (all.whole() && all.not_understood.empty()) return all;
    }
    if (auto both = title_and_battery(plan, words); !both.empty()) {
        Statement all = read_lines(plan, std::move(both), library);
        if (all.whole() && all.not_understood.empty()) return all;
    }
    // "barber van (long wheelbase), 12 V system"
    static const Pattern beside(R"(^[^()]*\([^()\d]*\)[^()]*\b(?:12|24|48)\s*V\b[^()]*$)");
    if (const std::string text(line); beside.is_all_of(text))
        if (const auto title = title_line(plan, text)) return read_placed(plan, *title, library);
    // "launch (outboard 60 hp, 12 V)": what its engine gives is no load
    std::string unquoted_words(words);  // 'work boat "Teal"'
    std::erase(unquoted_words, '"');
    if (const std::string named = without_engines_power(unquoted_words); named != unquoted_words)
        if (const auto title = title_line(plan, named)) return read_placed(plan, *title, library);
    Statement s = read_placed(plan, in_our_words(plan, words), library);
    if (s.error || !s.not_understood.empty()) {
        if (const auto title = title_line(plan, unquoted_words)) return read_placed(plan, *title, library);
        if (const auto [rest, purpose] = without_purpose(words); !purpose.empty()) {
            Statement plain = read_placed(plan, in_our_words(plan, rest), library);
            if (plain.edit && plain.not_understood.empty()) {
                keep_remark(plan, purpose, plain);
                return plain;
            }
        }
        if (const auto [rest, gear] = without_gear(words); !gear.empty()) {
            Statement plain = read_placed(plan, in_our_words(plan, rest), library);
            if (plain.edit && plain.not_understood.empty()) {
                keep_remark(plan, gear, plain);
                return plain;
            }
        }
        read_otherwise(plan, words, library, s);
    }
    keep_remark(plan, remark, s);
    return s;
}

// Of what these make it is known which of their figures they keep.
bool keeps_figures(K kind) {
    return kind == K::block || (is_of_a_thing(kind) && kind != K::bus && kind != K::box);
}

}  // namespace

Statement read_statement(const Plan& plan, std::string_view line, const Library* library) {
    Statement s = read_worded(plan, line, library);
    if (!s.whole() || s.error || !keeps_figures(s.kind)) return s;
    for (std::string& figure : figures_lost(line, *s.edit))
        if (s.note.find(figure) == std::string::npos &&
            std::find(s.not_understood.begin(), s.not_understood.end(), figure) == s.not_understood.end())
            s.not_understood.push_back(std::move(figure));
    return s;
}

}  // namespace yr
