// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/reading.h"
#include "core/model/study.h"
#include "core/text/notation.h"

#include <optional>
#include <string>

namespace inchpeg
{

/// The smallest difference that would change the decision, for one property of a study.
struct DifferenceThatMatters {
    double share = 0.0;             ///< of the reference's mean
    std::optional<double> absolute; ///< where it was said as a value of this property, in its working unit
};

/// A difference that was said as a value stays that value, whatever the reference turns out to reach; of
/// other properties, and where nothing of the reference is known yet, the share stands that it was when it
/// was said.
DifferenceThatMatters differenceThatMatters(const Study &study, Method test, const Property &property,
                                            const std::optional<double> &referenceMean);

/// As it was said: "10 %", "5 MPa".
std::string differenceThatMattersText(const DifferenceThatMatters &difference, const Property &property,
                                      const Notation &notation);

} // namespace inchpeg
