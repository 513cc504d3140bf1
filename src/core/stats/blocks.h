// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <Eigen/Dense>

#include <span>

namespace inchpeg
{

/// A value with its group (a condition) and its block (a plate, a day, a person), both counted from 0.
struct BlockedValue {
    double value = 0.0;
    std::size_t group = 0;
    std::size_t block = 0;
};

/// Groups as fixed effects, blocks as random ones.
struct BlockFit {
    Eigen::VectorXd means;      ///< of the groups
    Eigen::MatrixXd covariance; ///< of these means
    double blockSd = 0.0;       ///< between blocks; 0 where they differ no more than their values do
    double residualSd = 0.0;    ///< within a block and group
    double logLikelihood = 0.0; ///< restricted
    double df = 0.0; ///< of the values within blocks: n less the rank of groups and blocks together

    [[nodiscard]] double difference(Eigen::Index a, Eigen::Index b) const { return means[b] - means[a]; }
    [[nodiscard]] double differenceError(Eigen::Index a, Eigen::Index b) const;
};

/// Restricted maximum likelihood (Patterson & Thompson 1971, Biometrika 58, 545; profiled as Bates et al.
/// 2015, J. Stat. Softw. 67(1), section 3). Unequal and missing combinations are allowed; a group that is in
/// one block alone is compared through it. Errors: TooFewPoints with fewer than two blocks or groups, an
/// empty group, or no value more than groups.
Result<BlockFit> fitBlocks(std::span<const BlockedValue> values);

} // namespace inchpeg
