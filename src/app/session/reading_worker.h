// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/study/piece_reading.h"

#include <QPromise>

#include <memory>
#include <string>
#include <vector>

namespace inchpeg::app
{

/// A record to be read, in values that another thread may hold.
struct StaleReading {
    PieceId piece;
    RawFileId file;
    ColumnMapping mapping;
    Result<TensileParameters> parameters;
};

struct ReadResult {
    PieceId piece;
    std::shared_ptr<const Result<PieceReading>> reading;
};

/// Reads records over a connection of its own and yields each as it is done; stops between two when
/// cancelled.
void readAll(QPromise<ReadResult> &promise, const std::string &projectPath,
             const std::vector<StaleReading> &stale);

} // namespace inchpeg::app
