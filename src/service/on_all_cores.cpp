// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/on_all_cores.h"

#include <algorithm>
#include <atomic>
#include <thread>
#include <vector>

namespace inchpeg
{

void onAllCores(std::size_t count, const std::function<void(std::size_t)> &task)
{
    std::atomic<std::size_t> next = 0;
    const auto work = [&] {
        for (std::size_t i = next++; i < count; i = next++)
            task(i);
    };
    const std::size_t cores = std::max(1U, std::thread::hardware_concurrency());
    std::vector<std::jthread> helpers;
    for (std::size_t i = 1; i < std::min(cores, count); ++i)
        helpers.emplace_back(work);
    work();
}

} // namespace inchpeg
