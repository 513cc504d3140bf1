// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/random.h"

#include <algorithm>
#include <cstddef>
#include <utility>
#include <vector>

namespace inchpeg
{

/// The same items in two drawn orders; the second begins with none that was among the last third of the
/// first, where there are enough, so that nobody remembers what was said of it.
template <typename Item>
std::pair<std::vector<Item>, std::vector<Item>> twoRounds(std::vector<Item> items, Random &random)
{
    constexpr std::size_t kEnoughToForget = 6;
    random.shuffle(items);
    const std::vector<Item> first = items;
    random.shuffle(items);
    if (items.size() >= kEnoughToForget) {
        const auto last = first.end() - static_cast<std::ptrdiff_t>(items.size() / 3);
        std::stable_partition(items.begin(), items.end(), [&](const Item &item) {
            return std::find(last, first.end(), item) == first.end();
        });
    }
    return {first, std::move(items)};
}

} // namespace inchpeg
