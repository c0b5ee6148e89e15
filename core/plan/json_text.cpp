#include "plan/json_text.h"

#include <algorithm>
#include <string>
#include <vector>

namespace yr {
namespace {

using PlainJson = nlohmann::json;

std::string line_and_column(std::string_view text, std::size_t byte) {
    std::size_t line = 1, column = 1;
    for (std::size_t k = 0; k + 1 < byte && k < text.size(); ++k)
        if (text[k] == '\n')
            ++line, column = 1;
        else
            ++column;
    return "line " + std::to_string(line) + ", column " + std::to_string(column);
}

// Reads characters for the parser and knows how many lines have gone by.
class Reading {
  public:
    using iterator_category = std::input_iterator_tag;
    using value_type = char;
    using difference_type = std::ptrdiff_t;
    using pointer = const char*;
    using reference = const char&;
    Reading(const char* at, std::size_t* line) : at_(at), line_(line) {}
    reference operator*() const { return *at_; }
    Reading& operator++() {
        *line_ += *at_ == '\n';
        ++at_;
        return *this;
    }
    Reading operator++(int) {
        Reading old = *this;
        ++*this;
        return old;
    }
    friend bool operator==(const Reading& a, const Reading& b) { return a.at_ == b.at_; }
    friend bool operator!=(const Reading& a, const Reading& b) { return a.at_ != b.at_; }

  private:
    const char* at_;
    std::size_t* line_;
};

// Builds the tree as the parser goes and stops it at what may not be. (The parser's own callbacks walk a list
// again after each of its entries: quadratic.)
class JsonBuilder final : public nlohmann::json_sax<PlainJson> {
  public:
    explicit JsonBuilder(const std::size_t* line) : line_(line) {}

    [[nodiscard]] PlainJson take() { return std::move(root_); }
    [[nodiscard]] const Error& error() const { return error_; }
    [[nodiscard]] std::size_t broken_at() const { return broken_at_; }  // byte; 0: error() says it all

    bool null() override { return put(nullptr); }
    bool boolean(bool value) override { return put(value); }
    bool number_integer(std::int64_t value) override { return put(value); }
    bool number_unsigned(std::uint64_t value) override { return put(value); }
    bool number_float(double value, const std::string&) override { return put(value); }
    bool binary(PlainJson::binary_t&) override { return false; }  // JSON text has none
    bool string(std::string& value) override {
        const bool note = !levels_.empty() && levels_.back().key == "note";
        const std::size_t most = note ? kMostNote : kMostString;
        const bool good = put(nullptr);  // it counts before its place is told
        if (value.size() > most) return refuse(ErrorCode::too_large, {}, limit(most));
        if (has_control(value, note)) return refuse(ErrorCode::control_character, {});
        *last_ = std::move(value);
        return good;
    }
    bool start_object(std::size_t) override { return enter(true); }
    bool start_array(std::size_t) override { return enter(false); }
    bool end_object() override { return leave(); }
    bool end_array() override { return leave(); }
    bool key(std::string& name) override {
        if (name.size() > kMostString) return refuse(ErrorCode::too_large, {}, limit(kMostString));
        if (has_control(name, false)) return refuse(ErrorCode::control_character, {});
        levels_.back().key = name;
        const auto [entry, is_new] = open_.back()->emplace(name, nullptr);
        last_ = &*entry;
        return is_new || refuse(ErrorCode::doubled_key, name);
    }
    bool parse_error(std::size_t byte, const std::string&, const PlainJson::exception& e) override {
        if (dynamic_cast<const PlainJson::out_of_range*>(&e))
            return refuse(ErrorCode::out_of_range, "a number beyond 1e308", Want::a_number_that_can_be_held);
        broken_at_ = byte;
        return false;
    }

    // "line 12, loads, entry 3, draw"
    [[nodiscard]] std::string place() const {
        std::string words = "line " + std::to_string(*line_ + 1);
        std::size_t deep = 0;
        for (const Level& l : levels_) {
            if (++deep > 6) return words + ", …";
            if (l.object && !l.key.empty()) words += ", " + l.key;
            if (!l.object && l.count > 0) words += ", entry " + std::to_string(l.count);
        }
        return words;
    }

  private:
    struct Level {
        bool object;
        std::size_t count = 0;  // list: entries so far
        std::string key{};      // object: the last
    };

    bool refuse(ErrorCode code, const std::string& given, const Wanted& wanted = {}) {
        error_ = {code, place(), given, wanted};
        return false;
    }

    bool put(PlainJson value) {
        if (open_.empty()) {
            root_ = std::move(value);
            last_ = &root_;
        } else if (levels_.back().object) {
            *last_ = std::move(value);  // the place that its key has got
        } else {
            ++levels_.back().count;
            open_.back()->push_back(std::move(value));
            last_ = &open_.back()->back();
        }
        return true;
    }

    bool enter(bool object) {
        if (levels_.size() >= static_cast<std::size_t>(kMostDepth))
            return refuse(ErrorCode::too_deep, {}, {Want::as_said, std::to_string(kMostDepth)});
        put(object ? PlainJson::object() : PlainJson::array());
        open_.push_back(last_);
        levels_.push_back({object});
        return true;
    }

    bool leave() {
        open_.pop_back();
        levels_.pop_back();
        return true;
    }

    static Wanted limit(std::size_t bytes) { return {Want::as_said, std::to_string(bytes) + " letters"}; }

    static bool has_control(const std::string& value, bool lines_allowed) {
        return std::any_of(value.begin(), value.end(), [&](char c) {
            const auto u = static_cast<unsigned char>(c);
            return (u < 0x20 || u == 0x7f) && !(lines_allowed && (c == '\n' || c == '\t'));
        });
    }

    const std::size_t* line_;
    PlainJson root_;
    std::vector<PlainJson*> open_;  // objects and lists that are being read, the outermost first
    PlainJson* last_ = nullptr;
    std::vector<Level> levels_;  // one for each that is open
    Error error_;
    std::size_t broken_at_ = 0;
};

}  // namespace

Result<nlohmann::json> parse_json(std::string_view text) {
    std::size_t line = 0;
    JsonBuilder builder(&line);
    if (PlainJson::sax_parse(Reading(text.data(), &line), Reading(text.data() + text.size(), &line),
                             &builder))
        return builder.take();
    if (builder.broken_at() > 0)
        return fail(ErrorCode::bad_json, line_and_column(text, builder.broken_at()), {}, Want::json);
    return tl::unexpected(builder.error());
}

}  // namespace yr
