#include "support/folders.h"

namespace yr::test {

std::string source_dir() {
    return YR_SOURCE_DIR;
}

std::string bin_dir() {
    return YR_BIN_DIR;
}

}  // namespace yr::test
