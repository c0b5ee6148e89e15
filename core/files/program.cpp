#include "files/program.h"

#include <fcntl.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cerrno>
#include <chrono>
#include <csignal>
#include <cstdlib>
#include <filesystem>
#include <thread>

extern char** environ;

namespace yr {
namespace {

namespace fs = std::filesystem;
using Clock = std::chrono::steady_clock;

constexpr auto kLook = std::chrono::milliseconds(5);

}  // namespace

ScratchFolder::ScratchFolder() {
    std::error_code none;
    std::string name = (fs::temp_directory_path(none) / "your-rail-XXXXXX").string();
    if (mkdtemp(name.data())) path_ = name;
}

ScratchFolder::~ScratchFolder() {
    std::error_code none;
    if (!path_.empty()) fs::remove_all(path_, none);
}

Ran run_program(const std::vector<std::string>& words, const ProgramLimits& limits) {
    std::vector<char*> argv;
    for (const std::string& w : words) argv.push_back(const_cast<char*>(w.c_str()));  // NOLINT: as exec asks
    argv.push_back(nullptr);
    posix_spawn_file_actions_t files;
    posix_spawn_file_actions_init(&files);
    posix_spawn_file_actions_addopen(&files, 0, "/dev/null", O_RDONLY, 0);
    posix_spawn_file_actions_addopen(&files, 1, "/dev/null", O_WRONLY, 0);
    posix_spawn_file_actions_addopen(&files, 2, "/dev/null", O_WRONLY, 0);
    pid_t child = 0;
    const int failed = posix_spawnp(&child, argv[0], &files, nullptr, argv.data(), environ);
    posix_spawn_file_actions_destroy(&files);
    if (failed != 0) return Ran::not_at_all;
    const auto begun = Clock::now();
    int status = 0;
    while (true) {
        const pid_t ended = ::waitpid(child, &status, WNOHANG);
        if (ended == child) return WIFEXITED(status) && WEXITSTATUS(status) == 0 ? Ran::well : Ran::badly;
        if (ended < 0 && errno != EINTR) return Ran::badly;
        const double spent_s = std::chrono::duration<double>(Clock::now() - begun).count();
        if (spent_s > limits.most_s || (limits.cancel && *limits.cancel)) {
            ::kill(child, SIGKILL);
            ::waitpid(child, &status, 0);
            return Ran::stopped;
        }
        std::this_thread::sleep_for(kLook);
    }
}

}  // namespace yr
