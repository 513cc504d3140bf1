// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/power.h"

#include "core/stats/compared_power.h"
#include "core/stats/distributions.h"
#include "core/stats/studentised.h"

#include <boost/math/tools/roots.hpp>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <numbers>
#include <string_view>
#include <vector>

namespace inchpeg
{

namespace
{

constexpr std::pair<Comparison, const char *> kNames[] = {
    {Comparison::TwoGroups, "t"},           {Comparison::AgainstReference, "reference"},
    {Comparison::AllPairs, "pairs"},        {Comparison::AnyDifference, "anova"},
    {Comparison::Trend, "trend"},           {Comparison::BeforeAfter, "paired"},
    {Comparison::GoodEnough, "good-enough"}};

double degreesOfFreedom(Comparison comparison, int groups, int n)
{
    const int all = groups * n;
    if (comparison == Comparison::BeforeAfter)
        return n - 1.0;
    return static_cast<double>(comparison == Comparison::Trend ? all - 2 : all - groups);
}

/// For a straight line over levels with n values each that climbs by one over its whole range: the root of
/// the sum of squares of the levels about their mean, over that range. Over k equally spaced levels the sum
/// is n k (k + 1) / (12 (k - 1)).
double trendFactor(const PowerQuestion &question, int n)
{
    const auto k = static_cast<double>(question.groups);
    if (question.positions.empty())
        return std::sqrt(static_cast<double>(n) * k * (k + 1.0) / (12.0 * (k - 1.0)));
    const auto [least, most] = std::minmax_element(question.positions.begin(), question.positions.end());
    double mean = 0.0;
    for (const double x : question.positions)
        mean += x / k;
    double squares = 0.0;
    for (const double x : question.positions)
        squares += (x - mean) * (x - mean);
    return std::sqrt(static_cast<double>(n) * squares) / (*most - *least);
}

double noncentrality(const PowerQuestion &question, int n)
{
    const double d = question.difference_sd;
    const auto pieces = static_cast<double>(n);
    switch (question.comparison) {
    case Comparison::AnyDifference:
        return 0.5 * pieces * d * d;
    case Comparison::Trend:
        return d * trendFactor(question, n);
    default:
        return d * std::sqrt(0.5 * pieces);
    }
}

Status check(const PowerQuestion &question)
{
    if (!(question.difference_sd > 0.0) || !std::isfinite(question.difference_sd))
        return invalidArgument("the difference must be above zero, and so must the scatter");
    if (!(question.alpha > 0.0 && question.alpha < 1.0))
        return invalidArgument(fmt::format("alpha is {}; it must lie between 0 and 1", question.alpha));
    if (question.groups < 2)
        return invalidArgument(fmt::format("{} groups; two at least are compared", question.groups));
    if (question.comparison == Comparison::Trend && !question.positions.empty()) {
        const auto [least, most] = std::minmax_element(question.positions.begin(), question.positions.end());
        if (question.positions.size() != static_cast<std::size_t>(question.groups) || !(*most > *least))
            return invalidArgument("a trend needs a number for the level of each rail, and two that differ");
    }
    if (question.comparison == Comparison::TwoGroups && question.groups != 2)
        return invalidArgument("the t test compares two groups; choose reference, pairs or anova for more");
    return ok();
}

/// Both limits must hold; that they fail together only where the interval is wider than both margins makes
/// this the least that it can be (Bonferroni).
double withinMargins(const PowerQuestion &question, double oneSide)
{
    return question.isBothSides ? std::max(0.0, 2.0 * oneSide - 1.0) : oneSide;
}

/// Chances with so many pieces a group, whatever the difference.
class PlannedChances
{
public:
    PlannedChances(const PowerQuestion &question, int n)
        : m_n(n), m_df(degreesOfFreedom(question.comparison, question.groups, n))
    {
        const bool isOfMeans = question.comparison == Comparison::TwoGroups ||
                               question.comparison == Comparison::AgainstReference ||
                               question.comparison == Comparison::AllPairs ||
                               question.comparison == Comparison::GoodEnough;
        if (question.isOwnScatter && isOfMeans)
            m_own = ComparedPower::shared(question.comparison, question.groups, n, question.alpha);
        else
            m_critical = criticalValue(question.comparison, question.groups, n, question.alpha);
    }

    [[nodiscard]] double power(const PowerQuestion &question) const
    {
        const double lambda = noncentrality(question, m_n);
        switch (question.comparison) {
        case Comparison::AnyDifference:
            return noncentralFisherUpper(m_critical, question.groups - 1.0, m_df, lambda);
        case Comparison::GoodEnough:
            return withinMargins(question, m_own ? m_own->above(lambda)
                                                 : 1.0 - noncentralStudentCdf(m_critical, m_df, lambda));
        default:
            return m_own ? m_own->beyond(lambda) : noncentralStudentBeyond(m_critical, m_df, lambda);
        }
    }

private:
    int m_n;
    double m_df;
    double m_critical = 0.0;
    std::shared_ptr<const ComparedPower> m_own;
};

} // namespace

const char *comparisonName(Comparison comparison)
{
    for (const auto &[known, name] : kNames) {
        if (known == comparison)
            return name;
    }
    throw ContractViolation("unknown comparison");
}

std::optional<Comparison> comparisonFrom(const char *name)
{
    for (const auto &[comparison, known] : kNames) {
        if (std::string_view(known) == name)
            return comparison;
    }
    return std::nullopt;
}

double criticalValue(Comparison comparison, int groups, int piecesPerGroup, double alpha)
{
    const double df = degreesOfFreedom(comparison, groups, piecesPerGroup);
    require(df > 0.0 && alpha > 0.0 && alpha < 1.0, "a critical value needs degrees of freedom and an alpha");
    switch (comparison) {
    case Comparison::AgainstReference: {
        if (groups == 2)
            break;
        const std::vector<double> loading(static_cast<std::size_t>(groups - 1), std::sqrt(0.5));
        return StudentisedDistribution::sharedDunnett(loading)->quantile(1.0 - alpha, df);
    }
    case Comparison::AllPairs:
        if (groups == 2)
            break;
        return StudentisedDistribution::sharedRange(static_cast<std::size_t>(groups))
                   ->quantile(1.0 - alpha, df) /
               std::numbers::sqrt2;
    case Comparison::AnyDifference:
        return fisherQuantileUpper(alpha, groups - 1.0, df);
    case Comparison::BeforeAfter:
        return studentQuantile(1.0 - 0.5 * alpha / (groups - 1), df);
    case Comparison::GoodEnough: {
        if (groups == 2)
            return studentQuantile(1.0 - alpha, df);
        const std::vector<double> loading(static_cast<std::size_t>(groups - 1), std::sqrt(0.5));
        return StudentisedDistribution::sharedDunnettOneSided(loading)->quantile(1.0 - alpha, df);
    }
    default:
        break;
    }
    return studentQuantile(1.0 - 0.5 * alpha, df);
}

Result<Power> powerOf(const PowerQuestion &question, int piecesPerGroup)
{
    if (const Status status = check(question); !status)
        return status.error();
    if (piecesPerGroup < 2)
        return invalidArgument(
            fmt::format("{} pieces a group show no scatter; two at least are needed", piecesPerGroup));
    if (piecesPerGroup > kMostPiecesPlanned)
        return invalidArgument(
            fmt::format("{} pieces a group; {} at most", piecesPerGroup, kMostPiecesPlanned));
    return Power{piecesPerGroup, PlannedChances(question, piecesPerGroup).power(question),
                 noncentrality(question, piecesPerGroup)};
}

Result<Power> piecesFor(const PowerQuestion &question, double power)
{
    if (!(power > question.alpha && power < 1.0))
        return invalidArgument(
            fmt::format("power is {}; it must lie between alpha, {}, and 1", power, question.alpha));
    // Power grows with n: double until it is enough, then halve the gap.
    int low = 1;
    int high = 2;
    while (true) {
        const Result<Power> found = powerOf(question, high);
        if (!found)
            return found.error();
        if (found->power >= power)
            break;
        low = high;
        if (high == kMostPiecesPlanned)
            return invalidArgument(fmt::format(
                "a difference of {:.4g} standard deviations would need more than {} pieces a group",
                question.difference_sd, kMostPiecesPlanned));
        high = std::min(2 * high, kMostPiecesPlanned);
    }
    while (high - low > 1) {
        const int middle = low + (high - low) / 2;
        const Result<Power> found = powerOf(question, middle);
        if (!found)
            return found.error();
        (found->power >= power ? high : low) = middle;
    }
    return powerOf(question, high);
}

Result<double> visibleDifference_sd(const PowerQuestion &asked, int piecesPerGroup, double power)
{
    PowerQuestion question = asked;
    question.difference_sd = 1.0;
    if (const Result<Power> possible = powerOf(question, piecesPerGroup); !possible)
        return possible.error();
    if (!(power > question.alpha && power < 1.0))
        return invalidArgument(
            fmt::format("power is {}; it must lie between alpha, {}, and 1", power, question.alpha));
    const PlannedChances chances(question, piecesPerGroup);
    const auto missing = [&](double difference_sd) {
        question.difference_sd = difference_sd;
        return chances.power(question) - power;
    };
    double high = 1.0;
    while (missing(high) < 0.0)
        high *= 2.0;
    std::uintmax_t steps = 100;
    const auto bracket = boost::math::tools::toms748_solve(
        missing, 1e-9, high, boost::math::tools::eps_tolerance<double>(40), steps);
    return 0.5 * (bracket.first + bracket.second);
}

} // namespace inchpeg
