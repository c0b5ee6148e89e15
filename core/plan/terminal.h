// Where a conductor ends: a point of the plan, or a post of a battery, source, inverter or load.
#pragma once

#include <compare>
#include <functional>
#include <string>
#include <string_view>

namespace yr {

using Id = std::string;

// stud: the point itself. A converter has an input (`in`) besides its output; other sources have an output
// alone, their negative is where they are bolted.
enum class Post { stud, pos, neg, out, in };

struct Terminal {
    Id owner;
    Post post = Post::stud;

    Terminal() = default;
    Terminal(Id whose, Post which) : owner(std::move(whose)), post(which) {}
    // As it stands in files and tables: "cab-box", "battery-1.pos". What has no known post behind its last
    // point is a point's id as a whole.
    // NOLINTBEGIN(google-explicit-constructor): a point's id is its terminal
    Terminal(std::string_view text);
    Terminal(const std::string& text) : Terminal(std::string_view(text)) {}
    Terminal(const char* text) : Terminal(std::string_view(text)) {}
    // NOLINTEND(google-explicit-constructor)

    [[nodiscard]] std::string text() const;
    [[nodiscard]] bool empty() const { return owner.empty(); }
    friend bool operator==(const Terminal&, const Terminal&) = default;
    // clang-tidy 14 takes what a defaulted one compares with for a pointer
    // NOLINTNEXTLINE(modernize-use-nullptr)
    friend std::strong_ordering operator<=>(const Terminal&, const Terminal&) = default;
};

[[nodiscard]] inline Terminal pos_of(const Id& id) {
    return {id, Post::pos};
}
[[nodiscard]] inline Terminal neg_of(const Id& id) {
    return {id, Post::neg};
}
[[nodiscard]] inline Terminal out_of(const Id& id) {
    return {id, Post::out};
}
[[nodiscard]] inline Terminal in_of(const Id& id) {
    return {id, Post::in};
}

}  // namespace yr

template <>
struct std::hash<yr::Terminal> {
    std::size_t operator()(const yr::Terminal& t) const noexcept {
        return std::hash<std::string>()(t.owner) * 8 + static_cast<std::size_t>(t.post);
    }
};
