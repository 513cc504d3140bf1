// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/power.h"

#include <memory>
#include <vector>

namespace inchpeg
{

/// Power of one comparison of two of several equally large groups as SimultaneousComparison makes it, each
/// with its moderated scatter: the noncentral t has no closed form where standard error, degrees of freedom
/// and critical value are all drawn. Over 512 draws of the groups' scatters, the same ones each time, the
/// chance given each is exact. The draws are spread evenly: of the two that are compared over a lattice of
/// the golden section, of the others a Latin hypercube (Niederreiter 1992, Random Number Generation and
/// Quasi-Monte Carlo Methods, ch. 5; McKay, Beckman & Conover 1979, Technometrics 21, 239; from memory).
class ComparedPower
{
public:
    /// comparison: TwoGroups, AgainstReference, AllPairs or GoodEnough (one-sided). groups, piecesPerGroup:
    /// two or more. alpha: between 0 and 1.
    ComparedPower(Comparison comparison, int groups, int piecesPerGroup, double alpha);

    /// The same, made once and remembered. From any thread.
    static std::shared_ptr<const ComparedPower> shared(Comparison comparison, int groups, int piecesPerGroup,
                                                       double alpha);

    /// Of the two-sided claims of a family, whatever else was asked: each with each, or with the reference.
    static std::shared_ptr<const ComparedPower> ofClaims(Comparison family, int groups, int piecesPerGroup,
                                                         double alpha);

    /// P(|T| beyond its critical value). noncentrality: the difference over its true standard error.
    [[nodiscard]] double beyond(double noncentrality) const;
    /// P(T above its critical value), for GoodEnough.
    [[nodiscard]] double above(double noncentrality) const;
    /// At which |T| lies beyond its critical value with this chance. power: between alpha and 1.
    [[nodiscard]] double noncentralityFor(double power) const;
    /// Half an interval, over the true standard error: in half of all studies it is wider.
    [[nodiscard]] double usualHalfWidth() const;

private:
    std::vector<double> m_thresholds; ///< critical value times standard error, over the true one
};

} // namespace inchpeg
