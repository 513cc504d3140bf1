// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cmath>
#include <cstddef>
#include <cstdint>
#include <numbers>
#include <random>
#include <utility>
#include <vector>

namespace inchpeg
{

/// Random numbers that are the same with every standard library: the engine is fixed by the C++ standard, the
/// distributions here are our own.
class Random
{
public:
    explicit Random(std::uint64_t seed) : m_engine(seed) {}

    /// Between 0 and 1, both excluded.
    double uniform() { return (static_cast<double>(m_engine() >> 11) + 0.5) * 0x1p-53; }
    /// Standard normal, by Box and Muller.
    double normal()
    {
        return std::sqrt(-2.0 * std::log(uniform())) * std::cos(2.0 * std::numbers::pi * uniform());
    }
    /// 0 to count - 1, each equally likely: values that would favour the low ones are drawn again.
    std::size_t below(std::size_t count)
    {
        const auto n = static_cast<std::uint64_t>(count);
        const std::uint64_t surplus = (UINT64_MAX % n + 1) % n;
        std::uint64_t drawn = m_engine();
        while (drawn > UINT64_MAX - surplus)
            drawn = m_engine();
        return static_cast<std::size_t>(drawn % n);
    }
    /// Every order equally likely (Fisher and Yates).
    template <typename T>
    void shuffle(std::vector<T> &items)
    {
        for (std::size_t i = items.size(); i > 1; --i)
            std::swap(items[i - 1], items[below(i)]);
    }

private:
    std::mt19937_64 m_engine;
};

} // namespace inchpeg
