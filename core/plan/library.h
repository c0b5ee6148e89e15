// Typical accessories by trade and typical control boxes, shipped without a brand, and the person's own
// entries beside them. An entry is a load or box as a plan holds it, without an id.
// data/catalog/library.json; own entries are files of the same form.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "plan/plan.h"
#include "units/result.h"

namespace yr {

struct LoadEntry {
    std::string trade;
    std::vector<std::string> also{};  // other words people use for it
    bool mains = false;               // belongs behind an inverter
    bool own = false;                 // the person's
    Load load;
};

struct BoxEntry {
    bool own = false;
    Point box;
};

// Typed lines under one name, with marks where they differ from one use to the next: "{where=rear} light
// {watts=20 W}". A mark's first place says what stands there where nothing else is said.
struct SetEntry {
    bool own = false;
    std::string name;
    std::vector<std::string> lines;
};

struct Library {
    std::vector<LoadEntry> loads;
    std::vector<BoxEntry> boxes;
    std::vector<SetEntry> sets{};
};

[[nodiscard]] const Library& shipped_library();

// Own entries as a file, and back. Failure: bad_json, not_a_plan for another kind of file, schema where an
// entry lacks its name or draw.
[[nodiscard]] std::string library_text(const Library& library);
[[nodiscard]] Result<Library> read_library(std::string_view text);

// Shipped and own together; an own entry goes before a shipped one of the same name.
[[nodiscard]] Library with_own(const Library& own);

// Loads that match what is typed, best first: the whole name, its beginning, the beginning of a word, all
// words somewhere in name, other words or trade. Upper and lower case are the same.
[[nodiscard]] std::vector<const LoadEntry*> search(const Library& library, std::string_view typed,
                                                   std::size_t most = 12);

// The entry whose name or other word is just this; nullptr where there is none.
[[nodiscard]] const LoadEntry* entry_named(const Library& library, std::string_view name);

}  // namespace yr
