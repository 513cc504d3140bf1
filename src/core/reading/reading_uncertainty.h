// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/reading/reading_settings.h"

#include <string>

namespace inchpeg
{

/// Where a reading's inputs come from, for how surely they are known.
struct ReadingSource {
    const RecordTable &table;
    const MethodSettings &settings;
    const std::optional<UsedGauge> &gauge;
};

/// Gives each value of a reading its standard uncertainty: the reading is made again with each input moved by
/// its own standard uncertainty, and what that changes is added in squares.
///
/// Inputs: the sizes of the section (what their readings share, and each by itself), the scale of the gauge
/// (half of its calibration's expanded uncertainty) and its step as found in the record, as a rectangular
/// distribution; what the test itself is read by as surely as it is usually known
/// (Parameter::knownTo). A value that hangs on an input of which nothing is known (the extensometer, the
/// hammer) has no uncertainty, nor has a bound: better none than one that leaves out the most. Scatter
/// between pieces is no part of it. Source: JCGM 100:2008 (GUM), 5.1.2 and 5.1.4 note 2 (sensitivities by
/// differences), 4.3.7. docs/methods.md, section "Uncertainty of a value".
void addUncertainties(Reading &reading, const ReadingOrder &order, const ReadingSource &source,
                      const TaskRunner &run);

/// "span ± 0.12 mm": what is taken as usually known (k = 2); empty where the test has no such input.
std::string usuallyKnownText(const Reduction &reduction);

} // namespace inchpeg
