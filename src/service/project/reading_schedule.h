// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "service/project/reading_worker.h"

#include <QFutureWatcher>
#include <QObject>

#include <map>
#include <memory>
#include <string>
#include <vector>

namespace inchpeg
{

/// The readings of one study's records: which of them still hold, and the others made anew in other threads.
class ReadingSchedule : public QObject
{
    Q_OBJECT
public:
    explicit ReadingSchedule(QObject *parent = nullptr) : QObject(parent) {}
    ~ReadingSchedule() override;

    [[nodiscard]] const PieceReadings &readings() const { return m_readings; }
    [[nodiscard]] bool isReading() const { return m_watcher != nullptr; }
    /// Records that wait while nothing is being read.
    [[nodiscard]] std::size_t unreadCount(const Study &study) const;

    /// Reads every record that is new, or whose section, mapping, markers or rules changed. True where
    /// readings went and none are on their way: nobody is told of that by readingsChanged().
    bool update(const std::string &projectPath, const Study &study, const Workshop &workshop, bool mayKeep);
    /// Another study: nothing of it has been read.
    void beginAnew();
    /// Stops reading; what was read stays.
    void cancel();
    /// Waits until no reader holds the project's file: before it is closed or rewritten.
    void stop();

signals:
    void readingsChanged();
    void progressed(int done, int all);
    /// What was read is there; the rest can be asked for again.
    void failed(const inchpeg::Error &error);

private:
    void take(int index);
    void finish();
    void retire();

    std::map<PieceId, std::string> m_readFrom; ///< readingInputs() of each reading; others are stale
    PieceReadings m_readings;
    std::unique_ptr<QFutureWatcher<ReadResult>> m_watcher;
    /// Told to stop, not yet at their end.
    std::vector<std::unique_ptr<QFutureWatcher<ReadResult>>> m_retired;
};

} // namespace inchpeg
