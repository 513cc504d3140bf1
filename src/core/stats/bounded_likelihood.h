// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <Eigen/Dense>

#include <vector>

namespace inchpeg
{

/// How values scatter around their location; of the last two it is their logarithms that do.
enum class ScatterLaw { Normal, LogNormal, Weibull };

/// A part of a location: so much of one of the coefficients.
struct LocationWeight {
    Eigen::Index coefficient = 0;
    double weight = 1.0;
};

struct BoundedObservation {
    double y = 0.0; ///< on the scale that scatters
    bool isBound = false;
    std::vector<LocationWeight> row; ///< its location is the sum of these
};

struct BoundedMaximum {
    Eigen::VectorXd coefficients;
    Eigen::MatrixXd covariance; ///< of the coefficients, from the observed information
    double scale = 0.0;         ///< sd on the scale that scatters; of Weibull's law 1/shape
    double logLikelihood = 0.0; ///< of the observations as they stand, logarithms where they scatter
};

/// Maximum likelihood of locations that are linear in coefficients, with one scale. Source: Lawless (1982),
/// Statistical Models and Methods for Lifetime Data, chapter 6; docs/methods.md, "Groups with bounds".
/// Errors: TooFewPoints where the likelihood has no maximum: fewer than two values that are no bounds, or
/// nothing that varies.
Result<BoundedMaximum> maximiseBounded(std::vector<BoundedObservation> observations,
                                       Eigen::Index coefficients, ScatterLaw law);

/// The value, or its logarithm where that scatters. Errors: BadInput for one that has none.
Result<double> onScatterScale(double value, ScatterLaw law);

} // namespace inchpeg
