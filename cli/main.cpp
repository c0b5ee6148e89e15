// rail: the same core as the application, for scripts, for checks and for people without a screen.
#include <fmt/format.h>

#include <algorithm>
#include <exception>
#include <string>

#include "commands.h"

namespace {

bool is_command(const CLI::App& app, const std::string& word) {
    const auto commands = app.get_subcommands([](const CLI::App*) { return true; });
    return std::any_of(commands.begin(), commands.end(),
                       [&](const CLI::App* c) { return c->get_name() == word; });
}

}  // namespace

int main(int argc, char** argv) {
    try {
        yr::words::use_language(YR_LOCALE_DIR);
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
        return action ? action() : 2;
    } catch (const std::exception& e) {
        yr::cli::tell_error("Something inside rail broke: {0}. Nothing was written.\n", e.what());
        return 2;
    }
}
