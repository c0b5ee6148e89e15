#include "diagram/channels.h"

#include <algorithm>
#include <cmath>

namespace yr {
namespace {

constexpr double kSame = 1e-6;

bool straight(const ChannelLine& l) {
    return std::abs(l.left_y - l.right_y) < kSame;
}

bool spans(const ChannelLine& l, double y) {
    return y > std::min(l.left_y, l.right_y) + kSame && y < std::max(l.left_y, l.right_y) - kSame;
}

// How often they cross with the track of `a` left of that of `b`.
int crossings(const ChannelLine& a, const ChannelLine& b) {
    if (a.net == b.net) return 0;
    // a's way on, level from its track to the right, meets b's track; b's way to its track meets a's
    return (spans(b, a.right_y) ? 1 : 0) + (spans(a, b.left_y) ? 1 : 0);
}

bool overlap(const ChannelLine& a, const ChannelLine& b) {
    return std::max(std::min(a.left_y, a.right_y), std::min(b.left_y, b.right_y)) <=
           std::min(std::max(a.left_y, a.right_y), std::max(b.left_y, b.right_y)) + kSame;
}

}  // namespace

ChannelTracks route_channel(const std::vector<ChannelLine>& lines) {
    ChannelTracks out;
    const std::size_t n = lines.size();
    out.track.assign(n, -1);
    // who is better to the left of whom
    std::vector<std::vector<std::size_t>> left_of(n);  // must have their track before
    std::vector<std::size_t> open;
    for (std::size_t a = 0; a < n; ++a) {
        if (straight(lines[a])) continue;
        open.push_back(a);
        for (std::size_t b = 0; b < n; ++b)
            if (a != b && !straight(lines[b]) &&
                crossings(lines[b], lines[a]) < crossings(lines[a], lines[b]))
                left_of[a].push_back(b);
    }
    std::sort(open.begin(), open.end(), [&](std::size_t a, std::size_t b) {
        return std::min(lines[a].left_y, lines[a].right_y) < std::min(lines[b].left_y, lines[b].right_y);
    });
    std::vector<char> done(n, 0);
    for (std::size_t left = open.size(); left > 0; ++out.tracks) {
        std::vector<std::size_t> here;
        const auto fits = [&](std::size_t k) {
            return std::none_of(here.begin(), here.end(), [&](std::size_t o) {
                return lines[o].net != lines[k].net && overlap(lines[o], lines[k]);
            });
        };
        const auto free = [&](std::size_t k) {
            return std::all_of(left_of[k].begin(), left_of[k].end(),
                               [&](std::size_t o) { return done[o] && out.track[o] < out.tracks; });
        };
        for (const std::size_t k : open)
            if (!done[k] && free(k) && fits(k)) {
                here.push_back(k);
                out.track[k] = out.tracks, done[k] = 1, --left;
            }
        if (!here.empty()) continue;
        // who is to the left of whom goes round in a circle: one of them crosses
        std::size_t best = n, least = n + 1;
        for (const std::size_t k : open) {
            if (done[k]) continue;
            const auto waits = static_cast<std::size_t>(
                std::count_if(left_of[k].begin(), left_of[k].end(), [&](std::size_t o) { return !done[o]; }));
            if (waits < least) least = waits, best = k;
        }
        out.track[best] = out.tracks, done[best] = 1, --left;
    }
    for (std::size_t a = 0; a < n; ++a)
        for (std::size_t b = a + 1; b < n; ++b) {
            if (lines[a].net == lines[b].net) continue;
            if (straight(lines[a]) || straight(lines[b])) {
                const ChannelLine &s = straight(lines[a]) ? lines[a] : lines[b],
                                  &o = straight(lines[a]) ? lines[b] : lines[a];
                out.crossings += !straight(o) && spans(o, s.left_y);
                continue;
            }
            out.crossings += out.track[a] < out.track[b]   ? crossings(lines[a], lines[b])
                             : out.track[b] < out.track[a] ? crossings(lines[b], lines[a])
                                                           : 0;
        }
    return out;
}

}  // namespace yr
