#include "plan/json_text.h"

#include <algorithm>
#include <set>
#include <string>
#include <vector>

namespace yr {
namespace {

using Json = nlohmann::ordered_json;

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

struct Refused {
    Error error;
};

// Follows the parser and stops it at what may not be.
class Watch {
  public:
    explicit Watch(const std::size_t* line) : line_(line) {}

    bool operator()(int depth, Json::parse_event_t event, Json& parsed) {
        switch (event) {
            case Json::parse_event_t::object_start:
            case Json::parse_event_t::array_start:
                if (depth >= kMostDepth)
                    refuse(ErrorCode::too_deep, {}, {Want::as_said, std::to_string(kMostDepth)});
                enter(event == Json::parse_event_t::object_start);
                break;
            case Json::parse_event_t::object_end:
            case Json::parse_event_t::array_end:
                levels_.pop_back();
                break;
            case Json::parse_event_t::key:
                key(parsed.get_ref<const std::string&>());
                break;
            case Json::parse_event_t::value:
                count();
                if (parsed.is_string()) text(parsed.get_ref<const std::string&>());
                break;
        }
        return true;
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
        std::set<std::string, std::less<>> keys{};
    };

    [[noreturn]] void refuse(ErrorCode code, const std::string& given, const Wanted& wanted = {}) const {
        throw Refused{{code, place(), given, wanted}};
    }

    void count() {
        if (!levels_.empty() && !levels_.back().object) ++levels_.back().count;
    }

    void enter(bool object) {
        count();
        levels_.push_back({object});
    }

    void key(const std::string& name) {
        if (name.size() > kMostString) refuse(ErrorCode::too_large, {}, limit(kMostString));
        if (has_control(name, false)) refuse(ErrorCode::control_character, {});
        Level& level = levels_.back();
        level.key = name;
        if (!level.keys.insert(name).second) refuse(ErrorCode::doubled_key, name);
    }

    void text(const std::string& value) const {
        const bool note = !levels_.empty() && levels_.back().key == "note";
        const std::size_t most = note ? kMostNote : kMostString;
        if (value.size() > most) refuse(ErrorCode::too_large, {}, limit(most));
        if (has_control(value, note)) refuse(ErrorCode::control_character, {});
    }

    static Wanted limit(std::size_t bytes) { return {Want::as_said, std::to_string(bytes) + " letters"}; }

    static bool has_control(const std::string& value, bool lines_allowed) {
        return std::any_of(value.begin(), value.end(), [&](char c) {
            const auto u = static_cast<unsigned char>(c);
            return (u < 0x20 || u == 0x7f) && !(lines_allowed && (c == '\n' || c == '\t'));
        });
    }

    const std::size_t* line_;
    std::vector<Level> levels_;
};

}  // namespace

Result<nlohmann::ordered_json> parse_json(std::string_view text) {
    std::size_t line = 0;
    Watch watch(&line);
    try {
        return Json::parse(
            Reading(text.data(), &line), Reading(text.data() + text.size(), &line),
            [&](int depth, Json::parse_event_t event, Json& parsed) { return watch(depth, event, parsed); });
    } catch (const Refused& refused) {
        return tl::unexpected(refused.error);
    } catch (const Json::parse_error& e) {
        return fail(ErrorCode::bad_json, line_and_column(text, e.byte), {}, Want::json);
    } catch (const Json::out_of_range&) {
        return fail(ErrorCode::out_of_range, watch.place(), "a number beyond 1e308",
                    Want::a_number_that_can_be_held);
    }
}

}  // namespace yr
