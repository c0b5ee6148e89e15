#include "meter/as_built.h"

#include <algorithm>
#include <cctype>
#include <filesystem>

#include "files/text_file.h"
#include "plan/plan_json.h"

namespace yr {
namespace {

constexpr const char* kAbout = "plan";  // what the line of a kept copy is about; its note: file and hash

// What a file's name bears: letters, figures, dashes.
std::string plain(const std::string& text) {
    std::string out;
    for (const char c : text) {
        const bool good = std::isalnum(static_cast<unsigned char>(c)) != 0;
        if (good)
            out += c;
        else if (!out.empty() && out.back() != '-')
            out += '-';
    }
    while (!out.empty() && out.back() == '-') out.pop_back();
    return out.empty() ? "vehicle" : out.substr(0, 60);
}

std::string beside(const std::string& plan_path, const std::string& file) {
    return (std::filesystem::path(plan_path).parent_path() / file).string();
}

}  // namespace

std::string vehicle_of(const Plan& plan) {
    return plan.vehicle.registration.empty() ? plan.vehicle.name : plan.vehicle.registration;
}

std::vector<Record> records_of(const RecordBook& book, const Plan& plan) {
    const bool one = std::all_of(book.records.begin(), book.records.end(),
                                 [&](const Record& r) { return r.vehicle == book.records.front().vehicle; });
    std::vector<Record> all = book.of({});
    const std::string mine = vehicle_of(plan);
    if (!one) std::erase_if(all, [&](const Record& r) { return !r.vehicle.empty() && r.vehicle != mine; });
    return all;
}

Result<AsBuilt> keep_as_built(const Plan& plan, const std::string& plan_path, Record line) {
    line.kind = RecordKind::as_built, line.vehicle = vehicle_of(plan), line.about = kAbout;
    std::string stem = std::filesystem::path(plan_path).filename().string();
    for (const std::string ending : {".json", ".yourrail"})
        if (stem.ends_with(ending)) stem.resize(stem.size() - ending.size());
    const std::string file =
        stem + ".built." + plain(line.vehicle) + "." + plain(line.when) + ".yourrail.json";
    const std::string path = beside(plan_path, file), text = to_json_text(plan);
    if (const auto written = write_text_file(path, text, Overwrite::no); !written)
        return tl::unexpected(written.error());
    line.note = file + " " + sha256_hex(text);
    auto added = append_record(records_path(plan_path), std::move(line));
    if (!added) return tl::unexpected(added.error());
    return AsBuilt{plan, std::move(*added), path};
}

Result<std::optional<AsBuilt>> as_built_of(const std::string& plan_path, const std::string& vehicle) {
    const auto book = read_records(records_path(plan_path));
    if (!book) return tl::unexpected(book.error());
    const auto all = book->of(vehicle);
    const auto last = std::find_if(all.rbegin(), all.rend(), [](const Record& r) {
        return r.kind == RecordKind::as_built && r.about == kAbout;
    });
    if (last == all.rend()) return std::optional<AsBuilt>();
    const std::string file = last->note.substr(0, last->note.find(' '));
    const std::string path = beside(plan_path, file);
    const auto text = read_text_file(path);
    if (!text) return tl::unexpected(text.error());
    if (last->note.find(sha256_hex(*text)) == std::string::npos)
        return fail(ErrorCode::out_of_range, file + ", hash");
    auto plan = plan_from_json_text(*text);
    if (!plan) return tl::unexpected(plan.error());
    return std::optional<AsBuilt>(AsBuilt{std::move(*plan), *last, path});
}

}  // namespace yr
