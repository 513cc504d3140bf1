// SPDX-License-Identifier: GPL-3.0-or-later
// Any bytes as a force record: they are read or refused in words, and what is read can be reduced, kept and
// brought back.
#include "core/study/piece_reading.h"
#include "core/study/reading_text.h"
#include "core/text/notation.h"

#include <cmath>
#include <cstdint>
#include <cstdlib>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t *data, std::size_t size)
{
    using namespace inchpeg;
    TensileParameters parameters;
    parameters.area = squareMillimetres(10.0);
    parameters.gaugeLength = millimetres(50.0);
    if (size > 0 && data[size - 1] % 4 == 1) // some with markers by hand
        parameters.markers.strength = data[0];
    const auto bytes = std::make_shared<const std::string>(reinterpret_cast<const char *>(data), size);
    const Result<PieceReading> reading = readPiece({PieceId{1}, bytes, {}, parameters});
    if (!reading) {
        if (reading.error().message.empty())
            std::abort();
        return 0;
    }
    for (const TensileProperty &property : tensileProperties()) {
        const std::optional<double> value = reading->result.*property.value;
        if (value && std::isnan(*value))
            std::abort(); // a value that does not exist is empty, never a NaN
    }
    const Notation notation;
    for (const std::string &warning : reading->result.warnings)
        static_cast<void>(notation.expand(warning));
    if (!readingFromText(readingText(*reading)))
        std::abort();
    return 0;
}
