// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "service/ordered_reading.h"

#include <QPromise>

#include <memory>
#include <string>
#include <vector>

namespace inchpeg
{

struct ReadingTask {
    std::string projectPath;
    StudyId study;
    bool mayWrite = true; ///< readings are kept in the project
    std::vector<OrderedReading> stale;
};

struct ReadResult {
    PieceId piece;
    std::shared_ptr<const Result<PieceReading>> reading;
};

/// Yields the reading of each stale record: the one that is kept in the project where it is still good, else
/// it is made, on all cores, and kept. Tells its progress in records; stops between two when cancelled, and
/// keeps what was made so far.
void readAll(QPromise<ReadResult> &promise, const ReadingTask &task);

/// One piece's whole record, over a connection of its own.
Result<PieceRecord> readWholeRecord(const std::string &projectPath, const OrderedReading &wanted);

} // namespace inchpeg
