// Patterns of words, sought in a text by PCRE2. Upper and lower case are one; the text may be of any length.
#pragma once

#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace yr {

// What a pattern found: group 0 is all of it. Copies of the text, which may go.
class Found {
  public:
    // Empty where the group took no part.
    [[nodiscard]] const std::string& operator[](std::size_t group) const;
    [[nodiscard]] bool has(std::size_t group) const;
    [[nodiscard]] const std::string& before() const { return before_; }
    [[nodiscard]] const std::string& behind() const { return behind_; }

  private:
    friend class Pattern;
    std::vector<std::string> groups_;
    std::vector<bool> taken_;
    std::string before_, behind_;
};

// Made once (`static const`) and used from any thread. The pattern is ours: one that does not compile ends
// the program.
class Pattern {
  public:
    explicit Pattern(std::string_view pattern);
    ~Pattern();
    Pattern(const Pattern&) = delete;
    Pattern& operator=(const Pattern&) = delete;

    [[nodiscard]] bool is_in(std::string_view text) const;
    bool is_in(std::string_view text, Found& found) const;
    [[nodiscard]] bool is_all_of(std::string_view text) const;
    bool is_all_of(std::string_view text, Found& found) const;
    // Every place where it is found; "$1" is the first group.
    [[nodiscard]] std::string replaced(std::string_view text, std::string_view with) const;

  private:
    struct Compiled;
    std::unique_ptr<Compiled> compiled_;
};

// Words in which something is also said, and ours for it.
struct Phrase {
    Pattern more;
    const char* plain;
};
// The text with each of them replaced, one behind another.
[[nodiscard]] std::string put_plainly(std::string text, std::span<const Phrase> phrases);

}  // namespace yr
