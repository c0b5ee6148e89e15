// Runs a program and keeps what it says.
#pragma once

#include <string>

namespace yr::test {

struct Ran {
    int code = -1;
    std::string out, err;
};

// `command` goes through the shell.
[[nodiscard]] Ran run(const std::string& command);

// The command line of this build.
[[nodiscard]] Ran rail(const std::string& arguments);

// A folder of its own for one test, removed with everything in it at the end.
class TempFolder {
  public:
    TempFolder();
    ~TempFolder();
    TempFolder(const TempFolder&) = delete;
    TempFolder& operator=(const TempFolder&) = delete;
    [[nodiscard]] std::string file(const std::string& name) const { return path_ + "/" + name; }
    [[nodiscard]] const std::string& path() const { return path_; }

  private:
    std::string path_;
};

void write_text(const std::string& path, const std::string& text);
[[nodiscard]] std::string read_text(const std::string& path);

}  // namespace yr::test
