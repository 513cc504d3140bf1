// SPDX-License-Identifier: GPL-3.0-or-later
// With theta = block sd over residual sd the covariance of the values of one block of m is I + theta² 11',
// whose inverse is I - theta²/(1 + m theta²) 11' and whose determinant is 1 + m theta². Everything else is in
// closed form, so that the likelihood is a function of theta alone.
#include "core/stats/blocks.h"

#include "core/stats/linear_model.h"

#include <boost/math/tools/minima.hpp>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

namespace inchpeg
{

namespace
{

constexpr double kLargestTheta = 1e4;
constexpr double kNoBlocks = 1e-4; ///< a smaller theta is none

class Restricted
{
public:
    Restricted(std::span<const BlockedValue> values, Eigen::Index groups, std::size_t blocks)
        : m_n(static_cast<double>(values.size())),
          m_counts(Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(blocks), groups)),
          m_sums(Eigen::VectorXd::Zero(static_cast<Eigen::Index>(blocks))),
          m_groupSums(Eigen::VectorXd::Zero(groups))
    {
        double total = 0.0;
        for (const BlockedValue &one : values)
            total += one.value / m_n;
        m_middle = total; // a large mean costs no digits
        for (const BlockedValue &one : values) {
            const double value = one.value - m_middle;
            m_counts(static_cast<Eigen::Index>(one.block), static_cast<Eigen::Index>(one.group)) += 1.0;
            m_sums[static_cast<Eigen::Index>(one.block)] += value;
            m_groupSums[static_cast<Eigen::Index>(one.group)] += value;
            m_squares += value * value;
        }
    }

    /// -2 ln of the restricted likelihood at its best variance.
    [[nodiscard]] double deviance(double theta) const
    {
        const Solved solved = solve(theta);
        const double free = m_n - static_cast<double>(m_groupSums.size());
        return free * (1.0 + std::log(2.0 * std::numbers::pi * solved.residual / free)) +
               solved.logDeterminants;
    }

    [[nodiscard]] BlockFit at(double theta) const
    {
        const Solved solved = solve(theta);
        const double free = m_n - static_cast<double>(m_groupSums.size());
        BlockFit fit;
        fit.residualSd = std::sqrt(solved.residual / free);
        fit.blockSd = theta * fit.residualSd;
        fit.means = solved.means.array() + m_middle;
        fit.covariance = solved.inverse * (solved.residual / free);
        fit.logLikelihood = -0.5 * deviance(theta);
        return fit;
    }

private:
    struct Solved {
        Eigen::VectorXd means;
        Eigen::MatrixXd inverse; ///< of X'V⁻¹X
        double residual = 0.0;
        double logDeterminants = 0.0;
    };

    [[nodiscard]] Solved solve(double theta) const
    {
        const Eigen::VectorXd sizes = m_counts.rowwise().sum();
        const Eigen::VectorXd shrink = (theta * theta) / (1.0 + theta * theta * sizes.array());
        Eigen::MatrixXd cross = -m_counts.transpose() * shrink.asDiagonal() * m_counts;
        cross.diagonal() += m_counts.colwise().sum().transpose();
        const Eigen::VectorXd right = m_groupSums - m_counts.transpose() * shrink.cwiseProduct(m_sums);
        const Eigen::LDLT<Eigen::MatrixXd> factor(cross);
        Solved solved;
        solved.means = factor.solve(right);
        solved.inverse = factor.solve(Eigen::MatrixXd::Identity(cross.rows(), cross.cols()));
        solved.residual = m_squares - shrink.dot(m_sums.cwiseProduct(m_sums)) - right.dot(solved.means);
        solved.logDeterminants =
            (1.0 + theta * theta * sizes.array()).log().sum() + factor.vectorD().array().log().sum();
        return solved;
    }

    double m_n;
    double m_middle = 0.0;
    double m_squares = 0.0;
    Eigen::MatrixXd m_counts; ///< values of each block and group
    Eigen::VectorXd m_sums;   ///< of the blocks
    Eigen::VectorXd m_groupSums;
};

/// Values that are left for the scatter within blocks.
double dfWithin(std::span<const BlockedValue> values, Eigen::Index groups, std::size_t blocks)
{
    Eigen::MatrixXd design = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(values.size()),
                                                   groups + static_cast<Eigen::Index>(blocks));
    for (std::size_t i = 0; i < values.size(); ++i) {
        design(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(values[i].group)) = 1.0;
        design(static_cast<Eigen::Index>(i), groups + static_cast<Eigen::Index>(values[i].block)) = 1.0;
    }
    return static_cast<double>(values.size()) - LinearModel(design).rank();
}

} // namespace

double BlockFit::differenceError(Eigen::Index a, Eigen::Index b) const
{
    return std::sqrt(covariance(a, a) + covariance(b, b) - 2.0 * covariance(a, b));
}

Result<BlockFit> fitBlocks(std::span<const BlockedValue> values)
{
    std::size_t groups = 0;
    std::size_t blocks = 0;
    for (const BlockedValue &one : values) {
        groups = std::max(groups, one.group + 1);
        blocks = std::max(blocks, one.block + 1);
    }
    std::vector<bool> filled(groups, false);
    for (const BlockedValue &one : values)
        filled[one.group] = true;
    if (groups < 2 || blocks < 2 || values.size() <= groups ||
        std::find(filled.begin(), filled.end(), false) != filled.end())
        return Error{ErrorCode::TooFewPoints,
                     "blocks are taken out of two groups or more over two blocks or more, with more values "
                     "than groups",
                     {}};
    const Restricted restricted(values, static_cast<Eigen::Index>(groups), blocks);
    const double df = dfWithin(values, static_cast<Eigen::Index>(groups), blocks);
    // Over ln theta, in steps: the deviance may have a far valley beside the boundary.
    const auto deviance = [&](double logTheta) { return restricted.deviance(std::exp(logTheta)); };
    double best = std::log(kNoBlocks);
    constexpr double kStep = 0.5;
    for (double at = best; at < std::log(kLargestTheta); at += kStep) {
        if (deviance(at) < deviance(best))
            best = at;
    }
    const auto [logTheta, least] =
        boost::math::tools::brent_find_minima(deviance, best - kStep, best + kStep, 40);
    const bool hasBlocks = least < restricted.deviance(0.0) && std::exp(logTheta) > kNoBlocks;
    BlockFit fit = restricted.at(hasBlocks ? std::exp(logTheta) : 0.0);
    fit.df = df;
    if (!(fit.residualSd > 0.0))
        return Error{ErrorCode::TooFewPoints, "no value scatters within its block: nothing can be told", {}};
    return fit;
}

} // namespace inchpeg
