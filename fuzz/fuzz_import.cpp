// SPDX-License-Identifier: GPL-3.0-or-later
// Any bytes as a force record: they are read or refused in words, and what is read can be reduced, kept and
// brought back.
#include "core/reading/piece_reading.h"
#include "core/reading/reading_text.h"
#include "core/text/notation.h"

#include <cmath>
#include <cstdint>
#include <cstdlib>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t *data, std::size_t size)
{
    using namespace inchpeg;
    // The last byte chooses the test; all are given whatever they may be read by.
    const auto reductions = allReductions();
    ReadingOrder order{reductions[size > 0 ? data[size - 1] % reductions.size() : 0], {}, {}, "A1"};
    order.settings.numbers = {{"width", 10.0},      {"thickness", 4.0}, {"gauge_length", 50.0},
                              {"span", 64.0},       {"stress", 1.8},    {"threshold", 1.0},
                              {"mass", 0.5},        {"arm", 300.0},     {"release", 150.0},
                              {"free_swing", 148.0}};
    if (size > 1 && data[size - 2] % 4 == 1) // some with markers by hand
        order.placed["strength"] = data[0];
    const auto bytes = std::make_shared<const std::string>(reinterpret_cast<const char *>(data), size);
    const Result<PieceReading> reading = readPiece({PieceId{1}, bytes, {}, order});
    if (!reading) {
        if (reading.error().message.empty())
            std::abort();
        return 0;
    }
    for (const ReadValue &value : reading->result.values) {
        if (std::isnan(value.number))
            std::abort(); // a value that does not exist is left out, never a NaN
    }
    const Notation notation;
    for (const std::string &warning : reading->result.warnings)
        static_cast<void>(notation.expand(warning));
    if (!readingFromText(readingText(*reading)))
        std::abort();
    return 0;
}
