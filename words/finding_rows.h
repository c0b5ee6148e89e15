// How each kind of finding is said: one row a kind, in the file of its family. Whoever adds a kind adds its
// row; a test asks for every kind.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "words/speech.h"
#include "words/why.h"

namespace yr::words {

// What a finding is about, for lists that are read by subject.
enum class FindingGroup {
    volts,
    liveness,
    cables,
    fuses,
    shorts,
    supply,
    mains,
    relays,
    boxes,
    fitting,
    day,
    place,
    assumptions
};

// A rule of the trade that no published source gives.
[[nodiscard]] inline Rule practice(const char* name) {
    return {name, translated("common practice, no source")};
}

struct FindingRow {
    FindingKind kind{};
    const char* name;  // as in JSON; never translated
    FindingGroup group{};
    Dimension value{};  // of Finding::value and, where it has one, ::limit
    std::string (*sentence)(const Speech&);
    Rule (*rule)(const Speech&);
    std::vector<std::string> (*reasons)(const Speech&);  // further steps of Why?; nullptr: none
    std::optional<ValueKind> why;                        // the number whose explanation it builds on
};

[[nodiscard]] std::span<const FindingRow> circuit_rows();
[[nodiscard]] std::span<const FindingRow> cables_rows();
[[nodiscard]] std::span<const FindingRow> fuses_rows();
[[nodiscard]] std::span<const FindingRow> supply_rows();
[[nodiscard]] std::span<const FindingRow> control_rows();
[[nodiscard]] std::span<const FindingRow> joining_rows();
[[nodiscard]] std::span<const FindingRow> day_rows();
[[nodiscard]] std::span<const FindingRow> place_rows();

// REQUIRES: the kind has a row.
[[nodiscard]] const FindingRow& row_of(FindingKind kind);
// nullptr where a kind was forgotten; for the test.
[[nodiscard]] const FindingRow* find_row(FindingKind kind);

[[nodiscard]] const char* name_of(FindingGroup group);

}  // namespace yr::words
