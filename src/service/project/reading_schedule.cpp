// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project/reading_schedule.h"

#include "service/beside/task.h"

#include <algorithm>
#include <set>

namespace inchpeg
{

ReadingSchedule::~ReadingSchedule()
{
    stop();
}

bool ReadingSchedule::update(const std::string &projectPath, const Study &study, const Workshop &workshop,
                             bool mayKeep)
{
    const bool wasReading = m_watcher != nullptr;
    retire();
    ReadingTask task{projectPath, study.id, mayKeep, {}};
    std::set<PieceId> recorded;
    for (const Piece &piece : study.pieces) {
        std::optional<OrderedReading> order = orderReading(study, piece, workshop);
        if (!order)
            continue;
        recorded.insert(piece.id);
        const auto known = m_readFrom.find(piece.id);
        if (known != m_readFrom.end() && known->second == order->inputs && m_readings.contains(piece.id))
            continue;
        m_readFrom[piece.id] = order->inputs;
        m_readings.erase(piece.id);
        task.stale.push_back(std::move(*order));
    }
    const std::size_t gone =
        std::erase_if(m_readings, [&](const auto &entry) { return !recorded.contains(entry.first); });
    if (task.stale.empty())
        return wasReading || gone > 0;
    m_watcher = std::make_unique<QFutureWatcher<ReadResult>>();
    connect(m_watcher.get(), &QFutureWatcherBase::resultReadyAt, this, &ReadingSchedule::take);
    connect(m_watcher.get(), &QFutureWatcherBase::finished, this, &ReadingSchedule::finish);
    const auto all = static_cast<int>(task.stale.size());
    connect(m_watcher.get(), &QFutureWatcherBase::progressValueChanged, this,
            [this, all](int done) { emit progressed(done, all); });
    handOver();
    m_watcher->setFuture(QtConcurrent::run(&readAll, std::move(task)));
    return false;
}

void ReadingSchedule::take(int index)
{
    takeHandedOver();
    const ReadResult result = m_watcher->resultAt(index);
    m_readings[result.piece] = result.reading;
}

void ReadingSchedule::finish()
{
    QFuture<ReadResult> future = m_watcher->future();
    m_watcher.release()->deleteLater(); // it is the sender of the signal that brought us here
    try {
        future.waitForFinished();
    } catch (...) {
        emit failed(taskFailure(std::current_exception()));
    }
    emit readingsChanged();
}

/// Readers that are no longer wanted are told to stop, and go when they have; nobody waits for them.
void ReadingSchedule::retire()
{
    if (!m_watcher)
        return;
    m_watcher->disconnect(this);
    m_watcher->cancel();
    std::erase_if(m_retired, [](const auto &watcher) { return watcher->isFinished(); });
    m_retired.push_back(std::move(m_watcher));
}

void ReadingSchedule::beginAnew()
{
    retire();
    m_readings.clear();
    m_readFrom.clear();
}

void ReadingSchedule::stop()
{
    retire();
    for (const auto &watcher : m_retired)
        watcher->waitForFinished();
    m_retired.clear();
}

void ReadingSchedule::cancel()
{
    if (!m_watcher)
        return;
    retire();
    emit readingsChanged();
}

std::size_t ReadingSchedule::unreadCount(const Study &study) const
{
    if (isReading())
        return 0;
    return static_cast<std::size_t>(
        std::count_if(study.pieces.begin(), study.pieces.end(), [this](const Piece &piece) {
            return piece.recording && !m_readings.contains(piece.id);
        }));
}

} // namespace inchpeg
