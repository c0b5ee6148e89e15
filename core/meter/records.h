// The record of a vehicle: what was read and proved, by whom, when, against what was expected. Beside the
// plan, in "<plan>.records.jsonl": lines are only added, each holds the hash (SHA-256, FIPS 180-4) of the one
// before it, so that nothing in between can be changed unseen; a mistake is corrected by a later line.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "meter/reading.h"
#include "units/result.h"

namespace yr {

enum class RecordKind {
    reading,     // a value, with what was expected frozen beside it
    proved,      // a step without a number: pull test, switch does what it should and nothing else
    as_built,    // a deviation, serial number, date code, warranty
    mended,      // what was put right
    correction,  // of the line `corrects`
    signature
};

struct Record {
    std::size_t number = 0;  // from 1
    RecordKind kind{};
    std::string when;  // ISO 8601 date and time
    std::string by;
    std::string vehicle;  // registration or name: one plan may serve many
    std::string instrument;
    std::optional<double> temperature_C, odometer;
    Probing where;  // reading
    std::optional<double> value;
    std::optional<double> expected, low, high;  // as they were then
    std::string verdict;                        // "good", "high", "low", "cannot tell"
    std::string about;                          // thing or step
    std::string note, photo;
    std::size_t corrects = 0;
    std::string previous, hash;  // hexadecimal
};

[[nodiscard]] std::string records_path(const std::string& plan_path);

// Empty where there is no such file. A last line that was cut off (the lid shut in the middle) is left out
// and counted. Failure: bad_json or schema with "line 7" as its place; out_of_range where a line's hash is
// not what the line before it asks for.
struct RecordBook {
    std::vector<Record> records;
    bool cut_off = false;
    // Those of one vehicle, corrected ones replaced; empty: of all.
    [[nodiscard]] std::vector<Record> of(const std::string& vehicle) const;
};
[[nodiscard]] Result<RecordBook> read_records(const std::string& path);

// Adds a line and has it on the disk when it returns; number, previous and hash are filled in. Failure:
// unwritable_file, and those of read_records.
[[nodiscard]] Result<Record> append_record(const std::string& path, Record record);

[[nodiscard]] std::string sha256_hex(const std::string& text);

// A later record laid over an earlier one: the same reading of the same vehicle at two times.
struct Drift {
    Record first, last;
    double change = 0;
    bool out_now = false;  // outside the first one's band now
};
[[nodiscard]] std::vector<Drift> drifts(const std::vector<Record>& records);

}  // namespace yr
