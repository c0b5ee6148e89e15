#include "notes/thing_lines.h"

#include <charconv>

#include "plan/plan_json.h"
#include "units/text.h"

namespace yr::thing_lines {

// Keys whose text speaks of another thing: an id, or an id with the post of a terminal.
const std::set<std::string, std::less<>>& reference_keys() {
    static const std::set<std::string, std::less<>> keys{
        "place",           "bonded_to", "return_at", "charges", "circuits", "inverter", "from",   "to",
        "places",          "coil",      "measures",  "tap_of",  "closed",   "opened",   "pulled", "connector",
        "grounds_without", "jacket",    "removed",   "active",  "about",    "other",    "state",  "point",
        "drawn_at",        "terminal",  "via"};
    return keys;
}

namespace {

class LineParser {
  public:
    LineParser(std::string_view text, const char* head, int& next_id)
        : text_(text), head_(head), next_id_(next_id) {}

    [[nodiscard]] Result<Json> thing() {
        Json out = Json::object();
        out["id"] = new_id();
        blank();
        if (peek() == '"') {
            const auto name = quoted();
            if (!name) return tl::unexpected(name.error());
            out["name"] = *name;
        }
        blank();
        if (done()) return out;
        if (!take(':')) return wrong();
        if (auto error = fields(out, '\0')) return tl::unexpected(*error);
        return out;
    }

    [[nodiscard]] Result<Json> value_alone(bool refers) {
        auto v = value(refers);
        blank();
        if (v && !done()) return wrong();
        return v;
    }

  private:
    using Maybe = std::optional<Error>;

    std::string new_id() { return head_ + std::to_string(++next_id_); }
    [[nodiscard]] bool done() const { return at_ >= text_.size(); }
    [[nodiscard]] char peek() const { return done() ? '\0' : text_[at_]; }
    bool take(char c) {
        if (peek() != c || done()) return false;
        ++at_;
        return true;
    }
    void blank() {
        while (!done() && (peek() == ' ' || peek() == '\t')) ++at_;
    }
    [[nodiscard]] tl::unexpected<Error> wrong() const {
        return fail(ErrorCode::bad_json, "column " + std::to_string(at_ + 1),
                    std::string(text_.substr(std::min(at_, text_.size()), 12)), Want::key_and_value);
    }

    Result<std::string> quoted() {
        const std::size_t from = at_++;
        while (!done() && peek() != '"') at_ += peek() == '\\' ? 2 : 1;
        if (!take('"')) return wrong();
        const auto read = Json::parse(text_.substr(from, at_ - from), nullptr, false);
        if (!read.is_string()) return wrong();
        return read.get<std::string>();
    }

    std::string word() {
        const std::size_t from = at_;
        while (!done() && std::string_view(" \t,[]{}\":").find(peek()) == std::string_view::npos) ++at_;
        return std::string(text_.substr(from, at_ - from));
    }

    // key value, key value … up to `end`
    Maybe fields(Json& out, char end) {
        while (true) {
            blank();
            if (end ? peek() == end : done()) return std::nullopt;
            const std::string key = word();
            if (key.empty() || out.contains(key)) return wrong().value();
            blank();
            auto v = value(reference_keys().contains(key));
            if (!v) return v.error();
            out[key] = std::move(*v);
            blank();
            if (take(',')) continue;
            if (end ? peek() == end : done()) return std::nullopt;
            return wrong().value();
        }
    }

    Result<Json> value(bool refers) {
        blank();
        if (done() || ++depth_ > kDeepest) return wrong();
        auto v = one_value(refers);
        --depth_;
        return v;
    }

    Result<Json> one_value(bool refers) {
        if (take('[')) return list(refers);
        if (take('{')) return object();
        if (refers) return reference();
        if (peek() == '"') {
            auto s = quoted();
            if (!s) return tl::unexpected(s.error());
            return Json(std::move(*s));
        }
        const std::string w = word();
        if (w.empty()) return wrong();
        if (w == "yes" || w == "no") return Json(w == "yes");
        double number = 0;
        const auto [end, error] = std::from_chars(w.data(), w.data() + w.size(), number);
        if (error == std::errc() && end == w.data() + w.size()) {
            const auto whole = Json::parse(w, nullptr, false);
            return whole.is_discarded() ? Json(number) : whole;
        }
        return Json(w);
    }

    Result<Json> list(bool refers) {
        Json out = Json::array();
        blank();
        if (take(']')) return out;
        while (true) {
            auto v = value(refers);
            if (!v) return v;
            out.push_back(std::move(*v));
            blank();
            if (take(']')) return out;
            if (!take(',')) return wrong();
        }
    }

    Result<Json> object() {
        Json out = Json::object();
        blank();
        if (peek() == '"') {
            auto name = quoted();
            if (!name) return tl::unexpected(name.error());
            out["id"] = new_id();
            out["name"] = *name;
            blank();
            if (text_.substr(at_, 4) == "for ") {
                at_ += 4;
                blank();
                auto ref = reference();
                if (!ref) return ref;
                out["id"] = Json(ref->get<std::string>());  // resolved with the others
                out["for"] = true;
                blank();
            }
            if (!take(':') && peek() != '}') return wrong();
        }
        if (auto error = fields(out, '}')) return tl::unexpected(*error);
        if (!take('}')) return wrong();
        return out;
    }

    // A name, which other, which post: kept as "\x01name\x01number\x01post" until all names are known.
    Result<Json> reference() {
        if (take('=')) {
            if (peek() != '"') return wrong();
            auto raw = quoted();
            if (!raw) return tl::unexpected(raw.error());
            return Json(*raw);
        }
        std::string name;
        if (peek() == '"') {
            auto q = quoted();
            if (!q) return tl::unexpected(q.error());
            name = *q;
        } else {
            name = word();
            if (name.empty()) return wrong();
            return Json("\x01" + name + "\x01" + "1" + "\x01");
        }
        std::string number = "1", post;
        if (take('#')) {
            const std::size_t from = at_;
            if (text_.substr(at_, 4) == "plan") {
                at_ += 4;
                number = "0";
            } else {
                while (!done() && peek() >= '0' && peek() <= '9') ++at_;
                number = std::string(text_.substr(from, at_ - from));
            }
            if (number.empty() || number.size() > 6) return wrong();
        }
        if (peek() == '.') post = word();
        return Json("\x01" + name + "\x01" + number + "\x01" + post);
    }

    static constexpr int kDeepest = 40;
    std::string_view text_;
    std::size_t at_ = 0;
    int depth_ = 0;
    std::string head_;
    int& next_id_;
};

// Names for ids, now that all things are known. `line` is told where a name is not.
class Resolver {
  public:
    Resolver(const Names& first, const Names* second) : first_(first), second_(second) {}

    std::optional<Error> run(Json& node) {
        each_reference(node, [&](Json& text) { replace(text); });
        stand_ins(node);
        return error_;
    }

  private:
    void replace(Json& text) {
        const std::string s = text;
        if (s.empty() || s[0] != '\x01') return;
        const auto a = s.find('\x01', 1), b = s.find('\x01', a + 1);
        const std::string name = s.substr(1, a - 1), post = s.substr(b + 1);
        const int number = std::stoi(s.substr(a + 1, b - a - 1));
        std::string id = number == 0 ? std::string() : first_.id_of(name, number);
        if (id.empty() && second_) id = second_->id_of(name, std::max(1, number));
        if (id.empty()) {
            if (!error_)
                error_ = Error{ErrorCode::missing_reference, {}, name, Want::something_that_is_in_the_plan};
            return;
        }
        text = id + post;
    }

    // Things of a variant that stand in place of others take their ids.
    void stand_ins(Json& node) {
        if (node.is_object()) {
            if (node.contains("for")) {
                replace(node["id"]);
                node.erase("for");
            }
            for (auto& [key, value] : node.items()) stand_ins(value);
        } else if (node.is_array()) {
            for (auto& x : node) stand_ins(x);
        }
    }

    const Names& first_;
    const Names* second_;
    std::optional<Error> error_;
};
}  // namespace

Json file_of(const Plan& plan) {
    return Json::parse(to_json_text(plan));
}

std::string_view kind_word(std::string_view line) {
    return line.substr(0, line.find_first_of(" \t"));
}

const char* list_of_kind(std::string_view kind) {
    for (const auto& [list, word] : kKinds)
        if (kind == word) return list;
    return nullptr;
}

Result<ThingLine> read_thing_line(std::string_view line, std::size_t number, const char* head, int& next_id) {
    const std::string place = "line " + std::to_string(number);
    const std::string_view kind = kind_word(line);
    ThingLine read;
    read.word = std::string(kind.ends_with(':') ? kind.substr(0, kind.size() - 1) : kind);
    read.list = list_of_kind(read.word);
    if (!read.list && read.word != "vehicle" && read.word != "policy" && read.word != "active" &&
        read.word != "survey")
        return fail(ErrorCode::unknown_name, place, read.word, Want::a_kind_of_thing);
    auto thing = LineParser(line.substr(read.word.size()), head, next_id).thing();
    if (!thing) {
        thing.error().place = place + ", " + thing.error().place;
        return tl::unexpected(thing.error());
    }
    read.thing = std::move(*thing);
    return read;
}

Result<Json> read_value(std::string_view text, bool refers) {
    int next_id = 0;
    return LineParser(text, "n", next_id).value_alone(refers);
}

std::optional<Error> resolve(Json& node, const Names& first, const Names* second) {
    return Resolver(first, second).run(node);
}

}  // namespace yr::thing_lines
