// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <optional>
#include <span>

namespace inchpeg
{

struct StraightLine {
    double slope = 0.0;
    double intercept = 0.0;
    double residualSd = 0.0; ///< root mean square distance of the points, in the unit of y
    [[nodiscard]] double xWhereZero() const { return -intercept / slope; }
};

/// Least-squares line with intercept through at least two points; nothing where all x are equal.
/// Source: any statistics text, for example Draper & Smith, Applied Regression Analysis, ch. 1.
std::optional<StraightLine> fitLine(std::span<const double> x, std::span<const double> y);

/// How many samples of a rise count for its start: an elastomer bends over and stiffens again, and its
/// steepest part is its end. The rise is looked at in twentieths of x: where two of them in a row rise by
/// less than three quarters of the steepest before, beyond a twentieth of the largest y, and a later one by
/// more than that, the start ends with the two. All where it does not stiffen.
std::size_t beforeStiffening(std::span<const double> x, std::span<const double> y);

struct StraightPart {
    StraightLine line;
    std::size_t first = 0; ///< samples of it, both included
    std::size_t last = 0;
};

/// The steepest straight stretch at the start of a curve, for the toe correction.
///
/// x, y: the curve up to its first maximum, x growing. A window of width at least windowWidth (wider where
/// noise sigmaOfY would make its slope uncertain by more than 1 %) slides over the part below 60 % of the
/// largest y; the steepest one that is straight is taken, joined with its equally steep neighbours.
/// Nothing with fewer than three points or where no window rises. docs/methods.md, section "Toe".
std::optional<StraightPart> steepestStraightPart(std::span<const double> x, std::span<const double> y,
                                                 double windowWidth, double sigmaOfY);

/// The steepest least-squares slope of a stretch over which y rises by at least this much: from each point to
/// the first that is so much higher. Nothing where y never rises so far, or nowhere with x.
std::optional<double> steepestSlopeOverRise(std::span<const double> x, std::span<const double> y,
                                            double rise);

} // namespace inchpeg
