// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/reading.h"

#include <gtest/gtest.h>

#include <limits>

namespace inchpeg::test
{

/// A value that a reading must give; the test fails where it does not.
inline double readValue(const Reading &reading, std::string_view property)
{
    const ReadValue *value = valueOf(reading.values, property);
    EXPECT_NE(value, nullptr) << property << " was not read";
    return value != nullptr ? value->number : std::numeric_limits<double>::quiet_NaN();
}

} // namespace inchpeg::test
