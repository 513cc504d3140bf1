// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"
#include "core/reading/piece_reading.h"
#include "core/stats/staircase.h"
#include "core/text/notation.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// Strains of one material at the same time under several stresses.
struct Isochrone {
    struct Point {
        double stress_MPa = 0.0;
        double strain = 0.0; ///< mean of the pieces
        std::size_t pieces = 0;
    };
    std::string material;
    double time_h = 0.0;
    std::vector<Point> points; ///< in order of stress, two or more
};

/// Of the creep records of a study, at 1 h, 10 h, 24 h, 120 h and 1,000 h where all stresses of a material
/// were read beyond it; strains are interpolated linearly between readings. Stresses within 1 % are one.
/// Left-out pieces do not count. Source: ISO 899-1:2017, 8.5 (isochronous curves; clause from memory).
std::vector<Isochrone> isochrones(const Study &study, const PieceReadings &readings);

/// The drops of a rail whose pieces were struck once each, up and down; empty where any was struck more
/// often.
std::vector<StaircaseTrial> upAndDownOf(const Study &study, const PieceReadings &readings,
                                        ConditionId condition);

/// What the rails of a test say together that no single piece does, a sentence each: of creep under several
/// stresses the isochrones, of falling weights the energy that half of the pieces bear.
std::vector<std::string> methodAnswers(const Study &study, const PieceReadings &readings, Method test,
                                       const Notation &notation);

} // namespace inchpeg
