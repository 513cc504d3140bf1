// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/import/mapping.h"
#include "core/method/method.h"
#include "core/text/notation.h"

#include <string>

namespace inchpeg
{

/// How far a record that took the place of given values differs from them: "Strength was given as 44.80
/// MPa, 1.2 % less than is read", of the first property that both have; empty where there is none.
std::string givenBesideText(const GivenRow &given, const Reading &read, const Reduction &reduction,
                            const Notation &notation = {});

} // namespace inchpeg
