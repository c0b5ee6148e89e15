// The one place that reads and writes files, for every command, export and dialog.
//
// Writing never leaves less than the old file or the whole new one: the text goes into a file of its own
// beside the target, to the disk, and then takes its name in one step (POSIX rename). A symbolic link is
// followed to what it names; mode and, where allowed, owner stay; what is no plain file is never replaced.
#pragma once

#include <cstddef>
#include <string>
#include <string_view>

#include "units/result.h"

namespace yr {

// Larger than any vehicle: 100 000 loads take 80 MB.
inline constexpr std::size_t kMostFile_bytes = std::size_t{512} << 20;

// UTF-8 text, a byte order mark left out. Failure: unreadable_file; not_a_file for a folder or device;
// too_large; not_utf8 for UTF-16 and what holds zeros.
[[nodiscard]] Result<std::string> read_text_file(const std::string& path,
                                                 std::size_t most_bytes = kMostFile_bytes);

enum class Overwrite { no, yes };

// Failure: file_exists where something is there and may not be overwritten; not_a_file; unwritable_file with
// the system's reason. Whatever fails, the old file is whole and nothing new is left beside it.
[[nodiscard]] Result<bool> write_text_file(const std::string& path, std::string_view text,
                                           Overwrite overwrite);

// The steps of writing, in order: a test makes any of them fail.
enum class WriteStep { create, write, mode, flush, close, rename };
using WriteFault = bool (*)(WriteStep);  // true: this step fails
void fail_writes_for_test(WriteFault fault);

}  // namespace yr
