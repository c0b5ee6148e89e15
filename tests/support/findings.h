// One finding of a plan looked for, and all of them worded on the way.
#pragma once

#include <gtest/gtest.h>

#include <algorithm>
#include <optional>

#include "inspect/findings.h"
#include "plan/plan_json.h"
#include "plan/validate.h"
#include "support/random_plan.h"
#include "words/sentences.h"

namespace yr::test {

template <class T>
T& thing(std::vector<T>& list, const Id& id) {
    return *std::find_if(list.begin(), list.end(), [&](const T& t) { return t.id == id; });
}

// The first finding of that kind about `id` (or any), its mend proved; no sentence or source is empty.
inline std::optional<Finding> found(const Plan& plan, FindingKind kind, const Id& id = {}) {
    const auto errors = validate(plan);
    EXPECT_TRUE(errors.empty()) << errors.front().place;
    std::optional<Finding> first;
    const std::vector<Finding> all = inspect_with_candidates(plan).findings;
    for (const Finding& f : all) {
        EXPECT_FALSE(words::sentence(f, plan).empty());
        EXPECT_FALSE(words::rule_of(f, plan).source.empty()) << words::sentence(f, plan);
        if (f.kind == kind && (id.empty() || f.id == id) && !first) first = f;
    }
    if (first) close_mend(plan, all, *first);
    return first;
}

}  // namespace yr::test
