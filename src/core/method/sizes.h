// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/units/quantity.h"

#include <initializer_list>
#include <string_view>

namespace inchpeg
{

/// A size of the piece or its fixture, with the name of its parameter.
struct NamedSize {
    std::string_view name;
    Length size;
};

/// Errors: InvalidArgument that names the first size which is not above zero.
Status checkSizes(std::initializer_list<NamedSize> sizes);

} // namespace inchpeg
