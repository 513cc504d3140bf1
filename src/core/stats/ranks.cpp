// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/ranks.h"

#include <algorithm>
#include <numeric>

namespace inchpeg
{

Ranks ranksOf(std::span<const double> values)
{
    std::vector<std::size_t> order(values.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::sort(order.begin(), order.end(),
              [&](std::size_t i, std::size_t j) { return values[i] < values[j]; });
    Ranks out;
    out.ranks.resize(values.size());
    for (std::size_t first = 0; first < order.size();) {
        std::size_t end = first + 1;
        while (end < order.size() && values[order[end]] == values[order[first]])
            ++end;
        const double shared = 0.5 * static_cast<double>(first + 1 + end);
        for (std::size_t i = first; i < end; ++i)
            out.ranks[order[i]] = shared;
        const auto t = static_cast<double>(end - first);
        out.tieSum += t * t * t - t;
        first = end;
    }
    return out;
}

} // namespace inchpeg
