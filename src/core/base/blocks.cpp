// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/blocks.h"

#include <cstdint>
#include <sys/mman.h>

namespace inchpeg
{

void adviseLargePages(void *memory, std::size_t bytes)
{
    constexpr std::uintptr_t kPage = std::uintptr_t{2} * 1024 * 1024;
    const std::uintptr_t begin = (reinterpret_cast<std::uintptr_t>(memory) + kPage - 1) & ~(kPage - 1);
    const std::uintptr_t end = (reinterpret_cast<std::uintptr_t>(memory) + bytes) & ~(kPage - 1);
    if (begin < end)
        ::madvise(reinterpret_cast<void *>(begin), end - begin, MADV_HUGEPAGE);
}

std::vector<double> longColumn(std::size_t samples)
{
    std::vector<double> column;
    column.reserve(samples);
    adviseLargePages(column.data(), samples * sizeof(double));
    column.resize(samples);
    return column;
}

} // namespace inchpeg
