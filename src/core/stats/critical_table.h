// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/over_df.h"

#include <map>
#include <memory>
#include <mutex>

namespace inchpeg
{

class StudentisedDistribution;

/// The quantile of a family at any degrees of freedom: where each comparison has its own, studies and
/// simulations ask for thousands. Worked out over stretches of them as they are asked for, and interpolated:
/// right to 1e-6 relative (docs/validation.md). From any thread.
class CriticalTable
{
public:
    CriticalTable(std::shared_ptr<const StudentisedDistribution> family, double confidence);

    /// The same, made once and remembered.
    static std::shared_ptr<const CriticalTable> shared(std::shared_ptr<const StudentisedDistribution> family,
                                                       double confidence);

    /// df: above 0.
    [[nodiscard]] double at(double df) const;

private:
    std::shared_ptr<const StudentisedDistribution> m_family;
    double m_confidence;
    mutable std::mutex m_mutex;
    mutable std::map<int, OverDegreesOfFreedom> m_stretches; ///< by the power of 4 that they begin at
};

} // namespace inchpeg
