// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/study/piece_reading.h"

#include "core/import/text.h"

namespace inchpeg
{

Result<PieceReading> readPiece(const ReadingJob &job)
{
    require(job.bytes != nullptr, "readPiece() without bytes");
    const Result<DecodedText> text = decodeText(*job.bytes);
    if (!text)
        return text.error();
    const Result<Layout> found = findLayout(text->utf8);
    if (!found)
        return found.error();
    const Result<Layout> layout = withMapping(*found, job.mapping);
    if (!layout)
        return layout.error();
    Result<ImportedCurve> imported = readForceCurve(text->utf8, *layout);
    if (!imported)
        return imported.error();
    Result<TensileResult> result = reduceTensile(imported->curve, job.parameters);
    if (!result)
        return result.error();
    return PieceReading{std::move(imported->curve), std::move(*result), std::move(imported->warnings)};
}

const PieceReading *readingOf(const PieceReadings &readings, PieceId piece)
{
    const auto found = readings.find(piece);
    if (found == readings.end() || !found->second->has_value())
        return nullptr;
    return &found->second->value();
}

} // namespace inchpeg
