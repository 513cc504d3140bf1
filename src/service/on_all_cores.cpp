// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/on_all_cores.h"

#include <algorithm>
#include <atomic>
#include <exception>
#include <mutex>
#include <thread>
#include <vector>

namespace inchpeg
{

void onAllCores(std::size_t count, const std::function<void(std::size_t)> &task)
{
    std::atomic<std::size_t> next = 0;
    std::mutex mutex;
    std::exception_ptr thrown; // the first; it leaves in the caller's thread, once all have stopped
    const auto work = [&] {
        try {
            for (std::size_t i = next++; i < count; i = next++)
                task(i);
        } catch (...) {
            next = count;
            const std::lock_guard lock(mutex);
            if (!thrown)
                thrown = std::current_exception();
        }
    };
    const std::size_t cores = std::max(1U, std::thread::hardware_concurrency());
    {
        std::vector<std::jthread> helpers;
        for (std::size_t i = 1; i < std::min(cores, count); ++i)
            helpers.emplace_back(work);
        work();
    }
    if (thrown)
        std::rethrow_exception(thrown);
}

} // namespace inchpeg
