// Tables as a workbook for spreadsheets: Office Open XML (ISO/IEC 29500), written by libxlsxwriter.
#pragma once

#include <string>
#include <variant>
#include <vector>

#include "units/result.h"

namespace yr {

using SheetCell = std::variant<std::string, double>;
struct Sheet {
    std::string name;  // up to 31 letters
    std::vector<std::string> heads;
    std::vector<std::vector<SheetCell>> rows;
};

// Numbers are written as numbers, texts as texts: what a table program would take for a formula stays a text.
// Failure: unwritable_file; file_exists where `over` is false and something is there.
[[nodiscard]] Result<bool> write_xlsx(const std::string& path, const std::vector<Sheet>& sheets, bool over);

// The same as CSV, the sheets one below another under their names.
[[nodiscard]] std::string sheets_csv(const std::vector<Sheet>& sheets);

}  // namespace yr
