#include "railchart/shelf.h"

#include <algorithm>
#include <cmath>

namespace yr::app {
namespace {

constexpr double kBetween_px = 10;  // two names in one row
constexpr double kRowGap_px = 4;

std::vector<double> rows_of(const QRectF& room, double height) {
    const double pitch = height + kRowGap_px;
    const auto count = static_cast<int>(std::floor((room.height() + kRowGap_px) / pitch));
    std::vector<double> rows;
    const double top = room.center().y() - (count * pitch - kRowGap_px) / 2;
    for (int k = 0; k < count; ++k) rows.push_back(top + k * pitch);
    std::sort(rows.begin(), rows.end(), [&](double a, double b) {
        return std::abs(a + height / 2 - room.center().y()) < std::abs(b + height / 2 - room.center().y());
    });
    return rows;
}

}  // namespace

std::vector<std::optional<QRectF>> shelve(const std::vector<ShelfWish>& wishes, const QRectF& room,
                                          const std::vector<QRectF>& taken) {
    std::vector<std::optional<QRectF>> placed(wishes.size());
    std::vector<QRectF> used;
    std::vector<std::size_t> order(wishes.size());
    for (std::size_t k = 0; k < order.size(); ++k) order[k] = k;
    std::sort(order.begin(), order.end(),
              [&](std::size_t a, std::size_t b) { return wishes[a].x < wishes[b].x; });
    double height = 0;
    for (const ShelfWish& w : wishes) height = std::max(height, w.height);
    if (height <= 0) return placed;
    const std::vector<double> rows = rows_of(room, height);
    for (const std::size_t k : order) {
        const ShelfWish& w = wishes[k];
        // its place may lie off the middle of the name, but never outside it
        for (const double shift : {0.0, 0.25, -0.25, 0.42, -0.42}) {
            for (const double y : rows) {
                QRectF r(w.x - w.width / 2 + shift * w.width, y, w.width, w.height);
                if (r.left() < room.left()) r.moveLeft(room.left());
                if (r.right() > room.right()) r.moveRight(room.right());
                if (r.left() > w.x || r.right() < w.x || r.bottom() < w.top || r.top() > w.bottom) continue;
                const QRectF around = r.adjusted(-kBetween_px / 2, 0, kBetween_px / 2, 0);
                const auto hits = [&](const QRectF& other) { return around.intersects(other); };
                if (std::any_of(taken.begin(), taken.end(), hits) ||
                    std::any_of(used.begin(), used.end(), hits))
                    continue;
                used.push_back(around);
                placed[k] = r;
                break;
            }
            if (placed[k]) break;
        }
    }
    return placed;
}

}  // namespace yr::app
