#include <fmt/format.h>

#include <cstdio>

#include "commands.h"
#include "plan/plan_json.h"
#include "plan/variant.h"
#include "routes/lay.h"
#include "watch.h"
#include "words/sentences.h"

namespace yr::cli {

int refuse(const Error& error) {
    fmt::print(stderr, "{}\n", words::sentence(error));
    return 2;
}

int refuse(const std::string& argument, Error error) {
    error.place = argument;
    return refuse(error);
}

void print(const Json& json) {
    fmt::print("{}\n", json.dump(2, ' ', false, Json::error_handler_t::replace));
}

namespace {

// Columns on the terminal: continuation bytes of UTF-8 take none.
std::size_t columns(const std::string& text) {
    std::size_t n = 0;
    for (const char c : text) n += (static_cast<unsigned char>(c) & 0xC0) != 0x80;
    return n;
}

}  // namespace

void print_table(const std::vector<std::vector<std::string>>& rows) {
    std::vector<std::size_t> width;
    for (const auto& row : rows)
        for (std::size_t k = 0; k < row.size(); ++k) {
            if (width.size() <= k) width.push_back(0);
            width[k] = std::max(width[k], columns(row[k]));
        }
    for (const auto& row : rows) {
        std::string line = "  ";
        for (std::size_t k = 0; k < row.size(); ++k) {
            const std::string pad(width[k] - columns(row[k]), ' ');
            line += k == 0 ? row[k] + pad : "  " + pad + row[k];
        }
        fmt::print("{}\n", line);
    }
}

void print_sheet(const Sheet& sheet, int digits) {
    std::vector<std::vector<std::string>> rows{sheet.heads};
    for (const auto& row : sheet.rows) {
        rows.emplace_back();
        for (const SheetCell& cell : row) {
            const auto* number = std::get_if<double>(&cell);
            rows.back().push_back(number ? words::number(*number, digits) : std::get<std::string>(cell));
        }
    }
    print_table(rows);
}

Result<Plan> load_shown(const std::string& path, const std::string& variant) {
    auto plan = load_plan(path);
    if (!plan) return plan;
    const auto laid = [](Plan shown) {
        lay(shown);
        return shown;
    };
    if (variant.empty()) return laid(shown_plan(*plan));
    if (variant == "none") return laid(with_variant(*plan, {}));
    for (const Variant& v : plan->variants)
        if (v.name == variant || v.id == variant) return laid(with_variant(*plan, v.id));
    return fail(ErrorCode::unknown_name, "--variant", variant,
                Want::the_name_of_one_of_the_plan_s_variants_or);
}

int write_out(const std::string& path, std::string_view text, bool force) {
    if (path == "-") {
        fmt::print("{}", text);
        return 0;
    }
    const Watch::Writing writing;
    const auto done = write_text_file(path, text, force ? Overwrite::yes : Overwrite::no);
    if (done) return 0;
    if (done.error().code == ErrorCode::file_exists) {
        tell_error("{0} exists already; --force writes over it.\n", words::printable(path));
        return 2;
    }
    return refuse(done.error());
}

int write_changed(const std::string& plan_path, const std::string& variant, const Edit& edit,
                  const std::string& out, bool force) {
    auto stored = load_plan(plan_path);
    if (!stored) return refuse(stored.error());
    const auto shown = load_shown(plan_path, variant);
    if (!shown) return refuse(shown.error());
    stored->active = shown->active;
    const auto of_stored = edit_of_stored(*stored, edit);
    if (!of_stored) return refuse(of_stored.error());
    if (auto done = yr::apply(*stored, *of_stored); !done) return refuse(done.error());
    return write_out(out, to_json_text(*stored), force);
}

void add_variant_option(CLI::App& command, std::string& variant) {
    command.add_option(
        "--variant", variant,
        words::translated("name of a variant of the plan, or none; left out: as the file shows it"));
}

Json assumptions_json(const std::vector<std::string>& lines) {
    Json list = Json::array();
    for (const auto& line : lines) list.push_back(line);
    return list;
}

}  // namespace yr::cli
