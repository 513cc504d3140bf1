// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/ids.h"

#include <cstdint>
#include <vector>

namespace inchpeg::test
{

/// 1 to n.
inline std::vector<PieceId> piecesUpTo(std::int64_t n)
{
    std::vector<PieceId> pieces;
    for (std::int64_t i = 1; i <= n; ++i)
        pieces.push_back(PieceId{i});
    return pieces;
}

} // namespace inchpeg::test
