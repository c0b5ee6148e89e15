// A text by its lines.
#pragma once

#include <string>
#include <vector>

#include "units/text.h"

namespace yr::test {

inline std::vector<std::string> lines_of(const std::string& text) {
    std::vector<std::string> lines;
    for (const std::string_view line : split(text, '\n')) lines.emplace_back(line);
    return lines;
}

}  // namespace yr::test
