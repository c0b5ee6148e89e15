// A library of one's own: refused with its place, or every entry of it is found by its name.
#include "plan/library.h"

#include "fuzz/fuzz.h"
#include "words/sentences.h"

YR_FUZZ(text) {
    const auto library = yr::read_library(text);
    if (!library) yr::fuzz::require(!yr::words::sentence(library.error()).empty());
}
