// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/sizes.h"

#include <fmt/format.h>

namespace inchpeg
{

Status checkSizes(std::initializer_list<NamedSize> sizes)
{
    for (const auto &[name, size] : sizes) {
        if (!(in_mm(size) > 0.0))
            return invalidArgument(
                fmt::format("{} is {:g} mm; a measured length above zero is wanted", name, in_mm(size)));
    }
    return ok();
}

} // namespace inchpeg
