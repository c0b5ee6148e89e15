// A page of notes as the plan that it makes, and the things of that plan by name.
#pragma once

#include <gtest/gtest.h>

#include <algorithm>
#include <cstdlib>
#include <iostream>
#include <optional>
#include <string>

#include "notes/notes.h"
#include "notes/statement.h"
#include "plan/library.h"
#include "words/sentences.h"

namespace yr::test {

// The plan of a page that is understood but for so many lines.
inline Plan typed_page(const std::string& page, int not_understood = 0) {
    const Notes notes = read_notes(page, &shipped_library());
    int bad = 0;
    std::string which;
    for (const NoteLine& l : notes.lines)
        if (l.bad())
            ++bad, which += "\n" + l.text + ": " +
                            (l.statement.error                    ? words::sentence(*l.statement.error)
                             : l.statement.not_understood.empty() ? std::string()
                                                                  : l.statement.not_understood.front());
    EXPECT_EQ(bad, not_understood) << which;
    return notes.plan;
}

// The plan with that line, where all of it is understood; what is told instead YR_SHOW=1 prints.
inline std::optional<Plan> with_line(const Plan& plan, const std::string& line) {
    static const bool shown = std::getenv("YR_SHOW") != nullptr;
    const Statement s = read_statement(plan, line, &shipped_library());
    if (!s.whole() || s.error || !s.not_understood.empty()) {
        if (shown) std::cout << "told: " << line << "\n";
        return std::nullopt;
    }
    Plan after = plan;
    EXPECT_TRUE(yr::apply(after, *s.edit)) << line;
    return after;
}

// Lines that say things in many ways: how many are understood, and how many told.
struct ReadLines {
    int right = 0, told = 0;
    std::optional<Plan> read(const Plan& plan, const std::string& line) {
        auto with = with_line(plan, line);
        ++(with ? right : told);
        return with;
    }
};

template <class T>
const T& of_name(const std::vector<T>& things, std::string_view name) {
    const auto found = std::find_if(things.begin(), things.end(), [&](const T& x) { return x.name == name; });
    static const T none{};
    EXPECT_NE(found, things.end()) << name;
    return found == things.end() ? none : *found;
}
// Of a plan that goes away at once the thing itself.
template <class T>
T of_name(std::vector<T>&& things, std::string_view name) {
    const std::vector<T>& kept = things;
    return of_name(kept, name);
}

inline const Source* source_of_kind(const Plan& plan, SourceKind kind) {
    const auto found = std::find_if(plan.sources.begin(), plan.sources.end(),
                                    [&](const Source& s) { return s.kind == kind; });
    return found == plan.sources.end() ? nullptr : &*found;
}

}  // namespace yr::test
