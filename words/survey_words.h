// What a survey proves, in sentences.
#pragma once

#include <string>
#include <vector>

#include "network/network.h"
#include "survey/infer.h"
#include "words/format.h"

namespace yr::words {

struct SurveyLine {
    std::string text;
    bool settled = true;
};

// Each battery and how it is joined, each outlet and what feeds it; "can't tell" where it cannot be told.
[[nodiscard]] std::vector<SurveyLine> conclusions(const SurveyProof& proof, const Survey& survey,
                                                  const Style& style = {});

// "Read battery behind the cab, running, with a heavy draw on at front battery."
[[nodiscard]] std::string sentence(const SurveyAsk& ask, const Survey& survey);

// "key off", "accessory", "running", "after switch-off".
[[nodiscard]] const char* name_of(SurveyKey key);
[[nodiscard]] const char* name_of(JoinVerdict verdict);

// Why a pair is said to be joined or apart, with the volts that say so.
[[nodiscard]] std::string reason(const JoinFact& fact, const Survey& survey, const Style& style = {});

// "battery capacity 70 Ah" of an assumption, without its source; and how one finds the true value at the
// vehicle. Empty where that is no matter for a survey.
[[nodiscard]] std::string assumption_brief(const AssumptionUse& use);
[[nodiscard]] std::string how_to_find(const std::string& assumption_key);

// How to read a draw, said once above the table.
[[nodiscard]] const char* how_to_draw();

}  // namespace yr::words
