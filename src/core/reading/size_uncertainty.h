// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"
#include "core/model/workshop.h"

#include <optional>

namespace inchpeg
{

/// What callipers read on a piece; a section that was typed before there were readings stands as one of each.
SizeReadings sizeReadings(const Piece &piece);

/// The callipers that a piece was measured with, else those of the study's rule, by their card of today;
/// nothing where there is none.
const GaugeCard *calliperOf(const Study &study, const Piece &piece, const Workshop &workshop);

/// How surely the sizes of a section are known: standard uncertainties.
struct SizeUncertainty {
    double shared_mm = 0.0; ///< the callipers' own error, the same in all readings
    /// Of each size: the scatter of its readings (s/√n) and the callipers' steps; nothing where the section
    /// does not have it.
    std::optional<double> width_mm;
    std::optional<double> thickness_mm;
    std::optional<double> diameter_mm;
    bool operator==(const SizeUncertainty &) const = default;
};

/// Of a piece's section. calliper: usual ones where nobody named any and a size was read more than once;
/// nothing where it was read once only, without a measured section of sizes. Source: JCGM 100:2008 (GUM),
/// 4.2.3, 4.3.7, F.2.2.1.
std::optional<SizeUncertainty> sizeUncertainty(const Piece &piece, const GaugeCard *calliper);

/// The area of a section and how surely it is known.
struct AreaUncertainty {
    double area_mm2 = 0.0;
    double standard_mm2 = 0.0; ///< combined standard uncertainty
    [[nodiscard]] double expandedShare() const { return 2.0 * standard_mm2 / area_mm2; } ///< k = 2
};

/// Area of a piece's section with its uncertainty, from sizeUncertainty(): what the sizes share adds
/// linearly, the rest in squares. Source: JCGM 100:2008 (GUM), 5.1.2, 5.2.2 with note 1.
std::optional<AreaUncertainty> areaUncertainty(const Piece &piece, const GaugeCard *calliper);

} // namespace inchpeg
