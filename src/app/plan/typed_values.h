// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/unit.h"

#include <QString>

#include <fmt/format.h>

namespace inchpeg::app
{

/// A typed quantity above zero, in its working unit; without a unit of its own it is in the shown one.
/// Errors: those of parseQuantity(); InvalidArgument for zero and below.
inline Result<double> typedAboveZero(const QString &text, const Unit &shown)
{
    const Result<double> value = parseQuantity(text.toStdString(), shown);
    if (value && !(*value > 0.0))
        return invalidArgument(fmt::format("a {} above zero is wanted", dimensionName(shown.dimension)));
    return value;
}

} // namespace inchpeg::app
