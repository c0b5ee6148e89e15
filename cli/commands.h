// The commands of `rail`. Each adds itself to the parser; what it does runs after parsing and gives the exit
// code: 0 good, 1 findings that need work or nothing that fits, 2 bad input (one sentence on standard error).
#pragma once

#include <CLI/CLI.hpp>
#include <cstdio>
#include <functional>
#include <nlohmann/json.hpp>
#include <string>

#include "io/table_xlsx.h"
#include "plan/edit.h"
#include "plan/plan.h"
#include "units/quantity.h"
#include "units/result.h"
#include "words/say.h"

namespace yr::cli {

using Json = nlohmann::ordered_json;
using Action = std::function<int()>;

void add_solve(CLI::App& app, Action& action);
void add_check(CLI::App& app, Action& action);
void add_sizing(CLI::App& app, Action& action);  // size, cable, fuse
void add_survey(CLI::App& app, Action& action);
void add_compare(CLI::App& app, Action& action);
void add_control(CLI::App& app, Action& action);  // assign, rails, sneak, library
void add_guard(CLI::App& app, Action& action);    // optimise, faults, start, runs
void add_day(CLI::App& app, Action& action);      // day, runtime
void add_place(CLI::App& app, Action& action);    // route, stand, furnish
void add_build(CLI::App& app, Action& action);    // parts, wires, cut
// Parts, wires and cuts as a workbook.
int export_build(const std::string& plan, const std::string& variant, const std::string& out, int vehicles,
                 bool force);
void add_work(CLI::App& app, Action& action);  // work, power, symptoms, quote
// A sheet of the circuit diagram as SVG; `sheet` from 1.
int export_diagram(const std::string& plan, const std::string& variant, const std::string& out, int sheet,
                   bool force);
void add_meter(CLI::App& app, Action& action);  // test, locate, practise
void add_wire(CLI::App& app, Action& action);   // wire, plug, health
void add_plan(CLI::App& app, Action& action);   // plan new|validate|convert, export spice

// The plan of a file as one of its variants: by name or id, "none" for the plan as it stands, empty for the
// one that the file shows.
[[nodiscard]] Result<Plan> load_shown(const std::string& path, const std::string& variant);
void add_variant_option(CLI::App& command, std::string& variant);

// Prints the error's sentence and returns 2.
int refuse(const Error& error);
// The error of an argument, with the argument's name as its place.
int refuse(const std::string& argument, Error error);

// Writes the plan of that file with an edit applied to what was shown of it: all its variants stay, and what
// opens is the result. 0, or the exit code after the sentence.
int write_changed(const std::string& plan_path, const std::string& variant, const Edit& edit,
                  const std::string& out, bool force);

// Writes a text where it shall go, "-" for standard output. What is there is written over only with --force.
// 0, or the exit code after the sentence.
int write_out(const std::string& path, std::string_view text, bool force);

void print(const Json& json);

// Prints a text of the catalogue, filled in; on standard error.
template <class... Args>
void tell(const char* text, const Args&... args) {
    fmt::print("{}", words::say(text, args...));
}
template <class... Args>
void tell_error(const char* text, const Args&... args) {
    fmt::print(stderr, "{}", words::say(text, args...));
}

// A table with aligned columns; the first column left, the others right.
void print_table(const std::vector<std::vector<std::string>>& rows);
void print_sheet(const Sheet& sheet, int digits = 4);

[[nodiscard]] Json assumptions_json(const std::vector<std::string>& lines);

}  // namespace yr::cli
