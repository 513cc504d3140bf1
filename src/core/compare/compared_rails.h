// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"

#include <vector>

namespace inchpeg
{

/// The rails that are compared to both sides, named by their titles; place by place the same rail.
struct ComparedRails {
    std::vector<Group> plain;  ///< the values that count
    std::vector<Group> groups; ///< as the procedure sees them: logarithms where effects are ratios
    std::vector<std::vector<PieceId>> pieces; ///< of these values
    std::vector<const Condition *> conditions;
    std::size_t reference = 0;
    /// Levels of the one factor, where they are different numbers; else empty.
    std::vector<double> levels;

    /// Whether every value is one that the procedure can see: 0 has no logarithm.
    [[nodiscard]] bool isUsable() const;
};

/// Points into the study, which must outlive it.
ComparedRails comparedRails(const Study &study, const StudyComparison &comparison);

} // namespace inchpeg
