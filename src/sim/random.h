// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cmath>
#include <cstdint>
#include <numbers>
#include <random>

namespace inchpeg::sim
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

private:
    std::mt19937_64 m_engine;
};

} // namespace inchpeg::sim
