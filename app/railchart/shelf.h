// Names of loads on level rows in the free room between the two sides of the rail, each below or above its
// own place, tied to it by a line. Geometry alone.
#pragma once

#include <QRectF>
#include <optional>
#include <vector>

namespace yr::app {

struct ShelfWish {
    double x = 0;  // where the thing is; the name stays over or under it
    double width = 0, height = 0;
    double top = 0, bottom = 0;  // of the free room at the thing
};

// A rectangle for each wish, in their order; nullopt: no room. None overlaps another, leaves `room`, or lies
// on one of `taken`. Rows nearest the middle of `room` first.
[[nodiscard]] std::vector<std::optional<QRectF>> shelve(const std::vector<ShelfWish>& wishes,
                                                        const QRectF& room, const std::vector<QRectF>& taken);

}  // namespace yr::app
