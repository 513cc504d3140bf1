// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/reading.h"
#include "core/text/notation.h"

#include <string>

namespace inchpeg
{

/// A value of a property as it is shown: "12.3 N", "3.5" for a grade, "burning drips" for a word.
std::string valueText(const Property &property, double value, int digits, const Notation &notation);

} // namespace inchpeg
