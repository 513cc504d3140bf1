// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/orders.h"

#include "core/base/contract.h"
#include "core/stats/distributions.h"
#include "core/stats/ranks.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>

namespace inchpeg
{

namespace
{

/// Sums over runs of ties of m: what they take from the variance of the count.
struct TieSums {
    double pairs = 0.0;   ///< Σ m (m - 1)
    double triples = 0.0; ///< Σ m (m - 1) (m - 2)
    double spread = 0.0;  ///< Σ m (m - 1) (2m + 5)
};

TieSums tiesIn(std::span<const double> values)
{
    std::map<double, double> counts;
    for (const double value : values)
        counts[value] += 1.0;
    TieSums sums;
    for (const auto &[value, m] : counts) {
        sums.pairs += m * (m - 1.0);
        sums.triples += m * (m - 1.0) * (m - 2.0);
        sums.spread += m * (m - 1.0) * (2.0 * m + 5.0);
    }
    return sums;
}

int signOf(double x)
{
    return (x > 0.0 ? 1 : 0) - (x < 0.0 ? 1 : 0);
}

/// Every thing can be reached from every other by wins.
bool isConnected(const std::vector<std::vector<double>> &wins)
{
    const std::size_t n = wins.size();
    const auto reached = [&](bool byWins) {
        std::vector<bool> seen(n, false);
        std::vector<std::size_t> open{0};
        seen[0] = true;
        while (!open.empty()) {
            const std::size_t i = open.back();
            open.pop_back();
            for (std::size_t j = 0; j < n; ++j) {
                if (!seen[j] && (byWins ? wins[i][j] : wins[j][i]) > 0.0) {
                    seen[j] = true;
                    open.push_back(j);
                }
            }
        }
        return std::find(seen.begin(), seen.end(), false) == seen.end();
    };
    return reached(true) && reached(false);
}

double logChance(double difference)
{
    return -std::log1p(std::exp(-difference));
}

} // namespace

std::optional<OrderedTrend> orderedTrend(std::span<const double> level, std::span<const double> value)
{
    require(level.size() == value.size(), "orderedTrend(): columns of different lengths");
    const auto n = static_cast<double>(level.size());
    double s = 0.0;
    for (std::size_t i = 0; i < level.size(); ++i) {
        for (std::size_t j = 0; j < i; ++j)
            s += signOf(level[i] - level[j]) * signOf(value[i] - value[j]);
    }
    const TieSums a = tiesIn(level);
    const TieSums b = tiesIn(value);
    const double pairs = n * (n - 1.0);
    if (!(a.pairs < pairs) || !(b.pairs < pairs))
        return std::nullopt;
    double variance =
        (pairs * (2.0 * n + 5.0) - a.spread - b.spread) / 18.0 + a.pairs * b.pairs / (2.0 * pairs);
    if (n > 2.0)
        variance += a.triples * b.triples / (9.0 * pairs * (n - 2.0));
    OrderedTrend trend;
    trend.z = s / std::sqrt(variance);
    trend.p = 2.0 * normalUpper(std::abs(trend.z));
    trend.tau = 2.0 * s / std::sqrt((pairs - a.pairs) * (pairs - b.pairs));
    return trend;
}

Result<Agreement> agreementOf(const std::vector<std::vector<double>> &grades)
{
    const std::size_t things = grades.empty() ? 0 : grades.front().size();
    if (grades.size() < 2 || things < 2)
        return Error{ErrorCode::TooFewPoints, "two judges or more, and two things or more, are wanted", {}};
    const auto m = static_cast<double>(grades.size());
    const auto k = static_cast<double>(things);
    std::vector<double> sums(things, 0.0);
    double ties = 0.0;
    for (const std::vector<double> &judge : grades) {
        require(judge.size() == things, "a grade from each judge for each thing");
        const Ranks ranks = ranksOf(judge);
        for (std::size_t i = 0; i < things; ++i)
            sums[i] += ranks.ranks[i];
        ties += ranks.tieSum;
    }
    double squares = 0.0;
    for (const double sum : sums)
        squares += (sum - 0.5 * m * (k + 1.0)) * (sum - 0.5 * m * (k + 1.0));
    const double most = (m * m * (k * k * k - k) - m * ties) / 12.0;
    if (!(most > 0.0))
        return Error{ErrorCode::TooFewPoints, "no judge tells any two things apart", {}};
    Agreement agreement;
    agreement.W = squares / most;
    agreement.df = k - 1.0;
    agreement.chi2 = m * agreement.df * agreement.W;
    agreement.p = chiSquaredUpper(agreement.chi2, agreement.df);
    return agreement;
}

Result<ChoiceFit> fitChoices(const std::vector<std::vector<double>> &wins)
{
    const std::size_t n = wins.size();
    if (n < 2 || !isConnected(wins))
        return Error{
            ErrorCode::TooFewPoints,
            "the strengths have no maximum: some things never lost, or never won, against the others; "
            "more choices between neighbours are wanted",
            {}};
    const auto size = static_cast<Eigen::Index>(n);
    Eigen::VectorXd strength = Eigen::VectorXd::Zero(size);
    Eigen::MatrixXd information;
    constexpr int kMostSteps = 100;
    for (int step = 0; step < kMostSteps; ++step) {
        Eigen::VectorXd gradient = Eigen::VectorXd::Zero(size);
        information = Eigen::MatrixXd::Zero(size, size);
        for (Eigen::Index i = 0; i < size; ++i) {
            for (Eigen::Index j = 0; j < size; ++j) {
                const double met = wins[static_cast<std::size_t>(i)][static_cast<std::size_t>(j)] +
                                   wins[static_cast<std::size_t>(j)][static_cast<std::size_t>(i)];
                if (i == j || met == 0.0)
                    continue;
                const double chance = 1.0 / (1.0 + std::exp(strength[j] - strength[i]));
                gradient[i] += wins[static_cast<std::size_t>(i)][static_cast<std::size_t>(j)] - met * chance;
                information(i, i) += met * chance * (1.0 - chance);
                information(i, j) -= met * chance * (1.0 - chance);
            }
        }
        const Eigen::VectorXd move =
            information.bottomRightCorner(size - 1, size - 1).ldlt().solve(gradient.tail(size - 1));
        const double longest = std::max(1.0, 0.5 * move.cwiseAbs().maxCoeff());
        strength.tail(size - 1) += move / longest;
        if (move.cwiseAbs().maxCoeff() < 1e-13)
            break;
    }
    const Eigen::MatrixXd covariance = information.bottomRightCorner(size - 1, size - 1).inverse();
    ChoiceFit fit;
    for (Eigen::Index i = 0; i < size; ++i) {
        fit.strength.push_back(strength[i]);
        fit.standardError.push_back(i == 0 ? 0.0 : std::sqrt(covariance(i - 1, i - 1)));
        for (Eigen::Index j = 0; j < size; ++j) {
            const double won = wins[static_cast<std::size_t>(i)][static_cast<std::size_t>(j)];
            fit.chi2 += 2.0 * won * (logChance(strength[i] - strength[j]) - std::log(0.5));
        }
    }
    fit.df = static_cast<double>(n) - 1.0;
    fit.p = chiSquaredUpper(std::max(0.0, fit.chi2), fit.df);
    return fit;
}

std::vector<double> falseDiscoveryAdjusted(std::span<const double> p, bool anyDependence)
{
    std::vector<std::size_t> order(p.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return p[a] > p[b]; });
    const auto m = static_cast<double>(p.size());
    double harmonic = 0.0;
    for (std::size_t i = 1; i <= p.size(); ++i)
        harmonic += 1.0 / static_cast<double>(i);
    std::vector<double> adjusted(p.size());
    double least = 1.0;
    for (std::size_t i = 0; i < order.size(); ++i) {
        const double rank = m - static_cast<double>(i);
        least = std::min(least, (anyDependence ? harmonic : 1.0) * m / rank * p[order[i]]);
        adjusted[order[i]] = least;
    }
    return adjusted;
}

} // namespace inchpeg
