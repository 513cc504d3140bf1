// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/units/quantity.h"

#include <variant>

namespace inchpeg
{

struct RectangularSection {
    Length width;
    Length thickness;
    bool operator==(const RectangularSection &) const = default;
};
struct RoundSection {
    Length diameter;
    bool operator==(const RoundSection &) const = default;
};
struct PlainArea {
    Area area;
    bool operator==(const PlainArea &) const = default;
};

/// The measured cross-section of a piece.
using Section = std::variant<RectangularSection, RoundSection, PlainArea>;

/// Area of the cross-section: width × thickness, or π d² / 4.
/// Errors: InvalidArgument where a dimension is not positive.
Result<Area> areaOf(const Section &section);

} // namespace inchpeg
