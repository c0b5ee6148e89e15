#include "units/pattern.h"

#define PCRE2_CODE_UNIT_WIDTH 8
#include <pcre2.h>

#include <cstdio>
#include <cstdlib>

namespace yr {
namespace {

PCRE2_SPTR bytes(std::string_view text) {
    return reinterpret_cast<PCRE2_SPTR>(text.data() ? text.data() : "");
}

struct FreeMatch {
    void operator()(pcre2_match_data* data) const { pcre2_match_data_free(data); }
};
using MatchData = std::unique_ptr<pcre2_match_data, FreeMatch>;

// Far beyond what a line of speech takes: a text that makes a pattern try for ever does not match.
constexpr uint32_t kMostTries = 1'000'000;

}  // namespace

struct Pattern::Compiled {
    pcre2_code* code = nullptr;
    pcre2_match_context* context = nullptr;

    MatchData match(std::string_view text, uint32_t options) const {
        MatchData data(pcre2_match_data_create_from_pattern(code, nullptr));
        const int found = pcre2_match(code, bytes(text), text.size(), 0, options, data.get(), context);
        return found > 0 ? std::move(data) : nullptr;
    }
};

const std::string& Found::operator[](std::size_t group) const {
    static const std::string none;
    return group < groups_.size() ? groups_[group] : none;
}

bool Found::has(std::size_t group) const {
    return group < taken_.size() && taken_[group];
}

Pattern::Pattern(std::string_view pattern) : compiled_(std::make_unique<Compiled>()) {
    int error = 0;
    PCRE2_SIZE where = 0;
    compiled_->code = pcre2_compile(bytes(pattern), pattern.size(), PCRE2_CASELESS, &error, &where, nullptr);
    if (!compiled_->code) {
        std::fprintf(stderr, "pattern %.*s: error %d at %zu\n", static_cast<int>(pattern.size()),
                     pattern.data(), error, where);
        std::abort();
    }
    (void)pcre2_jit_compile(compiled_->code, PCRE2_JIT_COMPLETE);  // without it, it is slower
    compiled_->context = pcre2_match_context_create(nullptr);
    pcre2_set_match_limit(compiled_->context, kMostTries);
}

Pattern::~Pattern() {
    pcre2_match_context_free(compiled_->context);
    pcre2_code_free(compiled_->code);
}

namespace {

void fill(pcre2_match_data* data, std::string_view text, std::vector<std::string>& groups,
          std::vector<bool>& taken, std::string& before, std::string& behind) {
    const PCRE2_SIZE* at = pcre2_get_ovector_pointer(data);
    const std::size_t count = pcre2_get_ovector_count(data);
    groups.assign(count, {});
    taken.assign(count, false);
    for (std::size_t k = 0; k < count; ++k) {
        if (at[2 * k] == PCRE2_UNSET) continue;
        groups[k] = std::string(text.substr(at[2 * k], at[2 * k + 1] - at[2 * k]));
        taken[k] = true;
    }
    before = std::string(text.substr(0, at[0]));
    behind = std::string(text.substr(at[1]));
}

}  // namespace

bool Pattern::is_in(std::string_view text) const {
    return compiled_->match(text, 0) != nullptr;
}

bool Pattern::is_in(std::string_view text, Found& found) const {
    const std::string own(text);  // `text` may be a part of `found` itself
    const MatchData data = compiled_->match(own, 0);
    if (data) fill(data.get(), own, found.groups_, found.taken_, found.before_, found.behind_);
    return data != nullptr;
}

bool Pattern::is_all_of(std::string_view text) const {
    return compiled_->match(text, PCRE2_ANCHORED | PCRE2_ENDANCHORED) != nullptr;
}

bool Pattern::is_all_of(std::string_view text, Found& found) const {
    const std::string own(text);
    const MatchData data = compiled_->match(own, PCRE2_ANCHORED | PCRE2_ENDANCHORED);
    if (data) fill(data.get(), own, found.groups_, found.taken_, found.before_, found.behind_);
    return data != nullptr;
}

std::string Pattern::replaced(std::string_view text, std::string_view with) const {
    std::string out(text.size() * 2 + 256, '\0');
    for (int attempt = 0; attempt < 2; ++attempt) {
        PCRE2_SIZE size = out.size();
        const int done = pcre2_substitute(
            compiled_->code, bytes(text), text.size(), 0,
            PCRE2_SUBSTITUTE_GLOBAL | PCRE2_SUBSTITUTE_UNSET_EMPTY | PCRE2_SUBSTITUTE_OVERFLOW_LENGTH,
            nullptr, compiled_->context, bytes(with), with.size(), reinterpret_cast<PCRE2_UCHAR*>(out.data()),
            &size);
        if (done >= 0) return out.substr(0, size);
        if (done != PCRE2_ERROR_NOMEMORY) break;
        out.resize(size + 1);
    }
    return std::string(text);
}

std::string put_plainly(std::string text, std::span<const Phrase> phrases) {
    for (const Phrase& phrase : phrases) text = phrase.more.replaced(text, phrase.plain);
    return text;
}

}  // namespace yr
