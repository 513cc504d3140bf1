// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/decide/evidence.h"
#include "core/text/notation.h"

#include <map>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// What all other studies gave for a polymer in a test.
struct OwnAverage {
    std::string_view polymer; ///< generic name
    Orientation orientation = Orientation::Flat;
    std::size_t pieces = 0;
    std::size_t rails = 0;
    std::size_t studies = 0;
    double mean = 0.0;       ///< of the pieces
    double sd = 0.0;         ///< of the pieces, rails and studies mixed; 0 of a single piece
    bool hasLibrary = false; ///< results of the library are among them
    bool operator==(const OwnAverage &) const = default;
};

/// Of the polymers and orientations that the study has rails of. Values with bounds among them are left out,
/// as are polymers that the program does not know by name, and properties that have no mean.
std::vector<OwnAverage> ownAverages(const Study &study, Method test, const Property &property,
                                    std::span<const StudyResults> others);

/// The average beside which each rail stands; rails of a polymer without one have none.
std::map<ConditionId, OwnAverage> averageOfRails(const Study &study, const std::vector<OwnAverage> &averages);

/// "glycol-modified polyester, flat, in all other studies: 46.9 MPa (10 pieces of 2 rails in 2 studies,
/// scatter 2.0 MPa); here 45.0 MPa, 4 % below it." One sentence for each.
std::vector<std::string> ownAverageSentences(const Study &study, const StudyComparison &comparison,
                                             Method test, std::span<const StudyResults> others,
                                             const Notation &notation);

} // namespace inchpeg
