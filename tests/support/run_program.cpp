#include "support/run_program.h"
#include "support/folders.h"

#include <sys/wait.h>

#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <sstream>

namespace yr::test {

Ran rail(const std::string& arguments) {
    return run(test::bin_dir() + "/rail " + arguments);
}

TempFolder::TempFolder() {
    std::string pattern = (std::filesystem::temp_directory_path() / "yr-test-XXXXXX").string();
    path_ = mkdtemp(pattern.data());
}

TempFolder::~TempFolder() {
    std::error_code ignored;
    std::filesystem::remove_all(path_, ignored);
}

void write_text(const std::string& path, const std::string& text) {
    std::ofstream(path, std::ios::binary) << text;
}

std::string read_text(const std::string& path) {
    std::ostringstream text;
    text << std::ifstream(path, std::ios::binary).rdbuf();
    return text.str();
}

Ran run(const std::string& command) {
    const TempFolder folder;
    const int status = std::system(
        (command + " >" + folder.file("out") + " 2>" + folder.file("err") + " </dev/null").c_str());
    return {WIFEXITED(status) ? WEXITSTATUS(status) : -1, read_text(folder.file("out")),
            read_text(folder.file("err"))};
}

}  // namespace yr::test
