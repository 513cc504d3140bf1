// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/linear_model.h"

#include "core/base/contract.h"

namespace inchpeg
{

namespace
{

/// Of a pivot against the largest one: below, a column counts as following from the others.
constexpr double kRankThreshold = 1e-10;

} // namespace

LinearModel::LinearModel(const Eigen::MatrixXd &design)
{
    require(design.rows() > 0 && design.cols() > 0, "a linear model needs values and coefficients");
    m_decomposition.setThreshold(kRankThreshold);
    m_decomposition.compute(design);
}

Eigen::VectorXd LinearModel::fitted(const Eigen::VectorXd &y) const
{
    Eigen::VectorXd rotated = m_decomposition.householderQ().adjoint() * y;
    rotated.tail(rotated.size() - m_decomposition.rank()).setZero();
    return m_decomposition.householderQ() * rotated;
}

Eigen::VectorXd LinearModel::coefficients(const Eigen::VectorXd &y) const
{
    return m_decomposition.solve(y);
}

Eigen::MatrixXd LinearModel::unscaledCovariance() const
{
    const Eigen::Index k = m_decomposition.cols();
    require(m_decomposition.rank() == k, "the covariance needs a model of full rank");
    const Eigen::MatrixXd inverse =
        m_decomposition.matrixR().topLeftCorner(k, k).triangularView<Eigen::Upper>().solve(
            Eigen::MatrixXd::Identity(k, k));
    const Eigen::MatrixXd pivoted = inverse * inverse.transpose();
    const auto &order = m_decomposition.colsPermutation();
    return order * pivoted * order.transpose();
}

AddedSquares addedSquares(const LinearModel &smaller, const LinearModel &larger, const Eigen::VectorXd &y)
{
    const Eigen::VectorXd left = y - smaller.fitted(y);
    return {larger.fitted(left).squaredNorm(), larger.rank() - smaller.rank()};
}

} // namespace inchpeg
