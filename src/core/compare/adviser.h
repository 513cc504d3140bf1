// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"

#include <string>

namespace inchpeg
{

/// Why the rails are analysed as they are, in a sentence, from what the design and the values are like: their
/// scale, sizes, spread, bounds and ties; and in another what could be asked or done instead, where something
/// speaks for it. comparison: not of values alone. Empty where nothing is compared.
std::string adviceText(const Study &study, const StudyComparison &comparison);

} // namespace inchpeg
