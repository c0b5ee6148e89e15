#include "meter/records.h"

#include <fcntl.h>
#include <sha256.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "files/text_file.h"

namespace yr {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::array<const char*, 6> kKinds{"reading", "proved",     "as_built",
                                            "mended",  "correction", "signature"};
constexpr std::array<const char*, 3> kReadKinds{"volts", "amps", "ohms"};
const std::string kFirst(64, '0');

// Everything but its own hash, in one order.
Json body(const Record& r) {
    Json j;
    j["number"] = r.number;
    j["previous"] = r.previous;
    j["kind"] = kKinds[static_cast<std::size_t>(r.kind)];
    j["when"] = r.when;
    const auto text = [&](const char* key, const std::string& value) {
        if (!value.empty()) j[key] = value;
    };
    const auto number = [&](const char* key, const std::optional<double>& value) {
        if (value) j[key] = *value;
    };
    text("by", r.by), text("vehicle", r.vehicle), text("instrument", r.instrument);
    number("temperature_C", r.temperature_C), number("odometer", r.odometer);
    if (r.kind == RecordKind::reading) {
        j["read"] = kReadKinds[static_cast<std::size_t>(r.where.kind)];
        text("red", r.where.red.empty() ? "" : r.where.red.text());
        text("black", r.where.black.empty() ? "" : r.where.black.text());
        text("run", r.where.run), text("state", r.where.state);
        if (!r.where.unplugged.empty()) j["unplugged"] = r.where.unplugged;
    }
    number("value", r.value), number("expected", r.expected), number("low", r.low), number("high", r.high);
    text("verdict", r.verdict), text("about", r.about), text("note", r.note), text("photo", r.photo);
    if (r.corrects > 0) j["corrects"] = r.corrects;
    return j;
}

Result<Record> read_line(const std::string& line, const std::string& place) {
    const Json j = Json::parse(line, nullptr, false);
    if (j.is_discarded() || !j.is_object()) return fail(ErrorCode::bad_json, place);
    Record r;
    try {
        r.number = j.at("number").get<std::size_t>();
        r.previous = j.at("previous").get<std::string>(), r.hash = j.at("hash").get<std::string>();
        const std::string kind = j.at("kind");
        const auto k = std::find(kKinds.begin(), kKinds.end(), kind);
        if (k == kKinds.end()) return fail(ErrorCode::unknown_name, place + ", kind", kind);
        r.kind = static_cast<RecordKind>(k - kKinds.begin());
        r.when = j.at("when").get<std::string>();
        const auto text = [&](const char* key, std::string& into) {
            if (j.contains(key)) into = j.at(key).get<std::string>();
        };
        const auto number = [&](const char* key, std::optional<double>& into) {
            if (j.contains(key)) into = j.at(key).get<double>();
        };
        text("by", r.by), text("vehicle", r.vehicle), text("instrument", r.instrument);
        number("temperature_C", r.temperature_C), number("odometer", r.odometer);
        if (r.kind == RecordKind::reading) {
            const std::string read = j.at("read");
            const auto what = std::find(kReadKinds.begin(), kReadKinds.end(), read);
            if (what == kReadKinds.end()) return fail(ErrorCode::unknown_name, place + ", read", read);
            r.where.kind = static_cast<ReadKind>(what - kReadKinds.begin());
            std::string red, black;
            text("red", red), text("black", black), text("run", r.where.run), text("state", r.where.state);
            if (!red.empty()) r.where.red = Terminal(red);
            if (!black.empty()) r.where.black = Terminal(black);
            if (j.contains("unplugged")) r.where.unplugged = j.at("unplugged").get<std::vector<Id>>();
        }
        number("value", r.value), number("expected", r.expected), number("low", r.low),
            number("high", r.high);
        text("verdict", r.verdict), text("about", r.about), text("note", r.note), text("photo", r.photo);
        if (j.contains("corrects")) r.corrects = j.at("corrects").get<std::size_t>();
    } catch (const nlohmann::json::exception&) {
        return fail(ErrorCode::schema, place);
    }
    return r;
}

}  // namespace

std::string sha256_hex(const std::string& text) {
    std::array<char, SHA256_DIGEST_STRING_LENGTH> hex{};
    SHA256Data(reinterpret_cast<const std::uint8_t*>(text.data()), text.size(),
               hex.data());  // NOLINT: C interface
    return hex.data();
}

std::string records_path(const std::string& plan_path) {
    return plan_path + ".records.jsonl";
}

std::vector<Record> RecordBook::of(const std::string& vehicle) const {
    std::vector<Record> all;
    for (const Record& r : records) {
        if (!vehicle.empty() && r.vehicle != vehicle) continue;
        if (r.kind == RecordKind::correction) {
            for (Record& earlier : all)
                if (earlier.number == r.corrects) {
                    if (r.value) earlier.value = r.value, earlier.verdict = r.verdict;
                    earlier.note += (earlier.note.empty() ? "" : "; ") + r.note;
                }
            continue;
        }
        all.push_back(r);
    }
    return all;
}

Result<RecordBook> read_records(const std::string& path) {
    RecordBook book;
    std::error_code none;
    if (!std::filesystem::exists(path, none)) return book;
    const auto text = read_text_file(path);
    if (!text) return tl::unexpected(text.error());
    std::string previous = kFirst;
    std::size_t at = 0, line_number = 0;
    while (at < text->size()) {
        const std::size_t end = text->find('\n', at);
        if (end == std::string::npos) {
            book.cut_off = true;
            break;
        }
        const std::string line = text->substr(at, end - at), place = "line " + std::to_string(++line_number);
        at = end + 1;
        if (line.empty()) continue;
        auto record = read_line(line, place);
        if (!record) return tl::unexpected(record.error());
        if (record->previous != previous || record->hash != sha256_hex(body(*record).dump()))
            return fail(ErrorCode::out_of_range, place + ", hash", record->hash.substr(0, 12));
        previous = record->hash;
        book.records.push_back(std::move(*record));
    }
    return book;
}

Result<Record> append_record(const std::string& path, Record record) {
    const auto book = read_records(path);
    if (!book) return tl::unexpected(book.error());
    record.number = book->records.size() + 1;
    record.previous = book->records.empty() ? kFirst : book->records.back().hash;
    record.hash = sha256_hex(body(record).dump());
    Json line = body(record);
    line["hash"] = record.hash;
    // a last line that was cut off is closed with what it has, and stays out of the chain
    if (book->cut_off) {
        const auto text = read_text_file(path);
        if (!text) return tl::unexpected(text.error());
        const auto kept = write_text_file(path, text->substr(0, text->rfind('\n') + 1), Overwrite::yes);
        if (!kept) return tl::unexpected(kept.error());
    }
    const int file = ::open(path.c_str(), O_WRONLY | O_CREAT | O_APPEND | O_CLOEXEC, 0644);
    if (file < 0) return fail(ErrorCode::unwritable_file, path);
    const std::string out = line.dump() + "\n";
    const bool good =
        ::write(file, out.data(), out.size()) == static_cast<ssize_t>(out.size()) && ::fsync(file) == 0;
    ::close(file);
    if (!good) return fail(ErrorCode::unwritable_file, path);
    return record;
}

std::vector<Drift> drifts(const std::vector<Record>& records) {
    std::vector<Drift> out;
    for (std::size_t k = 0; k < records.size(); ++k) {
        const Record& r = records[k];
        if (r.kind != RecordKind::reading || !r.value) continue;
        auto found = std::find_if(out.begin(), out.end(), [&](const Drift& d) {
            return d.first.where == r.where && d.first.vehicle == r.vehicle;
        });
        if (found == out.end()) {
            out.push_back({r, r, 0, false});
        } else {
            found->last = r;
            found->change = *r.value - *found->first.value;
            found->out_now = (found->first.high && *r.value > *found->first.high) ||
                             (found->first.low && *r.value < *found->first.low);
        }
    }
    std::erase_if(out, [](const Drift& d) { return d.first.number == d.last.number; });
    std::stable_sort(out.begin(), out.end(), [](const Drift& a, const Drift& b) {
        return a.out_now != b.out_now ? a.out_now : std::abs(a.change) > std::abs(b.change);
    });
    return out;
}

}  // namespace yr
