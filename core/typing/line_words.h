// The words of a typed line, and conditions read from them. For typed_line.cpp.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "plan/plan.h"
#include "units/quantity.h"

namespace yr {

struct LineWord {
    std::string text;
    bool quoted = false;
    bool after_comma = false;  // begins a part of the line
};

// Splits at spaces, tabs, semicolons and commas that are no decimal commas; quotes hold words together. A
// quote behind a figure is inches, one that is never closed is left out.
[[nodiscard]] std::vector<LineWord> split_line(std::string_view text);

// The parts between commas and semicolons that are no decimal commas, as they stand, empty ones too; quotes
// and brackets hold theirs together.
[[nodiscard]] std::vector<std::string> comma_parts(std::string_view text);

// A place among the words.
class LineCursor {
  public:
    explicit LineCursor(std::vector<LineWord> words) : words_(std::move(words)) {}
    [[nodiscard]] bool done() const { return at_ >= words_.size(); }
    [[nodiscard]] std::string lower(std::size_t ahead = 0) const;  // empty past the end and for quoted words
    [[nodiscard]] std::string joined(std::size_t ahead, std::size_t count) const;  // as they stand
    [[nodiscard]] bool has(std::size_t words) const { return at_ + words <= words_.size(); }
    [[nodiscard]] const LineWord& word() const { return words_[at_]; }
    [[nodiscard]] std::string before() const;  // the word before this one; empty where it is quoted
    [[nodiscard]] bool after_comma(std::size_t ahead) const { return words_[at_ + ahead].after_comma; }
    void skip(std::size_t words) { at_ += words; }
    // The words up to the next comma that are neither figures nor quoted: a name that is not known yet.
    [[nodiscard]] std::string new_name(std::size_t ahead, std::size_t& used) const;

    // A quantity of one to four words from `ahead` on: "2x 90 W", "90 W", "90W", "2 x 90 W".
    [[nodiscard]] std::optional<Quantity> quantity(std::size_t ahead, std::size_t& used) const;

    // A range of one to five words: "3..4 m", "3 m .. 4 m"; the most is given back, `least` beside it.
    [[nodiscard]] std::optional<Quantity> range(std::size_t ahead, std::size_t& used, double& least) const;

    // The thing whose name stands there, the longest name first; empty where none does.
    template <class T, class F>
    [[nodiscard]] Id named(const std::vector<T>& things, std::size_t ahead, F&& accept,
                           std::size_t& used) const {
        for (std::size_t count = 5; count >= 1; --count) {
            if (!has(ahead + count)) continue;
            const std::string text = joined_lower(ahead, count);
            for (const T& t : things)
                if (accept(t) && same_name(t.name, text)) {
                    used = count;
                    return t.id;
                }
        }
        return {};
    }

  private:
    [[nodiscard]] bool quoted_among(std::size_t ahead, std::size_t count) const;
    [[nodiscard]] std::string joined_lower(std::size_t ahead, std::size_t count) const;
    [[nodiscard]] static bool same_name(const std::string& name, const std::string& lower);
    std::vector<LineWord> words_;
    std::size_t at_ = 0;
};

// Collects the parts of a live-when as they are met along a line.
class ConditionReader {
  public:
    explicit ConditionReader(const Plan& plan) : plan_(plan) {}
    // Reads a part at the cursor if there is one: "on ignition", "and scene off", "or running", "not while
    // cranking", "after 3 s", "above 13.2 V", "while sample fridge runs". `begun`: the line has a name
    // already, so that bare key words are no part of it.
    [[nodiscard]] bool read(LineCursor& words, bool begun);
    // Of a load: "on pump" is a switch that is new, where nothing in the plan is called so and a comma, the
    // end or a known word follows ("on roof 35 W" is none).
    void takes_new_switches() { new_switches_ = true; }
    // Of a state: "scene on, pump off" needs no other word before it.
    void takes_bare_switches() { bare_switches_ = true; }
    [[nodiscard]] std::optional<Condition> result() const;

  private:
    [[nodiscard]] std::optional<Condition> term(const LineCursor& words, std::size_t ahead,
                                                std::size_t& used) const;
    [[nodiscard]] std::optional<Condition> key_word(const std::string& word) const;
    [[nodiscard]] std::optional<Condition> switch_term(const LineCursor& words, std::size_t ahead,
                                                       std::size_t& used) const;
    [[nodiscard]] std::optional<Condition> circuit_term(const LineCursor& words, std::size_t ahead,
                                                        std::size_t& used) const;
    [[nodiscard]] std::optional<Condition> with_circuit(const LineCursor& words, std::size_t ahead,
                                                        std::size_t& used) const;
    static bool read_warmth(const LineCursor& words, std::size_t from, std::size_t& ahead, std::size_t& used,
                            Condition& c);
    [[nodiscard]] bool read_measured(LineCursor& words, std::size_t from);
    [[nodiscard]] bool new_switch_stands(const LineCursor& words, std::size_t ahead) const;
    const Plan& plan_;
    std::vector<Condition> parts_;
    bool just_read_ = false;  // "and" and "or" go on from here
    bool new_switches_ = false, bare_switches_ = false;
    mutable bool new_switch_here_ = false;  // behind "on … and": a word that nothing knows is a switch
};

}  // namespace yr
