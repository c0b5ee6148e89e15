// Another program started beside this one: the few that the computation asks (a solver, a drawer of graphs).
#pragma once

#include <atomic>
#include <string>
#include <vector>

namespace yr {

// A folder of its own for one question, gone with it.
class ScratchFolder {
  public:
    ScratchFolder();
    ~ScratchFolder();
    ScratchFolder(const ScratchFolder&) = delete;
    ScratchFolder& operator=(const ScratchFolder&) = delete;
    [[nodiscard]] bool there() const { return !path_.empty(); }
    [[nodiscard]] std::string file(const char* name) const { return path_ + "/" + name; }

  private:
    std::string path_;
};

struct ProgramLimits {
    double most_s = 60;
    const std::atomic<bool>* cancel = nullptr;
};

// well: ended with 0; badly: ended otherwise; stopped: its time was up or it was cancelled, and it was
// killed; not_at_all: there is no such program.
enum class Ran { well, badly, stopped, not_at_all };

// `words`: the program's name, looked for on the path, and what it is given. What it says is thrown away.
[[nodiscard]] Ran run_program(const std::vector<std::string>& words, const ProgramLimits& limits);

}  // namespace yr
