// SPDX-License-Identifier: GPL-3.0-or-later
// How a need and its values are said: for the board, its fields and the sentences alike.
#pragma once

#include "core/decide/needs.h"
#include "core/text/notation.h"

#include <string>
#include <string_view>

namespace inchpeg
{

/// What limits of a need are shown and typed in: masses in g and times in min, as people say them of a print,
/// else the person's unit.
Unit needUnit(const Need &need, const Notation &notation);

/// "12.0 MPa", "3 of 5", "0.05 EUR", "can be printed". money: the workshop's; empty where it is not known.
std::string needValueText(const Need &need, double value, const Notation &notation,
                          std::string_view money = {});

/// "≥ 12.0 MPa × 2", "≤ 1.00 %, 1000 h", "≥ 65.0 °C at 0.450 MPa".
std::string needGateText(const Need &need, const Notation &notation, std::string_view money = {});

} // namespace inchpeg
