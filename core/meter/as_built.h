// A vehicle as it was built: a copy of its plan beside the plan, kept when it is handed over, so that no
// later change of the plan alters what this vehicle is proved against; and a line of the record that says so
// with the copy's hash.
#pragma once

#include <optional>
#include <string>

#include "meter/records.h"
#include "plan/plan.h"

namespace yr {

// Whose record a plan's readings go into: its registration, else its name.
[[nodiscard]] std::string vehicle_of(const Plan& plan);

// Lines of the plan's vehicle and those of no vehicle, corrected ones replaced; all of them where the record
// knows one vehicle only, which may have got another name since.
[[nodiscard]] std::vector<Record> records_of(const RecordBook& book, const Plan& plan);

struct AsBuilt {
    Plan plan;
    Record line;  // of the record: when, by whom
    std::string path;
};

// Writes the copy and the line. `line` says who and when (ISO 8601); kind, vehicle, thing and note are filled
// in. An earlier copy of the same vehicle stays; the later one counts. Failure: unwritable_file, file_exists,
// and those of append_record.
[[nodiscard]] Result<AsBuilt> keep_as_built(const Plan& plan, const std::string& plan_path, Record line);

// The last that was kept of this vehicle; nothing where none was. Failure: those of read_records and
// load_plan; out_of_range with the file's name where it is not the file that was kept.
[[nodiscard]] Result<std::optional<AsBuilt>> as_built_of(const std::string& plan_path,
                                                         const std::string& vehicle);

}  // namespace yr
