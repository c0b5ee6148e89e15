#include "railchart/shelf.h"

#include <algorithm>
#include <cmath>
#include <iterator>

namespace yr::app {
namespace {

constexpr double kBetween_px = 10;  // two names in one row
constexpr double kRowGap_px = 4;

std::vector<double> rows_of(const QRectF& room, double height) {
    const double pitch = height + kRowGap_px;
    const auto count = static_cast<int>(std::floor((room.height() + kRowGap_px) / pitch));
    std::vector<double> rows;
    rows.reserve(static_cast<std::size_t>(std::max(count, 0)));
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
    std::vector<std::size_t> order(wishes.size());
    for (std::size_t k = 0; k < order.size(); ++k) order[k] = k;
    std::sort(order.begin(), order.end(),
              [&](std::size_t a, std::size_t b) { return wishes[a].x < wishes[b].x; });
    double height = 0;
    for (const ShelfWish& w : wishes) height = std::max(height, w.height);
    if (height <= 0) return placed;
    const std::vector<double> rows = rows_of(room, height);
    std::vector<std::vector<QRectF>> taken_in(rows.size()), used_in(rows.size());
    for (std::size_t r = 0; r < rows.size(); ++r) {  // a row is asked about what stands in it alone
        const QRectF row(room.left(), rows[r], room.width(), height);
        std::copy_if(taken.begin(), taken.end(), std::back_inserter(taken_in[r]),
                     [&](const QRectF& t) { return t.top() < row.bottom() && t.bottom() > row.top(); });
    }
    for (const std::size_t k : order) {
        const ShelfWish& w = wishes[k];
        // its place may lie off the middle of the name, but never outside it
        for (const double shift : {0.0, 0.25, -0.25, 0.42, -0.42}) {
            for (std::size_t row = 0; row < rows.size(); ++row) {
                QRectF r(w.x - w.width / 2 + shift * w.width, rows[row], w.width, w.height);
                if (r.left() < room.left()) r.moveLeft(room.left());
                if (r.right() > room.right()) r.moveRight(room.right());
                if (r.left() > w.x || r.right() < w.x || r.bottom() < w.top || r.top() > w.bottom) continue;
                const QRectF around = r.adjusted(-kBetween_px / 2, 0, kBetween_px / 2, 0);
                const auto hits = [&](const QRectF& other) { return around.intersects(other); };
                if (std::any_of(used_in[row].rbegin(), used_in[row].rend(), hits) ||
                    std::any_of(taken_in[row].begin(), taken_in[row].end(), hits))
                    continue;
                used_in[row].push_back(around);
                placed[k] = r;
                break;
            }
            if (placed[k]) break;
        }
    }
    return placed;
}

}  // namespace yr::app
