// rail: the same core as the application, for scripts, for checks and for people without a screen.
#include <fcntl.h>
#include <fmt/format.h>

#include <algorithm>
#include <cstdio>
#include <exception>
#include <filesystem>
#include <string>
#include <system_error>

#include "commands.h"
#include "watch.h"

namespace {

bool is_command(const CLI::App& app, const std::string& word) {
    const auto commands = app.get_subcommands([](const CLI::App*) { return true; });
    return std::any_of(commands.begin(), commands.end(),
                       [&](const CLI::App* c) { return c->get_name() == word; });
}

// Where the catalogue of another language would stand: beside the program, wherever that was put.
std::string locale_folder() {
    std::error_code unknown;
    const auto program = std::filesystem::read_symlink("/proc/self/exe", unknown);
    return (program.parent_path() / ".." / "share" / "locale").lexically_normal().string();
}

}  // namespace

int main(int argc, char** argv) {
    // a standard stream that is closed is opened on nothing, so that writing to it fails and does not abort
    for (int fd = 0; fd <= 2; ++fd)
        if (::fcntl(fd, F_GETFD) < 0) static_cast<void>(::open("/dev/full", O_RDWR));
    try {
        yr::words::use_language(locale_folder().c_str());
        CLI::App app{yr::words::say(
            "rail: solves, checks and sizes a vehicle's 12-volt supply. The results assist a competent "
            "installer; local codes, the vehicle maker and licensed practice come first.")};
        app.require_subcommand(1);
        app.set_version_flag("--version", "rail 0.1.0");
        yr::cli::Action action;
        yr::cli::add_solve(app, action);
        yr::cli::add_check(app, action);
        yr::cli::add_sizing(app, action);
        yr::cli::add_compare(app, action);
        yr::cli::add_survey(app, action);
        yr::cli::add_control(app, action);
        yr::cli::add_guard(app, action);
        yr::cli::add_day(app, action);
        yr::cli::add_place(app, action);
        yr::cli::add_build(app, action);
        yr::cli::add_work(app, action);
        yr::cli::add_meter(app, action);
        yr::cli::add_wire(app, action);
        yr::cli::add_plan(app, action);
        if (argc > 1 && argv[1][0] != '-' && !is_command(app, argv[1])) {
            yr::cli::tell_error(
                "\u201C{0}\u201D is not a command of rail. `rail --help` lists what it takes.\n", argv[1]);
            return 2;
        }
        try {
            app.parse(argc, argv);
        } catch (const CLI::ParseError& e) {
            if (e.get_exit_code() == 0) return app.exit(e);  // --help and --version
            yr::cli::tell_error("{0}. `rail --help` lists what it takes.\n", e.what());
            return 2;
        }
        const int code = action ? yr::cli::watch().run(action) : 2;
        // what did not get out was not said: a full disk or a closed pipe is an error
        if (std::fflush(stdout) != 0 || std::ferror(stdout)) {
            std::perror("rail");
            return 2;
        }
        return code;
    } catch (const std::system_error& e) {  // standard output or error cannot be written
        std::fprintf(stderr, "rail: %s\n", e.what());
        return 2;
    } catch (const std::exception& e) {
        std::fprintf(
            stderr, "%s",
            yr::words::say("Something inside rail broke: {0}. Nothing was written.\n", e.what()).c_str());
        return 2;
    }
}
