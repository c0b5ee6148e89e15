// A workspace in two halves: a picture or table above, and below it one of several views, chosen by a line of
// words.
#pragma once

#include <QToolButton>
#include <QWidget>
#include <functional>
#include <vector>

#include "plan/plan.h"

namespace yr::app {

struct PageWord {
    const char* text;
    const char* tip;
};

// Fills `page`; both halves become its children. `chosen` is called with the number of the word that was
// clicked. The words are given back, to be checked by the page.
std::vector<QToolButton*> fill_split_page(QWidget* page, QWidget* upper, const std::vector<PageWord>& words,
                                          QWidget* lower, const QList<int>& heights,
                                          const std::function<void(int)>& chosen);

// The run that a selection is about: itself, a load's feed, or the run of a device; else the one of before,
// if it is still there. nullptr: none of these.
[[nodiscard]] const Run* run_of_selection(const Plan& plan, const Id& selection, const Id& before);

}  // namespace yr::app
