// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/curve/force_curve.h"

#include <string>

namespace inchpeg::sim
{

/// The ways in which rigs write their records; each is one that the importer has to understand.
enum class Dialect {
    CommaUtf8,           ///< "time_s,force_N,extension_mm"
    SemicolonComma,      ///< decimal comma, units in brackets, CRLF, header block, Latin-1
    TabUtf16,            ///< units in a second row, UTF-16 with byte-order mark
    PoundsInches,        ///< lbf and inches, quoted fields
    KilogramForceSpaces, ///< hand gauge: kgf only, columns of blanks
    GroupedThousands,    ///< force in mN with grouped digits, semicolons
};

/// The bytes of a record as a rig of this dialect would write it. title goes into the header block, if any.
std::string recordBytes(const ForceCurve &curve, Dialect dialect, const std::string &title);

} // namespace inchpeg::sim
