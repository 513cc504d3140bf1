// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <Eigen/Dense>

namespace inchpeg
{

/// Least squares by a rank-revealing QR decomposition. Columns that follow from the others add nothing to the
/// rank, so that missing combinations of levels cost degrees of freedom and no more.
class LinearModel
{
public:
    /// design: a row a value, a column a coefficient; at least one of each.
    explicit LinearModel(const Eigen::MatrixXd &design);

    [[nodiscard]] int rank() const { return static_cast<int>(m_decomposition.rank()); }
    /// The values that the model gives for y: its projection.
    [[nodiscard]] Eigen::VectorXd fitted(const Eigen::VectorXd &y) const;
    /// Needs full rank.
    [[nodiscard]] Eigen::VectorXd coefficients(const Eigen::VectorXd &y) const;
    /// (X'X)⁻¹: times the residual variance, the covariance of the coefficients. Needs full rank.
    [[nodiscard]] Eigen::MatrixXd unscaledCovariance() const;

private:
    Eigen::ColPivHouseholderQR<Eigen::MatrixXd> m_decomposition;
};

/// Sum of squares that the larger model explains of what the smaller leaves over, and its degrees of freedom.
/// Taken from the residuals, so that a large mean costs no digits. smaller: its columns lie within larger's.
struct AddedSquares {
    double squares = 0.0;
    int df = 0;
};
AddedSquares addedSquares(const LinearModel &smaller, const LinearModel &larger, const Eigen::VectorXd &y);

} // namespace inchpeg
