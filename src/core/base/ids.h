// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <utility> // brings the three-way comparison; the name of its own header confuses moc beside folders of it

namespace inchpeg
{

/// Row ids of different kinds do not mix. 0 stands for "not given yet".
template <typename Kind>
struct Id {
    std::int64_t value = 0;
    auto operator<=>(const Id &) const = default;
};
using StudyId = Id<struct StudyKind>;
using ConditionId = Id<struct ConditionKind>;
using PieceId = Id<struct PieceKind>;
using RawFileId = Id<struct RawFileKind>;

} // namespace inchpeg
