#include "plan/terminal.h"

#include <array>
#include <utility>

namespace yr {
namespace {

constexpr std::array<std::pair<std::string_view, Post>, 4> kPosts{
    {{".pos", Post::pos}, {".neg", Post::neg}, {".out", Post::out}, {".in", Post::in}}};

}  // namespace

Terminal::Terminal(std::string_view text) {
    for (const auto& [ending, of] : kPosts)
        if (text.ends_with(ending)) {
            post = of;
            text.remove_suffix(ending.size());
            break;
        }
    owner = text;
}

std::string Terminal::text() const {
    for (const auto& [ending, of] : kPosts)
        if (of == post) return owner + std::string(ending);
    return owner;
}

}  // namespace yr
