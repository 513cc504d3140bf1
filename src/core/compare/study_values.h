// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/compare/comparison.h"

#include <map>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace inchpeg
{

/// What the pieces of a rail that count came to; bounds taken at face value.
struct RailValues {
    ConditionId condition;
    std::size_t n = 0;
    double mean = 0.0;        ///< working unit of the property
    std::optional<double> sd; ///< of single pieces, where there are two
    std::size_t bounds = 0;   ///< how many of them are "at least"
    bool operator==(const RailValues &) const = default;
};

/// What a study gave, rail by rail, for every property that has a mean: all that is needed of a study that
/// others are held beside. Small enough to be kept, so that nobody has to look at its pieces again.
struct StudyValues {
    std::map<std::pair<Method, std::string>, std::vector<RailValues>> rails;
    bool operator==(const StudyValues &) const = default;
};

/// Of one property; rails without a piece of their own that counts are left out.
std::vector<RailValues> railValuesOf(const Study &study, const PieceReadings &readings, Method test,
                                     const Property &property);
/// Of all tests of the study that are read.
StudyValues studyValuesOf(const Study &study, const PieceReadings &readings);

/// As JSON; numbers come back bit for bit.
std::string studyValuesText(const StudyValues &values);
/// Errors: BadInput.
Result<StudyValues> studyValuesFromText(std::string_view text);

} // namespace inchpeg
