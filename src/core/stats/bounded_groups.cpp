// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/bounded_groups.h"

#include "core/base/contract.h"
#include "core/stats/distributions.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

/// The values on the scale that scatters, of the groups that have a value beside bounds.
Result<std::vector<BoundedObservation>> observationsOf(std::span<const BoundedGroup> groups, ScatterLaw law,
                                                       std::vector<bool> &isThere)
{
    std::vector<BoundedObservation> observations;
    Eigen::Index next = 0;
    for (const BoundedGroup &group : groups) {
        isThere.push_back(std::any_of(group.values.begin(), group.values.end(),
                                      [](const BoundedValue &value) { return !value.isLowerBound; }));
        if (!isThere.back())
            continue;
        for (const BoundedValue &value : group.values) {
            const Result<double> y = onScatterScale(value.value, law);
            if (!y)
                return y.error();
            observations.push_back({*y, value.isLowerBound, {{next, 1.0}}});
        }
        ++next;
    }
    return observations;
}

} // namespace

Eigen::Index BoundedFit::placeOf(std::size_t group) const
{
    require(group < location.size() && location[group], "this group has no location");
    return std::count_if(location.begin(), location.begin() + static_cast<std::ptrdiff_t>(group),
                         [](const std::optional<double> &one) { return one.has_value(); });
}

double BoundedFit::standardError(std::size_t group) const
{
    const Eigen::Index i = placeOf(group);
    return std::sqrt(covariance(i, i));
}

double BoundedFit::difference(std::size_t a, std::size_t b) const
{
    return location.at(b).value() - location.at(a).value();
}

double BoundedFit::differenceError(std::size_t a, std::size_t b) const
{
    const Eigen::Index i = placeOf(a);
    const Eigen::Index j = placeOf(b);
    return std::sqrt(covariance(i, i) + covariance(j, j) - 2.0 * covariance(i, j));
}

Result<BoundedFit> fitBoundedGroups(std::span<const BoundedGroup> groups, ScatterLaw law)
{
    std::vector<bool> isThere;
    const Result<std::vector<BoundedObservation>> observations = observationsOf(groups, law, isThere);
    if (!observations)
        return observations.error();
    const Result<BoundedMaximum> maximum =
        maximiseBounded(*observations, std::count(isThere.begin(), isThere.end(), true), law);
    if (!maximum)
        return maximum.error();
    BoundedFit fit;
    fit.values = observations->size();
    fit.scale = maximum->scale;
    fit.covariance = maximum->covariance;
    fit.logLikelihood = maximum->logLikelihood;
    for (const BoundedObservation &one : *observations) {
        fit.broken += one.isBound ? 0U : 1U;
        fit.logLikelihood -= law != ScatterLaw::Normal && !one.isBound ? one.y : 0.0;
    }
    Eigen::Index next = 0;
    for (const bool there : isThere)
        fit.location.push_back(there ? std::optional(maximum->coefficients[next++]) : std::nullopt);
    return fit;
}

Result<std::optional<LikelihoodRatio>> testBoundedGroups(std::span<const BoundedGroup> groups, ScatterLaw law)
{
    const Result<BoundedFit> each = fitBoundedGroups(groups, law);
    if (!each)
        return each.error();
    BoundedGroup all;
    std::size_t there = 0;
    for (std::size_t g = 0; g < groups.size(); ++g) {
        if (!each->location[g])
            continue;
        ++there;
        all.values.insert(all.values.end(), groups[g].values.begin(), groups[g].values.end());
    }
    if (there < 2)
        return std::optional<LikelihoodRatio>();
    const Result<BoundedFit> one = fitBoundedGroups(std::span(&all, 1), law);
    if (!one)
        return one.error();
    LikelihoodRatio test;
    test.chi2 = std::max(0.0, 2.0 * (each->logLikelihood - one->logLikelihood));
    test.df = static_cast<double>(there) - 1.0;
    test.p = chiSquaredUpper(test.chi2, test.df);
    return std::optional(test);
}

} // namespace inchpeg
