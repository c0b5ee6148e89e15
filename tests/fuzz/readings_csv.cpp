// A table of volts: refused with its place, or a survey that is written and read as itself.
#include "io/readings_csv.h"

#include "fuzz/fuzz.h"
#include "survey/infer.h"
#include "words/sentences.h"

YR_FUZZ(text) {
    const yr::Plan plan = yr::empty_plan("fuzz");
    const auto survey = yr::read_readings_csv(text, {}, plan);
    if (!survey) {
        yr::fuzz::require(!yr::words::sentence(survey.error()).empty());
        return;
    }
    if (survey->points.size() < 12) (void)yr::infer(*survey);
    const auto again = yr::read_readings_csv(yr::readings_csv(*survey), *survey, plan);
    yr::fuzz::require(again && again->readings.size() == survey->readings.size());
}
