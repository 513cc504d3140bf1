// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <vector>

namespace inchpeg
{

/// A critical value, or another dear function of the degrees of freedom, at many of them: where each of fifty
/// rails scatters in its own way, each has its own. Worked out at a few degrees of freedom and interpolated
/// between them: over 1/df the logarithm of such a function is close to a low polynomial. Right to 1e-6
/// relative (docs/validation.md).
class OverDegreesOfFreedom
{
public:
    /// f: positive and smooth. lowestDf: above 0; highestDf: above lowestDf. Asks f kNodes times.
    OverDegreesOfFreedom(const std::function<double(double df)> &f, double lowestDf, double highestDf);

    /// df: between lowestDf and highestDf.
    [[nodiscard]] double at(double df) const;

    static constexpr std::size_t kNodes = 9;

private:
    std::vector<double> m_inverseDf; ///< Chebyshev points of the second kind, both ends among them
    std::vector<double> m_logarithm;
};

} // namespace inchpeg
