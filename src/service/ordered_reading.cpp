// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/ordered_reading.h"

#include "store/kept_readings.h"

#include <map>

namespace inchpeg
{

std::optional<OrderedReading> orderReading(const Study &study, const Piece &piece, const Workshop &workshop)
{
    if (!piece.recording)
        return std::nullopt;
    Result<ReadingOrder> order = readingOrder(study, piece, workshop);
    const std::string inputs =
        order ? readingInputs(*piece.recording, *order) : "not readable: " + order.error().message;
    return OrderedReading{piece.id, *piece.recording, std::move(order), inputs};
}

Result<ReadingJob> jobFor(const OrderedReading &ordered, Result<std::string> bytes)
{
    if (!ordered.order)
        return ordered.order.error();
    if (!bytes)
        return bytes.error();
    return ReadingJob{ordered.piece,
                      std::make_shared<const std::string>(std::move(*bytes)),
                      ordered.recording.mapping,
                      *ordered.order,
                      ordered.recording.gauge,
                      inOrder};
}

PieceReadings freshReadings(const std::string &projectPath, const Study &study, const Workshop &workshop)
{
    PieceReadings readings;
    Result<KeptReadings> kept = KeptReadings::openForReading(projectPath);
    if (!kept)
        return readings;
    std::map<PieceId, const Piece *> pieces;
    for (const Piece &piece : study.pieces)
        pieces[piece.id] = &piece;
    const auto isFresh = [&](PieceId id, const std::string &inputs) {
        const auto piece = pieces.find(id);
        const auto ordered =
            piece != pieces.end() ? orderReading(study, *piece->second, workshop) : std::nullopt;
        return ordered && ordered->inputs == inputs;
    };
    const Status loaded = kept->load(study.id, isFresh, [&](KeptReading reading) {
        readings[reading.piece] = std::make_shared<const Result<PieceReading>>(std::move(reading.reading));
        return true;
    });
    return loaded ? readings : PieceReadings();
}

} // namespace inchpeg
