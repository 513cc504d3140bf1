// SPDX-License-Identifier: GPL-3.0-or-later
// Passes over long columns, dealt in blocks to a TaskRunner. The blocks are the same however many cores there
// are, and so are sums that are taken over them.
#pragma once

#include "core/base/task_runner.h"

#include <algorithm>
#include <cstddef>
#include <span>
#include <vector>

namespace inchpeg
{

/// Large enough to be worth handing over: half a megabyte of doubles.
inline constexpr std::size_t kBlockSamples = 65536;

inline std::size_t blocksIn(std::size_t samples)
{
    return (samples + kBlockSamples - 1) / kBlockSamples;
}

/// Calls pass(block, begin, end) for each block of indices below samples.
template <typename Pass>
void forBlocks(std::size_t samples, const TaskRunner &run, Pass pass)
{
    const auto block = [&](std::size_t b) {
        pass(b, b * kBlockSamples, std::min(samples, (b + 1) * kBlockSamples));
    };
    if (samples <= kBlockSamples) {
        if (samples > 0)
            block(0);
        return;
    }
    run(blocksIn(samples), block);
}

/// What yield(begin, end) gives for each block, in their order.
template <typename Yield>
auto perBlock(std::size_t samples, const TaskRunner &run, Yield yield)
{
    std::vector<decltype(yield(std::size_t{}, std::size_t{}))> found(blocksIn(samples));
    forBlocks(samples, run,
              [&](std::size_t b, std::size_t begin, std::size_t end) { found[b] = yield(begin, end); });
    return found;
}

/// Asks for large pages under memory that is about to be filled: fewer of them have to be fetched. A hint
/// that may do nothing.
void adviseLargePages(void *memory, std::size_t bytes);

/// So many doubles, all 0, in memory that is fetched in large pages where it is long.
std::vector<double> longColumn(std::size_t samples);

/// convert(value) of every value.
template <typename Convert>
std::vector<double> convertedColumn(std::span<const double> values, const TaskRunner &run, Convert convert)
{
    std::vector<double> out = longColumn(values.size());
    forBlocks(values.size(), run, [&](std::size_t, std::size_t begin, std::size_t end) {
        for (std::size_t i = begin; i < end; ++i)
            out[i] = convert(values[i]);
    });
    return out;
}

} // namespace inchpeg
