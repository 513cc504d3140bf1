// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/stats/summary.h"

#include <optional>
#include <span>

namespace inchpeg
{

/// What one study found of the same difference (of means, or of their logarithms).
struct StudyEstimate {
    double value = 0.0;
    double standardError = 0.0; ///< above 0
};

/// Several studies together: each has its own truth, and these scatter between machines, lots and days.
struct PooledEstimate {
    std::size_t studies = 0;
    double value = 0.0;         ///< mean of the truths
    double standardError = 0.0; ///< by Hartung and Knapp, at least that of the weights alone
    Interval ci;                ///< of the mean, Student's t
    double between = 0.0;       ///< sd of the truths
    double q = 0.0;             ///< Cochran's, of equal truths
    double qP = 1.0;
    std::optional<Interval> next; ///< where a further study's truth lies; nothing with fewer than three
};

/// Random effects with known errors; the scatter between studies by restricted maximum likelihood. Sources:
/// Hartung & Knapp 2001, Stat. Med. 20, 3875, with the floor of Röver et al. 2015, BMC Med. Res. Methodol.
/// 15:99; prediction: Higgins, Thompson & Spiegelhalter 2009, J. R. Stat. Soc. A 172, 137.
/// Errors: TooFewPoints with fewer than two studies; InvalidArgument for an error that is not above 0.
Result<PooledEstimate> poolStudies(std::span<const StudyEstimate> studies, double confidence = 0.95);

} // namespace inchpeg
