// What stands on labels and in order books, put as the grammar says it: "3.5 A on, 1 A standby", "8 LiFePO4
// cells 280 Ah", "wired parallel", "48/12 buck 10 A", "200 A class T fuse".
#pragma once

#include <string>

namespace yr {

[[nodiscard]] std::string with_label_words(const std::string& line);

}  // namespace yr
