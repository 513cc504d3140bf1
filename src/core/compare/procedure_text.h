// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/text/notation.h"

#include <string>

namespace inchpeg
{

/// How the rails of a study were compared, in one sentence: the scale, whose scatter counts, and what holds
/// the intervals together. Empty where nothing was compared.
std::string procedureText(const StudyComparison &comparison, const Notation &notation = {});

/// "95 %", "97.5 %".
std::string confidenceText(double confidence, const Notation &notation = {});

} // namespace inchpeg
