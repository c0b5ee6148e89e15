#include <fcntl.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>
#include <csignal>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <thread>

#include "choice/zero_one_solvers.h"

extern char** environ;

namespace yr {
namespace {

namespace fs = std::filesystem;
using Clock = std::chrono::steady_clock;

constexpr auto kLook = std::chrono::milliseconds(5);

// A folder of its own for one question, gone with it.
class Folder {
  public:
    Folder() {
        std::error_code none;
        std::string name = (fs::temp_directory_path(none) / "your-rail-XXXXXX").string();
        if (mkdtemp(name.data())) path_ = name;
    }
    ~Folder() {
        std::error_code none;
        if (!path_.empty()) fs::remove_all(path_, none);
    }
    Folder(const Folder&) = delete;
    Folder& operator=(const Folder&) = delete;
    [[nodiscard]] bool there() const { return !path_.empty(); }
    [[nodiscard]] std::string file(const char* name) const { return path_ + "/" + name; }

  private:
    std::string path_;
};

std::string exact(double v) {
    char text[40];
    std::snprintf(text, sizeof text, "%.17g", v);
    return text;
}

// Free MPS: the names are letters and numbers of ours.
bool write_mps(const ZeroOneProgram& program, const std::string& path) {
    std::ofstream out(path);
    out << "NAME choice FREE\nROWS\n N cost\n";
    for (std::size_t r = 0; r < program.rows().size(); ++r) {
        const RowSense sense = program.rows()[r].sense;
        out << (sense == RowSense::at_most ? " L r"
                : sense == RowSense::equal ? " E r"
                                           : " G r")
            << r << "\n";
    }
    std::vector<std::vector<std::pair<std::size_t, double>>> columns(program.costs().size());
    for (std::size_t r = 0; r < program.rows().size(); ++r)
        for (const ZeroOneTerm& t : program.rows()[r].terms) {
            auto& column = columns[static_cast<std::size_t>(t.choice)];
            if (!column.empty() && column.back().first == r)
                column.back().second += t.factor;
            else
                column.emplace_back(r, t.factor);
        }
    out << "COLUMNS\n";
    for (std::size_t k = 0; k < columns.size(); ++k) {
        out << " x" << k << " cost " << exact(program.costs()[k]) << "\n";
        for (const auto& [row, factor] : columns[k])
            out << " x" << k << " r" << row << " " << exact(factor) << "\n";
    }
    out << "RHS\n";
    for (std::size_t r = 0; r < program.rows().size(); ++r)
        if (program.rows()[r].right != 0)
            out << " rhs r" << r << " " << exact(program.rows()[r].right) << "\n";
    out << "BOUNDS\n";
    for (std::size_t k = 0; k < columns.size(); ++k)
        if (program.mosts()[k] > 0)
            out << " UP bound x" << k << " " << exact(program.mosts()[k]) << "\n";
        else
            out << " BV bound x" << k << "\n";
    out << "ENDATA\n";
    return static_cast<bool>(out.flush());
}

// Runs until it ends, is cancelled or its time is up. nullopt: it could not be started.
enum class Ran { well, badly, stopped, not_at_all };
Ran run(const std::vector<std::string>& words, const ZeroOneLimits& limits) {
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

// "Optimal - objective value 12.5", then a line for each column that is not 0.
ZeroOneAnswer read_answer(const ZeroOneProgram& program, const std::string& path) {
    std::ifstream in(path);
    std::string line;
    if (!std::getline(in, line)) return {ZeroOneEnd::failed, 0, {}};
    if (line.starts_with("Infeasible") || line.starts_with("Integer infeasible"))
        return {ZeroOneEnd::infeasible, 0, {}};
    if (line.starts_with("Stopped")) return {ZeroOneEnd::stopped, 0, {}};
    if (!line.starts_with("Optimal")) return {ZeroOneEnd::failed, 0, {}};
    std::vector<double> values(program.costs().size(), 0);
    while (std::getline(in, line)) {
        std::istringstream words(line);
        std::string index, name;
        double value = 0;
        if (!(words >> index >> name >> value)) continue;
        if (index == "**") return {ZeroOneEnd::failed, 0, {}};  // it marks what breaks a bound
        const std::size_t k = name.starts_with("x") ? std::stoul(name.substr(1)) : values.size();
        if (k < values.size()) values[k] = value;
    }
    return answer_of(program, values);
}

}  // namespace

ZeroOneAnswer solve_beside(const ZeroOneProgram& program, const ZeroOneLimits& limits) {
    const Folder folder;
    if (!folder.there() || !write_mps(program, folder.file("model.mps"))) return {ZeroOneEnd::failed, 0, {}};
    const Ran ran = run({"cbc", folder.file("model.mps"), "-ratioGap", "0", "-allowableGap", "0", "-solve",
                         "-solution", folder.file("answer.txt")},
                        limits);
    if (ran == Ran::stopped) return {ZeroOneEnd::stopped, 0, {}};
    if (ran != Ran::well) return {ZeroOneEnd::failed, 0, {}};
    return read_answer(program, folder.file("answer.txt"));
}

}  // namespace yr
