// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/compared_power.h"

#include "core/base/contract.h"
#include "core/base/random.h"
#include "core/stats/critical_table.h"
#include "core/stats/distributions.h"
#include "core/stats/moderated_scatter.h"
#include "core/stats/studentised.h"
#include "core/stats/summary.h"

#include <boost/math/distributions/chi_squared.hpp>
#include <boost/math/tools/roots.hpp>

#include <algorithm>
#include <cmath>
#include <map>
#include <mutex>
#include <numbers>
#include <tuple>

namespace inchpeg
{

namespace
{

constexpr std::size_t kScatterDraws = 512;
constexpr std::uint64_t kScatterSeed = 1979;

std::shared_ptr<const CriticalTable> criticalsOf(Comparison comparison, int groups, double alpha)
{
    const auto others = static_cast<std::size_t>(groups) - 1;
    if (comparison == Comparison::AllPairs)
        return CriticalTable::shared(StudentisedDistribution::sharedRange(others + 1), 1.0 - alpha);
    const std::vector<double> loading(others, std::sqrt(0.5));
    return CriticalTable::shared(comparison == Comparison::GoodEnough
                                     ? StudentisedDistribution::sharedDunnettOneSided(loading)
                                     : StudentisedDistribution::sharedDunnett(loading),
                                 1.0 - alpha);
}

} // namespace

ComparedPower::ComparedPower(Comparison comparison, int groups, int piecesPerGroup, double alpha)
{
    require(groups >= 2 && piecesPerGroup >= 2, "a comparison needs two groups of two");
    const double df = piecesPerGroup - 1.0;
    const auto rails = static_cast<std::size_t>(groups);
    const boost::math::chi_squared_distribution<double> chiSquared(df);
    const auto scatterAt = [&](double share) { return quantile(chiSquared, share) / df; };
    std::vector<double> first;
    std::vector<double> second;
    for (std::size_t i = 0; i < kScatterDraws; ++i) {
        const double place = static_cast<double>(i) + 0.5;
        first.push_back(scatterAt(place / kScatterDraws));
        second.push_back(scatterAt(std::fmod(place / std::numbers::phi, 1.0)));
    }
    Random random(kScatterSeed);
    std::vector<std::vector<double>> drawn(rails, first);
    drawn[1] = second;
    for (std::size_t g = 2; g < rails; ++g)
        random.shuffle(drawn[g]);
    const std::shared_ptr<const CriticalTable> table =
        groups == 2 ? nullptr : criticalsOf(comparison, groups, alpha);
    const double ofRange = comparison == Comparison::AllPairs ? std::numbers::sqrt2 : 1.0;
    const auto critical = [&](double at) {
        return table
                   ? table->at(at) / ofRange
                   : studentQuantile(1.0 - (comparison == Comparison::GoodEnough ? alpha : 0.5 * alpha), at);
    };
    const std::vector<double> dfs(rails, df);
    std::vector<double> variances(rails);
    for (std::size_t i = 0; i < kScatterDraws; ++i) {
        for (std::size_t g = 0; g < rails; ++g)
            variances[g] = drawn[g][i];
        const ModeratedScatters moderated = moderatedScatters(variances, dfs);
        const double a = moderated.variances[0];
        const double b = moderated.variances[1];
        const double own = (a + b) * (a + b) / ((a * a + b * b) / (df + moderated.more_df));
        m_thresholds.push_back(critical(std::min(own, static_cast<double>(groups) * df)) *
                               std::sqrt(0.5 * (a + b)));
    }
}

std::shared_ptr<const ComparedPower> ComparedPower::shared(Comparison comparison, int groups,
                                                           int piecesPerGroup, double alpha)
{
    using Key = std::tuple<Comparison, int, int, double>;
    constexpr std::size_t kMostRemembered = 1000; // 4 kB each
    static std::mutex mutex;
    static std::map<Key, std::shared_ptr<const ComparedPower>> remembered;
    const Key key{comparison, groups, piecesPerGroup, alpha};
    {
        const std::lock_guard lock(mutex);
        if (const auto found = remembered.find(key); found != remembered.end())
            return found->second;
    }
    auto made = std::make_shared<const ComparedPower>(comparison, groups, piecesPerGroup, alpha);
    const std::lock_guard lock(mutex);
    if (remembered.size() >= kMostRemembered)
        remembered.clear();
    remembered.emplace(key, made);
    return made;
}

std::shared_ptr<const ComparedPower> ComparedPower::ofClaims(Comparison family, int groups,
                                                             int piecesPerGroup, double alpha)
{
    return shared(family == Comparison::AllPairs ? family : Comparison::AgainstReference, groups,
                  piecesPerGroup, alpha);
}

double ComparedPower::beyond(double noncentrality) const
{
    double sum = 0.0;
    for (const double threshold : m_thresholds)
        sum += normalUpper(threshold - noncentrality) + normalUpper(threshold + noncentrality);
    return sum / kScatterDraws;
}

double ComparedPower::noncentralityFor(double power) const
{
    const auto missing = [&](double lambda) { return beyond(lambda) - power; };
    double high = usualHalfWidth();
    while (missing(high) < 0.0)
        high *= 2.0;
    std::uintmax_t steps = 100;
    const auto bracket = boost::math::tools::toms748_solve(
        missing, 0.0, high, boost::math::tools::eps_tolerance<double>(30), steps);
    return 0.5 * (bracket.first + bracket.second);
}

double ComparedPower::usualHalfWidth() const
{
    return medianOf(m_thresholds);
}

double ComparedPower::above(double noncentrality) const
{
    double sum = 0.0;
    for (const double threshold : m_thresholds)
        sum += normalUpper(threshold - noncentrality);
    return sum / kScatterDraws;
}

} // namespace inchpeg
