// Lines between two ranks of boxes: each runs level from its box to a track, up or down the track, and level
// on. Tracks by the left-edge method (Hashimoto and Stevens 1971), ordered so that as few lines cross as can
// be: those of one box that fan out never do.
#pragma once

#include <cstddef>
#include <vector>

namespace yr {

struct ChannelLine {
    double left_y = 0, right_y = 0;
    std::size_t net = 0;  // lines of one net may lie on each other
};
struct ChannelTracks {
    std::vector<int> track;  // by line, 0 leftmost; -1: straight through, needs none
    int tracks = 0;
    int crossings = 0;
};

[[nodiscard]] ChannelTracks route_channel(const std::vector<ChannelLine>& lines);

}  // namespace yr
