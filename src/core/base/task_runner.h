// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <functional>

namespace inchpeg
{

/// Runs task(0) to task(count - 1), in any order and perhaps several at once, and returns when all are done.
/// Core hands its long loops to one of these and knows nothing of threads.
using TaskRunner = std::function<void(std::size_t count, const std::function<void(std::size_t)> &task)>;

/// One after the other.
inline void inOrder(std::size_t count, const std::function<void(std::size_t)> &task)
{
    for (std::size_t i = 0; i < count; ++i)
        task(i);
}

} // namespace inchpeg
