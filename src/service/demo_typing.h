// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/method.h"

#include <string>
#include <string_view>

namespace inchpeg
{

/// The bytes of a record as one of the demo's people typed it, from a table with a heading: a row a morning.
std::string demoTypedRecord(Method method, const std::string &code, std::string_view table, char delimiter,
                            std::string_view gauge);

} // namespace inchpeg
