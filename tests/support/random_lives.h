// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "sim/random.h"

#include <algorithm>

namespace inchpeg::test
{

/// How long a child may live until it is killed, at random; as long as it takes on this machine, with what
/// else it does, for about every second child to finish something.
class RandomLives
{
public:
    RandomLives(std::uint64_t seed, double longest_s)
        : m_random(seed), m_shortest_s(longest_s), m_longest_s(longest_s)
    {
    }

    /// From nothing to the longest life.
    double next_s() { return m_longest_s * m_random.uniform(); }

    /// What came of the last life.
    void tell(bool finishedSomething)
    {
        m_longest_s = finishedSomething ? std::max(m_shortest_s, 0.9 * m_longest_s)
                                        : std::min(kLongest_s, 1.25 * m_longest_s);
        m_fruitful += finishedSomething ? 1 : 0;
    }
    /// How many lives finished something.
    [[nodiscard]] int fruitful() const { return m_fruitful; }

private:
    static constexpr double kLongest_s = 5.0;
    sim::Random m_random;
    double m_shortest_s;
    double m_longest_s;
    int m_fruitful = 0;
};

} // namespace inchpeg::test
