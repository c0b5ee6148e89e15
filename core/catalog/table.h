// Look-up between the rows of a table of (x, y), ascending in x.
#pragma once

#include <algorithm>
#include <cmath>
#include <utility>
#include <vector>

namespace yr {

using Table = std::vector<std::pair<double, double>>;

// Straight line between rows; the first and last value beyond them.
[[nodiscard]] inline double interpolate(const Table& table, double x) {
    if (x <= table.front().first) return table.front().second;
    for (std::size_t k = 1; k < table.size(); ++k) {
        const auto [x0, y0] = table[k - 1];
        const auto [x1, y1] = table[k];
        if (x <= x1) return y0 + (y1 - y0) * (x - x0) / (x1 - x0);
    }
    return table.back().second;
}

// Straight line on log-log axes, continued with the slope of the last pair beyond the ends; x and y above 0.
[[nodiscard]] inline double interpolate_log(const Table& table, double x) {
    std::size_t k = 1;
    while (k + 1 < table.size() && x > table[k].first) ++k;
    const auto [x0, y0] = table[k - 1];
    const auto [x1, y1] = table[k];
    return y0 * std::exp(std::log(y1 / y0) * std::log(x / x0) / std::log(x1 / x0));
}

}  // namespace yr
