// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project/raw_intake.h"

#include "disk/file_bytes.h"
#include "store/raw_file_writer.h"

namespace inchpeg
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

KeptRawFiles keepAll(const std::string &projectPath, const std::vector<RawFileToKeep> &files,
                     const TaskControl &control)
{
    KeptRawFiles kept;
    try {
        Result<RawFileWriter> writer = RawFileWriter::open(projectPath);
        if (!writer)
            kept.status = writer.error();
        for (std::size_t i = 0; i < files.size() && kept.status && !control.stop.stop_requested(); ++i) {
            const Result<RawFileId> id = keepOne(*writer, files[i]);
            if (id)
                kept.ids.push_back(*id);
            else
                kept.status = id.error();
            control.progress(static_cast<int>(i) + 1, static_cast<int>(files.size()));
        }
    } catch (...) { // what was kept by then is told all the same
        kept.status = taskFailure(std::current_exception());
    }
    return kept;
}

} // namespace

RawIntake::RawIntake(QObject *parent) : QObject(parent)
{
    m_task.onProgress([this](int done, int all) { emit progressed(done, all); });
}

RawIntake::~RawIntake()
{
    stop();
}

void RawIntake::keep(const std::string &projectPath, std::vector<RawFileToKeep> files, Done done)
{
    m_orders.push_back({projectPath, std::move(files), std::move(done)});
    if (!m_task.isRunning())
        startNext();
}

void RawIntake::startNext()
{
    m_task.begin(
        "keeping",
        [path = m_orders.front().projectPath, files = m_orders.front().files](const TaskControl &control) {
            return keepAll(path, files, control);
        },
        [this](const Result<KeptRawFiles> &result) { finish(result); });
    emit busyChanged();
}

void RawIntake::finish(const Result<KeptRawFiles> &result)
{
    const KeptRawFiles kept = result ? *result : KeptRawFiles{{}, result.error()};
    const Done done = std::move(m_orders.front().done);
    m_orders.pop_front();
    if (m_orders.empty())
        emit busyChanged();
    else
        startNext();
    done(kept);
}

void RawIntake::stop()
{
    m_orders.clear();
    if (!m_task.isRunning())
        return;
    m_task.forget();
    emit busyChanged();
}

} // namespace inchpeg
