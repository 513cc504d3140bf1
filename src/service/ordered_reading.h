// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/workshop.h"
#include "core/reading/piece_reading.h"

#include <optional>
#include <string>

namespace inchpeg
{

/// How a piece's record is to be read, and what tells whether a kept reading of it is still good; a value
/// that another thread may hold. Whoever reads records of a project begins here.
struct OrderedReading {
    PieceId piece;
    Recording recording;
    Result<ReadingOrder> order; ///< an error where it cannot be read as things stand
    std::string inputs;         ///< what the reading will have been made from
};

/// Nothing for a piece without a record.
std::optional<OrderedReading> orderReading(const Study &study, const Piece &piece, const Workshop &workshop);

/// Errors: those of the order and of the bytes.
Result<ReadingJob> jobFor(const OrderedReading &ordered, Result<std::string> bytes);

/// The readings that are kept in a project and still good; none where they cannot be had.
PieceReadings freshReadings(const std::string &projectPath, const Study &study, const Workshop &workshop);

} // namespace inchpeg
