// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/session/raw_file_keeper.h"

#include "app/session/task.h"
#include "disk/file_bytes.h"
#include "store/raw_file_writer.h"

#include <QtConcurrentRun>

namespace inchpeg::app
{

namespace
{

Result<RawFileId> keepOne(RawFileWriter &writer, const RawFileToKeep &file)
{
    std::shared_ptr<const std::string> bytes = file.bytes;
    if (!bytes) {
        Result<std::string> read = readFileBytes(file.path);
        if (!read)
            return read.error();
        bytes = std::make_shared<const std::string>(std::move(*read));
    }
    const Result<AddedRawFile> added = writer.add(file.id, file.name, *bytes);
    if (!added)
        return added.error();
    return added->id;
}

/// Stopped by a token of its own: a promise that is cancelled would take no result any more.
void keepAll(QPromise<KeptRawFiles> &promise, const std::string &projectPath,
             const std::vector<RawFileToKeep> &files, const std::stop_token &stop)
{
    takeHandedOver();
    KeptRawFiles kept;
    promise.setProgressRange(0, static_cast<int>(files.size()));
    try {
        enterTask("keeping");
        Result<RawFileWriter> writer = RawFileWriter::open(projectPath);
        if (!writer)
            kept.status = writer.error();
        for (std::size_t i = 0; i < files.size() && kept.status && !stop.stop_requested(); ++i) {
            const Result<RawFileId> id = keepOne(*writer, files[i]);
            if (id)
                kept.ids.push_back(*id);
            else
                kept.status = id.error();
            promise.setProgressValue(static_cast<int>(i) + 1);
        }
    } catch (...) { // what was kept by then is told all the same
        kept.status = detail::taskFailure(std::current_exception());
    }
    handOver();
    promise.addResult(std::move(kept));
}

} // namespace

RawFileKeeper::RawFileKeeper(QObject *parent) : QObject(parent) {}

RawFileKeeper::~RawFileKeeper()
{
    stop();
}

void RawFileKeeper::keep(const std::string &projectPath, std::vector<RawFileToKeep> files, Done done)
{
    m_orders.push_back({projectPath, std::move(files), std::move(done)});
    if (!m_watcher)
        startNext();
}

void RawFileKeeper::startNext()
{
    m_watcher = std::make_unique<QFutureWatcher<KeptRawFiles>>();
    connect(m_watcher.get(), &QFutureWatcherBase::finished, this, &RawFileKeeper::finish);
    connect(m_watcher.get(), &QFutureWatcherBase::progressValueChanged, this,
            [this](int done) { emit progressed(done, static_cast<int>(m_orders.front().files.size())); });
    m_stop = std::stop_source();
    handOver();
    m_watcher->setFuture(QtConcurrent::run(&keepAll, m_orders.front().projectPath, m_orders.front().files,
                                           m_stop.get_token()));
    emit busyChanged();
}

void RawFileKeeper::finish()
{
    const Result<KeptRawFiles> result = taskResult(m_watcher);
    const KeptRawFiles kept = result ? *result : KeptRawFiles{{}, result.error()};
    const Done done = std::move(m_orders.front().done);
    m_orders.pop_front();
    if (m_orders.empty())
        emit busyChanged();
    else
        startNext();
    done(kept);
}

void RawFileKeeper::cancel()
{
    m_stop.request_stop();
}

void RawFileKeeper::stop()
{
    m_orders.clear();
    if (!m_watcher)
        return;
    m_stop.request_stop();
    m_watcher->disconnect(this);
    m_watcher->waitForFinished();
    m_watcher.reset();
    emit busyChanged();
}

} // namespace inchpeg::app
