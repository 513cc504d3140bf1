// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>

namespace inchpeg
{

/// Something checked about a record, told whether it held or not.
struct Check {
    std::string rule;
    bool ok = true;
    std::string detail; ///< quantities in it are marked(), see core/text/notation.h
    bool operator==(const Check &) const = default;
};

} // namespace inchpeg
