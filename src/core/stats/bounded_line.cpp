// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/bounded_line.h"

#include "core/base/contract.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

Result<BoundedLine> fitBoundedLine(std::span<const double> x, std::span<const BoundedValue> values,
                                   ScatterLaw law)
{
    require(x.size() == values.size() && !x.empty(), "fitBoundedLine() needs as many x as values");
    const auto [least, most] = std::minmax_element(x.begin(), x.end());
    const double centre = 0.5 * *least + 0.5 * *most;
    const double half = 0.5 * *most - 0.5 * *least;
    if (!(half > 0.0))
        return Error{ErrorCode::TooFewPoints, "x is constant; two different values are wanted", {}};
    std::vector<BoundedObservation> observations;
    BoundedLine line;
    double logarithms = 0.0;
    for (std::size_t i = 0; i < x.size(); ++i) {
        const Result<double> y = onScatterScale(values[i].value, law);
        if (!y)
            return y.error();
        const bool isBound = values[i].isLowerBound;
        observations.push_back({*y, isBound, {{0, 1.0}, {1, (x[i] - centre) / half}}});
        line.broken += isBound ? 0U : 1U;
        logarithms += law != ScatterLaw::Normal && !isBound ? *y : 0.0;
    }
    const Result<BoundedMaximum> maximum = maximiseBounded(std::move(observations), 2, law);
    if (!maximum)
        return maximum.error();
    const double away = centre / half;
    const Eigen::MatrixXd &covariance = maximum->covariance;
    line.slope = maximum->coefficients[1] / half;
    line.intercept = maximum->coefficients[0] - away * maximum->coefficients[1];
    line.slopeError = std::sqrt(covariance(1, 1)) / half;
    line.interceptError =
        std::sqrt(covariance(0, 0) + away * away * covariance(1, 1) - 2.0 * away * covariance(0, 1));
    line.scale = maximum->scale;
    line.logLikelihood = maximum->logLikelihood - logarithms;
    return line;
}

} // namespace inchpeg
