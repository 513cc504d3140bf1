// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/reading/piece_reading.h"

#include <string>
#include <string_view>

namespace inchpeg
{

/// A reading as one JSON object, without the points of its outline.
std::string readingText(const PieceReading &reading);
/// Errors: BadInput for a text that is no reading.
Result<PieceReading> readingFromText(std::string_view text);

} // namespace inchpeg
