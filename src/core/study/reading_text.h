// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/study/piece_reading.h"

#include <string>
#include <string_view>

namespace inchpeg
{

/// Everything that a reading depends on, as one line: the record, its mapping, the parameters and the version
/// of the method. Two equal lines give equal readings.
std::string readingInputs(const Recording &recording, const TensileParameters &parameters);

/// A reading as JSON, to be kept beside the data it was made from; every number comes back bit for bit.
std::string readingText(const PieceReading &reading);
/// Errors: BadInput where the text is not such a form.
Result<PieceReading> readingFromText(std::string_view text);

} // namespace inchpeg
