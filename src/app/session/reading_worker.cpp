// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/reading_worker.h"

#include "store/raw_file_reader.h"

namespace inchpeg::app
{

namespace
{

Result<PieceReading> read(const StaleReading &job, Result<RawFileReader> &reader)
{
    if (!job.parameters)
        return job.parameters.error();
    if (!reader)
        return reader.error();
    Result<std::string> bytes = reader->bytes(job.file);
    if (!bytes)
        return bytes.error();
    return readPiece(
        {job.piece, std::make_shared<const std::string>(std::move(*bytes)), job.mapping, *job.parameters});
}

} // namespace

void readAll(QPromise<ReadResult> &promise, const std::string &projectPath,
             const std::vector<StaleReading> &stale)
{
    Result<RawFileReader> reader = RawFileReader::open(projectPath);
    for (const StaleReading &job : stale) {
        if (promise.isCanceled())
            return;
        promise.addResult(
            ReadResult{job.piece, std::make_shared<const Result<PieceReading>>(read(job, reader))});
    }
}

} // namespace inchpeg::app
